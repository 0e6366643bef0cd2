/** @jest-environment node */
import { FAMILIES, FAMILY_KINDS } from '../families/registry';
import { RIGS, ELECTRIC_PUMP } from '../scenarios/bench';
import fc from 'fast-check';
import {
  bytesFor,
  identifierMapSchema,
  identifierOf,
  identifierWith,
  USUAL_MAP,
  valuesOf,
  type Identifier,
} from './identifier-map';

const of = (number: string): Identifier => identifierOf(USUAL_MAP, number)!;
const bytes = (text: string) => Uint8Array.from(Buffer.from(text, 'hex'));

test('the usual map is one, and says where a value stands', () => {
  expect(identifierMapSchema.safeParse(USUAL_MAP).success).toBe(true);
  expect(identifierWith(USUAL_MAP, 'speed')?.number).toBe('4B19');
  expect(identifierWith(USUAL_MAP, 'buzzer')?.number).toBe('4B18');
  expect(identifierWith(USUAL_MAP, 'colour')).toBeNull();
  expect(identifierOf(USUAL_MAP, '4BFF')).toBeNull();
  // One alone may be put into a state by a tester. Handbook-models 16.
  expect(
    USUAL_MAP.identifiers.filter(({ controllable }) => controllable).map(({ number }) => number),
  ).toEqual(['4B02']);
});

test.each([
  // The handbook's frame: 0x1216 = 4 630 and 0x2792 = 10 130 tens of pascals.
  ['4B03', '12162792', { unitPressure: 46_300, barometer: 101_300 }],
  ['4B01', '0104D2', { unitState: 1, motorCurrent: 12.34 }],
  ['4B10', '01F411941388', { track1: 0.5, track2: 4.5, sensorSupply: 5 }],
  // 10 000 hundredths of a kilometre an hour are 100 km/h.
  ['4B19', '002710', { testState: 0, speed: 100 / 3.6 }],
  ['4B18', '21', { red: true, yellow: false, antiLock: false, stability: false, slip: false, buzzer: true }],
  ['4B13', 'FFFF', { accumulator: null }],
  ['4B02', 'FF', { pump: null }],
])('%s: %s', (number, text, expected) => {
  const values = valuesOf(of(number), bytes(text))!;
  expect(Object.keys(values)).toEqual(Object.keys(expected));
  for (const [id, value] of Object.entries(expected))
    if (typeof value === 'number') expect(values[id]).toBeCloseTo(value, 9);
    else expect(values[id]).toBe(value);
});

test.each([
  ['4B03', '121627'],
  ['4B03', '1216279200'],
  ['4B13', ''],
  // A state that the map does not know is no state.
  ['4B02', '02'],
])('%s: “%s” is none', (number, text) => expect(valuesOf(of(number), bytes(text))).toBeNull());

test('what a vehicle sends is read back within half a count, and never as not available', () => {
  fc.assert(
    fc.property(
      fc.constantFrom(...USUAL_MAP.identifiers),
      fc.array(fc.double({ min: 0, max: 1.2, noNaN: true }), { minLength: 16, maxLength: 16 }),
      (identifier, parts) => {
        const values = Object.fromEntries(
          identifier.fields.flatMap((field, i): [string, number | boolean][] => {
            const part = parts[i]!;
            if (field.kind === 'number') return [[field.id, part * 65_534 * field.perCount]];
            if (field.kind === 'state') return [[field.id, field.states[i % field.states.length]!.value]];
            return field.flags.map(({ id }, n) => [id, parts[n]! > 0.5]);
          }),
        );
        const back = valuesOf(identifier, bytesFor(identifier, values))!;
        for (const field of identifier.fields) {
          if (field.kind !== 'number') continue;
          const most = 65_534 * field.perCount;
          const wanted = Math.min(most, values[field.id] as number);
          expect(Math.abs((back[field.id] as number) - wanted)).toBeLessThanOrEqual(0.5001 * field.perCount);
        }
        for (const [id, value] of Object.entries(values))
          if (typeof value === 'boolean') expect(back[id]).toBe(value);
      },
    ),
  );
});

test('what a vehicle has not is not available', () => {
  expect([...bytesFor(of('4B03'), { unitPressure: 46_300 })]).toEqual([0x12, 0x16, 0xff, 0xff]);
  expect(valuesOf(of('4B18'), bytesFor(of('4B18'), {}))!.red).toBeNull();
  expect([...bytesFor(of('4B13'), { accumulator: NaN })]).toEqual([0xff, 0xff]);
});

describe('a map is refused in words', () => {
  const [first] = USUAL_MAP.identifiers;
  const why = (change: object) =>
    identifierMapSchema
      .safeParse({ ...USUAL_MAP, ...change })
      .error?.issues.map(({ message }) => message)
      .join(' ');
  test.each([
    [
      'a number twice',
      { identifiers: [first, { ...first, fields: [{ ...first!.fields[0], id: 'other' }] }] },
      /4B01 stands there twice/,
    ],
    [
      'a value twice',
      { identifiers: [first, { ...first, number: '4B99' }] },
      /“unitState” stands there twice/,
    ],
    [
      'control of a number',
      { identifiers: [{ ...of('4B13'), controllable: true }] },
      /only one with a single state/,
    ],
    ['an address that is none', { unit: '1b10' }, /Four hexadecimal digits/],
    [
      'a count of nothing',
      { identifiers: [{ ...of('4B13'), fields: [{ ...of('4B13').fields[0], perCount: 0 }] }] },
      /more than nothing/,
    ],
  ])('%s', (_, change, words) => expect(why(change)).toMatch(words));
});

describe('what families ask of an interface', () => {
  /** Profiles of each kind with what only some of them have. */
  const profilesOf = (kind: (typeof FAMILY_KINDS)[number]) => {
    const { typical } = FAMILIES[kind];
    const { source } = typical as { source?: object };
    return kind === 'vacuum-vehicle'
      ? [{ ...(typical as object), source: { ...source, ...ELECTRIC_PUMP } }]
      : [typical];
  };
  const asked = FAMILY_KINDS.flatMap((kind) =>
    Object.entries(FAMILIES[kind].throughInterface ?? {}).map(([step, through]) => ({ kind, step, through })),
  );
  test('the usual map has every value that is read and shown, and each step is one of its test', () => {
    expect(asked.length).toBeGreaterThan(0);
    for (const { kind, step, through } of asked) {
      expect(through.reads.filter((id) => !identifierWith(USUAL_MAP, id))).toEqual([]);
      const steps = profilesOf(kind).flatMap(
        (profile) => FAMILIES[kind].procedure(profile, RIGS[kind]).steps,
      );
      expect(steps.map(({ id }) => id)).toContain(step);
    }
  });
  test('what is asked for is a state of a value that can be controlled', () => {
    for (const { through } of asked) {
      if (!through.asks) continue;
      const { value, state } = through.asks;
      const identifier = identifierWith(USUAL_MAP, value)!;
      expect(identifier.controllable).toBe(true);
      const [field] = identifier.fields;
      expect(field?.kind === 'state' && field.states.map(({ name }) => name)).toContain(state);
    }
  });
  test('with nothing heard, nothing is shown to be so and nothing is told', () => {
    for (const { kind, through } of asked) {
      for (const { shows } of through.shows({}))
        expect('word' in shows ? shows.word : shows.value).toBeNull();
      const { found, says } = through.tells([], profilesOf(kind)[0]);
      expect(found.every((one) => !one.found.told)).toBe(true);
      expect(says).toEqual([]);
      expect([through.course.of({}), through.course.keeps({}), through.course.isShaded({})]).toEqual([
        null,
        null,
        false,
      ]);
    }
  });
});
