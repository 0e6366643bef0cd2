import { density_kgPerM3 } from '../../fluid/hydraulic-fluid';
import { VesselMotion, vesselStates } from '../../fluid/vessel-motion';
import type { Port } from '../../contract/family';
import type { Vector } from '../../model/descriptor';
import {
  inputAt,
  type Command,
  type Instant,
  type Motion,
  type Moving,
  type NodeNow,
  type PartsNow,
  type Place,
  type Turn,
} from '../../model/motion';
import { GLYCOL, glycol_PaS } from '../../fluid/brake-fluid';
import type { PumpHands } from '../bench-hands';
import { inputOf_N } from '../power-booster';
import { PowerMotion, powerStates } from '../power-motion';
import { PEDAL_COMMAND } from '../vehicle-hands';
import { lostAt_m3PerS, named, relievedAt_m3PerS, vesselOf, type Parameters } from './member';
import { parts, stages } from './works';

const states = [
  ...vesselStates('', 'the accumulator'),
  { id: 'sensed_Pa', name: 'Pressure at the switch', quantity: 'pressure', scale: 1e5 },
  ...powerStates,
] as const;

/** What can be done by hand to a motor-pump booster. */
// A type and no interface: only so is it one of `Hands`.
type BoosterHands = PumpHands & {
  readonly pedal_N: number;
  readonly press_NPerS: number;
  /** Whether the switch is bridged, so that the pump goes on. */
  readonly bridged: boolean;
};

const BRIDGE_COMMAND: Command = { kind: 'switch', id: 'bridged', name: 'Switch bridged', usual: false };

/**
 * A motor-pump booster over time: nitrogen with its heat, a switch that answers late, the spool and its rod. Handbook-models P.1,
 * P.5, 8.4, 8.5.
 */
class MotorPumpBoosterMotion implements Moving {
  readonly turns: readonly Turn[];
  private readonly p: Parameters;
  private readonly vessel: VesselMotion;
  private readonly viscosity_PaS: number;
  private readonly charge: NodeNow;
  private readonly rod: NodeNow;
  private readonly power: PowerMotion;
  private readonly at: Readonly<Record<string, number>>;
  private readonly leaks = (pressure_Pa: number) => lostAt_m3PerS(this.p, this.viscosity_PaS, pressure_Pa);
  /** The switch is closed. */
  private on: boolean;

  constructor(
    vector: Vector,
    private readonly place: Place,
    ports: readonly Port[],
  ) {
    // Fluid that has stood in the room.
    const fluid_K = inputAt(place, 'temperature_K');
    this.p = named(vector);
    const around = {
      barometer_Pa: inputAt(place, 'barometer_Pa'),
      temperature_K: inputAt(place, 'temperature_K'),
    };
    this.vessel = new VesselMotion(vesselOf(this.p, around), place.from);
    this.viscosity_PaS = glycol_PaS(fluid_K);
    [this.charge, this.rod] = place.nodes as [NodeNow, NodeNow];
    this.power = new PowerMotion(this.p, this.rod, place.from + 3, density_kgPerM3(GLYCOL, fluid_K));
    this.at = Object.fromEntries(ports.map(({ id }, i) => [id, i]));
    this.on = this.p.in_Pa > 0;
    const { in_Pa, out_Pa } = this.p;
    const sensed = place.from + 2;
    this.turns = [
      {
        beyond: (y) => (this.on ? y[sensed]! - out_Pa : in_Pa - y[sensed]!),
        flip: () => {
          this.on = !this.on;
        },
      },
    ];
  }

  atRest(): number[] {
    return [...this.vessel.atRest(), 0, 0, 0];
  }

  efforts(y: Float64Array, at: Instant): void {
    this.charge.effort = this.vessel.gauge_Pa(y);
    this.charge.asks = this.on || (at.hands as BoosterHands).bridged;
    this.power.moved(y);
  }

  rates(y: Float64Array, dy: Float64Array, at: Instant): void {
    const { p, vessel, charge } = this;
    const { pedal_N } = at.hands as BoosterHands;
    const stored_Pa = charge.effort;
    const leaks = vessel.isOut(y) ? this.leaks : null;
    const takes = this.power.rates(y, dy, inputOf_N(p, pedal_N), vessel.gives_Pa(y), 0, leaks);
    const lost = this.leaks(stored_Pa) + relievedAt_m3PerS(p, stored_Pa);
    vessel.rates(y, dy, charge.passed - takes - lost);
    const sensed = this.place.from + 2;
    dy[sensed] = (stored_Pa - y[sensed]!) / Math.max(1e-3, p.delay_s);
  }

  parts(y: Float64Array, at: Instant, out: PartsNow): void {
    this.power.parts(y, inputOf_N(this.p, (at.hands as BoosterHands).pedal_N), out);
    out.stored = { at: this.vessel.filled(y), of: 1 };
    out.switch = { at: this.on ? 1 : 0, of: 1 };
  }

  shown(y: Float64Array, at: Instant, shown: Float64Array): void {
    shown[this.at.pedal!] = (at.hands as BoosterHands).pedal_N;
    shown[this.at.supply!] = this.vessel.gauge_Pa(y);
    // On a bench nobody reads how far the lever goes.
    if (this.at.travel !== undefined) shown[this.at.travel] = this.p.pedalRatio * this.rod.passed;
  }
}

/** Over time, with what true gauges on some ports show. */
export const motionOn = (ports: readonly Port[]): Motion => ({
  states,
  parts,
  stages,
  commands: [PEDAL_COMMAND, BRIDGE_COMMAND],
  owns: ['charge'],
  with: (parameters, place) => new MotorPumpBoosterMotion(parameters, place, ports),
});
