import { randomUUID } from 'node:crypto';
import type { Knex } from 'knex';
import { isRead, LONGEST_GAP_S, type LoggerChannel } from '@/core/shop/live';
import type { Trace } from '@/core/signals/trace';
import type { Rig } from '@/core/contract/run-context';
import type { LoggerSample } from '@/devices/logger/client';

/** What the logger sends while one step of one run is done: on disk as it grows. */
export class Recording {
  /** Samples taken in so far. */
  count = 0;
  private waiting: { channels: readonly LoggerChannel[]; rows: LoggerSample[] }[] = [];
  private parts = 0;
  private writing: Promise<void> = Promise.resolve();

  private constructor(
    private readonly db: Knex,
    readonly id: string,
    readonly runId: string,
    readonly step: string,
  ) {}

  static async begin(db: Knex, runId: string, step: string, now: string): Promise<Recording> {
    const id = randomUUID();
    await db('recordings').insert({ id, run_id: runId, step, began_at: now });
    return new Recording(db, id, runId, step);
  }

  add(sample: LoggerSample, channels: readonly LoggerChannel[]): void {
    this.count += 1;
    const last = this.waiting.at(-1);
    if (last?.channels === channels) last.rows.push(sample);
    else this.waiting.push({ channels, rows: [sample] });
  }

  /** Brings what came in since the last time onto the disk. */
  flush(): Promise<void> {
    this.writing = this.writing.catch(() => undefined).then(() => this.write());
    return this.writing;
  }

  private async write(): Promise<void> {
    // Taken off one by one, each once it is on the disk: what cannot be written now is written the next time.
    while (this.waiting.length > 0) {
      const [block] = this.waiting as [(typeof this.waiting)[number]];
      const { channels } = block;
      const rows = block.rows.slice();
      const stride = channels.length + 1;
      const packed = new Float64Array(rows.length * stride);
      rows.forEach(({ t_s, values }, i) => {
        packed[i * stride] = t_s;
        for (let c = 0; c < channels.length; c += 1) packed[i * stride + c + 1] = values[c] ?? NaN;
      });
      await this.db('recording_parts').insert({
        recording_id: this.id,
        part: this.parts,
        channels: JSON.stringify(channels),
        rows: Buffer.from(packed.buffer),
      });
      this.parts += 1;
      block.rows.splice(0, rows.length);
      if (block.rows.length === 0) this.waiting.shift();
    }
  }
}

/** A recording as it lies on the disk. */
export interface Kept {
  readonly id: string;
  readonly runId: string;
  readonly step: string;
}

/** Recordings on the disk, oldest first: those that go on, and those that a server left behind as it was ended. */
export async function keptRecordings(db: Knex): Promise<Kept[]> {
  const rows = (await db('recordings').orderBy('began_at')) as { id: string; run_id: string; step: string }[];
  return rows.map(({ id, run_id, step }) => ({ id, runId: run_id, step }));
}

export async function dropRecording(db: Knex, id: string): Promise<void> {
  await db('recording_parts').where({ recording_id: id }).delete();
  await db('recordings').where({ id }).delete();
}

/** A piece of a recording: one set of channels, and times that rise without a long gap. */
export interface Piece {
  readonly channels: readonly LoggerChannel[];
  /** Rows in blocks: time, then a value to each channel. */
  readonly blocks: Float64Array[];
  count: number;
}

/**
 * A recording in its pieces. A logger that was started anew counts from nothing again, and may have other channels: how
 * far two such pieces lie apart in time is not known, so each stands by itself.
 */
export async function piecesOf(db: Knex, id: string): Promise<Piece[]> {
  const parts = (await db('recording_parts').where({ recording_id: id }).orderBy('part')) as {
    channels: string;
    rows: Buffer;
  }[];
  return parted(
    parts.map(({ channels, rows }) => ({
      channels: JSON.parse(channels) as LoggerChannel[],
      rows: new Float64Array(Uint8Array.from(rows).buffer),
    })),
  );
}

export function parted(
  parts: readonly { channels: readonly LoggerChannel[]; rows: Float64Array }[],
): Piece[] {
  const pieces: Piece[] = [];
  let last_s = Infinity;
  for (const { channels, rows } of parts) {
    const stride = channels.length + 1;
    const same = pieces.at(-1) && JSON.stringify(pieces.at(-1)!.channels) === JSON.stringify(channels);
    let from = 0;
    for (let at = 0; at < rows.length; at += stride) {
      const t_s = rows[at]!;
      if (t_s < last_s || t_s - last_s > LONGEST_GAP_S || (at === 0 && !same)) {
        take(pieces.at(-1), rows.subarray(from, at), stride);
        pieces.push({ channels, blocks: [], count: 0 });
        from = at;
      }
      last_s = t_s;
    }
    take(pieces.at(-1), rows.subarray(from), stride);
  }
  return pieces;
}

function take(piece: Piece | undefined, rows: Float64Array, stride: number): void {
  if (!piece || rows.length === 0) return;
  piece.blocks.push(rows);
  piece.count += rows.length / stride;
}

/** A piece as a trace with one channel to a port: of a tied pair, the gauge of the wider range has seen everything. */
export function traceOf({ channels, blocks, count }: Piece, rig: Rig): Trace {
  const widest = Object.entries(rig).flatMap(([port, gauges]) => {
    const heard = gauges.filter((gauge) =>
      channels.some((channel) => channel.tag === gauge.tag && isRead(channel, gauge)),
    );
    const [gauge] = [...heard].sort((a, b) => b.fullScale_Pa - a.fullScale_Pa);
    return gauge ? [{ port, gauge, place: channels.findIndex(({ tag }) => tag === gauge.tag) + 1 }] : [];
  });
  widest.sort((a, b) => a.place - b.place);
  const stride = channels.length + 1;
  const column = <T extends Float64Array | Float32Array>(place: number, values: T): T => {
    let row = 0;
    for (const block of blocks)
      for (let at = place; at < block.length; at += stride, row += 1) values[row] = block[at]!;
    return values;
  };
  const time_s = column(0, new Float64Array(count));
  const first_s = time_s[0] ?? 0;
  return {
    time_s: time_s.map((t_s) => t_s - first_s),
    channels: widest.map(({ place, gauge, port }) => ({
      name: gauge.tag,
      port,
      quantity: gauge.quantity,
      values: column(place, new Float32Array(count)),
    })),
  };
}
