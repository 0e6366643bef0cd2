import type { Settings } from '../src/core/shop/settings';
import type { Stored, StoredInstrument, StoredProfile } from '../src/core/records/views';
import { App, expect, test } from './app';
import { pick } from './pick';

test('a profile is copied, changed in the unit typed, refused with a sentence, and saved', async ({
  app,
  page,
}) => {
  await page.goto(`${app.url}/shelf`);
  await page
    .getByRole('row', { name: /Tollan RV-230/ })
    .getByRole('link', { name: 'Copy' })
    .click();
  await expect(page.getByRole('heading', { name: 'Copy of Tollan RV-230' })).toBeVisible();
  await page.getByLabel('Name').fill('Varnholt 9');
  await page.getByLabel('Slave bore, mm').fill('0.75 in');
  await page.getByLabel('Push rod diameter, mm').fill('25');
  await page.getByLabel('Bypass inputs, bar').fill('20; 15; 60');
  await page.keyboard.press('F8');
  await expect(page.getByText('Bypass inputs: write them in rising order.')).toBeVisible();
  await page.getByLabel('Bypass inputs, bar').fill('20; 40; 110');
  await page.keyboard.press('F8');
  await expect(page.getByText('The push rod must be thinner than the slave bore.')).toBeVisible();
  await page.getByLabel('Push rod diameter, mm').fill('6,5');
  await page.getByLabel('Proof limit, bar').fill('1,400');
  await page.keyboard.press('F8');
  await expect(page.getByText(/can be read as .* or 1400\.0 bar/)).toBeVisible();
  await page.getByLabel('Proof limit, bar').fill('140');
  await page.keyboard.press('F8');
  await expect(page.getByRole('link', { name: 'Varnholt 9' })).toBeVisible();
  const saved = (await app.get<StoredProfile[]>('/profiles')).find(({ body }) => body.name === 'Varnholt 9')!;
  const body = saved.body as unknown as Record<string, number> & { bypassInputs_Pa: number[] };
  expect(body.slaveBore_m).toBeCloseTo(0.75 * 0.0254, 9);
  expect(body.rodDiameter_m).toBeCloseTo(0.0065, 9);
  expect(body.bypassInputs_Pa).toEqual([20e5, 40e5, 110e5]);
});

test('an instrument is added in its own units; a tag is used once; two screens do not overwrite each other', async ({
  app,
  page,
}) => {
  await page.goto(`${app.url}/shelf/instruments/new`);
  await page.getByLabel('Tag').fill('G-11');
  await page.getByLabel('Reads').click();
  await pick(page, { name: 'Vacuum' });
  await page.getByLabel('Full scale, inHg').fill('30');
  await page.getByLabel('Accuracy').click();
  await pick(page, { name: 'EN 837-1 class 1.6' });
  await page.getByLabel('Smallest readable step, inHg').fill('0.5');
  await page.keyboard.press('F8');
  await expect(page.getByText('Another instrument has this tag already.').first()).toBeVisible();
  await page.getByLabel('Tag').fill('V-77');
  await page.keyboard.press('F8');
  await expect(page.getByRole('link', { name: 'V-77' })).toBeVisible();
  const made = (await app.get<StoredInstrument[]>('/instruments')).find(({ body }) => body.tag === 'V-77')!;
  expect(made.body.fullScale_Pa).toBeCloseTo(30 * 3386.389, 3);

  await page.getByRole('link', { name: 'V-77' }).click();
  await expect(page.getByLabel('Description')).toBeVisible();
  await fetch(`${app.url}/api/v1/instruments/${made.id}`, {
    method: 'PUT',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ version: made.version, body: { ...made.body, name: 'Changed elsewhere' } }),
  });
  await page.getByLabel('Description').fill('Changed here');
  await page.keyboard.press('F8');
  await expect(page.getByText(/changed on another screen while you were editing/)).toBeVisible();
  await expect(page.getByText('Changed elsewhere')).toBeVisible();
  await expect(page.getByLabel('Description')).toHaveValue('Changed here');
  await page.getByRole('button', { name: 'Save mine over it' }).click();
  await expect(page.getByRole('link', { name: 'V-77' })).toBeVisible();
  const now = (await app.get<StoredInstrument[]>('/instruments')).find(({ body }) => body.tag === 'V-77')!;
  expect(now.body.name).toBe('Changed here');
});

test('the unit set, the altitude and the capture key are settings', async ({ page }) => {
  const app = await App.start({ demo: true });
  try {
    await page.goto(`${app.url}/shelf/settings`);
    await page.getByLabel('Units').click();
    await pick(page, { name: 'psi and inHg' });
    await page.getByLabel('Altitude, m').fill('1 600');
    await page.getByLabel('Capture key').focus();
    await page.keyboard.press('F11');
    await page.getByLabel('Take-back key').focus();
    await page.keyboard.press('F11');
    await page.getByRole('button', { name: /Save the settings/ }).click();
    await expect(page.getByText('The capture key and the take-back key must differ.')).toBeVisible();
    await page.getByLabel('Take-back key').focus();
    await page.keyboard.press('F9');
    await page.getByRole('button', { name: /Save the settings/ }).click();
    await expect(page.getByText('Saved.')).toBeVisible();
    await expect(page.getByText('24.7 inHg')).toBeVisible();
    const { body } = await app.get<Stored<Settings>>('/settings');
    expect(body).toMatchObject({ unitSet: 'imperial', altitude_m: 1600, captureKey: 'F11' });
    await page.goto(app.url);
    await page.getByRole('link', { name: 'Go on' }).first().click();
    await expect(page.getByText(/Expect 1044 psi/)).toBeVisible();
    await page.locator('#reading').fill('1044');
    await page.waitForTimeout(850);
    await page.keyboard.press('F11');
    await expect(page.getByRole('list', { name: 'Tape' }).getByText(/Out 104\d ± \d+ psi/)).toBeVisible();
  } finally {
    await app.end();
  }
});

test('how often a fault is met is changed with who and why, and its history is shown', async ({
  app,
  page,
}) => {
  await page.goto(`${app.url}/shelf/faults`);
  const first = page.getByRole('button', { name: /^Change how often it is met/ }).first();
  await first.click();
  const dialog = page.getByRole('dialog');
  await dialog.getByLabel(/^How often it is met, as a weight/).fill('20');
  await dialog.getByRole('button', { name: 'Change it' }).click();
  await expect(dialog.getByText('By: who says so.')).toBeVisible();
  await dialog.getByLabel('By').fill('A. Technician');
  await dialog.getByLabel('Why').fill('Seen often this winter');
  await dialog.getByRole('button', { name: 'Change it' }).click();
  await expect(dialog).toBeHidden();
  await expect(
    page.getByText(/20 here; the handbook has .*A\. Technician.*Seen often this winter/),
  ).toBeVisible();
  // What counted before stays: the change is in the history of the fault.
  await first.click();
  await expect(dialog.getByRole('list', { name: 'Changes' })).toContainText('Seen often this winter');
  await dialog.getByRole('button', { name: 'Leave it' }).click();
  await expect(dialog).toBeHidden();
});
