import type { Knex } from 'knex';
import { sealData, type TraceData } from '../trace-seals';

/** What was worked out of a trace stands under a seal too: that of every trace there is, as it is now. */
export async function traceSeals(db: Knex): Promise<void> {
  const at = new Date().toISOString();
  const ids: { trace_id: string }[] = await db('trace_data').select('trace_id').orderBy('trace_id');
  for (const { trace_id } of ids) {
    const data = (await db('trace_data').where({ trace_id }).first()) as TraceData;
    await sealData(db, trace_id, data, at);
  }
}
