import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { performance } from 'node:perf_hooks';
import { jobQuerySchema } from '../src/core/records/job-query';
import { openDatabase } from '../src/server/database';
import { seedDemo } from '../src/server/demo/seed';
import { exportJob, importJob } from '../src/server/job-files';
import { searchJobs } from '../src/server/job-list';
import { addJob } from '../src/server/jobs';
import { readRecord } from '../src/server/record';
import { reportPdf } from '../src/server/reports';
import { quantiles, table } from './figures';

/** List, search and open with 50 000 jobs beside the same SQL run bare; a PDF; the import of 1 000 job files. */
const JOBS = Number(process.argv[2] ?? 50_000);
const FILES = Number(process.argv[3] ?? 1_000);
const WORDS = [
  'slipway',
  'hiss',
  'creep',
  'grab',
  'hard',
  'spongy',
  'late',
  'lamp',
  'quay',
  'ferry',
  'plough',
  'mail',
];

async function timed(name: string, rounds: number, work: () => Promise<unknown>) {
  const times: number[] = [];
  for (let i = 0; i < rounds; i += 1) {
    const from = performance.now();
    await work();
    times.push(performance.now() - from);
  }
  table('ms', { [name]: quantiles(times) });
}

async function main() {
  const folder = mkdtempSync(path.join(tmpdir(), 'hard-pedal-jobs-'));
  const db = await openDatabase(path.join(folder, 'jobs.sqlite'));
  await seedDemo(db, new Date());
  const [one] = (await searchJobs(db, jobQuerySchema.parse({ q: 'GF-0418' }))).jobs;
  const from = performance.now();
  await db.transaction(async (trx) => {
    for (let i = 0; i < JOBS; i += 1) {
      const word = (k: number) => WORDS[(i * 7 + k * 5 + Math.floor(i / 13)) % WORDS.length]!;
      const at = new Date(Date.UTC(2016, 0, 1) + i * 6_000_000).toISOString();
      const job = {
        ...one!.body,
        tag: `B-${i}`,
        from: `${word(0)} ${i}`,
        complaint: `${word(1)} ${word(2)} ${word(3)}`,
      };
      const outcome = await addJob(trx, job, at);
      if (!outcome.ok) throw new Error(outcome.why.message);
    }
  });
  console.log(`${JOBS} jobs taken in: ${((performance.now() - from) / 1000).toFixed(1)} s`);

  const bareList = `SELECT jobs.*, profiles.name FROM jobs JOIN profiles ON profiles.id = jobs.profile_id
    WHERE jobs.deleted = 0 AND jobs.archived = 0 ORDER BY jobs.created_at DESC, jobs.no DESC LIMIT 50`;
  const match = 'jobs.no IN (SELECT rowid FROM job_search WHERE job_search MATCH ?)';
  const bareSearch = bareList.replace('ORDER', `AND ${match} ORDER`);
  for (let round = 0; round < 3; round += 1) {
    await timed('list, newest first', 20, () => searchJobs(db, jobQuerySchema.parse({})));
    await timed('  the same SQL bare', 20, () => db.raw(bareList));
    await timed('search, two common words', 20, () =>
      searchJobs(db, jobQuerySchema.parse({ q: 'creep hiss' })),
    );
    await timed('  the same SQL bare', 20, () => db.raw(bareSearch, ['"creep"* "hiss"*']));
    await timed('search, one tag', 20, () => searchJobs(db, jobQuerySchema.parse({ q: 'B-31415' })));
    await timed('  the same SQL bare', 20, () => db.raw(bareSearch, ['"B"* "31415"*']));
    await timed('open a job with two tests', 20, () => readRecord(db, one!.id));
    await timed('  its rows read bare', 20, () =>
      db.raw('SELECT * FROM journal WHERE chain = ? ORDER BY place', [`job/${one!.id}`]),
    );
  }
  await timed('report as PDF', 10, () => reportPdf(db, one!.runs.at(-1)!.id, 'A4'));

  const text = await exportJob(
    db,
    (await searchJobs(db, jobQuerySchema.parse({ q: 'GF-0415' }))).jobs[0]!.id,
  );
  if (!text.ok) throw new Error(text.why.message);
  const times: number[] = [];
  for (let i = 0; i < FILES; i += 1) {
    const other = i % 100 === 0 ? await openDatabase(path.join(folder, `import-${i}.sqlite`)) : null;
    if (!other) continue;
    for (let k = 0; k < Math.min(100, FILES - i); k += 1) {
      const start = performance.now();
      const taken = await importJob(other, text.value, new Date().toISOString());
      times.push(performance.now() - start);
      if (k === 0 && !taken.ok) throw new Error(taken.why.message);
      await other('journal').delete();
      await other('runs').delete();
      await other('jobs').delete();
    }
    await other.destroy();
  }
  table('ms', { [`import of a job file (${FILES} of them)`]: quantiles(times) });
  await db.destroy();
  rmSync(folder, { recursive: true, force: true });
}

void main();
