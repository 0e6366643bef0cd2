import { BAROMETER, ELAPSED } from '../inputs';
import { brakeVolume_m3 } from '../../fluid/closed-line';
import { heldBack_Pa } from '../../fluid/held-back';
import type { Member, Standing } from '../../model/member';
import { healthyUnit, reader, type InputDescriptor, type Named } from '../../model/vectors';
import type { Vector } from '../../model/descriptor';
import { circle_m2 } from '../profile-fields';
import type { LoadBehind } from '../../contract/family';
import type { WheelBrakesProfile } from './profile';

/** What makes one set of wheel brakes differ from another, and what faults move. */
export const parameters = [
  { id: 'pedalRatio', name: 'Pedal ratio', quantity: 'ratio' },
  { id: 'masterArea_m2', name: 'Master cylinder area', quantity: 'area' },
  { id: 'freeTravel_m', name: 'Free travel of the pushrod', quantity: 'travel' },
  { id: 'takeUp_m3', name: 'Volume that takes up the clearances', quantity: 'volume' },
  { id: 'air_m3', name: 'Air in the lines', quantity: 'volume' },
  { id: 'stiffness_m3PerPa', name: 'Give of calipers, hoses and fluid', quantity: 'volumePerPressure' },
  { id: 'bypass_m3PerSPa', name: 'Fluid past the master’s seals', quantity: 'conductance' },
  { id: 'split_Pa', name: 'Pressure at which the rear is held back', quantity: 'pressure' },
  { id: 'otherSplit_Pa', name: 'The same of the valve on the other side', quantity: 'pressure' },
  { id: 'slope', name: 'Rear pressure for each front one beyond that', quantity: 'ratio' },
  { id: 'rearOpen', name: 'Part of the pressure that reaches the rear', quantity: 'ratio' },
] as const;

const inputs = [BAROMETER, ELAPSED] as const satisfies readonly InputDescriptor[];

const readings = [
  { id: 'pressure', name: 'Line pressure, front', quantity: 'pressure' },
  { id: 'rearPressure', name: 'Line pressure, rear', quantity: 'pressure' },
  { id: 'otherRear', name: 'Line pressure, rear, other side', quantity: 'pressure' },
  { id: 'travel', name: 'Pedal travel', quantity: 'travel' },
  { id: 'sink', name: 'Pedal sink under a steady foot', quantity: 'travel' },
] as const;

export type Parameters = Named<typeof parameters>;
export const named = reader(parameters);
export type ReadingId = (typeof readings)[number]['id'];

/**
 * Wheel brakes behind a master cylinder that a rod pushes. Handbook-models 10: p = F/A_mc, the rod has gone x₀ + V(p)/A_mc,
 * a bypass lets it sink at k_b·p/A_mc, and the rear follows the front to the split, then at the slope.
 */
class WheelBrakes implements Standing {
  private readonly p: Parameters;

  constructor(
    parameters: Vector,
    private readonly barometer_Pa: number,
    private readonly elapsed_s: number,
  ) {
    this.p = named(parameters);
  }

  span(): readonly [number, number] {
    return [0, 0];
  }

  /** How fast the rod sinks under a force, m/s. */
  goesOn(_terminal: number, force_N: number): number {
    const { bypass_m3PerSPa, masterArea_m2 } = this.p;
    return (bypass_m3PerSPa * force_N) / masterArea_m2 ** 2;
  }

  /** Way of the rod at a force, m: what has sunk on a hold is not in it. */
  through(_terminal: number, force_N: number): number {
    if (force_N <= 0) return 0;
    const { masterArea_m2, freeTravel_m } = this.p;
    return freeTravel_m + brakeVolume_m3(this.p, force_N / masterArea_m2, this.barometer_Pa) / masterArea_m2;
  }

  atRest() {
    return { effort: 0, passes: 0 };
  }

  read(efforts: ArrayLike<number>): number[] {
    const { p } = this;
    const force_N = efforts[0]!;
    const pressure_Pa = force_N / p.masterArea_m2;
    return [
      pressure_Pa,
      p.rearOpen * heldBack_Pa(p, pressure_Pa),
      p.rearOpen * heldBack_Pa({ slope: p.slope, split_Pa: p.otherSplit_Pa }, pressure_Pa),
      p.pedalRatio * this.through(0, force_N),
      p.pedalRatio * this.elapsed_s * this.goesOn(0, force_N),
    ];
  }
}

function healthy(profile: WheelBrakesProfile & { readonly pedalRatio: number }) {
  const { limits } = profile;
  return healthyUnit(
    parameters,
    {
      pedalRatio: profile.pedalRatio,
      masterArea_m2: circle_m2(profile.masterBore_m),
      freeTravel_m: profile.freeTravel_m,
      takeUp_m3: profile.takeUp_m3,
      air_m3: 0,
      stiffness_m3PerPa: profile.stiffness_m3PerPa,
      bypass_m3PerSPa: 0,
      split_Pa: profile.split_Pa,
      otherSplit_Pa: profile.split_Pa,
      slope: profile.slope,
      rearOpen: 1,
    },
    {
      stiffness_m3PerPa: limits.stiffness_fraction.value * profile.stiffness_m3PerPa,
    },
  );
}

/** Readings of wheel brakes whose front pressure was read: what pushed them has no part in it. */
export const behindFront = {
  input: {
    id: 'front_Pa',
    name: 'Line pressure, front, as read',
    quantity: 'pressure',
    from: { port: 'front', as: 'set' },
  },
  inputs,
  read: (vector: Vector, front_Pa: number, [barometer_Pa = 0, elapsed_s = 0]: Vector): number[] =>
    new WheelBrakes(vector, barometer_Pa, elapsed_s).read([front_Pa * named(vector).masterArea_m2]),
} as const satisfies LoadBehind;

/** Wheel brakes with their master cylinder, to be joined to what pushes its rod. The pedal is the unit's. */
export const member: Member<WheelBrakesProfile & { readonly pedalRatio: number }> = {
  parameters,
  inputs,
  readings,
  fedBy: [{ id: 'rod', name: 'Rod', coupling: 'rod' }],
  feeds: [],
  healthy,
  with: (vector, [barometer_Pa = 0, elapsed_s = 0]) => new WheelBrakes(vector, barometer_Pa, elapsed_s),
};
