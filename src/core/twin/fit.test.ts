/** @jest-environment node */
import fc from 'fast-check';
import { bench, contextWith, family, faultyTruth, INHG, profile, truthWith } from '../scenarios/bench';
import { fitTwin } from '../procedure/fit-run';
import { compareFits } from './compare';
import { placeOf } from '../model/vectors';
import { fitReadings, type TwinFit } from './fit';
import { cholesky, solve, times, transpose } from '../numeric/linear';

const fitOf = (truth: ReturnType<typeof truthWith>, seed = 1): TwinFit => {
  const { context, run } = bench(truth, contextWith(), seed);
  const outcome = fitTwin(family, context, run);
  if (!outcome.ok) throw new Error(outcome.why);
  return outcome.fit;
};
const valueOf = (fit: TwinFit, id: string) =>
  fit.parameters.find(({ place }) => place === placeOf(family.parameters, id))!;
const healthy = family.healthy(profile).values;
/** A unit that differs from a healthy one in one parameter only. */
const withOne = (id: string, value: number) => healthy.with(placeOf(family.parameters, id), value);
const movedBetween = (before: TwinFit, after: TwinFit) =>
  compareFits(before, after)
    .filter(({ moved }) => moved)
    .map(({ place }) => family.parameters[place]!.id);

test.each([0.3, 0.5, 0.6, 0.7, 0.9])(
  'a torn diaphragm, %d of it, that drains the can: its passage is told within its uncertainty, or not told',
  (severity) => {
    const truth = faultyTruth('torn-diaphragm', severity, { noise_steps: 0.3 });
    const { value, u, told } = valueOf(fitOf(truth), 'tear_m3PerSPa');
    const truly = truth.parameters[placeOf(family.parameters, 'tear_m3PerSPa')]!;
    if (told) expect(Math.abs(value - truly)).toBeLessThan(2 * u);
    // From a can that is not drained yet it is told.
    if (severity === 0.3) expect(told).toBe(true);
  },
);

test('a torn diaphragm that drains the can, renewed: its passage has changed, and how far is not told', () => {
  const torn = fitOf(faultyTruth('torn-diaphragm', 0.7, { noise_steps: 0.3 }));
  const changes = compareFits(torn, fitOf(truthWith({ noise_steps: 0.3 })));
  const passage = changes.find(({ place }) => place === placeOf(family.parameters, 'tear_m3PerSPa'))!;
  expect(passage).toMatchObject({ moved: true, told_before: false, told_after: true });
  expect(passage.change).toBeLessThan(0);
});

describe('what counts as told', () => {
  /** A unit of one parameter, 10 when healthy and 14 with its one fault: units differ by 4. A reading shows it as it is. */
  const toy = {
    ...family,
    parameters: [family.parameters[0]!],
    healthy: () => ({ values: [10], tolerances: [0] }),
    faults: [{ id: 'fault', apply: () => [14], signs: {} }],
    faultsOf: undefined,
    steady: (vector: readonly number[]) => [vector[0]!],
  } as unknown as Parameters<typeof fitReadings>[0];
  const fitted = (...us: readonly number[]) => {
    const readings = us.map((u, i) => ({
      ...{ item: `reading.${i}`, place: 0, value: 12, inputs: [], random: u },
      ...{ shared: { gauge: `gauge.${i}`, u: 0 }, inputDoubts: [] },
    }));
    const outcome = fitReadings(toy, null, readings);
    if (!outcome.ok) throw new Error(outcome.why);
    return outcome.fit.parameters[0]!;
  };
  test('is where readings make up three quarters of the value, the rest being what was assumed of such units', () => {
    // Weights 1/u² against 1/4²: a part of 16/(16 + u²). Three quarters are at u² = 16/3, u = 2.309.
    expect([2.3, 2.32].map((u) => fitted(u).told)).toEqual([true, false]);
    // Two readings have half the variance of one: at u = 3.266 they make it up.
    expect([3.2, 3.3].map((u) => fitted(u, u).told)).toEqual([true, false]);
    // The value lies between what was read and what was assumed, by those parts: 10 + 2·16/(16 + 4) at u = 2.
    expect(fitted(2).value).toBeCloseTo(11.6, 6);
  });
});

describe('linear algebra', () => {
  test('a system worked by hand: [[4, 2], [2, 3]]·x = [2, 5] has x = (−½, 2)', () => {
    const [a, b] = solve(
      cholesky([
        [4, 2],
        [2, 3],
      ]),
      [2, 5],
    );
    expect(a).toBeCloseTo(-0.5, 12);
    expect(b).toBeCloseTo(2, 12);
  });
  test('solves any well-made system', () => {
    const entry = fc.double({ min: -3, max: 3, noNaN: true });
    fc.assert(
      fc.property(
        fc.array(fc.array(entry, { minLength: 3, maxLength: 3 }), { minLength: 3, maxLength: 3 }),
        (m) => {
          // MᵀM + I is positive definite whatever M is.
          const a = transpose(m).map((row, i) =>
            transpose(m).map(
              (other, j) =>
                row.reduce((s, x, k) => s + x * other[k]!, i === j && row ? 0 : 0) + (i === j ? 1 : 0),
            ),
          );
          const x = [1, -2, 3];
          solve(cholesky(a), times(a, x)).forEach((v, i) => expect(v).toBeCloseTo(x[i]!, 6));
        },
      ),
    );
  });
  test('refuses what is not positive definite', () => {
    expect(() =>
      cholesky([
        [1, 2],
        [2, 1],
      ]),
    ).toThrow(RangeError);
  });
});

describe('the twin fitted to a run', () => {
  test('finds the parameters of the unit on the bench, without noise', () => {
    const truth = truthWith({ parameters: withOne('effectiveArea_m2', 0.03) });
    const fit = fitOf(truth);
    const area = valueOf(fit, 'effectiveArea_m2');
    expect(area.told).toBe(true);
    // A gauge's step is the only thing between them: 0.2 bar of 90 bar.
    expect(Math.abs(area.value - 0.03) / 0.03).toBeLessThan(0.01);
    expect(Math.abs(area.value - 0.03)).toBeLessThan(2 * area.u);
    // r = (3.6 − 0.9151674)·3.33292e-4/0.0415476: the valve is the healthy one, whatever the diaphragm.
    expect(valueOf(fit, 'valveGain').value / 0.0215374).toBeCloseTo(1, 1);
    expect(valueOf(fit, 'crack_Pa').value / 1e5).toBeCloseTo(3, 1);
  });
  test('its limits hold the truth about as often as they say', () => {
    let inside = 0;
    const runs = 40;
    for (let seed = 1; seed <= runs; seed += 1) {
      const found = valueOf(fitOf(truthWith({ noise_steps: 0.25 }), seed), 'valveGain');
      if (Math.abs(found.value - 0.0215374) < 2 * found.u) inside += 1;
    }
    // The gauges are true here, so the class error in u makes the limits wide: never fewer than 90 %.
    expect(inside).toBeGreaterThanOrEqual(36);
  });
  test('too few readings to tell: said, not guessed', () => {
    const { context, run } = bench(truthWith());
    const early = { ...run, captures: run.captures.slice(0, 12) };
    expect(fitTwin(family, context, early)).toEqual({ ok: false, why: 'too-few-readings' });
  });
  test('a parameter that was not tested is not told, and no change in it is claimed', () => {
    const { context, run } = bench(truthWith());
    const without = { ...run, captures: run.captures.filter(({ item }) => !item.startsWith('residual')) };
    const outcome = fitTwin(family, context, without);
    if (!outcome.ok) throw new Error(outcome.why);
    expect(valueOf(outcome.fit, 'residual_Pa').told).toBe(false);
    const change = compareFits(outcome.fit, fitOf(truthWith())).find(
      ({ place }) => place === placeOf(family.parameters, 'residual_Pa'),
    );
    expect(change!.moved).toBeNull();
  });
});

describe('before and after a repair', () => {
  const repairs: [string, string, number][] = [
    ['a smaller diaphragm', 'effectiveArea_m2', 0.033],
    ['a late valve', 'crack_Pa', 6e5],
    ['a leaking cup', 'fluidLoss_PaPerS', 6e5 / 60],
    ['pressure left behind', 'residual_Pa', 1.2e5],
    ['an activation port that never balances', 'restDifference_Pa', 3 * INHG],
    ['a blocked breather', 'activationFloor_Pa', 3 * INHG],
    ['a hose that closes up', 'hoseDrop', 0.3],
    ['a switch out of range', 'switchCloses_Pa', 9e5],
  ];
  test.each(repairs)('%s: names %s and no other, over seeded noise', (_what, id, value) => {
    for (let seed = 1; seed <= 12; seed += 1) {
      const noise = { noise_steps: 0.25 };
      const before = fitOf(truthWith({ ...noise, parameters: withOne(id, value) }), seed);
      const after = fitOf(truthWith(noise), 1000 + seed);
      expect([seed, movedBetween(before, after)]).toEqual([seed, [id]]);
    }
  });
  test('nothing was done: nothing moved', () => {
    for (let seed = 1; seed <= 20; seed += 1) {
      const noise = truthWith({ noise_steps: 0.25 });
      expect([seed, movedBetween(fitOf(noise, seed), fitOf(noise, 500 + seed))]).toEqual([seed, []]);
    }
  });
  test('a gauge that reads 1.5 % high does so before and after: it hides no change and makes none', () => {
    const bent = { gauges: { 'OUT-H': { scale: 1.004 } }, noise_steps: 0.25 };
    expect(movedBetween(fitOf(truthWith(bent), 3), fitOf(truthWith(bent), 4))).toEqual([]);
  });
  test.each([0.2, 0.3, 0.35, 0.5, 0.6])(
    'a torn diaphragm, %d of it, mended: the passage between the sides, never the valve nor the hose',
    (severity) => {
      for (const seed of [7, 8, 9]) {
        const before = fitOf(faultyTruth('torn-diaphragm', severity, { noise_steps: 0.25 }), seed);
        const after = fitOf(truthWith({ noise_steps: 0.25 }), 50 + seed);
        expect([seed, movedBetween(before, after)]).toEqual([seed, ['tear_m3PerSPa']]);
      }
    },
  );
});
