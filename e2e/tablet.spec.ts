import type { Page } from '@playwright/test';
import type { StoredJob } from '../src/core/records/views';
import { violations } from './accessible';
import { App, expect, test } from './app';
import { newRun, Technician } from './technician';

/** Least size of anything that a finger has to hit, px. */
const FINGER = 44;

/** Buttons, fields and sliders that are too small for a finger; a link within a sentence is none of them. */
const tooSmall = (page: Page) =>
  page.evaluate((least) => {
    const targets = document.querySelectorAll(
      'button, a.MuiButton-root, input:not([type=file], [aria-hidden]), [role=combobox], .MuiPickersInputBase-root',
    );
    return [...targets].flatMap((target) => {
      // A field is as large as its frame; a switch or slider as what can be pressed around it.
      const frame =
        target.closest('.MuiInputBase-root, .MuiCheckbox-root, .MuiSwitch-root, .MuiSlider-root, label') ??
        target;
      const { width, height } = frame.getBoundingClientRect();
      const seen = width > 0 && height > 0 && getComputedStyle(target).visibility !== 'hidden';
      const name = target.getAttribute('aria-label') ?? target.textContent?.trim().slice(0, 30) ?? target.id;
      return seen && (height < least - 0.5 || width < least - 0.5)
        ? [`${name}: ${Math.round(width)} × ${Math.round(height)}`]
        : [];
    });
  }, FINGER);

const cut = (page: Page) =>
  page.evaluate(() => {
    const bench = document.querySelector('[aria-label="Simulated bench"]')!;
    const pane = document.querySelector('[aria-label="Step"]')!.getBoundingClientRect();
    return bench.getBoundingClientRect().bottom - pane.bottom;
  });

test.use({ viewport: { width: 820, height: 1180 }, hasTouch: true });

test('a finger hits what it aims for, on every page that is worked with', async ({ app, page }) => {
  const { jobs } = await app.get<{ jobs: StoredJob[] }>('/jobs?q=GF-04');
  const job = jobs.find(({ body }) => body.tag === 'GF-0418')!;
  const run = jobs.find(({ body }) => body.tag === 'GF-0423')!.runs[0]!;
  const pages = [
    '/',
    '/jobs',
    '/jobs/new',
    `/jobs/${job.id}`,
    `/runs/${run.id}`,
    '/traces',
    '/shelf',
    '/shelf/settings',
  ];
  for (const where of pages) {
    await page.goto(app.url + where);
    await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
    expect(await tooSmall(page), where).toEqual([]);
  }
});

test('the number pad comes with a tap on the field, stands beside the gauges, and is remembered', async ({
  app,
  page,
}) => {
  const { run } = await newRun(app, 'PAD');
  await page.goto(`${app.url}/runs/${run.id}`);
  const technician = await Technician.at(app, page, run.id);
  await technician.until('bypass.1.input');
  const pad = page.getByRole('group', { name: 'Number pad' });
  await expect(pad).toBeHidden();
  await page.locator('#reading').tap();
  await expect(pad).toBeVisible();
  await expect(page.getByRole('region', { name: 'Gauges' })).toBeVisible();
  for (const key of await pad.getByRole('button').all()) {
    const { width, height } = (await key.boundingBox())!;
    expect(Math.min(width, height)).toBeGreaterThanOrEqual(64);
  }
  for (const key of ['2', '0', ',', '1']) await pad.getByRole('button', { name: key, exact: true }).tap();
  await expect(page.locator('#reading')).toHaveValue('20,1');
  // What is typed stays through a reload, and so does the pad.
  await page.reload();
  await expect(pad).toBeVisible();
  await expect(page.locator('#reading')).toHaveValue('20,1');
  // Leaving by Esc and coming back loses nothing either.
  await page.keyboard.press('Escape');
  await expect(page).toHaveURL(/\/jobs\//);
  await page.goto(`${app.url}/runs/${run.id}`);
  await expect(page.locator('#reading')).toHaveValue('20,1');
  expect((await technician.next()).action).toMatchObject({ kind: 'item', item: { id: 'bypass.1.input' } });
});

test('on the simulated bench nothing is cut, the toggles can be read in both themes, and its hands are as left', async ({
  page,
}) => {
  const app = await App.start({ demo: true, live: true });
  try {
    const { jobs } = await app.get<{ jobs: StoredJob[] }>('/jobs');
    const run = jobs.find(({ body }) => body.tag === 'GF-0423')!.runs[0]!;
    await page.goto(`${app.url}/runs/${run.id}`);
    await expect(page.getByText('Simulated bench reads')).toBeVisible();
    expect(await app.post('/live/hands', { hands: { valve: 'shut' } })).toMatchObject({ ok: true });
    await page.reload();
    const bench = page.getByRole('region', { name: 'Simulated bench' });
    await expect(bench.getByRole('button', { name: 'Shut', exact: true })).toHaveAttribute(
      'aria-pressed',
      'true',
    );
    expect(await cut(page)).toBeLessThanOrEqual(0);
    expect(await tooSmall(page)).toEqual([]);
    for (const colorScheme of ['light', 'dark'] as const) {
      await page.emulateMedia({ colorScheme, reducedMotion: 'reduce' });
      await page.reload();
      await expect(bench).toBeVisible();
      expect(await violations(page), colorScheme).toEqual([]);
    }
  } finally {
    await app.end();
  }
});

test('Esc in a dialog drops nothing that was typed', async ({ app, page }) => {
  const { job } = await newRun(app, 'ESC-1');
  await page.goto(`${app.url}/jobs/${job.id}`);
  await page.getByRole('button', { name: /^Finding/ }).click();
  const dialog = page.getByRole('dialog');
  await dialog.getByRole('textbox').first().fill('Weeps at the end cap');
  await page.keyboard.press('Escape');
  await expect(dialog.getByText(/What is typed here stays/)).toBeVisible();
  await expect(dialog.getByRole('textbox').first()).toHaveValue('Weeps at the end cap');
  await dialog.getByRole('button', { name: 'Leave it' }).click();
  await expect(dialog).toBeHidden();
});
