import type { Knex } from 'knex';
import { withFault } from '@/core/contract/family';
import { FAMILIES } from '@/core/families/registry';
import { INHG_PA } from '@/core/quantities/units';
import { seeded, uuidFrom } from '@/core/numeric/chance';
import { rehearse, type BenchTruth } from '@/core/procedure/rehearse';
import sharp from 'sharp';
import { addJob } from '../jobs';
import { addComparison } from '../comparisons';
import { addNote } from '../notes';
import type { Outcome } from '../outcome';
import { addPhoto } from '../photos';
import { jobQuerySchema } from '@/core/records/job-query';
import type { Settings } from '@/core/shop/settings';
import { productOf } from '@/workers/trace-product';
import { searchJobs } from '../job-list';
import { aboutFor, changeTrace, keepTrace } from '../traces';
import { insertEvents, startRetest, startRun } from '../runs';
import { addInstrument, addProfile, findProfile, writeSettings } from '../shelf';
import { addTechnician, listTechnicians, signJob } from '../technicians';
import { recordBench, wholeTest } from '@/core/twin/recording';
import { cases, recorded, type DemoCase } from './cases';
import { comparison } from './comparison';
import { profiles } from './profiles';
import { instruments, settings, signer } from './shelf';

const DAY_MS = 86_400_000;
const HOUR_MS = 3_600_000;

/**
 * Fills an empty database with the demo world: profiles, gauges, jobs and runs, the readings from the twin with
 * stated faults and seeded noise. Does nothing where anything was written already.
 *
 * @param today the day to which the demo's dates are moved
 * @param devices addresses of the bench logger and the vehicle interface; empty where the demo has none
 */
export const seedDemo = (db: Knex, today: Date, devices: DemoDevices = NO_DEVICES): Promise<boolean> =>
  db.transaction((trx) => seed(trx, today, devices));

type DemoDevices = Pick<Settings, 'logger' | 'vehicle'>;
const NO_DEVICES: DemoDevices = { logger: '', vehicle: '' };

async function seed(db: Knex, today: Date, devices: DemoDevices): Promise<boolean> {
  // Whatever was written here by hand makes it a shop's own: a first line in the journal, and nobody else's.
  const [{ count } = { count: 0 }] = await db('journal').count({ count: '*' });
  if (Number(count) > 0) return false;
  const opened = new Date(today.getTime() - 400 * DAY_MS).toISOString();
  taken(await writeSettings(db, 0, { ...settings, ...devices }, opened));
  taken(await addTechnician(db, signer, opened));
  for (const gauge of instruments) taken(await addInstrument(db, gauge, opened));
  const ids = new Map<string, string>();
  for (const [key, profile] of Object.entries(profiles))
    ids.set(key, taken(await addProfile(db, profile, opened)).id);
  for (const demo of cases) await addCase(db, demo, ids.get(demo.job.profile)!, today);
  for (const trace of recorded) await addTrace(db, trace, today);
  taken(await addComparison(db, comparison, opened));
  return true;
}

async function addCase(db: Knex, demo: DemoCase, profileId: string, today: Date): Promise<void> {
  const { profile, promisedOn, ...rest } = demo.job;
  const offset_ms = Date.parse(promisedOn!) - Date.UTC(2026, 0, 1);
  const promised = new Date(today.getTime() + offset_ms).toISOString().slice(0, 10);
  const begin_ms = today.getTime() - demo.daysAgo * DAY_MS - 50 * 60_000;
  const begin = new Date(begin_ms).toISOString();
  const stored = taken(await addJob(db, { ...rest, profileId, promisedOn: promised }, begin));
  if (!demo.bench) return;
  const family = FAMILIES[demo.job.kind];
  const run = taken(await startRun(db, stored.id, begin));
  const { fault: faultAt, seed, supply_Pa = 20 * INHG_PA, gauges = {}, worn = {}, until } = demo.bench;
  const healthy = family.healthy(profiles[profile]).values;
  const values = family.parameters.map(({ id }, i) => healthy[i]! * (worn[id] ?? 1));
  const fault = faultAt && family.faults.find(({ id }) => id === faultAt[0]);
  const truth: BenchTruth = {
    parameters: withFault(family, values, faultAt),
    signs: fault?.signs ?? {},
    supply_Pa,
    gauges,
    noise_steps: 0.25,
  };
  const events = rehearse(family, run.context, truth, { random: seeded(seed), startAt: begin, until });
  await insertEvents(db, run, events, begin);
  if (!demo.repair) return;
  const mended = { ...truth, parameters: values, signs: {} };
  await addRepair(db, stored.id, demo.repair, mended, new Date(begin_ms + 4 * HOUR_MS));
}

/** The rest of a job's story: what was found and done, the re-test of the mended unit, the signature. */
async function addRepair(
  db: Knex,
  jobId: string,
  repair: NonNullable<DemoCase['repair']>,
  mended: BenchTruth,
  from: Date,
): Promise<void> {
  const random = seeded(repair.seed);
  const at = (minutes: number) => new Date(from.getTime() + minutes * 60_000).toISOString();
  for (const [i, entry] of repair.notes.entries())
    taken(await addNote(db, jobId, { id: uuidFrom(random), entry }, at(3 * i)));
  const about = { id: uuidFrom(random), ...repair.photo };
  taken(await addPhoto(db, jobId, about, await tornDiaphragm(), at(8)));
  const run = taken(await startRetest(db, jobId, at(60)));
  const family = FAMILIES[run.kind];
  const options = { random, startAt: at(61), from: run.events };
  await insertEvents(db, run, rehearse(family, run.context, mended, options), at(61));
  const fitting = { type: 'fitting', fitting: repair.fitting } as const;
  taken(await addNote(db, jobId, { id: uuidFrom(random), entry: fitting }, at(95)));
  if (!repair.signed) return;
  const [technician] = await listTechnicians(db);
  const signature = { id: uuidFrom(random), technician: technician!.id, pin: signer.pin };
  taken(await signJob(db, jobId, signature, at(100)));
}

/** A picture to show where photos stand: drawn, since everything in the demo world is made up. */
function tornDiaphragm(): Promise<Buffer> {
  const drawing = `<svg xmlns="http://www.w3.org/2000/svg" width="960" height="640">
    <rect width="960" height="640" fill="#6d6a62"/>
    <ellipse cx="480" cy="330" rx="380" ry="250" fill="#2b2a29"/>
    <ellipse cx="480" cy="330" rx="330" ry="206" fill="none" stroke="#3c3a38" stroke-width="22"/>
    <ellipse cx="480" cy="330" rx="120" ry="76" fill="#8d8878" stroke="#55524a" stroke-width="8"/>
    <path d="M206 470 q60 66 176 92 q-20 -26 -60 -40 q-66 -22 -116 -52z" fill="#d9cfae" stroke="#15130f" stroke-width="5"/>
  </svg>`;
  return sharp(Buffer.from(drawing)).jpeg({ quality: 80 }).toBuffer();
}

function taken<T>(outcome: Outcome<T>): T {
  if (!outcome.ok) throw new Error(`Demo world: ${JSON.stringify(outcome.why)}`);
  return outcome.value;
}

/** A trace of a unit of the demo, as the bench's logger would have written it. */
async function addTrace(db: Knex, demo: (typeof recorded)[number], today: Date): Promise<void> {
  const { jobs } = await searchJobs(db, jobQuerySchema.parse({ q: demo.tag }));
  const job = jobs.find(({ body }) => body.tag === demo.tag)!;
  const profile = (await findProfile(db, job.body.profileId))!;
  const family = FAMILIES[profile.kind];
  const { values } = family.healthy(profile.body);
  const about = await aboutFor(db, { profileId: profile.id });
  const trace = recordBench(
    family,
    withFault(family, values, demo.fault),
    demo.supply_Pa ?? 20 * INHG_PA,
    about,
    demo.script ?? wholeTest({ bypass_Pa: 60e5, beyondRunout_Pa: 38e5, hold_Pa: 22e5 }),
    {
      seed: demo.seed,
      rate_Hz: demo.rate_Hz,
      pressureNoise_Pa: demo.pressureNoise_Pa ?? 9e3,
      vacuumNoise_Pa: 90,
      forceNoise_N: 1.5,
    },
  );
  const at = new Date(today.getTime() - 30 * HOUR_MS + demo.seed * 60_000).toISOString();
  const origin = {
    name: demo.name,
    source: 'bench',
    profileId: profile.id,
    jobId: job.id,
    runId: demo.duringTest ? (job.runs[0]?.id ?? null) : null,
  } as const;
  const kept = taken(await keepTrace(db, origin, productOf(trace, about), at));
  if (!demo.note) return;
  const note = { id: uuidFrom(seeded(demo.seed)), ...demo.note };
  taken(await changeTrace(db, kept.id, kept.version, { name: demo.name, notes: [note] }, at));
}
