import { randomUUID } from 'node:crypto';
import type { Knex } from 'knex';
import { z } from 'zod';
import { FAMILIES, SIMULATED, type FamilyKind } from '@/core/families/registry';
import { jobQuerySchema } from '@/core/records/job-query';
import type { StoredRun } from '@/core/records/views';
import { PRACTICE_LOGGER } from '@/core/shop/live';
import type { SimUnit } from '@/devices/logger/sim-bench';
import { TYPICAL_BENCH } from '@/devices/logger/typical-bench';
import { sayToHands } from './bench-hands';
import { searchJobs } from './job-list';
import { addJob } from './jobs';
import { link } from './live';
import { recordStep } from './live-recording';
import { done, invalid, refused, type Outcome } from './outcome';
import { layOnBench, liesOnBench } from './practice-bench';
import { practiceGauges, PRACTICE_TAG } from './practice-gauges';
import { findRun, startRun } from './runs';
import { addProfile, listProfiles, readSettings, writeSettings } from './shelf';

const PROFILE_NAME = 'Practice unit';

/** What is asked for: a kind of unit, the first of them where none is named. */
export const practiceSchema = z.strictObject({ kind: z.enum(SIMULATED).default(SIMULATED[0]!) });

/**
 * A practice unit of a kind on the simulated bench: nothing has to be set up for it. One that was begun is gone on with.
 */
export async function startPractice(db: Knex, input: unknown, now: string): Promise<Outcome<StoredRun>> {
  const asked = practiceSchema.safeParse(input);
  if (!asked.success) return invalid(asked.error.issues);
  const { kind } = asked.data;
  const { jobs } = await searchJobs(db, jobQuerySchema.parse({ q: PRACTICE_TAG }));
  const cases = new Set<string>(await db('practice_cases').pluck('job_id'));
  const practised = jobs.filter(({ id, body }) => body.tag.startsWith(`${PRACTICE_TAG} `) && !cases.has(id));
  const open = practised
    .filter(({ body }) => body.kind === kind)
    .flatMap(({ runs }) => runs)
    .find(({ finishedAt }) => !finishedAt);
  const ready = await simulatedBench(db, now);
  if (!ready.ok) return ready;
  const found = open && (await findRun(db, open.id));
  if (found) return onBench(db, found, now);
  const run = await practiceRun(
    db,
    { kind, tag: `${PRACTICE_TAG} ${practised.length + 1}`, complaint: 'Practice. No real unit was tested.' },
    now,
  );
  return run.ok ? onBench(db, run.value, now) : run;
}

/** How long a logger has to say who it is, and between two looks whether it has, ms. */
const HEARD_MS = 5000;
const LOOK_MS = 50;

/** Sees to it that the bench of this shop is a simulated one, and says where; refused where it has a real logger. */
export async function simulatedBench(db: Knex, now: string): Promise<Outcome<string>> {
  const { version, body } = await readSettings(db);
  const { logger } = body;
  if (logger === '') {
    const set = await writeSettings(db, version, { ...body, logger: PRACTICE_LOGGER }, now);
    if (!set.ok) return set;
  }
  const line = (await link(db))!;
  for (let ms = 0; line.status.name === null && ms < HEARD_MS; ms += LOOK_MS)
    await new Promise((soon) => setTimeout(soon, LOOK_MS));
  if (line.status.simulated) return done(line.address);
  return refused({
    code: 'refused',
    message:
      line.status.name === null
        ? `The logger ${logger} does not answer. Practice is on a simulated bench: take the logger out of the settings, and it has one of its own.`
        : `The bench has a logger of its own, ${logger}. Practice is on the simulated bench: take the logger out of the settings first.`,
  });
}

/** What is wrong with what a practice run tests, with its source and with the gauges, and a name for that state. */
export interface Hidden extends Pick<SimUnit, 'own' | 'supply_Pa' | 'errors'> {
  readonly state: string;
}

/** A sound unit, a good source, and gauges as they are. */
const SOUND: Hidden = { own: null, supply_Pa: TYPICAL_BENCH.supply_Pa, errors: null, state: 'sound' };

/** Puts what a practice run tests on the simulated bench; what lies there for it already in that state stays as it is. */
async function putOnBench(
  logger: string,
  { id, kind, context }: StoredRun,
  { state, ...hidden }: Hidden,
): Promise<Outcome<null>> {
  if (liesOnBench()?.state === state && (await stillLies(logger, id))) return done(null);
  // A name that tells nothing of what is hidden.
  const label = randomUUID();
  const { barometer_Pa, temperature_K } = context.conditions;
  const room = { barometer_Pa, temperature_K };
  const unit = { kind, profile: context.profile, fault: null, room, label, ...hidden };
  const answer = await sayToHands(logger, { unit });
  if (!answer?.ok)
    return refused({ code: 'refused', message: answer?.why ?? 'The simulated bench does not answer.' });
  layOnBench({ run: id, state, label });
  return done(null);
}

/** Whether the bench itself says that it still has what a test put there: one that was switched off and on has forgotten it. */
export async function stillLies(logger: string, run: string): Promise<boolean> {
  const lies = liesOnBench();
  return lies?.run === run && (await sayToHands(logger, {}))?.label === lies.label;
}

interface PracticeJob {
  readonly kind: FamilyKind;
  readonly tag: string;
  readonly complaint: string;
}

/** Takes in a made-up unit to be practised on, and begins its test. */
export async function practiceRun(
  db: Knex,
  { kind, tag, complaint }: PracticeJob,
  now: string,
): Promise<Outcome<StoredRun>> {
  const known = (await listProfiles(db)).find((one) => one.body.name === PROFILE_NAME && one.kind === kind);
  const body = { ...(FAMILIES[kind].typical as object), kind, name: PROFILE_NAME };
  const profile = known ? null : await addProfile(db, body, now);
  if (profile && !profile.ok) return profile;
  const job = await addJob(
    db,
    {
      tag,
      kind,
      profileId: known?.id ?? (profile as { value: { id: string } }).value.id,
      from: 'The simulated bench',
      complaint,
      fluid: 'unknown',
      promisedOn: null,
    },
    now,
  );
  if (!job.ok) return job;
  return startRun(db, job.value.id, now, { gauges: practiceGauges(kind) });
}

/** The same with its unit on the bench, which no other run has any more. @param hidden what is wrong with it; nothing where left out */
export async function onBench(
  db: Knex,
  run: StoredRun,
  now: string,
  hidden: Hidden = SOUND,
): Promise<Outcome<StoredRun>> {
  const ready = await simulatedBench(db, now);
  if (!ready.ok) return ready;
  const put = await putOnBench(ready.value, run, hidden);
  if (!put.ok) return put;
  const owner = (await link(db))?.status.owner;
  if (owner && owner.run !== run.id) await recordStep(db, owner.run, { step: null, take: false }, now);
  return done(run);
}
