/** A track of a sensor: volts for a way, as a table at one supply. Between its points it is straight. */
export interface SensorTrack {
  /** Supply that the table is for, V. */
  readonly supply_V: number;
  /** Way, m, rising, and volts, rising or falling with it. */
  readonly points: readonly (readonly [travel_m: number, volts_V: number])[];
}

/** Part of its supply at which a usual rising track stands with its pedal so far out, and the other way: x = x_full·(V/V_s − 0.1)/0.8. */
export const usualPart = (travel_m: number, full_m: number): number => 0.1 + (0.8 * travel_m) / full_m;
export const usualTravel_m = (part: number, full_m: number): number => (full_m * (part - 0.1)) / 0.8;

/**
 * A track as it is made that goes from a tenth to nine tenths of its supply, or the other way. Handbook-models 8.8:
 * x = x_full·(V/V_s − 0.1)/0.8.
 */
export const usualTrack = (supply_V: number, full_m: number, falls = false): SensorTrack => ({
  supply_V,
  points: [
    [0, (falls ? 0.9 : 0.1) * supply_V],
    [full_m, (falls ? 0.1 : 0.9) * supply_V],
  ],
});

/**
 * Why a table is none; null where it is one.
 *
 * @returns a sentence with the relation that fails
 */
export function trackRefused({ supply_V, points }: SensorTrack): string | null {
  if (points.length < 2) return 'A table has two points at least.';
  const sense = Math.sign(points.at(-1)![1] - points[0]![1]);
  for (let i = 0; i < points.length; i += 1) {
    const [travel_m, volts_V] = points[i]!;
    if (volts_V < 0 || volts_V > supply_V)
      return `Point ${i + 1}: ${volts_V} V cannot stand on a supply of ${supply_V} V.`;
    const before = points[i - 1];
    if (!before) continue;
    if (!(travel_m > before[0])) return `Point ${i + 1}: the way must rise from point to point.`;
    if (Math.sign(volts_V - before[1]) !== sense)
      return `Point ${i + 1}: the volts must rise, or fall, from point to point all the way.`;
  }
  return null;
}

/** Beyond an end of its table a track at its stop may stand by this part of its supply. Our judgement. */
const BEYOND = 0.02;

/**
 * Way for the volts of a track, m, the table scaled to the supply that was read; null well beyond either end of it: railed, open or short.
 *
 * @throws RangeError where the table is none, or more volts are read than there is supply
 */
export function travelOf_m(track: SensorTrack, volts_V: number, supply_V: number): number | null {
  const refused = trackRefused(track);
  if (refused) throw new RangeError(`points: ${refused}`);
  if (volts_V > supply_V)
    throw new RangeError(`volts_V: ${volts_V} V cannot stand on a supply of ${supply_V} V`);
  const at_V = (volts_V * track.supply_V) / supply_V;
  const { points } = track;
  const inner = points.slice(1, -1);
  const rises = points.at(-1)![1] > points[0]![1];
  // The segment in which it lies: the first and the last go on beyond the table.
  const place = inner.filter(([, volts]) => (rises ? at_V > volts : at_V < volts)).length;
  const [[x0, v0], [x1, v1]] = [points[place]!, points[place + 1]!];
  const ends = [points[0]![1], points.at(-1)![1]];
  const beyond_V = Math.max(Math.min(...ends) - at_V, at_V - Math.max(...ends));
  return beyond_V > BEYOND * track.supply_V ? null : x0 + ((at_V - v0) / (v1 - v0)) * (x1 - x0);
}

/** What two tracks that run against each other tell, at rest or pressed. */
export interface PairRead {
  readonly supply_V: number;
  readonly rest_V: readonly [number, number];
  readonly pressed_V: readonly [number, number];
}

/** What is wrong with a pair, by its id; an empty list is a pair that nothing speaks against. */
export type PairFault = 'sum' | 'swapped' | 'displaced' | 'still' | 'railed';

/**
 * What two readings of a pair of tracks speak of. Their sum stays at the supply whatever the way: it is blind to tracks that are swapped
 * and to a magnet that is displaced, which the rest tells, and to one that stands still, which pressing tells. Handbook-models 8.8.
 *
 * @param tracks the first, whose volts rise, and the second
 * @param within_m so near to nothing a pedal at rest reads
 * @param sum_V so near to the supply their sum is
 */
export function pairFaults(
  tracks: readonly [SensorTrack, SensorTrack],
  { supply_V, rest_V, pressed_V }: PairRead,
  { within_m, sum_V }: { readonly within_m: number; readonly sum_V: number },
): PairFault[] {
  const found: PairFault[] = [];
  const at = (volts: readonly [number, number]) =>
    tracks.map((track, i) => travelOf_m(track, volts[i]!, supply_V)) as [number | null, number | null];
  const [rest, pressed] = [at(rest_V), at(pressed_V)];
  if ([rest_V, pressed_V].some(([one, other]) => Math.abs(one + other - supply_V) > sum_V)) found.push('sum');
  if ([...rest, ...pressed].includes(null)) found.push('railed');
  const moved = [0, 1].map((i) => (pressed_V[i]! - rest_V[i]!) / supply_V);
  if (moved.some((by) => Math.abs(by) * supply_V < sum_V)) found.push('still');
  else if (moved[0]! < 0 && moved[1]! > 0) found.push('swapped');
  else if (rest.some((way_m) => way_m !== null && Math.abs(way_m) > within_m)) found.push('displaced');
  return found;
}
