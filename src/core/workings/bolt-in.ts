import { z } from 'zod';
import { defineWorking, field, type Answered } from '../contract/working';
import { SUPPLY_KINDS } from '../air/supply';
import { FLUID_KINDS, FLUIDS } from '../fluid/kinds';
import { axis } from '../plot/axes';
import { Plot } from '../plot/plot';
import { INHG_PA } from '../quantities/units';
import { fitted, type Candidate, type FittingPlace, type Margin } from '../vehicle/fitting';
import { FOOT_ALONE_EXAMPLE, footAloneFields, footAloneOf } from './foot-alone';

const BAR = 1e5;
const DEG = Math.PI / 180;

const ASSISTS = { vacuum: 'Vacuum', pumped: 'A pump', electric: 'A motor' } as const;
const own = footAloneFields.omit({ pedal_N: true, masterBore_m: true, spring_N: true }).shape;

const fields = z.strictObject({
  assist: z.enum(['vacuum', 'pumped', 'electric']).meta({ title: 'Helped by', labels: ASSISTS }),
  masterBore_m: field('Candidate: master bore', 'length', 0.012, 0.045).nullable(),
  spring_N: field('Candidate: return spring', 'force', 0, 600).nullable(),
  rise_s: field('Candidate: rise', 'duration', 0, 3).nullable(),
  vacuumNeed_Pa: field('Candidate: vacuum that it needs', 'depression', 1000, 95_000).nullable(),
  flowNeed_m3PerS: field('Candidate: flow that it needs', 'pumpFlow', 1e-6, 1e-3).nullable(),
  pressureNeed_Pa: field('Candidate: pressure that it needs', 'pressure', BAR, 300 * BAR).nullable(),
  current_A: field('Candidate: current', 'current', 1, 500).nullable(),
  dropMost_V: field('Candidate: volts lost that it stands', 'voltage', 0.05, 5).nullable(),
  hoseRating_Pa: field('Candidate: rating of its hoses', 'pressure', BAR, 600 * BAR).nullable(),
  storedStops: field('Candidate: stops stored', 'count', 0, 100).nullable(),
  length_m: field('Candidate: length', 'length', 0.02, 1).nullable(),
  diameter_m: field('Candidate: diameter', 'length', 0.02, 1).nullable(),
  studs_m: field('Candidate: stud square', 'length', 0.02, 0.3).nullable(),
  reservoirAngle_rad: field('Candidate: angle that its reservoir stands', 'angle', 0, Math.PI / 2).nullable(),
  candidateFluid: z.enum(FLUID_KINDS).meta({ title: 'Candidate: fluid', labels: FLUIDS }),
  altitude_m: field('Where the owner lives', 'altitude', -500, 6000).nullable(),
  vacuum_Pa: field('Vacuum of the vehicle, at sea level', 'depression', 0, 101_325).nullable(),
  vacuumBy: z
    .enum(SUPPLY_KINDS)
    .meta({ title: 'It comes from', labels: { pump: 'a vacuum pump', manifold: 'an engine manifold' } }),
  pumpFlow_m3PerS: field('Flow of the pump', 'pumpFlow', 0, 1e-2).nullable(),
  pumpRelief_Pa: field('Relief of the pump', 'pressure', BAR, 300 * BAR).nullable(),
  fuse_A: field('Fuse of the feed', 'current', 1, 500).nullable(),
  wireLength_m: field('Run of the wire, one way', 'length', 0.1, 30).nullable(),
  wire_m2: field('Copper of the wire', 'wireSection', 0.2e-6, 200e-6).nullable(),
  reserveStops: field('Stops that are to be left', 'count', 1, 20).nullable(),
  spaceLength_m: field('Space: length', 'length', 0.02, 2).nullable(),
  spaceDiameter_m: field('Space: diameter', 'length', 0.02, 1).nullable(),
  plateStuds_m: field('Stud square of the plate', 'length', 0.02, 0.3).nullable(),
  plateAngle_rad: field('Angle of the plate', 'angle', 0, Math.PI / 3).nullable(),
  vehicleFluid: z.enum(FLUID_KINDS).meta({ title: 'Fluid of the vehicle', labels: FLUIDS }),
  ...own,
});
type Fields = z.infer<typeof fields>;

const { pedal_N: _pedal, masterBore_m, spring_N, ...brake } = FOOT_ALONE_EXAMPLE;

/** The two sides that the fields tell of. @throws RangeError where the centre of mass lies behind the rear axle */
function sidesOf(asked: Fields): { readonly place: FittingPlace; readonly candidate: Candidate } {
  const {
    masterBore_m: _bore,
    spring_N: _spring,
    ...of
  } = footAloneOf({
    ...asked,
    pedal_N: 0,
    masterBore_m,
    spring_N,
  });
  return {
    place: {
      ...asked,
      brake: of,
      studSquare_m: asked.plateStuds_m,
      fluid: asked.vehicleFluid,
    },
    candidate: {
      ...asked,
      name: 'the candidate',
      studSquare_m: asked.studs_m,
      reserveStops: asked.storedStops,
      fluid: asked.candidateFluid,
      altered: false,
    },
  };
}

const VERDICTS = {
  fits: 'It fits, by these figures',
  'not-known': 'Not known yet',
  'does-not-fit': 'It does not fit',
} as const;

const answered = (one: Margin): Answered =>
  !one.known
    ? { id: one.id, name: one.name, text: `not known yet: ${one.lacks.join(', ')}` }
    : one.sense === 'alike'
      ? { id: one.id, name: one.name, text: one.says }
      : { id: one.id, name: `${one.name}, margin`, value: one.margin, quantity: 'percent' };

/** A candidate against a vehicle: does it bolt in and stop it? Every margin, and the verdict with its reasons. */
export const boltIn = defineWorking<Fields>({
  name: 'bolt-in',
  title: 'Another assist: does it fit?',
  about:
    'A candidate against a vehicle, every margin by itself: one that is missed is never bought back by others, and a figure that is left empty is “not known yet”.',
  source: 'Handbook 17, handbook-models 11: (have − need)/need, (limit − value)/limit',
  input: fields,
  example: {
    assist: 'vacuum',
    masterBore_m,
    spring_N,
    rise_s: 0.4,
    vacuumNeed_Pa: 15 * INHG_PA,
    flowNeed_m3PerS: null,
    pressureNeed_Pa: null,
    current_A: null,
    dropMost_V: null,
    hoseRating_Pa: null,
    storedStops: 3,
    length_m: 0.27,
    diameter_m: 0.23,
    studs_m: 0.08,
    reservoirAngle_rad: 60 * DEG,
    candidateFluid: 'dot4',
    altitude_m: 300,
    vacuum_Pa: 19 * INHG_PA,
    vacuumBy: 'manifold',
    pumpFlow_m3PerS: null,
    pumpRelief_Pa: null,
    fuse_A: null,
    wireLength_m: null,
    wire_m2: null,
    reserveStops: 2,
    spaceLength_m: 0.3,
    spaceDiameter_m: 0.25,
    plateStuds_m: 0.08,
    plateAngle_rad: 5 * DEG,
    vehicleFluid: 'dot4',
    ...brake,
  },
  compute: (asked) => {
    const { place, candidate } = sidesOf(asked);
    const { margins, verdict, reasons, score, least } = fitted(place, candidate);
    return [
      {
        id: 'verdict',
        name: 'Verdict',
        text: [VERDICTS[verdict], ...reasons].join('. ').replace(/\.\./g, '.'),
      },
      ...(score === null ? [] : [{ id: 'score', name: 'Score', value: score, quantity: 'percent' } as const]),
      ...(least === null
        ? []
        : [
            {
              id: 'least',
              name: `Least margin: ${least.name.toLowerCase()}`,
              value: least.margin,
              quantity: 'percent',
            } as const,
          ]),
      ...margins.map(answered),
    ];
  },
  picture: (asked, set) => {
    const { place, candidate } = sidesOf(asked);
    const { margins } = fitted(place, candidate);
    const known = margins.flatMap((one, i) =>
      one.known ? [{ at: i + 1, margin: Math.max(-1, Math.min(1, one.margin)) }] : [],
    );
    const x = { title: 'Margins in their order', low: 0, high: margins.length + 1 };
    const y = axis('Margin', 'percent', set, -1, 1);
    const plot = new Plot(x, y);
    plot.line([
      [0, 0],
      [x.high, 0],
    ]);
    for (const { at, margin } of known) plot.point(at, y.at(margin), margin >= 0);
    return plot.svg('Each margin: above the line it is kept, below it is missed');
  },
});
