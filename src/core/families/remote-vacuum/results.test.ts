import fc from 'fast-check';
import { adviceSentence } from '../../metrology/advice';
import type { RunEvent } from '../../contract/events';
import { AT_ONCE, readingOf } from '../../model/vectors';
import { printSentence } from '../../quantities/sentence';
import {
  bench,
  BAR,
  contextWith,
  family,
  faultyTruth,
  gauges,
  INHG,
  outcome,
  profile,
  rig,
  truthWith,
} from '../../scenarios/bench';

/** A run whose readings are set by hand: the healthy bench with some values replaced, gauge by gauge. */
function withReadings(change: Readonly<Record<string, number>>, context = contextWith()) {
  const { events } = bench(truthWith(), context);
  const replaced = events.map((event): RunEvent =>
    event.type === 'captured' && event.item in change ? { ...event, value_SI: change[event.item]! } : event,
  );
  return outcome(context, replaced);
}

/** Gauges without a step worth counting, so that a result can be worked out by hand. */
const fine = { step_Pa: 1, accuracy: { kind: 'percent-of-span', percent: 0.5 } } as const;
const fineContext = contextWith({
  rig: Object.fromEntries(
    Object.entries(rig).map(([port, list]) => [port, list.map((gauge) => ({ ...gauge, ...fine }))]),
  ),
});

describe('results worked out by hand', () => {
  test('effective area: (p_out·A_slave − p_in·(A_slave − A_rod) + F_s)/Δp', () => {
    const { byId } = withReadings(
      { 'runout.input': 30e5, 'runout.output': 100e5, 'runout.activation': 0, 'full.supply': 60_000 },
      fineContext,
    );
    // A_slave = 3.332923e-4, A_slave − A_rod = 3.050179e-4 m²; (3332.92 − 915.05 + 110)/60 000 = 0.0421312 m².
    const area = byId('effective-area');
    expect(area.value!).toBeCloseTo(0.0421312, 6);
    // u: out 0.8 bar/√3·A_s/Δp = 2.5657e-4, in the same on 3.0502e-4 = 2.348e-4, supply 0.15 inHg/√3 on A/Δp = 2.059e-4.
    expect(area.u!).toBeCloseTo(Math.hypot(2.5657e-4, 2.348e-4, 2.059e-4), 6);
  });

  test('hold: 6 bar lost in 90 s is 4 bar/min, and the gauge’s own error leaves it', () => {
    const { events } = bench(truthWith(), fineContext);
    const start = events.find((e) => e.type === 'captured' && e.item === 'hold.start')!;
    const timed = events.map((event): RunEvent => {
      if (event.type !== 'captured') return event;
      if (event.item === 'hold.start') return { ...event, value_SI: 80e5 };
      if (event.item === 'hold.end')
        return { ...event, value_SI: 74e5, at: new Date(Date.parse(start.at) + 90_000).toISOString() };
      return event;
    });
    const hold = outcome(fineContext, timed).byId('hold');
    expect(hold.value!).toBeCloseTo((4 * BAR) / 60, 6);
    // Only timing is left: 1 s at either end of 90 s, √2/90 of the rate.
    expect(hold.u! / hold.value!).toBeCloseTo(Math.SQRT2 / 90, 4);
    expect(hold.verdict).toBe('fails');
  });

  test('hysteresis: 10 % above the apply line at the same input', () => {
    const rows = { 'ratio.1': 12e5, 'ratio.2': 16e5, 'ratio.3': 20e5, 'ratio.4': 24e5 };
    const line = Object.fromEntries(
      Object.entries(rows).flatMap(([row, p]) => [
        [`${row}.input`, p],
        [`${row}.output`, 3.6 * p],
      ]),
    );
    const { byId } = withReadings(
      { ...line, 'down.input': 20e5, 'down.output': 1.1 * 3.6 * 20e5 },
      contextWith(),
    );
    const bypassScale = byId('cross-check').value!;
    expect(byId('hysteresis').value!).toBeCloseTo(0.1, 2);
    expect(byId('boost-ratio').value!).toBeCloseTo(3.6 / bypassScale, 3);
  });

  test('supply health: a pump at 15 inHg under a 25 inHg barometer is a sea-level 17.95 inHg', () => {
    const { conditions } = contextWith();
    const high = contextWith({ conditions: { ...conditions, barometer_Pa: 25 * INHG } });
    const { byId } = withReadings({ 'rest.supply': 15 * INHG }, high);
    // 15 × 29.921 / 25 = 17.953.
    expect(byId('supply-health').value! / INHG).toBeCloseTo(17.953, 2);
    const manifold = contextWith({
      conditions: { ...conditions, barometer_Pa: 25 * INHG, supplyKind: 'manifold' },
    });
    // 29.921 − (25 − 15) = 19.921.
    expect(
      withReadings({ 'rest.supply': 15 * INHG }, manifold).byId('supply-health').value! / INHG,
    ).toBeCloseTo(19.921, 2);
  });

  test('one corrected point: out/in at the highest input below the knee, named as that', () => {
    const { byId } = bench(truthWith());
    const atInput = byId('boost-ratio-at-input');
    expect(atInput.verdict).toBe('noted');
    expect(printSentence(atInput.notes[0]!, 'mixed')).toMatch(/^At 2[34]\.\d bar in\.$/);
  });

  test('the profile says which of the two ratios its limit is for', () => {
    const { byId } = bench(truthWith(), contextWith({ profile: { ...profile, ratioLimitFor: 'at-input' } }));
    expect(byId('boost-ratio')).toMatchObject({ verdict: 'noted', limits: null });
    expect(byId('boost-ratio-at-input')).toMatchObject({ verdict: 'meets' });
  });
});

describe('what a result needs', () => {
  test('without a vented zero nothing is corrected, and the reason is said', () => {
    const { events, context } = bench(truthWith());
    const without = events.filter((e) => !(e.type === 'captured' && e.item === 'zero.OUT-H'));
    const { byId } = outcome(context, without);
    expect(byId('bypass').verdict).toBe('not-taken');
    expect(printSentence(byId('bypass').notes[0]!, 'mixed')).toMatch(
      /gauge zero cannot be told from a threshold/,
    );
    expect(byId('boost-ratio').value).not.toBeNull();
  });
  test('no area is told where the activation port never reached zero', () => {
    const { byId } = bench(faultyTruth('breather-blocked', 1));
    expect(byId('effective-area').verdict).toBe('not-taken');
    expect(printSentence(byId('effective-area').notes[0]!, 'mixed')).toMatch(/did not reach zero/);
  });
  test('two readings of a hold in the same breath tell no loss', () => {
    const { events, context } = bench(truthWith());
    const start = events.find((e) => e.type === 'captured' && e.item === 'loss-released.start')!;
    const same = events.map((e) =>
      e.type === 'captured' && e.item === 'loss-released.end' ? { ...e, at: start.at } : e,
    );
    expect(outcome(context, same).byId('vacuum-loss-released')).toMatchObject({ verdict: 'not-taken' });
  });
  test('a profile without a lamp switch has no switch step and no switch result', () => {
    const context = contextWith({ profile: { ...profile, lampSwitch: null } });
    expect(context.procedure.steps.map(({ id }) => id)).not.toContain('lamp-switch');
    expect(bench(truthWith(), context).results.map(({ id }) => id)).not.toContain('lamp-switch');
  });
});

describe('uncertainty of B', () => {
  test('the cross-check takes the gauges’ scale error out and brings its own in', () => {
    const corrected = bench(truthWith()).byId('boost-ratio');
    const poor = { kind: 'en-837-1', class: '2.5' } as const;
    const worse = contextWith({
      rig: {
        ...rig,
        input: [gauges.inLow, { ...gauges.inHigh, accuracy: poor }],
        output: [gauges.outLow, { ...gauges.outHigh, accuracy: poor }],
      },
    });
    expect(bench(truthWith(), worse).byId('boost-ratio').u!).toBeCloseTo(corrected.u!, 6);
  });
  test('over 300 seeds, B ± U holds the truth nearly always, and never by luck of a wide U', () => {
    let held = 0;
    for (let seed = 1; seed <= 300; seed++) {
      const B = bench(
        truthWith({ noise_steps: 0.3, gauges: { 'OUT-H': { scale: 1.03 } } }),
        contextWith(),
        seed,
      ).byId('boost-ratio');
      if (Math.abs(B.value! - 3.6) <= 2 * B.u!) held++;
      expect(2 * B.u!).toBeLessThan(0.12);
    }
    // U is made from steps taken as uniform: wider than the noise put in, so more than 95 % is right here.
    expect(held).toBeGreaterThanOrEqual(280);
  });
});

const runoutOutput_Pa = ({ parameters, supply_Pa }: ReturnType<typeof truthWith>) =>
  readingOf(
    family,
    parameters,
    { input_Pa: 0, supply_Pa, barometer_Pa: 101_325, temperature_K: 293.15, ...AT_ONCE },
    'runoutOutput',
  );

describe('the same procedure for any profile', () => {
  const profiles = fc.record({
    effectiveDiameter_m: fc.double({ min: 0.16, max: 0.28, noNaN: true }),
    slaveBore_m: fc.double({ min: 0.017, max: 0.025, noNaN: true }),
    boostRatio: fc.double({ min: 2, max: 4.4, noNaN: true }),
    spring_N: fc.double({ min: 50, max: 180, noNaN: true }),
    crack_Pa: fc.double({ min: 2.3e5, max: 3.7e5, noNaN: true }),
  });
  test('a healthy unit of any size never fails, whatever the supply: only the supply does', () => {
    fc.assert(
      fc.property(
        profiles,
        fc.double({ min: 12, max: 24, noNaN: true }),
        fc.integer({ min: 1, max: 1e6 }),
        (change, inHg, seed) => {
          const any = { ...profile, ...change };
          if (!family.profile.safeParse(any).success) return true;
          const context = contextWith({ profile: any });
          const truth = truthWith({
            parameters: family.healthy(any).values,
            supply_Pa: inHg * INHG,
            noise_steps: 0.2,
          });
          // A unit this strong is stopped at its proof limit before it runs out.
          if (runoutOutput_Pa(truth) > any.proof_Pa) return true;
          const { results, assessment } = bench(truth, context, seed);
          const failing = results.filter(({ verdict, about }) => verdict === 'fails' && about === 'unit');
          return failing.length === 0 && assessment.call !== 'faulty';
        },
      ),
      { numRuns: 60 },
    );
  });
  test('a diaphragm with half its area always fails by its area', () => {
    fc.assert(
      fc.property(profiles, fc.integer({ min: 1, max: 1e6 }), (change, seed) => {
        const any = { ...profile, ...change };
        if (!family.profile.safeParse(any).success) return true;
        const healthy = family.healthy(any).values;
        const truth = truthWith({ parameters: healthy.with(0, healthy[0]! * 0.5), noise_steps: 0.2 });
        if (runoutOutput_Pa(truth) > any.proof_Pa) return true;
        return bench(truth, contextWith({ profile: any }), seed).byId('effective-area').verdict === 'fails';
      }),
      { numRuns: 30 },
    );
  });
});

describe('every fault grows with its severity', () => {
  test.each(family.faults.map((fault) => [fault.id, fault] as const))('%s', (_id, fault) => {
    const { values } = family.healthy(profile);
    const distance = (severity: number) =>
      Math.hypot(
        ...fault
          .apply(values, severity)
          .map((value, i) => (values[i] ? (value - values[i]!) / values[i]! : value / 1e5)),
      );
    const steps = [0, 0.25, 0.5, 0.75, 1].map(distance);
    steps.slice(1).forEach((d, i) => expect(d).toBeGreaterThanOrEqual(steps[i]!));
    expect(fault.plain).toMatch(/\.$/);
    expect(fault.repair).toMatch(/\.$/);
  });
});

describe('advice in words', () => {
  test.each([
    [
      { kind: 'repeat', count: 5, u: 0.2e5, instrument: 'G' },
      /^Read G again, 5 readings in all: U comes down to 0\.40 bar\.$/,
    ],
    [
      { kind: 'gauge', instrument: 'T', inPlaceOf: 'G', u: 0.1e5 },
      /^Read it again with T in place of G: U comes down to 0\.20 bar\.$/,
    ],
    [
      { kind: 'band-too-narrow', width: 1e4, bestU: 1e4 },
      /^Nothing on this shelf can: the limits lie closer together/,
    ],
    [{ kind: 'nothing' }, /^Nothing on this shelf can settle it/],
  ] as const)('%j', (advice, words) =>
    expect(printSentence(adviceSentence(advice, 'pressure'), 'mixed')).toMatch(words),
  );
});
