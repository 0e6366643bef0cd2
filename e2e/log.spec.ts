import { expect, test } from './app';
import { pick } from './pick';

test('a log in a unit that is not known is not read before its unit is chosen or the column left out', async ({
  app,
  page,
}) => {
  await page.goto(`${app.url}/traces/new`);
  const rows = Array.from({ length: 40 }, (_, i) => `${i},${i * 2},${i * 7},${20}`);
  await page.locator('input[type=file]').setInputFiles({
    name: 'north quay.csv',
    mimeType: 'text/csv',
    buffer: Buffer.from(['t_s,Input [bar],Output [furlong],Pull [kip]', ...rows, ''].join('\n')),
  });
  const read = page.getByRole('button', { name: 'Read and analyse' });
  await expect(page.getByText('“Output” is in “furlong”, a unit that is not known here')).toBeVisible();
  await expect(read).toBeDisabled();
  await page.getByRole('button', { name: 'Leave “Pull” out' }).click();
  await expect(read).toBeDisabled();
  await page.getByRole('combobox', { name: /^Unit/ }).nth(1).click();
  await pick(page, { name: 'bar', exact: true });
  await expect(page.getByText(/not known here/)).toHaveCount(0);
  await read.click();
  await expect(page.getByRole('heading', { name: 'north quay' })).toBeVisible();
});
