import { expect, test } from './app';
import { advised, readSoFar, Technician } from './technician';

const DUAL = 'Esk & Moor Summit DV-16';

test('a pedal valve of which one accumulator has lost its gas: two circuits on the screen, its flick-up found by the advice', async ({
  app,
  page,
}) => {
  test.setTimeout(300_000);
  const { run, truth } = await readSoFar(app, DUAL, 'VALVE-41', ['gas-loss-2', 0.5], 'flick.supply');
  const bench = await Technician.at(app, page, run, truth);
  await page.goto(`${app.url}/runs/${run}`);
  await expect(page.getByRole('img', { name: 'Drawing of the unit, Accumulator 1 marked' })).toBeVisible();
  for (const gauge of ['A-81', 'A-82', 'C-84', 'C-85'])
    await expect(page.getByText(gauge, { exact: true }).first()).toBeInViewport();
  await bench.until('oil.warm');
  // What is stored is live, with what it stands at.
  await expect(page.getByText('Pump on, 155.0 bar')).toBeVisible();
  await expect(page.getByText('Expect 40 °C · at least 30 °C')).toBeVisible();
  const pane = await advised(app, page, run);
  await expect(pane.getByRole('list', { name: 'Causes' }).getByRole('listitem').first()).toContainText(
    /gas lost from accumulator 2/i,
  );
});

test('emptied and read at zero behind both check valves before anything is opened; the report says which circuit falls short', async ({
  app,
  page,
}) => {
  test.setTimeout(300_000);
  const { run, truth } = await readSoFar(app, DUAL, 'VALVE-42', ['gas-loss-2', 0.5], 'metal-return');
  const bench = await Technician.at(app, page, run, truth);
  await page.goto(`${app.url}/runs/${run}`);
  await bench.until('safe.supply');
  // Charged still, with the pump off: that is said until both gauges were read at zero.
  await expect(page.getByText('Fully charged', { exact: true })).toBeVisible();
  await expect(page.getByText(/their check valves hold what is stored/)).toBeVisible();
  await bench.until('done');
  await page.goto(`${app.url}/runs/${run}/report`);
  const report = page.getByRole('article', { name: 'Report' });
  await expect(report.getByText('The unit fails')).toBeVisible();
  for (const name of [/^Flick-up, accumulator 2/, /^Full applications above the lamp, circuit 2/])
    await expect(report.getByRole('row', { name })).toContainText('Fails');
  for (const name of [/^Flick-up, accumulator 1/, /^Circuit 2 at travel 4/, /^Accumulator 1 after standing/])
    await expect(report.getByRole('row', { name })).toContainText('Meets');
});
