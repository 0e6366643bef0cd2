/** What is wrong with a gauge: how many times too much it shows, where it stands vented, and the noise of this reading, SI. */
export interface GaugeError {
  readonly scale?: number | undefined;
  readonly zero_Pa?: number | undefined;
  readonly noise_Pa?: number;
}

interface Ends {
  readonly fullScale_Pa: number;
  readonly step_Pa: number;
  readonly lowEnd_Pa?: number | null | undefined;
}

/**
 * What a gauge shows of a true value, in whole steps. Fields that end in `_Pa` hold SI of what it reads.
 *
 * @param over how far past its ends the pointer or transducer goes, as a factor
 */
export function shownBy(
  { fullScale_Pa, step_Pa, lowEnd_Pa }: Ends,
  true_SI: number,
  { scale = 1, zero_Pa = 0, noise_Pa = 0 }: GaugeError,
  over = 1,
): number {
  const steps = Math.round((true_SI * scale + zero_Pa + noise_Pa) / step_Pa);
  const shown = Math.min(over * fullScale_Pa, steps * step_Pa);
  return lowEnd_Pa ? Math.max(over * lowEnd_Pa, shown) : shown;
}
