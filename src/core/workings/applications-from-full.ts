import { z } from 'zod';
import { BAR } from '../plot/axes';
import { given_m3 } from '../fluid/emptied';
import { drawEmptied, vesselFields } from './emptied-vessel';
import { defineWorking, field } from '../contract/working';

const fields = z.strictObject({
  ...vesselFields,
  lamp_Pa: field('Lamp lights at', 'pressure', BAR, 250 * BAR),
  application_m3: field('Fluid for each application', 'fluidVolume', 1e-8, 1e-3),
});
type Fields = z.infer<typeof fields>;

/** Fluid that comes out until the lamp lights. @throws RangeError where it would light at once */
function given(asked: Fields, heated: boolean): number {
  if (asked.lamp_Pa >= asked.full_Pa)
    throw new RangeError('lamp_Pa: the lamp has to light below the pressure of a full vessel');
  return given_m3(asked, asked.lamp_Pa, heated);
}
const count = (asked: Fields, heated: boolean) => Math.floor(given(asked, heated) / asked.application_m3);

/** How many applications a full vessel gives with its pump off: between quick ones, and ones that are far apart. */
export const applicationsFromFull = defineWorking<Fields>({
  name: 'applications-from-full',
  title: 'Applications from a full accumulator',
  about:
    'How many applications a full vessel gives until the lamp lights, pump off: one behind the other the gas cools and gives fewer.',
  source: 'Benedict–Webb–Rubin with constants of Cooper & Goldfrank 1967, isothermal and isentropic',
  input: fields,
  example: {
    shell_m3: 0.4e-3,
    preCharge_Pa: 65 * BAR,
    temperature_K: 293.15,
    full_Pa: 165 * BAR,
    lamp_Pa: 85 * BAR,
    application_m3: 2.5e-6,
  },
  compute: (asked) => [
    { id: 'slow', name: 'Far apart', value: count(asked, true), quantity: 'count' },
    { id: 'fast', name: 'One behind the other', value: count(asked, false), quantity: 'count' },
    { id: 'slow_m3', name: 'Fluid given, far apart', value: given(asked, true), quantity: 'fluidVolume' },
    { id: 'fast_m3', name: 'Fluid given at once', value: given(asked, false), quantity: 'fluidVolume' },
  ],
  picture: (asked, set) =>
    drawEmptied(
      asked,
      {
        draws: 'Applications',
        draw_m3: asked.application_m3,
        fast: count(asked, false),
        slow: count(asked, true),
        least_Pa: asked.lamp_Pa,
        word: 'lamp',
        says: 'Pressure left after each application, far apart; dashed, one behind the other; and the lamp',
      },
      set,
    ),
});
