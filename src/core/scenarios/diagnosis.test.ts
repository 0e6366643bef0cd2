/** @jest-environment node */
import { adviseOn } from '../diagnosis/advice';
import { HEALTHY } from '../diagnosis/causes';
import { Diagnostician } from '../diagnosis/diagnose';
import { evidenceOf } from '../diagnosis/of-run';
import { possibleSteps } from '../diagnosis/possible';
import { FAMILIES, FAMILY_KINDS, type FamilyKind } from '../families/registry';
import { EMPTY_RUN } from '../procedure/run';
import { benchOf, RIGS } from './bench';

const complaint = { complaint: true, weights: {} };

test.each(FAMILY_KINDS)('%s says how long every test takes that reads a number', (kind) => {
  const family = FAMILIES[kind];
  const { steps } = family.procedure(family.typical, RIGS[kind]);
  const untimed = steps.filter(
    ({ attended_s = 0, items }) => attended_s <= 0 && items.some((item) => item.kind === 'reading'),
  );
  expect(untimed.map(({ id }) => id)).toEqual([]);
});

/** One for each family, its particles laid out once. */
const laidOut = new Map<FamilyKind, Diagnostician>();

function diagnosed(kind: FamilyKind) {
  const bench = benchOf(kind);
  const diagnostician = laidOut.get(kind) ?? new Diagnostician(bench.family, bench.profile, complaint);
  laidOut.set(kind, diagnostician);
  const after = (...of: Parameters<typeof bench.bench>) => {
    const { context, run } = bench.bench(...of);
    return diagnostician.posterior(evidenceOf(bench.family, context, run));
  };
  return { ...bench, diagnostician, after };
}
type Found = ReturnType<ReturnType<typeof diagnosed>['after']>;
const firstRepair = ({ classes }: Found) => [...classes].sort(([, a], [, b]) => b - a)[0]!;
const chanceOf = ({ ranked }: Found, id: string) => ranked.find(({ cause }) => cause.id === id)?.chance ?? 0;

describe('a vehicle tested all through, read with a third of a step of scatter', () => {
  const { after, bench, diagnostician, truthWith, faultyTruth, family, profile } =
    diagnosed('vacuum-vehicle');
  const noise = { noise_steps: 0.3 };
  test.each([
    ['torn-diaphragm', 0.6, 'booster'],
    ['air-seat', 0.7, 'valve'],
    ['disc-missing', 0.5, 'pushrod'],
    ['filter-blocked', 0.7, 'filter'],
    ['timing', 0.9, 'engine'],
    ['check-leak', 0.7, 'check-valve'],
    ['master-bypass', 0.6, 'master'],
    ['air', 0.6, 'lines'],
    ['tripped-shuttle', 0.6, 'shuttle'],
  ])('%s at %s: the first repair is that of the %s', (fault, severity, repair) => {
    const found = after(faultyTruth(fault, severity, noise));
    expect(firstRepair(found)[0]).toBe(repair);
    expect(chanceOf(found, HEALTHY)).toBeLessThan(0.2);
  });
  test('a hose with 5 % of its conductance, which no gauge at rest shows', () => {
    const found = after(faultyTruth('hose-blocked', Math.log(0.05 / 0.3) / Math.log(0.02 / 0.3), noise));
    expect(firstRepair(found)[0]).toBe('hose');
  });
  test('a torn diaphragm and a vacuum seat leak are told apart by no test here', () => {
    const found = after(faultyTruth('torn-diaphragm', 0.6, noise));
    // Twice as often met, and alike in all that is read: twice as likely.
    expect(chanceOf(found, 'torn-diaphragm') / chanceOf(found, 'vacuum-seat')).toBeCloseTo(2, 1);
  });
  test('two faults at once, though the pair is a rare one', () => {
    const { values } = family.healthy(profile);
    const [disc, hose] = ['disc-missing', 'hose-blocked-wheel'].map((id) =>
      family.faults.find((one) => one.id === id)!,
    );
    const found = after(
      truthWith({
        parameters: hose!.apply(disc!.apply(values, 0.74), 0.78),
        signs: { ...disc!.signs, ...hose!.signs },
        ...noise,
      }),
    );
    expect(found.ranked[0]!.cause.faults.map(({ id }) => id).sort()).toEqual([
      'disc-missing',
      'hose-blocked-wheel',
    ]);
  });
  test('pressures half as high again as any brake makes them: nothing known explains them, not even two faults', () => {
    const { context, run } = bench(truthWith(noise));
    const wrong = {
      ...run,
      captures: run.captures.map((capture) =>
        capture.item.endsWith('.pressure') ? { ...capture, value_SI: 1.5 * capture.value_SI } : capture,
      ),
    };
    expect(diagnostician.posterior(evidenceOf(family, context, wrong)).unknown).toBeGreaterThan(0.95);
  });
  test('what a foot finds first is known to the gauge, and what it leaves for the next to a fiftieth', () => {
    const { context, run } = bench(truthWith());
    const [first, second, third] = [1, 2, 3].map((n) => {
      const found = evidenceOf(family, context, run).find(
        (one) => one.kind === 'reading' && one.of === `reserve.${n}`,
      );
      return found?.kind === 'reading' ? found.random / found.value : NaN;
    });
    // The gauge is read to 0.2 bar, of some 50: 0.2/√12/50.
    expect(first).toBeLessThan(0.0015);
    expect(second).toBeCloseTo(0.02, 3);
    expect(third).toBeCloseTo(0.02, 3);
  });
  test('healthy, it stays the likeliest, and a booster on a weak supply is not blamed for it', () => {
    expect(after(truthWith(noise)).ranked[0]!.cause.id).toBe(HEALTHY);
    const weak = after(faultyTruth('timing', 1, noise));
    const ofUnit = ['booster', 'valve', 'pushrod', 'filter'].reduce(
      (sum, repair) => sum + (weak.classes.get(repair) ?? 0),
      0,
    );
    expect(ofUnit).toBeLessThan(0.05);
  });
  test('a wait that runs lets nothing else begin, and a shut gate is never advised', () => {
    const context = benchOf('vacuum-vehicle').contextWith();
    const early = possibleSteps(family, context, EMPTY_RUN).map(({ step }) => step);
    expect(early).toContain('with');
    const { steps } = context.procedure;
    const waiting = steps.flatMap(({ items }) => items).find(({ kind }) => kind === 'wait')!;
    const run = {
      ...EMPTY_RUN,
      waits: { [waiting.id]: { startedAt: '2026-11-23T08:00:00.000Z', endedAt: null } },
    };
    expect(possibleSteps(family, context, run)).toEqual([]);
  });
  test('on a fresh run it advises what can begin, with what that needs before it', () => {
    const context = benchOf('vacuum-vehicle').contextWith();
    const advice = adviseOn(diagnostician, family, context, EMPTY_RUN, { otherWork: false });
    expect(advice.standing.is).toBe('open');
    expect(advice.evidence).toBe(0);
    const forces = advice.steps.find(({ step }) => step === 'with')!;
    // It leans on the opening steps, and its gauges are not fitted yet.
    expect(forces.first).not.toBe('with');
    expect(forces.setUp_s).toBeGreaterThan(540);
    for (const { bitsPerMinute } of advice.steps.slice(1))
      expect(bitsPerMinute).toBeLessThanOrEqual(advice.steps[0]!.bitsPerMinute);
  });
});

describe('a unit on its bench, with no code of its own', () => {
  const SHOWN = [
    ['remote-vacuum', 'undersized-diaphragm'],
    ['rod-servo', 'torn-piston'],
    ['rod-servo', 'check-valve-leak'],
    ['pedal-vacuum', 'air-seat'],
    ['motor-pump-booster', 'gas-loss'],
    ['motor-pump-booster', 'vanes-worn'],
    ['motor-pump-booster', 'switch-low'],
    ['hydraulic-booster', 'gas-loss'],
    ['hydraulic-vehicle', 'belt-slips'],
    ['hydraulic-vehicle', 'return-restricted'],
  ] as const;
  test.each(SHOWN)('%s with “%s”', (kind, id) => {
    const { after, faultyTruth } = diagnosed(kind);
    const found = after(faultyTruth(id, 0.7));
    expect(found.ranked[0]!.cause.id).toBe(id);
    expect(chanceOf(found, HEALTHY)).toBeLessThan(0.05);
  });
  test.each([...new Set(SHOWN.map(([kind]) => kind))])('%s that is healthy', (kind) => {
    const { after, truthWith } = diagnosed(kind);
    expect(after(truthWith()).ranked[0]!.cause.id).toBe(HEALTHY);
  });
});
