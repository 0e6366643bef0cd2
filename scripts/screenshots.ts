import { rmSync } from 'node:fs';
import { chromium } from '@playwright/test';
import type { StoredJob, StoredProfile } from '../src/core/records/views';
import type { StoredTrace } from '../src/server/traces';
import type { CaseView } from '../src/core/practice/case-view';
import { FAMILIES } from '../src/core/families/registry';
import { drawCase, looksOf, parametersOf } from '../src/core/practice/draw';
import { seeded } from '../src/core/numeric/chance';
import { rehearse } from '../src/core/procedure/rehearse';
import type { StoredRun } from '../src/core/records/views';
import { practiceGauges } from '../src/server/practice-gauges';
import { App, demoFolder } from '../e2e/app';
import config from '../playwright.config';

interface View {
  readonly name: string;
  readonly where: string;
  readonly size: { readonly width: number; readonly height: number };
  readonly dark?: boolean;
  /** Pressed before the picture is taken, and words that it waits for then. */
  readonly keys?: readonly string[];
  readonly shows?: string;
}

const CHART_MS = 800;

/** A case that somebody works through in the usual order, and hands back. */
async function worked(app: App, { id, runId, kind, level }: CaseView): Promise<void> {
  const family = FAMILIES[kind];
  const { context } = await app.get<StoredRun>(`/runs/${runId}`);
  const { truth } = drawCase(family, practiceGauges(kind), level, 11);
  const bench = {
    parameters: parametersOf(truth, family.faults, truth.faults),
    supply_Pa: truth.supply_Pa,
    gauges: truth.gauges,
    signs: looksOf(family, context.procedure, truth, level, truth.faults),
    noise_steps: 0.3,
  };
  const startAt = new Date(Date.now() - 3 * 3_600_000).toISOString();
  // A seed of no demo run: events have names of their own.
  const events = rehearse(family, context, bench, { random: seeded(90_011), startAt });
  const taken = await app.post<unknown>(`/runs/${runId}/events`, { expectedVersion: 0, events });
  if (!Array.isArray(taken)) throw new Error(`A reading was refused: ${JSON.stringify(taken)}`);
  const [[fault] = ['']] = truth.faults;
  const { parts } = family.faults.find((one) => one.id === fault)!;
  await app.post(`/practice/cases/${id}/end`, { finding: parts.join(' + ') });
}

/**
 * `npm run screenshots`: one current picture of each main view, from the demo data, into docs/screenshots; with names
 * behind `--`, only of those.
 */
async function main() {
  const wanted = process.argv.slice(2);
  const app = await App.start({ demo: true });
  const browser = await chromium.launch(config.use!.launchOptions!);
  const jobs = (await app.get<{ jobs: StoredJob[] }>('/jobs')).jobs;
  const [profile] = (await app.get<StoredProfile[]>('/profiles')).slice(-1);
  const { traces } = await app.get<{ traces: StoredTrace[] }>('/traces');
  const trace = (name: string) => traces.find(({ body }) => body.name.includes(name))!.id;
  const job = (tag: string) => jobs.find(({ body }) => body.tag === tag)!;
  const run = (tag: string) => `/runs/${job(tag).runs[0]!.id}`;
  const wide = { width: 1280, height: 800 };
  const upright = { width: 820, height: 1180 };
  const views: readonly View[] = [
    { name: 'bench', where: '/', size: { width: 1280, height: 1500 }, shows: 'In brackets' },
    { name: 'jobs', where: '/jobs', size: wide },
    { name: 'intake', where: '/jobs/new', size: wide },
    { name: 'job-sheet', where: `/jobs/${job('GF-0418').id}`, size: wide },
    {
      name: 'before-and-after',
      where: `/jobs/${job('GF-0418').id}/compare`,
      size: wide,
      shows: 'before the repair',
    },
    {
      name: 'installation',
      where: `/jobs/${job('GF-0418').id}/installation`,
      size: { width: 1280, height: 1300 },
    },
    { name: 'run', where: run('GF-0423'), size: wide },
    {
      name: 'run-vehicle',
      where: run('GF-0427'),
      size: wide,
      keys: ['F10', '#'],
      shows: 'Chances, never certainty',
    },
    { name: 'run-upright-dark', where: run('GF-0435'), size: upright, dark: true },
    { name: 'report', where: `${run('GF-0415')}/report`, size: { width: 1280, height: 1800 } },
    { name: 'traces', where: '/traces', size: wide },
    {
      name: 'trace',
      where: `/traces/${trace('after the repair')}?with=${trace('before the repair')}`,
      size: wide,
    },
    { name: 'shelf', where: '/shelf', size: wide },
    { name: 'profile', where: `/shelf/profiles/${profile!.id}`, size: wide },
    { name: 'workings', where: '/shelf/workings', size: wide },
    {
      name: 'how-it-works',
      where: '/shelf/works?kind=pedal-vacuum',
      size: wide,
      keys: ['p', 'n', 'n', 'n', ' '],
      shows: 'disc has pushed',
    },
    { name: 'faults', where: '/shelf/faults', size: wide },
    { name: 'records', where: '/shelf/records', size: wide },
  ];
  const shot = async ({ name, where, size, dark, keys = [], shows }: View) => {
    if (wanted.length > 0 && !wanted.includes(name)) return;
    const page = await browser.newPage({ viewport: size, colorScheme: dark ? 'dark' : 'light' });
    await page.goto(app.url + where, { waitUntil: 'networkidle' });
    for (const key of keys) await page.keyboard.press(key);
    if (shows) await page.getByText(shows).waitFor();
    // Fields for dates come behind the page, and a chart is drawn some frames after it is there.
    await page.waitForFunction(() => document.querySelector('.MuiSkeleton-root') === null);
    await page.waitForTimeout(CHART_MS);
    await page.screenshot({ path: `docs/screenshots/${name}.png` });
    await page.close();
  };
  for (const view of views) await shot(view);
  // Last: practice leaves its simulated bench to the shop, and every run is read by it from then on.
  const practised = await app.post<CaseView>('/practice/cases', {
    technician: 'Pell Tarn',
    kind: 'rod-servo',
    level: 2,
    seed: 11,
  });
  await worked(app, practised);
  await shot({ name: 'practice', where: `/practice/${practised.id}`, size: wide });
  await browser.close();
  await app.end();
  rmSync(demoFolder(), { recursive: true, force: true });
}

void main();
