import type { Knex } from 'knex';
import { canonicalJson } from '@/core/records/canonical';
import { NO_HASH, sealOf } from '@/core/records/chain';
import { sha256, type JournalRow } from '../journal';

type Body = Record<string, unknown>;

/** N of scrypt, as Node has it where none is said: no other was until then. */
const COST_UNTIL_THEN = 16_384;

/**
 * What a PIN is checked against is told by no history and by no copy: it moves to a table of its own. So do wrong ones, which a restart
 * used to forget.
 */
export async function pins(db: Knex): Promise<void> {
  await db.schema.createTable('pins', (t) => {
    t.text('technician_id').primary();
    t.text('salt').notNullable();
    t.text('key').notNullable();
    t.integer('cost').notNullable();
  });
  await db.schema.createTable('pin_tries', (t) => {
    t.text('technician_id').primary();
    t.integer('count').notNullable();
    t.integer('until_ms').notNullable();
  });
  for (const { id, body } of (await db('technicians').select('id', 'body')) as {
    id: string;
    body: string;
  }[]) {
    const { salt, key, ...technician } = JSON.parse(body) as Body;
    if (salt && key) await db('pins').insert({ technician_id: id, salt, key, cost: COST_UNTIL_THEN });
    await db('technicians')
      .where({ id })
      .update({ body: JSON.stringify(technician) });
    await withoutPins(db, `technician/${id}`);
  }
}

/** Takes what PINs were checked against out of a history, and seals it anew: no other record hangs on it. */
async function withoutPins(db: Knex, chain: string): Promise<void> {
  let before = NO_HASH;
  for (const link of await db<JournalRow>('journal').where({ chain }).orderBy('place')) {
    const entry = JSON.parse(link.body) as Body & { body?: Body };
    const { salt: _salt, key: _key, ...technician } = entry.body ?? {};
    const body = canonicalJson(entry.body ? { ...entry, body: technician } : entry);
    const hash = sealOf(chain, { ...link, body }, before, sha256);
    await db('journal').where({ seq: link.seq }).update({ body, hash });
    before = hash;
  }
}
