/** @jest-environment node */
import fc from 'fast-check';
import Papa from 'papaparse';
import { detectLayout } from './detect';
import { LogReader } from './reader';

const BAROMETER_PA = 101_325;
const ROWS = 40;

/** One way in which a logger may write: everything that differs between makes. */
const dialects = fc.record({
  delimiter: fc.constantFrom(',', ';', '\t'),
  comma: fc.boolean(),
  ending: fc.constantFrom('\n', '\r\n'),
  mark: fc.boolean(),
  junk: fc.array(fc.constantFrom('Logger 12', 'Operator: nobody', '', 'Job;one', 'ok'), { maxLength: 4 }),
  head: fc.constantFrom('brackets', 'round', 'slash', 'line below'),
  time: fc.constantFrom('seconds', 'milliseconds', 'iso'),
  pressure: fc.constantFrom(['bar', 1e5], ['psi', 6894.757], ['kPa', 1000]),
  vacuum: fc.constantFrom(['kPa', 1000], ['inHg', 3386.389], ['mbar', 100]),
  negative: fc.boolean(),
  places: fc.integer({ min: 2, max: 4 }),
  quotes: fc.boolean(),
  lastEnd: fc.boolean(),
});
type Dialect = typeof dialects extends fc.Arbitrary<infer D> ? D : never;

const truth = Array.from({ length: ROWS }, (_, i) => ({
  t: i * 0.05,
  input: (2 + 3 * i) * 1e4,
  output: (5 + 11 * i) * 1e4,
  supply: 6e4 - 150 * i,
}));

function written(d: Dialect): string {
  const comma = d.comma && d.delimiter !== ',';
  const number = (value: number) => {
    const text = value.toFixed(d.places);
    return comma ? text.replace('.', ',') : text;
  };
  const units = [d.time === 'milliseconds' ? 'ms' : 's', d.pressure[0], d.pressure[0], d.vacuum[0]] as const;
  const names = [d.time === 'iso' ? 'Timestamp' : 'Time', 'Input', 'Output', 'Supply'];
  const heads =
    d.time === 'iso' && d.head !== 'line below'
      ? names.map((name, i) => (i === 0 ? name : headed(d.head, name, units[i]!)))
      : names.map((name, i) => (d.head === 'line below' ? name : headed(d.head, name, units[i]!)));
  const sign = d.negative ? -1 : 1;
  const lines = truth.map(({ t, input, output, supply }) => {
    const time =
      d.time === 'iso'
        ? new Date(Date.UTC(2026, 10, 23, 8) + 1000 * t).toISOString()
        : number(d.time === 'milliseconds' ? 1000 * t : t);
    const cells = [
      time,
      number(input / (d.pressure[1] as number)),
      number(output / (d.pressure[1] as number)),
      number((sign * supply) / (d.vacuum[1] as number)),
    ];
    return cells.map((cell) => (d.quotes ? `"${cell}"` : cell)).join(d.delimiter);
  });
  const all = [
    ...d.junk,
    heads.join(d.delimiter),
    ...(d.head === 'line below' ? [units.join(d.delimiter)] : []),
    ...lines,
  ];
  return (d.mark ? '\ufeff' : '') + all.join(d.ending) + (d.lastEnd ? d.ending : '');
}

const headed = (how: Dialect['head'], name: string, unit: string) =>
  how === 'brackets' ? `${name} [${unit}]` : how === 'round' ? `${name} (${unit})` : `${name} / ${unit}`;

function read(text: string) {
  const found = detectLayout(text);
  if (!found.ok) throw new Error(found.why);
  const reader = new LogReader(found.layout, BAROMETER_PA);
  reader.push(new TextEncoder().encode(text));
  return { layout: found.layout, ...reader.finish() };
}

test('however a logger writes, the same readings come out', () => {
  fc.assert(
    fc.property(dialects, (d) => {
      const { trace, troubleCount } = read(written(d));
      expect([trace.time_s.length, troubleCount]).toEqual([ROWS, 0]);
      const at = (port: string) => trace.channels.find((channel) => channel.port === port)!.values;
      // A number was written to so many places in its own unit: half of the last place is lost.
      const step = 0.6 * 10 ** -d.places;
      truth.forEach(({ t, input, output, supply }, i) => {
        expect(Math.abs(trace.time_s[i]! - t)).toBeLessThan(d.time === 'milliseconds' ? 1e-4 : 0.006);
        expect(Math.abs(at('input')[i]! - input)).toBeLessThan(step * (d.pressure[1] as number) + 1);
        expect(Math.abs(at('output')[i]! - output)).toBeLessThan(step * (d.pressure[1] as number) + 1);
        expect(Math.abs(at('supply')[i]! - supply)).toBeLessThan(step * (d.vacuum[1] as number) + 1);
      });
    }),
    { numRuns: 300, seed: 2611 },
  );
});

test('the numbers are those that a well-known parser finds in the same text', () => {
  const cell = fc.oneof(
    fc.double({ min: -1e4, max: 1e4, noNaN: true }).map((v) => v.toFixed(3)),
    fc.integer({ min: -1000, max: 1000 }).map(String),
    fc.constantFrom('', 'nan', '"1.5"', '1e3', '-2.5E-2', '.5', '+7'),
  );
  fc.assert(
    fc.property(fc.array(fc.tuple(cell, cell), { minLength: 4, maxLength: 60 }), (rows) => {
      const text = `h,a,b\n${rows.map(([a, b], i) => `${i},${a},${b}`).join('\n')}\n`;
      const column = (index: number) =>
        ({ index, name: 'x', port: null, quantity: 'pressure', unit: 'Pa', form: null }) as const;
      const reader = new LogReader(
        {
          delimiter: ',',
          decimal: '.',
          firstLine: 1,
          time: { index: 0, kind: 'seconds', interval_s: 1 },
          columns: [column(1), column(2)],
        },
        BAROMETER_PA,
      );
      reader.push(new TextEncoder().encode(text));
      const { trace } = reader.finish();
      const theirs = Papa.parse<string[]>(text, { skipEmptyLines: true }).data.slice(1);
      theirs.forEach((cells, i) => {
        for (const c of [0, 1] as const) {
          // A reading of minus nothing is nothing.
          const want = /^$|^nan$/.test(cells[c + 1]!) ? NaN : Math.fround(Number(cells[c + 1])) + 0;
          expect(trace.channels[c]!.values[i]).toBe(want);
        }
      });
    }),
    { numRuns: 200, seed: 2611 },
  );
});

test('what was found is found again in what is read by it: a layout does not depend on the length of the head', () => {
  fc.assert(
    fc.property(dialects, fc.integer({ min: 1200, max: 4000 }), (d, length) => {
      const text = written({ ...d, lastEnd: true });
      fc.pre(text.length > length && text.slice(0, length).split(d.ending).length > d.junk.length + 8);
      const [whole, part] = [detectLayout(text), detectLayout(text.slice(0, length))];
      expect(whole.ok && whole.layout).toEqual(part.ok && part.layout);
    }),
    { numRuns: 100, seed: 2611 },
  );
});
