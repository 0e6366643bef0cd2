import type { Knex } from 'knex';
import { FAMILIES } from '@/core/families/registry';
import { rehearse, seeded } from '@/core/procedure/rehearse';
import { addJob } from '../jobs';
import type { Outcome } from '../outcome';
import { insertEvents, startRun } from '../runs';
import { addInstrument, addProfile, writeSettings } from '../shelf';
import { cases, instruments, profiles, settings, type DemoCase } from './world';

const DAY_MS = 86_400_000;

/**
 * Fills an empty database with the demo world: profiles, gauges, jobs and runs, the readings from the twin with
 * stated faults and seeded noise. Does nothing where there are jobs already.
 *
 * @param today the day to which the demo's dates are moved
 */
export const seedDemo = (db: Knex, today: Date): Promise<boolean> =>
  db.transaction((trx) => seed(trx, today));

async function seed(db: Knex, today: Date): Promise<boolean> {
  const [{ count } = { count: 0 }] = await db('jobs').count({ count: '*' });
  if (Number(count) > 0) return false;
  const opened = new Date(today.getTime() - 400 * DAY_MS).toISOString();
  taken(await writeSettings(db, 0, settings, opened));
  for (const gauge of instruments) taken(await addInstrument(db, gauge, opened));
  const ids = new Map<string, string>();
  for (const [key, profile] of Object.entries(profiles))
    ids.set(key, taken(await addProfile(db, profile, opened)).id);
  for (const demo of cases) await addCase(db, demo, ids.get(demo.job.profile)!, today);
  return true;
}

async function addCase(db: Knex, demo: DemoCase, profileId: string, today: Date): Promise<void> {
  const { profile, promisedOn, ...rest } = demo.job;
  const offset_ms = Date.parse(promisedOn!) - Date.UTC(2026, 0, 1);
  const promised = new Date(today.getTime() + offset_ms).toISOString().slice(0, 10);
  const begin = new Date(today.getTime() - demo.daysAgo * DAY_MS - 50 * 60_000).toISOString();
  const stored = taken(await addJob(db, { ...rest, profileId, promisedOn: promised }, begin));
  if (!demo.bench) return;
  const family = FAMILIES[demo.job.kind];
  const run = taken(await startRun(db, stored.id, begin));
  const { fault: faultAt, seed, supply_Pa = 20 * 3386.389, gauges = {}, until } = demo.bench;
  const { values } = family.healthy(profiles[profile]);
  const fault = faultAt && family.faults.find(({ id }) => id === faultAt[0]);
  const truth = {
    parameters: fault ? fault.apply(values, faultAt[1]) : values,
    signs: fault?.signs ?? {},
    supply_Pa,
    gauges,
    noise_steps: 0.25,
  };
  const events = rehearse(family, run.context, truth, { random: seeded(seed), startAt: begin, until });
  await insertEvents(db, run, events, begin);
}

function taken<T>(outcome: Outcome<T>): T {
  if (!outcome.ok) throw new Error(`Demo world: ${JSON.stringify(outcome.why)}`);
  return outcome.value;
}
