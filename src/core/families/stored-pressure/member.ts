import type { Vector } from '../../model/descriptor';
import { BalancesNothing } from '../../model/balances-nothing';
import type { Member, Nodes, Standing, Wanted } from '../../model/member';
import { unread, type InputDescriptor } from '../../model/vectors';
import {
  APPLICATIONS,
  BAROMETER,
  BRAKE_CIRCUITS,
  CHARGED_CIRCUITS,
  ELAPSED,
  FLUID,
  TEMPERATURE,
} from '../inputs';
import { Circuit, leaksOf, letIn_Pa, residual_Pa } from './circuit';
import {
  lifting_m3PerS,
  nudge_Pa,
  onSprings_m,
  ramPressure_Pa,
  rise_s,
  trimmed_m,
  type Mode,
} from './levelling';
import {
  circuitOf,
  healthyCar,
  parameters,
  sharedOf,
  type CircuitParameters,
  type SharedParameters,
  type Side,
} from './parameters';
import type { StoredPressureProfile } from './profile';

const inputs = [
  { id: 'pedal_N', name: 'Pedal force', quantity: 'force', from: { port: 'pedal', as: 'set' } },
  {
    id: 'supply_Pa',
    name: 'Accumulator, front circuit',
    quantity: 'pressure',
    from: { port: 'supply', as: 'source', until: 'settled' },
  },
  {
    id: 'supply2_Pa',
    name: 'Accumulator, rear circuit',
    quantity: 'pressure',
    from: { port: 'supply-2', as: 'source', until: 'settled2' },
  },
  FLUID,
  BAROMETER,
  TEMPERATURE,
  ELAPSED,
  APPLICATIONS,
] as const satisfies readonly InputDescriptor[];

const TIMED = { SI: 0.5, part: 0.02 } as const;
const SWITCHED = { part: 0.01 } as const;

const readings = [
  { id: 'flickUp', name: 'Flick-up, front circuit', quantity: 'pressure' },
  { id: 'flickUp2', name: 'Flick-up, rear circuit', quantity: 'pressure' },
  { id: 'lampOff', name: 'Lamp out after, front circuit', quantity: 'duration', apart: TIMED },
  { id: 'lampOff2', name: 'Lamp out after, rear circuit', quantity: 'duration', apart: TIMED },
  { id: 'chargeTime', name: 'Charge from empty, front circuit', quantity: 'duration', apart: TIMED },
  { id: 'chargeTime2', name: 'Charge from empty, rear circuit', quantity: 'duration', apart: TIMED },
  { id: 'cutOut', name: 'Cut-out, front circuit', quantity: 'pressure', apart: SWITCHED },
  { id: 'cutOut2', name: 'Cut-out, rear circuit', quantity: 'pressure', apart: SWITCHED },
  { id: 'settled', name: 'Settled after the charge, front circuit', quantity: 'pressure', apart: SWITCHED },
  { id: 'settled2', name: 'Settled after the charge, rear circuit', quantity: 'pressure', apart: SWITCHED },
  { id: 'cutIn', name: 'Cut-in, front circuit', quantity: 'pressure', apart: SWITCHED },
  { id: 'cutIn2', name: 'Cut-in, rear circuit', quantity: 'pressure', apart: SWITCHED },
  { id: 'begins', name: 'Pedal force at which the front begins', quantity: 'force', apart: { SI: 2 } },
  { id: 'output', name: 'Front brakes', quantity: 'pressure' },
  { id: 'output2', name: 'Rear brakes', quantity: 'pressure' },
  { id: 'releasing', name: 'Front brakes, coming down', quantity: 'pressure' },
  { id: 'releasing2', name: 'Rear brakes, coming down', quantity: 'pressure' },
  { id: 'residual', name: 'Left in the front brakes, released', quantity: 'pressure' },
  { id: 'residual2', name: 'Left in the rear brakes, released', quantity: 'pressure' },
  { id: 'kept', name: 'Front circuit after applications', quantity: 'pressure', apart: { part: 0.02 } },
  { id: 'kept2', name: 'Rear circuit after applications', quantity: 'pressure', apart: { part: 0.02 } },
  { id: 'lamp', name: 'Front lamp lights at', quantity: 'pressure', apart: SWITCHED },
  { id: 'lamp2', name: 'Rear lamp lights at', quantity: 'pressure', apart: SWITCHED },
  { id: 'left', name: 'Front circuit after standing', quantity: 'pressure' },
  { id: 'left2', name: 'Rear circuit after standing', quantity: 'pressure' },
  { id: 'toLamp', name: 'Stand to the lamp, front circuit', quantity: 'duration', apart: { part: 0.02 } },
  { id: 'toLamp2', name: 'Stand to the lamp, rear circuit', quantity: 'duration', apart: { part: 0.02 } },
  { id: 'trimmed', name: 'Height as trimmed', quantity: 'travel', apart: { SI: 2e-3 } },
  { id: 'ram', name: 'Ram line as trimmed', quantity: 'pressure' },
  { id: 'onSprings', name: 'Height on springs alone', quantity: 'travel', apart: { SI: 2e-3 } },
  { id: 'nudge', name: 'Rear brakes over a bump', quantity: 'pressure' },
  { id: 'rise', name: 'Lift in gear', quantity: 'duration', apart: { SI: 1 } },
  { id: 'riseParked', name: 'Lift parked', quantity: 'duration', apart: { SI: 1 } },
] as const;

export type ReadingId = (typeof readings)[number]['id'];
const PLACE = Object.fromEntries(readings.map(({ id }, i) => [id, i])) as Record<ReadingId, number>;

/** Places of its terminals: fed, then feeding. */
const [CHARGE_FRONT, CHARGE_REAR, FRONT, REAR, FEEL] = [0, 1, 2, 3, 4];

/**
 * Two circuits of stored pressure, and the levelling that lives on the rear one. Handbook-models 8.6: a pump fills each accumulator up
 * to the cut-out; distribution valves let it into the brakes by the force of the foot, and leak by design; springs carry most of the
 * body, and rams the rest.
 */
class StoredPressure extends BalancesNothing implements Standing {
  private readonly shared: SharedParameters;
  private readonly known: Partial<Record<Side, CircuitParameters>> = {};

  constructor(
    private readonly vector: Vector,
    private readonly pedal_N: number,
    private readonly stored: Readonly<Record<Side, number>>,
    private readonly fluid_K: number,
    private readonly around: { readonly barometer_Pa: number; readonly temperature_K: number },
    private readonly elapsed_s: number,
    private readonly applications: number,
  ) {
    super();
    this.shared = sharedOf(vector);
  }

  private get input_N(): number {
    return this.pedal_N * this.shared.pedalRatio;
  }

  /** What is known of a circuit; most readings need no more. */
  private of(side: Side): CircuitParameters {
    this.known[side] ??= circuitOf(this.vector, side);
    return this.known[side];
  }

  private circuit(side: Side, pump_m3PerS: number): Circuit {
    const leaks = leaksOf(this.vector, side, this.fluid_K);
    return new Circuit(this.of(side), this.around, leaks, pump_m3PerS);
  }

  brings(terminal: number): number {
    if (terminal === FEEL) return this.input_N;
    const side = terminal === FRONT ? 'front' : 'rear';
    return letIn_Pa(this.of(side), this.input_N, 'up', this.stored[side]);
  }

  read(_efforts: ArrayLike<number>, { taken }: Nodes, wanted?: Wanted): number[] {
    const { shared, stored, elapsed_s, applications } = this;
    const light_N = shared.light_N * shared.pedalRatio;
    const told = unread(readings);
    const made: Partial<Record<Side, Circuit>> = {};
    const at = (side: Side): Circuit => {
      made[side] ??= this.circuit(side, taken(side === 'front' ? CHARGE_FRONT! : CHARGE_REAR!, 0));
      return made[side];
    };
    const tell = (id: ReadingId, work: () => number) => {
      if (!wanted || wanted.has(PLACE[id])) told[PLACE[id]] = work();
    };
    const both = (front: ReadingId, rear: ReadingId, work: (side: Side) => number) => {
      tell(front, () => work('front'));
      tell(rear, () => work('rear'));
    };
    both('flickUp', 'flickUp2', (side) => at(side).flickUp_Pa());
    both('lampOff', 'lampOff2', (side) => at(side).lampOff_s());
    both('chargeTime', 'chargeTime2', (side) => at(side).chargeTime_s());
    both('cutOut', 'cutOut2', (side) => at(side).cutOut_Pa());
    // The engine is stopped once both are there.
    both('settled', 'settled2', (side) =>
      at(side).settled_Pa(Math.max(at('front').chargeTime_s(), at('rear').chargeTime_s())),
    );
    both('cutIn', 'cutIn2', (side) => at(side).cutIn_Pa());
    both('output', 'output2', (side) => letIn_Pa(this.of(side), this.input_N, 'up', stored[side]));
    both('releasing', 'releasing2', (side) => letIn_Pa(this.of(side), this.input_N, 'down', stored[side]));
    both('residual', 'residual2', (side) => Math.min(stored[side], residual_Pa(this.of(side))));
    both('kept', 'kept2', (side) => {
      const light_Pa = letIn_Pa(this.of(side), light_N, 'up', stored[side]);
      const taken_m3 = taken(side === 'front' ? FRONT! : REAR!, light_Pa);
      return at(side).kept_Pa(stored[side], applications, taken_m3);
    });
    both('lamp', 'lamp2', (side) => this.of(side).lamp_Pa);
    both('left', 'left2', (side) => at(side).left_Pa(stored[side], elapsed_s));
    both('toLamp', 'toLamp2', (side) => at(side).toLamp_s(stored[side], shared.watch_s));
    const lifting = (mode: Mode) => rise_s(shared, lifting_m3PerS(shared, mode, taken(CHARGE_REAR!, 0)));
    tell('begins', () => (this.of('front').opens_N + this.of('front').friction_N) / shared.pedalRatio);
    tell('trimmed', () => trimmed_m(shared, stored.rear));
    tell('ram', () => Math.min(stored.rear, ramPressure_Pa(shared)));
    tell('onSprings', () => onSprings_m(shared));
    tell('nudge', () => nudge_Pa(shared));
    tell('rise', () => lifting('gear'));
    tell('riseParked', () => lifting('parked'));
    return told;
  }
}

/** How far the weight on a corner may be off from car to car, as a part. */
const WEIGHT_PART = 0.03;

function healthy(profile: StoredPressureProfile) {
  const { limits } = profile;
  const circuit = (area_m2: number) => ({
    values: {
      shell_m3: profile.shell_m3,
      preCharge_Pa: profile.preCharge_Pa,
      in_Pa: profile.in_Pa,
      out_Pa: profile.out_Pa,
      lamp_Pa: profile.lamp_Pa,
      clearance_m: profile.clearance_m,
      check_m3PerS: 0,
      outside_m3PerS: 0,
      area_m2,
      opens_N: profile.opens_N,
      friction_N: profile.friction_N,
    },
    tolerances: {
      preCharge_Pa: limits.preCharge_fraction.value * profile.preCharge_Pa,
      in_Pa: limits.switch_Pa.value,
      out_Pa: limits.switch_Pa.value,
      lamp_Pa: limits.lamp_Pa.value,
      clearance_m: limits.clearance_fraction.value * profile.clearance_m,
      area_m2: limits.output_fraction.value * area_m2,
      // What is left to the limit of hysteresis: 2·F_f/A.
      friction_N: (limits.hysteresis_Pa.value * area_m2) / 2 - profile.friction_N,
    },
  });
  return healthyCar(circuit(profile.frontArea_m2), circuit(profile.rearArea_m2), {
    values: {
      pedalRatio: profile.pedalRatio,
      landDiameter_m: profile.landDiameter_m,
      landLength_m: profile.landLength_m,
      thickness: 1,
      heightLeak_m3PerS: 0,
      weight_N: profile.weight_N,
      spring_NPerM: profile.spring_NPerM,
      free_m: profile.free_m,
      trim_m: profile.trim_m,
      ramArea_m2: profile.ramArea_m2,
      ramRatio: profile.ramRatio,
      bump_Pa: profile.bump_Pa,
      lineBore_m: profile.lineBore_m,
      restrictor_m: profile.restrictor_m,
      gear_m3PerS: profile.gear_m3PerS,
      parked_m3PerS: profile.parked_m3PerS,
      lift_m: profile.lift_m,
      light_N: profile.light_N,
      watch_s: profile.watch_s,
    },
    tolerances: {
      weight_N: WEIGHT_PART * profile.weight_N,
      spring_NPerM: limits.spring_fraction.value * profile.spring_NPerM,
      trim_m: limits.height_m.value,
      gear_m3PerS: limits.rise_fraction.value * profile.gear_m3PerS,
      parked_m3PerS: limits.rise_fraction.value * profile.parked_m3PerS,
      bump_Pa: limits.rise_fraction.value * profile.bump_Pa,
    },
  });
}

/** A car’s two circuits and its levelling, to be joined to its pump and its brakes. */
export const member: Member<StoredPressureProfile> = {
  parameters,
  inputs,
  readings,
  fedBy: CHARGED_CIRCUITS,
  feeds: BRAKE_CIRCUITS,
  healthy,
  with: (
    vector,
    [
      pedal_N = 0,
      supply_Pa = 0,
      supply2_Pa = 0,
      fluid_K = 0,
      barometer_Pa = 0,
      temperature_K = 0,
      elapsed_s = 0,
      applications = 0,
    ],
  ) =>
    new StoredPressure(
      vector,
      Math.max(0, pedal_N),
      { front: Math.max(0, supply_Pa), rear: Math.max(0, supply2_Pa) },
      fluid_K,
      { barometer_Pa, temperature_K },
      elapsed_s,
      applications,
    ),
};
