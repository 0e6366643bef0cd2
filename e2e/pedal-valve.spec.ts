import type { Item } from '../src/core/contract/steps';
import { App, expect, test } from './app';
import { advised, greatest, handsFree, jumpedTo, readSoFar, runOn, seen, Technician } from './technician';

const DUAL = 'Esk & Moor Summit DV-16';

test('a pedal valve of which one accumulator has lost its gas: two circuits on the screen, its flick-up found by the advice', async ({
  app,
  page,
}) => {
  const { run, truth } = await readSoFar(app, DUAL, 'VALVE-41', ['gas-loss-2', 0.5], 'flick.supply');
  const bench = await Technician.at(app, page, run, truth);
  await page.goto(`${app.url}/runs/${run}`);
  await expect(page.getByRole('img', { name: 'Drawing of the unit, Accumulator 1 marked' })).toBeVisible();
  for (const gauge of ['A-81', 'A-82', 'C-84', 'C-85'])
    await expect(page.getByText(gauge, { exact: true }).first()).toBeInViewport();
  await bench.until('oil.warm');
  // What is stored is live, with what it stands at.
  await expect(page.getByText('Pump on, 155.0 bar')).toBeVisible();
  await expect(page.getByText('Expect 40 °C · at least 30 °C')).toBeVisible();
  const pane = await advised(app, page, run);
  await expect(pane.getByRole('list', { name: 'Causes' }).getByRole('listitem').first()).toContainText(
    /gas lost from accumulator 2/i,
  );
});

test('emptied and read at zero behind both check valves before anything is opened; the report says which circuit falls short', async ({
  app,
  page,
}) => {
  const { run, truth } = await readSoFar(app, DUAL, 'VALVE-42', ['gas-loss-2', 0.5], 'metal-return');
  const bench = await Technician.at(app, page, run, truth);
  await page.goto(`${app.url}/runs/${run}`);
  await bench.until('safe.supply');
  // Charged still, with the pump off: that is said until both gauges were read at zero.
  await expect(page.getByText('Fully charged', { exact: true })).toBeVisible();
  await expect(page.getByText(/their check valves hold what is stored/)).toBeVisible();
  await bench.until('done');
  await page.goto(`${app.url}/runs/${run}/report`);
  const report = page.getByRole('article', { name: 'Report' });
  await expect(report.getByText('The unit fails')).toBeVisible();
  for (const name of [/^Flick-up, accumulator 2/, /^Full applications above the lamp, circuit 2/])
    await expect(report.getByRole('row', { name })).toContainText('Fails');
  for (const name of [/^Flick-up, accumulator 1/, /^Circuit 2 at travel 4/, /^Accumulator 1 after standing/])
    await expect(report.getByRole('row', { name })).toContainText('Meets');
});

test('a simulated valve whose drilling is nearly plugged: both circuits read themselves, what it shows when pressed at once is read by eye, and the advice finds it', async ({
  page,
}) => {
  const app = await App.start({ demo: true, live: true });
  try {
    const { run } = await runOn(app, 'VALVE-64', DUAL, {});
    const { bench, hands } = await handsFree(app, page, run.id, ['drilling-plugged', 0.3]);
    const inBar = (value_Pa: number) => (value_Pa / 1e5).toFixed(1);
    const jumped: Record<string, number> = {};
    let [peak_Pa, middle_m] = [0, 0];
    for (;;) {
      const { action, count } = await bench.next();
      const item: Item | null = action.kind === 'item' ? action.item : null;
      if (item?.id === 'hold.wait' || action.kind === 'done') break;
      if (action.kind === 'source' && action.set.to === 'on') {
        // Each gauge jumps as fluid first enters: seen as it happens.
        const { shown } = await jumpedTo(app, ['A-81', 'A-82'], () => hands({ pump: true }));
        Object.assign(jumped, { supply: shown['A-81'], 'supply-2': shown['A-82'] });
      }
      if (item?.kind !== 'reading') {
        await bench.doNext(true);
        continue;
      }
      if (item.id === 'begin.travel') await hands({ treadle_m: 3e-3, press_mPerS: 2e-4 });
      else if (item.id === 'hold.travel') {
        // It still stands there from the sweep, and is not taken for pressed at once: it is let go first.
        await hands({ treadle_m: 0, press_mPerS: 0.02 });
        await seen(app, ({ shown, settled }) => shown['C-84']! < 1e5 && settled.includes('C-84'));
        expect((await bench.next()).action).toMatchObject({ item: { id: 'hold.travel' } });
        peak_Pa = await greatest(app, 'C-84', 2, () => hands({ treadle_m: middle_m, press_mPerS: 1 }));
      } else if (item.port === 'treadle' && item.measures !== 'zero') {
        middle_m = item.target_Pa!;
        await hands({ treadle_m: middle_m, press_mPerS: 2e-3 });
      }
      if (item.measures.startsWith('flickUp')) await bench.enter(item, inBar(jumped[item.port]!));
      else if (item.id === 'hold.peak') await bench.enter(item, inBar(peak_Pa));
      await expect.poll(async () => (await bench.next()).count, { message: item.id }).toBeGreaterThan(count);
    }
    const pane = await advised(app, page, run.id);
    await expect(pane.getByRole('list', { name: 'Causes' }).getByRole('listitem').first()).toContainText(
      /drilling/i,
    );
  } finally {
    await app.end();
  }
});
