// Bundles what runs off the server's main thread: one plain file each, which works however the server was built.
import { existsSync, mkdirSync, readFileSync, renameSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { pathToFileURL } from 'node:url';
import { build } from 'esbuild';

/** Writes what differs from what is there already: a server that runs may be about to read it. */
export default async function buildWorkers() {
  const { outputFiles } = await build({
    entryPoints: [
      'trace-worker',
      'diagnosis-thread',
      'debrief-thread',
      'comparison-thread',
      'job-file-thread',
      'plan-thread',
    ].map((name) => `src/workers/${name}.ts`),
    outdir: '.workers',
    outExtension: { '.js': '.cjs' },
    bundle: true,
    platform: 'node',
    target: 'node20',
    format: 'cjs',
    logLevel: 'warning',
    write: false,
  });
  for (const { path: file, contents } of outputFiles) {
    if (existsSync(file) && readFileSync(file).equals(contents)) continue;
    mkdirSync(path.dirname(file), { recursive: true });
    // At once: nobody reads half a file, nor writes what another one is writing.
    const whole = `${file}.${process.pid}`;
    writeFileSync(whole, contents);
    renameSync(whole, file);
  }
}

if (import.meta.url === pathToFileURL(process.argv[1]).href) await buildWorkers();
