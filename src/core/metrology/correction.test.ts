/** @jest-environment node */
import fc from 'fast-check';
import { gauges, INHG } from '../scenarios/bench';
import { readCorrection } from './correction-text';
import { correctedReading_SI, type Correction } from './correction';
import { gaugeUncertainty_SI, instrumentSchema } from './instrument';
import { measured, readingUncertainty_SI } from './uncertainty';

const BAR = 1e5;
const toInHg = (value_Pa: number) => Number((value_Pa / INHG).toFixed(6));
const points = (rows: readonly (readonly [number, number])[]) =>
  rows.map(([reference, indicated]) => ({ reference_Pa: reference * BAR, indicated_Pa: indicated * BAR }));
const table = (rows: readonly (readonly [number, number])[]): Correction => ({
  points: points(rows),
  expandedU_Pa: 0.1 * BAR,
  certificate: 'C-9',
});
const gauge = {
  ...gauges.outHigh,
  correction: table([
    [0, 0.4],
    [50, 50.2],
    [100, 101],
  ]),
};

describe('a correction table', () => {
  test('is read between its rows: 75.6 bar shown is 75 bar', () => {
    // Between 50.2 → 50 and 101 → 100: (75.6 − 50.2)/50.8 = ½, so 75.
    expect(correctedReading_SI(gauge, 75.6 * BAR, null) / BAR).toBeCloseTo(75, 9);
  });
  test('a zero that drifted since the calibration is taken off first', () => {
    // It showed 0.4 bar vented then and 0.6 now: 0.2 has drifted, so 101.2 shown now is 101 then, which is 100.
    expect(correctedReading_SI(gauge, 101.2 * BAR, 0.6 * BAR) / BAR).toBeCloseTo(100, 9);
  });
  test('outside the table only the vented zero is taken off', () => {
    expect(correctedReading_SI(gauge, 130 * BAR, 0.4 * BAR) / BAR).toBeCloseTo(129.6, 9);
  });
  test('its stated uncertainty takes the place of the class, inside it only', () => {
    // U 0.1 bar (k = 2) is u 0.05; class 0.6 of 160 bar is 0.96/√3 = 0.554.
    expect(gaugeUncertainty_SI(gauge, 80 * BAR) / BAR).toBeCloseTo(0.05, 9);
    expect(gaugeUncertainty_SI(gauge, 120 * BAR) / BAR).toBeCloseTo(0.554256, 5);
    expect(readingUncertainty_SI(measured([75.6 * BAR], gauge))).toBeLessThan(0.08 * BAR);
  });
  test('undoes any rising error at the rows themselves', () => {
    const row = fc.tuple(
      fc.double({ min: 1, max: 9, noNaN: true }),
      fc.double({ min: 1, max: 9, noNaN: true }),
    );
    fc.assert(
      fc.property(fc.array(row, { minLength: 2, maxLength: 12 }), (steps) => {
        const rows = steps.map(
          (_, i) =>
            [0, 1].map((k) => steps.slice(0, i + 1).reduce((s, one) => s + one[k]!, 0)) as [number, number],
        );
        const any = { ...gauge, correction: table(rows) };
        for (const [reference, indicated] of rows)
          expect(correctedReading_SI(any, indicated * BAR, null) / BAR).toBeCloseTo(reference, 6);
      }),
    );
  });
  test.each([
    [
      [
        [0, 0],
        [50, 51],
        [40, 60],
      ],
      /row 3: the reference value must be above/,
    ],
    [
      [
        [0, 0],
        [50, 51],
        [60, 51],
      ],
      /row 3: the indicated value must be above/,
    ],
    [[[0, 0]], /at least two points/],
    [
      [
        [0, 0],
        [200, 210],
      ],
      /beyond the full scale/,
    ],
  ])('%j is refused', (rows, sentence) => {
    const parsed = instrumentSchema.safeParse({ ...gauge, correction: table(rows as [number, number][]) });
    expect(parsed.error?.issues.map(({ message }) => message).join(' ')).toMatch(sentence);
  });
});

describe('a table as typed or from a file', () => {
  const read = (text: string) => readCorrection(text, gauges.outHigh, 'mixed');
  const inBar = (text: string) => {
    const found = read(text);
    if (!found.ok) throw new Error(found.why);
    return found.points.map((p) =>
      [p.reference_Pa / BAR, p.indicated_Pa / BAR].map((x) => Number(x.toFixed(6))),
    );
  };
  test.each([
    ['semicolons, decimal commas', '0;0,4\n50;50,2'],
    ['tabs', '0\t0.4\n50\t50.2'],
    ['a comma between, points within', '0,0.4\n50,50.2'],
    ['blanks', '0 0,4\n50 50,2'],
    [
      'a head, a byte-order mark, blank lines, Windows ends',
      '\uFEFFReference (bar);Indicated (bar)\r\n\r\n0;0.4\r\n50;50.2\r\n',
    ],
    ['quoted cells', '"0";"0.4"\n"50";"50.2"'],
    ['units of its own', '0 kPa;40 kPa\n5 MPa;5.02 MPa'],
  ])('%s', (_what, text) => {
    expect(inBar(text)).toEqual([
      [0, 0.4],
      [50, 50.2],
    ]);
  });
  test.each([
    ['a vacuum gauge that stands below its zero vented', '0; -0.1\n15; 15.2'],
    ['the same on a certificate of negative gauge pressures', '0; 0.1\n-15; -15.2'],
  ])('%s', (_what, text) => {
    const found = readCorrection(text, gauges.supply, 'mixed');
    const inInHg = found.ok ? found.points.map((p) => [p.reference_Pa, p.indicated_Pa].map(toInHg)) : [];
    expect(inInHg).toEqual([
      [0, -0.1],
      [15, 15.2],
    ]);
  });
  test('what can be meant both ways is asked for: 1.000 psi or 1 000 psi on a gauge of 2 320', () => {
    const found = readCorrection('1.000;1.004', gauges.outHigh, 'imperial');
    expect(found.ok ? '' : found.why).toMatch(/line 1: “1.000” can be read in two ways/);
  });
  test('three decimals are no thousands where that would be off the scale', () => {
    expect(inBar('10.012;10.055\n20.125;20.2')).toEqual([
      [10.012, 10.055],
      [20.125, 20.2],
    ]);
  });
  test.each([
    ['', /no point in it/],
    ['0;0.4;7', /line 1: two values/],
    ['0;0.4\nfifty;51', /line 2.*not a number/],
    ['0;0.4\n50 parsec;51', /line 2/],
  ])('%j is refused with the line', (text, sentence) => {
    const found = read(text);
    expect(found.ok ? '' : found.why).toMatch(sentence);
  });
});
