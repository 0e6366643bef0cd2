import { z } from 'zod';
import { defineWorking, field } from '../contract/working';
import { axis, BAR, steps } from '../plot/axes';
import { Plot } from '../plot/plot';
import { locksFirstAlone, ruleAlone, stopAlone, travelAtHard_m, type FootAlone } from '../vehicle/foot-alone';
import { FAILED_ASSIST } from '../vehicle/stopping';

export const footAloneFields = z.strictObject({
  pedal_N: field('Pedal force', 'force', 0, 1000),
  masterBore_m: field('Master cylinder bore', 'length', 0.012, 0.045),
  frontArea_m2: field('Piston area, one side of one front caliper', 'area', 2e-4, 1e-2),
  rearArea_m2: field('Piston area, one side of one rear caliper', 'area', 1e-4, 1e-2),
  pedalRatio: field('Pedal ratio', 'ratio', 1, 8),
  stroke_m: field('Pedal travel to its stop', 'travel', 0.03, 0.25),
  mass_kg: field('Mass, laden', 'mass', 300, 8000),
  friction_front: field('Friction of the front pads', 'ratio', 0.1, 0.8),
  friction_rear: field('Friction of the rear pads', 'ratio', 0.1, 0.8),
  radius_front_m: field('Effective radius, front', 'length', 0.04, 0.3),
  radius_rear_m: field('Effective radius, rear', 'length', 0.04, 0.3),
  tyreRadius_m: field('Rolling radius of the tyres', 'length', 0.15, 0.7),
  spring_N: field('Return spring of the booster', 'force', 0, 600),
  freeTravel_m: field('Free travel of the pushrod', 'travel', 0, 0.01),
  clearance_m: field('Clearance of each pad', 'length', 0, 0.002),
  give_m3PerPa: field('Give of calipers, hoses and fluid', 'volumePerPressure', 0, 1e-11),
  split_Pa: field('Pressure at which the rear is held back', 'pressure', BAR, 200 * BAR),
  slope: field('Rear pressure for each front one beyond that', 'ratio', 0.05, 1),
  contact_Pa: field('Pressure that presses nothing yet', 'pressure', 0, 10 * BAR),
  grip: field('Grip of the tyres', 'ratio', 0.05, 1.3),
  wheelbase_m: field('Wheelbase', 'length', 1, 8),
  behindFront_m: field('Centre of mass behind the front axle', 'length', 0.2, 7),
  height_m: field('Height of the centre of mass', 'length', 0.1, 3),
});
export type FootAloneFields = z.infer<typeof footAloneFields>;

/** The vehicle of the fields. @throws RangeError where its centre of mass lies behind its rear axle */
export function footAloneOf(fields: FootAloneFields): FootAlone {
  if (fields.behindFront_m >= fields.wheelbase_m)
    throw new RangeError('behindFront_m: the centre of mass lies between the axles');
  const { frontArea_m2, rearArea_m2, friction_front, friction_rear, radius_front_m, radius_rear_m, ...rest } =
    fields;
  return {
    ...rest,
    front: { pistonArea_m2: frontArea_m2, friction: friction_front, effectiveRadius_m: radius_front_m },
    rear: { pistonArea_m2: rearArea_m2, friction: friction_rear, effectiveRadius_m: radius_rear_m },
  };
}

/** A made-up van. */
export const FOOT_ALONE_EXAMPLE: FootAloneFields = {
  pedal_N: 350,
  masterBore_m: 0.0222,
  frontArea_m2: 2.552e-3,
  rearArea_m2: 1.018e-3,
  pedalRatio: 3.6,
  stroke_m: 0.13,
  mass_kg: 1400,
  friction_front: 0.38,
  friction_rear: 0.36,
  radius_front_m: 0.12,
  radius_rear_m: 0.12,
  tyreRadius_m: 0.31,
  spring_N: 130,
  freeTravel_m: 0.0012,
  clearance_m: 0.00015,
  give_m3PerPa: 4.5e-13,
  split_Pa: 30 * BAR,
  slope: 0.4,
  contact_Pa: 0.4 * BAR,
  grip: 0.8,
  wheelbase_m: 2.6,
  behindFront_m: 1.1,
  height_m: 0.55,
};

/** A pedal force with no assist: metres, travel, and which axle holds no more. */
export const footAlone = defineWorking<FootAloneFields>({
  name: 'foot-alone',
  title: 'Foot alone',
  about:
    'What a pedal force comes to with the assist failed: deceleration, metres and pedal travel, by master bore, piston areas and pedal ratio.',
  source: 'Handbook 11: p = (F·i − F_s)/A_mc, travel i·(free + V/A_mc), each axle at most grip × its load',
  input: footAloneFields,
  example: FOOT_ALONE_EXAMPLE,
  compute: (fields) => {
    const brake = footAloneOf(fields);
    const stop = stopAlone(brake, fields.pedal_N);
    const rule = ruleAlone(brake);
    const locks = locksFirstAlone(brake);
    return [
      { id: 'pressure_Pa', name: 'Line pressure', value: stop.pressure_Pa, quantity: 'pressure' },
      {
        id: 'deceleration_mPerS2',
        name: 'Deceleration',
        value: stop.deceleration_mPerS2,
        quantity: 'acceleration',
      },
      stop.distance_m === null
        ? { id: 'distance_m', name: 'Stopping distance from 100 km/h', text: 'nothing slows it down' }
        : {
            id: 'distance_m',
            name: 'Stopping distance from 100 km/h',
            value: stop.distance_m,
            quantity: 'altitude',
          },
      { id: 'limit_m', name: 'Asked of passenger cars, at most', value: rule.limit_m, quantity: 'altitude' },
      { id: 'travel_m', name: 'Pedal travel', value: stop.travel_m, quantity: 'travel' },
      {
        id: 'travelPart',
        name: 'Of the travel to its stop',
        value: stop.travel_m / fields.stroke_m,
        quantity: 'percent',
      },
      {
        id: 'travelHard',
        name: 'Of it at 0.6 g (typical: 55 % at most)',
        value: travelAtHard_m(brake) / fields.stroke_m,
        quantity: 'percent',
      },
      {
        id: 'rulePedal_N',
        name: 'Pedal force that the rule’s stop takes',
        value: rule.pedal_N,
        quantity: 'force',
      },
      { id: 'volume_m3', name: 'Fluid that stop takes', value: rule.volume_m3, quantity: 'fluidVolume' },
      {
        id: 'masterGives_m3',
        name: 'Fluid that the master gives',
        value: rule.masterGives_m3,
        quantity: 'fluidVolume',
      },
      {
        id: 'slides',
        name: 'Tyres that hold no more',
        text: stop.slides === null ? 'none' : stop.slides === 'both' ? 'all' : `${stop.slides} axle`,
      },
      {
        id: 'locks',
        name: 'Locks first on this grip',
        text: locks === null ? 'neither axle' : `${locks.axle} axle`,
      },
    ];
  },
  picture: (fields, set) => {
    const brake = footAloneOf(fields);
    const x = axis('Pedal force', 'force', set, 0, 1000);
    const y = axis('Stopping distance from 100 km/h', 'altitude', set, 0, MOST_M);
    const plot = new Plot(x, y);
    const at = (pedal_N: number) => Math.min(MOST_M, stopAlone(brake, pedal_N).distance_m ?? MOST_M);
    plot.line(steps(0, 1000).map((pedal_N) => [x.at(pedal_N), y.at(at(pedal_N))] as const));
    const { limit_m } = ruleAlone(brake);
    plot.line(
      [0, 1000].map((pedal_N) => [x.at(pedal_N), y.at(limit_m)] as const),
      { dashed: true },
    );
    plot.mark(x.at(FAILED_ASSIST.pedal_N), 'rule: 500 N');
    plot.point(x.at(fields.pedal_N), y.at(at(fields.pedal_N)));
    return plot.svg('Stopping distance against pedal force with the assist failed; dashed 168 m');
  },
});
/** Metres at the top of the picture: more is further than anybody can see. */
const MOST_M = 400;

/** Bores of the trade-off, m. */
const BORES: readonly [number, number] = [0.015, 0.035];

/** What another bore trades: pedal force of the rule’s stop against the travel that it takes, one point to a bore. */
export function boreTradeOff(fields: FootAloneFields, set: Parameters<typeof axis>[2]): string {
  const at = (masterBore_m: number) => {
    const brake = footAloneOf({ ...fields, masterBore_m });
    const { pedal_N, travel_m } = ruleAlone(brake);
    return { pedal_N, part: travel_m / fields.stroke_m };
  };
  const bores = steps(...BORES, 60);
  const all = bores.map(at);
  const x = axis(
    'Travel for the rule’s stop, of all there is',
    'percent',
    set,
    0,
    Math.min(1.5, 1.1 * Math.max(...all.map(({ part }) => part))),
  );
  const y = axis(
    'Pedal force for it',
    'force',
    set,
    0,
    1.1 * Math.max(600, ...all.map(({ pedal_N }) => pedal_N)),
  );
  const plot = new Plot(x, y);
  plot.line(
    all
      .filter(({ part }) => x.at(part) <= x.high)
      .map(({ part, pedal_N }) => [x.at(part), y.at(pedal_N)] as const),
  );
  plot.line(
    [0, x.high].map((at) => [at, y.at(FAILED_ASSIST.pedal_N)] as const),
    { dashed: true },
  );
  plot.mark(x.at(1), 'pedal at its stop');
  const now = at(fields.masterBore_m);
  plot.point(Math.min(x.high, x.at(now.part)), y.at(now.pedal_N));
  return plot.svg('Pedal force against travel, by master bore; dashed 500 N');
}
