import { FAMILIES, type FamilyKind } from '../families/registry';
import { Following } from '../twin/following';

const ROOM = { barometer_Pa: 101_325, temperature_K: 293.15 };
const of = (kind: FamilyKind, supply_Pa = 68_000) =>
  new Following(FAMILIES[kind], FAMILIES[kind].typical, { room: ROOM, supply_Pa });

/** The same told for some seconds, a tenth at a time. */
function told(
  following: Following,
  input: number,
  fed: boolean,
  seconds: number,
  supply_Pa: number | null = 68_000,
) {
  let parts = following.follow({ input, fed, supply_Pa }, 0.1);
  for (let gone_s = 0.1; gone_s < seconds; gone_s += 0.1)
    parts = following.follow({ input, fed, supply_Pa }, 0.1);
  return parts;
}

test('with nothing on, parts stand at rest whatever time goes by', () => {
  const parts = told(of('remote-vacuum'), 0, false, 3);
  expect(parts.vacuumSide!.at).toBe(0);
  expect(parts.diaphragm!.at).toBe(0);
});

test('its feed comes up within a few moments of the gauges, and then its hand goes where theirs is', () => {
  const following = of('remote-vacuum');
  expect(told(following, 0, true, 3).vacuumSide!.at).toBeGreaterThan(60_000);
  const pressed = told(following, 2e6, true, 2);
  expect(pressed.inputFluid!.at / 2e6).toBeCloseTo(1, 2);
  // Out at the family's own steady line: what the twin tells at 20 bar.
  const family = FAMILIES['remote-vacuum'];
  const known = { input_Pa: 2e6, supply_Pa: 68_000, ...ROOM, elapsed_s: 0, applications: 0 };
  const output = family.steady(
    family.healthy(family.typical).values,
    family.inputs.map(({ id }) => known[id as keyof typeof known] ?? 0),
  )[family.readings.findIndex(({ id }) => id === 'output')]!;
  expect(pressed.outputFluid!.at / output).toBeCloseTo(1, 1);
  expect(pressed.diaphragm!.at).toBeGreaterThan(0);
  expect(told(following, 0, true, 3).diaphragm!.at).toBeLessThan(1e-4);
});

test('a supply that is read elsewhere is taken over at rest, and not while something is pressed', () => {
  const following = of('remote-vacuum');
  told(following, 0, true, 3);
  expect(told(following, 2e6, true, 1, 40_000).vacuumSide!.at).toBeGreaterThan(60_000);
  expect(told(following, 0, true, 4, 40_000).vacuumSide!.at).toBeCloseTo(40_000, -3);
});

test('let out, it stands at rest again', () => {
  const following = of('pedal-vacuum');
  expect(told(following, 0, true, 3).vacuumSide!.at).toBeGreaterThan(60_000);
  expect(told(following, 0, false, 30).vacuumSide!.at).toBeLessThan(2_000);
});

test('a hand further than any is followed to its end only', () => {
  const parts = told(of('vacuum-vehicle'), 5_000, true, 6, null);
  expect(Number.isFinite(parts.frontBrakes!.at)).toBe(true);
});
