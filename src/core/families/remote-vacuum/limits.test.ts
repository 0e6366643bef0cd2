import { benchOf } from '../../scenarios/bench';
import { FAMILIES } from '../registry';

const family = FAMILIES['remote-vacuum'];
const { bench, truthWith, contextWith } = benchOf('remote-vacuum');
type Limit = { readonly value: number; readonly source: string };
const { limits } = contextWith().profile as { limits: Record<string, Limit> };

test('each loss of vacuum keeps to its own limit: 1 inHg a minute released, 2 applied', () => {
  const { results } = bench(truthWith());
  const limitOf = (id: string) => results.find((result) => result.id === id)!.limits;
  expect(limitOf('vacuum-loss-released')).toMatchObject({ high: limits.vacuumLossReleased_PaPerS!.value });
  expect(limitOf('vacuum-loss-applied')).toMatchObject({ high: limits.vacuumLossApplied_PaPerS!.value });
  expect(limits.vacuumLossApplied_PaPerS!.value).toBeCloseTo(2 * limits.vacuumLossReleased_PaPerS!.value, 12);
});

test('a healthy one loses a quarter of what its limits allow, and goes back by a quarter of its hysteresis', () => {
  const { values } = family.healthy(family.typical);
  const of = (id: string) => values[family.parameters.findIndex((one) => one.id === id)]!;
  expect(of('fluidLoss_PaPerS')).toBeCloseTo(limits.holdLoss_PaPerS!.value / 4, 9);
  expect(of('hysteresis')).toBeCloseTo(limits.hysteresis_fraction!.value / 4, 9);
  // Twice the leak applied: what comes to it is as much again as released.
  expect(of('appliedMore_m3PerSPa')).toBeCloseTo(of('leak_m3PerSPa'), 15);
});
