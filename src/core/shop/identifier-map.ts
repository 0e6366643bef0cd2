import { z } from 'zod';
import type { Values } from '../contract/vehicle-interface';
import { QUANTITIES, UNITS, type Quantity } from '../quantities/units';

/**
 * What the numbers mean that a vehicle's interface gives: a map of its data identifiers, which is data. Another vehicle has another
 * map. Handbook-models 16.
 */

const id = z
  .string()
  .regex(/^[a-z][a-zA-Z0-9]{0,39}$/, 'An id begins with a small letter: letters and digits.');
const name = z.string().trim().min(1, 'Name: give one.').max(80);
/** An address or an identifier as it is written: four hexadecimal digits. */
const hex16 = z
  .string()
  .regex(/^[0-9A-F]{4}$/, 'Four hexadecimal digits, such as 4B03.')
  .meta({ title: 'Number' });

const fieldSchema = z.discriminatedUnion('kind', [
  z.strictObject({
    kind: z.literal('number'),
    id,
    name,
    /** Bytes that it takes, the highest first; all ones: not available. */
    bytes: z.union([z.literal(1), z.literal(2)]),
    quantity: z.enum(QUANTITIES),
    /** SI value of one count. */
    perCount: z.number().positive('One count stands for more than nothing.'),
  }),
  z.strictObject({
    kind: z.literal('state'),
    id,
    name,
    states: z
      .array(z.strictObject({ value: z.int().min(0).max(254), name }))
      .min(1)
      .max(40),
  }),
  z.strictObject({
    kind: z.literal('flags'),
    id,
    name,
    flags: z
      .array(z.strictObject({ bit: z.int().min(0).max(7), id, name }))
      .min(1)
      .max(8),
  }),
]);
export type IdentifierField = Readonly<z.infer<typeof fieldSchema>>;

export const identifierMapSchema = z
  .strictObject({
    version: z.literal(1),
    name,
    /** Logical addresses of this program and of the unit. */
    tester: hex16,
    unit: hex16,
    identifiers: z
      .array(
        z.strictObject({
          number: hex16,
          name,
          fields: z.array(fieldSchema).min(1).max(16),
          /** It can be put into the states of its one field, and given back. */
          controllable: z.boolean(),
        }),
      )
      .min(1)
      .max(200),
  })
  .superRefine(({ identifiers }, context) => {
    const refuse = (at: number, message: string) =>
      context.addIssue({ code: 'custom', path: ['identifiers', at], message });
    const [numbers, ids] = [new Set<string>(), new Set<string>()];
    identifiers.forEach(({ number, fields, controllable }, at) => {
      if (numbers.has(number)) refuse(at, `Identifier ${number} stands there twice.`);
      numbers.add(number);
      for (const field of fields) {
        for (const own of [field.id, ...(field.kind === 'flags' ? field.flags.map((flag) => flag.id) : [])]) {
          if (ids.has(own)) refuse(at, `“${own}” stands there twice.`);
          ids.add(own);
        }
      }
      if (controllable && (fields.length !== 1 || fields[0]!.kind !== 'state'))
        refuse(at, `Identifier ${number}: only one with a single state can be controlled.`);
    });
  });
export type IdentifierMap = Readonly<z.infer<typeof identifierMapSchema>>;
export type Identifier = IdentifierMap['identifiers'][number];

const bytesOf = (field: IdentifierField): number => (field.kind === 'number' ? field.bytes : 1);
const noneIn = (bytes: number): number => 256 ** bytes - 1;

/**
 * Values that the bytes of an identifier stand for, in SI.
 *
 * @returns null where there are more or fewer bytes than its fields take, or a state is none of the map's
 */
export function valuesOf({ fields }: Pick<Identifier, 'fields'>, data: Uint8Array): Values | null {
  if (data.length !== fields.reduce((sum, field) => sum + bytesOf(field), 0)) return null;
  const values: Record<string, number | boolean | null> = {};
  let at = 0;
  for (const field of fields) {
    const bytes = bytesOf(field);
    let count = 0;
    for (let n = 0; n < bytes; n += 1) count = 256 * count + data[at + n]!;
    at += bytes;
    const isNone = count === noneIn(bytes);
    if (field.kind === 'flags')
      for (const flag of field.flags) values[flag.id] = isNone ? null : (count & (1 << flag.bit)) > 0;
    else if (isNone) values[field.id] = null;
    else if (field.kind === 'number') values[field.id] = count * field.perCount;
    else if (field.states.some(({ value }) => value === count)) values[field.id] = count;
    else return null;
  }
  return values;
}

/**
 * Bytes of an identifier for some values, as a vehicle sends them: counts rounded, and held within what can be sent. What is not
 * given is not available.
 */
export function bytesFor({ fields }: Pick<Identifier, 'fields'>, values: Values): Uint8Array {
  return Uint8Array.from(
    fields.flatMap((field) => {
      const bytes = bytesOf(field);
      const count = countOf(field, values) ?? noneIn(bytes);
      return bytes === 2 ? [count >> 8, count & 0xff] : [count];
    }),
  );
}

function countOf(field: IdentifierField, values: Values): number | null {
  if (field.kind === 'flags') {
    const known = field.flags.filter((flag) => typeof values[flag.id] === 'boolean');
    return known.length === 0
      ? null
      : known.reduce((sum, flag) => sum | (Number(values[flag.id]) << flag.bit), 0);
  }
  const value = values[field.id];
  if (typeof value !== 'number' || !Number.isFinite(value)) return null;
  if (field.kind === 'state') return value;
  return Math.max(0, Math.min(noneIn(field.bytes) - 1, Math.round(value / field.perCount)));
}

/** An identifier by its number. */
export const identifierOf = (map: IdentifierMap, number: string): Identifier | null =>
  map.identifiers.find((one) => one.number === number) ?? null;

/** The identifier in which a value stands, by the id of the value. */
export const identifierWith = (map: IdentifierMap, value: string): Identifier | null =>
  map.identifiers.find(({ fields }) =>
    fields.some(
      (field) =>
        field.id === value || (field.kind === 'flags' && field.flags.some(({ id: own }) => own === value)),
    ),
  ) ?? null;

const numberField = (
  quantity: Quantity,
  perCount: number,
  ...named: readonly (readonly [id: string, name: string])[]
): IdentifierField[] =>
  named.map(([own, of]) => ({ kind: 'number', id: own, name: of, bytes: 2, quantity, perCount }));

const WHEELS = [
  ['FL', 'front left'],
  ['FR', 'front right'],
  ['RL', 'rear left'],
  ['RR', 'rear right'],
] as const;
const perWheel = (own: string, of: string) =>
  WHEELS.map(([place, where]) => [`${own}${place}`, `${of}, ${where}`] as const);

const one = (number: string, of: string, fields: IdentifierField[], controllable = false): Identifier => ({
  number,
  name: of,
  fields,
  controllable,
});
const states = (own: string, of: string, ...named: readonly string[]): IdentifierField => ({
  kind: 'state',
  id: own,
  name: of,
  states: named.map((word, value) => ({ value, name: word })),
});

/** The map of handbook-models 16: what the stand-in speaks, and what a shelf begins with. */
export const USUAL_MAP: IdentifierMap = {
  version: 1,
  name: 'Brake unit, usual identifiers',
  tester: '0E80',
  unit: '1B10',
  identifiers: [
    one('4B01', 'Unit and its motor', [
      states('unitState', 'Unit', 'Off', 'Ready', 'Limited'),
      ...numberField('current', 0.01, ['motorCurrent', 'Motor current']),
    ]),
    one('4B02', 'Vacuum pump', [states('pump', 'Vacuum pump', 'Off', 'On')], true),
    one(
      '4B03',
      'Pressure at the unit',
      numberField('barometer', 10, ['unitPressure', 'Unit, absolute'], ['barometer', 'Barometer']),
    ),
    one(
      '4B04',
      'Thresholds of the vacuum pump',
      numberField('depression', 10, ['onBelow', 'On below'], ['offAbove', 'Off above']),
    ),
    one(
      '4B10',
      'Tracks of the pedal sensor',
      numberField(
        'voltage',
        1e-3,
        ['track1', 'Track 1'],
        ['track2', 'Track 2'],
        ['sensorSupply', 'Sensor supply'],
      ),
    ),
    one(
      '4B11',
      'Master cylinders',
      numberField('pressure', 1000, ['master1', 'Master cylinder 1'], ['master2', 'Master cylinder 2']),
    ),
    one('4B12', 'Wheel pressures', numberField('pressure', 1000, ...perWheel('wheel', 'Wheel'))),
    one('4B13', 'Accumulator', numberField('pressure', 1000, ['accumulator', 'Accumulator'])),
    one(
      '4B14',
      'Valve currents',
      numberField(
        'current',
        1e-3,
        ...perWheel('apply', 'Apply valve'),
        ...perWheel('release', 'Release valve'),
      ),
    ),
    one(
      '4B15',
      'Regeneration',
      numberField('torque', 1, ['requested', 'Regeneration asked for'], ['granted', 'Regeneration granted']),
    ),
    one('4B16', 'Supply', numberField('voltage', 1e-3, ['supply', 'Supply'])),
    one('4B17', 'Capacitor store', numberField('voltage', 1e-3, ['capacitor', 'Capacitor'])),
    one('4B18', 'Lamps and buzzer', [
      {
        kind: 'flags',
        id: 'lamps',
        name: 'Lamps and buzzer',
        flags: ['Red lamp', 'Yellow lamp', 'Anti-lock lamp', 'Stability lamp', 'Slip lamp', 'Buzzer'].map(
          (word, bit) => ({
            bit,
            id: ['red', 'yellow', 'antiLock', 'stability', 'slip', 'buzzer'][bit]!,
            name: word,
          }),
        ),
      },
    ]),
    one('4B19', 'What the brakes do of themselves, and speed', [
      states(
        'testState',
        'Brakes by themselves',
        'Nothing',
        'Pre-fill',
        'Disc wiping',
        'Hill hold',
        'Stability action',
        'Pressurising itself',
      ),
      ...numberField('speed', 0.01 * UNITS.kmPerH.factor, ['speed', 'Speed']),
    ]),
  ],
};
