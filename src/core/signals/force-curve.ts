import { rodPistonArea_m2 } from '../air/diaphragm';
import type { Rod } from '../contract/logged-unit';
import type { Sentence } from '../quantities/sentence';
import { scatterOf } from './blocks';
import { clippedNotes, cloudOf, pointsOf } from './branch-points';
import { told, untold, type Estimate } from './estimate';
import { kinkedLine, plainLine } from './kinked-line';
import type { Channel, Span, Trace } from './trace';

/** Area of the piston from the force that reaches a load at full lift, m²: the spring keeps a part of the push. Handbook 8.2. */
export const pistonArea_m2 = (
  force_N: number,
  input_Pa: number,
  difference_Pa: number,
  rod: Omit<Rod, 'useful_N'>,
): number => rodPistonArea_m2(rod, input_Pa, difference_Pa, force_N * rod.giving);

/** What force against fluid pressure tells over one slow apply. */
export interface ForceCurve {
  readonly begins: Estimate;
  readonly fullLift: Estimate;
  readonly fullForce: Estimate;
  readonly corners: readonly (readonly [input_Pa: number, force_N: number])[];
  readonly points: readonly (readonly [input_Pa: number, force_N: number])[];
  readonly notes: readonly Sentence[];
}

const LINE_BLOCKS = 250;
const DRAWN_BLOCKS = 160;
/** Below this part of the greatest force the rod is still taking up its slack. */
const TAKEN_UP = 0.06;
const LEAST_POINTS = 8;
/** Beyond full lift the force rises no more: its line there is at most this part as steep. */
const LEVEL = 0.25;

/**
 * Force of a rod against the fluid pressure at its valve: nothing, a straight rise from where the vacuum lifts the
 * preload, and a level from full lift on. The knee is free; a rise without one says so. Handbook 8.2.
 *
 * @returns null where no force came
 */
export function forceCurve(trace: Trace, input: Channel, force: Channel, span: Span): ForceCurve | null {
  const scatter = scatterOf([input, force], span);
  const all = pointsOf(trace, [input, force], span, LINE_BLOCKS, scatter);
  const top = Math.max(0, ...all.points.map(({ y }) => y));
  const rising = { ...all, points: all.points.filter(({ y }) => y > TAKEN_UP * top + 6 * all.u_y) };
  if (rising.points.length < LEAST_POINTS) return null;
  const notes = clippedNotes([input, force], all.clip);
  const drawn = pointsOf(trace, [input, force], span, DRAWN_BLOCKS, scatter).points;
  const points = drawn.map(({ x, y }) => [Math.round(x), Number(y.toFixed(1))] as const);
  const cloud = cloudOf(rising);
  const kinked = kinkedLine(cloud);
  const knee = kinked && kinked.beyond < LEVEL * kinked.slope ? kinked : null;
  const line = knee ?? plainLine(cloud);
  const last = Math.max(...rising.points.map(({ x }) => x));
  const notReached = untold(
    'Full lift was not reached: the force follows the pressure to the end of this pull.',
    'Pull on to more than {input}.',
    { input: { value: last, quantity: 'pressure' } },
  );
  if (!line || line.slope <= 0)
    return { begins: TOO_FEW, fullLift: notReached, fullForce: notReached, corners: [], points, notes };
  const at = (x: number) => line.intercept + line.slope * x;
  const begins = -line.intercept / line.slope;
  const bend = knee ? ([knee.knee, at(knee.knee)] as const) : ([last, at(last)] as const);
  return {
    begins: told(begins, Math.sqrt(line.varianceAt(begins)) / line.slope, 'pressure'),
    fullLift: knee ? told(knee.knee, knee.u.knee, 'pressure') : notReached,
    fullForce: knee ? told(at(knee.knee), knee.u.kneeY, 'force') : notReached,
    corners: [
      [begins, 0],
      bend,
      ...(knee ? [[last, bend[1] + knee.beyond * (last - knee.knee)] as const] : []),
    ],
    points,
    notes,
  };
}

const TOO_FEW = untold('Too few points at rising force.', 'Pull slowly from zero to beyond full lift.');
