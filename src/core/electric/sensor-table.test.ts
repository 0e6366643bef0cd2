import fc from 'fast-check';
import { tableBand_Pa, tablePressure_Pa, tableRefused, tableVolts_V, type SensorTable } from './sensor-table';

const BAR = 1e5;
/** Handbook 8.9: 0.50 V at 0 bar, 4.50 V at 250 bar, ± 0.06 V widening to ± 0.15 V. */
const USUAL: SensorTable = {
  supply_V: 5,
  rows: [
    [0, 0.5, 0.06],
    [250 * BAR, 4.5, 0.15],
  ],
};

test('the handbook’s table: 2.5 V are 125 bar, and on 4.9 V of supply 2.45', () => {
  expect(tablePressure_Pa(USUAL, 2.5, 5) / BAR).toBeCloseTo(125, 9);
  expect(tablePressure_Pa(USUAL, 2.45, 4.9) / BAR).toBeCloseTo(125, 9);
  expect(tableVolts_V(USUAL, 125 * BAR, 4.9)).toBeCloseTo(2.45, 9);
  // 0.06 V by 0.016 V/bar; halfway 0.105 V.
  expect(tableBand_Pa(USUAL, 0) / BAR).toBeCloseTo(3.75, 9);
  expect(tableBand_Pa(USUAL, 125 * BAR) / BAR).toBeCloseTo(6.5625, 9);
  expect(tableBand_Pa(USUAL, 400 * BAR) / BAR).toBeCloseTo(9.375, 9);
});

test('between its rows it is straight, and there and back it is the same', () => {
  const bent: SensorTable = {
    supply_V: 5,
    rows: [...USUAL.rows.slice(0, 1), [50 * BAR, 1.1, 0.07], [250 * BAR, 4.5, 0.15]],
  };
  expect(tableVolts_V(bent, 25 * BAR, 5)).toBeCloseTo(0.8, 9);
  expect(tableVolts_V(bent, 150 * BAR, 5)).toBeCloseTo(2.8, 9);
  fc.assert(
    fc.property(
      fc.double({ min: 0, max: 250 * BAR, noNaN: true }),
      fc.double({ min: 4, max: 5.5, noNaN: true }),
      (pressure_Pa, supply_V) =>
        expect(tablePressure_Pa(bent, tableVolts_V(bent, pressure_Pa, supply_V), supply_V)).toBeCloseTo(
          pressure_Pa,
          1,
        ),
    ),
  );
});

test.each<[string, SensorTable['rows'], RegExp]>([
  ['one row', [[0, 0.5, 0.1]], /two rows at least/],
  [
    'volts beyond the supply',
    [
      [0, 0.5, 0.1],
      [BAR, 5.2, 0.1],
    ],
    /^Row 2: 5\.2 V cannot stand on a supply of 5 V/,
  ],
  [
    'volts that fall',
    [
      [0, 0.5, 0.1],
      [BAR, 0.4, 0.1],
    ],
    /^Row 2: the volts must rise/,
  ],
  [
    'a pressure twice',
    [
      [0, 0.5, 0.1],
      [0, 0.6, 0.1],
    ],
    /^Row 2: the pressure must rise/,
  ],
  [
    'no band',
    [
      [0, 0.5, 0],
      [BAR, 0.6, 0.1],
    ],
    /^Row 1: the band must be more/,
  ],
])('%s is no table, and says why', (_what, rows, says) => {
  expect(tableRefused({ supply_V: 5, rows })).toMatch(says);
});
test('the handbook’s is one', () => expect(tableRefused(USUAL)).toBeNull());
