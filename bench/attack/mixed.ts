import sharp from 'sharp';
import { median } from '../../src/core/signals/noise';
import type { StoredJob, StoredRun } from '../../src/core/records/views';
import { Target } from './server';

/**
 * Minutes of mixed use by four people at once: units taken in, tested, noted, photographed, reported and sent out, logs read, lists and
 * pages looked at. Memory must stay flat.
 *
 * npx tsx --tsconfig tsconfig.json bench/attack/mixed.ts [MINUTES]
 */
const MINUTES = Number(process.argv[2] ?? 10);
const EVERY_MS = 5000;

async function main() {
  const target = await Target.start();
  const end = Date.now() + MINUTES * 60_000;
  const answered: Record<string, number> = {};
  const failed: string[] = [];
  const ask = async (
    what: string,
    method: string,
    where: string,
    body?: BodyInit,
    type = 'application/json',
  ) => {
    const response = await fetch(target.at(where), { method, body, headers: { 'content-type': type } });
    const bytes = Buffer.from(await response.arrayBuffer());
    answered[what] = (answered[what] ?? 0) + 1;
    if (response.status >= 500 && response.status !== 503) failed.push(`${what}: ${response.status}`);
    return {
      ok: response.ok,
      json: <T>() => JSON.parse(bytes.toString('utf8')) as T,
      text: () => bytes.toString('utf8'),
    };
  };
  const { jobs } = (await ask('lists', 'GET', '/api/v1/jobs?q=GF-04')).json<{ jobs: StoredJob[] }>();
  const model = jobs.find(({ body }) => body.tag === 'GF-0425')!;
  const tested = jobs.filter(({ runs }) => runs.length > 0);
  const photo = new Uint8Array(
    await sharp({ create: { width: 2400, height: 1600, channels: 3, background: '#345' } })
      .jpeg()
      .toBuffer(),
  );
  const log = `t;In;Out\ns;bar;bar\n${Array.from({ length: 6000 }, (_, i) => `${i / 10};${i / 200};${Math.min(i / 60, 80)}`).join('\n')}`;

  async function worker(name: string) {
    for (let i = 0; Date.now() < end; i += 1) {
      const tag = `${name}-${i}`;
      const job = (
        await ask('taken in', 'POST', '/api/v1/jobs', JSON.stringify({ ...model.body, tag }))
      ).json<StoredJob>();
      const run = (await ask('tests begun', 'POST', `/api/v1/jobs/${job.id}/runs`, '{}')).json<StoredRun>();
      for (let version = 0; version < 8; version += 1) {
        const event = {
          id: crypto.randomUUID(),
          at: new Date().toISOString(),
          type: 'acknowledged',
          step: 'cautions',
        };
        await ask(
          'entries',
          'POST',
          `/api/v1/runs/${run.id}/events`,
          JSON.stringify({ expectedVersion: version, events: [event] }),
        );
      }
      await ask(
        'photos',
        'POST',
        `/api/v1/jobs/${job.id}/photos?id=${crypto.randomUUID()}`,
        photo,
        'image/jpeg',
      );
      for (const page of ['/', '/jobs', `/jobs/${job.id}`, `/runs/${run.id}`, '/shelf', '/traces'])
        await ask('pages', 'GET', page);
      const other = tested[i % tested.length]!.runs[0]!.id;
      await ask('reports', 'GET', `/api/v1/runs/${other}/report.pdf`);
      await ask('pages', 'GET', `/runs/${other}/report`);
      await ask('logs', 'POST', '/api/v1/traces/import?name=mixed', log, 'text/csv');
      const file = (await ask('files out', 'GET', `/api/v1/jobs/${job.id}/file`)).text();
      await ask('files in, refused', 'POST', '/api/v1/job-files', file);
      if (i % 10 === 9) await ask('backups', 'GET', '/api/v1/backup');
    }
  }
  const memory: (readonly [minutes: number, MB: number])[] = [];
  const began = Date.now();
  const timer = setInterval(() => memory.push([(Date.now() - began) / 60_000, target.memory_MB()]), EVERY_MS);
  await Promise.all(['A', 'B', 'C', 'D'].map(worker));
  clearInterval(timer);
  const within = (from: number, to: number) =>
    median(memory.filter(([at]) => at >= from * MINUTES && at < to * MINUTES).map(([, MB]) => MB));
  console.log(
    JSON.stringify({
      minutes: MINUTES,
      answered,
      failed: failed.length,
      MB_byFifth: [0, 0.2, 0.4, 0.6, 0.8].map((from) => within(from, from + 0.2)),
      atMost_MB: target.memory_MB('VmHWM'),
    }),
  );
  for (const what of failed.slice(0, 5)) console.log(what);
  await target.end();
}

void main();
