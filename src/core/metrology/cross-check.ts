import { yorkFit, type YorkPoint } from './york';

/** One bypass point: both gauges read at one input, assist off, their vented zeros taken off. */
export interface BypassPoint {
  readonly input_Pa: number;
  readonly output_Pa: number;
  /** Random standard uncertainties (step and scatter). */
  readonly u_input_Pa: number;
  readonly u_output_Pa: number;
}

/** What the two gauges read when vented. */
export interface VentedZeros {
  readonly input_Pa: number;
  readonly output_Pa: number;
  readonly u_input_Pa: number;
  readonly u_output_Pa: number;
}

export type CrossCheck =
  | { kind: 'undetermined'; why: 'too-few-points' | 'no-zero' }
  | {
      /** The passage does not let pressure through: nothing is corrected. */
      kind: 'passage-fault';
      slope: number;
      /** Largest shortfall of output below input, and the input at which it was seen. */
      worst_Pa: number;
      at_Pa: number;
    }
  | {
      kind: 'through';
      /** Scale of the output gauge over that of the input gauge: ratios read are divided by it. */
      slope: number;
      u_slope: number;
      /** Offset left after the vented zeros, output minus input, Pa: a threshold in the unit. */
      offset_Pa: number;
      u_offset_Pa: number;
      /** Zero of the output gauge minus that of the input gauge, Pa. */
      zeroDifference_Pa: number;
      /** Whether the scales differ by more than 2u. */
      scaleDiffers: boolean;
      /** Whether an offset beyond 2u remains: a threshold in the unit, not a gauge zero. */
      threshold: boolean;
      /** The correction is good from zero (read vented) to these readings. */
      covered: { input_Pa: number; output_Pa: number };
      count: number;
    };

/** A scale difference beyond this is no longer two gauges disagreeing: something in the passage holds pressure back. */
export const PLAUSIBLE_SCALE = 0.2;
/** Fewest bypass points that separate a slope from an offset with one left over to check. */
export const FEWEST_POINTS = 3;

/**
 * Sorts out two gauges that disagree from a unit that holds pressure back, from readings with the assist off.
 * The vented zeros are off already; a slope other than 1 is the two gauges disagreeing in scale, and an
 * offset that remains is a threshold in the unit. Points that agree with neither, or an output stuck low, are a
 * passage fault and correct nothing. Handbook 5.
 *
 * @param zeros what was taken off; null where a gauge was not read vented, and then nothing is concluded
 * @param allowed_Pa how far a point may stray from the line before it agrees with no line (the bypass limit)
 */
export function crossCheck(
  points: readonly BypassPoint[],
  zeros: VentedZeros | null,
  allowed_Pa: (input_Pa: number) => number,
): CrossCheck {
  if (!zeros) return { kind: 'undetermined', why: 'no-zero' };
  if (points.length < FEWEST_POINTS) return { kind: 'undetermined', why: 'too-few-points' };
  const zeroed: YorkPoint[] = points.map((point) => ({
    x: point.input_Pa,
    y: point.output_Pa,
    u_x: point.u_input_Pa,
    u_y: point.u_output_Pa,
  }));
  const fit = yorkFit(zeroed);
  if (!fit) return { kind: 'undetermined', why: 'too-few-points' };
  const strays = zeroed.some(
    ({ x, y, u_x, u_y }) =>
      Math.abs(y - fit.intercept - fit.slope * x) > allowed_Pa(x) + 2 * Math.hypot(u_y, fit.slope * u_x),
  );
  if (strays || Math.abs(fit.slope - 1) > PLAUSIBLE_SCALE) {
    const worst = zeroed.reduce((most, point) => (point.x - point.y > most.x - most.y ? point : most));
    return { kind: 'passage-fault', slope: fit.slope, worst_Pa: worst.x - worst.y, at_Pa: worst.x };
  }
  // One zero, with its own reading error, was taken off every point of a gauge: that error is in the offset whole.
  const u_offset_Pa = Math.hypot(fit.u_intercept, zeros.u_output_Pa, fit.slope * zeros.u_input_Pa);
  return {
    kind: 'through',
    slope: fit.slope,
    u_slope: fit.u_slope,
    offset_Pa: fit.intercept,
    u_offset_Pa,
    zeroDifference_Pa: zeros.output_Pa - zeros.input_Pa,
    scaleDiffers: Math.abs(fit.slope - 1) > 2 * fit.u_slope,
    threshold: Math.abs(fit.intercept) > 2 * u_offset_Pa,
    covered: {
      input_Pa: Math.max(...points.map((point) => point.input_Pa)),
      output_Pa: Math.max(...points.map((point) => point.output_Pa)),
    },
    count: points.length,
  };
}
