import { createHash } from 'node:crypto';
import type { Database as Connection, Statement } from 'better-sqlite3';
import type { Knex } from 'knex';
import { canonicalJson } from '@/core/records/canonical';
import { NO_HASH, sealOf, type Link } from '@/core/records/chain';
import type { JobEntry } from '@/core/records/entries';
import { presentEntry } from '@/core/records/stored-entry';
import type { Written } from '@/core/records/job-record';

/** What Knex keeps its connections in. */
interface Pool {
  acquireConnection(): Promise<Connection>;
  releaseConnection(connection: Connection): Promise<void>;
}

export const sha256 = (data: string | Buffer): string => createHash('sha256').update(data).digest('hex');

/** What is written: an entry with the name it is sent under, so that sending it twice records it once. */
export interface NewEntry<E = unknown> {
  readonly id: string;
  readonly at: string;
  readonly entry: E;
}

export const jobChain = (jobId: string) => `job/${jobId}`;

/** A row of the journal. */
export interface JournalRow extends Link {
  readonly seq: number;
  readonly chain: string;
  readonly run_id: string | null;
}

/**
 * Adds an entry behind the last one of its chain, sealed to it. Inside a transaction: the entry and what is derived
 * from it are on disk together or not at all.
 *
 * @param known the last entry of the chain, where this transaction has read it
 */
export async function append(
  trx: Knex,
  chain: string,
  { id, at, entry }: NewEntry,
  known?: Pick<Link, 'place' | 'hash'>,
): Promise<Link> {
  const last =
    known ??
    (await trx<JournalRow>('journal').where({ chain }).orderBy('place', 'desc').first('place', 'hash'));
  const link = linkBehind(chain, { id, at, entry }, last);
  await trx('journal').insert({ ...link, chain, run_id: runOf(entry) });
  return link;
}

/** An entry as it stands behind the last one of its chain, sealed to it. */
function linkBehind(
  chain: string,
  { id, at, entry }: NewEntry,
  last: Pick<Link, 'place' | 'hash'> | undefined,
): Link {
  const unsealed = { id, place: (last?.place ?? 0) + 1, at, body: canonicalJson(entry) };
  return { ...unsealed, hash: sealOf(chain, unsealed, last?.hash ?? NO_HASH, sha256) };
}

/** One entry, written only where the chain and the job are as expected. */
const ADD_ALONE = `insert or ignore into journal (id, place, at, body, hash, chain, run_id)
  select ?, ?, ?, ?, ?, ?, ?
  where (select count(*) from journal where run_id = ? and chain = ?) = ?
    and (select hash from journal where chain = ? order by place desc limit 1) = ?
    and exists (select 1 from jobs where id = ? and not signed and not deleted)`;

/** Statements, prepared once for each connection: Knex prepares anew every time, a sixth of what a reading costs. */
const PREPARED = new WeakMap<Connection, Map<string, Statement>>();

/** Uses a statement on a connection of Knex's own pool, in its turn. */
async function prepared<T>(db: Knex, sql: string, run: (statement: Statement) => T): Promise<T> {
  const { client } = db as unknown as { client: Pool };
  const connection = await client.acquireConnection();
  try {
    const known = PREPARED.get(connection) ?? new Map<string, Statement>();
    PREPARED.set(connection, known);
    const statement = known.get(sql) ?? connection.prepare(sql);
    known.set(sql, statement);
    return run(statement);
  } finally {
    await client.releaseConnection(connection);
  }
}

const LAST_LINE = 'select seq, hash from journal order by seq desc limit 1';

/** Last line of the journal; null in one that is empty. */
export const lastLine = (db: Knex): Promise<Pick<JournalRow, 'seq' | 'hash'> | null> =>
  prepared(db, LAST_LINE, (statement) => (statement.get() as JournalRow | undefined) ?? null);

/** What must still be so for an entry of a run to be written by itself. */
interface Expected {
  /** Entries that the run has in its job's chain. */
  readonly entries: number;
  readonly last: Pick<Link, 'place' | 'hash'>;
}

/**
 * Adds one entry of a run by one statement, which is its own transaction: only where the run has just so many entries, its
 * job's chain ends just there, and the job is neither signed nor deleted.
 *
 * @returns the link; null where something is otherwise, and nothing was written
 */
export async function appendAlone(
  db: Knex,
  jobId: string,
  run: string,
  { id, at, entry }: NewEntry,
  { entries, last }: Expected,
): Promise<Link | null> {
  const chain = jobChain(jobId);
  const link = linkBehind(chain, { id, at, entry }, last);
  const values = [
    ...[id, link.place, at, link.body, link.hash, chain, run],
    ...[run, chain, entries, chain, last.hash, jobId],
  ];
  const changes = await prepared(db, ADD_ALONE, (statement) => statement.run(values).changes);
  return changes === 1 ? link : null;
}

/** The run an entry belongs to: drawn out so that a run is read without the rest of its job. */
export const runOf = (entry: unknown): string | null => (entry as { run?: string }).run ?? null;

/** The entries of a chain in order. */
export async function linksOf(db: Knex, chain: string): Promise<JournalRow[]> {
  return db<JournalRow>('journal').where({ chain }).orderBy('place');
}

/** An entry of a thing on the shelf. */
export const writtenFrom = <E>({ id, place, at, body }: Link): Written<E> => ({
  id,
  place,
  at,
  entry: JSON.parse(body) as E,
});

/** An entry of a job, in the present form. */
export const jobEntryFrom = ({ id, place, at, body }: Link): Written => ({
  id,
  place,
  at,
  entry: presentEntry(JSON.parse(body)) as JobEntry,
});

/** That a name was sent with something else than what it stands for already. */
export const NAMED_ALREADY =
  'The name under which this was sent stands for something else already. Nothing was recorded.';

/** Whether an entry of this name is written already, and where. */
export const findEntry = (db: Knex, id: string): Promise<JournalRow | undefined> =>
  db<JournalRow>('journal').where({ id }).first();
