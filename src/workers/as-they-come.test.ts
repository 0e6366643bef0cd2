/** @jest-environment node */
import fc from 'fast-check';
import { TraceJob } from './trace-product';
import { detectLayout, type Detected } from '@/core/signals/csv/detect';
import { headText, PlainText } from '@/core/signals/csv/plain-text';

const ABOUT = { barometer_Pa: 101_325, temperature_K: 293.15, unit: null };
const utf8 = (text: string) => new TextEncoder().encode(text);

/** What comes of a file, sent in pieces. */
function product(bytes: Uint8Array, pieces = Infinity) {
  const job = new TraceJob(null, ABOUT, bytes.length);
  for (let at = 0; at < bytes.length; at += pieces) job.push(bytes.slice(at, at + pieces));
  const outcome = job.finish();
  if (!outcome.ok) throw new Error(outcome.why);
  return outcome.product;
}
function found(text: string): Extract<Detected, { ok: true }> {
  const detected = detectLayout(text);
  if (!detected.ok) throw new Error(detected.why);
  return detected;
}
const whyNot = (text: string) => {
  const detected = detectLayout(text);
  return detected.ok ? 'read' : detected.why;
};

const LOG =
  'Zeit [s];Eingang [bar];Öldruck Ausgang [bar]\n0,0;1,5;5,4\n0,1;2,0;7,2\n0,2;2,5;9,0\n0,3;3,0;10,8\n';

/** The same text in other bytes, written out here by hand. */
const WRITTEN: Readonly<Record<string, (text: string) => Uint8Array>> = {
  'UTF-8': utf8,
  'UTF-8 with its mark': (text) => utf8(`\ufeff${text}`),
  'Latin-1': (text) => Uint8Array.from(text, (c) => c.charCodeAt(0)),
  'UTF-16, little end first': (text) =>
    Uint8Array.from([
      0xff,
      0xfe,
      ...Array.from(text).flatMap((c) => [c.charCodeAt(0) & 255, c.charCodeAt(0) >> 8]),
    ]),
  'UTF-16, big end first': (text) =>
    Uint8Array.from([
      0xfe,
      0xff,
      ...Array.from(text).flatMap((c) => [c.charCodeAt(0) >> 8, c.charCodeAt(0) & 255]),
    ]),
  'UTF-16 without a mark': (text) =>
    Uint8Array.from(Array.from(text).flatMap((c) => [c.charCodeAt(0) & 255, c.charCodeAt(0) >> 8])),
  'carriage returns alone': (text) => utf8(text.replaceAll('\n', '\r')),
  'CR LF': (text) => utf8(text.replaceAll('\n', '\r\n')),
};

describe.each(Object.entries(WRITTEN))('a log in %s', (_name, write) => {
  test('is read the same, in pieces of any size', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 90 }), (pieces) => {
        const { layout, rows, packed } = product(write(LOG), pieces);
        expect(rows).toBe(4);
        expect(layout.columns.map(({ name, port }) => [name, port])).toEqual([
          ['Eingang', 'input'],
          ['Öldruck Ausgang', 'output'],
        ]);
        expect(packed.sha256).toBe(product(utf8(LOG)).packed.sha256);
      }),
      { numRuns: 12, seed: 16 },
    );
  });
  test('is shown the same before it is read', () => {
    expect(found(headText(write(LOG))).sample).toEqual(found(LOG).sample);
  });
});

test('plain bytes pass as they are', () => {
  const bytes = utf8(LOG);
  expect(new PlainText(bytes).next(bytes)).toBe(bytes);
});

describe('columns and rows of words', () => {
  test('a column of words is left out and said to be, wherever it stands; the names stay', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 3 }), fc.constantFrom(',', ';', '\t'), (place, delimiter) => {
        const line = (cells: string[], word: string) => cells.toSpliced(place, 0, word).join(delimiter);
        const text = [
          line(['Time [s]', 'Input [bar]', 'Output [bar]'], 'State'),
          ...Array.from({ length: 9 }, (_, i) =>
            line([`${i}.5`, `${2 * i}.25`, `${7 * i}.0`], i < 4 ? 'rising' : 'held'),
          ),
        ].join('\n');
        const { layout, doubts } = found(text);
        expect(layout.columns.map(({ name, port }) => [name, port])).toEqual([
          ['Input', 'input'],
          ['Output', 'output'],
        ]);
        expect(doubts).toEqual(['“State” holds words, not readings: left out.']);
        expect(product(utf8(text))).toMatchObject({ rows: 9, troubleCount: 0 });
      }),
      { numRuns: 24, seed: 16 },
    );
  });
  test.each([
    ['(test begins),,', 6],
    ['init,init,init', 6],
    ['run,warm,go', 6],
    ['0.0,ERR,3.0', 7],
  ])('a first row “%s” is not the head', (row, rows) => {
    const lines = Array.from({ length: 6 }, (_, i) => `${i + 1},${2 * i}.5,${7 * i}`);
    const text = ['Time [s],Input [bar],Output [bar]', row, ...lines, ''].join('\n');
    expect(found(text).layout.columns.map(({ name }) => name)).toEqual(['Input', 'Output']);
    expect(product(utf8(text)).rows).toBe(rows);
  });
  test('nor is it under a line of units', () => {
    const text = 'Time;Input;Output\ns;bar;bar\nwarm;up;now\n0;1;2\n1;2;4\n2;3;6\n';
    expect(found(text).layout.columns.map(({ name, unit }) => [name, unit])).toEqual([
      ['Input', 'bar'],
      ['Output', 'bar'],
    ]);
  });
});

describe('dates', () => {
  const log = (...times: string[]) =>
    ['Timestamp;in [bar];out [bar]', ...times.map((time, i) => `${time};${i + 1};${2 * i + 2}`), ''].join(
      '\n',
    );
  const times = (text: string) => {
    const { layout, rows, duration_s } = product(utf8(text));
    return { kind: layout.time.kind, rows, duration_s };
  };
  test.each([
    ['points', ['26.11.2026 14:05:00', '26.11.2026 14:05:01,5', '26.11.2026 14:06:00'], 'day-first', 60],
    [
      'strokes, over midnight',
      ['25/11/2026 23:59:30', '26/11/2026 00:00:30', '26/11/2026 00:01:00'],
      'day-first',
      90,
    ],
    [
      'month first, told by the day',
      ['11/25/2026 23:59:30', '11/26/2026 00:00:30', '11/26/2026 00:01:00'],
      'month-first',
      90,
    ],
    [
      'halves of the day',
      ['11/25/26 11:59:30 PM', '11/26/26 12:00:30 AM', '11/26/26 12:01:00 AM'],
      'month-first',
      90,
    ],
    ['a time of day over midnight', ['23:59:30', '00:00:30', '00:01:00'], 'clock', 90],
  ])('%s', (_name, written, kind, duration_s) => {
    expect(times(log(...written))).toEqual({ kind, rows: 3, duration_s });
  });
  test('that could be read either way are a doubt', () => {
    expect(
      found(log('03/04/2026 10:00:00', '03/04/2026 10:00:01', '03/04/2026 10:00:02')).doubts.join(),
    ).toMatch(/day or the month stands first/);
    expect(found(log('26.11.2026 10:00:00', '26.11.2026 10:00:01')).doubts.join()).not.toMatch(
      /stands first/,
    );
  });
});

describe('rows that are not like the others', () => {
  const rows = (...odd: string[]) =>
    ['Time [s],Input [bar],Output [bar]', '0,1,2', '1,2,4', ...odd, '9,3,6', '10,3,6', ''].join('\n');
  test.each([
    [
      'too long: left out, since a cell of it is one too many',
      '2,3,0,5,1',
      4,
      '5 columns instead of 3: line left out',
    ],
    ['too short: left out', '2,3', 4, '2 columns instead of 3: line left out'],
    ['longer by nothing: read', '2,3,5,,', 5, null],
    [
      'at the time of the line before: kept and said',
      '1,3,5',
      5,
      /the time of the line before, as in no other line/,
    ],
  ])('%s', (_name, row, count, what) => {
    const { rows: kept, troubles, troubleCount } = product(utf8(rows(row)));
    expect(kept).toBe(count);
    expect(troubleCount).toBe(what === null ? 0 : 1);
    if (what !== null)
      expect(troubles[0]).toMatchObject({ line: 4, what: expect.stringMatching(what) as unknown });
  });
  test('a short line that lacks only what is not read is read as far as it goes', () => {
    const text = 'Time [s],Input [bar],Output [bar],Remark\n0,1,2,ok\n1,2,4,ok\n2,3,6\n3,4,8,ok\n';
    expect(product(utf8(text))).toMatchObject({ rows: 4, troubleCount: 1 });
  });
  test('many lines at one time are one trouble', () => {
    const log = [
      'Time [s],Input [bar]',
      ...Array.from({ length: 90 }, (_, i) => `${Math.floor(i / 10)},${i}`),
    ];
    const { troubles, troubleCount } = product(utf8(`${log.join('\n')}\n`));
    expect(troubleCount).toBe(1);
    expect(troubles[0]!.what).toMatch(/as in 80 more/);
  });
});

describe('refusals name line and cause', () => {
  test('decimal commas between columns of commas', () => {
    const text = 'Time,Input,Output\n0,0,1,5,5,4\n0,1,2,0,7,2\n0,2,2,5,9,0\n';
    expect(whyNot(text)).toMatch(
      /^Decimal commas and commas between columns cannot be told apart: line 2 has 6 cells under 3 names/,
    );
  });
  test('in quotes they can be', () => {
    const text = 'Time [s],Input [bar]\n"0,0","1,5"\n"0,5","2,25"\n1,3\n';
    const { layout } = found(text);
    expect(layout).toMatchObject({ delimiter: ',', decimal: ',' });
    expect(product(utf8(text))).toMatchObject({ rows: 3, duration_s: 1, troubleCount: 0 });
  });
  test('a text with one number in it', () => {
    expect(whyNot('Notes on a brake\npulled 3 times\n')).toMatch(/Line 2 reads “pulled 3 times”/);
  });
});

describe('ports', () => {
  test.each([
    ['Druck Eingang', 'input', 'Fluid in'],
    ['Pression sortie', 'output', 'Fluid out'],
    ['Vuoto', 'supply', 'Vacuum supply'],
    ['Presión delantera', 'front', 'Front circuit'],
  ])('“%s” is asked, not taken for granted', (name, port, called) => {
    const unit = port === 'supply' ? 'kPa' : 'bar';
    const { layout, doubts } = found(`Time [s];${name} [${unit}]\n0;1\n1;2\n2;3\n`);
    expect(layout.columns[0]!.port).toBe(port);
    expect(doubts).toEqual([`“${name}”: is that ${called}? It is taken for it until you say otherwise.`]);
  });
  test('a pressure that is at no port is a doubt; what is none is not', () => {
    const { doubts } = found('Time [s],P3 [bar],Oil [°C]\n0,1,20\n1,2,21\n2,3,22\n');
    expect(doubts).toEqual([
      '“P3” is a pressure, and its name does not say at which port: choose it, or leave the column out.',
    ]);
  });
});
