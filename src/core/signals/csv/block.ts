import { cellKind, cellsOf, type CellKind } from './cells';

const DELIMITERS = ['\t', ';', ',', '|', ' '] as const;

/** Where the readings of a log stand, and how its columns are parted. */
export interface Block {
  readonly delimiter: (typeof DELIMITERS)[number];
  readonly decimal: '.' | ',';
  /** First line of readings, from 0. */
  readonly first: number;
  /** Cells of a line. */
  readonly width: number;
  /** Columns that hold words, not readings. */
  readonly words: readonly number[];
}

interface Scored extends Block {
  readonly score: number;
}

/** The reading of the lines that makes the most numbers of them; null where none makes any. */
export function findBlock(lines: readonly string[]): Block | null {
  const found = DELIMITERS.flatMap((delimiter) =>
    (['.', ','] as const)
      // A decimal comma between commas is told only by quotes about the numbers.
      .filter((decimal) => decimal !== delimiter || lines.some((line) => /"[+-]?\d+,\d/.test(line)))
      .map((decimal) => blockBy(lines, delimiter, decimal)),
  ).filter((block) => block !== null);
  return found.sort((a, b) => b.score - a.score)[0] ?? null;
}

const isReading = (kind: CellKind | undefined) => kind === 'number' || kind === 'time';

/** Lines that hold readings in one width, to the end of what is seen. */
function blockBy(
  lines: readonly string[],
  delimiter: Block['delimiter'],
  decimal: Block['decimal'],
): Scored | null {
  const rows = lines.map((line) => cellsOf(line, delimiter).map((cell) => cellKind(cell, decimal)));
  const candidates = rows.filter((row) => row.includes('number') && row.filter(isReading).length >= 2);
  const width = candidates.at(-1)?.length ?? 0;
  if (width < 2) return null;
  const alike = candidates.filter((row) => row.length === width);
  const kinds = Array.from({ length: width }, (_, column) => kindOf(alike.map((row) => row[column]!)));
  const readings = kinds.flatMap((kind, column) => (isReading(kind) ? [column] : []));
  if (readings.length < 2) return null;
  const isData = (row: readonly CellKind[] | undefined) => {
    if (row?.length !== width) return false;
    const told = readings.filter((column) => row[column] === kinds[column]).length;
    const odd = readings.filter((column) => row[column] === 'words').length;
    return (
      told >= 1 && told + readings.filter((column) => row[column] === 'blank').length >= 2 && odd <= told
    );
  };
  const first = rows.findIndex((row, i) => isData(row) && (i === rows.length - 1 || isData(rows[i + 1])));
  const good = first < 0 ? 0 : rows.slice(first).filter(isData).length;
  if (good < 2) return null;
  // Of two readings of the same lines, the one with whole numbers split at their decimal commas is the wrong one.
  const commas =
    decimal === ',' && lines.slice(first, first + 50).some((line) => /\d,\d/.test(line)) ? 0.5 : 0;
  const unlikely = { ' ': 0.4, ',': 0.2 }[delimiter as ' ' | ','] ?? 0;
  const words = kinds.flatMap((kind, column) => (kind === 'words' ? [column] : []));
  const score = good * (1 - words.length / width) + commas - unlikely;
  return { delimiter, decimal, first, width, words, score };
}

const FILLED = ['number', 'time', 'words'] as const;

/** What a column holds for the most part; blank only where it holds nothing at all. */
function kindOf(cells: readonly CellKind[]): CellKind {
  const count = (kind: CellKind) => cells.filter((one) => one === kind).length;
  const [most] = FILLED.toSorted((a, b) => count(b) - count(a));
  return count(most!) > 0 ? most! : 'blank';
}
