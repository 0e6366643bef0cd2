/** @jest-environment node */
import { seeded, gaussian } from '../numeric/chance';
import type { About } from './analysis';
import type { Segment } from './segments';
import { holds, untouched, watches } from './stands';
import type { Trace } from './trace';

const BAR = 1e5;
const ABOUT = { unit: null, barometer_Pa: 101_325, temperature_K: 293.15 } as unknown as About;
const RATE_HZ = 10;

/** A channel by time, with the noise of a transducer. */
function traceOf(port: string, seconds: number, noise: number, of: (t_s: number) => number): Trace {
  const random = seeded(11);
  const time_s = Float64Array.from({ length: seconds * RATE_HZ + 1 }, (_, i) => i / RATE_HZ);
  const values = time_s.map((t) => of(t) + noise * gaussian(random));
  return {
    time_s,
    channels: [{ name: 'G', port, quantity: port === 'supply' ? 'depression' : 'pressure', values }],
  };
}
const segment = (kind: Segment['kind'], from_s: number, to_s: number): Segment => ({
  ...{ kind, from_s, to_s, start: 0, end: 0 },
  from: from_s * RATE_HZ,
  to: to_s * RATE_HZ,
});
const value = (stretch: ReturnType<typeof holds>[number], id: string) => {
  const { estimate } = stretch.results.find((one) => one.id === id)!;
  if (!estimate.told) throw new Error(JSON.stringify(estimate));
  return estimate.value;
};

describe('a hold under pressure', () => {
  // 70 bar that lose 0.1 bar a second. The hand arrives with a dip in the first second, and lets go in the last half.
  const held = (dip_s: number) => (t: number) => {
    if (t < 20 + dip_s) return 60 * BAR;
    if (t > 59.5) return 50 * BAR;
    return 70 * BAR - 0.1 * BAR * (t - 20);
  };
  const told = (dip_s: number, from_s = 20, to_s = 60) => {
    const trace = traceOf('output', 80, 0.001 * BAR, held(dip_s));
    return holds(trace, trace.channels[0]!, [segment('hold', from_s, to_s)], ABOUT);
  };
  test('is looked at from one second after it begins to half a second before it ends', () => {
    const [stretch] = told(0);
    expect(stretch!.from_s).toBeCloseTo(21, 6);
    expect(stretch!.to_s).toBeCloseTo(59.5, 0);
    expect(stretch!.to_s).toBeLessThanOrEqual(59.5);
    // What stands within the margins is not in it; 0.1 bar a second is 10 kPa/s.
    expect(value(told(0.9)[0]!, 'hold-loss') / (0.1 * BAR)).toBeCloseTo(1, 2);
  });
  test('of less than ten seconds is none, and so is one of nothing', () => {
    expect([told(0, 20, 29.9).length, told(0, 20, 30).length]).toEqual([0, 1]);
    const empty = traceOf('output', 80, 0.001 * BAR, () => 0);
    expect(holds(empty, empty.channels[0]!, [segment('hold', 20, 60)], ABOUT)).toEqual([]);
    const trace = traceOf('output', 80, 0.001 * BAR, held(0));
    expect(holds(trace, trace.channels[0]!, [segment('rest', 20, 60)], ABOUT)).toEqual([]);
  });
});

describe('vacuum that is watched', () => {
  const INHG = 3386.389;
  /** 20 inHg with the source on; from 10 s on shut in, and 60 Pa lost a second. */
  const falling = (t: number) => 20 * INHG - 60 * Math.max(0, t - 10);
  const watched = (of: (t: number) => number, kind: Segment['kind'] | 'untouched' = 'rest', to_s = 60) => {
    const trace = traceOf('supply', 60, 5, of);
    return watches(trace, [kind === 'untouched' ? untouched(trace) : segment(kind, 0, to_s)], ABOUT);
  };
  test('falls from where the source was shut, to the end of the stretch', () => {
    const [stretch, ...more] = watched(falling);
    expect(more).toEqual([]);
    expect(stretch!.from_s).toBeGreaterThanOrEqual(10);
    expect(stretch!.from_s).toBeLessThan(12);
    expect(stretch!.to_s).toBeCloseTo(60, 0);
    expect(value(stretch!, 'vacuum-loss-released')).toBeCloseTo(60, 0);
  });
  test('is called by what the handle did', () => {
    const names = (['hold', 'rest', 'untouched'] as const).map(
      (kind) => watched(falling, kind)[0]!.results[0]!.id,
    );
    expect(names).toEqual(['vacuum-loss-applied', 'vacuum-loss-released', 'vacuum-loss']);
    expect(watched(falling, 'apply')).toEqual([]);
  });
  test('that rises again in between is two falls, of which the longer counts', () => {
    const again = (t: number) => (t < 25 ? falling(t) : 20 * INHG - 60 * (t - 25));
    const [stretch] = watched(again);
    expect(stretch!.from_s).toBeGreaterThanOrEqual(24.5);
    expect(stretch!.from_s).toBeLessThan(27);
  });
  test('that stays, or falls for less than fifteen seconds, tells nothing', () => {
    expect(watched(() => 20 * INHG)).toEqual([]);
    expect(watched(falling, 'rest', 14.9)).toEqual([]);
    expect(watched((t) => falling(Math.min(t, 60) - 36))).toEqual([]);
    // Of less than an inch of mercury nothing is shut in.
    expect(watched((t) => falling(t) - 19.5 * INHG)).toEqual([]);
  });
});
