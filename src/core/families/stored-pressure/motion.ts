import { orificeFlow_m3PerS } from '../../fluid/fluid-pump';
import { density_kgPerM3 } from '../../fluid/hydraulic-fluid';
import { MINERAL } from '../../fluid/mineral-fluid';
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
import { circle_m2 } from '../profile-fields';
import { PEDAL_COMMAND } from '../vehicle-hands';
import { leaksOf, letIn_Pa, residual_Pa, vesselOf, type Leaks } from './circuit';
import { CORNERS, lifting_m3PerS, nudge_Pa, onSprings_m, ramAt_Pa, type Mode } from './levelling';
import type { Levelled } from './steps';
import { circuitOf, sharedOf, type CircuitParameters, type SharedParameters, type Side } from './parameters';
import { levellingParts, levellingStages, parts, stages } from './works';

const statesOf = (side: Side) =>
  [
    ...vesselStates(`.${side}`, `the ${side} circuit`),
    { id: `brake.${side}_Pa`, name: `${side} brakes`, quantity: 'pressure', scale: 1e4 },
  ] as const;
const OF_ONE = 3;
const states = [
  ...statesOf('front'),
  ...statesOf('rear'),
  { id: 'height_m', name: 'Height of the body', quantity: 'length', scale: 1e-4 },
] as const;

/** How a car of ordinary make answers; no verdict rests on these, and the steady end does not know them. */
const RESPONSE = {
  /** A valve brings its brakes to where they belong within this time, s, through an opening of this width, m. */
  valve_s: 0.05,
  opening_m: 1.2e-3,
  /** The height valve is wide open so far from the height that it keeps, m. */
  open_m: 2e-3,
  /** What a bleed screw and the height valve let out of the rams, m³/s. */
  out_m3PerS: 5e-6,
} as const;

/** Figures at the far end of a drawing. */
const FAR = { spool_N: 1500, brakes_Pa: 1e7, body_m: 0.15 } as const;

const OPENING_M2 = circle_m2(RESPONSE.opening_m);

/** What can be done by hand to two circuits, and to a body that is levelled, besides what starts the pump. */
// A type and no interface: only so is it one of `Hands`.
type CarHands = {
  readonly pedal_N: number;
  readonly press_NPerS: number;
  /** Where the lever has the height valve: as linked, lower by the lift that is timed; or unlinked, its rams bled. */
  readonly heightLever: 'linked' | 'down' | 'bled';
  readonly mode: Mode;
  /** A corner is bounced. */
  readonly bounced: boolean;
};

/** The lever of the height valve, its mode, and a corner. */
const LEVELLING_COMMANDS: readonly Command[] = [
  {
    kind: 'choice',
    id: 'heightLever',
    name: 'Height valve',
    usual: 'linked',
    choices: [
      { id: 'linked', name: 'Linked' },
      { id: 'down', name: 'Lever down' },
      { id: 'bled', name: 'Unlinked, rams bled' },
    ],
  },
  {
    kind: 'choice',
    id: 'mode',
    name: 'Levelling',
    usual: 'gear',
    choices: [
      { id: 'gear', name: 'As in gear' },
      { id: 'parked', name: 'Parked' },
    ],
  },
  { kind: 'switch', id: 'bounced', name: 'Corner bounced', usual: false },
];

/** One circuit over time: its block lets the pump in and out, its accumulator stores, its valve lets pressure into the brakes. */
class CircuitMotion {
  /** The block lets the pump in. */
  charging = true;
  private readonly vessel: VesselMotion;

  constructor(
    readonly p: CircuitParameters,
    around: { readonly barometer_Pa: number; readonly temperature_K: number },
    private readonly leaks: Leaks,
    private readonly density_kgPerM3: number,
    private readonly brakes: NodeNow,
    /** Place of its first state. */
    private readonly from: number,
  ) {
    this.vessel = new VesselMotion(vesselOf(p, around), from);
  }

  atRest(): number[] {
    return [...this.vessel.atRest(), 0];
  }

  stored_Pa(y: Float64Array): number {
    return this.vessel.gauge_Pa(y);
  }

  filled(y: Float64Array): number {
    return this.vessel.filled(y);
  }

  brake_Pa(y: Float64Array): number {
    return Math.max(0, y[this.from + 2]!);
  }

  readonly turn: Turn = {
    beyond: (y) => (this.charging ? this.stored_Pa(y) - this.p.out_Pa : this.p.in_Pa - this.stored_Pa(y)),
    flip: () => {
      this.charging = !this.charging;
    },
  };

  /**
   * @param stored_Pa what its gauge shows now
   * @param pumped_m3PerS what the pump gives this circuit now
   */
  rates(y: Float64Array, dy: Float64Array, input_N: number, stored_Pa: number, pumped_m3PerS: number): void {
    const { p, brakes } = this;
    const brake_Pa = brakes.effort;
    const give = brakes.give(brake_Pa);
    // Between what it lets in going up and what it lets go coming down friction holds it still.
    const up_Pa = letIn_Pa(p, input_N, 'up', stored_Pa);
    const down_Pa = input_N > 0 ? letIn_Pa(p, input_N, 'down', brake_Pa) : residual_Pa(p);
    const aims_Pa = brake_Pa < up_Pa ? up_Pa : Math.min(brake_Pa, Math.max(up_Pa, down_Pa));
    const wants = ((aims_Pa - brake_Pa) * give) / RESPONSE.valve_s;
    const across_Pa = wants > 0 ? stored_Pa - brake_Pa : brake_Pa;
    const most = orificeFlow_m3PerS(OPENING_M2, Math.max(0, across_Pa), this.density_kgPerM3);
    const through = Math.max(-most, Math.min(most, wants));
    const { charging_m3PerSPa, standing_m3PerSPa } = this.leaks;
    const lost = (pumped_m3PerS > 0 ? charging_m3PerSPa : standing_m3PerSPa) * stored_Pa;
    this.vessel.rates(y, dy, pumped_m3PerS - Math.max(0, through) - lost);
    dy[this.from + 2] = through / give;
  }
}

/**
 * Two circuits of stored pressure and the levelling over time. What the pump gives the rear circuit while its block lets it in goes to
 * the accumulator; else it lifts the body, where that is lower than the height valve keeps it. Handbook-models P.1, P.5, 8.6.
 */
class StoredPressureMotion implements Moving {
  readonly turns: readonly Turn[];
  private readonly shared: SharedParameters;
  private readonly front: CircuitMotion;
  private readonly rear: CircuitMotion;
  private readonly charges: readonly [NodeNow, NodeNow];
  private readonly brakes: readonly [NodeNow, NodeNow];
  private readonly feel: NodeNow;
  private readonly height: number;
  private readonly onSprings_m: number;
  private readonly at: Readonly<Record<string, number>>;

  constructor(
    vector: Vector,
    place: Place,
    ports: readonly Port[],
    private readonly levelled: boolean,
  ) {
    const shared = sharedOf(vector);
    this.shared = shared;
    const around = {
      barometer_Pa: inputAt(place, 'barometer_Pa'),
      temperature_K: inputAt(place, 'temperature_K'),
    };
    // Fluid that has stood in the room.
    const fluid_K = around.temperature_K;
    const density = density_kgPerM3(MINERAL, fluid_K);
    const [charge, charge2, front, rear, feel] = place.nodes as [NodeNow, NodeNow, NodeNow, NodeNow, NodeNow];
    [this.charges, this.brakes, this.feel] = [[charge, charge2], [front, rear], feel];
    const circuit = (side: Side, brakes: NodeNow, from: number) => {
      const leaks = leaksOf(vector, side, fluid_K);
      return new CircuitMotion(circuitOf(vector, side), around, leaks, density, brakes, from);
    };
    this.front = circuit('front', front, place.from);
    this.rear = circuit('rear', rear, place.from + OF_ONE);
    this.height = place.from + 2 * OF_ONE;
    this.onSprings_m = onSprings_m(shared);
    this.at = Object.fromEntries(ports.map(({ id }, i) => [id, i]));
    this.turns = [this.front.turn, this.rear.turn];
  }

  atRest(): number[] {
    return [...this.front.atRest(), ...this.rear.atRest(), this.onSprings_m];
  }

  /** How far the height valve is open: 1 to the rams, −1 to the return. */
  private opened(y: Float64Array, { heightLever: lever }: CarHands): number {
    if (!this.levelled) return 0;
    if (lever === 'bled') return -1;
    const { trim_m, lift_m } = this.shared;
    const keeps_m = lever === 'down' ? trim_m - lift_m : trim_m;
    return Math.max(-1, Math.min(1, (keeps_m - y[this.height]!) / RESPONSE.open_m));
  }

  efforts(y: Float64Array, at: Instant): void {
    const hands = at.hands as CarHands;
    this.charges[0].effort = this.front.stored_Pa(y);
    this.charges[1].effort = this.rear.stored_Pa(y);
    this.charges[0].asks = this.front.charging;
    this.charges[1].asks = this.rear.charging || this.opened(y, hands) > 0;
    this.brakes[0].effort = this.front.brake_Pa(y);
    this.brakes[1].effort = this.rear.brake_Pa(y);
    this.feel.effort = this.shared.pedalRatio * hands.pedal_N;
  }

  rates(y: Float64Array, dy: Float64Array, at: Instant): void {
    const { shared, front, rear, charges } = this;
    const hands = at.hands as CarHands;
    const input_N = shared.pedalRatio * hands.pedal_N;
    const pumped2 = charges[1].passed;
    front.rates(y, dy, input_N, charges[0].effort, charges[0].passed);
    rear.rates(y, dy, input_N, charges[1].effort, rear.charging ? pumped2 : 0);
    const opened = this.opened(y, hands);
    const spare = rear.charging ? 0 : pumped2;
    const lifts = opened > 0 && spare > 0 ? opened * lifting_m3PerS(shared, hands.mode, spare) : 0;
    const drops = opened < 0 && y[this.height]! > this.onSprings_m ? opened * RESPONSE.out_m3PerS : 0;
    dy[this.height] = (lifts + drops) / (CORNERS * shared.ramArea_m2 * shared.ramRatio);
  }

  parts(y: Float64Array, at: Instant, out: PartsNow): void {
    const { shared, front, rear, brakes } = this;
    const hands = at.hands as CarHands;
    out.stored = { at: front.filled(y), of: 1 };
    out.stored2 = { at: rear.filled(y), of: 1 };
    out.charging = { at: Number(front.charging), of: 1 };
    out.charging2 = { at: Number(rear.charging), of: 1 };
    out.spool = { at: shared.pedalRatio * hands.pedal_N, of: FAR.spool_N };
    out.frontBrakes = { at: brakes[0].effort, of: FAR.brakes_Pa };
    out.rearBrakes = { at: brakes[1].effort, of: FAR.brakes_Pa };
    if (!this.levelled) return;
    out.body = { at: Math.max(0, y[this.height]! - this.onSprings_m), of: FAR.body_m };
    out.heightValve = { at: this.opened(y, hands), of: 1 };
  }

  shown(y: Float64Array, at: Instant, shown: Float64Array): void {
    const { shared, charges, brakes, at: place } = this;
    const { pedal_N, bounced } = at.hands as CarHands;
    shown[place.pedal!] = pedal_N;
    shown[place.supply!] = charges[0].effort;
    shown[place['supply-2']!] = charges[1].effort;
    shown[place.front!] = brakes[0].effort;
    shown[place.rear!] = brakes[1].effort + (bounced ? nudge_Pa(shared) : 0);
    if (!this.levelled) return;
    const height_m = Math.max(this.onSprings_m, y[this.height]!);
    shown[place.ram!] = ramAt_Pa(shared, height_m);
    shown[place.left!] = height_m;
    shown[place.right!] = height_m;
  }
}

/** Over time, with what true gauges on some ports show. */
export const motionOn = (ports: readonly Port[], { levelled }: Levelled): Motion => ({
  states,
  parts: levelled ? [...parts, ...levellingParts] : parts,
  stages: levelled ? [...stages, ...levellingStages] : stages,
  commands: levelled ? [PEDAL_COMMAND, ...LEVELLING_COMMANDS] : [PEDAL_COMMAND],
  owns: ['charge', 'charge-2', 'front', 'rear', 'feel'],
  with: (parameters, place) => new StoredPressureMotion(parameters, place, ports, levelled),
});
