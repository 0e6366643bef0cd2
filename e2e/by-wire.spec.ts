import { violations } from './accessible';
import { App, expect, test } from './app';
import { onSimulatedBench, readSoFar, runOn, Technician } from './technician';

test('a decoupled brake is made safe by readings: a dead meter proves nothing, 9 V are refused and 3 V let through; Enter twice opens nothing', async ({
  app,
  page,
}) => {
  const { run } = await runOn(
    app,
    'GF-BYWIRE93',
    'Esk & Moor Hybrid Shuttle',
    ({ source }: { source: object }) => ({
      // As long as the maker states, where that is longer than what it takes by itself.
      source: { ...source, stated_s: 10, bleed_Ohm: 0.5 },
    }),
  );
  const bench = await Technician.at(app, page, run.id);
  await page.goto(`${app.url}/runs/${run.id}`);
  await expect(page.getByText(/High voltage of a hybrid or an electric drive kills/)).toBeVisible();
  await bench.until('high-voltage');
  const habit = async () => {
    const { count } = await bench.next();
    await page.keyboard.press('Enter');
    await page.keyboard.press('Enter');
    await page.waitForTimeout(500);
    expect((await bench.next()).count).toBe(count);
  };
  await habit();
  await bench.until('dead.live');
  await habit();
  const read = async (volts: string, prompt: string) => {
    const { count } = await bench.next();
    await bench.enter({ prompt }, volts);
    await expect.poll(async () => (await bench.next()).count).toBeGreaterThan(count);
    await bench.settled();
  };
  const next = async () => {
    const { action } = await bench.next();
    return action.kind === 'item' ? action.item.id : action.kind;
  };
  // A meter with its leads off reads nothing anywhere.
  await read('0', 'Prove the meter: read it');
  expect(await next()).toBe('dead.live');
  await read('13.4', 'Prove the meter: read it');
  await bench.until('dead.store');
  await expect(page.getByText(/at most 5\.00 V/)).toBeVisible();
  await habit();
  await read('9', 'The same meter on the store');
  await expect(page.getByText(/not below 5/)).toBeVisible();
  expect(await next()).toBe('dead.store');
  expect(await violations(page)).toEqual([]);
  await read('3', 'The same meter on the store');
  await read('13.4', 'Prove the meter again');
  // Lines are opened behind it, and not before.
  const { action } = await bench.next();
  expect('step' in action && action.step.id).toBe('zeros');
});

test('a finished test of a decoupled brake: its report, what braking is like without power, and the sheet for whoever fits a part', async ({
  app,
  page,
}) => {
  const { jobs } = await app.get<{ jobs: { id: string; runs: { id: string }[] }[] }>('/jobs?q=GF-0443');
  const [job] = jobs;
  await page.goto(`${app.url}/runs/${job!.runs[0]!.id}/report`);
  const report = page.getByRole('article', { name: 'Report' });
  await expect(report.getByText('The brake’s unit fails')).toBeVisible();
  await expect(report.getByRole('row', { name: /^Left in the wheel rear left/ })).toContainText('Fails');
  await expect(report.getByRole('row', { name: /^Release valve.*rear left/ })).toContainText('Meets');
  await expect(report.getByText(/Without power the foot alone works the brake/)).toBeVisible();
  await page.goto(`${app.url}/jobs/${job!.id}/installation`);
  await expect(page.getByText(/High voltage of a hybrid or an electric drive kills/)).toBeVisible();
});

test('four wheels on a simulated vehicle: one that is held below its target is found, beside what the unit itself tells', async ({
  page,
}) => {
  const app = await App.start({ demo: true, live: true });
  try {
    const { run } = await readSoFar(
      app,
      'Esk & Moor Hybrid Shuttle',
      'GF-BYWIRE94',
      ['release-leaks-rearLeft', 0.6],
      'targets.2.frontLeft',
    );
    await page.goto(`${app.url}/runs/${run}`);
    await page.getByRole('button', { name: 'Logger is on this vehicle' }).click();
    const hands = await onSimulatedBench(app, page, run);
    expect(
      await app.post('/live/hands', { unit: { run, fault: ['release-leaks-rearLeft', 0.6] } }),
    ).toMatchObject({ ok: true });
    await hands({ power: true });
    const pane = page.getByRole('region', { name: 'From the vehicle' });
    await expect(pane.getByText('Its own sensors: no reading of the test.')).toBeVisible();
    await expect(pane.getByText('Accumulator', { exact: true })).toBeVisible();
    await expect(pane.getByText('Nothing', { exact: true })).toBeVisible();
    // A function of the brake is told as what it is.
    await hands({ byItself: 'hill' });
    await expect(pane.getByText('Hill hold', { exact: true })).toBeVisible();
    await hands({ byItself: 'nothing' });
    await expect(page.getByRole('figure', { name: /^RR: / })).toBeVisible();
    expect(await violations(page)).toEqual([]);
    await page.keyboard.press('#');
    const causes = page.getByRole('region', { name: 'What it may be' }).getByRole('list', { name: 'Causes' });
    await expect(causes.getByRole('listitem').first()).toContainText('Release valve leaks, rear left');
  } finally {
    await app.end();
  }
});
