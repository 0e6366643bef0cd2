import sharp from 'sharp';
import type { StoredJob, StoredRun } from '../src/core/records/views';
import type { Verification } from '../src/core/records/verification';
import { App } from '../e2e/app';

/**
 * kill −9 of the server, again and again, at random moments while readings are captured, photos uploaded, jobs signed,
 * job files imported and backups taken. After each: everything that was acknowledged is there, nothing is half done.
 */
const KILLS = Number(process.argv[2] ?? 100);

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
  const counts = { captures: 0, notes: 0, photos: 0, signatures: 0, imports: 0, backups: 0 };

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
  async function others() {
    for (;;) {
      const file = files.pop();
      if (file && (await post('/job-files', file.text)).ok) {
        counts.imports += 1;
        imported.push(file.job);
      }
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
    const ended = [work(tested, run), work(noted, null), others()].map((one) => one.catch(() => undefined));
    await new Promise((soon) => setTimeout(soon, 30 + Math.random() * 600));
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
    lost += kept.slice(from).filter(({ entry }) => !there.has(entry)).length;
    if (i % 10 === 0 || i === KILLS) {
      const found = (await (await post('/verify', '{}')).json()) as Verification;
      altered += found.alterations.length;
      console.log(`${i} kills: ${kept.length} acknowledged, ${lost} lost, ${altered} places not as written`);
    }
  }
  console.log(JSON.stringify({ kills: KILLS, acknowledged: kept.length, lost, altered, ...counts }));
  await app.end();
  process.exitCode = lost + altered > 0 ? 1 : 0;
}

void main();
