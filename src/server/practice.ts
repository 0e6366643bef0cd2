import type { Knex } from 'knex';
import { z } from 'zod';
import { FAMILIES, SIMULATED, type FamilyKind } from '@/core/families/registry';
import { mixes } from '@/core/fluid/kinds';
import type { Instrument } from '@/core/metrology/instrument';
import { jobQuerySchema } from '@/core/records/job-query';
import type { StoredRun } from '@/core/records/views';
import { PRACTICE_LOGGER } from '@/core/shop/live';
import { instruments } from './demo/shelf';
import { searchJobs } from './job-list';
import { addJob } from './jobs';
import { link } from './live';
import { recordStep } from './live-recording';
import { done, invalid, refused, type Outcome } from './outcome';
import { putOnBench } from './practice-bench';
import { findRun, startRun } from './runs';
import { addProfile, listProfiles, readSettings, writeSettings } from './shelf';

const PROFILE_NAME = 'Practice unit';
/** What every practice job is called, with a number. */
export const PRACTICE_TAG = 'Practice';

/** What is asked for: a kind of unit, the first of them where none is named. */
export const practiceSchema = z.strictObject({ kind: z.enum(SIMULATED).default(SIMULATED[0]!) });

/** Gauges of the simulated bench: they belong to the practice run and never come on the Shelf, nor into a real test. */
function practiceGauges(kind: FamilyKind): Instrument[] {
  const { ports, fluid, typical } = FAMILIES[kind];
  const works = fluid(typical);
  const fitting = instruments.filter(
    (gauge) =>
      ports.some(({ id, quantity }) => id === gauge.usualPort && quantity === gauge.quantity) &&
      (!works || !gauge.fluid || mixes(gauge.fluid, works)),
  );
  const tags = new Set(fitting.map(({ tag }) => tag));
  return fitting.map((gauge) => ({
    ...gauge,
    name: 'Simulated, for practice',
    tiedTo: gauge.tiedTo && tags.has(gauge.tiedTo) ? gauge.tiedTo : null,
    fluid: null,
    correction: null,
    calibratedOn: null,
    calibrationDue: null,
  }));
}

/**
 * A practice unit of a kind on the simulated bench: nothing has to be set up for it. One that was begun is gone on with.
 */
export async function startPractice(db: Knex, input: unknown, now: string): Promise<Outcome<StoredRun>> {
  const asked = practiceSchema.safeParse(input);
  if (!asked.success) return invalid(asked.error.issues);
  const { kind } = asked.data;
  const settings = await readSettings(db);
  const { logger } = settings.body;
  if (logger !== '' && logger !== PRACTICE_LOGGER)
    return refused({
      code: 'refused',
      message: `The bench has a logger of its own, ${logger}. Practice is on the simulated bench: take the logger out of the settings first.`,
    });
  const { jobs } = await searchJobs(db, jobQuerySchema.parse({ q: PRACTICE_TAG }));
  const practised = jobs.filter(({ body }) => body.tag.startsWith(`${PRACTICE_TAG} `));
  const open = practised
    .filter(({ body }) => body.kind === kind)
    .flatMap(({ runs }) => runs)
    .find(({ finishedAt }) => !finishedAt);
  if (logger === '') {
    const set = await writeSettings(db, settings.version, { ...settings.body, logger: PRACTICE_LOGGER }, now);
    if (!set.ok) return set;
  }
  const found = open && (await findRun(db, open.id));
  if (found) return onBench(db, found, now);
  const known = (await listProfiles(db)).find((one) => one.body.name === PROFILE_NAME && one.kind === kind);
  const body = { ...(FAMILIES[kind].typical as object), kind, name: PROFILE_NAME };
  const profile = known ? null : await addProfile(db, body, now);
  if (profile && !profile.ok) return profile;
  const job = await addJob(
    db,
    {
      tag: `${PRACTICE_TAG} ${practised.length + 1}`,
      kind,
      profileId: known?.id ?? (profile as { value: { id: string } }).value.id,
      from: 'The simulated bench',
      complaint: 'Practice. No real unit was tested.',
      fluid: 'unknown',
      promisedOn: null,
    },
    now,
  );
  if (!job.ok) return job;
  const run = await startRun(db, job.value.id, now, { gauges: practiceGauges(kind) });
  return run.ok ? onBench(db, run.value, now) : run;
}

/** The same with its unit on the bench, which no other run has any more. */
async function onBench(db: Knex, run: StoredRun, now: string): Promise<Outcome<StoredRun>> {
  await putOnBench(run);
  const owner = (await link(db))?.status.owner;
  if (owner && owner.run !== run.id) await recordStep(db, owner.run, { step: null, take: false }, now);
  return done(run);
}
