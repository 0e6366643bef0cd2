import { findUnit, fromSI, toSI, UNIT_SETS, UNITS, unitFor, QUANTITIES, type Unit } from './units';
import { printNames, printSentence, sentence } from './sentence';
import { printDifference, printQuantity } from './print';

describe('units', () => {
  // Handbook 3.
  test.each([
    ['psi', 6894.757],
    ['inHg', 3386.389],
    ['bar', 1e5],
    ['mmHg', 133.3224],
    ['kgf/cm²', 98_066.5],
    ['lbf', 4.448222],
    ['in', 0.0254],
  ])('1 %s is %d in SI', (symbol, factor) => expect(toSI(1, findUnit(symbol)!)).toBeCloseTo(factor, 9));

  test('every unit set shows every quantity in a unit that measures it', () => {
    for (const set of UNIT_SETS)
      for (const quantity of QUANTITIES) expect(unitFor(quantity, set).measures).toContain(quantity);
  });
  test('imperial, metric and mixed as the trade knows them', () => {
    const shown = (set: (typeof UNIT_SETS)[number]) =>
      (['pressure', 'depression', 'force', 'length', 'temperature'] as const).map(
        (q) => unitFor(q, set).symbol,
      );
    expect(shown('imperial')).toEqual(['psi', 'inHg', 'lbf', 'in', '°F']);
    expect(shown('metric')).toEqual(['bar', 'kPa', 'N', 'mm', '°C']);
    expect(shown('mixed')).toEqual(['bar', 'inHg', 'N', 'mm', '°C']);
  });
  test('no spelling belongs to two units', () => {
    const spellings = Object.values(UNITS as Record<string, Unit>).flatMap((unit) => [
      unit.symbol.toLowerCase(),
      ...(unit.aliases ?? []),
    ]);
    const named = spellings.filter((spelling) => spelling !== '');
    expect(new Set(named).size).toBe(named.length);
  });
  test.each([
    [0, 32],
    [100, 212],
    [-40, -40],
  ])('%d °C is %d °F', (c, f) => expect(fromSI(toSI(c, UNITS.degC), UNITS.degF)).toBeCloseTo(f, 9));
  test.each(['INHG', 'inhg', '"Hg', 'in. Hg', 'hPa', 'BAR', 'kg/cm2'])('%s is understood', (typed) =>
    expect(findUnit(typed)).toBeDefined(),
  );
  test('case counts where it changes the meaning: mPa is not MPa', () => {
    expect(findUnit('MPa')?.factor).toBe(1e6);
    expect(findUnit('mPa')).toBeUndefined();
  });
});

describe('printing in each unit set', () => {
  test.each([
    ['mixed', 'pressure', 28e5, '28.0 bar'],
    ['imperial', 'pressure', 28e5, '406 psi'],
    ['metric', 'depression', 67_727.78, '67.7 kPa'],
    ['mixed', 'depressionRate', 3386.389 / 60, '1.00 inHg/min'],
    ['imperial', 'pressureRate', 2e5 / 60, '29 psi/min'],
    ['mixed', 'percent', 0.15, '15.0 %'],
    ['mixed', 'ratio', 3.6, '3.60'],
    ['imperial', 'temperature', 293.15, '68 °F'],
    ['metric', 'area', 0.0415476, '415.5 cm²'],
  ] as const)('%s %s', (set, quantity, value, text) =>
    expect(printQuantity(value, quantity, set)).toBe(text),
  );
  test('never more than six decimals, however small U is', () => {
    expect([1.2, 8, 12.4].map((t) => printQuantity(t, 'duration', 'mixed'))).toEqual([
      '1.2 s',
      '8 s',
      '12 s',
    ]);
    expect(printQuantity(1e5, 'pressure', 'mixed', { u_SI: 1e-9 })).toBe('1.000000 bar');
  });
  test('a large U leaves no decimals, and a bare value no unit', () => {
    expect(printQuantity(1.234e7, 'pressure', 'mixed', { u_SI: 8e6, bare: true })).toBe('123');
  });
  test('a difference shows its sign', () => {
    expect(printDifference(2e5, 'pressure', 'mixed')).toBe('+2.0 bar');
    expect(printDifference(-2e5, 'pressure', 'mixed')).toBe('−2.0 bar');
    expect(printDifference(0, 'pressure', 'mixed')).toBe('0.0 bar');
  });
  test('a count is whole, and its doubt is never understated', () => {
    const shown = (u_SI: number) => printQuantity(7, 'count', 'mixed', { u_SI, withU: true });
    // U = 2u: 0.8 is at most one, 2.2 at most three, a hundredth none.
    expect([0.4, 1.1, 0.005, 0].map(shown)).toEqual(['7 ± 1', '7 ± 3', '7', '7']);
  });
});

describe('sentences', () => {
  const one = sentence('It reads {value}, and needs {low}; {unknown} stays.', {
    value: { value: 15 * 3386.389, quantity: 'depression', u: 0.1 * 3386.389, withU: true },
    low: { value: 16 * 3386.389, quantity: 'depression' },
  });
  test('numbers are printed in the reader’s units', () => {
    expect(printSentence(one, 'mixed')).toBe(
      'It reads 15.00 ± 0.20 inHg, and needs 16.0 inHg; {unknown} stays.',
    );
    expect(printSentence(one, 'metric')).toBe(
      'It reads 50.8 ± 0.7 kPa, and needs 54.2 kPa; {unknown} stays.',
    );
  });
  test('names in a row keep their own commas and capitals', () => {
    expect(printNames(['Boost ratio B, as a slope', 'Crack'])).toBe('boost ratio B, as a slope; crack');
    expect(printNames([])).toBe('');
  });
});
