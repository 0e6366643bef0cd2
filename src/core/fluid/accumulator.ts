import { rootOfFalling } from '../numeric/root';
import { NITROGEN, type GasLaw, type GasState } from './nitrogen';

/** A vessel with nitrogen behind a diaphragm or a bladder. Handbook-models P.1. */
export interface Accumulator {
  /** Inside of the shell, m³. */
  readonly shell_m3: number;
  /** Pressure of the gas with no fluid in the vessel, at 20 °C, Pa gauge. */
  readonly preCharge_Pa: number;
  /** Time in which the gas comes to within 1/e of the temperature of the shell, s. */
  readonly settling_s: number;
}

/** What stands around the vessel: the shell is as warm as that. */
export interface Around {
  readonly barometer_Pa: number;
  readonly temperature_K: number;
}

/** How the gas in a vessel stands. */
export interface Charge {
  readonly gas_m3: number;
  readonly temperature_K: number;
}

/** No gas is pressed to less than e⁻⁸ of the shell; and how nearly the logarithm of its volume is found. */
const MOST_PRESSED = 8;
const CLOSE = 1e-10;

/** Gas in a vessel cools with this time constant where nothing is known of it, s: 10 to 30 are typical. Handbook-models P.1. */
export const USUAL_SETTLING_S = 20;

/** A pre-charge is told at 20 °C. */
export const PRE_CHARGE_K = 293.15;

/** Amount of gas in the vessel, kmol: n = V₀/v(20 °C, p₀ + p_atm). Handbook-models P.1. */
export const gasAmount_kmol = (
  { shell_m3, preCharge_Pa }: Accumulator,
  { barometer_Pa }: Pick<Around, 'barometer_Pa'>,
  law: GasLaw = NITROGEN,
): number => shell_m3 / law.volume_m3(PRE_CHARGE_K, preCharge_Pa + barometer_Pa);

/** Pressure to which a gauge jumps as fluid first enters an empty vessel, Pa gauge: the gas at its own temperature. */
export const flickUp_Pa = (vessel: Accumulator, around: Around, law: GasLaw = NITROGEN): number =>
  law.pressure_Pa({
    temperature_K: around.temperature_K,
    volume_m3: vessel.shell_m3 / gasAmount_kmol(vessel, around, law),
  }) - around.barometer_Pa;

/**
 * Pre-charge at 20 °C by a flick-up that was read at another temperature, Pa gauge: back along the isochore of real nitrogen. At
 * 65 bar p/T alone errs by −1.2 to +0.9 bar between −10 and 50 °C. Handbook-models P.1.
 */
export function preChargeOf_Pa(read_Pa: number, { barometer_Pa, temperature_K }: Around): number {
  const volume_m3 = NITROGEN.volume_m3(temperature_K, read_Pa + barometer_Pa);
  return NITROGEN.pressure_Pa({ temperature_K: PRE_CHARGE_K, volume_m3 }) - barometer_Pa;
}

/** How far a vessel is worked at: its gas, and what stands around it. */
export class Vessel {
  readonly amount_kmol: number;
  /** Pressure at which fluid first enters it, Pa gauge. */
  readonly flickUp_Pa: number;

  constructor(
    readonly of: Accumulator,
    readonly around: Around,
    readonly law: GasLaw = NITROGEN,
  ) {
    this.amount_kmol = gasAmount_kmol(of, around, law);
    this.flickUp_Pa = flickUp_Pa(of, around, law);
  }

  /** With no fluid in it. */
  get empty(): Charge {
    return { gas_m3: this.of.shell_m3, temperature_K: this.around.temperature_K };
  }

  /** Settled at a pressure, Pa gauge; empty below that of its gas. */
  settledAt(pressure_Pa: number): Charge {
    if (pressure_Pa <= this.flickUp_Pa) return this.empty;
    return this.at(pressure_Pa, this.around.temperature_K);
  }

  /** At a pressure, Pa gauge, with its gas at a temperature; empty where gas as warm does not reach so low. */
  at(pressure_Pa: number, temperature_K: number): Charge {
    const volume_m3 = this.law.volume_m3(temperature_K, pressure_Pa + this.around.barometer_Pa);
    return { gas_m3: Math.min(this.of.shell_m3, this.amount_kmol * volume_m3), temperature_K };
  }

  /** At a pressure with no heat given or taken on the way there, Pa gauge; empty where its gas does not reach so low. */
  fastTo(from: Charge, pressure_Pa: number): Charge {
    const most = this.compressed(from, this.of.shell_m3);
    if (this.gas_Pa(most) >= pressure_Pa) return most;
    const { barometer_Pa } = this.around;
    const shell = Math.log(this.of.shell_m3);
    // In ln V, in which ln p is nearly straight.
    const above = (log: number) =>
      Math.log(
        (this.gas_Pa(this.compressed(from, Math.exp(log))) + barometer_Pa) / (pressure_Pa + barometer_Pa),
      );
    return this.compressed(from, Math.exp(rootOfFalling(above, shell - MOST_PRESSED, shell, CLOSE)));
  }

  /** Fluid in it, m³. */
  fluid_m3({ gas_m3 }: Charge): number {
    return this.of.shell_m3 - gas_m3;
  }

  /** What a gauge on the fluid shows, Pa: nothing where there is none. */
  gauge_Pa(charge: Charge): number {
    return charge.gas_m3 >= this.of.shell_m3 ? 0 : this.gas_Pa(charge);
  }

  /** The same with no flow for a time: the gas cools towards the shell, T = T_w + ΔT·e^(−t/τ). */
  stood({ gas_m3, temperature_K }: Charge, time_s: number): Charge {
    const { around, of } = this;
    const left = Math.exp(-time_s / of.settling_s);
    return { gas_m3, temperature_K: around.temperature_K + (temperature_K - around.temperature_K) * left };
  }

  /** Change of the gas with time, K/s, while fluid flows in at a rate, m³/s (out: below zero). Otis & Pourmovahed 1985. */
  warming_KPerS(charge: Charge, into_m3PerS: number): number {
    const { temperature_K } = charge;
    const cooling = (this.around.temperature_K - temperature_K) / this.of.settling_s;
    return cooling + into_m3PerS * this.warmingByVolume_KPerM3(charge);
  }

  /** Flow of fluid out of it that a fall of settled gas speaks of, m³/s: q = −V_g·(dp/dt)/(k_T·p_abs). Handbook-models P.1. */
  leak_m3PerS(charge: Charge, fall_PaPerS: number): number {
    const absolute_Pa = this.gas_Pa(charge) + this.around.barometer_Pa;
    return (charge.gas_m3 * fall_PaPerS) / (this.law.isothermalIndex(this.state(charge)) * absolute_Pa);
  }

  /** The gas itself, one kmol of it. */
  state({ gas_m3, temperature_K }: Charge): GasState {
    return { temperature_K, volume_m3: gas_m3 / this.amount_kmol };
  }

  /** Temperature that a little fluid adds with no heat given off, K/m³: T·(∂p/∂T)_v/(n·c_v). */
  warmingByVolume_KPerM3(charge: Charge): number {
    const state = this.state(charge);
    return (
      (charge.temperature_K * this.law.isochoricSlope_PaPerK(state)) /
      (this.amount_kmol * this.law.heatCapacity_JPerK(state))
    );
  }

  private gas_Pa(charge: Charge): number {
    return this.law.pressure_Pa(this.state(charge)) - this.around.barometer_Pa;
  }

  private compressed(from: Charge, gas_m3: number): Charge {
    const { temperature_K } = this.law.compressedFast(this.state(from), gas_m3 / this.amount_kmol);
    return { gas_m3, temperature_K };
  }
}
