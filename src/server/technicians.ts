import type { Knex } from 'knex';
import { z } from 'zod';
import type { JobRecord } from '@/core/records/job-record';
import { nameSkeleton } from '@/core/shop/name-skeleton';
import { whyNotPrinted } from './altered';
import { jobChain, linksOf } from './journal';
import { write } from './jobs';
import { done, invalid, refused, type Outcome } from './outcome';
import { pinSchema, setPin, typedPinSchema, wrongPin } from './pins';
import { add, fromRow, list, missing, setDeleted, type Shelf } from './store';

/** What is kept of a technician. PINs stand by themselves. */
const technicianSchema = z.strictObject({
  name: z.string().trim().min(1, 'Name: give the technician’s name.').max(120),
});
type Technician = z.infer<typeof technicianSchema>;

/** Who changes the list, with their own PIN. */
const bySchema = z.strictObject({
  technician: z.uuid('By whom: choose one of the technicians.'),
  pin: typedPinSchema,
});
type By = z.infer<typeof bySchema>;

/** What is sent to take a technician off the list, or to put one back. */
export const changedBySchema = z.strictObject({ by: bySchema });

/** What is sent to add a technician. The first of a shop is added by nobody. */
export const newTechnicianSchema = z.strictObject({
  name: technicianSchema.shape.name,
  pin: pinSchema,
  by: bySchema.optional(),
});

/** What is sent to change a PIN: the one that there is, and the next. */
export const changedPinSchema = z.strictObject({ pin: typedPinSchema, next: pinSchema });

/** Those who may sign, as they are kept. */
export const technicians: Shelf<Technician> = {
  table: 'technicians',
  what: 'technician',
  schema: technicianSchema,
  columns: ({ name }) => ({ name }),
};

/** Those who may sign, by name. */
export async function listTechnicians(db: Knex): Promise<{ id: string; name: string }[]> {
  return (await list<Technician>(db, technicians, 'name')).map(({ id, body }) => ({ id, name: body.name }));
}

/** Why somebody may not change the list; null where they may. */
async function refusedTo(db: Knex, by: By | undefined, now: string) {
  if (!by)
    return invalid([
      { path: ['by'], message: 'By whom: a technician of this shop must say so, with their PIN.' },
    ]);
  const who = await checkPin(db, by.technician, by.pin, now);
  if (who.ok) return null;
  // At the field that it was typed in: the one of whom it is about may have a PIN of their own beside it.
  return who.why.code === 'invalid' ? invalid([{ path: ['by', 'pin'], message: who.why.message }]) : who;
}

export async function addTechnician(
  db: Knex,
  input: unknown,
  now: string,
): Promise<Outcome<{ id: string; name: string }>> {
  const parsed = newTechnicianSchema.safeParse(input);
  if (!parsed.success) return invalid(parsed.error.issues);
  const { name, pin, by } = parsed.data;
  const names: { name: string }[] = await db('technicians').select('name');
  const refusal = names.length > 0 ? await refusedTo(db, by, now) : null;
  if (refusal) return refusal;
  // For ever: what somebody signed is theirs, whoever is on the list by then.
  if (names.some((one) => nameSkeleton(one.name) === nameSkeleton(name)))
    return invalid([
      {
        path: ['name'],
        message: 'Name: there is, or was, a technician of that name, or of one that looks the same.',
      },
    ]);
  const outcome = await add(db, technicians, { name }, now);
  if (!outcome.ok) return outcome;
  await setPin(db, outcome.value.id, pin);
  return done({ id: outcome.value.id, name });
}

/** Takes a technician off the list, or puts one back. The last one stays: nobody could add another. */
export async function deleteTechnician(
  db: Knex,
  id: string,
  deleted: boolean,
  input: unknown,
  now: string,
): Promise<Outcome<{ id: string; name: string }>> {
  const parsed = changedBySchema.safeParse(input);
  const refusal = await refusedTo(db, parsed.data?.by, now);
  if (refusal) return refusal;
  const others = (await listTechnicians(db)).filter((one) => one.id !== id);
  if (deleted && others.length === 0)
    return refused({
      code: 'refused',
      message: 'The last technician stays on the list. Add another one first.',
    });
  const outcome = await setDeleted(db, technicians, id, deleted, now);
  return outcome.ok ? done({ id, name: outcome.value.body.name }) : outcome;
}

/** Changes a technician's PIN, which they have to know. */
export async function changePin(
  db: Knex,
  id: string,
  input: unknown,
  now: string,
): Promise<Outcome<{ id: string; name: string }>> {
  const parsed = changedPinSchema.safeParse(input);
  if (!parsed.success) return invalid(parsed.error.issues);
  const name = await checkPin(db, id, parsed.data.pin, now);
  if (!name.ok) return name;
  await setPin(db, id, parsed.data.next);
  return done({ id, name: name.value });
}

/** Checks a technician's PIN. @returns the name of who that is */
async function checkPin(db: Knex, id: string, pin: string, now: string): Promise<Outcome<string>> {
  const row = await db('technicians').where({ id, deleted: false }).first();
  if (!row) return missing('technician');
  return (await wrongPin(db, id, pin, now)) ?? done(fromRow<Technician>(row).body.name);
}

/** What is sent to sign a job. */
export const signSchema = z.strictObject({
  id: z.uuid(),
  technician: z.uuid('Technician: choose one.'),
  pin: typedPinSchema,
});

/** Signs a job: everything written so far is sealed under the technician's name. */
export async function signJob(
  db: Knex,
  jobId: string,
  input: unknown,
  at: string,
): Promise<Outcome<JobRecord>> {
  const parsed = signSchema.safeParse(input);
  if (!parsed.success) return invalid(parsed.error.issues);
  const why = await whyNotPrinted(db, jobId);
  if (why) return refused({ code: 'refused', message: why });
  const name = await checkPin(db, parsed.data.technician, parsed.data.pin, at);
  if (!name.ok) return name;
  return db.transaction(async (trx) => {
    const last = (await linksOf(trx, jobChain(jobId))).at(-1);
    if (!last) return missing('job');
    const entry = { type: 'signed', technician: name.value, head: last.hash } as const;
    return write(trx, jobId, { id: parsed.data.id, at, entry });
  });
}

/** What is sent to correct a signed job. */
export const correctSchema = signSchema.extend({
  about: z.uuid().nullable(),
  words: z.string().trim().min(1, 'Correction: write what is to be said.').max(20_000),
});

/** Adds a correction to a signed job, under the technician's name. */
export async function correctJob(
  db: Knex,
  jobId: string,
  input: unknown,
  at: string,
): Promise<Outcome<JobRecord>> {
  const parsed = correctSchema.safeParse(input);
  if (!parsed.success) return invalid(parsed.error.issues);
  const { id, technician, pin, about, words } = parsed.data;
  const name = await checkPin(db, technician, pin, at);
  if (!name.ok) return name;
  return write(db, jobId, { id, at, entry: { type: 'corrected', about, words, technician: name.value } });
}
