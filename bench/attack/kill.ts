import { spawn } from 'node:child_process';
import { mkdtempSync, readdirSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import sharp from 'sharp';
import type { StoredJob, StoredRun } from '../../src/core/records/views';
import type { Verification } from '../../src/core/records/verification';
import { App } from '../../e2e/app';

/**
 * kill −9, again and again, at random moments: of the server while readings are captured, photos uploaded, jobs signed, job files and logs
 * imported and backups taken; of a restore; of the first opening of an empty folder. After each: everything that was acknowledged is
 * there, nothing is half done.
 *
 * npx tsx --tsconfig tsconfig.json bench/attack/kill.ts [OF THE SERVER] [OF A RESTORE] [OF A FIRST OPENING]
 */
const [KILLS = 100, RESTORES = 60, OPENINGS = 40] = process.argv.slice(2).map(Number);

interface Acknowledged {
  readonly job: string;
  readonly entry: string;
}

/** Job files of another shop, each of a job of its own. */
async function jobFiles(count: number): Promise<{ job: string; text: string }[]> {
  const shop = await App.start({ demo: true });
  const call = (path: string, body?: string) =>
    fetch(`${shop.url}/api/v1${path}`, {
      method: body ? 'POST' : 'GET',
      body,
      headers: { 'content-type': 'application/json' },
    });
  const { jobs } = (await (await call('/jobs?q=GF-0425')).json()) as { jobs: StoredJob[] };
  const files: { job: string; text: string }[] = [];
  for (let i = 0; i < count; i += 1) {
    const body = JSON.stringify({ ...jobs[0]!.body, tag: `S-${i}` });
    const { id } = (await (await call('/jobs', body)).json()) as StoredJob;
    await call(`/jobs/${id}/runs`, '{}');
    files.push({ job: id, text: await (await call(`/jobs/${id}/file`)).text() });
  }
  await shop.end();
  return files;
}

async function main() {
  const app = await App.start({ demo: true });
  const get = async <T>(path: string) => (await fetch(`${app.url}/api/v1${path}`)).json() as Promise<T>;
  const post = (path: string, body: BodyInit, type = 'application/json') =>
    fetch(`${app.url}/api/v1${path}`, { method: 'POST', body, headers: { 'content-type': type } });
  const jobs = (await get<{ jobs: StoredJob[] }>('/jobs')).jobs;
  const model = jobs.find(({ body }) => body.tag === 'GF-0425')!;
  const files = await jobFiles(3 * KILLS);
  const [technician] = await get<{ id: string }[]>('/technicians');
  const photo = await sharp({ create: { width: 1200, height: 900, channels: 3, background: '#345' } })
    .jpeg()
    .toBuffer();
  const kept: Acknowledged[] = [];
  const imported: string[] = [];
  const counts = { captures: 0, notes: 0, photos: 0, signatures: 0, imports: 0, traces: 0, backups: 0 };
  const traced: string[] = [];

  /** Works as fast as it can until the server is gone. */
  async function work(job: string, run: StoredRun | null) {
    let version = run?.events.length ?? 0;
    for (;;) {
      const id = crypto.randomUUID();
      const at = new Date().toISOString();
      if (run) {
        const event = { id, at, type: 'acknowledged', step: 'cautions' };
        const answer = await post(
          `/runs/${run.id}/events`,
          JSON.stringify({ expectedVersion: version, events: [event] }),
        );
        if (!answer.ok) return;
        version += 1;
        counts.captures += 1;
        kept.push({ job, entry: id });
      } else {
        const finding = { kind: 'other', point: null, words: 'x'.repeat(500), fault: null };
        const said = await post(
          `/jobs/${job}/entries`,
          JSON.stringify({ id, entry: { type: 'finding', finding } }),
        );
        if (!said.ok) return;
        counts.notes += 1;
        kept.push({ job, entry: id });
        const picture = crypto.randomUUID();
        const sent = await post(
          `/jobs/${job}/photos?id=${picture}&caption=c`,
          new Uint8Array(photo),
          'image/jpeg',
        );
        if (!sent.ok) return;
        counts.photos += 1;
        kept.push({ job, entry: picture });
        const signing = crypto.randomUUID();
        const body = JSON.stringify({ id: signing, technician: technician!.id, pin: '246810' });
        if (!(await post(`/jobs/${job}/signatures`, body)).ok) return;
        counts.signatures += 1;
        kept.push({ job, entry: signing });
        const again = crypto.randomUUID();
        const reopened = JSON.stringify({ id: again, entry: { type: 'reopened', reason: 'r' } });
        if (!(await post(`/jobs/${job}/entries`, reopened)).ok) return;
        kept.push({ job, entry: again });
      }
    }
  }
  async function imports() {
    for (let file = files.pop(); file; file = files.pop()) {
      if (!(await post('/job-files', file.text)).ok) continue;
      counts.imports += 1;
      imported.push(file.job);
    }
  }
  async function logs() {
    for (;;) {
      const log = await post('/traces/import?name=k', LOG, 'text/csv');
      if (!log.ok) continue;
      counts.traces += 1;
      traced.push(((await log.json()) as { id: string }).id);
    }
  }
  async function backups() {
    for (;;) {
      await (await fetch(`${app.url}/api/v1/backup`)).arrayBuffer();
      counts.backups += 1;
    }
  }

  let lost = 0;
  let altered = 0;
  for (let i = 1; i <= KILLS; i += 1) {
    const take = async (tag: string) =>
      ((await (await post('/jobs', JSON.stringify({ ...model.body, tag }))).json()) as StoredJob).id;
    const tested = await take(`K-${i}-run`);
    const noted = await take(`K-${i}-notes`);
    const run = (await (await post(`/jobs/${tested}/runs`, '{}')).json()) as StoredRun;
    const from = kept.length;
    const fromImports = imported.length;
    const fromTraces = traced.length;
    const ended = [work(tested, run), work(noted, null), imports(), logs(), backups()].map((one) =>
      one.catch(() => undefined),
    );
    await new Promise((soon) => setTimeout(soon, 30 + Math.random() * 2500));
    await app.kill();
    await Promise.all(ended);
    await app.up();
    const there = new Set<string>();
    for (const job of [tested, noted]) {
      const text = await (await fetch(`${app.url}/api/v1/jobs/${job}/file`)).text();
      const { entries } = JSON.parse(text) as { entries: { id: string }[] };
      for (const { id } of entries) there.add(id);
    }
    for (const job of imported.slice(fromImports))
      if (!(await fetch(`${app.url}/api/v1/jobs/${job}`)).ok) lost += 1;
    for (const trace of traced.slice(fromTraces))
      if (!(await fetch(`${app.url}/api/v1/traces/${trace}/overview`)).ok) lost += 1;
    lost += kept.slice(from).filter(({ entry }) => !there.has(entry)).length;
    if (i % 10 === 0 || i === KILLS) {
      const found = (await (await post('/verify', '{}')).json()) as Verification;
      altered += found.alterations.length;
      console.log(`${i} kills: ${kept.length} acknowledged, ${lost} lost, ${altered} places not as written`);
    }
  }
  const restored = await restores(app);
  const opened = await openings();
  const halfDone = restored.halfDone + opened.halfDone;
  console.log(
    JSON.stringify({
      ...{ kills: KILLS + RESTORES + OPENINGS, acknowledged: kept.length, lost, altered, halfDone },
      ...{ ...counts, restores: restored.told, openings: opened.told },
    }),
  );
  await app.end();
  process.exitCode = lost + altered + halfDone > 0 ? 1 : 0;
}

/** A minute of a pull, ten readings a second. */
const LOG = [
  't;In;Out',
  's;bar;bar',
  ...Array.from({ length: 600 }, (_, i) => [i / 10, i / 20, Math.min(i / 6, 80)].join(';')),
].join('\n');

const pause = (ms: number) => new Promise((soon) => setTimeout(soon, ms));

/** Runs a program until it ends or is killed after so long. @returns whether it ended by itself */
function killed(
  args: readonly string[],
  env: Readonly<Record<string, string>>,
  after_ms: number,
): Promise<boolean> {
  return new Promise((resolve) => {
    const child = spawn(process.execPath, ['--import', 'tsx', ...args], {
      env: { ...process.env, ...env },
      stdio: 'ignore',
    });
    const timer = setTimeout(() => child.kill('SIGKILL'), after_ms);
    child.once('exit', (_code, signal) => {
      clearTimeout(timer);
      resolve(signal === null);
    });
  });
}

interface Told {
  halfDone: number;
  readonly told: Record<string, number>;
}

/** A restore of a copy that has one job fewer, killed on its way: afterwards there is the one shop whole, or the other. */
async function restores(app: App): Promise<Told> {
  const copies = mkdtempSync(path.join(tmpdir(), 'hard-pedal-kill-'));
  const totalOf = async () =>
    ((await (await fetch(`${app.url}/api/v1/jobs?show=all`)).json()) as { total: number }).total;
  const save = async (name: string) => {
    const file = path.join(copies, name);
    writeFileSync(file, Buffer.from(await (await fetch(`${app.url}/api/v1/backup`)).arrayBuffer()));
    return { file, total: await totalOf() };
  };
  const fewer = await save('fewer.sqlite');
  const { jobs } = (await (await fetch(`${app.url}/api/v1/jobs?q=GF-0425`)).json()) as { jobs: StoredJob[] };
  await fetch(`${app.url}/api/v1/jobs`, {
    method: 'POST',
    body: JSON.stringify({ ...jobs[0]!.body, tag: 'ONE-MORE' }),
    headers: { 'content-type': 'application/json' },
  });
  const more = await save('more.sqlite');
  const told = { before: 0, after: 0, 'ended by itself': 0 };
  let halfDone = 0;
  let now = more;
  for (let i = 0; i < RESTORES; i += 1) {
    const next = now === more ? fewer : more;
    await app.kill();
    const ended = await killed(
      ['src/server/cli/restore.ts', next.file],
      { HARD_PEDAL_DATA: app.data },
      300 + Math.random() * 2200,
    );
    await app.up();
    const total = await totalOf();
    const found = (await (
      await fetch(`${app.url}/api/v1/verify`, { method: 'POST', body: '{}' })
    ).json()) as Verification;
    const left = readdirSync(app.data).filter((name) => /restoring|[.]part$|restore[.]json/.test(name));
    const whole =
      [now.total, next.total].includes(total) && found.alterations.length === 0 && left.length === 0;
    if (!whole || (ended && total !== next.total)) {
      halfDone += 1;
      console.log(
        `HALF DONE: ${total} jobs, ${JSON.stringify(found.alterations.slice(0, 2))}, ${left.join()}`,
      );
    }
    if (ended) told['ended by itself'] += 1;
    else told[total === next.total ? 'after' : 'before'] += 1;
    if (total === next.total) now = next;
  }
  rmSync(copies, { recursive: true });
  return { halfDone, told };
}

/** The first opening of an empty folder, killed on its way: the next one makes a shop of it. */
async function openings(): Promise<Told> {
  const told = { 'nothing yet': 0, 'a file': 0, 'ended by itself': 0 };
  let halfDone = 0;
  for (let i = 0; i < OPENINGS; i += 1) {
    const folder = mkdtempSync(path.join(tmpdir(), 'hard-pedal-open-'));
    const env = { HARD_PEDAL_DATA: folder };
    const seed = 'src/server/demo/cli/seed.ts';
    const ended = await killed([seed], env, 400 + Math.random() * 1600);
    told[ended ? 'ended by itself' : readdirSync(folder).length === 0 ? 'nothing yet' : 'a file'] += 1;
    const app = await App.over(folder);
    const health = await fetch(`${app.url}/api/v1/health?whole`);
    const found = (await (
      await fetch(`${app.url}/api/v1/verify`, { method: 'POST', body: '{}' })
    ).json()) as Verification;
    if (!health.ok || found.alterations.length > 0) {
      halfDone += 1;
      console.log(`HALF DONE: ${await health.text()} ${JSON.stringify(found.alterations?.slice(0, 2))}`);
    }
    await app.end();
    await pause(50);
  }
  return { halfDone, told };
}

void main();
