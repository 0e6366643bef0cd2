import { randomBytes, scrypt, timingSafeEqual } from 'node:crypto';
import { promisify } from 'node:util';
import type { Knex } from 'knex';
import { z } from 'zod';
import { invalid, type Outcome } from './outcome';

/** A PIN is at least six digits, or a phrase: ten characters or more. */
const DIGITS = /^\d{6,}$/;
const SHORTEST_PHRASE = 10;
export const pinSchema = z
  .string()
  .max(200, 'PIN: 200 characters at the most.')
  .refine(
    (pin) => DIGITS.test(pin) || pin.length >= SHORTEST_PHRASE,
    `PIN: six digits at least, or a phrase of ${SHORTEST_PHRASE} characters.`,
  );

/** What a PIN is typed in as, wherever one is asked for. Those given before six digits were asked for still count. */
export const typedPinSchema = z.string().max(200);

/** N of scrypt, with r 8 and p 1: 128 MB and some 0.3 s for each try. */
const COST = 131_072;
const MEMORY = 256 * 1024 * 1024;
const LENGTH = 32;

const derive = promisify(
  (pin: string, salt: Buffer, cost: number, done: (error: Error | null, key: Buffer) => void) =>
    scrypt(pin, salt, LENGTH, { N: cost, r: 8, p: 1, maxmem: MEMORY }, done),
);

interface PinRow {
  readonly salt: string;
  readonly key: string;
  readonly cost: number;
}

/** Gives a technician a PIN, in the place of the one that there was. Only what it is checked against is kept. */
export async function setPin(db: Knex, technician: string, pin: string): Promise<void> {
  const salt = randomBytes(16);
  const key = await derive(pin, salt, COST);
  const row = { technician_id: technician, salt: salt.toString('hex'), key: key.toString('hex'), cost: COST };
  await db('pins').insert(row).onConflict('technician_id').merge();
  await db('pin_tries').where({ technician_id: technician }).delete();
}

/** Wrong PINs in a row before a pause, and how long it is, ms. */
const MOST_TRIES = 5;
const PAUSE_MS = 60_000;

const wrong = (message: string) => invalid([{ path: ['pin'], message }]);

/** Why a PIN is not a technician's; null where it is. After five wrong ones in a row there is a minute's pause, whatever is restarted. */
export async function wrongPin(
  db: Knex,
  technician: string,
  pin: string,
  now: string,
): Promise<Extract<Outcome<never>, { ok: false }> | null> {
  const wait_s = await counted(db, technician, Date.parse(now));
  if (wait_s > 0) return wrong(`Too many wrong PINs. Wait ${wait_s} s, then try again.`);
  const row = (await db('pins').where({ technician_id: technician }).first()) as PinRow | undefined;
  if (!row) return wrong('This technician has no PIN here. Set one at the command line: npm run pin -- NAME');
  const key = await derive(pin, Buffer.from(row.salt, 'hex'), row.cost);
  if (!timingSafeEqual(key, Buffer.from(row.key, 'hex')))
    return wrong('That is not this technician’s PIN. Nothing was recorded.');
  await db('pin_tries').where({ technician_id: technician }).delete();
  return null;
}

/**
 * Counts a try as a wrong one before it is looked at: of many at once none is free.
 *
 * @returns how long there is a pause yet, s; 0 where there is none
 */
async function counted(db: Knex, technician: string, now_ms: number): Promise<number> {
  return db.transaction(async (trx) => {
    const tries = await trx('pin_tries').where({ technician_id: technician }).first();
    const { count = 0, until_ms = 0 } = tries ?? {};
    if (until_ms > now_ms) return Math.ceil((until_ms - now_ms) / 1000);
    const full = count + 1 >= MOST_TRIES;
    await trx('pin_tries')
      .insert({
        technician_id: technician,
        count: full ? 0 : count + 1,
        until_ms: full ? now_ms + PAUSE_MS : 0,
      })
      .onConflict('technician_id')
      .merge();
    return 0;
  });
}
