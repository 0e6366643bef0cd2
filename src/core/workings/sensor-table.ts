import { z } from 'zod';
import { defineWorking, field } from '../contract/working';
import { pairFaults, travelOf_m, usualTrack, type PairFault } from '../electric/sensor-track';
import { printQuantity } from '../quantities/print';
import { axis } from '../plot/axes';
import { Plot } from '../plot/plot';

const fields = z.strictObject({
  table_V: field('Supply that the tables are for', 'voltage', 3, 15),
  full_m: field('Full way of the pedal sensor', 'travel', 1e-3, 0.3),
  supply_V: field('Supply as read at the sensor', 'voltage', 3, 15),
  rest1_V: field('Track 1 at rest', 'voltage', 0, 15),
  rest2_V: field('Track 2 at rest', 'voltage', 0, 15),
  pressed1_V: field('Track 1, pressed', 'voltage', 0, 15),
  pressed2_V: field('Track 2, pressed', 'voltage', 0, 15),
  within_m: field('At rest within', 'travel', 1e-5, 0.01),
  sum_V: field('Sum within', 'voltage', 0.01, 1),
});
type Fields = z.infer<typeof fields>;

const tracks = ({ table_V, full_m }: Fields) =>
  [usualTrack(table_V, full_m), usualTrack(table_V, full_m, true)] as const;

/** What each finding of a pair of tracks speaks of. */
const SPEAKS: Readonly<Record<PairFault, string>> = {
  sum: 'The two do not add up to the supply: one track drifts, or is short or open.',
  railed: 'One stands beyond the ends of its table: short, open, or no supply.',
  still: 'One does not move as the pedal is pressed.',
  swapped: 'The tracks are swapped: the first falls and the second rises. Their sum does not show it.',
  displaced:
    'At rest they do not read zero: the magnet or the sensor is displaced. Their sum does not show it.',
};

/** Way by two tracks at the supply that is read, and what speaks against them. */
export const sensorTable = defineWorking<Fields>({
  name: 'sensor-table',
  title: 'Pedal sensor: way by its voltages',
  about:
    'Way by each of two tracks, their tables scaled to the supply that is read, and what speaks against them. Read at rest and pressed: the sum alone is blind to two of the faults.',
  source: 'Handbook-models 8.8: tracks from a tenth to nine tenths of the supply, the second the other way',
  input: fields,
  example: {
    table_V: 5,
    full_m: 0.04,
    supply_V: 4.96,
    rest1_V: 0.62,
    rest2_V: 4.34,
    pressed1_V: 2.6,
    pressed2_V: 2.36,
    within_m: 3e-4,
    sum_V: 0.1,
  },
  compute: (asked) => {
    const { supply_V, rest1_V, rest2_V, pressed1_V, pressed2_V } = asked;
    const [first, second] = tracks(asked);
    const way = (id: string, name: string, track: typeof first, volts_V: number) => {
      if (volts_V > supply_V)
        throw new RangeError(`${id}: ${volts_V} V cannot stand on a supply of ${supply_V} V`);
      const value = travelOf_m(track, volts_V, supply_V);
      return value === null
        ? { id: `${id}_m`, name, text: 'beyond its table' }
        : ({ id: `${id}_m`, name, value, quantity: 'travel' } as const);
    };
    const ways = [
      way('rest1_V', 'At rest, track 1', first, rest1_V),
      way('rest2_V', 'At rest, track 2', second, rest2_V),
      way('pressed1_V', 'Pressed, track 1', first, pressed1_V),
      way('pressed2_V', 'Pressed, track 2', second, pressed2_V),
    ];
    const found = pairFaults(
      [first, second],
      { supply_V, rest_V: [rest1_V, rest2_V], pressed_V: [pressed1_V, pressed2_V] },
      asked,
    );
    return [
      ...ways,
      {
        id: 'sum',
        name: 'Sum, pressed, against the supply',
        text: `${printQuantity(pressed1_V + pressed2_V, 'voltage', 'metric')} of ${printQuantity(supply_V, 'voltage', 'metric')}`,
      },
      {
        id: 'speaks',
        name: 'What speaks against them',
        text: found.length > 0 ? found.map((one) => SPEAKS[one]).join(' ') : 'Nothing.',
      },
    ];
  },
  picture: (asked, set) => {
    const { supply_V, full_m } = asked;
    const x = axis('Way', 'travel', set, -0.05 * full_m, 1.05 * full_m);
    const y = axis('Volts', 'voltage', set, 0, supply_V);
    const plot = new Plot(x, y);
    const all = tracks(asked);
    all.forEach((track, i) => {
      const points = track.points.map(
        ([travel_m, volts]) => [x.at(travel_m), y.at((volts * supply_V) / track.supply_V)] as const,
      );
      plot.line(points, { dashed: i === 1 });
    });
    const read = [
      [all[0], asked.rest1_V],
      [all[1], asked.rest2_V],
      [all[0], asked.pressed1_V],
      [all[1], asked.pressed2_V],
    ] as const;
    for (const [track, volts_V] of read) {
      const way_m = volts_V <= supply_V ? travelOf_m(track, volts_V, supply_V) : null;
      if (way_m !== null) plot.point(x.at(way_m), y.at(volts_V));
    }
    return plot.svg('Volts of two tracks against the way, the second dashed, with the four that were read');
  },
});
