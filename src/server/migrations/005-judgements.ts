import { randomUUID } from 'node:crypto';
import type { Knex } from 'knex';
import { append, jobChain } from '../journal';
import { judgedBy010, type EntryOf010 } from './judge-0.1.0.mjs';

/**
 * Verdicts begin to be written down: every run finished so far gets those that the version before gave it, for ever.
 * They are worked out by that version's own rules, which are kept for this, so that a record moved long after says the
 * same as one moved at once. They stand beside the job's chain, in one of their own: what two shops hold of one job
 * stays one chain.
 */
export async function judgements(db: Knex): Promise<void> {
  const at = new Date().toISOString();
  const chains: { chain: string }[] = await db('journal')
    .distinct('chain')
    .where('chain', 'like', jobChain('%'));
  for (const { chain } of chains) {
    const rows: { id: string; place: number; at: string; body: string }[] = await db('journal')
      .where({ chain })
      .orderBy('place')
      .select('id', 'place', 'at', 'body');
    const entries = rows.map(({ body, ...row }): EntryOf010 => ({
      ...row,
      entry: JSON.parse(body) as unknown,
    }));
    for (const { run, results, assessment } of judgedBy010(chain.slice(jobChain('').length), entries)) {
      const entry = {
        type: 'judged',
        entryRevision: 2,
        run,
        program: '0.1.0',
        how: 'moved',
        results,
        assessment,
      };
      await append(db, `judged/${run}`, { id: randomUUID(), at, entry });
    }
  }
}
