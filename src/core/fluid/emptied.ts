import { SEA_LEVEL_PA } from '../air/atmosphere';
import { USUAL_SETTLING_S, Vessel } from './accumulator';

/** An accumulator that is emptied from full with its pump off. SI. */
export interface Emptied {
  readonly shell_m3: number;
  readonly preCharge_Pa: number;
  readonly temperature_K: number;
  readonly full_Pa: number;
}

/** Whether heat comes in all the way, or none: draws far apart, or one behind the other. */
export type Heated = boolean;

/** @throws RangeError naming the field, where the gas alone stands higher than the full vessel */
function vesselOf(asked: Emptied): Vessel {
  const vessel = new Vessel(
    { ...asked, settling_s: USUAL_SETTLING_S },
    { barometer_Pa: SEA_LEVEL_PA, temperature_K: asked.temperature_K },
  );
  if (vessel.flickUp_Pa >= asked.full_Pa)
    throw new RangeError('preCharge_Pa: the gas alone stands higher than the full vessel');
  return vessel;
}

/** Fluid that comes out from full down to a pressure, m³; all of it where the gas alone stands higher. */
export function given_m3(asked: Emptied, to_Pa: number, heated: Heated): number {
  const vessel = vesselOf(asked);
  const full = vessel.settledAt(asked.full_Pa);
  const end = heated ? vessel.settledAt(to_Pa) : vessel.fastTo(full, to_Pa);
  return vessel.fluid_m3(full) - vessel.fluid_m3(end);
}

/** Pressure once so much fluid has come out, Pa; none once it is all out. */
export function left_Pa(asked: Emptied, out_m3: number, heated: Heated): number {
  const vessel = vesselOf(asked);
  const full = vessel.settledAt(asked.full_Pa);
  const gas_m3 = full.gas_m3 + out_m3;
  if (gas_m3 >= asked.shell_m3) return 0;
  const { temperature_K } = heated
    ? full
    : vessel.law.compressedFast(vessel.state(full), gas_m3 / vessel.amount_kmol);
  return vessel.gauge_Pa({ gas_m3, temperature_K });
}
