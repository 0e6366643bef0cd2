import AxeBuilder from '@axe-core/playwright';
import type { Page } from '@playwright/test';
import type { StoredInstrument, StoredJob, StoredProfile } from '../src/core/records/views';
import { App, expect, test } from './app';
import { newRun, Technician } from './technician';

/** Every screen, with demo data behind it. */
async function screens(app: App): Promise<Record<string, string>> {
  const jobs = (await app.get<{ jobs: StoredJob[] }>('/jobs')).jobs;
  const job = (tag: string) => jobs.find(({ body }) => body.tag === tag)!;
  const [profile] = await app.get<StoredProfile[]>('/profiles');
  const [instrument] = await app.get<StoredInstrument[]>('/instruments');
  return {
    bench: '/',
    jobs: '/jobs',
    intake: '/jobs/new',
    'job sheet': `/jobs/${job('GF-0418').id}`,
    'before and after': `/jobs/${job('GF-0418').id}/compare`,
    'installation sheet': `/jobs/${job('GF-0418').id}/installation`,
    'installation sheet not confirmed': `/jobs/${job('GF-0421').id}/installation`,
    'jobs, none found': '/jobs?q=nothingofthatname',
    'read a job file': '/jobs/import',
    'job not tested': `/jobs/${job('GF-0425').id}`,
    'change a job': `/jobs/${job('GF-0412').id}/edit`,
    run: `/runs/${job('GF-0423').runs[0]!.id}`,
    'run finished': `/runs/${job('GF-0412').runs[0]!.id}`,
    report: `/runs/${job('GF-0415').runs[0]!.id}/report`,
    'report so far': `/runs/${job('GF-0423').runs[0]!.id}/report`,
    shelf: '/shelf',
    profile: `/shelf/profiles/${profile!.id}`,
    'new profile': '/shelf/profiles/new',
    instrument: `/shelf/instruments/${instrument!.id}`,
    'new instrument': '/shelf/instruments/new',
    settings: '/shelf/settings',
    technicians: '/shelf/technicians',
    records: '/shelf/records',
    workings: '/shelf/workings',
    faults: '/shelf/faults',
    'nothing here': '/jobs/no-such-job',
  };
}

async function violations(page: Page): Promise<string[]> {
  const { violations: found } = await new AxeBuilder({ page }).analyze();
  return found.map(({ id, nodes }) => `${id}: ${nodes.map(({ html }) => html.slice(0, 160)).join(' | ')}`);
}

for (const scheme of ['light', 'dark'] as const) {
  test(`no screen breaks an accessibility rule, ${scheme}`, async ({ app, page }) => {
    await page.emulateMedia({ colorScheme: scheme, reducedMotion: 'reduce' });
    for (const [name, where] of Object.entries(await screens(app))) {
      await page.goto(app.url + where);
      await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
      expect(await violations(page), name).toEqual([]);
    }
  });
}

test('the steps of a run, its dialogs and its messages break no accessibility rule', async ({
  app,
  page,
}) => {
  const { run } = await newRun(app, 'AXE', { hold_s: 3 });
  const technician = await Technician.at(app, page, run.id);
  for (const scheme of ['light', 'dark'] as const) {
    await page.emulateMedia({ colorScheme: scheme, reducedMotion: 'reduce' });
    await page.goto(`${app.url}/runs/${run.id}`);
    await technician.settled();
    expect(await violations(page), 'caution').toEqual([]);
  }
  await technician.until('switch-rest');
  expect(await violations(page), 'observation').toEqual([]);
  await technician.until('bypass.1.input');
  await page.keyboard.type('1,200');
  await page.keyboard.press('Enter');
  await expect(page.getByText('that can be read two ways')).toBeVisible();
  await page.keyboard.press('F7');
  expect(await violations(page), 'ambiguous, with number pad').toEqual([]);
  await page.keyboard.press('F4');
  await expect(page.getByRole('dialog')).toBeVisible();
  expect(await violations(page), 'skip').toEqual([]);
});

test('the run fits 1280 × 800 without scrolling the page, and 820 × 1180 is usable', async ({
  app,
  page,
}) => {
  const all = await screens(app);
  const size = () =>
    page.evaluate(() => ({
      over: document.documentElement.scrollHeight - innerHeight,
      wide: document.documentElement.scrollWidth - innerWidth,
    }));
  await page.goto(app.url + all.run);
  await expect(page.locator('#reading')).toBeVisible();
  expect(await size()).toEqual({ over: 0, wide: 0 });
  const large = await page
    .locator('#reading')
    .evaluate((field) => parseFloat(getComputedStyle(field).fontSize));
  expect(large).toBeGreaterThanOrEqual(48);
  await page.setViewportSize({ width: 820, height: 1180 });
  for (const [name, where] of Object.entries(all)) {
    await page.goto(app.url + where);
    await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
    expect((await size()).wide, name).toBeLessThanOrEqual(0);
  }
  await page.goto(app.url + all.run);
  await page.getByRole('button', { name: /Number pad/ }).click();
  const key = await page.getByRole('button', { name: '7', exact: true }).boundingBox();
  expect(Math.min(key!.width, key!.height)).toBeGreaterThanOrEqual(64);
  await page.getByRole('button', { name: '7', exact: true }).click();
  await page.getByRole('button', { name: '2', exact: true }).click();
  await expect(page.locator('#reading')).toHaveValue('72');
});

test('the demo reports say what was hidden in them', async ({ app, page }) => {
  const jobs = (await app.get<{ jobs: StoredJob[] }>('/jobs')).jobs;
  const report = async (tag: string) => {
    const job = jobs.find(({ body }) => body.tag === tag)!;
    await page.goto(`${app.url}/runs/${job.runs[0]!.id}/report`);
    return page.getByRole('article', { name: 'Report' });
  };
  await expect(
    (await report('GF-0412')).getByRole('heading', { name: 'The unit met every limit tested' }),
  ).toBeVisible();
  await expect(
    (await report('GF-0415')).getByRole('heading', { name: 'A healthy unit on a weak supply' }),
  ).toBeVisible();
  await expect(
    (await report('GF-0418')).getByText(/Outside its limits: .*effective diaphragm area/),
  ).toBeVisible();
  const gauges = await report('GF-0419');
  await expect(gauges.getByText(/G-22 reads 1\.0[78]\d* ± 0\.00\d+ times what G-12 reads/)).toBeVisible();
  await expect(gauges.getByText(/Divided by 1\.0[78]/)).toBeVisible();
  await expect(
    (await report('GF-0421')).getByText(/Outside its limits: .*output loss on hold/),
  ).toBeVisible();
});

test('an empty installation says what to do first', async ({ browser }) => {
  const app = await App.start({ demo: false });
  const context = await browser.newContext();
  const page = await context.newPage();
  try {
    await page.goto(app.url);
    await expect(page.getByText('No test is running.')).toBeVisible();
    await page.goto(`${app.url}/jobs`);
    await expect(page.getByText('No jobs yet.')).toBeVisible();
    await page.goto(`${app.url}/jobs/new`);
    await expect(page.getByText('there is none on the Shelf yet')).toBeVisible();
    await page.goto(`${app.url}/shelf`);
    await expect(page.getByText('No gauges yet.')).toBeVisible();
    expect(await violations(page)).toEqual([]);
  } finally {
    await context.close();
    await app.end();
  }
});
