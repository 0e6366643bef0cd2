import { readFileSync } from 'node:fs';
import path from 'node:path';
import { FAMILIES } from '../src/core/families/registry';
import type { CaseView } from '../src/core/practice/case-view';
import { drawCase, type Truth } from '../src/core/practice/draw';
import { rehearse } from '../src/core/procedure/rehearse';
import type { StoredRun } from '../src/core/records/views';
import { OPERATIONS } from '../src/server/openapi';
import { practiceGauges } from '../src/server/practice-gauges';
import { violations } from './accessible';
import { App, expect, test } from './app';
import { pick } from './pick';

const KIND = 'rod-servo';
const TRY = { technician: 'Pell Tarn', kind: KIND } as const;

/** What of a truth nobody writes by chance: its numbers as they are written down, and its seed. */
const traces = ({ faults, gauges, luck, made }: Truth, seed: number): string[] =>
  [
    seed,
    luck,
    ...faults.map(([, severity]) => severity),
    ...Object.values(gauges).map(({ scale }) => scale),
    // Numbers in which it is as every other unit of its profile are no secret.
    ...made.filter((value, i) => value !== FAMILIES[KIND].healthy(FAMILIES[KIND].typical).values[i]),
  ]
    .map(String)
    .filter((number) => number.replace(/\D/g, '').length >= 8);

test('what is hidden in a case is in no answer of the application before its end', async () => {
  const app = await App.start({ demo: false });
  try {
    // At the level with errors of gauges, every number of the truth is one of its own.
    const seed = 1_234_567_891;
    const one = await app.post<CaseView>('/practice/cases', { ...TRY, level: 4, seed });
    const { truth } = drawCase(FAMILIES[KIND], practiceGauges(KIND), 4, seed);
    const wanted = traces(truth, seed);
    expect(wanted.length).toBeGreaterThan(10);
    const ids: Record<string, string> = { jobs: one.jobId, runs: one.runId, practice: one.id };
    const places = OPERATIONS.filter(({ method }) => method === 'get').map(({ path: of }) =>
      of.replace('{id}', ids[of.split('/')[1]!] ?? one.id).replace(/\{\w+\}/g, KIND),
    );
    const pages = [
      '/',
      '/jobs',
      `/jobs/${one.jobId}`,
      `/runs/${one.runId}`,
      '/practice',
      `/practice/${one.id}`,
    ];
    const everywhere = [...places.map((of) => `/api/v1${of}`), ...pages];
    const found = async () => {
      const told: string[] = [];
      for (const where of everywhere) {
        const stop = new AbortController();
        const response = await fetch(`${app.url}${where}`, { signal: stop.signal });
        // What streams is listened to for a second.
        const timer = setTimeout(() => stop.abort(), 1000);
        let said = '';
        try {
          for await (const piece of response.body!) said += Buffer.from(piece).toString('latin1');
        } catch {
          // It would have gone on.
        }
        clearTimeout(timer);
        if (wanted.some((number) => said.includes(number))) told.push(where);
      }
      return told;
    };
    expect(await found()).toEqual([]);
    // What is asked of it in other ways says no more.
    for (const way of ['bench', 'look', 'pass']) {
      const said = JSON.stringify(await app.post(`/practice/cases/${one.id}/${way}`, { item: 'none' }));
      expect(wanted.filter((number) => said.includes(number))).toEqual([]);
    }
    // Nor does the database, which a backup is a copy of.
    const file = readFileSync(path.join(app.data, 'hard-pedal.sqlite'), 'latin1');
    const log = readFileSync(path.join(app.data, 'hard-pedal.sqlite-wal'), 'latin1');
    expect(wanted.filter((number) => file.includes(number) || log.includes(number))).toEqual([]);
    // The same search finds it once it is told.
    await app.post(`/practice/cases/${one.id}/end`, { finding: 'unknown' });
    const told = await found();
    for (const where of [`/practice/cases/${one.id}`, '/practice/cases', `/practice/cases/${one.id}/file`])
      expect(told).toContain(`/api/v1${where}`);
  } finally {
    await app.end();
  }
});

/** Everything that a test asks for before it first looks at something. */
async function doneUpToLook(app: App, id: string): Promise<void> {
  const { context, kind } = await app.get<StoredRun>(`/runs/${id}`);
  const family = FAMILIES[kind];
  const look = context.procedure.steps
    .flatMap(({ items }) => items)
    .find((item) => item.kind === 'observation')!;
  const truth = {
    parameters: family.healthy(context.profile).values,
    supply_Pa: 67_000,
    gauges: {},
    signs: {},
    noise_steps: 0,
  };
  const startAt = new Date(Date.now() - 3_600_000).toISOString();
  const events = rehearse(family, context, truth, { random: Math.random, startAt, until: look.id });
  for (const [i, event] of events.entries())
    await app.post(`/runs/${id}/events`, { expectedVersion: i, events: [event] });
}

test('a case from its beginning to what would have been better, on the simulated bench', async ({ page }) => {
  const app = await App.start({ demo: false });
  try {
    await page.goto(`${app.url}/practice`);
    await expect(page.getByText('No case is over yet.')).toBeVisible();
    expect(await violations(page)).toEqual([]);
    // Nobody practises without a name, and what was chosen stays.
    await page.getByRole('button', { name: 'Begin a case' }).click();
    await expect(page.getByRole('alert').filter({ hasText: 'say who practises' })).toBeVisible();
    await page.getByLabel('Technician').fill(TRY.technician);
    await page.getByRole('combobox', { name: 'What to practise on' }).first().click();
    await pick(page, { name: FAMILIES[KIND].name, exact: true });
    await page.getByLabel('Seed, to repeat a case').fill('eleven');
    await page.getByRole('button', { name: 'Begin a case' }).click();
    await expect(page.getByRole('alert').filter({ hasText: 'a whole number' })).toBeVisible();
    await page.getByLabel('Seed, to repeat a case').fill('11');
    await page.getByRole('button', { name: 'Begin a case' }).click();
    await expect(page.getByRole('heading', { name: /Practice case 1/ })).toBeVisible();
    expect(await violations(page)).toEqual([]);
    const [one] = await app.get<CaseView[]>('/practice/cases');

    await page.getByRole('button', { name: 'To the test' }).click();
    await page.waitForURL(/\/runs\//);
    await expect(page.getByText(/Practice, level 1/)).toBeVisible();
    await expect(page.getByText('Simulated bench reads')).toBeVisible();
    // Nothing else is put on the bench from here.
    await expect(page.getByRole('button', { name: 'Simulate what this run tests' })).toHaveCount(0);
    // The first thing that is looked at: seen by its key, answered by its own.
    await doneUpToLook(app, one!.runId);
    await page.reload();
    const looked = page.getByRole('button', { name: /^Look/ });
    await expect(looked).toBeVisible();
    const { events } = await app.get<StoredRun>(`/runs/${one!.runId}`);
    await page.keyboard.press('!');
    await expect(page.getByText(/what is seen is “/)).toBeVisible();
    expect((await app.get<StoredRun>(`/runs/${one!.runId}`)).events.length).toBe(events.length);

    // It is handed back only with a finding, and only once that is confirmed.
    await page.getByRole('link', { name: 'Hand it back' }).click();
    await page.getByRole('button', { name: 'Hand it back' }).click();
    await expect(page.getByText('What was wrong: choose it first.')).toBeVisible();
    await page.getByRole('combobox', { name: 'What was wrong' }).click();
    await page.getByRole('option', { name: 'Not known' }).click();
    await page.keyboard.press('Escape');
    await page.getByRole('button', { name: 'Hand it back' }).click();
    await page.keyboard.press('Enter');
    await expect(page.getByRole('dialog')).toHaveCount(0);
    expect((await app.get<CaseView>(`/practice/cases/${one!.id}`)).told).toBeNull();
    await page.getByRole('button', { name: 'Hand it back' }).click();
    await page.getByRole('dialog').getByRole('button', { name: 'Hand it back' }).click();
    await expect(page.getByText('of 100 points')).toBeVisible();
    await expect(page.getByText('Really wrong')).toBeVisible();
    await expect(page.getByRole('table', { name: 'The adviser’s own way' })).toBeVisible();
    expect(await violations(page)).toEqual([]);

    // It stands in the history, and is repeated from its file without counting again.
    const download = page.waitForEvent('download');
    await page.getByRole('link', { name: 'Share as a file' }).click();
    const file = await (await download).path();
    await page.goto(`${app.url}/practice`);
    await expect(page.getByRole('table', { name: 'Cases that are over' }).getByRole('row')).toHaveCount(2);
    await expect(page.getByRole('table', { name: 'How it stands' })).toContainText('in 1 of 5');
    await page.getByLabel('Technician').fill(TRY.technician);
    await page.getByLabel('Practice file').setInputFiles(file);
    await expect(page.getByText(/It does not count/)).toBeVisible();
  } finally {
    await app.end();
  }
});
