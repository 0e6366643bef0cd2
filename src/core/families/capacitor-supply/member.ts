import { discharge_s } from '../../electric/capacitor';
import type { Vector } from '../../model/descriptor';
import type { Member, Standing } from '../../model/member';
import { healthyUnit, reader, type InputDescriptor, type Named } from '../../model/vectors';
import { STOPS } from '../inputs';
import type { CapacitorSupplyProfile } from './profile';

/** What makes one supply differ from another, and what faults move. */
export const parameters = [
  { id: 'battery_V', name: 'Battery, with nothing drawn', quantity: 'voltage' },
  { id: 'own_Ohm', name: 'Resistance of battery and feed', quantity: 'resistance' },
  { id: 'capacitance_F', name: 'Capacitor', quantity: 'capacitance' },
  { id: 'esr_Ohm', name: 'Resistance of the capacitor', quantity: 'resistance' },
  { id: 'bleed_Ohm', name: 'What it is discharged through', quantity: 'resistance' },
  { id: 'waited_s', name: 'Waited before it is read', quantity: 'duration' },
  { id: 'least_V', name: 'Least volts of the control unit', quantity: 'voltage' },
  { id: 'stop_J', name: 'Energy of a stop', quantity: 'energy' },
  { id: 'stop_A', name: 'Current of a stop', quantity: 'current' },
  { id: 'standing_W', name: 'Standing load', quantity: 'power' },
  { id: 'apart_s', name: 'From one stop to the next', quantity: 'duration' },
] as const;

const inputs = [
  {
    id: 'volts_V',
    name: 'Battery, with nothing drawn',
    quantity: 'voltage',
    from: { port: 'battery', as: 'source', until: 'source.battery' },
  },
  {
    id: 'store_V',
    name: 'Capacitor, charged',
    quantity: 'voltage',
    from: { port: 'store', as: 'source', until: 'source.charged', stays: true },
  },
  STOPS,
] as const satisfies readonly InputDescriptor[];

/** What a meter holds of a dip, as nearly as it can be caught, V. */
const CAUGHT = { SI: 0.03 } as const;

const readings = [
  { id: 'battery', name: 'Battery, with nothing drawn', quantity: 'voltage' },
  { id: 'proof', name: 'The meter of the store on the battery', quantity: 'voltage' },
  { id: 'residual', name: 'Capacitor, discharged', quantity: 'voltage' },
  { id: 'charged', name: 'Capacitor, charged', quantity: 'voltage' },
  { id: 'lowest', name: 'Capacitor, lowest during a stop', quantity: 'voltage', apart: CAUGHT },
  { id: 'rest', name: 'Capacitor, before the next stop', quantity: 'voltage', apart: CAUGHT },
] as const;

export type Parameters = Named<typeof parameters>;
export const named = reader(parameters);

/** What stands in a capacitor after some stops, V: ½·C·(U₀² − U²) is what they took with what stands between them. Handbook-models 8.9. */
export function after_V(
  { capacitance_F, stop_J, standing_W, apart_s }: Parameters,
  charged_V: number,
  stops: number,
): number {
  const taken_J = stops * (stop_J + standing_W * apart_s);
  return Math.sqrt(Math.max(0, charged_V ** 2 - (2 * taken_J) / capacitance_F));
}

/** A battery behind its feed, and the capacitor that it charges. */
class CapacitorSupply implements Standing {
  private readonly p: Parameters;

  constructor(
    vector: Vector,
    private readonly volts_V: number,
    private readonly store_V: number,
    private readonly stops: number,
  ) {
    this.p = named(vector);
  }

  span(): readonly [number, number] {
    return [this.volts_V, 0];
  }

  /** Current that it gives at a voltage of the control unit, A. */
  through(_terminal: number, at_V: number): number {
    return (this.volts_V - at_V) / this.p.own_Ohm;
  }

  atRest() {
    return { effort: this.volts_V, passes: 0 };
  }

  read(): number[] {
    const { p, store_V, stops } = this;
    const after = after_V(p, store_V, stops);
    return [
      p.battery_V,
      p.battery_V,
      p.battery_V * Math.exp(-p.waited_s / (p.bleed_Ohm * p.capacitance_F)),
      p.battery_V,
      Math.max(0, after - p.stop_A * p.esr_Ohm),
      after,
    ];
  }
}

/** Time to wait until it may be read, s: computed, or as stated where that is longer. */
export const wait_s = ({
  capacitance_F,
  battery_V,
  bleed_Ohm,
  stated_s,
  limits,
}: CapacitorSupplyProfile): number =>
  Math.ceil(discharge_s({ capacitance_F, charged_V: battery_V }, bleed_Ohm, limits.safe_V.value, stated_s));

/** How far the resistance of sound capacitors may be off, as a part. */
const ESR_PART = 0.3;

function healthy(profile: CapacitorSupplyProfile) {
  const { limits, kind: _kind, name: _name, maker: _maker, stated_s: _stated_s, ...values } = profile;
  return healthyUnit(
    parameters,
    { ...values, waited_s: wait_s(profile) },
    {
      battery_V: limits.battery_V.value,
      capacitance_F: limits.capacitance_fraction.value * values.capacitance_F,
      esr_Ohm: ESR_PART * values.esr_Ohm,
    },
  );
}

/** A supply to be joined to what draws from it. */
export const member: Member<CapacitorSupplyProfile> = {
  parameters,
  inputs,
  readings,
  fedBy: [],
  feeds: [{ id: 'feed', name: 'Feed of the control unit', coupling: 'electric' }],
  healthy,
  with: (vector, [volts_V = 0, store_V = 0, stops = 0]) =>
    new CapacitorSupply(vector, Math.max(0, volts_V), Math.max(0, store_V), stops),
};
