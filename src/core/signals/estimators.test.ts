/** @jest-environment node */
import fc from 'fast-check';
import { depressionAfter_Pa } from '../air/leak';
import { orificeDiameter_m } from '../air/orifice';
import { faultyTruth } from '../scenarios/bench';
import { BAR, benchTrace, family, INHG, profile, ROOM, slowPull } from '../scenarios/traces';
import { gaussian, seeded } from '../numeric/chance';
import { printSentence } from '../quantities/sentence';
import { circle_m2 } from '../families/profile-fields';
import { effectiveAreaOf } from './effective-area';
import type { Estimate, Told } from './estimate';
import { fluidHold } from './fluid-hold';
import { pressureVolume } from './pressure-volume';
import { proportioning } from './proportioning';
import { hysteresisOf, ratioCurve } from './ratio-curve';
import { reserveCount } from './reserve-count';
import { segmentsOf } from './segments';
import { channelAt, wholeOf, type Trace } from './trace';
import { vacuumDecay } from './vacuum-decay';

const healthy = family.healthy(profile).values;
const channel = (trace: Trace, port: string) => channelAt(trace, port)!;
const PULL = { supply_Pa: 20 * INHG, to_Pa: 40 * BAR, seconds: 20, rate_Hz: 100 };
const NOISE = { pressureNoise_Pa: 0.15 * BAR, vacuumNoise_Pa: 150 };

const curveOf = (trace: Trace, branch: 'apply' | 'release' = 'apply') =>
  ratioCurve(trace, channel(trace, 'input'), channel(trace, 'output'), wholeOf(trace), branch);

function tell(estimate: Estimate): Told {
  if (!estimate.told) throw new Error(printSentence(estimate.why, 'metric'));
  return estimate;
}
const value = (estimate: Estimate) => tell(estimate).value;
const why = (estimate: Estimate) =>
  estimate.told
    ? ''
    : `${printSentence(estimate.why, 'metric')} ${estimate.wanted ? printSentence(estimate.wanted, 'metric') : ''}`;

/** One channel over time, for what needs no bench. */
const single = (
  at: (t: number) => number,
  seconds: number,
  rate_Hz: number,
  sigma: number,
  seed: number,
): Trace => {
  const random = seeded(seed);
  const time_s = Float64Array.from({ length: seconds * rate_Hz }, (_, i) => i / rate_Hz);
  const values = time_s.map((t) => at(t) + sigma * gaussian(random));
  return { time_s, channels: [{ name: 'p', port: 'output', quantity: 'pressure', values }] };
};

describe('ratio curve', () => {
  test('the handbook’s unit on 20 inHg: crack 3, jump-in 7.8, B 3.6, runout 30.2 in', () => {
    const curve = curveOf(slowPull(healthy, PULL, { seed: 1, ...NOISE }));
    expect(curve.kind).toBe('assisted');
    expect(value(curve.crack) / BAR).toBeCloseTo(3, 1);
    expect(value(curve.jumpIn) / BAR).toBeCloseTo(7.8, 0);
    expect(value(curve.boostRatio)).toBeCloseTo(3.6, 1);
    expect(value(curve.runoutInput) / BAR).toBeCloseTo(30.2, 1);
    // Beyond it the rod takes its part: k = 1 − (6/20.6)² = 0.9152.
    expect(value(curve.slopeBeyond)).toBeCloseTo(0.915, 1);
  });
  test.each([
    ['spikes', { spikeEvery: 150 }],
    ['drop-outs', { gapEvery: 12 }],
    ['a coarse step', { pressureStep_Pa: 0.25 * BAR }],
  ])('%s change it little', (_name, spoil) => {
    const curve = curveOf(slowPull(healthy, PULL, { seed: 4, ...NOISE, ...spoil }));
    expect(Math.abs(value(curve.boostRatio) / 3.6 - 1)).toBeLessThan(0.01);
    expect(Math.abs(value(curve.runoutInput) / BAR / 30.2 - 1)).toBeLessThan(0.02);
  });
  test('uneven sampling changes it little', () => {
    const even = slowPull(healthy, { ...PULL, rate_Hz: 400 }, { seed: 5, ...NOISE });
    const random = seeded(9);
    const kept = Array.from(even.time_s.keys()).filter((i) => random() < (i < 4000 ? 0.4 : 0.05));
    const pick = (of: Float64Array | Float32Array) => Float64Array.from(kept, (i) => of[i]!);
    const trace = {
      time_s: pick(even.time_s),
      channels: even.channels.map((c) => ({ ...c, values: pick(c.values) })),
    };
    expect(Math.abs(value(curveOf(trace).boostRatio) / 3.6 - 1)).toBeLessThan(0.01);
  });
  test('a pull that stops short of runout has no runout, and says how to get one', () => {
    const curve = curveOf(slowPull(healthy, { ...PULL, to_Pa: 24 * BAR }, { seed: 6, ...NOISE }));
    expect(value(curve.boostRatio)).toBeCloseTo(3.6, 1);
    expect(why(curve.runoutInput)).toMatch(/not reached.*Pull on to more than 2[34]\.\d bar/);
  });
  test('a pull that begins above the crack has B and no crack', () => {
    const whole = slowPull(healthy, PULL, { seed: 7, ...NOISE });
    const curve = ratioCurve(
      whole,
      channel(whole, 'input'),
      channel(whole, 'output'),
      { from: 600, to: 2000 },
      'apply',
    );
    expect(value(curve.boostRatio)).toBeCloseTo(3.6, 1);
    expect(why(curve.crack)).toMatch(/begins above the crack/);
  });
  test('a healthy unit on a weak supply keeps B, and its runout comes early', () => {
    const curve = curveOf(slowPull(healthy, { ...PULL, supply_Pa: 15 * INHG }, { seed: 8, ...NOISE }));
    expect(value(curve.boostRatio)).toBeCloseTo(3.6, 1);
    expect(value(curve.runoutInput) / BAR).toBeCloseTo(22.4, 0);
  });
  test('a clipped gauge is called clipped, and what it saw below is still used', () => {
    const curve = curveOf(slowPull(healthy, PULL, { seed: 10, ...NOISE, outputEnd_Pa: 80 * BAR }));
    expect(curve.notes.map((note) => printSentence(note, 'metric')).join()).toMatch(
      /Fluid out stood at the end of its range, 80\.0 bar/,
    );
    expect(value(curve.boostRatio)).toBeCloseTo(3.6, 1);
    expect(curve.runoutInput.told).toBe(false);
  });
  test('a blocked passage is called that, and nothing is fitted', () => {
    const blocked = faultyTruth('slave-check-stuck', 0.8).parameters;
    const trace = benchTrace(blocked, 20 * INHG, [[{ handle_Pa: 60 * BAR, pull_PaPerS: 5 * BAR }, 12]], {
      seed: 11,
      ...NOISE,
    });
    const curve = curveOf(trace);
    expect(curve.kind).toBe('blocked');
    expect(printSentence(curve.notes[0]!, 'metric')).toMatch(/Blocked passage: at \d\d\.\d bar in only/);
    expect(curve.boostRatio.told).toBe(false);
  });
  test('assist off, the output follows the input, gauges 8 % apart', () => {
    const trace = benchTrace(healthy, 20 * INHG, [[{ handle_Pa: 60 * BAR, pull_PaPerS: 4 * BAR }, 16]], {
      seed: 12,
      ...NOISE,
    });
    const output = channel(trace, 'output');
    const scaled = { ...output, values: output.values.map((v) => 1.08 * v) };
    const curve = ratioCurve(
      trace,
      channel(trace, 'input'),
      scaled as typeof output,
      wholeOf(trace),
      'apply',
    );
    expect(curve.kind).toBe('straight');
    expect(Math.abs(value(curve.passSlope) - 1.08)).toBeLessThan(0.003);
  });
  test('a sticking valve’s branches are fitted apart', () => {
    const stuck = faultyTruth('valve-sticking', 0.8).parameters;
    const up = curveOf(slowPull(stuck, { ...PULL, to_Pa: 26 * BAR }, { seed: 13, ...NOISE }));
    const down = curveOf(
      slowPull(stuck, { ...PULL, to_Pa: 22 * BAR }, { seed: 14, ...NOISE }, 'outputReleasing'),
      'release',
    );
    // Crack 3 · 1.5 · 2^0.8 bar; hysteresis a quarter of 15 %, · 2 · 2.5^0.8.
    expect(value(up.crack) / BAR).toBeCloseTo(7.8, 1);
    expect(value(hysteresisOf(up, down))).toBeCloseTo(0.0375 * 2 * 2.5 ** 0.8, 2);
    expect(down.branch).toBe('release');
  });
  test('too few points are no curve', () => {
    const trace = slowPull(healthy, { ...PULL, seconds: 0.05 }, { seed: 15 });
    expect(curveOf(trace).kind).toBe('unclear');
    expect(hysteresisOf(curveOf(trace), curveOf(trace)).told).toBe(false);
  });
});

describe('effective area', () => {
  const cylinder = {
    slaveArea_m2: circle_m2(profile.slaveBore_m),
    rodArea_m2: circle_m2(profile.rodDiameter_m),
    spring_N: profile.spring_N,
  };
  const areaOf = (trace: Trace) =>
    effectiveAreaOf(
      trace,
      {
        input: channel(trace, 'input'),
        output: channel(trace, 'output'),
        supply: channel(trace, 'supply'),
        activation: channel(trace, 'activation'),
      },
      wholeOf(trace),
      cylinder,
    );
  test('230 mm is 415.5 cm², on a good supply and on a weak one', () => {
    for (const supply of [20, 15]) {
      const area = areaOf(slowPull(healthy, { ...PULL, supply_Pa: supply * INHG }, { seed: 3, ...NOISE }));
      expect(value(area) * 1e4).toBeCloseTo(415.5, 0);
    }
  });
  test('an undersized diaphragm works with less', () => {
    const small = faultyTruth('undersized-diaphragm', 0.8).parameters;
    expect(value(areaOf(slowPull(small, PULL, { seed: 3, ...NOISE }))) * 1e4).toBeCloseTo(
      415.5 * 0.9 * (2 / 3) ** 0.8,
      0,
    );
  });
  test('without full activation there is none', () => {
    expect(why(areaOf(slowPull(healthy, { ...PULL, to_Pa: 20 * BAR }, { seed: 3, ...NOISE })))).toMatch(
      /did not reach zero/,
    );
  });
});

describe('fluid hold', () => {
  const loss = (rate_barPerMin: number) => (rate_barPerMin * BAR) / 60;
  const hold = (trace: Trace, resolve = loss(0.1)) =>
    fluidHold(trace, trace.channels[0]!, wholeOf(trace), resolve);
  test('a loss of 3 bar/min under 2 bar of settling', () => {
    const trace = single((t) => 80 * BAR - loss(3) * t + 2 * BAR * Math.exp(-t / 6), 60, 20, 0.05 * BAR, 2);
    const { loss: found, settling } = hold(trace);
    expect(value(found) / loss(3)).toBeCloseTo(1, 1);
    expect(settling!.tau_s).toBeCloseTo(6, 0);
    expect(settling!.drop_Pa / BAR).toBeCloseTo(2, 0);
  });
  test('a tight unit that only settles loses nothing', () => {
    const trace = single((t) => 80 * BAR + 2 * BAR * Math.exp(-t / 6), 90, 20, 0.05 * BAR, 2);
    expect(Math.abs(value(hold(trace).loss))).toBeLessThan(loss(0.1));
  });
  test('too short to tell: it says how many seconds more, and those are enough', () => {
    const at = (t: number) => 80 * BAR - loss(1) * t + 2 * BAR * Math.exp(-t / 8);
    const short = hold(single(at, 15, 20, 0.05 * BAR, 5));
    expect(why(short.loss)).toMatch(/too short to tell.*Hold for [\d.]+ s longer/);
    const longer = (short.loss as { wanted: { values: Record<string, { value: number }> } }).wanted.values
      .longer!;
    expect(hold(single(at, Math.ceil(15 + 1.2 * longer.value), 20, 0.05 * BAR, 6)).loss.told).toBe(true);
  });
  describe('on a gauge that shows whole steps without noise', () => {
    const stepped = (rate_PaPerS: number, step: number, seconds: number, phase: number) =>
      hold(single((t) => Math.round((80 * BAR - rate_PaPerS * t) / step + phase) * step, seconds, 20, 0, 1))
        .loss;
    test('the limits hold the truth, though readings are many and steps few', () => {
      let tellings = 0;
      fc.assert(
        fc.property(
          fc.double({ min: 0.01, max: 0.2, noNaN: true }),
          fc.double({ min: 0.02, max: 0.5, noNaN: true }),
          fc.integer({ min: 15, max: 200 }),
          fc.double({ min: 0, max: 1, noNaN: true }),
          (rate, step, seconds, phase) => {
            const loss = stepped(rate * BAR, step * BAR, seconds, phase);
            if (!loss.told) return;
            tellings += 1;
            expect(Math.abs(loss.value - rate * BAR)).toBeLessThan(2 * loss.u);
          },
        ),
        { numRuns: 300, seed: 2611 },
      );
      expect(tellings).toBeGreaterThan(100);
    });
    test('no step lost is a loss of less than a step, where the gauge reads higher elsewhere; else it tells nothing', () => {
      const pull = (top: number, seconds: number) =>
        single((t) => (t < 2 ? top : 80) * BAR - (t < 1 ? 0.05 * BAR : 0), 2 + seconds, 20, 0, 1);
      const of = (trace: Trace) =>
        fluidHold(trace, trace.channels[0]!, { from: 40, to: trace.time_s.length }, 0.1 * (BAR / 60)).loss;
      // Steps of 0.05 bar over 59.95 s: less than 0.05 bar/min, a rectangle of standard deviation 0.05/√3.
      const found = of(pull(110, 60));
      expect(found).toMatchObject({ told: true, value: 0 });
      expect(((found.told ? found.u : NaN) / BAR) * 60).toBeCloseTo(0.05 / Math.sqrt(3), 3);
      expect(why(of(pull(110, 20)))).toMatch(/too short for one so coarse. Hold for \d+/);
      expect(why(of(pull(80, 60)))).toMatch(/Every reading is the same: the gauge stood at an end/);
    });
  });
  test('a glance is no hold', () => {
    expect(why(hold(single(() => BAR, 1, 10, 100, 1)).loss)).toMatch(/too short/);
  });
});

describe('vacuum decay', () => {
  const leak = { conductance_m3PerSPa: 4e-10, volume_m3: 4e-3, ...ROOM };
  const trace = (start_inHg: number, seconds: number, sigma: number, seed = 1) =>
    single((t) => depressionAfter_Pa(start_inHg * INHG, t, leak), seconds, 10, sigma, seed);
  const room = { ...ROOM, volume_m3: 4e-3 };
  const decay = (of: Trace, volume_m3: number | null = 4e-3) =>
    vacuumDecay(of, of.channels[0]!, wholeOf(of), { ...room, volume_m3 }, 1);
  test.each([
    ['choked all the way', 20, 20],
    ['through the bend', 18, 60],
    ['to the very end', 12, 120],
  ])('%s: the conductance comes back', (_name, start, seconds) => {
    const found = decay(trace(start, seconds, 30));
    expect(value(found.conductance) / 4e-10).toBeCloseTo(1, 1);
    expect(value(found.orifice)).toBeCloseTo(orificeDiameter_m(4e-10), 5);
  });
  test('the orifice of the docstring', () => {
    // A = 1e-9·1.185·√(293.15·288)/(0.84·0.68473) = 5.986e-7 m²
    expect(orificeDiameter_m(1e-9) * 1e3).toBeCloseTo(0.873, 3);
  });
  test('without a volume only the rate is told', () => {
    const found = decay(trace(20, 20, 30), null);
    expect(found.loss.told).toBe(true);
    expect(why(found.conductance)).toMatch(/volume .* not known/);
  });
  test('too noisy and too short says how much longer', () => {
    expect(why(decay(trace(20, 4, 800)).loss)).toMatch(/Wait for [\d.]+ s longer/);
    expect(why(decay(trace(20, 1, 30)).loss)).toMatch(/too short/);
  });
});

describe('reserve count', () => {
  const pump = (times: number) =>
    Array.from(
      { length: times },
      () =>
        [
          [{ handle_Pa: 15 * BAR, pull_PaPerS: 15 * BAR }, 3],
          [{ handle_Pa: 0, pull_PaPerS: 15 * BAR }, 3],
        ] as const,
    ).flat();
  test('applications until the output no longer rises above the input', () => {
    const trace = benchTrace(
      healthy,
      20 * INHG,
      [[{ valve: 'open' }, 20], [{ valve: 'shut' }, 2], ...pump(40)],
      {
        seed: 1,
        ...NOISE,
      },
    );
    const from = trace.time_s.findIndex((t) => t > 20);
    const { count, applications } = reserveCount(trace, channel(trace, 'input'), channel(trace, 'output'), {
      from,
      to: trace.time_s.length,
    });
    expect(applications).toHaveLength(40);
    const useful = applications.filter((a) => a.useful).length;
    expect(value(count)).toBe(useful);
    expect(useful).toBeGreaterThan(2);
    expect(applications[0]!.output / BAR).toBeCloseTo(54, 0);
    expect(applications.at(-1)!.output / applications.at(-1)!.input_Pa).toBeLessThan(1.1);
  });
  test('not pumped to the end, it is so many or more', () => {
    const trace = benchTrace(healthy, 20 * INHG, [[{ valve: 'open' }, 20], ...pump(2)], {
      seed: 1,
      ...NOISE,
    });
    const found = reserveCount(trace, channel(trace, 'input'), channel(trace, 'output'), wholeOf(trace));
    expect(why(found.count)).toMatch(/still of use: 2 or more/);
    const idle = benchTrace(healthy, 20 * INHG, [[{}, 5]], { seed: 1, ...NOISE });
    expect(
      reserveCount(idle, channel(idle, 'input'), channel(idle, 'output'), wholeOf(idle)).count.told,
    ).toBe(false);
  });
});

describe('proportioning', () => {
  const valve = (front: number) => (front < 30 * BAR ? front : 30 * BAR + 0.4 * (front - 30 * BAR));
  const trace = (to_Pa: number): Trace => {
    const random = seeded(3);
    const time_s = Float64Array.from({ length: 1500 }, (_, i) => i / 100);
    const front = time_s.map((t) => (to_Pa * t) / 15);
    const noisy = (values: Float64Array) => values.map((v) => v + 0.2 * BAR * gaussian(random));
    return {
      time_s,
      channels: [
        { name: 'front', port: 'front', quantity: 'pressure', values: noisy(front) },
        { name: 'rear', port: 'rear', quantity: 'pressure', values: noisy(front.map(valve)) },
      ],
    };
  };
  const found = (of: Trace) => proportioning(of, of.channels[0]!, of.channels[1]!, wholeOf(of));
  test('split at 30 bar, slope 0.4 beyond', () => {
    const { split, slopeBefore, slopeBeyond } = found(trace(80 * BAR));
    expect(value(split) / BAR).toBeCloseTo(30, 0);
    expect(value(slopeBefore)).toBeCloseTo(1, 1);
    expect(value(slopeBeyond)).toBeCloseTo(0.4, 1);
  });
  test('below the split there is none to be seen', () => {
    expect(why(found(trace(25 * BAR)).split)).toMatch(/No split was seen/);
  });
});

describe('pressure and volume', () => {
  test('0.8 cm³ of air, 2 cm³ of seating and the rest come apart', () => {
    const random = seeded(8);
    const p = Float64Array.from({ length: 800 }, (_, i) => (i / 800) * 60 * BAR);
    const v = p.map(
      (x) =>
        2e-6 +
        0.8e-6 * (1 - ROOM.barometer_Pa / (ROOM.barometer_Pa + x)) +
        2e-13 * x +
        1e-8 * gaussian(random),
    );
    const trace: Trace = {
      time_s: p.map((_, i) => i / 50),
      channels: [
        { name: 'p', port: 'output', quantity: 'pressure', values: p },
        { name: 'v', port: 'volume', quantity: 'volume', values: v },
      ],
    };
    const found = pressureVolume(
      trace,
      trace.channels[0]!,
      trace.channels[1]!,
      wholeOf(trace),
      ROOM.barometer_Pa,
    );
    expect(value(found.air) * 1e6).toBeCloseTo(0.8, 1);
    expect(value(found.seating) * 1e6).toBeCloseTo(2, 1);
    expect(value(found.give) * 1e13).toBeCloseTo(2, 1);
    const none = pressureVolume(
      trace,
      trace.channels[0]!,
      trace.channels[1]!,
      { from: 0, to: 4 },
      ROOM.barometer_Pa,
    );
    expect(none.air.told).toBe(false);
  });
});

describe('segments', () => {
  const kinds = (trace: Trace) => segmentsOf(trace, channel(trace, 'input')).map(({ kind }) => kind);
  const script = [
    [{}, 3],
    [{ handle_Pa: 20 * BAR, pull_PaPerS: 5 * BAR }, 8],
    [{ handle_Pa: 0, pull_PaPerS: 10 * BAR }, 5],
    [{ handle_Pa: 30 * BAR, pull_PaPerS: 3 * BAR }, 10],
    [{ handle_Pa: 0, pull_PaPerS: 3 * BAR }, 14],
  ] as const;
  test.each([
    ['clean', {}],
    ['noisy', { pressureNoise_Pa: 0.3 * BAR }],
    ['with spikes', { pressureNoise_Pa: 0.1 * BAR, spikeEvery: 300 }],
    ['with gaps', { pressureNoise_Pa: 0.1 * BAR, gapEvery: 5 }],
    ['in steps', { pressureStep_Pa: 0.5 * BAR }],
  ])('%s: rest, apply, hold, release, and a pull let down again without a hold', (_name, spoil) => {
    expect(kinds(benchTrace(healthy, 20 * INHG, script, { seed: 2, ...spoil }))).toEqual([
      'rest',
      'apply',
      'hold',
      'release',
      'rest',
      'apply',
      'release',
      'rest',
    ]);
  });
  test('pressure let down to a level and kept there is held, not at rest', () => {
    const down = single((t) => (t < 3 ? 34 : t < 5 ? 34 - 6 * (t - 3) : 22) * BAR, 30, 10, 0.05 * BAR, 1);
    expect(segmentsOf(down, down.channels[0]!).map(({ kind }) => kind)).toEqual(['hold', 'release', 'hold']);
  });
  test('what stands still is one hold or one rest, what is empty has none', () => {
    const still = (level: number) => {
      const trace = single(() => level * BAR, 10, 10, 0, 1);
      return segmentsOf(trace, trace.channels[0]!).map(({ kind }) => kind);
    };
    expect(still(22)).toEqual(['hold']);
    expect(still(0.2)).toEqual(['rest']);
    const gap = single(() => NaN, 10, 10, 0, 1);
    expect(segmentsOf(gap, gap.channels[0]!)).toEqual([]);
  });
});
