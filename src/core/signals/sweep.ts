import { blocksOf } from './blocks';
import { told, untold, type Estimate, type Untold } from './estimate';
import { leastSquares, varianceOf, type Fitted } from './least-squares';
import type { Channel, Span, Trace } from './trace';

/** What a sweep of a metering valve tells, its pedal pressed and let go once. */
export interface Sweep {
  /** Rise of each circuit for each metre of travel, pressed, Pa/m. */
  readonly slopes: readonly Estimate[];
  /** Pressure between letting go and pressing at the middle of the travel, by circuit, Pa. */
  readonly hysteresis: readonly Estimate[];
  /** Second circuit above the first, pressed, at the middle of the travel, Pa; untold where there is one circuit. */
  readonly match: Estimate;
  /** Greatest pressure of each circuit, Pa. */
  readonly greatest: readonly Estimate[];
  /** Travel at which it is told, m. */
  readonly at_m: number;
}

const MOST_BLOCKS = 1500;
/** The straight part of a branch: between these parts of the greatest pressure. */
const STRAIGHT = [0.15, 0.85] as const;
const LEAST_POINTS = 8;
/** Readings that lie further from a straight line than this part of the greatest pressure lie on none: the valve hunts or sticks. */
const EVEN_PART = 0.02;

const FEW_UP = untold('Too few readings lie on the way up.', 'Press more slowly.');
const FEW = untold(
  'The pedal was not pressed and let go over its travel.',
  'Press slowly from nothing to the stop and let go as slowly.',
);
const UNEVEN = untold(
  'The pressure does not rise and fall evenly with the travel: the valve hunts or sticks.',
  'Hold the pedal at one travel and see how the pressure swings.',
);

interface Line {
  readonly fitted: Fitted;
  readonly at: (travel_m: number) => number;
  readonly u: (travel_m: number) => number;
}

/**
 * Slope, hysteresis and match of circuits from their pressures against the travel of a pedal that is pressed once and let go: the
 * straight part of each branch by least squares. What is clipped, by the tank below and the accumulator above, is left out.
 * Handbook 6; handbook-models 8.7.
 */
export function sweep(trace: Trace, travel: Channel, circuits: readonly Channel[], span: Span): Sweep {
  const { means, sigma } = blocksOf(trace, [travel, ...circuits], span, MOST_BLOCKS);
  const [x, ...pressures] = means as [Float64Array, ...Float64Array[]];
  const top = x.reduce((best, value, i) => (value > (x[best] ?? -Infinity) ? i : best), 0);
  const greatest = pressures.map((p) => p.reduce((most, value) => (value > most ? value : most), -Infinity));
  const branch = (circuit: number, from: number, to: number, few: Untold): Line | Untold => {
    const p = pressures[circuit]!;
    const [low, high] = STRAIGHT.map((part) => part * greatest[circuit]!) as [number, number];
    const used = Array.from({ length: to - from }, (_, i) => from + i).filter(
      (i) => Number.isFinite(x[i]!) && p[i]! > low && p[i]! < high,
    );
    if (used.length < LEAST_POINTS) return few;
    // Travel is read with noise too: what scatters more than the pressure's own noise widens the doubt.
    const fitted = leastSquares(
      [used.map(() => 1), used.map((i) => x[i]!)],
      used.map((i) => p[i]!),
      used.map(() => 1 / sigma[circuit + 1]! ** 2),
    );
    if (!fitted) return few;
    const scatter_Pa = sigma[circuit + 1]! * Math.sqrt(fitted.chi2 / Math.max(1, fitted.freedom));
    if (scatter_Pa > EVEN_PART * greatest[circuit]!) return UNEVEN;
    return {
      fitted,
      at: (travel_m) => fitted.parameters[0]! + fitted.parameters[1]! * travel_m,
      u: (travel_m) => Math.sqrt(varianceOf(fitted.covariance, [1, travel_m])),
    };
  };
  const up = pressures.map((_, circuit) => branch(circuit, 0, top + 1, FEW_UP));
  const down = pressures.map((_, circuit) => branch(circuit, top, x.length, FEW));
  const first = up[0];
  // The middle of the straight part of the first circuit.
  const at_m =
    first && 'fitted' in first
      ? (((STRAIGHT[0] + STRAIGHT[1]) / 2) * greatest[0]! - first.fitted.parameters[0]!) /
        first.fitted.parameters[1]!
      : NaN;
  const apart = (one: Line | Untold | undefined, other: Line | Untold | undefined): Estimate => {
    if (!one || !other) return FEW;
    if (!('fitted' in one)) return one;
    if (!('fitted' in other)) return other;
    if (Number.isNaN(at_m)) return first && 'why' in first ? first : FEW;
    return told(one.at(at_m) - other.at(at_m), Math.hypot(one.u(at_m), other.u(at_m)), 'pressure');
  };
  return {
    slopes: up.map((line) =>
      'fitted' in line
        ? told(line.fitted.parameters[1]!, Math.sqrt(line.fitted.covariance[1]![1]!), 'pressurePerTravel')
        : line,
    ),
    hysteresis: pressures.map((_, circuit) => apart(down[circuit], up[circuit])),
    match: pressures.length > 1 ? apart(up[1], up[0]) : untold('There is one circuit only.'),
    greatest: greatest.map((most, circuit) => told(most, sigma[circuit + 1]!, 'pressure')),
    at_m,
  };
}
