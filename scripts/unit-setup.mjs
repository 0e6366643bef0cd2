// Before the unit tests: what the server runs off its main thread is bundled, and there is room for their demo world.
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import buildWorkers from './build-workers.mjs';

export default async function setUp() {
  await buildWorkers();
  const folder = mkdtempSync(path.join(tmpdir(), 'hard-pedal-fixture-'));
  process.env.HARD_PEDAL_FIXTURE = folder;
  process.on('exit', () => rmSync(folder, { recursive: true, force: true }));
}
