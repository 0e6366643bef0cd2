import { createHash, randomUUID } from 'node:crypto';
import type { Knex } from 'knex';
import { append, linksOf, writtenFrom } from './journal';
import { alteredEntries } from './altered';

/** Chain that holds the seal of what was worked out of a trace. */
const sealChain = (traceId: string) => `trace-data/${traceId}`;

interface Sealed {
  readonly type: 'sealed';
  readonly data: string;
}

/** What was worked out of a trace, as it is kept. */
export interface TraceData {
  readonly starts_s: string;
  readonly overview: Buffer;
  readonly analysis: Buffer;
}

/** Seal of what was worked out of a trace: of each part its length, then its bytes. */
function sealOfData({ starts_s, overview, analysis }: TraceData): string {
  const hash = createHash('sha256');
  for (const part of [Buffer.from(starts_s), overview, analysis])
    hash.update(`${part.length}\n`).update(part);
  return hash.digest('hex');
}

/** Seals what was worked out of a trace, in the journal. */
export async function sealData(trx: Knex, traceId: string, data: TraceData, at: string): Promise<void> {
  const entry: Sealed = { type: 'sealed', data: sealOfData(data) };
  await append(trx, sealChain(traceId), { id: randomUUID(), at, entry });
}

/** Whether what was worked out of a trace is as it was written. */
export async function isDataAsWritten(db: Knex, traceId: string): Promise<boolean> {
  const chain = sealChain(traceId);
  const links = await linksOf(db, chain);
  const last = links.at(-1);
  const data = ((await db('trace_data').where({ trace_id: traceId }).first()) ?? null) as TraceData | null;
  return (
    data !== null &&
    last !== undefined &&
    alteredEntries(chain, links).length === 0 &&
    writtenFrom<Sealed>(last).entry.data === sealOfData(data)
  );
}
