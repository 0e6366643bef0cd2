import { spawn, spawnSync } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { gzipSync } from 'node:zlib';
import type { StoredJob } from '../src/core/records/views';

/** First-load script per place, gzip, beside a page with only the UI kit. Needs a fresh `npm run build`. */
const env = { ...process.env, NEXT_TELEMETRY_DISABLED: '1' };
/** Built afresh in its own folder each time. */
const KIT_ONLY = 'bench/kit-only';
const NEXT = path.resolve('node_modules/next/dist/bin/next');

async function serve<T>(
  folder: string,
  port: number,
  data: string,
  work: (url: string) => Promise<T>,
): Promise<T> {
  const server = spawn(process.execPath, [NEXT, 'start', '-H', '127.0.0.1', '-p', String(port)], {
    cwd: folder,
    env: { ...env, HARD_PEDAL_DATA: data },
    stdio: 'ignore',
  });
  const url = `http://127.0.0.1:${port}`;
  try {
    for (let i = 0; i < 100; i++) {
      if (
        await fetch(url).then(
          () => true,
          () => false,
        )
      )
        break;
      await new Promise((resolve) => setTimeout(resolve, 100));
    }
    return await work(url);
  } finally {
    server.kill();
  }
}

async function weigh(url: string, where: string): Promise<number> {
  const html = await (await fetch(url + where)).text();
  const scripts = new Set([...html.matchAll(/<script[^>]+src="([^"]+)"/g)].map((match) => match[1]!));
  let bytes = 0;
  for (const script of scripts)
    bytes += gzipSync(Buffer.from(await (await fetch(url + script)).arrayBuffer())).length;
  return bytes / 1024;
}

async function main() {
  const data = mkdtempSync(path.join(tmpdir(), 'hard-pedal-bench-'));
  spawnSync('npx', ['tsx', 'src/server/demo/cli/seed.ts'], { env: { ...env, HARD_PEDAL_DATA: data } });
  for (const made of ['.next', 'tsconfig.json', 'next-env.d.ts'])
    rmSync(`${KIT_ONLY}/${made}`, { recursive: true, force: true });
  const built = spawnSync(process.execPath, [NEXT, 'build'], { cwd: KIT_ONLY, env, encoding: 'utf8' });
  if (built.status !== 0) throw new Error(built.stdout + built.stderr);
  const floor = await serve(KIT_ONLY, 3391, data, (url) => weigh(url, '/'));
  console.log(`UI kit only: ${floor.toFixed(0)} kB`);
  await serve('.', 3392, data, async (url) => {
    const jobs = ((await (await fetch(`${url}/api/v1/jobs`)).json()) as { jobs: StoredJob[] }).jobs;
    const half = jobs.find(({ runs }) => runs[0] && !runs[0].finishedAt)!;
    const whole = jobs.find(({ runs }) => runs[0]?.finishedAt)!;
    const places = {
      Bench: '/',
      Jobs: '/jobs',
      'Job sheet': `/jobs/${whole.id}`,
      Intake: '/jobs/new',
      Run: `/runs/${half.runs[0]!.id}`,
      Report: `/runs/${whole.runs[0]!.id}/report`,
      Shelf: '/shelf',
      Traces: '/traces',
      'Read a log': '/traces/new',
      Settings: '/shelf/settings',
    };
    for (const [name, where] of Object.entries(places)) {
      const weight = await weigh(url, where);
      console.log(
        `${name.padEnd(12)} ${weight.toFixed(0)} kB, ${(weight - floor).toFixed(0)} kB beyond the kit`,
      );
    }
  });
  rmSync(data, { recursive: true, force: true });
}

void main();
