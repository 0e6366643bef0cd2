/** @jest-environment node */
import fc from 'fast-check';
import { detectLayout, nameAndUnit, unitOf, type Detected } from './detect';
import { layoutSchema, type LogLayout } from './layout';
import { LogReader } from './reader';
import { readTime } from './time';

const BAROMETER_PA = 101_325;
const encode = (text: string) => new TextEncoder().encode(text);

function found(text: string): Extract<Detected, { ok: true }> {
  const detected = detectLayout(text);
  if (!detected.ok) throw new Error(detected.why);
  return detected;
}
const whyNot = (text: string) => {
  const detected = detectLayout(text);
  return detected.ok ? '' : detected.why;
};
function read(text: string, layout: LogLayout = found(text).layout, pieces = Infinity) {
  const reader = new LogReader(layout, BAROMETER_PA);
  const bytes = encode(text);
  for (let at = 0; at < bytes.length; at += pieces) reader.push(bytes.subarray(at, at + pieces));
  return reader.finish();
}
const columns = (text: string, layout?: LogLayout): Record<string, number[]> & { time: number[] } => {
  const { trace } = read(text, layout);
  return {
    time: [...trace.time_s],
    ...Object.fromEntries(trace.channels.map((c) => [c.port ?? c.name, [...c.values]])),
  };
};
const near = (values: unknown, expected: number[]) => {
  expect((values as number[]).length).toBe(expected.length);
  (values as number[]).forEach((v, i) => expect(v / (expected[i] || 1)).toBeCloseTo(expected[i] ? 1 : 0, 5));
};

test('a reading that cannot be, written plainly or with an exponent, is a gap that is named', () => {
  const { trace, troubles } = read('t_s,input_bar\n0,1.5\n1,1e308\n2,999999999\n3,2\n');
  expect([...trace.channels[0]!.values].map(Number.isFinite)).toEqual([true, false, false, true]);
  expect(troubles.map(({ line, column, what }) => [line, column, what])).toEqual([
    [3, 2, expect.stringMatching(/no reading can be as large/)],
    [4, 2, expect.stringMatching(/no reading can be as large/)],
  ]);
});

test('a last line that the file cuts short is no reading; a whole one without its end is', () => {
  const log = 't_s,input_bar\n0,1.50\n1,2.00\n2,2.';
  expect(read(`${log}50`).rows).toBe(3);
  for (const end of ['', '5']) {
    const { rows, troubles } = read(`${log}${end}`);
    expect([rows, troubles.at(-1)]).toEqual([
      2,
      { line: 4, column: 2, what: expect.stringMatching(/ends in this/) },
    ]);
  }
});

test('a column in furlongs is not read as something else: its unit is asked for', () => {
  const { foreign, doubts } = found('t_s,Pressure in [furlong]\n0,1.5\n1,2\n2,2.5\n');
  expect(foreign).toEqual([{ index: 1, name: 'Pressure in', unit: 'furlong' }]);
  expect(doubts.join(' ')).not.toMatch(/names no unit/);
  expect(found('t_s,Pressure in [bar],Input\n0,1.5,1\n1,2,1\n').foreign).toEqual([]);
});

test('a pressure logged in volts is a voltage, at no port, and that is said', () => {
  const { layout, foreign, doubts } = found('t_s,Pressure in [mV],Battery [V]\n0,150,12.4\n1,200,12.3\n');
  expect(foreign).toEqual([]);
  expect(layout.columns).toMatchObject([
    { name: 'Pressure in', quantity: 'voltage', port: null },
    { name: 'Battery', quantity: 'voltage', port: null },
  ]);
  expect(doubts.filter((doubt) => doubt.includes('stands at no port'))).toHaveLength(1);
});

describe('logs as loggers write them', () => {
  test('units in the head, comma and point', () => {
    const all = columns('Time [s],Input [bar],Output [bar]\n0.00,1.5,5.4\n0.01,2.0,7.2\n0.02,2.5,9\n');
    near(all.time, [0, 0.01, 0.02]);
    near(all.input, [1.5e5, 2e5, 2.5e5]);
    near(all.output, [5.4e5, 7.2e5, 9e5]);
  });
  test('semicolon and decimal comma, a line of units of its own, junk above, a byte-order mark, CR LF', () => {
    const text = [
      '\ufeffLogger 7;serial;0042',
      'Started by;somebody',
      '',
      'Zeit;Eingang;Ausgang;Unterdruck',
      's;bar;bar;mbar',
      '0,0;1,5;5,4;-600',
      '0,1;2,0;7,2;-598,5',
      '0,2;2,5;9,0;-601',
      '',
    ].join('\r\n');
    const { layout } = found(text);
    expect(layout).toMatchObject({ delimiter: ';', decimal: ',', firstLine: 5 });
    const all = columns(text);
    near(all.input, [1.5e5, 2e5, 2.5e5]);
    // A vacuum written as negative gauge pressure is a depression.
    near(all.supply, [6e4, 59_850, 60_100]);
  });
  test('tabs, a decimal comma, psi and inHg', () => {
    const text =
      't (ms)\tP in (psi)\tP out (psi)\tVacuum (inHg)\n0\t10,5\t30\t20\n10\t11\t31,5\t19,9\n20\t12\t33\t19,8\n';
    expect(found(text).layout).toMatchObject({ delimiter: '\t', decimal: ',' });
    const all = columns(text);
    near(all.time, [0, 0.01, 0.02]);
    near(all.input, [10.5 * 6894.757, 11 * 6894.757, 12 * 6894.757]);
    near(all.supply, [20 * 3386.389, 19.9 * 3386.389, 19.8 * 3386.389]);
  });
  test('an absolute vacuum is taken from the barometer', () => {
    const text = 'time_s,supply_kPa abs,output_bar\n0,35,1\n1,36,2\n2,37,3\n';
    expect(found(text).layout.columns[0]).toMatchObject({ port: 'supply', form: 'absolute' });
    near(columns(text).supply, [66_325, 65_325, 64_325]);
  });
  test.each([
    ['ISO', '2026-11-23T08:00:00.250Z', '2026-11-23T08:00:00.750Z', 0.5],
    ['ISO with a blank and a zone', '2026-11-23 08:00:00+01:00', '2026-11-23 08:01:00+01:00', 60],
    ['a clock', '08:00:00.5', '08:00:02,0', 1.5],
  ])('time as %s', (_name, first, second, apart) => {
    const text = `Timestamp;in [bar];out [bar]\n${first};1;2\n${second};2;4\n`;
    expect(columns(text).time[1]).toBeCloseTo(apart, 6);
  });
  test('time as a spreadsheet counts it: days since 1900', () => {
    const text = 'Date,in [bar],out [bar]\n45000.00000,1,2\n45000.00001,2,4\n45000.00002,3,6\n';
    expect(found(text).layout.time.kind).toBe('spreadsheet');
    expect(columns(text).time[2]).toBeCloseTo(1.728, 3);
  });
  test('without a time, lines are evenly spaced, and that is said', () => {
    const text = 'in [bar],out [bar]\n5,2\n4,4\n6,6\n3,1\n';
    const { layout, doubts } = found(text);
    expect(layout.time).toMatchObject({ index: null, kind: 'rows' });
    expect(doubts.join()).toMatch(/No column of time/);
    near(columns(text, { ...layout, time: { ...layout.time, interval_s: 0.5 } }).time, [0, 0.5, 1, 1.5]);
  });
  test('quotes, empty cells and NaN are gaps, not zeros', () => {
    const text = 'time [s];in [bar];out [bar]\n"0,0";"1,5";2\n0,1;;3\n0,2;nan;4\n0,3;2,5;5\n';
    const all = columns(text);
    expect(all.input).toEqual([150_000, NaN, NaN, 250_000]);
    expect(read(text).troubleCount).toBe(0);
  });
});

describe('what is wrong is said with its place, and the rest is used', () => {
  const HEAD = 'time [s],in [bar],out [bar]\n';
  test.each([
    ['a word where a number should be', '0,1,2\n1,broken,4\n2,3,6\n', /“broken” is no number/, [3, 2]],
    ['a short line', '0,1,2\n1,2\n2,3,6\n', /2 columns instead of 3/, [3, 2]],
    ['time that runs backwards', '0,1,2\n5,2,4\n2,3,6\n6,4,8\n', /time runs backwards/, [4, 1]],
    ['no time', '0,1,2\n,2,4\n2,3,6\n', /no time here/, [3, 1]],
    ['an infinite value', '0,1,2\n1,inf,4\n2,3,6\n', /“inf” is no number/, [3, 2]],
  ])('%s', (_name, body, what, [line, column]) => {
    const { troubles, rows } = read(HEAD + body, found(HEAD + '0,1,2\n1,2,4\n').layout);
    expect(troubles).toHaveLength(1);
    expect(troubles[0]!.what).toMatch(what);
    expect([troubles[0]!.line, troubles[0]!.column]).toEqual([line, column]);
    expect(rows).toBeGreaterThanOrEqual(2);
  });
  test('a file cut in the middle of its last line loses that line only', () => {
    const { rows, troubles } = read(`${HEAD}0,1,2\n1,2,4\n2,3`, found(`${HEAD}0,1,2\n1,2,4\n`).layout);
    expect(rows).toBe(2);
    expect(troubles[0]!.what).toMatch(/2 columns instead of 3/);
  });
  test('a million troubles are counted, and twenty told', () => {
    const { troubles, troubleCount } = read(
      HEAD + '0,1,2\n1,2,4\n' + 'x,y,z\n'.repeat(1000),
      found(`${HEAD}0,1,2\n1,2,4\n`).layout,
    );
    expect(troubles).toHaveLength(20);
    expect(troubleCount).toBeGreaterThanOrEqual(1000);
  });
  test('a line without an end is passed over, not held', () => {
    const reader = new LogReader(found(`${HEAD}0,1,2\n1,2,4\n`).layout, BAROMETER_PA);
    for (let i = 0; i < 300; i += 1) reader.push(encode('9'.repeat(1000)));
    expect(reader.finish().troubles[0]!.what).toMatch(/more than 100 000 characters/);
  });
  test.each([
    ['empty', '', /empty/],
    ['blank', '\n\n  \n', /empty/],
    ['binary', 'PK\u0003\u0004\u0000\u0000rest', /not a text file/],
    ['prose', 'Dear customer,\nyour brake is fine.\nRegards\n', /No columns of numbers/],
    ['one column', 'x\n1\n2\n3\n', /No columns of numbers/],
    ['a head alone', 'time,in,out\n', /No columns of numbers/],
  ])('%s is refused with a sentence', (_name, text, why) => {
    expect(whyNot(text)).toMatch(why);
  });
  test('doubled and missing names, and missing units, are doubts', () => {
    expect(found('time [s],P,P\n0,1,2\n1,2,3\n').doubts.join()).toMatch(
      /“P” stands above more than one.*names no unit/,
    );
    expect(found('0,1,2\n1,2,3\n2,3,4\n').doubts.join()).toMatch(/No line of names/);
  });
});

describe('in pieces', () => {
  test('of any size, a file reads the same', () => {
    const text =
      'time [s];in [bar];out [bar]\r\n' +
      Array.from({ length: 60 }, (_, i) => `${i / 10};${i},5;${3 * i}\r\n`).join('');
    const layout = { ...found(text.replaceAll('.', ',')).layout };
    const body = text.replaceAll('.', ',');
    const whole = read(body, layout);
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 70 }), (size) => {
        const parts = read(body, layout, size);
        expect(parts.rows).toBe(60);
        expect([...parts.trace.time_s]).toEqual([...whole.trace.time_s]);
        expect(parts.trace.channels.map((c) => [...c.values])).toEqual(
          whole.trace.channels.map((c) => [...c.values]),
        );
      }),
      { numRuns: 30 },
    );
  });
  test('numbers read from bytes are those that JavaScript reads', () => {
    const layout = found('time [s],in [bar],out [bar]\n0,1,2\n1,2,4\n').layout;
    fc.assert(
      fc.property(
        fc.integer({ min: -99_999_999, max: 99_999_999 }),
        fc.integer({ min: 0, max: 8 }),
        (digits, places) => {
          const text = (digits / 10 ** places).toFixed(places);
          const { trace } = read(`h,h,h\n0,${text},1\n`, { ...layout, firstLine: 1 });
          expect(trace.channels[0]!.values[0]).toBe(Math.fround(Number(text) * 1e5));
        },
      ),
    );
  });
});

describe('the pieces of a head', () => {
  test.each([
    ['Pressure in [bar]', '', 'Pressure in', 'bar'],
    ['p_out (psi)', '', 'p_out', 'psi'],
    ['supply / inHg', '', 'supply', 'inHg'],
    ['vac_kPa', '', 'vac', 'kPa'],
    ['output', '[bar]', 'output', 'bar'],
    ['plain name', '', 'plain name', ''],
  ])('“%s” over “%s”', (cell, below, name, unit) => {
    expect(nameAndUnit(cell, below)).toEqual({ name, unit });
  });
  test('units of gauges', () => {
    expect(['bar', 'barg', 'bar abs', 'PSIG', 'kPa', 'mmHg', 'furlong', ''].map(unitOf)).toEqual([
      'bar',
      'bar',
      'bar',
      'psi',
      'kPa',
      'mmHg',
      null,
      null,
    ]);
  });
  test('what was found keeps to the schema that is stored', () => {
    expect(layoutSchema.safeParse(found('time [s],in [bar],out [bar]\n0,1,2\n1,2,4\n').layout).success).toBe(
      true,
    );
    expect(Number.isNaN(readTime('nonsense', 'iso', '.'))).toBe(true);
  });
});
