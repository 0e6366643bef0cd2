import { orificeDrop_Pa, orificeFlow_m3PerS } from '../../fluid/fluid-pump';
import { density_kgPerM3 } from '../../fluid/hydraulic-fluid';
import { Vessel, USUAL_SETTLING_S } from '../../fluid/accumulator';
import { inItsGap } from '../../fluid/power-piston';
import { hotLeakOf_m3, HOT_K, STEERING, steering_PaS } from '../../fluid/steering-fluid';
import { VesselMotion, vesselStates } from '../../fluid/vessel-motion';
import type { Port } from '../../contract/family';
import type { Vector } from '../../model/descriptor';
import {
  inputAt,
  type Instant,
  type Motion,
  type Moving,
  type NodeNow,
  type PartsNow,
  type Place,
} from '../../model/motion';
import { LOADED_PA } from '../inputs';
import { PowerMotion, powerStates } from '../power-motion';
import type { PumpDrive } from '../pump-drive';
import { circle_m2 } from '../profile-fields';
import { LOAD_VALVE_COMMAND, PEDAL_COMMAND, type SteeringHands } from '../vehicle-hands';
import { named, OPEN_PA, type Parameters } from './member';
import { parts, stages } from './works';

const states = [
  ...vesselStates('', 'the accumulator'),
  ...powerStates,
  { id: 'line_Pa', name: 'Pressure line of the steering', quantity: 'pressure', scale: 1e5 },
  { id: 'input_N', name: 'Input behind the friction of the spool', quantity: 'force', scale: 1 },
  { id: 'gap_m', name: 'Spool in its gap', quantity: 'travel', scale: 1e-5 },
] as const;
const [ROD, LINE, INPUT, GAP] = [2, 4, 5, 6];

/** How a booster of ordinary make answers; no verdict rests on these, and the steady end does not know them. */
const RESPONSE = {
  /** The spool throttles the line to what it needs, and follows the foot, within these times, s. */
  line_s: 0.02,
  spool_s: 0.01,
  /** It goes into its gap, and is pushed back, within these, s. */
  in_s: 0.02,
  back_s: 0.5,
  /** Give of the pressure line, m³/Pa: 0.3 L of fluid, and its hose. */
  line_m3PerPa: 1e-12,
  /** Opening through which the accumulator is charged, m². */
  charging_m2: circle_m2(0.5e-3),
  /** It is full within so much, Pa. */
  full_Pa: 1e5,
} as const;

/** Pressure at the far end of a drawing. */
const FAR_PA = 1e7;

/** More than any pump makes: a line that is shut stands as high as its pump lets it, Pa. */
const SHUT_PA = 1e8;

/**
 * A booster fed by the steering pump, over time. Its line is open to the steering: what the pump gives beyond need runs through, and
 * the spool throttles it to what the rod needs, as far as the pump makes that. While it does, the accumulator is charged; with the
 * pump at rest the rod takes what is stored. The fluid of a running pump is hot, that of the accumulator as warm as the room.
 * Handbook-models P.1, P.3, 8.4.
 */
class HydraulicBoosterMotion implements Moving {
  private readonly p: Parameters;
  private readonly vessel: VesselMotion;
  private readonly power: PowerMotion;
  private readonly charge: NodeNow;
  private readonly rod: NodeNow;
  private readonly at: Readonly<Record<string, number>>;
  private readonly density_kgPerM3 = density_kgPerM3(STEERING, HOT_K);
  private readonly stored_m3PerSPa: number;
  private readonly leaks = (pressure_Pa: number) => this.stored_m3PerSPa * pressure_Pa;
  private readonly piston_m3PerSPa: number;

  constructor(
    vector: Vector,
    private readonly place: Place,
    ports: readonly Port[],
    private readonly drive: PumpDrive,
  ) {
    const p = named(vector);
    this.p = p;
    const [barometer_Pa, temperature_K] = [inputAt(place, 'barometer_Pa'), inputAt(place, 'temperature_K')];
    const { shell_m3, preCharge_Pa, thicker } = p;
    const vessel = { shell_m3, preCharge_Pa, settling_s: USUAL_SETTLING_S };
    this.vessel = new VesselMotion(new Vessel(vessel, { barometer_Pa, temperature_K }), place.from);
    this.stored_m3PerSPa = hotLeakOf_m3(p.leak_m3PerS) / (thicker * steering_PaS(temperature_K));
    this.piston_m3PerSPa = hotLeakOf_m3(p.pistonLeak_m3PerS) / (thicker * steering_PaS(HOT_K));
    [this.charge, this.rod] = place.nodes as [NodeNow, NodeNow];
    this.power = new PowerMotion(p, this.rod, place.from + ROD, this.density_kgPerM3, p.exhaust_m2);
    this.at = Object.fromEntries(ports.map(({ id }, i) => [id, i]));
  }

  atRest(): number[] {
    return [...this.vessel.atRest(), 0, 0, 0, 0, 0];
  }

  efforts(y: Float64Array): void {
    this.charge.effort = Math.max(0, y[this.place.from + LINE]!);
    this.power.moved(y);
  }

  rates(y: Float64Array, dy: Float64Array, at: Instant): void {
    const { p, vessel, power, charge, rod } = this;
    const { from } = this.place;
    const { pedal_N, loadValve } = (at as Instant<SteeringHands>).hands;
    const line_Pa = charge.effort;
    const stored_Pa = vessel.gauge_Pa(y);
    const isRunning = this.drive.turns(at.hands);
    const isShut = loadValve === 'shut';
    const isFed = isRunning && !isShut;

    // Friction holds the spool between what the foot brings and what it lets go; a foot that is off leaves nothing.
    const foot_N = p.pedalRatio * pedal_N;
    const held_N = Math.min(p.friction_N, foot_N);
    const input_N = Math.max(0, y[from + INPUT]!);
    const follows_N = Math.min(foot_N + held_N, Math.max(foot_N - p.friction_N, input_N));
    dy[from + INPUT] = (follows_N - y[from + INPUT]!) / RESPONSE.spool_s;

    const given = charge.passed;
    const before_Pa = isFed ? this.beforeReturn_Pa(given) : 0;
    // A valve that is closed to a pressure stands between the pump and all that is lost behind it.
    const lost = loadValve === 'open' ? this.piston_m3PerSPa * line_Pa : 0;
    const charges = isFed ? this.charges_m3PerS(line_Pa, stored_Pa) : 0;
    const surplus = given - lost - charges;
    const available_Pa = isFed ? line_Pa : vessel.gives_Pa(y);
    const least_N = before_Pa * p.area_m2 - p.spring_N;
    const leaks = !isFed && vessel.isOut(y) ? this.leaks : null;
    const takes = power.rates(y, dy, input_N, available_Pa, least_N, leaks);
    vessel.rates(y, dy, charges - (isFed ? 0 : takes) - this.stored_m3PerSPa * stored_Pa);

    const asked_N = power.asked_N(input_N);
    const needs_Pa = isFed && input_N > p.opens_N ? power.chamber_Pa(input_N, asked_N) : 0;
    const loaded_Pa = !isRunning || loadValve === 'open' ? 0 : isShut ? SHUT_PA : LOADED_PA;
    const open_Pa = isRunning ? OPEN_PA : 0;
    const throttled = (Math.max(open_Pa, before_Pa, needs_Pa, loaded_Pa) - line_Pa) / RESPONSE.line_s;
    const fills = (surplus - (isFed ? takes : 0)) / RESPONSE.line_m3PerPa;
    dy[from + LINE] = Math.min(throttled, isRunning ? fills : Infinity);

    const isOpen = input_N > p.opens_N;
    const goes_m = (isOpen ? inItsGap(rod.effort, asked_N) : 0) * p.gap_m - y[from + GAP]!;
    dy[from + GAP] = goes_m / (goes_m > 0 ? RESPONSE.in_s : RESPONSE.back_s);
  }

  /** What stands before a narrow return while its flow runs through, Pa: the same flow as at rest. Handbook-models 8.4. */
  private beforeReturn_Pa(given_m3PerS: number): number {
    return orificeDrop_Pa(this.p.return_m2, Math.max(0, given_m3PerS), this.density_kgPerM3);
  }

  /** What goes into the accumulator past its check valve until it is full, m³/s. */
  private charges_m3PerS(line_Pa: number, stored_Pa: number): number {
    const left = Math.min(1, Math.max(0, (this.p.full_Pa - stored_Pa) / RESPONSE.full_Pa));
    const over_Pa = Math.max(0, line_Pa - stored_Pa);
    return left * orificeFlow_m3PerS(RESPONSE.charging_m2, over_Pa, this.density_kgPerM3);
  }

  parts(y: Float64Array, _at: Instant, out: PartsNow): void {
    this.power.parts(y, Math.max(0, y[this.place.from + INPUT]!), out);
    out.stored = { at: this.vessel.filled(y), of: 1 };
    out.line = { at: this.charge.effort, of: FAR_PA };
  }

  shown(y: Float64Array, at: Instant, shown: Float64Array): void {
    shown[this.at.pedal!] = (at as Instant<SteeringHands>).hands.pedal_N;
    shown[this.at.accumulator!] = this.vessel.gauge_Pa(y);
    shown[this.at.travel!] = this.p.pedalRatio * (this.rod.passed + Math.max(0, y[this.place.from + GAP]!));
  }
}

/** Over time, with what true gauges on some ports show. */
export const motionOn = (ports: readonly Port[], drive: PumpDrive): Motion => ({
  states,
  parts,
  stages,
  commands: [PEDAL_COMMAND, LOAD_VALVE_COMMAND],
  owns: ['charge'],
  with: (parameters, place) => new HydraulicBoosterMotion(parameters, place, ports, drive),
});
