import type { Page } from '@playwright/test';
import type { Stored, StoredInstrument, StoredJob, StoredProfile } from '../src/core/records/views';
import type { Comparison } from '../src/core/shop/comparison';
import type { StoredTrace } from '../src/server/traces';
import { colourViolations, violations } from './accessible';
import { App, expect, test, type Site } from './app';
import { newRun, Technician } from './technician';

/** What the paths below are made of: the demo data by the names on its tags. */
interface Demo {
  job(tag: string): string;
  run(tag: string): string;
  readonly profile: string;
  readonly instrument: string;
  readonly comparison: string;
  readonly trace: string;
  readonly otherTrace: string;
}

async function demoOf(app: Site): Promise<Demo> {
  // Asked for by name: the other tests take in units too, and the list comes in pages.
  const { jobs } = await app.get<{ jobs: StoredJob[] }>('/jobs?q=GF-04');
  const tagged = (tag: string) => jobs.find(({ body }) => body.tag === tag)!;
  const [profile] = await app.get<StoredProfile[]>('/profiles');
  const [instrument] = await app.get<StoredInstrument[]>('/instruments');
  const comparisons = await app.get<Stored<Comparison>[]>('/comparisons');
  const comparison = comparisons.find(({ body }) => body.place.name.startsWith('Tollan'));
  const { traces } = await app.get<{ traces: StoredTrace[] }>('/traces');
  const [trace, otherTrace] = traces;
  return {
    job: (tag) => `/jobs/${tagged(tag).id}`,
    run: (tag) => `/runs/${tagged(tag).runs[0]!.id}`,
    profile: `/shelf/profiles/${profile!.id}`,
    instrument: `/shelf/instruments/${instrument!.id}`,
    comparison: `/shelf/comparisons/${comparison!.id}`,
    trace: `/traces/${trace!.id}`,
    otherTrace: otherTrace!.id,
  };
}

/** Every screen, with demo data behind it. */
const SCREENS: Record<string, (demo: Demo) => string> = {
  bench: () => '/',
  jobs: () => '/jobs',
  intake: () => '/jobs/new',
  'job sheet': (demo) => demo.job('GF-0418'),
  'before and after': (demo) => `${demo.job('GF-0418')}/compare`,
  'installation sheet': (demo) => `${demo.job('GF-0418')}/installation`,
  'installation sheet not confirmed': (demo) => `${demo.job('GF-0421')}/installation`,
  'jobs, none found': () => '/jobs?q=nothingofthatname',
  'read a job file': () => '/jobs/import',
  'job not tested': (demo) => demo.job('GF-0425'),
  'change a job': (demo) => `${demo.job('GF-0412')}/edit`,
  run: (demo) => demo.run('GF-0423'),
  'run of a servo': (demo) => demo.run('GF-0422'),
  'report of a servo': (demo) => `${demo.run('GF-0422')}/report`,
  'job sheet of a servo': (demo) => demo.job('GF-0422'),
  'run of a vehicle': (demo) => demo.run('GF-0427'),
  'report of a vehicle': (demo) => `${demo.run('GF-0428')}/report`,
  'job sheet of a vehicle': (demo) => demo.job('GF-0426'),
  'new profile of a vehicle': () => '/shelf/profiles/new?kind=vacuum-vehicle',
  'a vehicle from its parts': () => '/shelf/profiles/fitted',
  'installation sheet of a vehicle': (demo) => `${demo.job('GF-0426')}/installation`,
  'new profile of a booster': () => '/shelf/profiles/new?kind=pedal-vacuum',
  'report of a pedal valve': (demo) => `${demo.run('GF-0430')}/report`,
  'job sheet of a pedal valve': (demo) => demo.job('GF-0430'),
  'new profile of a pedal valve': () => '/shelf/profiles/new?kind=pedal-valve',
  'report of a motor-pump booster': (demo) => `${demo.run('GF-0431')}/report`,
  'job sheet of a motor-pump booster': (demo) => demo.job('GF-0431'),
  'new profile of a motor-pump booster': () => '/shelf/profiles/new?kind=motor-pump-booster',
  'report of a vehicle with motor pump': (demo) => `${demo.run('GF-0432')}/report`,
  'report of a hydraulic booster': (demo) => `${demo.run('GF-0437')}/report`,
  'report of a vehicle with steering pump': (demo) => `${demo.run('GF-0433')}/report`,
  'run of a car on stored pressure': (demo) => demo.run('GF-0435'),
  'report of a machine with pedal valve': (demo) => `${demo.run('GF-0438')}/report`,
  'run of two circuits on a bench': (demo) => demo.run('GF-0439'),
  'report of a car on stored pressure': (demo) => `${demo.run('GF-0434')}/report`,
  'job sheet of a car on stored pressure': (demo) => demo.job('GF-0434'),
  'new profile of a car on stored pressure': () => '/shelf/profiles/new?kind=stored-pressure-vehicle',
  'a vehicle with steering pump from its parts': () => '/shelf/profiles/fitted?kind=hydraulic-vehicle',
  'run of a booster with a motor': (demo) => demo.run('GF-0441'),
  'report of a vehicle with a booster with a motor': (demo) => `${demo.run('GF-0442')}/report`,
  'new profile of a booster with a motor': () => '/shelf/profiles/new?kind=electromechanical',
  'run finished': (demo) => demo.run('GF-0412'),
  'run too close to call': (demo) => demo.run('GF-0419'),
  'report too close to call': (demo) => `${demo.run('GF-0419')}/report`,
  report: (demo) => `${demo.run('GF-0415')}/report`,
  'report so far': (demo) => `${demo.run('GF-0423')}/report`,
  shelf: () => '/shelf',
  profile: (demo) => demo.profile,
  'new profile': () => '/shelf/profiles/new',
  'new profile of a servo': () => '/shelf/profiles/new?kind=rod-servo',
  instrument: (demo) => demo.instrument,
  'new instrument': () => '/shelf/instruments/new',
  settings: () => '/shelf/settings',
  technicians: () => '/shelf/technicians',
  records: () => '/shelf/records',
  workings: () => '/shelf/workings',
  'failed assist': () => '/shelf/failed-assist',
  'fitting another assist': () => '/shelf/comparisons',
  'candidates against one vehicle': (demo) => demo.comparison,
  'fitting plan': (demo) => `${demo.comparison}/plan`,
  practice: () => '/practice',
  'how it works': () => '/shelf/works?kind=vacuum-vehicle',
  'how a decoupled brake works': () => '/shelf/works?kind=by-wire-vehicle',
  faults: () => '/shelf/faults',
  'off the shelf': () => '/shelf/removed',
  'bench logger': () => '/shelf/logger',
  'vehicle interface': () => '/shelf/vehicle',
  traces: () => '/traces',
  trace: (demo) => demo.trace,
  'two traces': (demo) => `${demo.trace}?with=${demo.otherTrace}`,
  'read a log': () => '/traces/new',
  'nothing here': () => '/jobs/no-such-job',
};

const sizeOf = (page: Page) =>
  page.evaluate(() => ({
    over: document.documentElement.scrollHeight - innerHeight,
    wide: document.documentElement.scrollWidth - innerWidth,
  }));

/** Parts whose looks change over time: while they do, nobody can say in what colours they are. */
const gliding = (page: Page) =>
  page.evaluate(() =>
    [...document.querySelectorAll('body *')]
      .filter((part) => /[1-9]/.test(getComputedStyle(part).transitionDuration))
      .map(({ outerHTML }) => outerHTML.slice(0, 120)),
  );

for (const [name, where] of Object.entries(SCREENS)) {
  test(`breaks no accessibility rule, light or dark, and fits 820 across: ${name}`, async ({ app, page }) => {
    const url = app.url + where(await demoOf(app));
    await page.emulateMedia({ colorScheme: 'light', reducedMotion: 'reduce' });
    await page.goto(url);
    await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
    expect(await violations(page)).toEqual([]);
    expect(await gliding(page), 'less motion was asked for').toEqual([]);
    await page.emulateMedia({ colorScheme: 'dark', reducedMotion: 'reduce' });
    await expect(page.locator('html')).toHaveClass(/\bdark\b/);
    expect(await colourViolations(page), 'dark').toEqual([]);
    await page.setViewportSize({ width: 820, height: 1180 });
    await expect.poll(async () => (await sizeOf(page)).wide).toBeLessThanOrEqual(0);
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
  const run = app.url + (await demoOf(app)).run('GF-0423');
  await page.goto(run);
  await expect(page.locator('#reading')).toBeVisible();
  expect(await sizeOf(page)).toEqual({ over: 0, wide: 0 });
  const large = await page
    .locator('#reading')
    .evaluate((field) => parseFloat(getComputedStyle(field).fontSize));
  expect(large).toBeGreaterThanOrEqual(48);
  await page.setViewportSize({ width: 820, height: 1180 });
  await page.goto(run);
  await page.getByRole('button', { name: /Number pad/ }).click();
  const key = await page.getByRole('button', { name: '7', exact: true }).boundingBox();
  expect(Math.min(key!.width, key!.height)).toBeGreaterThanOrEqual(64);
  await page.getByRole('button', { name: '7', exact: true }).click();
  await page.getByRole('button', { name: '2', exact: true }).click();
  await expect(page.locator('#reading')).toHaveValue('72');
});

test('the demo reports say what was hidden in them', async ({ app, page }) => {
  const demo = await demoOf(app);
  const report = async (tag: string) => {
    await page.goto(`${app.url}${demo.run(tag)}/report`);
    return page.getByRole('article', { name: 'Report' });
  };
  await expect(
    (await report('GF-0412')).getByRole('heading', { name: 'The unit met every limit tested' }),
  ).toBeVisible();
  await expect(
    (await report('GF-0415')).getByRole('heading', { name: 'A healthy unit on a weak supply' }),
  ).toBeVisible();
  await expect(
    (await report('GF-0418')).getByText(/Outside its limits: .*vacuum loss, applied/),
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
    await expect(page.getByRole('heading', { name: 'Setting up this shop' })).toBeVisible();
    await expect(
      page.getByText('Units that were taken in and wait for their test stand here.'),
    ).toBeVisible();
    await page.goto(`${app.url}/jobs`);
    await expect(page.getByText('No jobs yet.')).toBeVisible();
    await page.goto(`${app.url}/jobs/new`);
    await expect(page.getByText('there is none on the Shelf yet')).toBeVisible();
    await page.goto(`${app.url}/shelf`);
    await expect(page.getByText('No gauges yet.')).toBeVisible();
    expect(await violations(page)).toEqual([]);
    await page.goto(`${app.url}/shelf/comparisons`);
    await expect(page.getByText(/None yet\. Name the vehicle/)).toBeVisible();
    expect(await violations(page)).toEqual([]);
  } finally {
    await context.close();
    await app.end();
  }
});
