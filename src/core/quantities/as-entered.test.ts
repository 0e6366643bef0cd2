/** @jest-environment node */
import fc from 'fast-check';
import { asEntered } from './as-entered';
import { parseReading } from './reading';
import { toSI, UNIT_SETS, UNITS, unitFor, type Quantity, type Unit, type UnitId } from './units';

const read = (text: string, quantity: Quantity, set: (typeof UNIT_SETS)[number]) => {
  const result = parseReading(text, { quantity, unit: unitFor(quantity, set), barometer_Pa: 1e9 });
  if (!result.ok) throw new Error(`${text}: ${result.why.code}`);
  return result.value_SI;
};

test.each([
  // 13/16 in = 20.6375 mm; 9 1/4 in = 234.95 mm, which a person also writes; 1 1/64 in = 25.796875 mm.
  ['13/16 in', 0.0254 * (13 / 16), 'length', 'metric'],
  ['13/16', 0.0254 * (13 / 16), 'length', 'imperial'],
  ['1 1/64 in', 0.0254 * (65 / 64), 'length', 'mixed'],
  ['20.6', 0.0206, 'length', 'metric'],
  ['1', 0.0254, 'length', 'imperial'],
  ['18', 18 * 3386.389, 'depression', 'mixed'],
  ['18 inHg', 18 * 3386.389, 'depression', 'metric'],
  ['300 psi', 300 * 6894.757, 'pressure', 'metric'],
  ['2.5', 2.5e5, 'pressure', 'mixed'],
  ['68', 273.15 + 20, 'temperature', 'imperial'],
] as const)('%s is printed back as it was entered', (text, value_SI, quantity, set) => {
  expect(asEntered(value_SI, quantity, set)).toBe(text);
});

test('whatever unit it was entered in, it comes back as a figure of as many digits, and reads as the same value', () => {
  const ids = (Object.keys(UNITS) as UnitId[]).filter((id) => UNITS[id].symbol !== '');
  fc.assert(
    fc.property(
      fc.constantFrom(...ids),
      fc.integer({ min: 1, max: 999 }),
      fc.integer({ min: 0, max: 2 }),
      fc.constantFrom(...UNIT_SETS),
      (id, digits, places, set) => {
        const unit: Unit = UNITS[id];
        const value_SI = toSI(digits / 10 ** places, unit);
        for (const quantity of unit.measures) {
          const text = asEntered(value_SI, quantity, set);
          expect(Math.abs(read(text, quantity, set) / value_SI - 1)).toBeLessThan(1e-6);
          expect(text.replace(/[^\d]/g, '').replace(/^0+|0+$/g, '').length).toBeLessThanOrEqual(7);
        }
      },
    ),
    { numRuns: 400, seed: 12 },
  );
});
