import { findUnit, UNITS, type Quantity, type UnitId } from '../../quantities/units';
import { LOG_PORTS, type LogColumn, type LogLayout, type TimeKind } from './layout';
import { readTime, timeKindOf } from './time';

/** What was found in the head of a log, or why nothing was. */
export type Detected =
  | {
      readonly ok: true;
      readonly layout: LogLayout;
      readonly doubts: readonly string[];
      /** Columns in a unit that is not known: nothing is read before a unit is chosen for each, or it is left out. */
      readonly foreign: readonly ForeignUnit[];
      readonly sample: readonly (readonly string[])[];
    }
  | { readonly ok: false; readonly why: string };

/** A column and the unit that its head names. */
export interface ForeignUnit {
  readonly index: number;
  readonly name: string;
  readonly unit: string;
}

/** A sentence for a column in a unit that is not known. */
export const foreignSentence = ({ name, unit }: ForeignUnit): string =>
  `“${name}” is in “${unit}”, a unit that is not known here: choose its unit, or leave the column out.`;

const DELIMITERS = ['\t', ';', ',', '|', ' '] as const;
const SAMPLE_LINES = 12;
/** Bytes below 32 that no text has. */
const BINARY = /[\u0000-\u0008\u000e-\u001a]/;

/** Words by which loggers name what is read at a port; the first that fits counts. */
const PORT_WORDS: readonly (readonly [RegExp, string])[] = [
  [/activ|work(ing)?\b|control/i, 'activation'],
  [/suppl|vac|depress|unterdruck/i, 'supply'],
  [/front|vorn/i, 'front'],
  [/rear|back|hinten/i, 'rear'],
  [/out|boost|slave|aus(gang)?\b/i, 'output'],
  [/\bin\b|inlet|input|in_|_in|master|ein(gang)?\b/i, 'input'],
  [/vol/i, 'volume'],
];
const TIME_WORDS = /^(t|time|zeit|timestamp|date|datum|elapsed|sec(onds?)?|uhrzeit|clock)\b|time/i;

/**
 * Finds out how a log is written from its first lines: separator, decimal sign, head, units, time. Nothing is read on
 * a guess: what could not be told is a doubt, to be looked at before the file is read.
 *
 * @param head beginning of the file, some tens of kilobytes; its last line may be cut
 */
export function detectLayout(head: string): Detected {
  const text = head.replace(/^\ufeff/, '');
  if (text.trim() === '') return { ok: false, why: 'The file is empty.' };
  if (BINARY.test(text.slice(0, 4000)))
    return { ok: false, why: 'This is not a text file: line 1 holds bytes that no text has.' };
  const cut = text.endsWith('\n') || text.length < 1000 ? text : text.slice(0, text.lastIndexOf('\n') + 1);
  const lines = cut.split(/\r\n|\n|\r/).filter((line, i, all) => i < all.length - 1 || line !== '');
  const best = DELIMITERS.flatMap((delimiter) =>
    decimalsFor(delimiter).map((decimal) => block(lines, delimiter, decimal)),
  )
    .filter((found) => found !== null)
    .sort((a, b) => b.score - a.score)[0];
  if (!best) {
    return {
      ok: false,
      why: 'No columns of numbers were found: at least two lines with a time and one reading, or two readings, are needed.',
    };
  }
  return described(lines, best);
}

const decimalsFor = (delimiter: string) => (delimiter === ',' ? (['.'] as const) : (['.', ','] as const));

interface Block {
  readonly delimiter: (typeof DELIMITERS)[number];
  readonly decimal: '.' | ',';
  readonly first: number;
  readonly width: number;
  readonly score: number;
}

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

/** The longest run of lines that read as numbers in one width, to the end of what is seen. */
function block(lines: readonly string[], delimiter: Block['delimiter'], decimal: '.' | ','): Block | null {
  const widths = lines.map((line) => {
    const cells = cellsOf(line, delimiter);
    const numbers = cells.filter((cell) => Number.isFinite(cellNumber(cell, decimal))).length;
    const times = cells.filter((cell) => timeKindOf(cell) !== null).length;
    const blanks = cells.filter((cell) => cell === '' || /^(nan|-|n\/a|null)$/i.test(cell)).length;
    return numbers >= 1 && numbers + times + blanks === cells.length && numbers + times >= 2
      ? cells.length
      : 0;
  });
  const width = widths.filter((w) => w > 0).at(-1) ?? 0;
  if (width < 2) return null;
  const first = widths.findIndex(
    (w, i) => w === width && (widths[i + 1] === width || widths[i + 1] === undefined),
  );
  const good = widths.slice(first).filter((w) => w === width).length;
  if (first < 0 || good < 2) return null;
  // Of two readings of the same lines, the one with whole numbers split at their decimal commas is the wrong one.
  const uses = lines.slice(first, first + 50).filter((line) => decimal === ',' && /\d,\d/.test(line)).length;
  return {
    delimiter,
    decimal,
    first,
    width,
    score: good + (uses > 0 ? 0.5 : 0) + (delimiter === ' ' ? -0.4 : 0) + (delimiter === ',' ? -0.2 : 0),
  };
}

function described(lines: readonly string[], { delimiter, decimal, first, width }: Block): Detected {
  const rows = lines
    .slice(first)
    .map((line) => cellsOf(line, delimiter))
    .filter((cells) => cells.length === width);
  const doubts: string[] = [];
  const above = lines.slice(0, first).map((line) => cellsOf(line, delimiter));
  const [names, units] = headOf(above.filter((cells) => cells.length === width));
  if (!names) doubts.push('No line of names was found above the readings: columns are named by their place.');
  const heads = Array.from({ length: width }, (_, i) =>
    nameAndUnit(names?.[i] ?? `Column ${i + 1}`, units?.[i] ?? ''),
  );
  doubleNames(heads.map(({ name }) => name)).forEach((name) =>
    doubts.push(`“${name}” stands above more than one column.`),
  );
  const time = timeColumn(heads, rows, decimal);
  if (time.index === null) doubts.push('No column of time was found: lines are taken as evenly spaced.');
  const taken = new Set<string>();
  const foreign: ForeignUnit[] = [];
  const columns = heads.flatMap((head, index): LogColumn[] => {
    if (index === time.index) return [];
    const values = rows.map((cells) => cellNumber(cells[index]!, decimal)).filter(Number.isFinite);
    if (values.length === 0) return [];
    const { name, unit } = head;
    if (unit !== '' && unitOf(unit) === null)
      foreign.push({ index, name: name.slice(0, 200), unit: unit.slice(0, 40) });
    const found = columnOf(head, index, values, taken, doubts);
    return found ? [found] : [];
  });
  if (columns.length === 0)
    return { ok: false, why: 'There is one column only: a trace needs a time or a second reading.' };
  return {
    ok: true,
    layout: { delimiter, decimal, firstLine: first, time, columns },
    doubts,
    foreign,
    sample: rows.slice(0, SAMPLE_LINES),
  };
}

/** The line of names, and the line of units between it and the readings where there is one. */
function headOf(
  lines: readonly (readonly string[])[],
): [readonly string[] | undefined, readonly string[] | undefined] {
  const last = lines.at(-1);
  const before = lines.at(-2);
  if (!last) return [undefined, undefined];
  const filled = last.filter((cell) => cell !== '');
  const unitLike = filled.filter(
    (cell) => unitOf(cell.replace(/^[[(]|[\])]$/g, '')) !== null || isTimeUnit(cell),
  );
  return before && filled.length > 0 && unitLike.length >= Math.ceil(filled.length / 2)
    ? [before, last]
    : [last, undefined];
}

const isTimeUnit = (text: string) => /^[[(]?(s|sec|seconds|ms|min|h|hh:mm:ss.*)[\])]?$/i.test(text.trim());

interface Head {
  readonly name: string;
  readonly unit: string;
}

/** "Pressure in [bar]", "p_out (bar)", "supply / inHg", "vac_kPa" or a name with a unit from the line below. */
export function nameAndUnit(cell: string, below: string): Head {
  const unit = below.replace(/^[[(]\s*|\s*[\])]$/g, '').trim();
  if (unit !== '') return { name: cell, unit };
  const bracket = /^(.*?)\s*[[(]\s*([^\])]+?)\s*[\])]\s*$/.exec(cell);
  if (bracket && bracket[1] !== '') return { name: bracket[1]!, unit: bracket[2]! };
  const tail = /^(.*\S)\s*(?:\/|,|_|\s)\s*([^\s/,_]+(?:\s*abs\.?)?)$/.exec(cell);
  if (tail && (unitOf(tail[2]!) !== null || isTimeUnit(tail[2]!)))
    return { name: tail[1]!.replace(/\s*[/,_]$/, ''), unit: tail[2]! };
  return { name: cell, unit: '' };
}

const ABSOLUTE = /\s*\(?\babs(olute)?\.?\)?$|(?<=^(psi|bar|kpa|mbar))a$/i;
const GAUGE = /(?<=^(psi|bar|kpa|mbar))g$|\s*\(?gauge\)?$/i;

const plainUnit = (text: string) => text.replace(ABSOLUTE, '').replace(GAUGE, '').trim();

/** The unit that a text names, by its place in the table of units. */
export function unitOf(text: string): UnitId | null {
  const plain = plainUnit(text);
  if (plain === '') return null;
  const unit = findUnit(plain);
  if (!unit || unit.symbol === '') return null;
  return (Object.keys(UNITS) as UnitId[]).find((id) => UNITS[id].symbol === unit.symbol) ?? null;
}

function doubleNames(names: readonly string[]): string[] {
  return [...new Set(names.filter((name, i) => names.indexOf(name) !== i))];
}

const STEPS_S: Partial<Record<TimeKind, number>> = {
  seconds: 1,
  milliseconds: 1e-3,
  minutes: 60,
  hours: 3600,
};

function timeColumn(
  heads: readonly Head[],
  rows: readonly (readonly string[])[],
  decimal: '.' | ',',
): LogLayout['time'] {
  const rising = (index: number, kind: TimeKind) => {
    const times = rows.map((cells) => readTime(cells[index]!, kind, decimal)).filter(Number.isFinite);
    return (
      times.length > 1 && times.every((t, i) => i === 0 || t >= times[i - 1]!) && times.at(-1)! > times[0]!
    );
  };
  const written = heads.findIndex((_, i) => rows.every((cells) => timeKindOf(cells[i]!) !== null));
  if (written >= 0) return { index: written, kind: timeKindOf(rows[0]![written]!)!, interval_s: 1 };
  const named = heads.findIndex(({ name }) => TIME_WORDS.test(name));
  const index = named >= 0 ? named : heads.findIndex((_, i) => i === 0 && rising(0, 'seconds'));
  if (index < 0) return { index: null, kind: 'rows', interval_s: 0.01 };
  const unit = heads[index]!.unit.toLowerCase();
  const first = cellNumber(rows[0]![index]!, decimal);
  const kind: TimeKind = /^(ms|millis)/.test(unit)
    ? 'milliseconds'
    : /^min/.test(unit)
      ? 'minutes'
      : /^h/.test(unit)
        ? 'hours'
        : // Days since 1900 of any year from 1990 to 2080.
          unit === '' && first > 32_000 && first < 66_000 && /date|datum|timestamp/i.test(heads[index]!.name)
          ? 'spreadsheet'
          : 'seconds';
  return { index, kind, interval_s: STEPS_S[kind] ?? 1 };
}

function columnOf(
  { name, unit: written }: Head,
  index: number,
  values: readonly number[],
  taken: Set<string>,
  doubts: string[],
): LogColumn | null {
  const unit = unitOf(written);
  const named = PORT_WORDS.find(([word, port]) => word.test(name) && !taken.has(port))?.[1] ?? null;
  const fits = (port: string) =>
    unit === null || (UNITS[unit].measures as readonly Quantity[]).includes(LOG_PORTS[port]!);
  const port = named && fits(named) ? named : null;
  if (port) taken.add(port);
  const quantity: Quantity = port ? LOG_PORTS[port]! : unit ? UNITS[unit].measures[0]! : 'pressure';
  if (!unit && written === '') doubts.push(`“${name}” names no unit: choose one.`);
  const negative = values.filter((v) => v < 0).length > values.length / 2;
  const absolute = ABSOLUTE.test(written) || /\babs/i.test(name);
  const form =
    quantity === 'depression'
      ? absolute
        ? 'absolute'
        : negative
          ? 'negative'
          : 'depression'
      : absolute
        ? 'absolute'
        : null;
  return {
    index,
    name: name.slice(0, 200),
    port,
    quantity,
    unit: unit ?? (quantity === 'depression' ? 'kPa' : 'bar'),
    form,
  };
}
