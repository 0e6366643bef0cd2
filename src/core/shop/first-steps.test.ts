/** @jest-environment node */
import { FAMILIES } from '../families/registry';
import { firstSteps, type ShopState } from './first-steps';

const EMPTY: ShopState = { instruments: [], profiles: [], technicians: 0, shopName: '', tested: false };
const gaugesOf = (kind: keyof typeof FAMILIES) =>
  FAMILIES[kind].ports.map(
    ({ id, quantity }) => ({ usualPort: id, quantity: quantity! }) as ShopState['instruments'][number],
  );
const states = (shop: ShopState) => firstSteps(shop)!.map(({ id, done }) => [id, done]);

test('an empty shop is led in order, and the first test waits for what it needs', () => {
  expect(states(EMPTY)).toEqual([
    ['gauges', false],
    ['profile', false],
    ['technicians', false],
    ['letterhead', false],
    ['test', false],
  ]);
  const [gauges] = firstSteps(EMPTY)!;
  for (const { name } of FAMILIES['remote-vacuum'].ports) expect(gauges!.words).toContain(name);
  expect(firstSteps(EMPTY)!.at(-1)!.waitsFor).toBe('gauges and a profile');
});

test('gauges are asked for by the kinds of unit on the shelf: one that can be tested is enough', () => {
  const servo = { ...EMPTY, profiles: [{ kind: 'rod-servo' as const }] };
  expect(firstSteps(servo)![0]!.words).not.toContain('Activation');
  expect(firstSteps(servo)!.at(-1)!.waitsFor).toBe('gauges');
  const ready = { ...servo, instruments: gaugesOf('rod-servo') };
  expect(states(ready)[0]).toEqual(['gauges', true]);
  expect(firstSteps(ready)!.at(-1)!.waitsFor).toBeNull();
  const both = { ...ready, profiles: [{ kind: 'remote-vacuum' as const }, { kind: 'rod-servo' as const }] };
  expect(states(both)[0]).toEqual(['gauges', true]);
});

test('a shop that has tested a unit of its own is led no more', () =>
  expect(firstSteps({ ...EMPTY, tested: true })).toBeNull());
