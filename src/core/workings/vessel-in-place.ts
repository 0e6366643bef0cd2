import { z } from 'zod';
import { SEA_LEVEL_PA } from '../air/atmosphere';
import { Plot } from '../plot/plot';
import { Vessel } from '../fluid/accumulator';
import { axis, BAR, steps } from '../plot/axes';
import { defineWorking, field } from '../contract/working';

const fields = z.strictObject({
  belongs_m3: field('Inside of the vessel that belongs there', 'volume', 1e-5, 0.02),
  belongs_Pa: field('Its pre-charge at 20 °C', 'pressure', 0, 250 * BAR),
  found_m3: field('Inside of the vessel in hand', 'volume', 1e-5, 0.02),
  found_Pa: field('Pre-charge of that at 20 °C', 'pressure', 0, 250 * BAR),
  least_Pa: field('Working pressure, lowest', 'pressure', 0, 250 * BAR),
  most_Pa: field('Working pressure, highest', 'pressure', BAR, 250 * BAR),
  temperature_K: field('Temperature of the shell', 'temperature', 243.15, 353.15),
});
type Fields = z.infer<typeof fields>;

/** Points that are drawn. */
const POINTS = 60;

/** One vessel, settled. */
function vesselOf(shell_m3: number, preCharge_Pa: number, temperature_K: number) {
  const around = { barometer_Pa: SEA_LEVEL_PA, temperature_K };
  // Settled gas does not know how fast it came there.
  const vessel = new Vessel({ shell_m3, preCharge_Pa, settling_s: 1 }, around);
  const fluid_m3 = (pressure_Pa: number) => vessel.fluid_m3(vessel.settledAt(pressure_Pa));
  return { flickUp_Pa: vessel.flickUp_Pa, fluid_m3 };
}

/** Both vessels. @throws RangeError where the working pressures are none, or what belongs there would take up nothing */
function bothOf(asked: Fields) {
  const { belongs_m3, belongs_Pa, found_m3, found_Pa, least_Pa, most_Pa, temperature_K } = asked;
  if (least_Pa >= most_Pa)
    throw new RangeError('least_Pa: the lowest working pressure has to be below the highest');
  const belongs = vesselOf(belongs_m3, belongs_Pa, temperature_K);
  const found = vesselOf(found_m3, found_Pa, temperature_K);
  if (belongs.flickUp_Pa >= most_Pa)
    throw new RangeError(
      'belongs_Pa: a vessel whose gas stands above the highest working pressure takes up nothing: it cannot be the one that belongs there',
    );
  return { belongs, found };
}

/** Whether a vessel that fits the thread does the work of the one that belongs there. */
export const vesselInPlace = defineWorking<Fields>({
  name: 'vessel-in-place',
  title: 'A vessel that fits the thread',
  about:
    'One thread takes many gases. What a vessel takes up between two working pressures beside the one that belongs there, settled: it gives way only where the working pressure exceeds its gas, which is what it flicks up to, and is solid below. Volume and pre-charge are by its label, or as found from its charge.',
  source: 'Benedict–Webb–Rubin with constants of Cooper & Goldfrank 1967',
  input: fields,
  example: {
    belongs_m3: 0.4e-3,
    belongs_Pa: 62 * BAR,
    found_m3: 0.4e-3,
    found_Pa: 110 * BAR,
    least_Pa: 85 * BAR,
    most_Pa: 170 * BAR,
    temperature_K: 293.15,
  },
  compute: (asked) => {
    const { belongs, found } = bothOf(asked);
    const { least_Pa, most_Pa } = asked;
    const takes_m3 = ({ fluid_m3 }: typeof found) => fluid_m3(most_Pa) - fluid_m3(least_Pa);
    const [needed_m3, taken_m3] = [takes_m3(belongs), takes_m3(found)];
    const isSolid = found.flickUp_Pa >= most_Pa;
    return [
      { id: 'belongs_m3', name: 'The one that belongs takes up', value: needed_m3, quantity: 'fluidVolume' },
      { id: 'found_m3', name: 'The one in hand', value: taken_m3, quantity: 'fluidVolume' },
      { id: 'part', name: 'Of what belongs there', value: taken_m3 / needed_m3, quantity: 'percent' },
      {
        id: 'flickUp_Pa',
        name: 'The one that belongs flicks up to',
        value: belongs.flickUp_Pa,
        quantity: 'pressure',
      },
      { id: 'from_Pa', name: 'The one in hand flicks up to', value: found.flickUp_Pa, quantity: 'pressure' },
      {
        id: 'gives',
        name: 'In that place it is',
        text: isSolid
          ? 'solid everywhere'
          : found.flickUp_Pa > least_Pa
            ? 'solid up to its flick-up'
            : 'giving way everywhere',
      },
    ];
  },
  picture: (asked, set) => {
    const { belongs, found } = bothOf(asked);
    const { least_Pa, most_Pa } = asked;
    const x = axis('Pressure', 'pressure', set, 0, 1.1 * most_Pa);
    const largest_m3 = Math.max(belongs.fluid_m3(1.1 * most_Pa), found.fluid_m3(1.1 * most_Pa));
    const y = axis('Fluid in it', 'fluidVolume', set, 0, 1.1 * largest_m3);
    const plot = new Plot(x, y);
    const curve = ({ fluid_m3 }: typeof found) =>
      steps(0, 1.1 * most_Pa, POINTS).map((p) => [x.at(p), y.at(fluid_m3(p))] as const);
    plot.line(curve(belongs), { dashed: true });
    plot.line(curve(found));
    const between_Pa = (least_Pa + most_Pa) / 2;
    plot.words(x.at(between_Pa), y.at(belongs.fluid_m3(between_Pa)), 'belongs there');
    plot.mark(x.at(least_Pa), 'lowest');
    plot.mark(x.at(most_Pa), 'highest');
    return plot.svg(
      'Fluid taken up against pressure by the vessel in hand; dashed, by the one that belongs there',
    );
  },
});
