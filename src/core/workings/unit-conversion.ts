import { z } from 'zod';
import { QUANTITY_NAMES } from '../quantities/names';
import { printQuantity } from '../quantities/print';
import {
  fromSI,
  QUANTITIES,
  toSI,
  unitFor,
  UNITS,
  type Quantity,
  type Unit,
  type UnitId,
} from '../quantities/units';
import { Plot } from '../plot/plot';
import { steps } from '../plot/axes';
import { defineWorking, field } from '../contract/working';

const UNIT_IDS = Object.keys(UNITS) as [UnitId, ...UnitId[]];
const conversionFields = z
  .strictObject({
    value: field('Value', 'ratio', -1e12, 1e12),
    unit: z.enum(UNIT_IDS).meta({
      title: 'Unit',
      labels: Object.fromEntries(UNIT_IDS.map((id) => [id, UNITS[id].symbol || 'plain number'])),
    }),
    quantity: z.enum(QUANTITIES).meta({
      title: 'Of what',
      labels: QUANTITY_NAMES,
    }),
  })
  .refine(({ unit, quantity }) => (UNITS[unit].measures as readonly Quantity[]).includes(quantity), {
    path: ['unit'],
    message: 'Unit: this quantity is not measured in it.',
  });
type ConversionFields = z.infer<typeof conversionFields>;

/** Significant digits of a converted value. */
const CONVERTED_DIGITS = 7;
const unitsOf = (quantity: Quantity): [UnitId, Unit][] =>
  (Object.entries(UNITS) as [UnitId, Unit][]).filter(([, unit]) => unit.measures.includes(quantity));

/** A value in every unit that measures the same thing. */
export const conversion = defineWorking<ConversionFields>({
  name: 'unit-conversion',
  title: 'Unit conversion',
  about: 'A value in every unit that measures the same thing.',
  source: 'Definitions of the units',
  input: conversionFields,
  example: { value: 18, unit: 'inHg', quantity: 'depression' },
  compute: ({ value, unit, quantity }) => {
    const value_SI = toSI(value, UNITS[unit]);
    return unitsOf(quantity).map(([id, to]) => ({
      id,
      name: to.symbol || 'plain number',
      text: String(Number(fromSI(value_SI, to).toPrecision(CONVERTED_DIGITS))),
    }));
  },
  picture: ({ value, unit, quantity }, set) => {
    const from = UNITS[unit];
    const to = unitFor(quantity, set);
    const high = Math.max(Math.abs(value) * 1.5, 1e-9);
    const low = value < 0 ? -high : 0;
    const at = (x: number) => fromSI(toSI(x, from), to);
    const ends = [at(low), at(high)];
    const plot = new Plot(
      { title: from.symbol || 'plain number', low, high },
      {
        title: to.symbol || 'plain number',
        low: Math.min(...ends),
        high: Math.max(...ends, Math.min(...ends) + 1e-9),
      },
    );
    plot.line(steps(low, high, 20).map((x) => [x, at(x)] as const));
    plot.point(value, at(value));
    return plot.svg(`${printQuantity(toSI(value, from), quantity, set)} on the line between the two units`);
  },
});
