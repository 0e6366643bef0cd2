// Bundles what runs off the server's main thread: one plain file each, which works however the server was built.
import { build } from 'esbuild';

await build({
  entryPoints: ['src/workers/trace-worker.ts'],
  outdir: '.workers',
  outExtension: { '.js': '.cjs' },
  bundle: true,
  platform: 'node',
  target: 'node20',
  format: 'cjs',
  logLevel: 'warning',
});
