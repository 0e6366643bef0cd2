import type { Knex } from 'knex';
import { FAMILIES } from '@/core/families/registry';
import type { Instrument } from '@/core/metrology/instrument';
import { jobQuerySchema } from '@/core/records/job-query';
import type { StoredRun } from '@/core/records/views';
import { StandIn } from '@/devices/logger/stand-in';
import { TYPICAL_BENCH } from '@/devices/logger/typical-bench';
import { searchJobs } from './job-list';
import { addJob } from './jobs';
import { refused, type Outcome } from './outcome';
import { findRun, startRun } from './runs';
import { addProfile, listProfiles, readSettings, writeSettings } from './shelf';

/** Where the simulated bench of a shop's own listens; its hands, on the port above. */
const PORT = 5725;
export const PRACTICE_LOGGER = `127.0.0.1:${PORT}`;

const { kind: KIND } = TYPICAL_BENCH;
const PROFILE_NAME = 'Practice unit';
/** What every practice job is called, with a number. */
export const PRACTICE_TAG = 'Practice';

const held = globalThis as typeof globalThis & { hardPedalPractice?: Promise<void> };

/** Starts the simulated bench in this process, once. Where another process has it already, that one is used. */
export function practiceBench(): Promise<void> {
  held.hardPedalPractice ??= new StandIn(TYPICAL_BENCH, () => performance.now() / 1000)
    .start(PORT, PORT + 1)
    .then(
      () => undefined,
      (error: NodeJS.ErrnoException) => {
        if (error.code !== 'EADDRINUSE') throw error;
      },
    );
  return held.hardPedalPractice;
}

/** Gauges of the simulated bench: they belong to the practice run and never come on the Shelf, nor into a real test. */
const practiceGauges = (): Instrument[] =>
  TYPICAL_BENCH.gauges
    .filter(({ port, quantity }) =>
      FAMILIES[KIND].ports.some((one) => one.id === port && one.quantity === quantity),
    )
    .map((gauge, _i, all) => {
      const wider = all.find((other) => other.port === gauge.port && other.fullScale_Pa > gauge.fullScale_Pa);
      return {
        tag: gauge.tag,
        name: 'Simulated, for practice',
        quantity: gauge.quantity,
        fullScale_Pa: gauge.fullScale_Pa,
        accuracy: { kind: 'en-837-1', class: '0.6' },
        step_Pa: gauge.step_Pa,
        usualPort: gauge.port,
        tiedTo: wider?.tag ?? null,
        correction: null,
        calibratedOn: null,
        calibrationDue: null,
      };
    });

/**
 * A practice unit on the simulated bench: nothing has to be set up for it. One that was begun is gone on with.
 */
export async function startPractice(db: Knex, now: string): Promise<Outcome<StoredRun>> {
  const settings = await readSettings(db);
  const { logger } = settings.body;
  if (logger !== '' && logger !== PRACTICE_LOGGER)
    return refused({
      code: 'refused',
      message: `The bench has a logger of its own, ${logger}. Practice is on the simulated bench: take the logger out of the settings first.`,
    });
  const { jobs } = await searchJobs(db, jobQuerySchema.parse({ q: PRACTICE_TAG }));
  const practised = jobs.filter(({ body }) => body.tag.startsWith(`${PRACTICE_TAG} `));
  const open = practised.flatMap(({ runs }) => runs).find(({ finishedAt }) => !finishedAt);
  if (logger === '') {
    const set = await writeSettings(db, settings.version, { ...settings.body, logger: PRACTICE_LOGGER }, now);
    if (!set.ok) return set;
  }
  await practiceBench();
  const begun = open && (await findRun(db, open.id));
  if (begun) return { ok: true, value: begun };
  const known = (await listProfiles(db)).find(({ body }) => body.name === PROFILE_NAME);
  const body = { ...(FAMILIES[KIND].typical as object), kind: KIND, name: PROFILE_NAME };
  const profile = known ? null : await addProfile(db, body, now);
  if (profile && !profile.ok) return profile;
  const job = await addJob(
    db,
    {
      tag: `${PRACTICE_TAG} ${practised.length + 1}`,
      kind: KIND,
      profileId: known?.id ?? (profile as { value: { id: string } }).value.id,
      from: 'The simulated bench',
      complaint: 'Practice. No real unit was tested.',
      fluid: 'unknown',
      promisedOn: null,
    },
    now,
  );
  if (!job.ok) return job;
  const shelf = practiceGauges();
  return startRun(db, job.value.id, now, { gauges: shelf });
}
