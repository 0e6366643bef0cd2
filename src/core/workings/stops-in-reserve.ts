import { z } from 'zod';
import { pressureFor_Pa } from '../vehicle/brake-force';
import { BAR } from '../plot/axes';
import { given_m3, left_Pa } from '../fluid/emptied';
import { drawEmptied, vesselFields } from './emptied-vessel';
import { defineWorking, field } from '../contract/working';

const fields = z.strictObject({
  ...vesselFields,
  mass_kg: field('Mass', 'mass', 300, 60_000),
  deceleration_mPerS2: field('Deceleration asked for', 'acceleration', 0.5, 9),
  brake_NPerBar: field('Brake force for each bar, both axles', 'force', 10, 5000),
  contact_Pa: field('Pressure that presses nothing yet', 'pressure', 0, 10 * BAR),
  fill_m3: field('Fluid until the linings touch', 'fluidVolume', 0, 1e-3),
  give_m3PerBar: field('Fluid for each bar beyond that', 'fluidVolume', 0, 1e-4),
});
type Fields = z.infer<typeof fields>;

/** Line pressure for the deceleration, Pa: of both axles as one, with nothing held back. */
const needed_Pa = ({ mass_kg, deceleration_mPerS2, brake_NPerBar, contact_Pa }: Fields) =>
  pressureFor_Pa(
    { front_NPerPa: brake_NPerBar / BAR, rear_NPerPa: 0, contact_Pa, split_Pa: Infinity, slope: 1 },
    mass_kg * deceleration_mPerS2,
  );

/** Fluid that a stop takes, m³: V_fill + C·p. Handbook-models 8.7. @throws RangeError where it takes none */
function stop_m3(asked: Fields): number {
  const taken_m3 = asked.fill_m3 + (asked.give_m3PerBar / BAR) * needed_Pa(asked);
  if (taken_m3 <= 0) throw new RangeError('fill_m3: a stop has to take some fluid');
  return taken_m3;
}

/** Fluid that comes out while the pressure is enough. @throws RangeError where it is not from the first */
function given(asked: Fields, heated: boolean): number {
  if (needed_Pa(asked) >= asked.full_Pa)
    throw new RangeError('full_Pa: that deceleration needs more pressure than is stored');
  return given_m3(asked, needed_Pa(asked), heated);
}
const stops = (asked: Fields, heated: boolean) => Math.floor(given(asked, heated) / stop_m3(asked));

/** How many stops the fluid of a full accumulator is enough for, its pump off. */
export const stopsInReserve = defineWorking<Fields>({
  name: 'stops-in-reserve',
  title: 'Stops in a reserve',
  about:
    'How many stops at one deceleration the fluid of a full accumulator is enough for, pump off: until what is left presses too little. It counts fluid, and says nothing of whether a vehicle is safe to drive.',
  source: 'Benedict–Webb–Rubin with constants of Cooper & Goldfrank 1967; balance of forces',
  input: fields,
  example: {
    shell_m3: 0.75e-3,
    preCharge_Pa: 60 * BAR,
    temperature_K: 293.15,
    full_Pa: 150 * BAR,
    mass_kg: 9000,
    deceleration_mPerS2: 2.5,
    brake_NPerBar: 320,
    contact_Pa: BAR,
    fill_m3: 14e-6,
    give_m3PerBar: 0.2e-6,
  },
  compute: (asked) => {
    const last = stops(asked, false);
    return [
      { id: 'fast', name: 'One behind the other', value: last, quantity: 'count' },
      { id: 'slow', name: 'Far apart', value: stops(asked, true), quantity: 'count' },
      {
        id: 'needed_Pa',
        name: 'Pressure for that deceleration',
        value: needed_Pa(asked),
        quantity: 'pressure',
      },
      { id: 'stop_m3', name: 'Fluid for each stop', value: stop_m3(asked), quantity: 'fluidVolume' },
      {
        id: 'left_Pa',
        name: 'Left after the last, one behind the other',
        value: left_Pa(asked, last * stop_m3(asked), false),
        quantity: 'pressure',
      },
    ];
  },
  picture: (asked, set) =>
    drawEmptied(
      asked,
      {
        draws: 'Stops',
        draw_m3: stop_m3(asked),
        fast: stops(asked, false),
        slow: stops(asked, true),
        least_Pa: needed_Pa(asked),
        word: 'needed',
        says: 'Pressure left after each stop, far apart; dashed, one behind the other; and what a stop needs',
      },
      set,
    ),
});
