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
  { id: 'held', name: 'Battery while the motor holds', quantity: 'voltage', apart: HELD },
  { id: 'feed', name: 'Lost in the feed', quantity: 'voltage', apart: HELD },
  { id: 'earth', name: 'Lost in the earth', quantity: 'voltage', apart: HELD },
  { id: 'current', name: 'Current in the feed', quantity: 'current', apart: { part: 0.02 } },
] as const;

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
    const { p, volts_V } = this;
    const at_V = efforts[0]!;
    const current_A = Number.isNaN(at_V) ? 0 : Math.max(0, this.through(0, at_V));
    return [
      p.battery_V,
      volts_V - current_A * p.own_Ohm,
      current_A * p.feed_Ohm,
      current_A * p.earth_Ohm,
      current_A,
    ];
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
