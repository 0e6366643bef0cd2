import { z } from 'zod';
import { defineWorking, field } from '../contract/working';
import { discharge_s, stopsLeft } from '../electric/capacitor';
import { axis, steps } from '../plot/axes';
import { Plot } from '../plot/plot';

const fields = z
  .strictObject({
    capacitance_F: field('Capacitance', 'capacitance', 1e-4, 500),
    charged_V: field('Stands at', 'voltage', 0, 60),
    bleed_Ohm: field('Discharged through', 'resistance', 0.1, 1e6),
    safe_V: field('May be worked at below', 'voltage', 0.5, 30),
    stated_s: field('Wait that the maker states, if any', 'duration', 0, 86_400).nullable(),
    stop_J: field('Energy of one stop', 'energy', 1, 1e5),
    standing_W: field('Standing load', 'power', 0, 1000),
    apart_s: field('From one stop to the next', 'duration', 0, 3600),
    least_V: field('Least that the control unit works at', 'voltage', 1, 60),
    current_A: field('Current of a stop', 'current', 0, 500),
    own_Ohm: field('Resistance of the store itself', 'resistance', 0, 1),
  })
  .refine(({ least_V, charged_V }) => charged_V === 0 || least_V < charged_V, {
    path: ['least_V'],
    message: 'Least that the control unit works at: it must be below what the store stands at.',
  });
type Fields = z.infer<typeof fields>;

const wait_s = ({ bleed_Ohm, safe_V, stated_s, ...store }: Fields) =>
  discharge_s(store, bleed_Ohm, safe_V, stated_s);
const stops = (asked: Fields, capacitance_F = asked.capacitance_F) =>
  stopsLeft({ ...asked, capacitance_F }, asked, asked.least_V, asked.current_A * asked.own_Ohm);

/** How long a capacitor store is waited for before it is measured, and how many stops it is good for. */
export const capacitorStore = defineWorking<Fields>({
  name: 'capacitor-store',
  title: 'Capacitor store: the wait, and stops without supply',
  about:
    'How long to wait before the store is measured, and the stops it is good for with the supply off. The reading opens the gate, never the wait: measure with a meter proved on a live source before and after.',
  source: 'Discharge through a resistance; energy ½CU² down to the least voltage and its own drop',
  input: fields,
  example: {
    capacitance_F: 20,
    charged_V: 13.5,
    bleed_Ohm: 50,
    safe_V: 5,
    stated_s: null,
    stop_J: 350,
    standing_W: 0,
    apart_s: 60,
    least_V: 9.6,
    current_A: 40,
    own_Ohm: 0,
  },
  compute: (asked) => [
    { id: 'wait_s', name: 'Wait at least, then measure', value: wait_s(asked), quantity: 'duration' },
    { id: 'stops', name: 'Whole stops with the supply off', value: stops(asked), quantity: 'count' },
    {
      id: 'worn_stops',
      name: 'The same with half of the capacitance left',
      value: stops(asked, asked.capacitance_F / 2),
      quantity: 'count',
    },
  ],
  picture: (asked, set) => {
    const time_s = Math.max(1, wait_s(asked));
    const volts = (t_s: number) => asked.charged_V * Math.exp(-t_s / (asked.bleed_Ohm * asked.capacitance_F));
    const x = axis('Time', 'duration', set, 0, 1.1 * time_s);
    const y = axis('Stands at', 'voltage', set, 0, 1.1 * Math.max(asked.charged_V, asked.safe_V));
    const plot = new Plot(x, y);
    plot.line(
      [0, 1.1 * time_s].map((t_s) => [x.at(t_s), y.at(asked.safe_V)] as const),
      { dashed: true },
    );
    plot.line(steps(0, 1.1 * time_s).map((t_s) => [x.at(t_s), y.at(volts(t_s))] as const));
    plot.mark(x.at(time_s), 'measure');
    return plot.svg('Voltage of a store as it discharges, and below which it may be worked at');
  },
});
