import type { Vector } from '../../model/descriptor';
import type { Member, Standing } from '../../model/member';
import { healthyUnit, reader, type InputDescriptor, type Named } from '../../model/vectors';
import type { BatterySupplyProfile } from './profile';

/** What makes one supply differ from another, and what faults move. */
export const parameters = [
  { id: 'battery_V', name: 'Battery, with nothing drawn', quantity: 'voltage' },
  { id: 'own_Ohm', name: 'Resistance of the battery', quantity: 'resistance' },
  { id: 'feed_Ohm', name: 'Resistance of the feed', quantity: 'resistance' },
  { id: 'earth_Ohm', name: 'Resistance of the earth', quantity: 'resistance' },
] as const;

const inputs = [
  {
    id: 'volts_V',
    name: 'Battery, with nothing drawn',
    quantity: 'voltage',
    from: { port: 'battery', as: 'source', until: 'source.battery' },
  },
] as const satisfies readonly InputDescriptor[];

/** Volts under a hold are read no better than this, V. Handbook-models 8.8. */
const HELD = { SI: 0.02 } as const;

const readings = [
  { id: 'battery', name: 'Battery, with nothing drawn', quantity: 'voltage' },
  { id: 'feed', name: 'Lost in the feed', quantity: 'voltage', apart: HELD },
  { id: 'earth', name: 'Lost in the earth', quantity: 'voltage', apart: HELD },
  { id: 'current', name: 'Current in the feed', quantity: 'current', apart: { part: 0.02 } },
] as const;

const [FEED, EARTH] = (['feed_Ohm', 'earth_Ohm'] as const).map((id) =>
  parameters.findIndex((one) => one.id === id),
) as [number, number];

export type Parameters = Named<typeof parameters>;
export const named = reader(parameters);

/**
 * A battery behind its own resistance, a feed and an earth: i = (V_b − V)/(R_b + R_f + R_e). What is lost is read over each apart.
 * Handbook-models 8.8.
 */
class BatterySupply implements Standing {
  private readonly p: Parameters;
  private readonly all_Ohm: number;

  constructor(
    vector: Vector,
    private readonly volts_V: number,
  ) {
    this.p = named(vector);
    this.all_Ohm = allOf_Ohm(this.p);
  }

  span(): readonly [number, number] {
    return [this.volts_V, 0];
  }

  /** Current that it gives at a voltage of the control unit, A. */
  through(_terminal: number, at_V: number): number {
    return (this.volts_V - at_V) / this.all_Ohm;
  }

  atRest() {
    return { effort: this.volts_V, passes: 0 };
  }

  read(efforts: ArrayLike<number>): number[] {
    const { p } = this;
    const at_V = efforts[0]!;
    const current_A = Number.isNaN(at_V) ? 0 : Math.max(0, this.through(0, at_V));
    return [p.battery_V, current_A * p.feed_Ohm, current_A * p.earth_Ohm, current_A];
  }
}

/** No supply is without any resistance, Ω. */
const LEAST_OHM = 1e-4;

/** Battery, feed and earth one behind the other, Ω. */
export const allOf_Ohm = ({ own_Ohm, feed_Ohm, earth_Ohm }: Parameters): number =>
  Math.max(LEAST_OHM, own_Ohm + feed_Ohm + earth_Ohm);
/** Joints of a sound feed differ by this part of it. */
const JOINTS_PART = 0.2;

function healthy({ battery_V, own_Ohm, feed_Ohm, earth_Ohm, limits }: BatterySupplyProfile) {
  return healthyUnit(
    parameters,
    { battery_V, own_Ohm, feed_Ohm, earth_Ohm },
    {
      battery_V: limits.battery_V.value,
      own_Ohm: JOINTS_PART * own_Ohm,
      feed_Ohm: JOINTS_PART * feed_Ohm,
      earth_Ohm: JOINTS_PART * earth_Ohm,
    },
  );
}

/** A supply to be joined to what draws from it. */
export const member: Member<BatterySupplyProfile> = {
  parameters,
  inputs,
  readings,
  fedBy: [],
  feeds: [{ id: 'feed', name: 'Feed of the motor', coupling: 'electric' }],
  healthy,
  with: (vector, [volts_V = 0]) => new BatterySupply(vector, Math.max(0, volts_V)),
};

/** Below this nothing is told of a resistance by what is lost over it, A. */
const TELLS_A = 1;

/**
 * The same as meters tell it that were read while the motor held: what feed and earth lost there, by the current that went through both.
 * Until they are read they are what healthy ones are.
 */
export const asRead: Member<BatterySupplyProfile> = {
  ...member,
  inputs: [
    ...inputs,
    {
      id: 'drop_V',
      name: 'Lost in the feed under load',
      quantity: 'voltage',
      from: { port: 'drop', as: 'source', until: 'source.feed' },
    },
    {
      id: 'earth_V',
      name: 'Lost in the earth under load',
      quantity: 'voltage',
      from: { port: 'earth', as: 'source', until: 'source.earth' },
    },
    {
      id: 'held_A',
      name: 'Current in the feed under load',
      quantity: 'current',
      from: { port: 'current', as: 'source', until: 'source.current' },
    },
  ],
  with: (vector, [volts_V = 0, drop_V = 0, earth_V = 0, held_A = 0]) => {
    const read =
      held_A > TELLS_A
        ? vector.with(FEED, Math.max(0, drop_V) / held_A).with(EARTH, Math.max(0, earth_V) / held_A)
        : vector;
    return new BatterySupply(read, Math.max(0, volts_V));
  },
};
