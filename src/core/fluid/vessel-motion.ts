import type { Charge, Vessel } from './accumulator';

/** An accumulator’s first fluid brings its gauge up, m³: no verdict rests on it. */
const FIRST_M3 = 2e-7;
/** What takes fluid out of it has the pressure of the gas behind it down to the last of it, m³. */
const LAST_M3 = 2e-8;

/** States of an accumulator that changes with time: its gas, and how warm that is. */
export const vesselStates = (id: string, name: string) =>
  [
    { id: `gas${id}_m3`, name: `Gas of ${name}`, quantity: 'volume', scale: 1e-6 },
    { id: `gas${id}_K`, name: `Warmth of the gas of ${name}`, quantity: 'temperature', scale: 0.1 },
  ] as const;

/** An accumulator over time, its two states in a row among others. Handbook-models P.1. */
export class VesselMotion {
  constructor(
    private readonly vessel: Vessel,
    /** Place of its first state. */
    private readonly from: number,
  ) {}

  atRest(): [number, number] {
    const { gas_m3, temperature_K } = this.vessel.empty;
    return [gas_m3, temperature_K];
  }

  private charge(y: Float64Array): Charge {
    return { gas_m3: y[this.from]!, temperature_K: y[this.from + 1]! };
  }

  /** What its gauge shows, Pa: the first fluid brings it up to the gas. */
  gauge_Pa(y: Float64Array): number {
    return this.pressure_Pa(y, FIRST_M3);
  }

  /** What it gives what draws from it, Pa. */
  gives_Pa(y: Float64Array): number {
    return this.pressure_Pa(y, LAST_M3);
  }

  private pressure_Pa(y: Float64Array, last_m3: number): number {
    const charge = this.charge(y);
    const fluid = this.vessel.fluid_m3(charge) / last_m3;
    return fluid <= 0 ? 0 : Math.min(1, fluid) * Math.max(0, this.vessel.gauge_Pa(charge));
  }

  /** What its gas presses with, with or without any fluid to be pressed, Pa. */
  gas_Pa(y: Float64Array): number {
    return Math.max(0, this.vessel.gauge_Pa({ ...this.charge(y), gas_m3: this.gasOf(y) }));
  }

  /** Fluid in it, m³. */
  fluid_m3(y: Float64Array): number {
    return Math.max(0, this.vessel.fluid_m3(this.charge(y)));
  }

  /** How much of its shell is filled with fluid, 0 to 1. */
  filled(y: Float64Array): number {
    return this.fluid_m3(y) / this.vessel.of.shell_m3;
  }

  /** Its gas, kept from filling the whole shell: a gauge on an empty one shows nothing. */
  private gasOf(y: Float64Array): number {
    return Math.min(y[this.from]!, this.vessel.of.shell_m3 * (1 - 1e-9));
  }

  /** It has run out, but for the last of its fluid. */
  isOut(y: Float64Array): boolean {
    return this.vessel.fluid_m3(this.charge(y)) < LAST_M3;
  }

  /** Writes its rates while fluid flows in, m³/s (out: below zero). An empty one gives nothing. */
  rates(y: Float64Array, dy: Float64Array, into_m3PerS: number): void {
    const charge = this.charge(y);
    const comes = this.vessel.fluid_m3(charge) <= 0 ? Math.max(0, into_m3PerS) : into_m3PerS;
    dy[this.from] = -comes;
    dy[this.from + 1] = this.vessel.warming_KPerS(charge, comes);
  }
}
