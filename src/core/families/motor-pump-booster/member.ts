import { Vessel, USUAL_SETTLING_S, type Around, type Charge } from '../../fluid/accumulator';
import { filledTo, leaked, timeUntilFallen_s, type Filled } from '../../fluid/charging';
import { relieved_m3PerS, USUAL_OVERRIDE_PASPERM3 } from '../../fluid/fluid-pump';
import { appliedInARow, drawnFast, powerOutput_N, READ_RHYTHM } from '../../fluid/power-piston';
import { rootOfFalling } from '../../numeric/root';
import type { Vector } from '../../model/descriptor';
import { BalancesNothing } from '../../model/balances-nothing';
import type { Member, Nodes, Standing, Wanted } from '../../model/member';
import { healthyUnit, reader, type InputDescriptor, type Named } from '../../model/vectors';
import { APPLICATIONS, BAROMETER, FLUID, STORED, TEMPERATURE } from '../inputs';
import { glycol_PaS, leakOf_m3 } from '../../fluid/brake-fluid';
import {
  applied_N,
  inputOf_N,
  pistonOf,
  POWER_PARAMETERS,
  powerTolerances,
  powerValues,
  rodLoad,
} from '../power-booster';
import type { MotorPumpBoosterProfile } from './profile';

/** What makes one booster differ from another, and what faults move. */
export const parameters = [
  ...POWER_PARAMETERS,
  { id: 'shell_m3', name: 'Inside of the accumulator', quantity: 'volume' },
  { id: 'preCharge_Pa', name: 'Pre-charge', quantity: 'pressure' },
  { id: 'in_Pa', name: 'Switched on at', quantity: 'pressure' },
  { id: 'out_Pa', name: 'Switched off at', quantity: 'pressure' },
  { id: 'delay_s', name: 'The switch is late by', quantity: 'duration' },
  { id: 'lamp_Pa', name: 'Low-pressure lamp', quantity: 'pressure' },
  { id: 'relief_Pa', name: 'Relief', quantity: 'pressure' },
  { id: 'leak_m3PerS', name: 'Leak at 100 bar, fluid at 20 °C', quantity: 'leakRate' },
  { id: 'weepsFrom_Pa', name: 'Relief weeps from', quantity: 'pressure' },
  { id: 'weeps_m3PerSPa', name: 'Relief weeps, for each pascal above that', quantity: 'conductance' },
  { id: 'application_N', name: 'Pedal force of an application', quantity: 'force' },
  { id: 'watch_s', name: 'Off-time watched', quantity: 'duration' },
] as const;

const inputs = [
  { id: 'pedal_N', name: 'Pedal force', quantity: 'force', from: { port: 'pedal', as: 'set' } },
  STORED,
  FLUID,
  BAROMETER,
  TEMPERATURE,
  APPLICATIONS,
] as const satisfies readonly InputDescriptor[];

const readings = [
  { id: 'output', name: 'Force of the pushrod', quantity: 'force' },
  { id: 'runoutPedal', name: 'Pedal force at runout', quantity: 'force' },
  { id: 'flickUp', name: 'Flick-up', quantity: 'pressure' },
  { id: 'chargeTime', name: 'Charge from empty', quantity: 'duration', apart: { SI: 0.5, part: 0.02 } },
  { id: 'cutOut', name: 'Switched off at', quantity: 'pressure', apart: { part: 0.015 } },
  {
    id: 'cutOutAgain',
    name: 'Switched off at, from where it is switched on',
    quantity: 'pressure',
    apart: { part: 0.015 },
  },
  { id: 'cutIn', name: 'Switched on at', quantity: 'pressure', apart: { part: 0.015 } },
  { id: 'onTime', name: 'On-time', quantity: 'duration', apart: { SI: 0.3, part: 0.05 } },
  { id: 'offTime', name: 'Off-time once settled', quantity: 'duration', apart: { SI: 3, part: 0.1 } },
  { id: 'bridged', name: 'Highest with the switch bridged', quantity: 'pressure', apart: { part: 0.01 } },
  { id: 'kept', name: 'Accumulator after applications', quantity: 'pressure', apart: { part: 0.02 } },
  { id: 'lamp', name: 'Lamp lights at', quantity: 'pressure' },
] as const;

export type Parameters = Named<typeof parameters>;
export type ReadingId = (typeof readings)[number]['id'];
export const named = reader(parameters);
const PLACE = Object.fromEntries(readings.map(({ id }, i) => [id, i])) as Record<ReadingId, number>;

const [CHARGE, ROD] = [0, 1];

/** A pump that has not filled it by then is switched off to spare its motor, s. */
export const LONGEST_S = 120;
/** The switch is bridged for no longer than this, s. Handbook-models 8.5. */
export const BRIDGED_S = 5;
/** Higher than any pump of these comes, Pa. */
const HIGHEST_PA = 4e7;
const CLOSE_PA = 500;
const BRIDGED_STEPS = 10;
/** However strong a pump is, a switch that is late lets it press the gas by no more than this part. */
const MOST_LATE = 0.5;
/** Light presses bring it down within 10 s, half of the time in which gas comes to its shell: (1 − e^−½)/½ of the cold is left. */
const LEFT_COLD = 0.79;

export const vesselOf = ({ shell_m3, preCharge_Pa }: Parameters, around: Around): Vessel =>
  new Vessel({ shell_m3, preCharge_Pa, settling_s: USUAL_SETTLING_S }, around);

/** What leaves the accumulator at a pressure with nobody braking, its relief left out, m³/s. */
export function lostAt_m3PerS(p: Parameters, viscosity_PaS: number, pressure_Pa: number): number {
  const leaks = (leakOf_m3(p.leak_m3PerS) * pressure_Pa) / viscosity_PaS;
  return leaks + p.weeps_m3PerSPa * Math.max(0, pressure_Pa - p.weepsFrom_Pa);
}

/** What its relief lets back at a pressure, m³/s. */
export const relievedAt_m3PerS = ({ relief_Pa }: Parameters, pressure_Pa: number): number =>
  relieved_m3PerS({ relief_Pa, override_PaSPerM3: USUAL_OVERRIDE_PASPERM3 }, pressure_Pa);

/**
 * A motor-pump booster. Handbook-models 8.5 on 8.4 and P.1–P.5: what the pump gives less what is lost fills the accumulator between
 * the two pressures of its switch; the spool meters that onto the power piston; with no pump, each application takes what the rod's
 * way and a release take.
 */
class MotorPumpBooster extends BalancesNothing implements Standing {
  private readonly p: Parameters;
  private readonly viscosity_PaS: number;
  private readonly vessel: Vessel;

  constructor(
    vector: Vector,
    private readonly pedal_N: number,
    private readonly supply_Pa: number,
    fluid_K: number,
    around: Around,
    private readonly applications: number,
  ) {
    super();
    this.p = named(vector);
    this.viscosity_PaS = glycol_PaS(fluid_K);
    this.vessel = vesselOf(this.p, around);
  }

  /** A switch that is stuck off never starts the pump. */
  private get runs(): boolean {
    return this.p.in_Pa > 0;
  }

  asks(): boolean {
    return this.runs;
  }

  brings(): number {
    return powerOutput_N(pistonOf(this.p), inputOf_N(this.p, this.pedal_N), this.supply_Pa);
  }

  private get runoutPedal_N(): number {
    const { p, supply_Pa } = this;
    const runout_N =
      (supply_Pa * p.area_m2 - p.spring_N - p.jump_N + p.ratio * p.opens_N) / Math.max(1e-9, p.ratio - 1);
    return (Math.max(p.opens_N, runout_N) + p.friction_N) / p.pedalRatio;
  }

  private lost_m3PerS(pressure_Pa: number): number {
    return lostAt_m3PerS(this.p, this.viscosity_PaS, pressure_Pa);
  }

  /**
   * Gas as the pump is started by light presses: charged from there once, settled, and expanded within some ten seconds. Of the cold
   * that no heat at all would leave, the shell takes a part away meanwhile.
   */
  private pressedTo(pressure_Pa: number, charged: (from: Charge) => Filled): Charge {
    const { vessel } = this;
    const shell_K = vessel.around.temperature_K;
    const { gas_m3 } = charged(vessel.settledAt(pressure_Pa)).charge;
    const fast = vessel.fastTo({ gas_m3, temperature_K: shell_K }, pressure_Pa);
    return vessel.at(pressure_Pa, shell_K - LEFT_COLD * (shell_K - fast.temperature_K));
  }

  /** Settled gas after one application after another with no pump, the pedal still down, Pa. */
  private kept_Pa(nodes: Nodes): number {
    const { p, vessel } = this;
    const piston = pistonOf(p);
    const input_N = inputOf_N(p, p.application_N);
    if (this.applications < 1) return this.supply_Pa;
    const full = vessel.settledAt(this.supply_Pa);
    const { held } = appliedInARow(
      vessel,
      full,
      piston,
      rodLoad(nodes, ROD),
      input_N,
      p.spool_m3,
      this.applications,
      READ_RHYTHM,
      (pressure_Pa) => this.lost_m3PerS(pressure_Pa),
    );
    return vessel.gauge_Pa(held);
  }

  read(efforts: ArrayLike<number>, nodes: Nodes, wanted?: Wanted): number[] {
    const { p, vessel } = this;
    const asked = (id: ReadingId) => !wanted || wanted.has(PLACE[id]);
    const ifAsked = (id: ReadingId, tell: () => number) => (asked(id) ? tell() : NaN);
    const { runs } = this;
    const pump = (pressure_Pa: number) => nodes.taken(CHARGE, pressure_Pa);
    const gains = (pressure_Pa: number) =>
      pump(pressure_Pa) - this.lost_m3PerS(pressure_Pa) - relievedAt_m3PerS(p, pressure_Pa);
    const cycles = ['chargeTime', 'cutOut', 'cutOutAgain', 'cutIn', 'onTime', 'offTime'] as const;
    const ceiling_Pa = runs && cycles.some(asked) ? rootOfFalling(gains, 0, HIGHEST_PA, CLOSE_PA) : 0;
    const stops = runs && ceiling_Pa > p.out_Pa;
    // A late switch lets the pump go on for a moment.
    const filled = (from: Charge): Filled => {
      if (!stops) return { charge: from, time_s: Infinity };
      const { charge, time_s } = filledTo(vessel, from, p.out_Pa, gains);
      const late_m3 = Math.min(gains(p.out_Pa) * p.delay_s, MOST_LATE * charge.gas_m3);
      return { charge: drawnFast(vessel, charge, -late_m3), time_s: time_s + p.delay_s };
    };
    const fromEmpty = asked('chargeTime') || asked('cutOut') ? filled(vessel.empty) : null;
    const cycle =
      asked('onTime') || asked('offTime') || asked('cutOutAgain')
        ? filled(this.pressedTo(p.in_Pa, filled))
        : null;
    const stopsAt_Pa = ({ charge }: Filled) =>
      stops ? Math.min(ceiling_Pa, vessel.gauge_Pa(charge)) : ceiling_Pa;
    return [
      efforts[ROD]!,
      this.runoutPedal_N,
      runs && pump(0) > 0 ? vessel.flickUp_Pa : 0,
      fromEmpty ? Math.min(LONGEST_S, fromEmpty.time_s) : NaN,
      fromEmpty ? stopsAt_Pa(fromEmpty) : NaN,
      cycle ? stopsAt_Pa(cycle) : NaN,
      stops ? p.in_Pa : ceiling_Pa,
      cycle ? Math.min(LONGEST_S, cycle.time_s) : NaN,
      cycle ? this.offTime_s(runs, stops, cycle.charge) : NaN,
      ifAsked('bridged', () => this.bridged_Pa(pump, gains)),
      ifAsked('kept', () => this.kept_Pa(nodes)),
      p.lamp_Pa,
    ];
  }

  /** Time that it stays off behind such a charge; no longer than it is watched, s. */
  private offTime_s(runs: boolean, stops: boolean, charged: Charge): number {
    const { p, vessel } = this;
    if (!runs) return p.watch_s;
    if (!stops) return 0;
    return timeUntilFallen_s(
      vessel,
      charged,
      p.in_Pa,
      (pressure_Pa) => this.lost_m3PerS(pressure_Pa),
      p.watch_s,
    );
  }

  /** Pressure that it comes to with its switch bridged for as long as that is allowed, from where it stood, Pa. */
  private bridged_Pa(pump: (pressure_Pa: number) => number, gains: (pressure_Pa: number) => number): number {
    const { vessel } = this;
    const most_Pa = rootOfFalling(gains, 0, HIGHEST_PA, CLOSE_PA);
    const into = (pressure_Pa: number) => this.lost_m3PerS(pressure_Pa) - pump(pressure_Pa);
    let charge = vessel.settledAt(this.supply_Pa);
    for (let step = 0; step < BRIDGED_STEPS; step += 1)
      charge = leaked(vessel, charge, BRIDGED_S / BRIDGED_STEPS, into);
    return Math.max(this.supply_Pa > most_Pa ? most_Pa : 0, Math.min(most_Pa, vessel.gauge_Pa(charge)));
  }
}

function healthy(profile: MotorPumpBoosterProfile) {
  const { limits, preCharge_Pa, leak_m3PerS } = profile;
  return healthyUnit(
    parameters,
    {
      ...powerValues(profile),
      shell_m3: profile.shell_m3,
      preCharge_Pa,
      in_Pa: profile.in_Pa,
      out_Pa: profile.out_Pa,
      delay_s: profile.delay_s,
      lamp_Pa: profile.lamp_Pa,
      relief_Pa: profile.relief_Pa,
      leak_m3PerS,
      weepsFrom_Pa: (profile.in_Pa + profile.out_Pa) / 2,
      weeps_m3PerSPa: 0,
      application_N: applied_N(profile),
      watch_s: profile.watch_s,
    },
    {
      ...powerTolerances(profile, limits.output_fraction.value),
      preCharge_Pa: limits.preCharge_fraction.value * preCharge_Pa,
      in_Pa: limits.switch_Pa.value,
      out_Pa: limits.switch_Pa.value,
      lamp_Pa: limits.lamp_Pa.value,
      relief_Pa: limits.relief_Pa.value,
      leak_m3PerS: limits.leak_fraction.value * leak_m3PerS,
    },
  );
}

/** A motor-pump booster, to be joined to its pump and to what its rod pushes. */
export const member: Member<MotorPumpBoosterProfile> = {
  parameters,
  inputs,
  readings,
  fedBy: [{ id: 'charge', name: 'Charge', coupling: 'pumped' }],
  feeds: [{ id: 'rod', name: 'Rod', coupling: 'rod' }],
  healthy,
  with: (
    vector,
    [pedal_N = 0, supply_Pa = 0, fluid_K = 0, barometer_Pa = 0, temperature_K = 0, applications = 0],
  ) =>
    new MotorPumpBooster(
      vector,
      Math.max(0, pedal_N),
      Math.max(0, supply_Pa),
      fluid_K,
      { barometer_Pa, temperature_K },
      applications,
    ),
};
