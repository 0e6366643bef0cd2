import type { Knex } from 'knex';
import { z } from 'zod';
import type { RunEvent } from '@/core/contract/events';
import { admitEvent, runRefusalSentence } from '@/core/procedure/admission';
import { jobEntrySchema } from '@/core/records/entries';
import type { JobRecord } from '@/core/records/job-record';
import { stateOf } from '@/core/records/judged-run';
import { disturbance, disturbs, impossible } from '@/core/records/staleness';
import { portNamer } from '@/core/families/port-names';
import { write } from './jobs';
import { readRecord } from './record';
import { sha256 } from './journal';
import { done, invalid, refused, type Outcome } from './outcome';
import { insertEvents } from './runs';
import { Undone } from './undone';

/** Entries that a screen may add as they are; the others come about by taking in, testing, uploading and signing. */
const NOTES = [
  'finding',
  'work',
  'identity',
  'fitting',
  'home-check',
  'withdrawn',
  'put-back',
  'reopened',
  'archived',
  'deleted',
] as const;
/** What is sent to write something down. */
export const noteSchema = z.strictObject({
  id: z.uuid(),
  entry: jobEntrySchema.refine(({ type }) => (NOTES as readonly string[]).includes(type), {
    message: 'That cannot be written down this way.',
  }),
});

/** Writes down a finding, work done, what was fitted; takes back, archives, deletes and opens again. */
export async function addNote(
  db: Knex,
  jobId: string,
  input: unknown,
  at: string,
): Promise<Outcome<JobRecord>> {
  const parsed = noteSchema.safeParse(input);
  if (!parsed.success)
    return invalid(parsed.error.issues.map((issue) => ({ ...issue, path: issue.path.slice(2) })));
  const { id, entry } = parsed.data;
  const record = entry.type === 'work' ? await readRecord(db, jobId) : null;
  const why = record && entry.type === 'work' ? impossible(record.profile, entry.work) : null;
  if (why) return invalid([{ path: ['did'], message: why }]);
  return db
    .transaction(async (trx) => {
      const outcome = await write(trx, jobId, { id, at, entry });
      if (!outcome.ok || entry.type !== 'work') return outcome;
      const refusal = await disturbOpenRun(trx, outcome.value, id, at);
      if (refusal) throw new Undone(refusal);
      return done((await readRecord(trx, jobId))!);
    })
    .catch((error: unknown) => {
      if (error instanceof Undone) return error.outcome as Outcome<JobRecord>;
      throw error;
    });
}

/** Work on a unit whose test is running makes the readings stale that it can have affected, there and then. */
async function disturbOpenRun(trx: Knex, record: JobRecord, entryId: string, at: string) {
  const run = record.runs.find(({ finishedAt }) => !finishedAt);
  const work = record.work.find(({ id }) => id === entryId);
  if (!run || !work || !disturbs(work)) return null;
  const event = disturbance(run, [work], run.context.conditions.day);
  const already = run.events.some(({ id }) => id === eventIdOf(entryId));
  if (!event || already) return null;
  const { closing, ...disturbed } = event;
  const named: RunEvent = { ...disturbed, type: 'disturbed', id: eventIdOf(entryId), at };
  const refusal = admitEvent(run.context.procedure, stateOf(run), named);
  if (refusal) return refused({ code: 'refused', message: runRefusalSentence(refusal, portNamer(run.kind)) });
  const closes: RunEvent[] = closing
    ? [{ ...closing, type: 'added', id: eventIdOf(`${entryId} closing`), at }]
    : [];
  await insertEvents(trx, run, [named, ...closes], at);
  return null;
}

/** The event that goes with an entry has a name made from the entry's own, so that it too is recorded once. */
const eventIdOf = (entryId: string) => {
  const hex = sha256(entryId);
  return [
    hex.slice(0, 8),
    hex.slice(8, 12),
    `4${hex.slice(13, 16)}`,
    `8${hex.slice(17, 20)}`,
    hex.slice(20, 32),
  ].join('-');
};
