import { at, result, type Stretch } from './analysis';
import { blocksOf } from './blocks';
import { told, untold, type Estimate } from './estimate';
import { leastSquares } from './least-squares';
import { median } from './noise';
import { channelAt, wholeOf, type Channel, type Span, type Trace } from './trace';

/** What a current that is raised slowly through a valve tells, by the wheel behind it. */
export interface ValveOpening {
  /** Current at which the wheel first moves, A. */
  readonly opens: Estimate;
  /** Whether the wheel rises: an apply valve; else it falls: a release valve. */
  readonly rises: boolean;
}

const MOST_BLOCKS = 400;
/** Only what the wheel does at first is fitted, Pa: further on what stands across the valve is another. */
const FIRST_PA = 3e5;
const LEAST_POINTS = 12;
/** The wheel moves where it stands so many standard errors off its rest. */
const SEEN_SIGMA = 8;
const STEPS = 30;
/** It has been found where a step is less than this part of the way of the current. */
const CLOSE = 1e-6;
/** No current is known better than to this part of the steps in which it is raised. */
const STEP_PART = 1 / 20;

/**
 * Current at which a valve opens: beyond it the flow is taken to grow with the current, p = p₀ + G·∫(I − I₀)⁺dt, fitted with three
 * parameters. Raised in steps or without, it is told between them. Handbook-models 8.9: it hangs on the pressure across the valve, which
 * is that at this moment.
 */
export function valveOpening(trace: Trace, current: Channel, wheel: Channel, span: Span): ValveOpening {
  const nothing = (why: string, wanted = ''): ValveOpening => ({ opens: untold(why, wanted), rises: true });
  const { means, time_s, sigma } = blocksOf(trace, [current, wheel], span, MOST_BLOCKS);
  const good = Array.from(time_s.keys()).filter((i) => means.every((values) => Number.isFinite(values[i]!)));
  const [amps, all] = means.map((values) => good.map((i) => values[i]!)) as [number[], number[]];
  const all_s = good.map((i) => time_s[i]!);
  if (all.length < LEAST_POINTS)
    return nothing('Too few readings tell no opening.', 'Raise the current more slowly.');
  const noise_Pa = Math.max(sigma[1]!, 1);
  const rest = median(Float64Array.from(all.slice(0, Math.max(3, Math.floor(all.length / 20)))));
  const beyond = all.findIndex((value) => Math.abs(value - rest) > Math.max(FIRST_PA, SEEN_SIGMA * noise_Pa));
  const to = beyond < 0 ? all.length : beyond + 1;
  const moved = all[to - 1]! - rest;
  if (!(Math.abs(moved) > SEEN_SIGMA * noise_Pa))
    return nothing('The wheel does not move in the log.', 'Raise the current until it does.');
  const [I, p, t] = [amps.slice(0, to), all.slice(0, to), all_s.slice(0, to)];
  if (to < LEAST_POINTS) return nothing('The wheel moves from the beginning.', 'Begin below where it opens.');
  const way = Math.max(...I) - Math.min(...I);
  const weights = new Float64Array(to).fill(1 / noise_Pa ** 2);
  const one = new Float64Array(to).fill(1);
  /** ∫(I − I₀)⁺dt and how long it was above, to each reading. */
  const flowed = (from_A: number) => {
    const [sums, above] = [new Float64Array(to), new Float64Array(to)];
    for (let i = 1; i < to; i += 1) {
      const each_s = t[i]! - t[i - 1]!;
      const [a, b] = [I[i - 1]! - from_A, I[i]! - from_A];
      const [low, high] = [Math.min(a, b), Math.max(a, b)];
      // It may pass the opening between two readings.
      const part = low >= 0 ? 1 : high <= 0 ? 0 : high / (high - low);
      sums[i] = sums[i - 1]! + (part * each_s * (Math.max(0, low) + Math.max(0, high))) / 2;
      above[i] = above[i - 1]! + part * each_s;
    }
    return { sums, above };
  };
  const misfit = (from_A: number) => {
    const fitted = leastSquares([one, flowed(from_A).sums], p, weights);
    return fitted ? fitted.chi2 : Infinity;
  };
  // From the best of a row of tries, and from there by steps of its own.
  const tries = Array.from({ length: 60 }, (_, i) => Math.min(...I) + (way * i) / 60);
  let opens_A = tries.reduce((best, next) => (misfit(next) < misfit(best) ? next : best), tries[0]!);
  let u_A = NaN;
  let gain = 0;
  for (let i = 0; i < STEPS; i += 1) {
    const { sums, above } = flowed(opens_A);
    const line = leastSquares([one, sums], p, weights);
    if (!line) return nothing('The readings do not tell where it opens.');
    gain = line.parameters[1]!;
    const fitted = leastSquares(
      [one, sums, above.map((s) => -gain * s)],
      p.map((value, k) => value - line.parameters[0]! - gain * sums[k]!),
      weights,
    );
    if (!fitted) return nothing('The readings do not tell where it opens.');
    const by = fitted.parameters[2]!;
    u_A = Math.sqrt(fitted.covariance[2]![2]!);
    opens_A += Math.max(-way / 20, Math.min(way / 20, by));
    if (Math.abs(by) < CLOSE * way) break;
  }
  const rises = gain > 0;
  return { opens: told(opens_A, Math.hypot(u_A, STEP_PART * stepOf(I)), 'current'), rises };
}

/** Steps in which a current is raised: the middle of those that are any, A; nothing where it is raised without. */
function stepOf(amps: readonly number[]): number {
  const steps = amps.slice(1).map((value, i) => Math.abs(value - amps[i]!));
  const most = Math.max(...steps);
  const real = steps.filter((step) => step > most / 3);
  return real.length < steps.length / 3 ? median(Float64Array.from(real)) : 0;
}

/** Wheels behind a valve, as they are logged. */
const WHEELS = ['front-left', 'front-right', 'rear-left', 'rear-right', 'front', 'rear', 'output'] as const;

/** The current of a valve raised through a log, and the wheel that answers it. */
export function openingsIn(trace: Trace): Stretch[] {
  const current = channelAt(trace, 'valve');
  if (current?.quantity !== 'current') return [];
  const whole = wholeOf(trace);
  const wheels = WHEELS.map((port) => channelAt(trace, port)).filter((one) => one?.quantity === 'pressure');
  const movesBy = ({ values }: Channel) => {
    const finite = Array.from(values).filter(Number.isFinite);
    return Math.max(...finite) - Math.min(...finite);
  };
  const wheel = wheels.reduce<Channel | null>(
    (most, one) => (one && (!most || movesBy(one) > movesBy(most)) ? one : most),
    null,
  );
  if (!wheel) return [];
  const top = Array.from(current.values).reduce((best, value, i, all) => (value > all[best]! ? i : best), 0);
  const span = { from: whole.from, to: Math.max(whole.from + 1, top + 1) };
  const { opens, rises } = valveOpening(trace, current, wheel, span);
  return [
    {
      kind: 'valve',
      name: 'Current of a valve, raised',
      ...at(trace, span),
      results: [
        rises
          ? result('valve-apply', 'Apply valve opens at', 'current', opens)
          : result('valve-release', 'Release valve opens at', 'current', opens),
      ],
      lines: [],
      points: [],
      supply_Pa: null,
      notes: [],
    },
  ];
}
