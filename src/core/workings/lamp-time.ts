import { z } from 'zod';
import { SEA_LEVEL_PA } from '../air/atmosphere';
import { Plot } from '../plot/plot';
import { USUAL_SETTLING_S, Vessel } from '../fluid/accumulator';
import { timeToFall_s } from '../fluid/charging';
import { HYDRAULIC_FLUIDS, landLeak_m3, viscosity_PaS, viscositySpread } from '../fluid/hydraulic-fluid';
import { axis, BAR, steps } from '../plot/axes';
import { fluidField } from './fluid-field';
import { defineWorking, field } from '../contract/working';

const fields = z.strictObject({
  shell_m3: field('Inside of the shell', 'volume', 1e-5, 0.02),
  preCharge_Pa: field('Pre-charge at 20 °C', 'pressure', 0, 250 * BAR),
  from_Pa: field('Settled pressure at first', 'pressure', BAR, 250 * BAR),
  lamp_Pa: field('Lamp lights at', 'pressure', BAR, 250 * BAR),
  diameter_m: field('Spool diameter', 'length', 1e-3, 0.05),
  land_m: field('Length of a land', 'length', 5e-4, 0.05),
  clearance_m: field('Radial clearance', 'clearance', 5e-7, 5e-5),
  lands: field('Lands that leak beside one another', 'count', 1, 12),
  fluid: fluidField,
  oil_K: field('Temperature of fluid and shell', 'temperature', 243.15, 373.15),
});
type Fields = z.infer<typeof fields>;

/** A spool lies halfway out of the middle where nothing is known. Handbook-models P.2. */
const ECCENTRICITY = 0.5;

/** Time until the lamp lights, s: none where the gas alone stands higher than the pressure at first. */
function timeAt(asked: Fields, temperature_K: number, thicker = 1): number {
  const vessel = new Vessel(
    { ...asked, settling_s: USUAL_SETTLING_S },
    { barometer_Pa: SEA_LEVEL_PA, temperature_K },
  );
  if (vessel.flickUp_Pa >= asked.from_Pa) return 0;
  const viscosity = thicker * viscosity_PaS(HYDRAULIC_FLUIDS[asked.fluid], temperature_K);
  const passage = passage_m3(asked);
  // Empty at the flick-up the pressure is gone at once: the lamp lights there if not before.
  const lit_Pa = Math.max(asked.lamp_Pa, vessel.flickUp_Pa);
  return timeToFall_s(vessel, asked.from_Pa, lit_Pa, (pressure) => (passage * pressure) / viscosity);
}

const passage_m3 = ({ diameter_m, land_m, clearance_m, lands }: Fields): number =>
  lands * landLeak_m3({ diameter_m, length_m: land_m, clearance_m, eccentricity: ECCENTRICITY });

const inWords = (time_s: number): string => {
  const minutes = Math.round(time_s / 60);
  return minutes < 60 ? `${minutes} min` : `${Math.floor(minutes / 60)} h ${minutes % 60} min`;
};

/** How long a stored-pressure circuit stands until its lamp lights, by the clearance that its spools were made with. */
export const lampTime = defineWorking<Fields>({
  name: 'lamp-time',
  title: 'Time to lamp against oil temperature',
  about:
    'How long settled pressure lasts through spools that leak as they were made to: the same circuit lasts twice as long in the cold.',
  source: 'Annular leakage, Merritt 1967; viscosity ASTM D341; real nitrogen',
  input: fields,
  example: {
    shell_m3: 0.4e-3,
    preCharge_Pa: 65 * BAR,
    from_Pa: 135 * BAR,
    lamp_Pa: 85 * BAR,
    diameter_m: 8e-3,
    land_m: 8e-3,
    clearance_m: 4e-6,
    lands: 2,
    fluid: 'mineral',
    oil_K: 291.15,
  },
  compute: (asked) => {
    if (asked.lamp_Pa >= asked.from_Pa)
      throw new RangeError('lamp_Pa: the lamp has to light below the pressure at first');
    const time_s = timeAt(asked, asked.oil_K);
    if (time_s === 0)
      throw new RangeError('preCharge_Pa: the gas alone stands higher than the pressure at first');
    const spread = viscositySpread(asked.oil_K);
    const viscosity = viscosity_PaS(HYDRAULIC_FLUIDS[asked.fluid], asked.oil_K);
    return [
      { id: 'time_s', name: 'Lamp after', value: time_s, quantity: 'duration' },
      { id: 'words', name: 'That is', text: inWords(time_s) },
      {
        id: 'between',
        name: 'Fluids of this class',
        text: `from ${inWords(timeAt(asked, asked.oil_K, 1 - spread))} to ${inWords(timeAt(asked, asked.oil_K, 1 + spread))}`,
      },
      {
        id: 'leak_m3PerS',
        name: 'Leak at first',
        value: (passage_m3(asked) * asked.from_Pa) / viscosity,
        quantity: 'leakRate',
      },
      { id: 'viscosity_PaS', name: 'Viscosity', value: viscosity, quantity: 'viscosity' },
    ];
  },
  picture: (asked, set) => {
    const [low, high] = [Math.min(263.15, asked.oil_K), Math.max(333.15, asked.oil_K)];
    const hours = (t: number) => timeAt(asked, t) / 3600;
    const curve = steps(low, high).map((t) => [t, hours(t)] as const);
    const x = axis('Temperature of fluid and shell', 'temperature', set, low, high);
    const most = 1.1 * Math.max(...curve.map(([t, h]) => h * (1 + viscositySpread(t))), 0.1);
    const plot = new Plot(x, { title: 'Time to lamp, h', low: 0, high: most });
    const thicker = (side: number) =>
      curve.map(([t, h]) => [x.at(t), h * (1 + side * viscositySpread(t))] as const);
    plot.band(thicker(-1), thicker(1));
    plot.line(thicker(0));
    plot.point(x.at(asked.oil_K), hours(asked.oil_K));
    return plot.svg(
      'Time until the lamp lights, against the temperature of the fluid, for fluids of the class',
    );
  },
});
