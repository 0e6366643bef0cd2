import type { Item } from '../src/core/contract/steps';
import { App, expect, test } from './app';
import { advised, onSimulatedBench, readSoFar, runOn, seen, Technician } from './technician';

const SALOON = 'Esk & Moor Saloon 12';

test('gas lost in one of two circuits: both stand side by side, and the advice finds which', async ({
  app,
  page,
}) => {
  const { run, truth } = await readSoFar(app, SALOON, 'STORED-61', ['gas-loss-rear', 0.6], 'lamp.time');
  const bench = await Technician.at(app, page, run, truth);
  await page.goto(`${app.url}/runs/${run}`);
  await bench.until('charge.wait');
  const gauges = page.getByRole('region', { name: 'Gauges' });
  await expect(gauges.getByText('Acc front')).toBeVisible();
  await expect(gauges.getByText('Acc rear')).toBeVisible();
  const pane = await advised(app, page, run);
  await expect(pane.getByRole('list', { name: 'Causes' }).getByRole('listitem').first()).toContainText(
    /gas lost from the rear accumulator/i,
  );
});

test('a body that stands on springs alone: nothing is bled before stands and both circuits at zero, and what is read comes from outside', async ({
  app,
  page,
}) => {
  const { run, truth } = await readSoFar(app, SALOON, 'STORED-62', ['springs-tired', 0.7], 'springs.stands');
  const bench = await Technician.at(app, page, run, truth);
  await page.goto(`${app.url}/runs/${run}`);
  // By habit twice: nobody has looked yet, and the run stands where it stood.
  for (let i = 0; i < 2; i += 1) {
    await page.keyboard.press('Enter');
    await page.waitForTimeout(900);
  }
  expect((await bench.next()).action).toMatchObject({ item: { id: 'springs.stands' } });
  await bench.until('springs.supply2');
  await expect(page.getByText('the rear circuit must be at zero')).toBeVisible();
  await bench.until('done');
  await page.goto(`${app.url}/runs/${run}/report`);
  const report = page.getByRole('article', { name: 'Report' });
  await expect(report.getByText('The stored pressure fails')).toBeVisible();
  await expect(report.getByText(/moderate stop .* such stops, until a lamp lights/)).toBeVisible();
  for (const side of ['left', 'right']) {
    await expect(report.getByRole('row', { name: `Height on springs alone, ${side}` })).toContainText(
      'Fails',
    );
    await expect(report.getByRole('row', { name: `Height as trimmed, ${side}` })).toContainText('Meets');
  }
  await expect(report.getByText(/^Lamp after \d h \d+ min at \d+ °C: as designed/).first()).toBeVisible();
});

/** What this visit leaves out: it is about heights. */
const LEFT = [
  'asked',
  'charge',
  'idle',
  'standing',
  'seep',
  'cycles',
  'metering',
  'travel',
  'rise',
  'bumps',
  'applications',
  'recharge',
  'stand-to-lamp',
];

test('a simulated car whose rams hide tired springs: charged, trimmed, bled and lowered, and the advice finds them', async ({
  page,
}) => {
  const app = await App.start({ demo: true, live: true });
  try {
    const { run } = await runOn(app, 'STORED-63', SALOON, {});
    await page.goto(`${app.url}/runs/${run.id}`);
    await page.getByRole('button', { name: 'Logger is on this vehicle' }).click();
    const hands = await onSimulatedBench(app, page, run.id);
    const fault = ['springs-tired', 0.6];
    expect(await app.post('/live/hands', { unit: { run: run.id, fault } })).toMatchObject({ ok: true });
    const bench = await Technician.at(app, page, run.id);
    await page.keyboard.press('F3');
    await expect(page.getByRole('button', { name: /Hands-free is on/ })).toBeVisible();
    for (;;) {
      const { action, count } = await bench.next();
      const item: Item | null = action.kind === 'item' ? action.item : null;
      if (item?.id === 'springs.back' || action.kind === 'done') break;
      const step = 'step' in action ? action.step.id : '';
      const moved = () =>
        expect
          .poll(async () => (await bench.next()).count, { message: item?.id ?? step })
          .toBeGreaterThan(count);
      if (action.kind === 'source' && action.set.source === 'engine')
        await hands({ key: action.set.to === 'off' ? 'off' : 'engine' });
      if (LEFT.includes(step)) await bench.skipStep('Not in this visit');
      else if (item?.kind === 'reading') {
        // Both circuits are emptied by the pedal with the engine off, and the rams let out after that.
        if (step === 'rams') await hands({ heightLever: 'bled' });
        if (item.measures === 'zero' && item.port.startsWith('supply'))
          for (let stroke = 0; stroke < 60; stroke += 1)
            for (const pedal_N of [300, 0]) {
              await hands({ pedal_N, press_NPerS: 2000 });
              await page.waitForTimeout(250);
              if ((await bench.next()).count > count) break;
            }
        if (item.port === 'left' || item.port === 'right') {
          // By eye, once the body has come to rest.
          const { port } = item;
          const { shown } = await seen(app, ({ settled }) => settled.includes(port));
          await bench.enter(item, `${(shown[port]! * 1e3).toFixed(1)} mm`);
        }
        await moved();
      } else await bench.doNext(true);
    }
    const pane = await advised(app, page, run.id);
    await expect(pane.getByRole('list', { name: 'Causes' }).getByRole('listitem').first()).toContainText(
      /springs (tired|sagged), and masked by the rams/i,
    );
  } finally {
    await app.end();
  }
});
