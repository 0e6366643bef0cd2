import { z } from 'zod';
import { field } from '../contract/working';
import { SUPPLY_KINDS } from '../air/supply';
import { FLUID_KINDS, FLUIDS } from '../fluid/kinds';
import { compared, type Candidate, type Fitted, type FittingPlace } from '../vehicle/fitting';

const BAR = 1e5;

/** Nothing of it is assumed: an empty field is “not known yet”. */
const number = (...of: Parameters<typeof field>) => field(...of).nullable();
const fluid = (title: string) => z.enum(FLUID_KINDS).nullable().meta({ title, labels: FLUIDS });

/** Brakes, pedal and body of a vehicle; nothing is worked out before all of it is known. */
const brakeSchema = z
  .strictObject({
    mass_kg: field('Mass, laden', 'mass', 300, 20_000),
    frontArea_m2: field('Piston area, one side of one front caliper', 'area', 2e-4, 1e-2),
    rearArea_m2: field('Piston area, one side of one rear caliper', 'area', 1e-4, 1e-2),
    frontFriction: field('Friction of the front pads', 'ratio', 0.1, 0.8),
    rearFriction: field('Friction of the rear pads', 'ratio', 0.1, 0.8),
    frontRadius_m: field('Effective radius, front', 'length', 0.04, 0.3),
    rearRadius_m: field('Effective radius, rear', 'length', 0.04, 0.3),
    tyreRadius_m: field('Rolling radius of the tyres', 'length', 0.15, 0.7),
    pedalRatio: field('Pedal ratio', 'ratio', 1, 8),
    stroke_m: field('Pedal travel to its stop', 'travel', 0.03, 0.25),
    freeTravel_m: field('Free travel of the pushrod', 'travel', 0, 0.01),
    clearance_m: field('Clearance of each pad', 'length', 0, 0.002),
    give_m3PerPa: field('Give of calipers, hoses and fluid', 'volumePerPressure', 0, 1e-11),
    contact_Pa: field('Pressure that presses nothing yet', 'pressure', 0, 10 * BAR),
    split_Pa: field('Pressure at which the rear is held back', 'pressure', BAR, 200 * BAR),
    slope: field('Rear pressure for each front one beyond that', 'ratio', 0.05, 1),
    grip: field('Grip of the tyres', 'ratio', 0.05, 1.3),
    wheelbase_m: field('Wheelbase', 'length', 1, 10),
    behindFront_m: field('Centre of mass behind the front axle', 'length', 0.2, 9),
    height_m: field('Height of the centre of mass', 'length', 0.1, 3),
  })
  .meta({ title: 'Brakes and body known' });

/** The vehicle, as its form shows it. */
export const placeFields = z
  .strictObject({
    name: z
      .string()
      .trim()
      .min(1, 'Vehicle: give it a name.')
      .max(120, 'Vehicle: 120 characters at the most.')
      .meta({ title: 'Vehicle' }),
    altitude_m: number('Where the owner lives', 'altitude', -500, 6000),
    vacuum_Pa: number('Vacuum, at sea level', 'depression', 0, 101_325),
    vacuumBy: z
      .enum(SUPPLY_KINDS)
      .meta({ title: 'It comes from', labels: { pump: 'a vacuum pump', manifold: 'an engine manifold' } }),
    pumpFlow_m3PerS: number('Flow of the steering pump', 'pumpFlow', 0, 1e-2),
    pumpRelief_Pa: number('Relief of the steering pump', 'pressure', BAR, 300 * BAR),
    fuse_A: number('Fuse of the feed', 'current', 1, 500),
    wireLength_m: number('Run of the wire, one way', 'length', 0.1, 30),
    wire_m2: number('Copper of the wire', 'wireSection', 0.2e-6, 200e-6),
    spaceLength_m: number('Space: length', 'length', 0.02, 2),
    spaceDiameter_m: number('Space: diameter', 'length', 0.02, 1),
    studSquare_m: number('Stud square of the plate', 'length', 0.02, 0.3),
    plateAngle_rad: number('Angle of the plate', 'angle', 0, Math.PI / 3),
    fluid: fluid('Fluid'),
    reserveStops: number('Stops left without the source, at least', 'count', 1, 20),
    brake: brakeSchema.nullable(),
  })
  .refine(({ brake }) => brake === null || brake.behindFront_m < brake.wheelbase_m, {
    path: ['brake', 'behindFront_m'],
    message: 'Centre of mass behind the front axle: it lies between the axles.',
  });
export type PlaceFields = z.infer<typeof placeFields>;

export const ASSISTS = {
  vacuum: 'Vacuum',
  pumped: 'The steering pump, or a pump of its own',
  electric: 'A motor',
} as const;

/** A candidate, as its form shows it. */
export const candidateFields = z.strictObject({
  name: z
    .string()
    .trim()
    .min(1, 'Candidate: give it a name.')
    .max(120, 'Candidate: 120 characters at the most.')
    .meta({ title: 'Candidate' }),
  assist: z
    .enum(['vacuum', 'pumped', 'electric'], 'Helped by: choose one.')
    .meta({ title: 'Helped by', labels: ASSISTS }),
  masterBore_m: number('Master bore', 'length', 0.012, 0.045),
  spring_N: number('Return spring', 'force', 0, 600),
  rise_s: number('Rise of the brake', 'duration', 0, 3),
  vacuumNeed_Pa: number('Vacuum that it needs', 'depression', 1000, 95_000),
  flowNeed_m3PerS: number('Flow that it needs', 'pumpFlow', 1e-6, 1e-3),
  pressureNeed_Pa: number('Pressure that it needs', 'pressure', BAR, 300 * BAR),
  current_A: number('Current', 'current', 1, 500),
  dropMost_V: number('Volts lost that it stands', 'voltage', 0.05, 5),
  hoseRating_Pa: number('Rating of its hoses', 'pressure', BAR, 600 * BAR),
  reserveStops: number('Stops stored', 'count', 0, 100),
  length_m: number('Length', 'length', 0.02, 1),
  diameter_m: number('Diameter', 'length', 0.02, 1),
  studSquare_m: number('Stud square', 'length', 0.02, 0.3),
  reservoirAngle_rad: number('Angle that its reservoir stands', 'angle', 0, Math.PI / 2),
  fluid: fluid('Fluid'),
  altered: z.boolean().meta({ title: 'Its spring was made softer, or its sensor moved, to get more help' }),
});
export type CandidateFields = z.infer<typeof candidateFields>;

/** More are no choice any more. */
const MOST_CANDIDATES = 12;

/** Candidates against one vehicle, as they are kept. */
export const comparisonSchema = z.strictObject({
  place: placeFields,
  candidates: z.array(candidateFields).max(MOST_CANDIDATES, `Candidates: ${MOST_CANDIDATES} at the most.`),
});
export type Comparison = z.infer<typeof comparisonSchema>;

/** A vehicle of which nothing is known yet but its name. */
export const unknownPlace = (name: string): PlaceFields => ({
  name,
  vacuumBy: 'manifold',
  altitude_m: null,
  vacuum_Pa: null,
  pumpFlow_m3PerS: null,
  pumpRelief_Pa: null,
  fuse_A: null,
  wireLength_m: null,
  wire_m2: null,
  spaceLength_m: null,
  spaceDiameter_m: null,
  studSquare_m: null,
  plateAngle_rad: null,
  fluid: null,
  reserveStops: null,
  brake: null,
});

/** The vehicle as it is reckoned with. */
export function placeOf({ name: _name, brake, ...rest }: PlaceFields): FittingPlace {
  if (!brake) return { ...rest, brake: null };
  const { frontArea_m2, rearArea_m2, frontFriction, rearFriction, frontRadius_m, rearRadius_m, ...body } =
    brake;
  return {
    ...rest,
    brake: {
      ...body,
      front: { pistonArea_m2: frontArea_m2, friction: frontFriction, effectiveRadius_m: frontRadius_m },
      rear: { pistonArea_m2: rearArea_m2, friction: rearFriction, effectiveRadius_m: rearRadius_m },
    },
  };
}

/** A candidate with what its comparison came to, and its place among the candidates. */
export interface Compared extends Fitted {
  readonly place: number;
}

/** Every candidate of a comparison, in the order of its ranking. */
export function comparedIn({ place, candidates }: Comparison): Compared[] {
  const named = candidates.map((candidate, i): Candidate => ({ ...candidate, name: String(i) }));
  return compared(placeOf(place), named).map((one) => {
    const at = Number(one.name);
    return { ...one, place: at, name: candidates[at]!.name };
  });
}
