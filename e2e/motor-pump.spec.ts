import { expect, test } from './app';
import { advised, readSoFar, Technician } from './technician';

const SHUTTLE = 'Tollan Shuttle EB-3';

test('a pump with a worn motor: its current is read with the accumulator beside it, and the advice finds it', async ({
  app,
  page,
}) => {
  test.setTimeout(300_000);
  const { run, truth } = await readSoFar(app, SHUTTLE, 'PUMP-51', ['motor-worn', 0.8], 'battery.volts');
  const bench = await Technician.at(app, page, run, truth);
  await page.goto(`${app.url}/runs/${run}`);
  await expect(page.getByRole('img', { name: 'Drawing of the unit, Battery marked' })).toBeVisible();
  await bench.until('feed.current');
  // What is stored is live, with what it stands at; what is expected leans on it.
  await expect(page.getByText(/^Power on, 15\d\.\d bar$/)).toBeVisible();
  await expect(page.getByRole('img', { name: 'Drawing of the unit, Current marked' })).toBeVisible();
  await bench.until('switch.wait');
  const pane = await advised(app, page, run);
  await expect(pane.getByRole('list', { name: 'Causes' }).getByRole('listitem').first()).toContainText(
    /pump motor worn/i,
  );
});

test('a pressure switch set low: emptied behind the check valve before anything is opened, and the report tells it from gas, pump and booster', async ({
  app,
  page,
}) => {
  test.setTimeout(300_000);
  const { run, truth } = await readSoFar(app, SHUTTLE, 'PUMP-52', ['switch-low', 0.6], 'dry');
  const bench = await Technician.at(app, page, run, truth);
  await page.goto(`${app.url}/runs/${run}`);
  await bench.until('safe.supply');
  await expect(page.getByText(/its check valve holds what is stored/)).toBeVisible();
  await bench.until('done');
  await page.goto(`${app.url}/runs/${run}/report`);
  const report = page.getByRole('article', { name: 'Report' });
  await expect(report.getByText('The booster fails')).toBeVisible();
  for (const name of [/^Switched on at/, /^Switched off at/])
    await expect(report.getByRole('row', { name }).first()).toContainText('Fails');
  for (const name of [/^Flick-up of the accumulator/, /^Lost in the feed/, /^Pressure at force 3/])
    await expect(report.getByRole('row', { name })).toContainText('Meets');
});
