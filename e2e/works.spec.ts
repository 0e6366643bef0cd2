import type { Page } from '@playwright/test';
import type { StoredProfile } from '../src/core/records/views';
import { expect, test } from './app';

const stage = (page: Page) => page.getByTestId('stage');
const part = (page: Page, id: string) => page.getByTestId(`part-${id}`);
/** The number before its unit. */
const numberIn = async (page: Page, id: string) => Number.parseFloat((await part(page, id).textContent())!);

test('an apprentice is shown a booster stage by stage, by keys alone, and what a fault changes', async ({
  page,
  app,
}) => {
  await page.goto(`${app.url}/shelf`);
  await page.getByRole('link', { name: 'How it works' }).click();
  await page.getByRole('combobox', { name: 'Kind of unit' }).click();
  await page.getByRole('option', { name: 'Pedal-mounted vacuum booster' }).click();
  await expect(stage(page)).toContainText('At rest the vacuum port is open');
  await expect(part(page, 'vacuumPort')).toHaveText('100.0 %');

  // Stage by stage, whatever the clock does: paused, and on to the next.
  await page.keyboard.press(' ');
  await page.keyboard.press('p');
  for (const says of ['air comes through the filter', 'pushes back on the foot', 'stand in their ratio']) {
    await page.keyboard.press('n');
    await expect(stage(page)).toContainText(says);
  }
  expect(await numberIn(page, 'airPort')).toBeLessThan(2.1);
  const held = await numberIn(page, 'rod');
  expect(held).toBeGreaterThan(0.5);
  // The drawing stands where the numbers say: 36 px at 16 mm, for rod and master.
  const drawn = await page.locator('svg [data-part=master]').getAttribute('transform');
  expect(Number(/translate\(([\d.]+)/.exec(drawn!)![1])).toBeCloseTo((36 * held) / 16, 0);
  const stands = await stage(page).textContent();
  await page.waitForTimeout(400);
  expect(await stage(page).textContent()).toBe(stands);
  await page.keyboard.press('n');
  await page.keyboard.press('n');
  await expect(stage(page)).toContainText('it can push no harder');

  // With a fault the same shows what no longer happens, and a healthy one beside it.
  await page.getByRole('combobox', { name: 'Fault' }).click();
  await page.getByRole('option', { name: 'torn diaphragm' }).click();
  await page.getByRole('button', { name: 'Show an application' }).click();
  for (let i = 0; i < 4; i += 1) await page.keyboard.press('n');
  await expect(page.getByText(/^healthy /).first()).toBeVisible();
  await expect(page.getByText('Confirmed by:')).toBeVisible();
});

test('the pedal and what feeds it are in hand: without vacuum the foot is alone', async ({ page, app }) => {
  await page.goto(`${app.url}/shelf/works?kind=vacuum-vehicle`);
  await page.getByRole('button', { name: 'As in life' }).click();
  await page.getByRole('button', { name: 'Begin with nothing on' }).click();
  await expect(stage(page)).toContainText('There is no vacuum');
  const pedal = page.getByRole('slider', { name: 'Pedal' });
  await pedal.focus();
  await page.keyboard.press('End');
  // A whole push by the foot alone: the picture of a slow machine may take a while to come to rest.
  let alone = 0;
  await expect
    .poll(
      async () => {
        const before = alone;
        alone = await numberIn(page, 'frontBrakes');
        return alone > 1 && alone === before;
      },
      { intervals: [500] },
    )
    .toBe(true);
  await page.getByRole('button', { name: 'Switch its feed on' }).click();
  await expect.poll(() => numberIn(page, 'frontBrakes')).toBeGreaterThan(2 * alone);
});

test('a fault that moves nothing is said to show elsewhere', async ({ page, app }) => {
  await page.goto(`${app.url}/shelf/works?kind=remote-vacuum`);
  await page.getByRole('combobox', { name: 'Fault' }).click();
  await page
    .getByRole('option', { name: /end cap/i })
    .first()
    .click();
  await page.getByRole('button', { name: 'Show an application' }).click();
  for (let i = 0; i < 9; i += 1) await page.keyboard.press('n');
  await expect(page.getByText('moves as in a healthy one')).toBeVisible();
});

test('who asked for less motion sees it stand, and goes on step by step', async ({ page, app }) => {
  await page.emulateMedia({ reducedMotion: 'reduce' });
  await page.goto(`${app.url}/shelf/works?kind=rod-servo`);
  await page.getByRole('button', { name: 'Show an application' }).click();
  const before = await part(page, 'piston').textContent();
  await page.waitForTimeout(800);
  expect(await part(page, 'piston').textContent()).toBe(before);
  await page.keyboard.press('n');
  await expect(stage(page)).toContainText('three lands at once');
});

test('a profile of the shelf is shown with its own figures', async ({ page, app }) => {
  const profiles = await app.get<StoredProfile[]>('/profiles');
  const own = profiles.find(({ kind }) => kind === 'remote-vacuum')!;
  await page.goto(`${app.url}/shelf/profiles/${own.id}`);
  await page.getByRole('link', { name: 'How it works' }).click();
  await expect(page.getByRole('link', { name: `Typical figures instead of ${own.body.name}` })).toBeVisible();
  await expect(stage(page)).toContainText('the same vacuum');
});

test('failed assist: effort, bore and piston area against metres, with one hand on a slider', async ({
  page,
  app,
}) => {
  await page.goto(`${app.url}/shelf/failed-assist`);
  const metres = async () => Number.parseFloat((await page.getByTestId('metres').textContent())!);
  const foot = page.getByRole('slider', { name: 'Pedal force' });
  const first = await metres();
  await foot.focus();
  await page.keyboard.press('PageUp');
  await expect.poll(metres).toBeLessThan(first);
  await page.keyboard.press('Home');
  await expect(page.getByTestId('metres')).toHaveText('No stop');
  await page.keyboard.press('End');
  await expect(page.getByText('More than the 500 N')).toBeVisible();
  await page.getByRole('button', { name: 'Back to the figures as they were' }).click();
  await expect.poll(metres).toBe(first);
  // A larger bore: less pressure, more metres.
  await page.getByRole('slider', { name: 'Master cylinder bore' }).focus();
  for (let i = 0; i < 6; i += 1) await page.keyboard.press('PageUp');
  await expect.poll(metres).toBeGreaterThan(first);

  // Something that cannot be is said at its field, and nothing typed is lost.
  await page.getByLabel('Mass, laden').fill('1400 tons');
  await expect(page.getByText('Some fields need another look.')).toBeVisible();
  await expect(page.getByLabel('Mass, laden')).toHaveValue('1400 tons');

  // A vehicle of the shelf brings its own figures.
  await page.getByRole('combobox', { name: 'Figures of' }).click();
  await page.getByRole('option').nth(1).click();
  await expect(page.getByLabel('Mass, laden')).not.toHaveValue('1400 tons');
  await expect.poll(metres).toBeGreaterThan(0);
});
