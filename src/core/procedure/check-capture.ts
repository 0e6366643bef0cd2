import type { Instrument } from '../metrology/instrument';
import { measured } from '../metrology/uncertainty';
import { impossibility, type ReadingRefusal } from '../quantities/reading';
import type { Family, RunContext } from '../twin/family';
import { ventedZero_SI } from './measured-item';
import type { ReadingItem } from './procedure';
import { outsideReach } from './reach';
import type { RunState } from './run';

/** A reading that no known fault explains: kept only after a second confirmation. */
export interface Unlikely {
  readonly code: 'unlikely';
  readonly low: number;
  readonly high: number;
}

/** What stands in the way of capturing a value, the same on the screen and on the server: null if nothing does. */
export function checkCapture(
  family: Family,
  context: RunContext<unknown>,
  run: RunState,
  item: ReadingItem,
  gauge: Instrument,
  value_SI: number,
): ReadingRefusal | Unlikely | null {
  const impossible = impossibility(value_SI, {
    quantity: item.quantity,
    barometer_Pa: context.conditions.barometer_Pa,
  });
  if (impossible) return impossible;
  if (Math.abs(value_SI) > gauge.fullScale_Pa * (1 + 1e-9)) {
    const { fullScale_Pa: fullScale_SI, tag: instrument } = gauge;
    return { code: 'above-full-scale', value_SI, fullScale_SI, instrument, quantity: item.quantity };
  }
  const reading = measured([value_SI], gauge, ventedZero_SI(run, gauge.tag));
  const outside = outsideReach(family, context, run, item, reading);
  return outside && { code: 'unlikely', ...outside };
}
