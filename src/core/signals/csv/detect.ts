import { findUnit, UNITS, type Quantity, type UnitId } from '../../quantities/units';
import { findBlock, type Block } from './block';
import { cellKind, cellNumber, cellsOf } from './cells';
import { LOG_PORTS, type LogColumn, type LogLayout, type TimeKind } from './layout';
import { guessPort, PORT_NAMES, saysSomething, TIME_WORDS } from './ports';
import { readTime, timeKindOf, timeKindOfAll } from './time';

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

const SAMPLE_LINES = 12;
/** Bytes below 32 that no text has. */
const BINARY = /[\u0000-\u0008\u000e-\u001a]/;

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
  const block = findBlock(lines);
  if (!block) return { ok: false, why: noBlock(lines) };
  const mixed = mixedCommas(lines, block);
  return mixed === null ? described(lines, block) : { ok: false, why: mixed };
}

/** Why nothing could be read, with the first line that should have held something. */
function noBlock(lines: readonly string[]): string {
  const at = lines.findIndex((line) => /\d/.test(line));
  const said = (line: string) => `“${line.trim().slice(0, 40)}”`;
  const where =
    at < 0 ? 'There is no number in its first lines.' : `Line ${at + 1} reads ${said(lines[at]!)}.`;
  return `No columns of numbers were found: at least two lines with a time and one reading, or two readings, are needed. ${where}`;
}

/**
 * Numbers with decimal commas in columns parted by commas: twice the columns that the names say, and whole numbers all.
 *
 * @returns the sentence that refuses them; null where nothing speaks for it
 */
function mixedCommas(lines: readonly string[], { delimiter, decimal, first, width }: Block): string | null {
  if (delimiter !== ',' || decimal !== '.' || lines.slice(first).some((line) => /\d\.\d/.test(line)))
    return null;
  const names = lines
    .slice(0, first)
    .map((line) => cellsOf(line, delimiter))
    .findLast((cells) => cells.length > 1 && cells.every((cell) => cellKind(cell, decimal) === 'words'));
  return names && names.length < width && width <= 2 * names.length
    ? `Decimal commas and commas between columns cannot be told apart: line ${first + 1} has ${width} cells under ${names.length} names. Have the logger write points, or part its columns by semicolons.`
    : null;
}

function described(lines: readonly string[], { delimiter, decimal, first, width, words }: Block): Detected {
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
  if (dayAndMonth(time, rows)) doubts.push(DAY_OR_MONTH);
  if (time.index === null) doubts.push('No column of time was found: lines are taken as evenly spaced.');
  const taken = new Set<string>();
  const foreign: ForeignUnit[] = [];
  const columns = heads.flatMap((head, index): LogColumn[] => {
    if (index === time.index) return [];
    if (words.includes(index)) {
      doubts.push(`“${head.name}” holds words, not readings: left out.`);
      return [];
    }
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
    layout: { delimiter, decimal, firstLine: first, width, time, columns },
    doubts,
    foreign,
    sample: rows.slice(0, SAMPLE_LINES),
  };
}

/**
 * The line of names, and the line of units under it where there is one. Of several lines in the width of the readings it
 * is the one that says most: words for ports, times and units, all of them different.
 */
function headOf(
  lines: readonly (readonly string[])[],
): [readonly string[] | undefined, readonly string[] | undefined] {
  const filled = (cells: readonly string[]) => cells.filter((cell) => cell !== '');
  const unitLike = (cells: readonly string[] | undefined) =>
    cells !== undefined &&
    filled(cells).length > 0 &&
    filled(cells).filter((cell) => unitOf(cell.replace(/^[[(]|[\])]$/g, '')) !== null || isTimeUnit(cell))
      .length >= Math.ceil(filled(cells).length / 2);
  const says = (cells: readonly string[]) =>
    new Set(filled(cells)).size +
    filled(cells).filter((cell) => saysSomething(cell) || nameAndUnit(cell, '').unit).length;
  let names: number | null = null;
  lines.forEach((cells, i) => {
    if (i > 0 && unitLike(cells)) return;
    if (names === null || says(cells) >= says(lines[names]!)) names = i;
  });
  if (names === null) return [undefined, undefined];
  const below = lines[names + 1];
  return [lines[names], unitLike(below) ? below : undefined];
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
  const timed = (i: number) => rows.filter((cells) => timeKindOf(cells[i]!) !== null);
  const written = heads.findIndex((_, i) => timed(i).length > rows.length / 2);
  if (written >= 0)
    return {
      index: written,
      kind: timeKindOfAll(timed(written).map((cells) => cells[written]!)),
      interval_s: 1,
    };
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

const DAY_OR_MONTH =
  'The dates do not say whether the day or the month stands first: the day is taken. It matters only where the log runs over midnight.';

/** Whether dates could be read either way. */
function dayAndMonth({ index, kind }: LogLayout['time'], rows: readonly (readonly string[])[]): boolean {
  return (
    index !== null &&
    kind === 'day-first' &&
    rows.every((cells) => /^(0?[1-9]|1[0-2])[/-]/.test(cells[index]!)) &&
    rows.some((cells) => !/^(\d+)[/-]0?\1[/-]/.test(cells[index]!))
  );
}

function columnOf(
  { name, unit: written }: Head,
  index: number,
  values: readonly number[],
  taken: Set<string>,
  doubts: string[],
): LogColumn | null {
  const unit = unitOf(written);
  const guess = guessPort(name, taken);
  const fits = (port: string) =>
    unit === null || (UNITS[unit].measures as readonly Quantity[]).includes(LOG_PORTS[port]!);
  const port = guess && fits(guess.port) ? guess.port : null;
  if (guess && !port)
    doubts.push(
      `“${name}” is in ${written}, and ${PORT_NAMES[guess.port]} is not: it is kept under its name and stands at no port.`,
    );
  if (port) taken.add(port);
  if (port && guess?.foreign)
    doubts.push(`“${name}”: is that ${PORT_NAMES[port]}? It is taken for it until you say otherwise.`);
  const quantity: Quantity = port ? LOG_PORTS[port]! : unit ? UNITS[unit].measures[0]! : 'pressure';
  const unknown = unit === null && written !== '';
  if (!port && !unknown && (quantity === 'pressure' || quantity === 'depression'))
    doubts.push(
      `“${name}” is a pressure, and its name does not say at which port: choose it, or leave the column out.`,
    );
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
