import { brakeVolume_m3, type BrakeLine } from '../../fluid/closed-line';
import type { Vector } from '../../model/descriptor';
import type { Member, Standing } from '../../model/member';
import { healthyUnit, reader, type Named } from '../../model/vectors';
import { BAROMETER } from '../inputs';
import { WHEEL_LINES, WHEELS } from '../wheel-lines';
import type { FourWheelsProfile } from './profile';

/** What makes one set of these brakes differ from another, and what faults move. */
export const parameters = [
  { id: 'frontTakeUp_m3', name: 'A front brake: taken up before it touches', quantity: 'fluidVolume' },
  { id: 'frontGive_m3PerPa', name: 'A front brake: give', quantity: 'volumePerPressure' },
  { id: 'rearTakeUp_m3', name: 'A rear brake: taken up before it touches', quantity: 'fluidVolume' },
  { id: 'rearGive_m3PerPa', name: 'A rear brake: give', quantity: 'volumePerPressure' },
  { id: 'air_m3', name: 'Air in each front line', quantity: 'volume' },
] as const;

const readings = WHEELS.map(({ id, name }) => ({ id, name: `Brake ${name}`, quantity: 'pressure' as const }));

export type Parameters = Named<typeof parameters>;
export const named = reader(parameters);

/** The line to the brake at a terminal. */
export const lineOf = (p: Parameters, terminal: number): BrakeLine =>
  WHEELS[terminal]!.axle === 'front'
    ? { takeUp_m3: p.frontTakeUp_m3, air_m3: p.air_m3, stiffness_m3PerPa: p.frontGive_m3PerPa }
    : { takeUp_m3: p.rearTakeUp_m3, air_m3: 0, stiffness_m3PerPa: p.rearGive_m3PerPa };

/** Brakes at rest, with what they have taken of their lines. */
class FourWheels implements Standing {
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

  through(terminal: number, pressure_Pa: number): number {
    return brakeVolume_m3(lineOf(this.p, terminal), Math.max(0, pressure_Pa), this.barometer_Pa);
  }

  atRest() {
    return { effort: 0, passes: 0 };
  }

  read(efforts: ArrayLike<number>): number[] {
    return WHEELS.map((_, i) => efforts[i]!);
  }
}

function healthy({
  limits,
  kind: _kind,
  name: _name,
  maker: _maker,
  stop: _stop,
  ...values
}: FourWheelsProfile) {
  const give = limits.give_fraction.value;
  return healthyUnit(
    parameters,
    { ...values, air_m3: 0 },
    { frontGive_m3PerPa: give * values.frontGive_m3PerPa, rearGive_m3PerPa: give * values.rearGive_m3PerPa },
  );
}

/** Brakes of four wheels, to be joined to what lets pressure into them. */
export const member: Member<FourWheelsProfile> = {
  parameters,
  inputs: [BAROMETER],
  readings,
  fedBy: WHEEL_LINES,
  feeds: [],
  healthy,
  with: (vector, [barometer_Pa = 0]) => new FourWheels(vector, barometer_Pa),
};
