import { expect, test } from './app';

test('a customer wants another kind of assist: figures as they become known, margins, and a plan to hand over', async ({
  page,
  app,
}) => {
  await page.goto(`${app.url}/shelf`);
  await page.getByRole('link', { name: 'Fitting', exact: true }).click();
  await page.getByRole('button', { name: 'Begin a comparison' }).click();
  await expect(page.getByRole('alert').first()).toContainText('give it a name');
  await page.getByLabel('Vehicle').fill('Mail van 7');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { name: 'Mail van 7' })).toBeVisible();

  // A candidate with half of its figures is kept, and says what is missing.
  await page.getByRole('button', { name: 'Add a candidate' }).click();
  const form = page.getByRole('dialog');
  await form.getByLabel('Candidate').fill('Tollan can');
  await form.getByLabel(/^Length/).fill('270');
  await form.getByRole('button', { name: 'Save' }).click();
  const margins = page.getByRole('table', { name: 'Margins' });
  await expect(margins).toContainText('Not known yet');
  await expect(margins).toContainText('not ranked');

  // Its space is too short: missed, and nothing buys that back.
  await page.getByRole('button', { name: 'Figures of the vehicle' }).click();
  await form.getByLabel(/^Space: length/).fill('250');
  await form.getByRole('button', { name: 'Save' }).click();
  await expect(margins).toContainText('Does not fit');
  await expect(margins.getByRole('row', { name: /^Length, in its space/ })).toContainText('▬ Missed');
  await page.getByRole('button', { name: 'Figures of the vehicle' }).click();
  await form.getByLabel(/^Space: length/).fill('300');
  await form.getByRole('button', { name: 'Save' }).click();
  await expect(margins.getByRole('row', { name: /^Length, in its space/ })).toContainText('(10.0 %)');

  // What is handed over.
  await page.getByRole('link', { name: 'Fitting plan' }).click();
  const plan = page.getByRole('article', { name: 'Fitting plan' });
  await expect(plan).toContainText('Whether it fits is not known yet');
  await expect(plan).toContainText('Connect the pedal last');
  await expect(plan.getByRole('table', { name: 'Lines to cut' })).toContainText('against collapse');
});
