import { z } from 'zod';
import { Plot } from '../plot/plot';
import { motionEnergy_J } from '../vehicle/stopping';
import { axis, steps } from '../plot/axes';
import { defineWorking, field } from '../contract/working';

/** Heat capacity of cast iron, J/(kg·K). */
const IRON_J_PER_KG_K = 460;

const fields = z.strictObject({
  mass_kg: field('Mass', 'mass', 300, 5000),
  speed_mPerS: field('Speed', 'speed', 1, 70),
  share: field('Part of it that goes into one axle', 'percent', 0.05, 1),
  disc_kg: field('Mass of one disc or drum', 'mass', 1, 60),
  regenerated: field('Part that is taken back by regeneration', 'percent', 0, 1),
});
type Fields = z.infer<typeof fields>;

const rise_K = ({ mass_kg, share, disc_kg, regenerated }: Fields, speed_mPerS: number) =>
  (motionEnergy_J(mass_kg, speed_mPerS) * (1 - regenerated) * share) / (2 * disc_kg * IRON_J_PER_KG_K);

/** Energy of one stop, ½·m·v² with the half, and how hot a disc gets at the most. */
export const stopHeat = defineWorking<Fields>({
  name: 'stop-heat',
  title: 'Heat of a stop',
  about:
    'Energy of one stop, ½·m·v² with what turns in it, and how much hotter a disc of cast iron gets by it at the most.',
  source: 'Energy of motion; no heat lost while it stops',
  input: fields,
  example: { mass_kg: 1400, speed_mPerS: 100 / 3.6, share: 0.7, disc_kg: 6, regenerated: 0 },
  compute: (input) => [
    {
      id: 'energy_J',
      name: 'Energy of the stop',
      value: motionEnergy_J(input.mass_kg, input.speed_mPerS),
      quantity: 'energy',
    },
    {
      id: 'rise',
      name: 'A disc gets hotter by at most',
      text: `${Math.round(rise_K(input, input.speed_mPerS))} K`,
    },
  ],
  picture: (input, set) => {
    const most = Math.max(40, 1.3 * input.speed_mPerS);
    const x = axis('Speed', 'speed', set, 0, most);
    const plot = new Plot(x, { title: 'Hotter by, K', low: 0, high: 1.1 * rise_K(input, most) });
    plot.line(steps(0, most).map((v) => [x.at(v), rise_K(input, v)] as const));
    plot.point(x.at(input.speed_mPerS), rise_K(input, input.speed_mPerS));
    return plot.svg('How much hotter a disc gets by one stop, against speed: four times at twice the speed');
  },
});
