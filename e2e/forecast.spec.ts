import { expect, test } from './app';

test('the gas of an accumulator by its unit’s history: due on the Bench, in the calendar, with every reading on the job', async ({
  app,
  page,
}) => {
  await page.goto(app.url);
  const due = page.getByText(
    /Shuttle taxi 8, accumulator: read the pre-charge again by \d{4}-\d\d-\d\d, in \d+ days/,
  );
  await expect(due).toBeVisible();
  await expect(due).toContainText(/4 readings: it falls by \d\.\d bar a year and is at 63\.0 bar about/);
  const [, day] = /again by (\S+),/.exec(await due.innerText())!;
  const calendar = (await (await fetch(`${app.url}/api/v1/due.ics`)).text()).replace(/\r\n\s/g, '');
  expect(calendar).toContain(`DTSTART;VALUE=DATE:${day!.replaceAll('-', '')}`);
  expect(calendar).toContain('SUMMARY:Read the pre-charge again: GF-0436');
  await page.getByRole('link', { name: 'GF-0436' }).click();
  const history = page.getByRole('region', { name: 'Pre-charge over the years' });
  await expect(history.getByRole('row')).toHaveCount(4);
  await expect(history.getByRole('row').last()).toContainText('GF-0436');
  await history.getByRole('link', { name: 'GF-0302' }).click();
  await expect(page.getByRole('heading', { name: /^GF-0302/ })).toBeVisible();
  // One history, from whichever visit it is looked at.
  await expect(history.getByRole('row')).toHaveCount(4);
});
