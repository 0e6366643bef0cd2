/** @jest-environment node */
import type { Fault } from '../contract/family';
import { benchOf } from '../scenarios/bench';
import { HEALTHY, libraryOf, UNKNOWN, type Cause } from './causes';
import { Diagnostician } from './diagnose';
import { evidenceOf } from './of-run';
import { chancesAfter, repairedBy } from './repaired';

const fault = (id: string, parts: string[]) => ({ id, parts }) as unknown as Fault;
const [seal, seat, hose] = [
  fault('seal', ['piston']),
  fault('seat', ['piston', 'valve']),
  fault('hose', ['line']),
];
const cause = (id: string, ...faults: Fault[]): Cause => ({ id, faults, repair: id, prior: 0 });

describe('what is believed behind a repair, counted out by hand', () => {
  const before = [
    { cause: cause('seal', seal!), chance: 0.5 },
    { cause: cause('hose', hose!), chance: 0.2 },
    { cause: cause('seal + hose', seal!, hose!), chance: 0.2 },
    { cause: cause(HEALTHY), chance: 0.06 },
    { cause: cause(UNKNOWN), chance: 0.04 },
  ];
  test('a new piston: nine in ten of its faults are gone, whatever else is wrong stays', () => {
    const after = chancesAfter(before, ['piston']);
    // Healthy 0.06 + 0.9·0.5; the seal still there 0.1·0.5; hose 0.2 + 0.9·0.2; both 0.1·0.2; unknown as it was.
    expect(after[HEALTHY]).toBeCloseTo(0.51, 12);
    expect(after['seal']).toBeCloseTo(0.05, 12);
    expect(after['hose']).toBeCloseTo(0.38, 12);
    expect(after['seal + hose']).toBeCloseTo(0.02, 12);
    expect(after[UNKNOWN]).toBeCloseTo(0.04, 12);
  });
  test('a part that mends nothing of it changes nothing', () => {
    expect(chancesAfter(before, ['lever'])).toEqual(
      Object.fromEntries(before.map(({ cause: { id }, chance }) => [id, chance])),
    );
  });
  test('two faults mended by one part leave nothing', () => {
    const both = [{ cause: cause('seal + seat', seal!, seat!), chance: 1 }];
    expect(chancesAfter(both, ['piston'])).toEqual({
      [HEALTHY]: 0.9,
      'seal + seat': expect.closeTo(0.1, 12),
    });
  });
});

describe('a servo before and behind a repair', () => {
  const { family, contextWith, faultyTruth, truthWith, bench } = benchOf('rod-servo');
  const context = contextWith();
  const beliefs = { complaint: true, weights: {} };
  const healthy = family.healthy(context.profile).values;
  const seen = (truth: ReturnType<typeof truthWith>, seed: number) =>
    evidenceOf(family, context, bench(truth, context, seed).run);
  const believedOf = (truth: ReturnType<typeof truthWith>) => {
    const before = new Diagnostician(family, context.profile, beliefs);
    return { posterior: before.posterior(seen(truth, 1)), set: before.set };
  };
  const repaired = (
    believed: ReturnType<typeof believedOf>,
    parts: readonly string[],
    truth: ReturnType<typeof truthWith>,
  ) => {
    const after = new Diagnostician(family, context.profile, {
      ...beliefs,
      after: chancesAfter(believed.posterior.ranked, parts),
    });
    const posterior = after.posterior(seen(truth, 2));
    const found = repairedBy(family.parameters, healthy, parts, believed, { posterior, set: after.set });
    return { posterior, found };
  };
  const torn = faultyTruth('torn-piston', 0.5);
  const passage = 'tear_m3PerSPa';
  const truly = torn.parameters[family.parameters.findIndex(({ id }) => id === passage)]!;

  test('a torn cup renewed: the passage between the sides is gone, beyond the noise, and nothing else is wrong', () => {
    const { fault: of, ...found } = repaired(believedOf(torn), ['piston'], truthWith()).found!;
    expect(of).toBe('torn-piston');
    // A leaking vacuum seat shows the same: of the two by weight 14 and 8 the cup has some six in ten.
    expect(found.before).toBeGreaterThan(0.5);
    expect(found.before).toBeLessThan(0.75);
    expect(found.after).toBeLessThan(0.05);
    expect(['mended', 'gone']).toContain(found.is);
    const moved = found.parameters.find(({ id }) => id === passage)!;
    expect(Math.abs(moved.before - truly)).toBeLessThan(2 * moved.u_before + 0.1 * truly);
    expect(moved.after).toBeLessThan(0.05 * truly);
    expect(moved.moved).toBe(true);
  });
  test('the passage is there as before: it was the seat, which shows the same and was not touched', () => {
    const { found, posterior } = repaired(believedOf(torn), ['piston'], torn);
    expect(found!.is).toBe('not-healthy');
    expect(found!.after).toBeLessThan(found!.before);
    expect(found!.parameters.find(({ id }) => id === passage)!.moved).toBe(false);
    expect(posterior.ranked[0]!.cause.id).toBe('seat-leak-vacuum');
  });
  test('a spring that nothing else is like, and behind the repair it is as weak as it was', () => {
    const weak = faultyTruth('weak-spring', 0.8);
    const { found } = repaired(believedOf(weak), ['spring'], weak);
    expect(found).toMatchObject({ fault: 'weak-spring', is: 'still-there' });
    const { found: renewed } = repaired(believedOf(weak), ['spring'], truthWith());
    expect(renewed!.after).toBeLessThan(0.05);
    expect(['mended', 'gone']).toContain(renewed!.is);
  });
  test('work on what was never suspected says nothing', () => {
    const believed = believedOf(torn);
    expect(repairedBy(family.parameters, healthy, ['no such part'], believed, believed)).toBeNull();
  });
});

test('behind a repair the library begins with what was found, but for a twentieth', () => {
  const { family, profile } = benchOf('rod-servo');
  const usual = libraryOf(family, profile, { complaint: true, weights: {} });
  const after = libraryOf(family, profile, { complaint: true, weights: {}, after: { [HEALTHY]: 1 } });
  expect(after.healthy.prior).toBeCloseTo(0.95 + 0.05 * usual.healthy.prior, 12);
  expect(after.singles[0]!.prior).toBeCloseTo(0.05 * usual.singles[0]!.prior, 12);
  const all = [after.healthy, after.unknown, ...after.singles, ...after.pairs];
  expect(all.reduce((sum, { prior }) => sum + prior, 0)).toBeCloseTo(1, 9);
});
