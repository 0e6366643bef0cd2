import { Remembered } from '../numeric/remembered';
import { rootOfFalling } from '../numeric/root';
import { Vessel, type Accumulator, type Around } from './accumulator';
import { filledTo } from './charging';

/** Times within which gas gives off its heat to its shell: the least, the usual and the most, s. Handbook-models P.1. */
const COOLS_S = [10, 20, 40] as const;

/** A steady flow that filled a vessel, m³/s: for gas that gives off its heat as usual, and for the two ends of how fast it may. */
export interface FillingFlow {
  readonly usual_m3PerS: number;
  /** From one end to the other, never below zero. */
  readonly spread_m3PerS: number;
}

/**
 * Flow that takes a vessel from empty to a pressure in a time, whatever the gas gives off meanwhile: looked for between that of gas
 * that gives off nothing and that of gas as cold as its shell. Handbook-models P.1, 8.5.
 *
 * @param until_Pa gauge
 * @param time_s above zero
 * @returns null where the gas alone stands as high: no fluid got in
 */
export function flowThatFilled(
  of: Omit<Accumulator, 'settling_s'>,
  around: Around,
  until_Pa: number,
  time_s: number,
): FillingFlow | null {
  const { shell_m3, preCharge_Pa } = of;
  const asked = [shell_m3, preCharge_Pa, around.barometer_Pa, around.temperature_K, until_Pa, time_s];
  const [least, usual, most] = COOLS_S.map((settling_s) =>
    TOLD.tell([...asked, settling_s].join(), () =>
      flow_m3PerS(new Vessel({ ...of, settling_s }, around), until_Pa, time_s),
    ),
  ) as [number, number, number];
  return Number.isFinite(usual) ? { usual_m3PerS: usual, spread_m3PerS: Math.abs(most - least) } : null;
}

/** Flows that were looked for: results are worked out anew with each event of a run, mostly from the same readings. */
const TOLD = new Remembered(2_000);

function flow_m3PerS(vessel: Vessel, until_Pa: number, time_s: number): number {
  if (vessel.flickUp_Pa >= until_Pa) return NaN;
  const slowly = vessel.fluid_m3(vessel.settledAt(until_Pa)) / time_s;
  const fast = vessel.fluid_m3(vessel.fastTo(vessel.empty, until_Pa)) / time_s;
  const late = (q: number) => filledTo(vessel, vessel.empty, until_Pa, () => q).time_s - time_s;
  return rootOfFalling(late, 0.9 * fast, 1.1 * slowly, 1e-4 * slowly);
}
