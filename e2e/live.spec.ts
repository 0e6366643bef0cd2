import type { Locator, Page } from '@playwright/test';
import type { ReadingItem } from '../src/core/contract/steps';
import type { Action } from '../src/core/procedure/next-action';
import type { StoredJob } from '../src/core/records/views';
import type { StoredTrace } from '../src/server/traces';
import { App, expect, test } from './app';
import { newRun, onSimulatedBench, Technician } from './technician';

const BAR = 1e5;

const nameOf = (action: Action) => (action.kind === 'item' ? action.item.id : action.kind);

test('a run on the simulated bench, hands-free, with the cable pulled in the middle, ends with a correct report', async ({
  page,
}) => {
  const app = await App.start({ demo: true, live: true });
  try {
    const { job, run } = await newRun(app, 'GF-LIVE', { hold_s: 20, settle_s: 2 });
    const bench = await Technician.at(app, page, run.id);
    const hands = await onSimulatedBench(app, page, run.id);
    await page.keyboard.press('F3');
    await expect(page.getByRole('button', { name: /Hands-free is on/ })).toBeVisible();

    /** What the hand does for a reading; the capture comes by itself. */
    const reach = async (item: ReadingItem) => {
      if (item.measures === 'zero' && !item.gate) await hands({ handle_Pa: 0, pull_PaPerS: 20 * BAR });
      else if (item.measures === 'crackInput') await hands({ handle_Pa: 6 * BAR, pull_PaPerS: 0.4 * BAR });
      else if (item.id === 'runout.input') {
        // As the step says: from well below, so that its recording has both sides of the knee however late that began.
        await hands({ handle_Pa: 18 * BAR, pull_PaPerS: 20 * BAR });
        await page.waitForTimeout(3_000);
        await hands({ handle_Pa: 34 * BAR, pull_PaPerS: 2 * BAR });
      } else if (item.id.startsWith('safe.')) await hands({ handle_Pa: 0, valve: 'vented', shutIn: false });
      else if (item.id === 'hold.start' || item.id === 'loss-applied.start') await hands({ shutIn: true });
      else if (item.target_Pa && ['input', 'supplyApplied'].includes(item.measures))
        await hands({ handle_Pa: item.target_Pa, pull_PaPerS: 8 * BAR, shutIn: false });
      else if (item.target_Pa === 0) await hands({ handle_Pa: 0, pull_PaPerS: 20 * BAR, shutIn: false });
    };

    let pulled = false;
    for (;;) {
      const { action, count } = await bench.next();
      if (action.kind === 'done') break;
      const moved = () => expect.poll(async () => (await bench.next()).count).toBeGreaterThan(count);
      const item = action.kind === 'item' ? action.item : null;
      if (action.kind === 'source') await hands({ valve: action.set.to === 'on' ? 'open' : 'shut' });
      if (item?.id === 'residual.wait') await hands({ handle_Pa: 0, pull_PaPerS: 20 * BAR });
      if (item?.kind === 'wait') {
        // The reading after it is captured by itself as soon as the wait is over.
        const start = page.getByRole('button', { name: /^Start/ });
        // A press that comes as the prompt changes is ignored.
        if (item.starts === 'key') await page.waitForTimeout(850).then(() => start.click());
        await expect.poll(async () => nameOf((await bench.next()).action)).not.toBe(item.id);
        continue;
      }
      const byHand = item?.kind !== 'reading' || item.measures === 'switchCloses';
      // The gauge reads itself: what is typed for the switch is what it shows.
      if (item?.kind === 'reading' && byHand) {
        await hands({ handle_Pa: 4 * BAR, pull_PaPerS: 8 * BAR });
        await page.waitForTimeout(2_000);
      }
      if (byHand) {
        await bench.doNext(true);
        continue;
      }
      if (item.id === 'bypass.4.input' && !pulled) {
        pulled = true;
        await app.unplug();
        await expect(page.getByText(/Type the readings meanwhile/)).toBeVisible();
        await bench.until('bypass.5.input');
        await app.plugIn();
        await expect(page.getByText('Simulated bench reads')).toBeVisible();
        continue;
      }
      await reach(item);
      await moved();
    }

    // What the loggings tell stands on the tape beside what was captured, with the way to each.
    const tape = page.getByRole('list', { name: 'Tape' });
    for (const name of [
      'Boost ratio B, as a slope',
      'Runout input',
      'Output loss on hold',
      'Vacuum loss, released',
    ])
      await expect(tape.getByText(name, { exact: true }).first()).toBeVisible();
    await expect(tape.getByRole('link', { name: 'Logged' }).first()).toHaveAttribute('href', /^\/traces\//);

    await page.goto(`${app.url}/runs/${run.id}/report`);
    const report = page.getByRole('article', { name: 'Report' });
    await expect(report.getByText('The unit met every limit tested')).toBeVisible();
    const { traces: kept } = await app.get<{ traces: StoredTrace[] }>(`/traces?run=${run.id}`);
    expect(kept.length).toBeGreaterThan(4);
    const ratio = kept.find(({ body }) => body.name === `${job.body.tag}: Boost ratio`);
    expect(ratio?.body.channels.map(({ port }) => port).sort()).toEqual([
      'activation',
      'input',
      'output',
      'supply',
    ]);
  } finally {
    await app.end();
  }
});

test('tabs that are hidden leave the lines of the browser to the one that is looked at', async ({ page }) => {
  const app = await App.start({ demo: true, live: true });
  // A browser without a window shows all its tabs: they are told as a browser would tell them.
  const turn = (tab: Page, to: 'hidden' | 'visible') =>
    tab.evaluate((state) => {
      Object.defineProperty(document, 'visibilityState', { value: state, configurable: true });
      document.dispatchEvent(new Event('visibilitychange'));
    }, to);
  const reads = (tab: Page) => tab.getByText('Reading.', { exact: true });
  try {
    const tabs: Page[] = [];
    for (let i = 0; i < 8; i += 1) {
      const tab = await page.context().newPage();
      await tab.goto(`${app.url}/shelf/logger`);
      await expect(reads(tab)).toBeVisible();
      await turn(tab, 'hidden');
      // What it showed last is not left standing as what is.
      await expect(reads(tab)).toBeHidden();
      tabs.push(tab);
    }
    await turn(tabs[0]!, 'visible');
    await expect(reads(tabs[0]!)).toBeVisible();
  } finally {
    await app.end();
  }
});

test('a logger that is not there, or is none, is said so, and readings are typed', async ({ page }) => {
  const app = await App.start({ demo: true, live: true });
  try {
    await app.unplug();
    const { run } = await newRun(app, 'GF-GONE');
    await page.goto(`${app.url}/runs/${run.id}`);
    await expect(
      page.getByText(/Nothing listens at 127\.0\.0\.1, port \d+: is the logger on\? Trying again/),
    ).toBeVisible();
    const bench = await Technician.at(app, page, run.id);
    for (let i = 0; i < 5; i += 1) await bench.doNext();
  } finally {
    await app.end();
  }
});

const LOG = [
  'Bench logger 7;started by hand',
  'Zeit;Eingang;Ausgang;Unterdruck',
  's;bar;bar;mbar',
  ...Array.from({ length: 400 }, (_, i) => {
    const input = i / 10;
    const output = input < 3 ? input : Math.min(3.6 * input, 80.8 + 0.915 * input);
    return [i / 10, input.toFixed(2), output.toFixed(2), '-677,3'].join(';').replaceAll('.', ',');
  }),
  '40,0;oops;9,9;-677,3',
].join('\r\n');

test('a log is looked over, read, seen against input and against time, noted, saved and taken away', async ({
  app,
  page,
}) => {
  const file = { name: 'pull 12.csv', mimeType: 'text/csv', buffer: Buffer.from(LOG) };
  const choose = (input: Locator) => input.setInputFiles(file);
  await page.goto(`${app.url}/traces/new`);
  await choose(page.getByLabel('A log as CSV'));
  await expect(page.getByRole('region', { name: 'Columns' }).getByText('Unterdruck')).toBeVisible();
  await expect(page.getByLabel('Written as')).toHaveText('negative gauge pressure');
  await page.getByRole('button', { name: 'Read and analyse' }).click();
  await expect(page.getByRole('heading', { level: 1, name: /pull 12/ })).toBeVisible();
  const yields = page.getByRole('region', { name: 'What this trace yields' });
  await expect(yields.getByText(/^3\.60/)).toBeVisible();
  await yields.getByText(/1 places of the file could not be read/).click();
  await expect(yields.getByText(/Line 404, column 2: “oops” is no number/)).toBeVisible();
  await expect(page.getByRole('img', { name: /Output against input/ })).toBeVisible();
  await page.keyboard.press('t');
  const plot = page.getByRole('img', { name: /against time/ });
  await expect(plot.locator('canvas')).toBeVisible();
  await plot.click({ position: { x: 300, y: 120 } });
  await page.getByLabel('Note', { exact: true }).fill('Pedal heavy from here');
  await page.getByRole('button', { name: 'Pin' }).click();
  await expect(page.getByText('Pedal heavy from here')).toBeVisible();
  // A press, and another one further on: a range.
  await plot.click({ position: { x: 200, y: 120 } });
  await plot.click({ position: { x: 380, y: 120 } });
  await expect(page.getByLabel(/^Until, s/)).toHaveValue(/^\d+\.\d$/);
  await page.getByLabel(/^Until, s/).fill('soon');
  await page.getByLabel('Note', { exact: true }).fill('Let go and gripped again');
  await page.getByRole('button', { name: 'Pin' }).click();
  await expect(page.getByText('Until: “soon” is not a time in seconds.')).toBeVisible();
  await page.getByLabel(/^Until, s/).fill('39,5');
  await page.getByRole('button', { name: 'Pin' }).click();
  await expect(page.getByText(/\d+\.\d to 39\.5 s/)).toBeVisible();
  // By keyboard alone: a range is marked, worked out by itself, and what it yields is kept.
  await page.keyboard.press('Tab');
  await page.getByRole('button', { name: /^Pull with assist/ }).focus();
  await page.keyboard.press('m');
  await page.keyboard.type('0.5');
  await page.keyboard.press('Tab');
  await page.keyboard.type('38');
  for (const key of ['Tab', 'Tab', 'Enter']) await page.keyboard.press(key);
  const marked = page.getByRole('region', { name: 'Marked range, Range worked out by itself' });
  await expect(marked.getByText(/^3\.60/)).toBeVisible();
  await page.reload();
  await expect(marked.getByText(/^3\.60/)).toBeVisible();
  const [drawing] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Save as SVG' }).click(),
  ]);
  expect(drawing.suggestedFilename()).toMatch(/pull.12\.svg/);
  await page.getByRole('button', { name: 'Take this trace away' }).click();
  await page.getByRole('button', { name: 'Undo' }).click();
  // The next log of the same logger is read as this one was.
  await page.goto(`${app.url}/traces/new`);
  await choose(page.getByLabel('A log as CSV'));
  await expect(page.getByText('as confirmed last time for this logger')).toBeVisible();
});

test('what was logged of a unit stands on its job sheet and in its report, beside the trace before the repair', async ({
  page,
}) => {
  const app = await App.start({ demo: true });
  try {
    const { jobs } = await app.get<{ jobs: StoredJob[] }>('/jobs');
    const tagged = (tag: string) => jobs.find(({ body }) => body.tag === tag)!;
    await page.goto(`${app.url}/jobs/${tagged('GF-0418').id}`);
    await expect(page.getByRole('link', { name: 'Trace: Fire tender, before the repair' })).toBeVisible();
    await page.getByRole('link', { name: 'beside the one before' }).click();
    await expect(
      page.getByRole('heading', { level: 1, name: /Fire tender, after the repair/ }),
    ).toBeVisible();
    await expect(
      page
        .getByRole('region', { name: 'What this trace yields' })
        .getByText(/, moved/)
        .first(),
    ).toBeVisible();
    const lorry = tagged('GF-0422');
    await page.goto(`${app.url}/jobs/${lorry.id}`);
    const test = page.getByRole('region', { name: 'Bench test', exact: true });
    await expect(
      test.getByRole('link', { name: 'Trace: Harbour lighter’s lorry, source off' }),
    ).toBeVisible();
    await page.goto(`${app.url}/runs/${lorry.runs[0]!.id}/report`);
    const logged = page.getByRole('table', { name: 'Logged traces' });
    await expect(logged.getByRole('row', { name: /Useful applications from the reserve/ })).toBeVisible();
    await expect(page.getByText(/no verdict above rests on them/)).toBeVisible();
    const pdf = await fetch(`${app.url}/api/v1/runs/${lorry.runs[0]!.id}/report.pdf`);
    expect([pdf.status, (await pdf.arrayBuffer()).byteLength > 20_000]).toEqual([200, true]);
  } finally {
    await app.end();
  }
});

test('what is no log is refused with a sentence, on the page and over HTTP', async ({ app, page }) => {
  await page.goto(`${app.url}/traces/new`);
  await page.getByLabel('A log as CSV').setInputFiles({
    name: 'photo.csv',
    mimeType: 'text/csv',
    buffer: Buffer.from([0xff, 0xd8, 0, 0, 1, 2]),
  });
  await expect(page.getByText(/photo\.csv: This is not a text file/)).toBeVisible();
  const analyse = (body: string, headers = {}) =>
    fetch(`${app.url}/api/v1/traces/analyse`, { method: 'POST', body, headers });
  const good = await analyse(LOG);
  const found = (await good.json()) as { rows: number; analysis: { stretches: { kind: string }[] } };
  expect(good.status).toBe(200);
  expect(found.rows).toBe(400);
  expect(found.analysis.stretches.map(({ kind }) => kind)).toContain('pull');
  const empty = await analyse('');
  expect([empty.status, ((await empty.json()) as { title: string }).title]).toEqual([
    422,
    'The file is empty.',
  ]);
  expect((await analyse(LOG, { origin: 'http://elsewhere.example' })).status).toBe(403);
  const unnamed = await fetch(`${app.url}/api/v1/traces/import`, { method: 'POST', body: LOG });
  expect(unnamed.status).toBe(422);
});
