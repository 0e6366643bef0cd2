import type { Knex } from 'knex';
import type { RunEvent } from '@/core/contract/events';
import type { RunState } from '@/core/contract/run-state';
import { stateAfter, stateOf } from '@/core/records/judged-run';
import { withEvent } from '@/core/records/job-record';
import type { StoredRun } from '@/core/records/views';

/** A run as it stands after its events, and how many entries of the journal that takes in. */
interface Held {
  readonly run: StoredRun;
  readonly state: RunState;
  readonly entries: number;
  /** Last entry of the job's chain. */
  readonly last: { readonly place: number; readonly hash: string };
}

/** Runs held at once: a shop has a few benches. */
const MOST_HELD = 8;

/** Runs last added to, by the database they are in: read once, and not again for every reading that is added. */
const held = new WeakMap<Knex, Map<string, Held>>();

/** What an event is admitted against and written behind. */
export interface Standing extends Held {
  readonly signed: boolean;
  readonly deleted: boolean;
}

interface Row {
  signed: number;
  deleted: number;
  entries: number;
  place: number;
  hash: string;
}

/**
 * A run with its state, and what it has to be written behind, as the database has it now. What is held of it counts only
 * where the journal has no entry of the run beside those: entries are only ever added.
 *
 * @param db the database itself, to which what is held belongs
 * @param trx the transaction that the run is read in
 * @param read reads the run where it is not held
 */
export async function standingOf(
  db: Knex,
  trx: Knex,
  id: string,
  read: (trx: Knex, id: string) => Promise<StoredRun | null>,
): Promise<Standing | null> {
  const [row] = (await trx.raw(
    `select jobs.signed, jobs.deleted, last.place, last.hash,
       (select count(*) from journal where run_id = runs.id and chain = last.chain) as entries
     from runs join jobs on jobs.id = runs.job_id
       join journal last on last.chain = 'job/' || jobs.id
     where runs.id = ? order by last.place desc limit 1`,
    [id],
  )) as Row[];
  if (!row) return null;
  const { entries, place, hash } = row;
  const known = held.get(db)?.get(id);
  const stands = { signed: Boolean(row.signed), deleted: Boolean(row.deleted), last: { place, hash } };
  if (known?.entries === entries) return { ...known, ...stands };
  const run = await read(trx, id);
  return run && { run, state: stateOf(run), entries, ...stands };
}

/** A run as it is held; null where it is not. What is held may be behind what the database has. */
export const heldRun = (db: Knex, id: string): Held | null => held.get(db)?.get(id) ?? null;

/** A run after one more event, with its state. */
export const heldAfter = <H extends Held>(before: H, event: RunEvent): H => ({
  ...before,
  run: withEvent(before.run, event),
  state: stateAfter(before.run, before.state, event),
  entries: before.entries + 1,
});

/** Keeps a run for the next reading: only once what is held is on the disk. */
export function hold(db: Knex, { run, state, entries, last }: Held): void {
  const runs = held.get(db) ?? new Map<string, Held>();
  runs.delete(run.id);
  // A run that is finished takes nothing more.
  if (!run.finishedAt) runs.set(run.id, { run, state, entries, last });
  for (const oldest of [...runs.keys()].slice(0, Math.max(0, runs.size - MOST_HELD))) runs.delete(oldest);
  held.set(db, runs);
}
