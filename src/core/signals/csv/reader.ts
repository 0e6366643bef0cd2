import type { Channel, Trace } from '../trace';
import { cellNumber, cellsOf, isBlank } from './cells';
import { conversionOf, widthOf, type LogLayout } from './layout';
import { DAY_S, readTime, secondsIn } from './time';

/** Something that could not be read as it stands. Lines and columns count from 1, as an editor counts them. */
export interface LogTrouble {
  readonly line: number;
  readonly column: number;
  readonly what: string;
}

/** What came of reading a log. */
export interface LogRead {
  readonly trace: Trace;
  readonly lines: number;
  readonly rows: number;
  /** The first troubles, and how many there were in all. */
  readonly troubles: readonly LogTrouble[];
  readonly troubleCount: number;
}

const MOST_TROUBLES = 20;
/** Memory that the readings of one log may take: some forty million lines of six channels, ten hours at 1 kHz. */
const MOST_BYTES = 1_200_000_000;
/** A line longer than this is not one of a log. */
const LONGEST_LINE = 100_000;
const FIRST_ROWS = 1 << 14;
const GROWTH = 1.6;

/** No reading of a bench is near this, SI: a hundred million bar. What is larger is a gap, and said to be. */
const MOST_SI = 1e13;

const LF = 10;
const CR = 13;
const PLUS = 43;
const MINUS = 45;
const ZERO = 48;
/** Powers of ten that a double holds exactly: a mantissa below 2⁵³ divided by one of them is rounded once. */
const POWERS = Float64Array.from({ length: 23 }, (_, i) => 10 ** i);
const MOST_DIGITS = 15;

/**
 * Reads a log as its bytes come in, in pieces of any size, and never holds more of the text than one line. Numbers
 * are read straight from the bytes; a line with anything else in it is read the slow way, and what cannot be read is
 * kept as a gap and told with its line and column.
 */
export class LogReader {
  private readonly columns: { place: number; scale: number; offset: number }[];
  private readonly width: number;
  /** For each column of a line: 0 skipped, 1 time, 2 and up a channel. */
  private readonly roles: Int32Array;
  private readonly fields: Float64Array;
  private time: Float64Array;
  private values: Float32Array[];
  private rows = 0;
  private line = 0;
  private rest = new Uint8Array(0);
  /** The newest line that came in whole. */
  private wholeLine = new Uint8Array(0);
  private readonly troubles: LogTrouble[] = [];
  private troubleCount = 0;
  private lastTime = -Infinity;
  /** Every line can be read from its bytes. */
  private readonly plainNumbers: boolean;
  private readonly delimiter: number;
  private readonly decimal: number;
  private full = false;
  /** Cells of a line in all; 0 where that is not known. */
  private readonly cells: number;
  /** Lines that bear the time of the line before them, and the first of them. */
  private sameTimes = { count: 0, first: 0 };
  /** Added to a time of day once the log has run over midnight, s. */
  private days_s = 0;
  private readonly mostRows: number;

  /**
   * @param expectedRows room made beforehand, from the size of the file
   */
  constructor(
    private readonly layout: LogLayout,
    barometer_Pa: number,
    expectedRows = FIRST_ROWS,
  ) {
    this.columns = layout.columns.map((column) => ({
      place: column.index,
      ...conversionOf(column, barometer_Pa),
    }));
    this.width = widthOf(layout);
    this.cells = layout.width ?? 0;
    this.roles = new Int32Array(this.width);
    this.fields = new Float64Array(this.width);
    const { index, kind } = layout.time;
    if (index !== null) this.roles[index] = 1;
    this.columns.forEach(({ place }, i) => (this.roles[place] = i + 2));
    const written = ['iso', 'clock', 'day-first', 'month-first'].includes(kind);
    this.plainNumbers = (index === null || !written) && layout.delimiter !== layout.decimal;
    this.delimiter = layout.delimiter.charCodeAt(0);
    this.decimal = layout.decimal.charCodeAt(0);
    this.mostRows = Math.floor(MOST_BYTES / (8 + 4 * this.columns.length));
    const room = Math.min(this.mostRows, Math.max(FIRST_ROWS, expectedRows));
    this.time = new Float64Array(room);
    this.values = this.columns.map(() => new Float32Array(room));
  }

  /** Rows read so far. */
  get count(): number {
    return this.rows;
  }

  /** Takes in the next bytes. */
  push(bytes: Uint8Array): void {
    let from = 0;
    if (this.rest.length > 0) {
      const end = bytes.indexOf(LF);
      if (end < 0) {
        this.keep(bytes);
        return;
      }
      const whole = new Uint8Array(this.rest.length + end + 1);
      whole.set(this.rest);
      whole.set(bytes.subarray(0, end + 1), this.rest.length);
      this.rest = new Uint8Array(0);
      this.lines(whole, 0, whole.length);
      this.wholeLine = whole.subarray(0, whole.length - 1);
      from = end + 1;
    }
    const last = bytes.lastIndexOf(LF);
    if (last >= from) {
      this.lines(bytes, from, last + 1);
      this.wholeLine = bytes.slice(Math.max(from, bytes.lastIndexOf(LF, last - 1) + 1), last);
      from = last + 1;
    }
    this.keep(bytes.subarray(from));
  }

  private keep(bytes: Uint8Array): void {
    if (bytes.length === 0) return;
    if (this.rest.length + bytes.length > LONGEST_LINE) {
      this.trouble(this.line + 1, 1, 'a line of more than 100 000 characters, passed over');
      this.rest = new Uint8Array(0);
      return;
    }
    const both = new Uint8Array(this.rest.length + bytes.length);
    both.set(this.rest);
    both.set(bytes, this.rest.length);
    this.rest = both;
  }

  /** Decimal places of the last number in a line. */
  private placesAtEnd(line: Uint8Array): number {
    const cell = cellsOf(new TextDecoder().decode(line), this.layout.delimiter).at(-1) ?? '';
    const point = cell.lastIndexOf(this.layout.decimal);
    return point < 0 ? 0 : cell.length - point - 1;
  }

  /** The end of the file: a last line without its end counts if it is whole, as far as that can be told. */
  finish(): LogRead {
    const cut = this.rest.length > 0 && this.placesAtEnd(this.rest) < this.placesAtEnd(this.wholeLine);
    if (cut) this.trouble(this.line + 1, this.width, 'the file ends in this number: line left out');
    else if (this.rest.length > 0) {
      const whole = new Uint8Array(this.rest.length + 1);
      whole.set(this.rest);
      whole[whole.length - 1] = LF;
      const before = this.troubleCount;
      const rows = this.rows;
      this.lines(whole, 0, whole.length);
      // A number that ends where the file is cut may have lost its last digits: a short last line is not trusted.
      if (this.troubleCount > before && this.rows > rows) this.rows = rows;
    }
    const { count, first } = this.sameTimes;
    if (count > 0)
      this.trouble(
        first,
        (this.layout.time.index ?? 0) + 1,
        `the time of the line before, as in ${count === 1 ? 'no other line' : `${count - 1} more`}: kept as it is`,
      );
    const time_s = this.time.subarray(0, this.rows);
    const zero = this.layout.time.index === null ? 0 : (time_s[0] ?? 0);
    const seconds = this.layout.time.index === null ? this.layout.time.interval_s : 1;
    for (let i = 0; i < this.rows; i += 1) time_s[i] = (time_s[i]! - zero) * seconds;
    const channels = this.layout.columns.map(({ name, port, quantity }, c): Channel => ({
      name,
      port,
      quantity,
      values: this.values[c]!.subarray(0, this.rows),
    }));
    return {
      trace: { time_s, channels },
      lines: this.line,
      rows: this.rows,
      troubles: this.troubles,
      troubleCount: this.troubleCount,
    };
  }

  private trouble(line: number, column: number, what: string): void {
    this.troubleCount += 1;
    if (this.troubles.length < MOST_TROUBLES) this.troubles.push({ line, column, what });
  }

  /** Whole lines: from, up to and not including, to. */
  private lines(bytes: Uint8Array, from: number, to: number): void {
    let at = from;
    while (at < to) {
      this.line += 1;
      if (this.line <= this.layout.firstLine) {
        at = bytes.indexOf(LF, at) + 1;
        continue;
      }
      const end = this.plainNumbers ? this.fastLine(bytes, at) : -1;
      if (end >= 0) {
        at = end;
        this.row();
        continue;
      }
      const next = bytes.indexOf(LF, at) + 1;
      this.slowLine(bytes.subarray(at, next - 1));
      at = next;
    }
  }

  /**
   * Reads a line of nothing but plain numbers into `fields`.
   *
   * @returns where the next line begins; −1 where the line has to be read the slow way
   */
  private fastLine(bytes: Uint8Array, from: number): number {
    const { fields, width, delimiter, decimal } = this;
    let at = from;
    let field = 0;
    for (;;) {
      let c = bytes[at]!;
      let negative = false;
      if (c === MINUS) {
        negative = true;
        c = bytes[++at]!;
      } else if (c === PLUS) c = bytes[++at]!;
      let mantissa = 0;
      let digits = 0;
      let digit = c - ZERO;
      while (digit >= 0 && digit <= 9) {
        mantissa = mantissa * 10 + digit;
        digits += 1;
        c = bytes[++at]!;
        digit = c - ZERO;
      }
      let places = 0;
      if (c === decimal) {
        c = bytes[++at]!;
        digit = c - ZERO;
        while (digit >= 0 && digit <= 9) {
          mantissa = mantissa * 10 + digit;
          digits += 1;
          places += 1;
          c = bytes[++at]!;
          digit = c - ZERO;
        }
      }
      if (digits === 0 || digits > MOST_DIGITS) return -1;
      if (field < width) fields[field] = (negative ? -mantissa : mantissa) / POWERS[places]!;
      field += 1;
      if (c === delimiter) {
        at += 1;
        continue;
      }
      if (c === CR && bytes[at + 1] === LF) at += 1;
      else if (c !== LF) return -1;
      return field >= width && (this.cells === 0 || field === this.cells) ? at + 1 : -1;
    }
  }

  /** Writes `fields` down as a row. */
  private row(): void {
    if (this.rows === this.time.length && !this.grow()) return;
    const { kind, index } = this.layout.time;
    let t = index === null ? this.rows : this.fields[index]! * secondsIn(kind) + this.days_s;
    if (kind === 'clock' && t < this.lastTime - DAY_S / 2) {
      this.days_s += DAY_S;
      t += DAY_S;
    }
    if (!(t >= this.lastTime)) {
      this.trouble(
        this.line,
        (index ?? 0) + 1,
        Number.isFinite(t) ? 'time runs backwards here: line left out' : 'no time here: line left out',
      );
      return;
    }
    if (t === this.lastTime) {
      this.sameTimes.count += 1;
      this.sameTimes.first ||= this.line;
    }
    this.lastTime = t;
    this.time[this.rows] = t;
    for (let c = 0; c < this.columns.length; c += 1) {
      const { place, scale, offset } = this.columns[c]!;
      const value = this.fields[place]! * scale + offset;
      if (Math.abs(value) > MOST_SI) {
        this.trouble(this.line, place + 1, 'no reading can be as large as this: left as a gap');
        this.values[c]![this.rows] = NaN;
      } else this.values[c]![this.rows] = value;
    }
    this.rows += 1;
  }

  private grow(): boolean {
    if (this.time.length >= this.mostRows) {
      if (!this.full) this.trouble(this.line, 1, 'more lines than are kept: the rest is left out');
      this.full = true;
      return false;
    }
    const room = Math.min(this.mostRows, Math.ceil(this.time.length * GROWTH));
    const time = new Float64Array(room);
    time.set(this.time);
    this.time = time;
    this.values = this.values.map((old) => {
      const larger = new Float32Array(room);
      larger.set(old);
      return larger;
    });
    return true;
  }

  private slowLine(bytes: Uint8Array): void {
    const text = new TextDecoder()
      .decode(bytes)
      .replace(/\r$/, '')
      .replace(/^\ufeff/, '');
    if (text.trim() === '') return;
    const { delimiter, decimal, time } = this.layout;
    const cells = cellsOf(text, delimiter);
    if (cells.length < this.width) {
      this.trouble(
        this.line,
        cells.length,
        `${cells.length} columns instead of ${this.width}: line left out`,
      );
      return;
    }
    const trailing = cells.slice(this.cells).every((cell) => cell === '');
    if (this.cells > 0 && cells.length > this.cells && !trailing) {
      // Which of its cells is one too many is not told: what stands behind it may stand in the wrong column.
      this.trouble(
        this.line,
        cells.length,
        `${cells.length} columns instead of ${this.cells}: line left out`,
      );
      return;
    }
    if (cells.length < this.cells)
      this.trouble(
        this.line,
        cells.length,
        `${cells.length} columns instead of ${this.cells}: read as far as it goes`,
      );
    for (let i = 0; i < this.width; i += 1) {
      const role = this.roles[i]!;
      const cell = cells[i]!;
      if (role === 1) this.fields[i] = readTime(cell, time.kind, decimal) / secondsIn(time.kind);
      else if (role > 1) {
        const value = cellNumber(cell, decimal);
        if (Number.isNaN(value) && !isBlank(cell))
          this.trouble(this.line, i + 1, `“${cell.slice(0, 30)}” is no number: left as a gap`);
        this.fields[i] = Number.isFinite(value) ? value : NaN;
      }
    }
    this.row();
  }
}
