import { z } from 'zod';
import { defineWorking, field } from '../contract/working';
import { circle_m2 } from '../numeric/circle';
import { axis, BAR, steps } from '../plot/axes';
import { Plot } from '../plot/plot';
import { blended, canRegenerate_Nm } from '../vehicle/blend';
import { axleGain_NPerPa } from '../vehicle/brake-force';

const fields = z
  .strictObject({
    mass_kg: field('Mass', 'mass', 300, 20_000),
    tyre_m: field('Radius of the tyre', 'length', 0.15, 0.7),
    deceleration_mPerS2: field('Deceleration asked for', 'acceleration', 0.2, 10),
    from_mPerS: field('From', 'speed', 2, 60),
    frontShare: field('Share of the front axle', 'percent', 0.2, 0.95),
    driven: z
      .enum(['front', 'rear'])
      .meta({ title: 'Driven axle', labels: { front: 'Front', rear: 'Rear' } }),
    frontPiston_m: field('Piston of a front caliper', 'travel', 0.02, 0.12),
    rearPiston_m: field('Piston of a rear caliper', 'travel', 0.02, 0.12),
    radius_m: field('Effective radius of the discs', 'length', 0.05, 0.3),
    frontFriction: field('Friction of the front pads', 'ratio', 0.1, 0.8),
    rearFriction: field('Friction of the rear pads', 'ratio', 0.1, 0.8),
    contact_Pa: field('Pressure that presses nothing yet', 'pressure', 0, 5 * BAR),
    most_Pa: field('Most that a wheel is given', 'pressure', 10 * BAR, 250 * BAR),
    most_Nm: field('Most torque of the machine at the wheels', 'torque', 0, 20_000),
    power_W: field('Most power of the machine', 'power', 0, 500_000),
    fadesFrom_mPerS: field('Fades from', 'speed', 0.5, 20),
    fadesTo_mPerS: field('Fades to nothing at', 'speed', 0, 19),
    granted: field('Part that the battery grants', 'percent', 0, 1),
    fastMore: field('Fast stroke, more by', 'percent', 0, 1),
  })
  .refine(({ fadesFrom_mPerS, fadesTo_mPerS }) => fadesFrom_mPerS > fadesTo_mPerS, {
    path: ['fadesTo_mPerS'],
    message: 'Fades to nothing at: it must be below the speed from which it fades.',
  });
type Fields = z.infer<typeof fields>;

const vehicleOf = (asked: Fields) => ({
  ...asked,
  front_NmPerPa: axleGain_NPerPa(asked.frontFriction, circle_m2(asked.frontPiston_m), asked.radius_m, 1),
  rear_NmPerPa: axleGain_NPerPa(asked.rearFriction, circle_m2(asked.rearPiston_m), asked.radius_m, 1),
});
const at = (asked: Fields, speed_mPerS: number) =>
  blended(vehicleOf(asked), asked, {
    deceleration_mPerS2: asked.deceleration_mPerS2,
    speed_mPerS,
    fastMore: asked.fastMore,
    grants_Nm: asked.granted * canRegenerate_Nm(asked, asked.tyre_m, speed_mPerS),
  });

/** How brakes and regeneration share a stop, down to where the machine fades out. */
export const blendedStop = defineWorking<Fields>({
  name: 'blended-stop',
  title: 'Blend of a stop: regenerated, and left to friction',
  about:
    'What is asked for, regenerated and left to friction at the beginning of a stop, and the pressures over all of it. These torques are calculated: none of them was measured.',
  source: 'Handbook-models 8.9: total → requested → granted → friction → pressure of each axle',
  input: fields,
  example: {
    mass_kg: 1600,
    tyre_m: 0.31,
    deceleration_mPerS2: 2.5,
    from_mPerS: 20,
    frontShare: 0.7,
    driven: 'front',
    frontPiston_m: 0.057,
    rearPiston_m: 0.036,
    radius_m: 0.12,
    frontFriction: 0.38,
    rearFriction: 0.36,
    contact_Pa: 0.4 * BAR,
    most_Pa: 150 * BAR,
    most_Nm: 800,
    power_W: 40_000,
    fadesFrom_mPerS: 3.5,
    fadesTo_mPerS: 1.5,
    granted: 1,
    fastMore: 0,
  },
  compute: (asked) => {
    const { total_Nm, requested_Nm, granted_Nm, friction_Nm, front_Pa, rear_Pa, short_Nm } = at(
      asked,
      asked.from_mPerS,
    );
    return [
      { id: 'total_Nm', name: 'Torque asked for, calculated', value: total_Nm, quantity: 'torque' },
      { id: 'requested_Nm', name: 'Asked of the machine', value: requested_Nm, quantity: 'torque' },
      { id: 'granted_Nm', name: 'Granted', value: granted_Nm, quantity: 'torque' },
      { id: 'friction_Nm', name: 'Left to friction', value: friction_Nm, quantity: 'torque' },
      { id: 'front_Pa', name: 'Front wheels', value: front_Pa, quantity: 'pressure' },
      { id: 'rear_Pa', name: 'Rear wheels', value: rear_Pa, quantity: 'pressure' },
      ...(short_Nm > 0
        ? ([
            {
              id: 'short_Nm',
              name: 'Short of it, since no wheel is given more',
              value: short_Nm,
              quantity: 'torque',
            },
          ] as const)
        : []),
    ];
  },
  picture: (asked, set) => {
    const speeds = steps(0, asked.from_mPerS, 120);
    const all = speeds.map((speed) => at(asked, speed));
    const most = Math.max(BAR, ...all.flatMap(({ front_Pa, rear_Pa }) => [front_Pa, rear_Pa]));
    const x = axis('Speed', 'speed', set, 0, asked.from_mPerS);
    const y = axis('Pressure at the wheels', 'pressure', set, 0, 1.2 * most);
    const plot = new Plot(x, y);
    const line = (of: (one: (typeof all)[number]) => number) =>
      speeds.map((speed, i) => [x.at(speed), y.at(of(all[i]!))] as const);
    plot.line(
      line(({ rear_Pa }) => rear_Pa),
      { dashed: true },
    );
    plot.line(line(({ front_Pa }) => front_Pa));
    const first = at(asked, asked.from_mPerS);
    plot.words(x.at(asked.from_mPerS), y.at(first.front_Pa), 'front');
    plot.words(x.at(asked.from_mPerS), y.at(first.rear_Pa), 'rear');
    return plot.svg('Pressure of both axles against the speed of a stop: it rises as the machine fades out');
  },
});
