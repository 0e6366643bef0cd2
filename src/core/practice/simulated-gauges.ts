import type { Instrument } from '../metrology/instrument';
import { PRACTICE_LOGGER } from '../shop/live';

/** What every gauge of the simulated bench is called. */
export const SIMULATED_GAUGE = 'Simulated, for practice';

/** Whether a test was begun with gauges of the simulated bench. */
export const arePracticeGauges = (gauges: readonly Pick<Instrument, 'name'>[]): boolean =>
  gauges.length > 0 && gauges.every(({ name }) => name === SIMULATED_GAUGE);

/**
 * Whether the logger that the settings name may read a test with these gauges. The simulated bench that practice brings along reads
 * practice alone: one of its gauges may bear the tag of a real one.
 */
export const loggerReads = (logger: string, gauges: readonly Pick<Instrument, 'name'>[]): boolean =>
  logger !== '' && (logger !== PRACTICE_LOGGER || arePracticeGauges(gauges));
