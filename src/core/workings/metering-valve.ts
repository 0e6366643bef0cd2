import { z } from 'zod';
import { Plot } from '../plot/plot';
import { HYDRAULIC_FLUIDS, viscosity_PaS } from '../fluid/hydraulic-fluid';
import {
  meteredPressure_Pa,
  meteringHysteresis_Pa,
  residualPressure_Pa,
  settlingOf,
} from '../fluid/metering-valve';
import { axis, BAR, steps } from '../plot/axes';
import { fluidField } from './fluid-field';
import { defineWorking, field } from '../contract/working';

const fields = z.strictObject({
  travel_m: field('Travel of the spool’s spring', 'travel', 0, 0.05),
  spring_NPerM: field('Spring', 'stiffness', 1e3, 1e6),
  starts_m: field('Travel before the spool moves', 'travel', 0, 0.02),
  preload_N: field('Preload of the return spring', 'force', 0, 500),
  friction_N: field('Friction of the spool', 'force', 0, 500),
  area_m2: field('Area that the outlet pushes back on', 'area', 1e-5, 1e-2),
  most_Pa: field('Accumulator', 'pressure', BAR, 250 * BAR),
  tank_Pa: field('Return', 'pressure', 0, 20 * BAR),
  drilling_m: field('Feedback drilling, diameter', 'length', 5e-5, 5e-3),
  drillingLength_m: field('Feedback drilling, length', 'length', 5e-4, 0.05),
  flowGain_m2PerS: z
    .number('Flow gain: a number is needed.')
    .min(1e-3, 'Flow gain is too small.')
    .max(10, 'Flow gain is too large.')
    .meta({ title: 'Flow for each metre of opening, m²/s', quantity: 'ratio' }),
  give_m3PerPa: field('Give of what is filled', 'volumePerPressure', 1e-14, 1e-10),
  fluid: fluidField,
  oil_K: field('Temperature of the oil', 'temperature', 233.15, 393.15),
});
type Fields = z.infer<typeof fields>;

/** Resistance of a usual line from the valve, Pa·s/m³. Handbook-models 8.7, example. */
const LINE_PASPERM3 = 3e9;
/** Below this the valve hunts; and below this temperature none is judged. Handbook-models 8.7. */
const HUNTS_BELOW = 0.15;
const JUDGED_FROM_K = 303.15;

const settled = (asked: Fields, oil_K = asked.oil_K) =>
  settlingOf(
    asked,
    { ...asked, line_PaSPerM3: LINE_PASPERM3 },
    { diameter_m: asked.drilling_m, length_m: asked.drillingLength_m },
    viscosity_PaS(HYDRAULIC_FLUIDS[asked.fluid], oil_K),
  );
const pressure = (asked: Fields, travel_m: number, way: 'up' | 'down') =>
  meteredPressure_Pa(asked, travel_m, way, asked.tank_Pa, asked.most_Pa);

/** @throws RangeError where the return stands above the accumulator */
function checked(asked: Fields): Fields {
  if (asked.tank_Pa >= asked.most_Pa)
    throw new RangeError('tank_Pa: the return has to stand below the accumulator that feeds the valve');
  return asked;
}

function verdict({ ratio }: { ratio: number }, oil_K: number): string {
  if (ratio >= HUNTS_BELOW) return 'it settles';
  return oil_K < JUDGED_FROM_K
    ? 'it hunts; oil so cold does that to a sound drilling: judge it from 30 °C on'
    : 'it hunts: the drilling passes too little';
}

/** What a pedal valve lets through over its travel, and how it settles in oil of a temperature. */
export const meteringValve = defineWorking<Fields>({
  name: 'metering-valve',
  title: 'Pedal valve: sweep and damping',
  about:
    'What one circuit of a pedal valve lets through as it is pressed and let go, and whether its drilling damps it at this oil temperature.',
  source: 'Balance of the spool; laminar drilling as a damper; viscosity ASTM D341',
  input: fields,
  example: {
    travel_m: 6e-3,
    spring_NPerM: 160e3,
    starts_m: 1.5e-3,
    preload_N: 35,
    friction_N: 30,
    area_m2: 2.01e-4,
    most_Pa: 150 * BAR,
    tank_Pa: 0,
    drilling_m: 0.8e-3,
    drillingLength_m: 6e-3,
    flowGain_m2PerS: 0.1,
    give_m3PerPa: 1.5e-12,
    fluid: 'vg46',
    oil_K: 313.15,
  },
  compute: (input) => {
    const asked = checked(input);
    const settling = settled(asked);
    return [
      { id: 'up_Pa', name: 'Pressed', value: pressure(asked, asked.travel_m, 'up'), quantity: 'pressure' },
      {
        id: 'down_Pa',
        name: 'Let go to the same travel',
        value: pressure(asked, asked.travel_m, 'down'),
        quantity: 'pressure',
      },
      {
        id: 'hysteresis_Pa',
        name: 'Hysteresis',
        value: meteringHysteresis_Pa(asked),
        quantity: 'pressure',
      },
      {
        id: 'residual_Pa',
        name: 'Left when released',
        value: residualPressure_Pa(asked, asked.tank_Pa),
        quantity: 'pressure',
      },
      { id: 'damping', name: 'Damping ratio ζ', value: settling.ratio, quantity: 'ratio' },
      { id: 'overshoot', name: 'Goes beyond by', value: settling.overshoot, quantity: 'percent' },
      { id: 'verdict', name: 'In this oil', text: verdict(settling, asked.oil_K) },
    ];
  },
  picture: (input, set) => {
    const asked = checked(input);
    const reach_m = asked.starts_m + (asked.most_Pa * asked.area_m2 + asked.preload_N) / asked.spring_NPerM;
    const most_m = Math.max(1.1 * asked.travel_m, Math.min(0.05, 1.1 * reach_m));
    const x = axis('Travel', 'travel', set, 0, most_m);
    const y = axis('Pressure', 'pressure', set, 0, 1.1 * asked.most_Pa);
    const plot = new Plot(x, y);
    const curve = (way: 'up' | 'down') =>
      steps(0, most_m).map((travel) => [x.at(travel), y.at(pressure(asked, travel, way))] as const);
    plot.line(curve('down'), { dashed: true });
    plot.line(curve('up'));
    plot.point(x.at(asked.travel_m), y.at(pressure(asked, asked.travel_m, 'up')));
    return plot.svg('Pressure against travel as it is pressed; dashed, as it is let go');
  },
});
