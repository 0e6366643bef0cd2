import type { TimeKind } from './layout';

const ISO = /^(\d{4})[-/.](\d\d)[-/.](\d\d)[T ](\d\d):(\d\d)(?::(\d\d)(?:[.,](\d+))?)?(Z|[+-]\d\d:?\d\d)?$/;
/** Day and month before the year, either first. */
const DATED =
  /^(\d{1,2})([-/.])(\d{1,2})\2(\d{4}|\d{2}),?[T ](\d{1,2}):(\d\d)(?::(\d\d)(?:[.,](\d+))?)?\s*([AP]M)?$/i;
const CLOCK = /^(\d{1,2}):(\d\d):(\d\d)(?:[.,](\d+))?$/;
/** Seconds of a day. */
export const DAY_S = 86_400;

/** The kind of time that a cell is written in, where it can be told from the cell alone. */
export function timeKindOf(cell: string): TimeKind | null {
  if (ISO.test(cell)) return 'iso';
  if (DATED.test(cell)) return 'day-first';
  return CLOCK.test(cell) ? 'clock' : null;
}

/** The kind of time that a column is written in: its dates together tell which of day and month stands first. */
export function timeKindOfAll(cells: readonly string[]): TimeKind {
  const kind = timeKindOf(cells[0]!)!;
  if (kind !== 'day-first') return kind;
  const dates = cells.map((cell) => DATED.exec(cell)).filter((m) => m !== null);
  const halves = dates.some((m) => m[9] !== undefined);
  const monthFirst = dates.some((m) => +m[3]! > 12) || (halves && dates.every((m) => +m[1]! <= 12));
  return monthFirst ? 'month-first' : 'day-first';
}

/** Seconds that a cell of time stands for, from whatever zero its kind has; NaN where it is none. */
export function readTime(cell: string, kind: TimeKind, decimal: '.' | ','): number {
  switch (kind) {
    case 'iso': {
      const m = ISO.exec(cell);
      if (!m) return NaN;
      const fraction = m[7] ? Number(`0.${m[7]}`) : 0;
      const zone = m[8] && m[8] !== 'Z' ? zoneOf(m[8]) : 0;
      const ms = Date.UTC(+m[1]!, +m[2]! - 1, +m[3]!, +m[4]!, +m[5]!, +(m[6] ?? 0));
      return ms / 1000 + fraction - zone;
    }
    case 'day-first':
    case 'month-first': {
      const m = DATED.exec(cell);
      if (!m) return NaN;
      const [day, month] = kind === 'day-first' ? [+m[1]!, +m[3]!] : [+m[3]!, +m[1]!];
      if (month < 1 || month > 12 || day < 1 || day > 31) return NaN;
      const year = m[4]!.length === 2 ? 2000 + +m[4]! : +m[4]!;
      const half = m[9]?.toUpperCase();
      const hour = half ? (+m[5]! % 12) + (half === 'PM' ? 12 : 0) : +m[5]!;
      const ms = Date.UTC(year, month - 1, day, hour, +m[6]!, +(m[7] ?? 0));
      return ms / 1000 + (m[8] ? Number(`0.${m[8]}`) : 0);
    }
    case 'clock': {
      const m = CLOCK.exec(cell);
      return m ? +m[1]! * 3600 + +m[2]! * 60 + +m[3]! + (m[4] ? Number(`0.${m[4]}`) : 0) : NaN;
    }
    case 'rows':
      return NaN;
    default: {
      const text = decimal === ',' ? cell.replace(',', '.') : cell;
      return text === '' ? NaN : Number(text) * secondsIn(kind);
    }
  }
}

/** Seconds in one of what a numeric time counts. */
export const secondsIn = (kind: TimeKind): number =>
  ({
    seconds: 1,
    milliseconds: 1e-3,
    minutes: 60,
    hours: 3600,
    spreadsheet: DAY_S,
    iso: 1,
    'day-first': 1,
    'month-first': 1,
    clock: 1,
    rows: 1,
  })[kind];

const zoneOf = (zone: string) =>
  (zone[0] === '-' ? -1 : 1) * (Number(zone.slice(1, 3)) * 3600 + Number(zone.slice(-2)) * 60);
