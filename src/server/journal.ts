import { createHash } from 'node:crypto';
import type { Knex } from 'knex';
import { canonicalJson } from '@/core/records/canonical';
import { NO_HASH, sealOf, type Link } from '@/core/records/chain';
import type { JobEntry } from '@/core/records/entries';
import { presentEntry } from '@/core/records/stored-entry';
import type { Written } from '@/core/records/job-record';

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
  const unsealed = { id, place: (last?.place ?? 0) + 1, at, body: canonicalJson(entry) };
  const link: Link = { ...unsealed, hash: sealOf(chain, unsealed, last?.hash ?? NO_HASH, sha256) };
  await trx('journal').insert({ ...link, chain, run_id: runOf(entry) });
  return link;
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

/** Whether an entry of this name is written already, and where. */
export const findEntry = (db: Knex, id: string): Promise<JournalRow | undefined> =>
  db<JournalRow>('journal').where({ id }).first();
