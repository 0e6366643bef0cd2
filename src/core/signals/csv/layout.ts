import { z } from 'zod';
import { QUANTITIES, UNITS, type Quantity, type UnitId } from '../../quantities/units';

/** How time stands in a log. */
export const TIME_KINDS = [
  'seconds',
  'milliseconds',
  'minutes',
  'hours',
  'iso',
  'day-first',
  'month-first',
  'spreadsheet',
  'clock',
  'rows',
] as const;
export type TimeKind = (typeof TIME_KINDS)[number];

/** How a number stands for a vacuum: as a depression, as a negative gauge pressure, or absolute. */
export const VACUUM_FORMS = ['depression', 'negative', 'absolute'] as const;

const UNIT_IDS = Object.keys(UNITS) as [UnitId, ...UnitId[]];

/** The ports that an analysis knows, and what is read at each. */
export const LOG_PORTS: Readonly<Record<string, Quantity>> = {
  input: 'pressure',
  output: 'pressure',
  supply: 'depression',
  activation: 'depression',
  front: 'pressure',
  rear: 'pressure',
  volume: 'volume',
  pedal: 'force',
  'track-1': 'voltage',
  'track-2': 'voltage',
  sensor: 'voltage',
  asked: 'torque',
  requested: 'torque',
  granted: 'torque',
  speed: 'speed',
  store: 'voltage',
  valve: 'current',
  'front-left': 'pressure',
  'front-right': 'pressure',
  'rear-left': 'pressure',
  'rear-right': 'pressure',
};

export const columnSchema = z.strictObject({
  /** Place in the line, from 0. */
  index: z.int().min(0).max(500),
  name: z.string().max(200),
  port: z.string().max(40).nullable(),
  quantity: z.enum(QUANTITIES),
  unit: z.enum(UNIT_IDS),
  form: z.enum(VACUUM_FORMS).nullable(),
});
export type LogColumn = Readonly<z.infer<typeof columnSchema>>;

/** How a log file is to be read: detected, shown for confirmation, and remembered per logger. */
export const layoutSchema = z
  .strictObject({
    delimiter: z.enum([',', ';', '\t', ' ', '|']),
    decimal: z.enum(['.', ',']),
    /** First line of data, from 0; what is above it is head. */
    firstLine: z.int().min(0).max(10_000),
    /** Cells of a line in all, where that is known: a line of more or fewer is then said to be one. */
    width: z.int().min(1).max(1000).optional(),
    time: z.strictObject({
      index: z.int().min(0).max(500).nullable(),
      kind: z.enum(TIME_KINDS),
      /** Time between lines where there is no column of it, s. */
      interval_s: z.number().positive().max(3600),
    }),
    columns: z.array(columnSchema).min(1, 'No column of readings is chosen.').max(64).readonly(),
  })
  .superRefine(({ time, columns }, context) => {
    const used = new Set(time.index === null ? [] : [time.index]);
    columns.forEach(({ index, quantity, unit }, i) => {
      const wrong = (field: string, message: string) =>
        context.addIssue({ code: 'custom', path: ['columns', i, field], message });
      if (used.has(index)) wrong('index', `Column ${index + 1} is used twice.`);
      used.add(index);
      if (!(UNITS[unit].measures as readonly Quantity[]).includes(quantity))
        wrong('unit', `Column ${index + 1}: this quantity is not measured in that unit.`);
    });
  });
export type LogLayout = Readonly<z.infer<typeof layoutSchema>>;

/** Columns of a line in all. */
export const widthOf = ({ time, columns }: LogLayout): number =>
  1 + Math.max(time.index ?? 0, ...columns.map(({ index }) => index));

/** A number from the file as SI: value·scale + offset. */
export function conversionOf(
  { unit, quantity, form }: LogColumn,
  barometer_Pa: number,
): { scale: number; offset: number } {
  const { factor } = UNITS[unit];
  const zero = 'zero' in UNITS[unit] ? (UNITS[unit] as { zero: number }).zero : 0;
  if (quantity === 'depression' && form === 'negative') return { scale: -factor, offset: 0 };
  if (quantity === 'depression' && form === 'absolute') return { scale: -factor, offset: barometer_Pa };
  if (quantity === 'pressure' && form === 'absolute') return { scale: factor, offset: -barometer_Pa };
  return { scale: factor, offset: zero };
}
