import { z } from 'zod';
import { SEA_LEVEL_PA } from '../air/atmosphere';
import { Plot } from '../documents/plot';
import { USUAL_SETTLING_S, Vessel } from '../fluid/accumulator';
import { axis, BAR } from './drawing';
import { defineWorking, field } from './working';

const fields = z.strictObject({
  shell_m3: field('Inside of the shell', 'volume', 1e-5, 0.02),
  preCharge_Pa: field('Pre-charge at 20 °C', 'pressure', 0, 250 * BAR),
  temperature_K: field('Temperature of the shell', 'temperature', 243.15, 353.15),
  full_Pa: field('Settled at', 'pressure', BAR, 250 * BAR),
  lamp_Pa: field('Lamp lights at', 'pressure', BAR, 250 * BAR),
  application_m3: field('Fluid for each application', 'fluidVolume', 1e-8, 1e-3),
});
type Fields = z.infer<typeof fields>;

/** Applications beyond so many are not drawn. */
const MOST_DRAWN = 120;

/** @throws RangeError naming the field, where the pressures contradict each other */
function vesselOf(asked: Fields): Vessel {
  const vessel = new Vessel(
    { ...asked, settling_s: USUAL_SETTLING_S },
    { barometer_Pa: SEA_LEVEL_PA, temperature_K: asked.temperature_K },
  );
  if (asked.lamp_Pa >= asked.full_Pa)
    throw new RangeError('lamp_Pa: the lamp has to light below the pressure of a full vessel');
  if (vessel.flickUp_Pa >= asked.full_Pa)
    throw new RangeError('preCharge_Pa: the gas alone stands higher than the full vessel');
  return vessel;
}

/** Fluid that comes out until the lamp lights, with heat coming in all the way or none. */
function given_m3(asked: Fields, heated: boolean): number {
  const vessel = vesselOf(asked);
  const full = vessel.settledAt(asked.full_Pa);
  const lit = heated ? vessel.settledAt(asked.lamp_Pa) : vessel.fastTo(full, asked.lamp_Pa);
  return vessel.fluid_m3(full) - vessel.fluid_m3(lit);
}
const count = (asked: Fields, heated: boolean) => Math.floor(given_m3(asked, heated) / asked.application_m3);

/** Pressure after so many applications, with heat coming in or none. */
function left_Pa(asked: Fields, heated: boolean, applications: number): number {
  const vessel = vesselOf(asked);
  const full = vessel.settledAt(asked.full_Pa);
  const gas_m3 = full.gas_m3 + applications * asked.application_m3;
  if (gas_m3 >= asked.shell_m3) return 0;
  const { temperature_K } = heated
    ? full
    : vessel.law.compressedFast(vessel.state(full), gas_m3 / vessel.amount_kmol);
  return vessel.gauge_Pa({ gas_m3, temperature_K });
}

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
    { id: 'slow_m3', name: 'Fluid given, far apart', value: given_m3(asked, true), quantity: 'fluidVolume' },
    { id: 'fast_m3', name: 'Fluid given at once', value: given_m3(asked, false), quantity: 'fluidVolume' },
  ],
  picture: (asked, set) => {
    const most = Math.min(MOST_DRAWN, Math.ceil(1.2 * count(asked, true)) + 1);
    const x = { title: 'Applications', low: 0, high: most };
    const y = axis('Pressure left', 'pressure', set, 0, 1.1 * asked.full_Pa);
    const plot = new Plot(x, y);
    const curve = (heated: boolean) =>
      Array.from({ length: most + 1 }, (_, n) => [n, y.at(left_Pa(asked, heated, n))] as const);
    plot.line(curve(true));
    plot.line(curve(false), { dashed: true });
    plot.line([
      [0, y.at(asked.lamp_Pa)],
      [most, y.at(asked.lamp_Pa)],
    ]);
    plot.words(0, y.at(asked.lamp_Pa), 'lamp');
    const [fast, slow] = [count(asked, false), count(asked, true)];
    plot.mark(fast, `${fast} one behind the other`);
    if (slow > fast) plot.mark(slow, `${slow} far apart`);
    return plot.svg(
      'Pressure left after each application, far apart; dashed, one behind the other; and the lamp',
    );
  },
});
