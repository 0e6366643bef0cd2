import { timeKindOf } from './time';

/** Cells of a line; quotes about a cell are taken off. */
export const cellsOf = (line: string, delimiter: string): string[] => {
  const cells = line.includes('"')
    ? quotedCells(line, delimiter)
    : delimiter === ' '
      ? line.trim().split(/ +/)
      : line.split(delimiter);
  return cells.map((cell) => cell.trim());
};

function quotedCells(line: string, delimiter: string): string[] {
  const cells: string[] = [];
  let cell = '';
  let quoted = false;
  for (let i = 0; i < line.length; i += 1) {
    const c = line[i]!;
    if (c === '"') {
      if (quoted && line[i + 1] === '"') {
        cell += '"';
        i += 1;
      } else quoted = !quoted;
    } else if (c === delimiter && !quoted) {
      cells.push(cell);
      cell = '';
    } else cell += c;
  }
  return [...cells, cell];
}

/** A cell as a number with this decimal sign; NaN where it is none. */
export function cellNumber(cell: string, decimal: '.' | ','): number {
  const point = decimal === ',' ? cell.replace(',', '.') : cell;
  return /^[+-]?(\d+\.?\d*|\.\d+)(e[+-]?\d+)?$/i.test(point) ? Number(point) : NaN;
}

/** Whether a cell says that nothing was read. */
export const isBlank = (cell: string): boolean => cell === '' || /^(nan|-|n\/a|null)$/i.test(cell);

/** What a cell holds. */
export type CellKind = 'number' | 'time' | 'blank' | 'words';

export function cellKind(cell: string, decimal: '.' | ','): CellKind {
  if (isBlank(cell)) return 'blank';
  if (Number.isFinite(cellNumber(cell, decimal))) return 'number';
  return timeKindOf(cell) === null ? 'words' : 'time';
}
