import { createHash } from 'node:crypto';
import { deflateRawSync, inflateRawSync } from 'node:zlib';
import { analyse } from '@/core/signals/analyse';
import type { About, Analysis } from '@/core/signals/analysis';
import { detectLayout, foreignSentence } from '@/core/signals/csv/detect';
import type { LogLayout } from '@/core/signals/csv/layout';
import { headText, PlainText } from '@/core/signals/csv/plain-text';
import { LogReader, type LogTrouble } from '@/core/signals/csv/reader';
import { envelopeOf, packEnvelope } from '@/core/signals/overview';
import type { Channel, Trace } from '@/core/signals/trace';

/** What is made of readings: they themselves packed for storing, and everything worked out of them. */
export interface WorkedOut {
  readonly rows: number;
  readonly duration_s: number;
  readonly analysis: Analysis;
  readonly packed: Packed;
}

/** What is made of a log: how it was read, besides. */
export interface TraceProduct extends WorkedOut {
  readonly layout: LogLayout;
  readonly doubts: readonly string[];
  readonly troubles: readonly LogTrouble[];
  readonly troubleCount: number;
}

/** A trace packed in chunks of each column, so that a part is read without the rest. */
export interface Packed {
  readonly channels: readonly Omit<Channel, 'values'>[];
  readonly rows: number;
  /** Column −1 is time. */
  readonly chunks: readonly { readonly column: number; readonly chunk: number; readonly data: Uint8Array }[];
  /** First time of each chunk, s. */
  readonly starts_s: readonly number[];
  readonly overview: Uint8Array;
  readonly sha256: string;
}

export type TraceOutcome = { ok: true; product: TraceProduct } | { ok: false; why: string };

/** Samples to a chunk: a minute at 1 kHz. */
export const CHUNK = 65_536;
const OVERVIEW_BUCKETS = 16_384;
const HEAD_BYTES = 65_536;
/** Fewer readings than this are nothing to be worked out. */
export const LEAST_ROWS = 3;

/** Takes a log in, piece by piece, and makes everything of it. Runs in a worker; nothing here waits for anything. */
export class TraceJob {
  private reader: LogReader | null = null;
  private plain: PlainText | null = null;
  private head: Uint8Array[] = [];
  private headLength = 0;
  private doubts: readonly string[] = [];
  private refusal: string | null = null;

  /**
   * @param layout how the file is written, where that was confirmed; null to go by what is found
   * @param bytes length of the file, 0 where it is not known
   */
  constructor(
    private layout: LogLayout | null,
    private readonly about: About,
    private readonly bytes: number,
  ) {}

  push(piece: Uint8Array): void {
    if (this.refusal) return;
    if (this.reader) {
      this.reader.push(this.plain!.next(piece));
      return;
    }
    // A piece's memory may be used again by whoever sent it.
    this.head.push(piece.slice());
    this.headLength += piece.length;
    if (this.headLength >= HEAD_BYTES) this.begin();
  }

  private begin(): void {
    const head = joined(this.head);
    this.plain = new PlainText(head);
    const text = headText(head.subarray(0, HEAD_BYTES));
    if (!this.layout) {
      const found = detectLayout(text);
      if (!found.ok) {
        this.refusal = found.why;
        return;
      }
      if (found.foreign.length > 0) {
        this.refusal = found.foreign.map(foreignSentence).join(' ');
        return;
      }
      this.layout = found.layout;
      this.doubts = found.doubts;
    }
    const lineLength = Math.max(4, text.length / Math.max(1, text.split('\n').length));
    const expectedRows = Math.ceil((1.02 * this.bytes) / lineLength);
    this.reader = new LogReader(this.layout, this.about.barometer_Pa, expectedRows);
    this.reader.push(this.plain.next(head));
    this.head = [];
  }

  finish(): TraceOutcome {
    if (!this.reader && !this.refusal) this.begin();
    if (this.refusal || !this.reader) return { ok: false, why: this.refusal ?? 'The file is empty.' };
    const { trace, rows, troubles, troubleCount } = this.reader.finish();
    if (rows < LEAST_ROWS) {
      const first = troubles[0];
      const where = first ? ` Line ${first.line}, column ${first.column}: ${first.what}.` : '';
      return { ok: false, why: `Only ${rows} lines of readings could be used.${where}` };
    }
    return {
      ok: true,
      product: {
        ...productOf(trace, this.about),
        layout: this.layout!,
        doubts: this.doubts,
        troubles,
        troubleCount,
      },
    };
  }
}

/** Everything made of readings that are in hand already. */
export const productOf = (trace: Trace, about: About): WorkedOut => ({
  rows: trace.time_s.length,
  duration_s: (trace.time_s.at(-1) ?? 0) - (trace.time_s[0] ?? 0),
  analysis: analyse(trace, about),
  packed: pack(trace),
});

function joined(pieces: readonly Uint8Array[]): Uint8Array {
  const all = new Uint8Array(pieces.reduce((sum, piece) => sum + piece.length, 0));
  let at = 0;
  for (const piece of pieces) {
    all.set(piece, at);
    at += piece.length;
  }
  return all;
}

/** Packs a trace for storing. */
export function pack(trace: Trace): Packed {
  const rows = trace.time_s.length;
  const columns = [trace.time_s, ...trace.channels.map(({ values }) => Float32Array.from(values))];
  const hash = createHash('sha256');
  const chunks: { column: number; chunk: number; data: Uint8Array }[] = [];
  const starts_s: number[] = [];
  for (let from = 0, chunk = 0; from < rows; from += CHUNK, chunk += 1) {
    starts_s.push(trace.time_s[from]!);
    columns.forEach((column, c) => {
      const data = squeezed(column.subarray(from, Math.min(rows, from + CHUNK)));
      hash.update(data);
      chunks.push({ column: c - 1, chunk, data });
    });
  }
  const [from_s, to_s] = [trace.time_s[0] ?? 0, trace.time_s[rows - 1] ?? 0];
  return {
    channels: trace.channels.map(({ name, port, quantity }) => ({ name, port, quantity })),
    rows,
    chunks,
    starts_s,
    overview: packEnvelope(envelopeOf(trace, from_s, to_s, Math.min(OVERVIEW_BUCKETS, rows))),
    sha256: hash.digest('hex'),
  };
}

/** Bytes of one kind beside each other, which deflates better than numbers one after the other. */
function squeezed(values: Float64Array | Float32Array): Uint8Array {
  const bytes = new Uint8Array(values.buffer, values.byteOffset, values.byteLength);
  const width = values.BYTES_PER_ELEMENT;
  const planes = new Uint8Array(bytes.length);
  for (let b = 0, at = 0; b < width; b += 1)
    for (let i = b; i < bytes.length; i += width, at += 1) planes[at] = bytes[i]!;
  return deflateRawSync(planes, { level: 1 });
}

/** Undoes `squeezed`, for numbers of so many bytes each. */
export function unsqueezed(data: Uint8Array, width: 4 | 8): ArrayBuffer {
  const planes = inflateRawSync(data);
  const count = planes.length / width;
  const bytes = new Uint8Array(planes.length);
  for (let b = 0, at = 0; b < width; b += 1)
    for (let i = 0; i < count; i += 1, at += 1) bytes[i * width + b] = planes[at]!;
  return bytes.buffer;
}
