import { brakeVolume_m3, type BrakeLine } from '../../fluid/closed-line';
import type { Vector } from '../../model/descriptor';
import type { Member, Standing } from '../../model/member';
import { healthyUnit, reader, type Named } from '../../model/vectors';
import { BAROMETER, BRAKE_CIRCUITS } from '../inputs';
import { circle_m2 } from '../profile-fields';
import type { LineBrakesProfile } from './profile';

/** What makes one set of these brakes differ from another, and what faults move. */
export const parameters = [
  { id: 'pedalRatio', name: 'Pedal ratio', quantity: 'ratio' },
  { id: 'frontTakeUp_m3', name: 'Front brakes: taken up before they touch', quantity: 'fluidVolume' },
  { id: 'frontGive_m3PerPa', name: 'Front brakes: give', quantity: 'volumePerPressure' },
  { id: 'rearTakeUp_m3', name: 'Rear brakes: taken up before they touch', quantity: 'fluidVolume' },
  { id: 'rearGive_m3PerPa', name: 'Rear brakes: give', quantity: 'volumePerPressure' },
  { id: 'feelArea_m2', name: 'Small master: area', quantity: 'area' },
  { id: 'freeTravel_m', name: 'Small master: free travel', quantity: 'travel' },
  { id: 'feelGive_m3PerPa', name: 'Small master: give of what it fills', quantity: 'volumePerPressure' },
  { id: 'air_m3', name: 'Small master: air in its line', quantity: 'volume' },
] as const;

const readings = [{ id: 'travel', name: 'Pedal travel', quantity: 'travel' }] as const;

export type Parameters = Named<typeof parameters>;
export const named = reader(parameters);

export const [FRONT, REAR, FEEL] = [0, 1, 2] as const;

type Lines = Pick<Parameters, 'frontTakeUp_m3' | 'frontGive_m3PerPa' | 'rearTakeUp_m3' | 'rearGive_m3PerPa'>;

/** The line to the brakes at a terminal. */
export const lineOf = (p: Lines, terminal: number): BrakeLine =>
  terminal === FRONT
    ? { takeUp_m3: p.frontTakeUp_m3, air_m3: 0, stiffness_m3PerPa: p.frontGive_m3PerPa }
    : { takeUp_m3: p.rearTakeUp_m3, air_m3: 0, stiffness_m3PerPa: p.rearGive_m3PerPa };

/** Way of the small master's rod at a force, m: x₀ + V(p)/A. Handbook-models, loads on fluid lines. */
export function feelWay_m(p: Parameters, force_N: number, barometer_Pa: number): number {
  if (force_N <= 0) return 0;
  const filled = { takeUp_m3: 0, air_m3: p.air_m3, stiffness_m3PerPa: p.feelGive_m3PerPa };
  return p.freeTravel_m + brakeVolume_m3(filled, force_N / p.feelArea_m2, barometer_Pa) / p.feelArea_m2;
}

/** Brakes at rest, with what they have taken of their circuits. */
class LineBrakes implements Standing {
  private readonly p: Parameters;

  constructor(
    vector: Vector,
    private readonly barometer_Pa: number,
  ) {
    this.p = named(vector);
  }

  span(): readonly [number, number] {
    return [0, 0];
  }

  through(terminal: number, effort: number): number {
    if (terminal === FEEL) return feelWay_m(this.p, effort, this.barometer_Pa);
    return brakeVolume_m3(lineOf(this.p, terminal), Math.max(0, effort), this.barometer_Pa);
  }

  atRest() {
    return { effort: 0, passes: 0 };
  }

  read(efforts: ArrayLike<number>): number[] {
    return [this.p.pedalRatio * this.through(FEEL, efforts[FEEL]!)];
  }
}

function healthy({
  limits,
  feelBore_m,
  kind: _kind,
  name: _name,
  maker: _maker,
  travel_N: _travel_N,
  stop: _stop,
  ...values
}: LineBrakesProfile & { readonly pedalRatio: number }) {
  const give = limits.give_fraction.value;
  return healthyUnit(
    parameters,
    { ...values, feelArea_m2: circle_m2(feelBore_m), air_m3: 0 },
    {
      frontGive_m3PerPa: give * values.frontGive_m3PerPa,
      rearGive_m3PerPa: give * values.rearGive_m3PerPa,
      feelGive_m3PerPa: give * values.feelGive_m3PerPa,
    },
  );
}

/** Brakes of two circuits, to be joined to what lets pressure into them. The pedal is the unit's. */
export const member: Member<LineBrakesProfile & { readonly pedalRatio: number }> = {
  parameters,
  inputs: [BAROMETER],
  readings,
  fedBy: BRAKE_CIRCUITS,
  feeds: [],
  healthy,
  with: (vector, [barometer_Pa = 0]) => new LineBrakes(vector, barometer_Pa),
};
