import { correctedReading_SI } from './correction';
import { gaugeUncertainty_SI, type Instrument } from './instrument';

/** A value read from one gauge, once or several times. */
export interface Measured {
  /** Mean of the readings, SI. */
  readonly value_SI: number;
  readonly instrument: Instrument;
  /** Number of readings averaged, ≥ 1. */
  readonly count: number;
  /** Sample standard deviation of the readings, SI; 0 for a single one. */
  readonly scatter_SI: number;
  /** A vented zero, read with the same step, was subtracted: its step counts too. */
  readonly zeroed: boolean;
}

/** One contribution to a result: a reading times the result's sensitivity to it. */
export interface Term {
  /** ∂result/∂reading. */
  readonly sensitivity: number;
  /**
   * Sensitivity to the gauge's shared error where it differs: 0 when a cross-check takes that error out, or the
   * relative error of a slope, to which an equal error at every reading would not add.
   */
  readonly sharedSensitivity?: number;
  readonly measured: Measured;
}

/** Averages repeated readings of one gauge, corrected by its table and its vented zero, where there are any. */
export function measured(
  values_SI: readonly number[],
  instrument: Instrument,
  zero_SI: number | null = null,
): Measured {
  const count = values_SI.length;
  if (count === 0) throw new RangeError('values_SI: no reading to average');
  const mean_SI = values_SI.reduce((sum, value) => sum + value, 0) / count;
  const squares = values_SI.reduce((sum, value) => sum + (value - mean_SI) ** 2, 0);
  return {
    value_SI: correctedReading_SI(instrument, mean_SI, zero_SI),
    instrument,
    count,
    scatter_SI: count > 1 ? Math.sqrt(squares / (count - 1)) : 0,
    zeroed: zero_SI !== null,
  };
}

/** The gauge's one unknown error as a standard uncertainty. Repeats do not shrink it. Handbook 5. */
export function sharedUncertainty_SI({ value_SI, instrument }: Measured): number {
  return gaugeUncertainty_SI(instrument, value_SI);
}

/** What a reading can lie off by being read to a step: uniform, step/√12, SI. Handbook 5. */
export const stepUncertainty_SI = ({ step_Pa }: Pick<Instrument, 'step_Pa'>): number =>
  step_Pa / Math.sqrt(12);

/** What differs from reading to reading: the step (uniform, step/√12) and the scatter of the mean. Handbook 5. */
export function randomUncertainty_SI({ instrument, count, scatter_SI, zeroed }: Measured): number {
  const step_SI = stepUncertainty_SI(instrument);
  return Math.hypot(step_SI, zeroed ? step_SI : 0, scatter_SI / Math.sqrt(count));
}

/** Standard uncertainty of a reading by itself, SI. */
export function readingUncertainty_SI(reading: Measured): number {
  return combinedUncertainty([{ sensitivity: 1, measured: reading }]);
}

/**
 * Standard uncertainty of a result of several readings. The unknown error of a gauge is one error: the parts of it
 * that reach the result through several readings are added with their signs before squaring (GUM 5.2.2, fully
 * correlated); steps and scatter are independent.
 */
export function combinedUncertainty(terms: readonly Term[]): number {
  const shared = new Map<string, number>();
  let variance = 0;
  for (const { sensitivity, sharedSensitivity = sensitivity, measured: reading } of terms) {
    const tag = reading.instrument.tag;
    shared.set(tag, (shared.get(tag) ?? 0) + sharedSensitivity * sharedUncertainty_SI(reading));
    variance += (sensitivity * randomUncertainty_SI(reading)) ** 2;
  }
  for (const part of shared.values()) variance += part ** 2;
  return Math.sqrt(variance);
}
