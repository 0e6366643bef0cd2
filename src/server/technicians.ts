import { randomBytes, scryptSync, timingSafeEqual } from 'node:crypto';
import type { Knex } from 'knex';
import { z } from 'zod';
import type { JobRecord } from '@/core/records/job-record';
import { jobChain, linksOf } from './journal';
import { write } from './jobs';
import { whyNotPrinted } from './altered';
import { done, invalid, refused, type Outcome } from './outcome';
import { add, fromRow, list, missing, setDeleted, type Shelf } from './store';

/** What is kept of a technician: never the PIN, only what it is checked against. */
const technicianSchema = z.strictObject({
  name: z.string().trim().min(1, 'Name: give the technician’s name.').max(120),
  salt: z.string().length(32),
  key: z.string().length(64),
});
type Technician = z.infer<typeof technicianSchema>;

/** What is sent to add a technician. */
export const newTechnicianSchema = z.strictObject({
  name: technicianSchema.shape.name,
  pin: z.string().regex(/^\d{4,12}$/, 'PIN: four to twelve digits.'),
});

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

const keyOf = (pin: string, salt: string) => scryptSync(pin, Buffer.from(salt, 'hex'), 32).toString('hex');

export async function addTechnician(
  db: Knex,
  input: unknown,
  now: string,
): Promise<Outcome<{ id: string; name: string }>> {
  const parsed = newTechnicianSchema.safeParse(input);
  if (!parsed.success) return invalid(parsed.error.issues);
  const { name, pin } = parsed.data;
  if ((await listTechnicians(db)).some((one) => one.name === name))
    return invalid([{ path: ['name'], message: 'Name: there is a technician of that name already.' }]);
  const salt = randomBytes(16).toString('hex');
  const outcome = await add(db, technicians, { name, salt, key: keyOf(pin, salt) }, now);
  return outcome.ok ? done({ id: outcome.value.id, name }) : outcome;
}

export async function deleteTechnician(db: Knex, id: string, deleted: boolean, now: string) {
  const outcome = await setDeleted(db, technicians, id, deleted, now);
  return outcome.ok ? done({ id, name: outcome.value.body.name }) : outcome;
}

/** Wrong PINs in a row before a pause, and how long it is, ms. */
const MOST_TRIES = 5;
const PAUSE_MS = 60_000;
const tries = new Map<string, { count: number; until: number }>();

/** Checks a technician's PIN. After five wrong ones in a row there is a minute's pause. */
async function checkPin(db: Knex, id: string, pin: string, now: string): Promise<Outcome<string>> {
  const row = await db('technicians').where({ id, deleted: false }).first();
  if (!row) return missing('technician');
  const { name, salt, key } = fromRow<Technician>(row).body;
  const now_ms = Date.parse(now);
  const before = tries.get(id) ?? { count: 0, until: 0 };
  if (before.until > now_ms) {
    const wait_s = Math.ceil((before.until - now_ms) / 1000);
    return invalid([{ path: ['pin'], message: `Too many wrong PINs. Wait ${wait_s} s, then try again.` }]);
  }
  if (timingSafeEqual(Buffer.from(keyOf(pin, salt)), Buffer.from(key))) {
    tries.delete(id);
    return done(name);
  }
  const count = before.count + 1;
  tries.set(id, count >= MOST_TRIES ? { count: 0, until: now_ms + PAUSE_MS } : { count, until: 0 });
  return invalid([{ path: ['pin'], message: 'That is not this technician’s PIN. Nothing was signed.' }]);
}

/** What is sent to sign a job. */
export const signSchema = z.strictObject({
  id: z.uuid(),
  technician: z.uuid('Technician: choose one.'),
  pin: z.string().max(12),
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
