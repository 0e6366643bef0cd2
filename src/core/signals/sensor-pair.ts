import { sentence, type Sentence } from '../quantities/sentence';
import { at, result, type Stretch } from './analysis';
import { blocksOf } from './blocks';
import { told, untold, type Estimate } from './estimate';
import { channelAt, wholeOf, type Channel, type Trace } from './trace';

/** What a log of two tracks that run against each other tells. Handbook-models 8.8. */
export interface SensorPair {
  /** Sum of both less their supply, over all of the log, V. */
  readonly sum: Estimate;
  /** The same where it is furthest from that. */
  readonly worst: Estimate;
  /** Each where the pedal is out the least, V; the first track is told by its lowest, or where it falls by its highest. */
  readonly rest: readonly [Estimate, Estimate];
  /** How far each moves, up or down, V. */
  readonly moves: readonly [Estimate, Estimate];
}

const MOST_BLOCKS = 400;
/** Both ends are told by this part of the blocks. */
const END_PART = 0.08;
/** One that moves by less than so many standard errors stands still. */
const MOVED_SIGMA = 6;
/** So many readings at its beginning say where the foot was off. */
const BEGAN = 3;

/**
 * Sum, rest and way of two tracks. The sum stays at the supply whatever the way: it is blind to tracks that are swapped and to a magnet
 * that is displaced, which the rest tells.
 *
 * @param foot what tells how far the pedal is out, where it was logged; else the log begins with the foot off
 */
export function sensorPair(
  trace: Trace,
  tracks: readonly [Channel, Channel],
  supply: Channel,
  foot: Channel | undefined,
): SensorPair {
  const { means, sigma } = blocksOf(
    trace,
    [...tracks, supply, foot ?? tracks[0]],
    wholeOf(trace),
    MOST_BLOCKS,
  );
  const [one, two, fed, by] = means as [Float64Array, Float64Array, Float64Array, Float64Array];
  const good = Array.from(one.keys()).filter((i) =>
    [one, two, fed, by].every((of) => Number.isFinite(of[i]!)),
  );
  const nothing = untold('There are too few readings of both tracks and their supply.', 'Log all three.');
  if (good.length < 10)
    return { sum: nothing, worst: nothing, rest: [nothing, nothing], moves: [nothing, nothing] };
  const sums = good.map((i) => one[i]! + two[i]! - fed[i]!);
  const each = Math.hypot(sigma[0]!, sigma[1]!, sigma[2]!);
  const mean = sums.reduce((all, x) => all + x, 0) / sums.length;
  const furthest = sums.reduce((most, x) => (Math.abs(x - mean) > Math.abs(most - mean) ? x : most), mean);
  const began = good.slice(0, BEGAN).reduce((all, i) => all + one[i]!, 0) / BEGAN;
  const outBy = (i: number) => (foot ? by[i]! : Math.abs(one[i]! - began));
  const sorted = [...good].sort((i, k) => outBy(i) - outBy(k));
  const few = Math.max(3, Math.floor(END_PART * sorted.length));
  const [out, pressed] = [sorted.slice(0, few), sorted.slice(-few)];
  const meanOver = (of: Float64Array, places: readonly number[]) =>
    places.reduce((all, i) => all + of[i]!, 0) / places.length;
  const end = ([one, two] as const).map((of, track) => ({
    rest: told(meanOver(of, out), sigma[track]! / Math.sqrt(few), 'voltage'),
    moves: told(meanOver(of, pressed) - meanOver(of, out), sigma[track]! * Math.sqrt(2 / few), 'voltage'),
  })) as [{ rest: Estimate; moves: Estimate }, { rest: Estimate; moves: Estimate }];
  return {
    sum: told(mean, each / Math.sqrt(sums.length), 'voltage'),
    worst: told(furthest, each, 'voltage'),
    rest: [end[0].rest, end[1].rest],
    moves: [end[0].moves, end[1].moves],
  };
}

/** What such a pair speaks of, in sentences. */
export function pairSays({ moves }: SensorPair): Sentence[] {
  const way = moves.map((of) =>
    of.told && Math.abs(of.value) > MOVED_SIGMA * of.u ? Math.sign(of.value) : 0,
  );
  const says: Sentence[] = [];
  if (!moves.every(({ told: is }) => is)) return says;
  if (way[0]! < 0 && way[1]! > 0)
    says.push(sentence('Track 1 falls and track 2 rises as the pedal is pressed: they are swapped.'));
  else if (way[0] === 0 && way[1] === 0) says.push(sentence('Neither track moves in this log.'));
  else if (way.includes(0))
    says.push(
      sentence(`Track ${way.indexOf(0) + 1} stands still while the other moves: open, short or stuck.`),
    );
  else if (way[0] === way[1])
    says.push(sentence('Both tracks move the same way: they should run against each other.'));
  return says;
}

/** The pair of a pedal's sensor, where both tracks and their supply were logged. */
export function pairIn(trace: Trace): Stretch[] {
  const [one, two, supply] = ['track-1', 'track-2', 'sensor'].map((port) => channelAt(trace, port));
  if (!one || !two || !supply) return [];
  const pair = sensorPair(trace, [one, two], supply, channelAt(trace, 'pedal') ?? channelAt(trace, 'travel'));
  return [
    {
      kind: 'pair',
      name: 'Tracks of the pedal’s sensor',
      ...at(trace, wholeOf(trace)),
      results: [
        result('pair-sum', 'Sum of the tracks less their supply', 'voltage', pair.sum),
        result('pair-worst', 'The same where it is furthest from that', 'voltage', pair.worst),
        result('pair-rest-1', 'Track 1 with the pedal out the least', 'voltage', pair.rest[0]),
        result('pair-rest-2', 'Track 2 with the pedal out the least', 'voltage', pair.rest[1]),
        result('pair-moves-1', 'Track 1, moved by', 'voltage', pair.moves[0]),
        result('pair-moves-2', 'Track 2, moved by', 'voltage', pair.moves[1]),
      ],
      lines: [],
      points: [],
      supply_Pa: null,
      notes: pairSays(pair),
    },
  ];
}
