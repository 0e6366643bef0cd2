/** @jest-environment node */
import { printSentence } from '../quantities/sentence';
import { analyse } from '../signals/analyse';
import type { About, Analysis } from '../signals/analysis';
import { indexAt, type Trace } from '../signals/trace';
import type { Script } from '../twin/recording';
import { bench, faultyTruth, truthWith } from './bench';
import { BAR, benchTrace, family, INHG, profile, ROOM } from './traces';

const about: About = { ...ROOM, unit: family.logged(profile) };
const LOGGER = { seed: 5, rate_Hz: 100, pressureNoise_Pa: 3e3, pressureStep_Pa: 5e3, vacuumNoise_Pa: 40 };
const PUMPED_S = 25;

/** What a live run keeps of one step: the bench was worked before it began, and time begins with it. */
function stepTrace(parameters: Parameters<typeof benchTrace>[0], before: Script, step: Script): Trace {
  const script = [[{ valve: 'open' }, PUMPED_S] as const, ...before, ...step];
  const whole = benchTrace(parameters, 20 * INHG, script, LOGGER);
  const seconds = (part: Script) => part.reduce((sum, [, s]) => sum + s, 0);
  const from = indexAt(whole, PUMPED_S + seconds(before));
  return {
    time_s: whole.time_s.slice(from),
    channels: whole.channels.map((channel) => ({ ...channel, values: channel.values.slice(from) })),
  };
}
const to = (input_bar: number, speed_barPerS: number, seconds: number) =>
  [{ handle_Pa: input_bar * BAR, pull_PaPerS: speed_barPerS * BAR }, seconds] as const;
const found = (analysis: Analysis, id: string) =>
  analysis.stretches.flatMap(({ results }) => results).filter((one) => one.id === id);
function only(analysis: Analysis, id: string) {
  const [one, ...more] = found(analysis, id);
  if (!one?.estimate.told || more.length > 0) throw new Error(`${id}: ${found(analysis, id).length} found`);
  return one.estimate;
}
const healthy = truthWith().parameters;

test('a pull in steps is one pull: what stands still counts, what hurries between does not', () => {
  const step = [to(3, 0.4, 9), to(12, 8, 3), to(16, 8, 2.5), to(20, 8, 2.5), to(24, 8, 2.5)];
  const analysis = analyse(stepTrace(healthy, [], step), about);
  expect(analysis.stretches.map(({ kind }) => kind)).toEqual(['pull']);
  expect(only(analysis, 'boost-ratio').value).toBeCloseTo(3.6, 1.7);
  expect(only(analysis, 'crack').value / BAR).toBeCloseTo(3, 0);
  // Nothing bends below runout: the last hurry, cut short by the end of the step, is no knee.
  expect(found(analysis, 'runout-input').map(({ estimate }) => estimate.told)).toEqual([false]);
});

test('let down in steps, from beyond runout, is one let-down: its line and its gap to the pull are told', () => {
  const step = [to(38, 2.5, 17), to(22, 2.5, 11), to(0, 2.5, 12)];
  const analysis = analyse(stepTrace(healthy, [], step), about);
  expect(analysis.stretches.map(({ kind }) => kind)).toEqual(['pull', 'let down']);
  const down = analysis.stretches[1]!;
  expect(down.to_s - down.from_s).toBeGreaterThan(14);
  expect(only(analysis, 'release-ratio').value).toBeGreaterThan(3.6);
  const gap = only(analysis, 'hysteresis').value;
  expect(gap > 0.01 && gap < 0.15).toBe(true);
});

test('a step that begins far up tells runout, and not B of the little below it', () => {
  const step = [to(24, 8, 0.5), to(28, 8, 4), to(34, 2, 5)];
  const analysis = analyse(stepTrace(healthy, [to(24, 8, 6)], step), about);
  // Handbook 8.1: (67 728 Pa · 0.04155 m² − 110 N) / (333.3 mm² · (3.6 − 0.9152)) = 30.2 bar.
  expect(only(analysis, 'runout-input').value / (30.2 * BAR)).toBeCloseTo(1, 1.7);
  const [ratio] = found(analysis, 'boost-ratio');
  expect(ratio!.estimate.told ? '' : printSentence(ratio!.estimate.why, 'metric')).toMatch(/Too little/);
});

test.each([0.3, 0.5])(
  'let down to the test pressure and held there: a bypassing cup, %d of it',
  (severity) => {
    const truth = faultyTruth('cup-bypass', severity);
    // The hand lets go before the next step has begun: that is no part of the hold.
    const step = [
      to(22, 6, 3),
      [{ shutIn: true }, 60] as const,
      [{ shutIn: false, handle_Pa: 0 }, 0.3] as const,
    ];
    const analysis = analyse(stepTrace(truth.parameters, [to(34, 6, 8)], step), about);
    const typed = bench(truth).byId('hold');
    const loss = only(analysis, 'hold-loss');
    expect(Math.abs(loss.value - typed.value!)).toBeLessThan(
      2 * Math.hypot(typed.u!, loss.u) + 0.08 * typed.value!,
    );
  },
);

test('a vacuum shut in while nobody touches the handle, from the first reading to the last', () => {
  const truth = faultyTruth('torn-diaphragm', 0.4);
  const analysis = analyse(
    stepTrace(
      truth.parameters,
      [],
      [
        [{ valve: 'shut' }, 40],
        // The valve is turned for the next step before this one's trace ends.
        [{ valve: 'open' }, 1],
      ],
    ),
    about,
  );
  expect(analysis.segments.map(({ kind }) => kind)).toEqual(['rest']);
  const typed = bench(truth).byId('vacuum-loss-released');
  const loss = only(analysis, 'vacuum-loss-released');
  expect(Math.abs(loss.value - typed.value!)).toBeLessThan(
    2 * Math.hypot(typed.u!, loss.u) + 0.08 * typed.value!,
  );
});

test('a hold with the gauge on its end stop tells no loss, and nothing held is no hold', () => {
  const held = stepTrace(healthy, [to(34, 8, 8)], [[{}, 20]]);
  const stopped = {
    ...held,
    channels: held.channels.map((channel) =>
      channel.port === 'output'
        ? { ...channel, values: channel.values.map((p) => Math.min(p, 80 * BAR)) }
        : channel,
    ) as Trace['channels'],
  };
  const [loss] = found(analyse(stopped, about), 'hold-loss');
  expect(loss!.estimate.told ? '' : printSentence(loss!.estimate.why, 'metric')).toMatch(/end of its range/);
  expect(found(analyse(stepTrace(healthy, [], [[{}, 20]]), about), 'hold-loss')).toEqual([]);
});
