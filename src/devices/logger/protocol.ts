import type { LoggerChannel } from '@/core/shop/live';

/**
 * The part of SCPI (IEEE 488.2 common commands, SCPI-99 error queue) that the bench logger speaks, over TCP, a line to
 * a message, ASCII. docs/bench-logger.md describes it; nothing more is understood.
 */

export const RATES_HZ = { least: 10, most: 1000 } as const;
/** Longest line that either side reads; what is longer is no message of this protocol. */
export const LONGEST_LINE = 4096;
/** Errors kept until they are asked for; the last is then a note that some were lost. */
export const MOST_ERRORS = 16;

export const NO_ERROR = '0,"No error"';
export const ERRORS = {
  undefinedHeader: '-113,"Undefined header"',
  parameter: '-224,"Illegal parameter value"',
  missing: '-109,"Missing parameter"',
  overflow: '-350,"Queue overflow"',
} as const;

/** `"G-11","BAR",0,10;"V-31","INHG",0,30` */
export const catalogueText = (channels: readonly LoggerChannel[]): string =>
  channels.map(({ tag, unit, low, high }) => `"${tag}","${unit}",${low},${high}`).join(';');

/** Reads a catalogue. @returns null where it is none */
export function parseCatalogue(text: string): LoggerChannel[] | null {
  const channels = text.split(';').map((entry): LoggerChannel | null => {
    const m = /^"([ !#-~]{1,40})","([ !#-~]{1,20})",(-?[\d.]+(?:E[+-]?\d+)?),(-?[\d.]+(?:E[+-]?\d+)?)$/i.exec(
      entry.trim(),
    );
    return m ? { tag: m[1]!, unit: m[2]!, low: Number(m[3]), high: Number(m[4]) } : null;
  });
  return channels.length > 0 && channels.length <= 64 && channels.every((c) => c !== null)
    ? (channels as LoggerChannel[])
    : null;
}

/** No range of a gauge ends beyond this, in any unit. */
const FARTHEST_END = 1e12;

/** What is wrong with the channels that a logger says it has, in a sentence; null where nothing is. */
export function channelTrouble(channels: readonly LoggerChannel[]): string | null {
  const tags = channels.map(({ tag }) => tag);
  const twice = tags.find((tag, i) => tags.indexOf(tag) !== i);
  if (twice !== undefined)
    return `It has two channels named ${twice}: which of them is the gauge cannot be told.`;
  const turned = channels.find(
    ({ low, high }) => !(low < high && -FARTHEST_END <= low && high <= FARTHEST_END),
  );
  return turned
    ? `Channel ${turned.tag} reads from ${turned.low} to ${turned.high} ${turned.unit}, which is no range.`
    : null;
}

/** Share of its range by which a channel may read beyond the ends of it. */
const BEYOND = 0.25;

/** Whether a channel of this range can tell such a value. One that could not be read (NaN) tells none. */
export const canTell = ({ low, high }: LoggerChannel, value: number): boolean =>
  value >= low - BEYOND * (high - low) && value <= high + BEYOND * (high - low);

/** Farthest that a logger's clock counts, s: some thirty years. */
const LONGEST_S = 1e9;

/** A streamed sample: `#12.340,1.502,5.407`; a channel that could not be read is `NAN`. */
export const sampleText = (t_s: number, values: readonly number[]): string =>
  `#${t_s.toFixed(3)},${values.map((v) => (Number.isFinite(v) ? Number(v.toPrecision(7)) : 'NAN')).join(',')}`;

/** Reads a streamed sample of so many channels. @returns null where it is none */
export function parseSample(line: string, channels: number): { t_s: number; values: number[] } | null {
  if (!line.startsWith('#')) return null;
  const cells = line.slice(1).split(',');
  if (cells.length !== channels + 1) return null;
  const numbers = cells.map((cell) =>
    /^nan$/i.test(cell) ? NaN : cell.trim() === '' ? Infinity : Number(cell),
  );
  const [t_s, ...values] = numbers as [number, ...number[]];
  const garbled = numbers.some(
    (n, i) => n === Infinity || n === -Infinity || (Number.isNaN(n) && !/^nan$/i.test(cells[i]!)),
  );
  return garbled || !(Math.abs(t_s) <= LONGEST_S) ? null : { t_s, values };
}

/** Cuts what comes in from a socket into lines, and never holds more than one. */
export class Lines {
  private rest = '';

  /** @returns the lines completed by this text; null where a line is longer than any message */
  push(text: string): string[] | null {
    const parts = (this.rest + text).split('\n');
    this.rest = parts.pop()!;
    if (this.rest.length > LONGEST_LINE || parts.some((line) => line.length > LONGEST_LINE)) {
      this.rest = '';
      return null;
    }
    return parts.map((line) => line.replace(/\r$/, '').trim()).filter((line) => line !== '');
  }
}
