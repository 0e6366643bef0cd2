// Bundles what runs off the server's main thread: one plain file each, which works however the server was built.
import { pathToFileURL } from 'node:url';
import { build } from 'esbuild';

export default function buildWorkers() {
  return build({
    entryPoints: ['src/workers/trace-worker.ts', 'src/workers/diagnosis-thread.ts'],
    outdir: '.workers',
    outExtension: { '.js': '.cjs' },
    bundle: true,
    platform: 'node',
    target: 'node20',
    format: 'cjs',
    logLevel: 'warning',
  });
}

if (import.meta.url === pathToFileURL(process.argv[1]).href) await buildWorkers();
