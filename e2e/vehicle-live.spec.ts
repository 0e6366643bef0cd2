import { setItem, type Item } from '../src/core/contract/steps';
import { App, expect, test } from './app';
import { onSimulatedBench, quickVan, runOn, seen, Technician } from './technician';

/** Tests that this visit leaves out: they read what is looked at or timed for longer. */
const LEFT = [
  'check',
  'decay',
  'capped',
  'start',
  'without',
  'airtight',
  'apply',
  'reserve',
  'standing',
  'gap',
  'sink',
  'axles',
  'lamps',
  'parking',
];

test('a simulated vehicle with a hose that is nearly shut: engine and pedal in hand, its gauges read by themselves', async ({
  page,
}) => {
  const app = await App.start({ demo: true, live: true });
  try {
    const { run } = await runOn(app, 'GF-SIMVAN', 'Tollan Mail Van 3', quickVan);
    await page.goto(`${app.url}/runs/${run.id}`);
    // A vehicle does not take the bench's logger for its own: it has to be told so.
    await expect(page.getByText('Simulated bench reads')).toBeHidden();
    await page.getByRole('button', { name: 'Logger is on this vehicle' }).click();
    const hands = await onSimulatedBench(app, page, run.id);
    // What is hidden in it, nothing of the run knows.
    const fault = ['hose-blocked', 0.6];
    expect(await app.post('/live/hands', { unit: { run: run.id, fault } })).toMatchObject({ ok: true });
    const bench = await Technician.at(app, page, run.id);
    await page.keyboard.press('F3');
    await expect(page.getByRole('button', { name: /Hands-free is on/ })).toBeVisible();

    const timed = async (item: Item) => {
      const { shown: at } = await seen(app, ({ settled }) => settled.includes('V-31'));
      const rest = at['V-31']!;
      await hands({ pedal_N: 150, press_NPerS: 2000 });
      await seen(app, ({ shown, settled }) => shown['F-73']! > 140 && settled.includes('F-73'));
      const from = await seen(
        app,
        ({ shown }) => shown['F-73']! < 20,
        () => hands({ pedal_N: 0, press_NPerS: 2000 }),
      );
      const to = await seen(app, ({ shown }) => shown['V-31']! > 0.9 * rest);
      await bench.enter(item, (to.t_s - from.t_s).toFixed(1));
      return to.t_s - from.t_s;
    };
    /** Engine off, the pedal is pumped until nothing is stored any more. */
    const pump = async () => {
      for (;;) {
        const { shown } = await seen(app, ({ settled }) => settled.includes('V-31'));
        if (shown['V-31']! < 100) return;
        for (let stroke = 0; stroke < 8; stroke += 1)
          for (const pedal_N of [400, 0]) {
            await hands({ pedal_N, press_NPerS: 2000 });
            await page.waitForTimeout(450);
          }
      }
    };
    let recovery_s = 0;
    for (;;) {
      const { action, count } = await bench.next();
      if (action.kind === 'done') break;
      const item: Item | null = action.kind === 'item' ? action.item : null;
      const moved = () =>
        expect.poll(async () => (await bench.next()).count, { message: item?.id }).toBeGreaterThan(count);
      if (action.kind === 'source')
        await hands({ key: action.set.source === 'engine' && action.set.to !== 'off' ? 'engine' : 'off' });
      if ('step' in action && LEFT.includes(action.step.id)) {
        await bench.skipStep('Not in this visit');
      } else if (item?.kind === 'reading' && item.port === 'clock') {
        recovery_s = await timed(item);
        await moved();
      } else if (item?.kind === 'reading') {
        if (item.measures === 'zero' && item.port === 'supply') await pump();
        const set = setItem(run.context.procedure, item, 'pedal');
        await hands({ pedal_N: item.target_Pa ?? set?.target_Pa ?? 0, press_NPerS: 200 });
        await moved();
      } else await bench.doNext(true);
    }
    expect(recovery_s).toBeGreaterThan(2);

    await expect(page.getByRole('heading', { name: 'The vacuum supply fails' })).toBeVisible();
    await page.goto(`${app.url}/runs/${run.id}/report`);
    const report = page.getByRole('article', { name: 'Report' });
    await expect(report.getByRole('row', { name: /^Recovery of the vacuum/ })).toContainText('Fails');
    await expect(report.getByRole('row', { name: /^Vacuum at its source/ })).toContainText('Meets');
    for (const row of [
      /^Vacuum at the booster/,
      /^Pressure with assist, lighter/,
      /^Pressure with assist, heavier/,
    ])
      await expect(report.getByRole('row', { name: row }).first()).toContainText('Meets');
  } finally {
    await app.end();
  }
});
