import { USUAL_SETTLING_S, Vessel, type Accumulator, type Around } from '../fluid/accumulator';
import { filledTo } from '../fluid/charging';
import { blocksOf } from './blocks';
import { told, untold, type Estimate } from './estimate';
import type { Channel, Span, Trace } from './trace';

/** What a pump tells that a switch turns on and off by the pressure of an accumulator. */
export interface PumpCycles {
  /** Starts of the pump that stand in the trace with the stop behind them. */
  readonly count: number;
  readonly cutIn: Estimate;
  readonly cutOut: Estimate;
  readonly onTime: Estimate;
  readonly offTime: Estimate;
  /** Part of the time that the pump runs. */
  readonly duty: Estimate;
  /** Fluid that leaves at the mean of cut-in and cut-out, m³/s, for a known vessel. */
  readonly leak: Estimate;
}

const MOST_BLOCKS = 20_000;
const SHORTEST_BLOCK_S = 0.1;
/** A turn of the pressure is one where it goes back by this part of the whole reach, and by so many standard errors. */
const TURN_PART = 0.2;
const TURN_SIGMA = 12;
const NEAR_SIGMA = 4;
/** Where a run begins and ends is known to so many readings. */
const END_READINGS = 2;
/** The first pauses are gas that cools, not fluid that leaves: judged from this one on. Handbook-models 8.5. */
const JUDGED_FROM = 3;
/** A pump that is started again after less than this, time and again, is turned by a switch that chatters, s. */
const CHATTER_S = 2;

/** Where the pressure of an accumulator turns: its pump starts, or stops. */
export interface Turn {
  readonly at_s: number;
  readonly pressure_Pa: number;
  readonly is: 'start' | 'stop';
}

/**
 * Cut-in and cut-out, times on and off, duty and leak from a trace in which a pump was left to its switch. The first two pauses are
 * left out: gas that was just pressed cools, and starts the pump again with nothing lost. Handbook 6; handbook-models 8.5.
 *
 * @param known shell and pre-charge; null where they are not
 * @param turns of the pressure in the trace, where they were looked for already
 */
export function pumpCycles(
  trace: Trace,
  channel: Channel,
  span: Span,
  known: Omit<Accumulator, 'settling_s'> | null,
  around: Around,
  turns: readonly Turn[] = turnsOf(trace, channel, span),
): PumpCycles {
  const stops = turns.filter(({ is }) => is === 'stop');
  const starts = turns.filter(({ is }) => is === 'start');
  const pauses = between(turns, 'stop', 'start');
  const runs = between(turns, 'start', 'stop');
  const nothing = (why: Estimate): PumpCycles => ({
    count: runs.length,
    cutIn: why,
    cutOut: why,
    onTime: why,
    offTime: why,
    duty: why,
    leak: why,
  });
  if (stops.length === 0) return nothing(neverStops(trace, channel, span));
  const short = pauses.filter((pause) => pause < CHATTER_S);
  if (short.length >= JUDGED_FROM)
    return nothing(
      untold(
        'The switch chatters: {count} times the pump started again within {time} of its stop.',
        'Look for a switch on a line that pulsates, or one that is worn, before anything is timed.',
        {
          count: { value: short.length, quantity: 'count' },
          time: { value: CHATTER_S, quantity: 'duration' },
        },
      ),
    );
  const few = (have: number, what: string): Estimate =>
    untold(`Only {count} ${what} in the log: the first ones are gas that cools.`, 'Log for longer.', {
      count: { value: have, quantity: 'count' },
    });
  const spacing_s =
    (trace.time_s[span.to - 1]! - trace.time_s[span.from]!) / Math.max(1, span.to - span.from);
  const timed = (times: readonly number[]): Estimate => {
    const mean = meanOf(times, 'duration');
    return mean.told ? { ...mean, u: Math.hypot(mean.u, END_READINGS * spacing_s) } : mean;
  };
  const settledPauses = pauses.slice(JUDGED_FROM - 1);
  const settledRuns = runs.slice(JUDGED_FROM - 2);
  const cutOut = meanOf(
    stops.map(({ pressure_Pa }) => pressure_Pa),
    'pressure',
  );
  const cutIn =
    starts.length > 0
      ? meanOf(
          starts.map(({ pressure_Pa }) => pressure_Pa),
          'pressure',
        )
      : untold('The pump does not start again in the log.', 'Log for longer.');
  const offTime = settledPauses.length > 0 ? timed(settledPauses) : few(pauses.length, 'pauses of the pump');
  const onTime = settledRuns.length > 0 ? timed(settledRuns) : few(runs.length, 'runs of the pump');
  return {
    count: runs.length,
    cutIn,
    cutOut,
    onTime,
    offTime,
    duty: dutyOf(onTime, offTime),
    leak: leakOf(cutIn, cutOut, offTime, onTime, known, around),
  };
}

function dutyOf(on: Estimate, off: Estimate): Estimate {
  if (!on.told) return on;
  if (!off.told) return off;
  const whole_s = on.value + off.value;
  const u = Math.hypot(off.value * on.u, on.value * off.u) / whole_s ** 2;
  return told(on.value / whole_s, u, 'percent');
}

/**
 * Off-time once settled: (V_slow(p_in) − V_fast(p_out, compressed from p_in))/q of the mean pressure; pressed as fast as the pump did
 * it. Handbook-models 8.5.
 */
function leakOf(
  cutIn: Estimate,
  cutOut: Estimate,
  offTime: Estimate,
  onTime: Estimate,
  known: Omit<Accumulator, 'settling_s'> | null,
  around: Around,
): Estimate {
  if (!offTime.told) return offTime;
  if (!cutIn.told) return cutIn;
  if (!cutOut.told) return cutOut;
  if (!known)
    return untold('The vessel is not known, so the leak is not told in volume.', 'Name its profile.');
  const vessel = new Vessel({ ...known, settling_s: USUAL_SETTLING_S }, around);
  if (vessel.flickUp_Pa >= cutIn.value)
    return untold('The pump starts below the pressure of the gas: the vessel is empty by then, or another.');
  // Pressed in the time that the pump ran, the gas gives off some of its heat meanwhile.
  const settled = vessel.settledAt(cutIn.value);
  const fast_m3 = settled.gas_m3 - vessel.fastTo(settled, cutOut.value).gas_m3;
  const pressed = onTime.told
    ? filledTo(vessel, settled, cutOut.value, () => fast_m3 / onTime.value).charge
    : vessel.fastTo(settled, cutOut.value);
  const lost_m3 = settled.gas_m3 - pressed.gas_m3;
  const leak = lost_m3 / offTime.value;
  const byPressures = Math.hypot(cutIn.u, cutOut.u) / (cutOut.value - cutIn.value);
  return told(leak, leak * Math.hypot(offTime.u / offTime.value, byPressures, FORMULA_PART), 'leakRate');
}
/** The formula takes gas as settled at the cut-in, and one of the time constants with which it may cool: it is good to this part. */
const FORMULA_PART = 0.03;

/** Why no stop of the pump stands in a log. */
function neverStops(trace: Trace, { values }: Channel, { from, to }: Span): Estimate {
  const quarter = Math.floor((to - from) / 4);
  const meanOfPart = (first: number) => {
    let sum = 0;
    for (let i = first; i < first + quarter; i += 1) sum += values[i]!;
    return sum / Math.max(1, quarter);
  };
  const [early, late] = [meanOfPart(from), meanOfPart(to - quarter)];
  return late > early
    ? untold(
        'The pump does not stop in the log, and the pressure does not turn back: it never reaches its cut-out, or the log ends before.',
        'Log on; a pump that stands at one pressure for a minute cannot reach its cut-out.',
      )
    : untold('The pump does not run in the log: the pressure only falls.', 'Log on until it has started.');
}

/** Times from each turn of one kind to the next one of the other. */
function between(turns: readonly Turn[], first: Turn['is'], then: Turn['is']): number[] {
  return turns.flatMap((turn, i) => {
    const next = turns[i + 1];
    return turn.is === first && next?.is === then ? [next.at_s - turn.at_s] : [];
  });
}

function meanOf(values: readonly number[], quantity: 'pressure' | 'duration'): Estimate {
  const mean = values.reduce((sum, value) => sum + value, 0) / values.length;
  const spread =
    values.length > 1
      ? Math.sqrt(
          values.reduce((sum, value) => sum + (value - mean) ** 2, 0) / (values.length - 1) / values.length,
        )
      : 0;
  return told(mean, Math.max(spread, LEAST_PART * mean), quantity);
}
/** No mean of a few cycles is told better than to this part. */
const LEAST_PART = 0.002;

/** Where the pressure turns: each time it has gone back by far enough from its greatest or least. */
export function turnsOf(trace: Trace, channel: Channel, span: Span): Turn[] {
  const duration_s = trace.time_s[span.to - 1]! - trace.time_s[span.from]!;
  const most = Math.max(8, Math.min(MOST_BLOCKS, Math.ceil(duration_s / SHORTEST_BLOCK_S)));
  const { means, time_s, sigma } = blocksOf(trace, [channel], span, most);
  const levels = means[0]!;
  const good = Array.from(levels.keys()).filter((i) => Number.isFinite(levels[i]!));
  if (good.length < 3) return [];
  // A charge from empty reaches far below: what counts is the reach of the upper three quarters.
  const sorted = good.map((i) => levels[i]!).sort((a, b) => a - b);
  const reach = sorted.at(-1)! - sorted[Math.floor(sorted.length / 4)]!;
  const back = Math.max(TURN_PART * reach, TURN_SIGMA * sigma[0]!);
  const level = (at: number) => levels[good[at]!]!;
  const near = NEAR_SIGMA * sigma[0]!;
  const turnAt = (at: number, is: Turn['is']): Turn => ({
    at_s: time_s[good[at]!]!,
    pressure_Pa: level(at),
    is,
  });
  // Where it hardly moves noise has its lowest anywhere: the pump starts where the pressure last stood there.
  const started = (least: number, by: number): Turn => {
    let at = by;
    while (at > least && level(at) > level(least) + near) at -= 1;
    return { ...turnAt(at, 'start'), pressure_Pa: level(least) };
  };
  const turns: Turn[] = [];
  let [least, greatest] = [0, 0];
  let rising: boolean | null = null;
  for (let i = 0; i < good.length; i += 1) {
    if (level(i) > level(greatest)) greatest = i;
    if (level(i) < level(least)) least = i;
    if (rising !== false && level(i) < level(greatest) - back) {
      // A log that begins with a fall has no stop of the pump in it.
      if (rising) turns.push(turnAt(greatest, 'stop'));
      [rising, least] = [false, i];
    } else if (rising !== true && level(i) > level(least) + back) {
      if (rising === false) turns.push(started(least, i));
      [rising, greatest] = [true, i];
    }
  }
  return turns;
}
