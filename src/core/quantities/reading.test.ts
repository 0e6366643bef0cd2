import fc from 'fast-check';
import { parseNumber } from './number';
import { printDifference, printQuantity } from './print';
import { parseReading, readingList, type ReadingRules } from './reading';
import { refusalSentence } from './refusal';
import { UNITS, UNIT_SETS, fromSI, unitFor, type Quantity } from './units';

const rules = (quantity: Quantity, unit: keyof typeof UNITS): ReadingRules => ({
  quantity,
  unit: UNITS[unit],
  barometer_Pa: 101_325,
});
const vacuum = rules('depression', 'inHg');
const fluid = rules('pressure', 'bar');

function value(text: string, how: ReadingRules): number {
  const result = parseReading(text, how);
  if (!result.ok) throw new Error(JSON.stringify(result.why));
  return result.value_SI;
}
const code = (text: string, how: ReadingRules) => {
  const result = parseReading(text, how);
  return result.ok ? 'ok' : result.why.code;
};

describe('typed readings', () => {
  // Factors from handbook 3, multiplied by hand.
  test.each([
    ['18 inHg', vacuum, 60_955.0], // 18 × 3386.389
    ['0,61 bar', vacuum, 61_000],
    ['−9 psi', vacuum, 62_052.8], // 9 × 6894.757, gauge below the room
    ['-9 psi', vacuum, 62_052.8],
    ['20', vacuum, 67_727.8],
    ['40.32 kPa abs', vacuum, 61_005], // 101.325 − 40.32
    ['28', fluid, 2_800_000],
    ['400 psi', fluid, 2_757_902.8],
    ['1.01325 bar abs', fluid, 0],
    ['14.70 psia', fluid, 27.93], // 14.70 × 6894.757 − 101 325
    ['10 kgf/cm²', fluid, 980_665],
    ['77 °F', rules('temperature', 'degC'), 298.15],
    ['1 600 m', rules('altitude', 'm'), 1600],
  ])('%s', (text, how, expected) => {
    // psi's factor has seven digits.
    expect(Math.abs(value(text, how) - expected)).toBeLessThan(0.1);
  });

  test.each([
    ['1,200', [1.2, 1200]],
    ['12.500', [12.5, 12500]],
  ])('%s is ambiguous: both readings are given, none is chosen', (text, candidates) => {
    expect(parseNumber(text)).toEqual({ ok: false, code: 'ambiguous', candidates });
  });

  test.each([
    ['0,610', 0.61],
    ['1,200.5', 1200.5],
    ['1.200,5', 1200.5],
    ['1,234,567', 1234567],
    ['1234.567', 1234.567],
    ['1 200,5', 1200.5],
    ['.5', 0.5],
  ])('%s is not ambiguous', (text, expected) => {
    expect(parseNumber(text)).toEqual({ ok: true, value: expected });
  });

  test.each([
    ['', fluid, 'empty'],
    ['twelve', fluid, 'not-a-number'],
    ['1e5', fluid, 'unknown-unit'],
    ['1.2.3', fluid, 'not-a-number'],
    ['12 furlongs', fluid, 'unknown-unit'],
    ['18 inHg', fluid, 'wrong-quantity'],
    ['5 N', vacuum, 'wrong-quantity'],
    ['31 inHg', vacuum, 'above-barometer'],
    ['2 bar abs', vacuum, 'not-a-vacuum'],
    ['-2 bar', fluid, 'below-absolute-zero'],
    ['-300', rules('temperature', 'degC'), 'below-absolute-zero'],
    ['3 mPa', fluid, 'unknown-unit'],
  ])('%s is refused: %#', (text, how, expected) => {
    expect(code(text, how)).toBe(expected);
  });

  test('a barometer or a gauge may be off: 102 kPa abs at 101.325 is 0.675 kPa above it, and no more is 104', () => {
    expect(value('102 kPa abs', vacuum)).toBeCloseTo(-675, 6);
    expect(code('104 kPa abs', vacuum)).toBe('not-a-vacuum');
  });

  test('a vacuum written as a negative pressure is one, but in a table of what a gauge shows about its zero', () => {
    expect(value('-0.1 inHg', vacuum)).toBeCloseTo(338.6389, 3);
    expect(value('-0.1 inHg', { ...vacuum, signed: true })).toBeCloseTo(-338.6389, 3);
  });

  test('every refusal is a sentence that names the field', () => {
    const refusals = ['', 'x', '1,200', '3 zz', '3 N', '99 inHg'].map((text) => parseReading(text, vacuum));
    for (const refusal of refusals) {
      if (refusal.ok) throw new Error('taken');
      expect(refusalSentence(refusal.why, 'Supply', 'mixed')).toMatch(/^Supply: .+\.$/);
    }
    const tooDeep = parseReading('31 inHg', vacuum);
    expect(tooDeep.ok ? '' : refusalSentence(tooDeep.why, 'Supply', 'mixed')).toContain(
      'barometer reads 29.9 inHg',
    );
  });

  test('what is printed is read back as the same value, in every unit set', () => {
    const quantities = ['pressure', 'depression', 'force', 'temperature'] as const;
    fc.assert(
      fc.property(
        fc.constantFrom(...UNIT_SETS),
        fc.constantFrom(...quantities),
        fc.double({ min: 300, max: 90_000, noNaN: true }),
        (set, quantity, value_SI) => {
          const unit = unitFor(quantity, set);
          const printed = printQuantity(value_SI, quantity, set);
          const back = parseReading(printed, { quantity, unit, barometer_Pa: 101_325 });
          if (!back.ok) return back.why.code === 'ambiguous';
          return (
            Math.abs(fromSI(back.value_SI, unit) - fromSI(value_SI, unit)) <= 0.5 * 10 ** -unit.places + 1e-9
          );
        },
      ),
    );
  });
});

describe('printing', () => {
  test('as many digits as U = 2u deserves', () => {
    expect(printQuantity(10_083_000, 'pressure', 'mixed', { u_SI: 60_000, withU: true })).toBe(
      '100.8 ± 1.2 bar',
    );
    expect(printQuantity(10_083_000, 'pressure', 'mixed', { u_SI: 200_000, withU: true })).toBe(
      '101 ± 4 bar',
    );
    expect(printQuantity(67_727.78, 'depression', 'mixed', { u_SI: 400, withU: true })).toBe(
      '20.00 ± 0.24 inHg',
    );
    expect(printQuantity(-100, 'pressure', 'mixed')).toBe('0.0 bar');
    expect(printQuantity(-150_000, 'pressure', 'mixed')).toBe('−1.5 bar');
  });
  test('a temperature difference has no zero offset', () => {
    expect(printDifference(5, 'temperature', 'imperial')).toBe('+9 °F');
  });
});

describe('as it is written in a shop', () => {
  const length = { quantity: 'length', unit: UNITS.mm, barometer_Pa: 101_325 } as const;
  // 13/16 in = 0.8125 · 25.4 mm = 20.6375 mm; 9 1/4 in = 234.95 mm.
  test.each([
    ['13/16 in', 0.0206375],
    ['9 1/4 in', 0.23495],
    ['9-1/4"', 0.23495],
    ['1/2', 0.0005],
  ])('%s is %d m', (typed, expected) => {
    const read = parseReading(typed, length);
    expect(read.ok && read.value_SI).toBeCloseTo(expected, 9);
  });
  test('a fraction over nothing is no number', () => {
    expect(parseReading('1/0 in', length)).toMatchObject({ ok: false, why: { code: 'not-a-number' } });
  });
  test('a vacuum in MPa and in kgf/cm²', () => {
    const vacuum = { quantity: 'depression', unit: UNITS.inHg, barometer_Pa: 101_325 } as const;
    expect(parseReading('0.06 MPa', vacuum)).toMatchObject({ ok: true, value_SI: 60_000 });
    expect(parseReading('0.5 kgf/cm²', vacuum)).toMatchObject({ ok: true, value_SI: 49_033.25 });
  });
  test('the unit of a list is that of every member without one', () => {
    expect(readingList('300; 650; 950 psi')).toEqual(['300 psi', '650 psi', '950 psi']);
    expect(readingList('20 bar; 45; 70 bar')).toEqual(['20 bar', '45 bar', '70 bar']);
    expect(readingList('20; 45; ')).toEqual(['20', '45']);
    expect(readingList('13/16; 1/2 in')).toEqual(['13/16 in', '1/2 in']);
  });
  test('“1,000 psi” is asked about in psi; a unit that is not known names those that are', () => {
    const fluidPsi = { quantity: 'pressure', unit: UNITS.bar, barometer_Pa: 101_325 } as const;
    const asked = parseReading('1,000 psi', fluidPsi);
    expect(asked).toMatchObject({ ok: false, why: { code: 'ambiguous', unit: { symbol: 'psi' } } });
    const furlongs = parseReading('5 furlongs', fluidPsi);
    expect(furlongs.ok || refusalSentence(furlongs.why, 'Fluid in', 'mixed')).toMatch(
      /in bar, psi, kPa, MPa/,
    );
  });
});
