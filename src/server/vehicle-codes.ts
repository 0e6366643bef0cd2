import type { Knex } from 'knex';
import { z } from 'zod';
import type { JobRecord } from '@/core/records/job-record';
import { notSaved, type TroubleCode } from '@/core/records/trouble-codes';
import type { VehicleLink } from '@/devices/vehicle/client';
import { findEntry, NAMED_ALREADY } from './journal';
import { write } from './jobs';
import { done, invalid, refused, type Outcome } from './outcome';
import { readRecord } from './record';
import { missing } from './store';
import { NO_ADDRESS, vehicleLine } from './vehicle';

/** What is sent to read a vehicle's trouble codes into a job: and to clear them, once they are saved. */
export const codesSchema = z.strictObject({
  id: z.uuid(),
  /** Entry of the codes that are saved and are to be cleared; null to read only. */
  clears: z.uuid().nullable(),
});

const ALL = 0xff;
const no = (message: string) => refused({ code: 'refused', message });

/**
 * Reads the trouble codes that a vehicle has stored and writes them into a job. They are cleared only where all that stand there were
 * saved before, and what is left behind is written down as well.
 */
export async function readCodes(
  db: Knex,
  jobId: string,
  input: unknown,
  at: string,
): Promise<Outcome<JobRecord>> {
  const parsed = codesSchema.safeParse(input);
  if (!parsed.success) return invalid(parsed.error.issues);
  const { id, clears } = parsed.data;
  const record = await readRecord(db, jobId);
  if (!record) return missing('job');
  // Sent twice it is done once: what was cleared is not cleared again.
  const known = record.codes.find((one) => one.id === id);
  if (known?.what.clears === clears) return done(record);
  if (known || (await findEntry(db, id))) return no(NAMED_ALREADY);
  if (record.signed) return no('This job is signed. Open it again with a reason first.');
  const saved = clears === null ? null : record.codes.find((one) => one.id === clears);
  if (saved === undefined) return no('Those codes are not saved in this job: read and save them first.');
  const to = await vehicleLine(db);
  if (!to) return no(NO_ADDRESS);
  const found = await to.once(async (link) => {
    const now = await stored(link);
    if (typeof now === 'string' || !saved) return now;
    const others = notSaved(saved.what.found, now);
    if (others.length > 0)
      return `Codes stand there that were not saved (${others.map(({ code }) => code).join(', ')}): read and save them first.`;
    const cleared = await link.ask({ service: 'clear' });
    return cleared.ok ? stored(link) : `Nothing was cleared. ${cleared.why}`;
  });
  if (typeof found === 'string') return no(found);
  const entry = { type: 'codes', codes: { unit: to.map.name, found, clears } } as const;
  return write(db, jobId, { id, at, entry });
}

async function stored(link: VehicleLink): Promise<TroubleCode[] | string> {
  const replied = await link.ask({ service: 'codes', statusMask: ALL });
  return replied.ok ? [...replied.answer.codes] : replied.why;
}
