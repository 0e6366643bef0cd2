import { FAMILIES } from '../src/core/families/registry';
import { expect, test } from './app';
import { runOn, Technician } from './technician';

const family = FAMILIES['rod-servo'];
const SHORT = { hold_s: 10, standing_s: 10 };

test('a servo with a torn piston, by keyboard: cautions, drawing, force curve, stopwatch, reserve, report', async ({
  app,
  page,
}) => {
  test.setTimeout(300_000);
  const { run } = await runOn(app, 'SERVO', 'Tollan Lighter RS-12', SHORT);
  const torn = family.faults.find(({ id }) => id === 'torn-piston')!;
  const bench = await Technician.at(app, page, run.id, {
    parameters: torn.apply(family.healthy(run.context.profile).values, 0.7),
  });
  await page.goto(`${app.url}/runs/${run.id}`);
  await expect(
    page.getByText(/A rod or lever that moves with the force of the vacuum crushes/),
  ).toBeVisible();
  await expect(page.getByRole('img', { name: /Drawing of the unit/ })).toBeVisible();
  await bench.until('pull.time');
  await expect(page.getByText('Stopwatch, s')).toBeVisible();
  await bench.until('force.2.output');
  const curve = page.getByRole('img', { name: /Rod force against fluid pressure: 1 points captured/ });
  await expect(curve).toBeVisible();
  await page.keyboard.press('F10');
  await expect(page.getByRole('img', { name: 'Drawing of the unit, Rod force marked' })).toBeVisible();
  await page.keyboard.press('F10');
  await expect(curve).toBeVisible();
  await bench.until('done');
  await page.goto(`${app.url}/runs/${run.id}/report`);
  const report = page.getByRole('article', { name: 'Report' });
  await expect(report.getByText('The unit fails')).toBeVisible();
  const row = report.getByRole('row', { name: /^Effective area/ });
  await expect(row).toContainText('Fails');
  await expect(row).toContainText('cm²');
  await expect(report.getByRole('img', { name: /full lift of a healthy unit/ })).toBeVisible();
});

test('a profile of another kind of unit is begun from its own typical figures', async ({ app, page }) => {
  await page.goto(`${app.url}/shelf/profiles/new`);
  await page.getByLabel('Kind of unit').click();
  await page.getByRole('option', { name: 'Rod-acting vacuum servo with tank' }).click();
  await expect(page.getByLabel('Lever length, mm')).toHaveValue('140');
  await page.getByLabel('Name', { exact: true }).fill('Varnholt Bargee 4');
  await page.getByLabel('Full lift of the valve, bar').fill('1');
  await page.getByRole('button', { name: /Save/ }).click();
  await expect(page.getByText('Full lift must come after crack.')).toBeVisible();
  await page.getByLabel('Full lift of the valve, bar').fill('7,5');
  await page.getByRole('button', { name: /Save/ }).click();
  await expect(page.getByRole('cell', { name: 'Varnholt Bargee 4' })).toBeVisible();
});
