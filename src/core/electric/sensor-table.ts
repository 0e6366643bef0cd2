/** A sensor’s volts against pressure, as its maker gives them at one supply: rows with a band either way, straight between them. */
export interface SensorTable {
  /** Supply that the table is for, V. */
  readonly supply_V: number;
  /** Pressures, rising, and volts with their bands, Pa and V. */
  readonly rows: readonly (readonly [pressure_Pa: number, volts_V: number, band_V: number])[];
}

/** Why a table is none, in a sentence with the relation that fails; null where it is one. */
export function tableRefused({ supply_V, rows }: SensorTable): string | null {
  if (rows.length < 2) return 'A table has two rows at least.';
  for (let i = 0; i < rows.length; i += 1) {
    const [pressure_Pa, volts_V, band_V] = rows[i]!;
    if (volts_V < 0 || volts_V > supply_V)
      return `Row ${i + 1}: ${volts_V} V cannot stand on a supply of ${supply_V} V.`;
    if (!(band_V > 0)) return `Row ${i + 1}: the band must be more than nothing.`;
    const before = rows[i - 1];
    if (before && !(pressure_Pa > before[0])) return `Row ${i + 1}: the pressure must rise from row to row.`;
    if (before && !(volts_V > before[1])) return `Row ${i + 1}: the volts must rise from row to row.`;
  }
  return null;
}

/** Values of two columns, the one found between the rows of the other, straight on beyond either end. */
function between({ rows }: SensorTable, by: 0 | 1, at: number, of: 0 | 1 | 2): number {
  const place = rows.slice(1, -1).filter((row) => at > row[by]).length;
  const [low, high] = [rows[place]!, rows[place + 1]!];
  return low[of] + ((at - low[by]) / (high[by] - low[by])) * (high[of] - low[of]);
}

/** Volts of a sound sensor at a pressure on the supply that was read, V: the table’s, scaled to it and held within it. */
export const tableVolts_V = (table: SensorTable, pressure_Pa: number, supply_V: number): number =>
  Math.min(1, Math.max(0, between(table, 0, pressure_Pa, 1) / table.supply_V)) * supply_V;

/** Pressure that the volts of a sensor tell of on the supply that was read, Pa. @param supply_V more than nothing */
export const tablePressure_Pa = (table: SensorTable, volts_V: number, supply_V: number): number =>
  between(table, 1, (volts_V * table.supply_V) / supply_V, 0);

/** How far a sound sensor may be off at a pressure, either way, as a pressure, Pa: its band by the slope of the table there. */
export function tableBand_Pa(table: SensorTable, pressure_Pa: number): number {
  const place = table.rows.slice(1, -1).filter(([at]) => pressure_Pa > at).length;
  const [low, high] = [table.rows[place]!, table.rows[place + 1]!];
  const slope = (high[1] - low[1]) / (high[0] - low[0]);
  const [first, last] = [table.rows[0]!, table.rows.at(-1)!];
  const within = Math.min(last[0], Math.max(first[0], pressure_Pa));
  return between(table, 0, within, 2) / slope;
}
