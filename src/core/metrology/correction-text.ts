import { parseReading, type ReadingRules } from '../quantities/reading';
import { refusalSentence } from '../quantities/refusal';
import { unitFor, type UnitSet } from '../quantities/units';
import type { Correction } from './correction';
import type { Instrument } from './instrument';

export type ReadTable = { ok: true; points: Correction['points'] } | { ok: false; why: string };

/** A table is not bounded by any barometer. */
const NO_BAROMETER_PA = 1e9;
/** Beyond this part of the full scale a value cannot be meant. */
const OVER_SCALE = 1.05;

/** Cells of a line: apart by tab or semicolon; else by a comma with a blank behind it, by blanks, or by a lone comma. */
function cellsOf(line: string): string[] {
  const by = [/\t/, /;/, /,\s+/, /\s+(?=[-+−\d])/, /,/].find((separator) => separator.test(line.trim()));
  const cells = by ? line.trim().split(by) : [line];
  return cells.map((cell) => cell.trim().replace(/^"|"$/g, ''));
}

/**
 * Reads a correction table as typed or as a CSV file has it: a line a point, reference then indicated, decimal comma
 * or point, a unit behind a number where it is not the bench's own. A first line without a number is a head. Of two
 * ways to read “10.012”, one beyond the gauge's scale is not meant. Vacuums are depressions, or all of them negative
 * gauge pressures.
 *
 * @example readCorrection('0; 0,1\n100; 101', gauge, 'mixed') → two points, in Pa
 */
export function readCorrection(
  text: string,
  { quantity, fullScale_Pa }: Pick<Instrument, 'quantity' | 'fullScale_Pa'>,
  set: UnitSet,
): ReadTable {
  const points: { reference_Pa: number; indicated_Pa: number }[] = [];
  const rules: ReadingRules = {
    quantity,
    unit: unitFor(quantity, set),
    barometer_Pa: NO_BAROMETER_PA,
    signed: true,
  };
  for (const [i, line] of text
    .replace(/^\uFEFF/, '')
    .split(/\r?\n/)
    .entries()) {
    if (line.trim() === '' || (points.length === 0 && !/^"?\s*[-+−]?\d/.test(line))) continue;
    const no = (why: string): ReadTable => ({ ok: false, why: `Correction table, line ${i + 1}: ${why}` });
    const cells = cellsOf(line);
    if (cells.length !== 2)
      return no('two values are needed, the reference and what the gauge showed, with a semicolon between.');
    const values: number[] = [];
    for (const cell of cells) {
      const read = parseReading(cell, rules);
      const meant =
        !read.ok && read.why.code === 'ambiguous'
          ? read.why.candidates_SI.filter((value) => Math.abs(value) <= OVER_SCALE * fullScale_Pa)
          : [];
      if (read.ok) values.push(read.value_SI);
      else if (meant.length === 1) values.push(meant[0]!);
      else if (read.why.code === 'ambiguous')
        return no(`“${cell}” can be read in two ways. Write it without doubt, as in 1.2 or 1200.`);
      else return no(refusalSentence(read.why, cell, set));
    }
    points.push({ reference_Pa: values[0]!, indicated_Pa: values[1]! });
  }
  if (points.length === 0) return { ok: false, why: 'Correction table: there is no point in it.' };
  const asPressures = quantity === 'depression' && points.some(({ reference_Pa }) => reference_Pa < 0);
  return { ok: true, points: asPressures ? points.map(turned) : points };
}

const turned = ({ reference_Pa, indicated_Pa }: Correction['points'][number]) => ({
  reference_Pa: 0 - reference_Pa,
  indicated_Pa: 0 - indicated_Pa,
});
