import { keepHead } from '../src/server/head-file';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import Database from 'better-sqlite3';
import type { RunEvent } from '../src/core/contract/events';
import { FAMILIES } from '../src/core/families/registry';
import { seeded } from '../src/core/numeric/chance';
import { rehearse } from '../src/core/procedure/rehearse';
import { openDatabase } from '../src/server/database';
import { seedDemo } from '../src/server/demo/seed';
import { nextJobs } from '../src/server/job-list';
import { appendEvent, startRun } from '../src/server/runs';
import { quantiles, table } from './figures';

/** Capture to durable, beside a raw insert with the same durability, the two alternated. */
/** So many events are sent together. */
const AT_ONCE = 80;
const MORNING_MS = 6 * 3600_000;
const ROUNDS = 120;

async function main() {
  const folder = mkdtempSync(path.join(tmpdir(), 'hard-pedal-bench-'));
  const db = await openDatabase(path.join(folder, 'app.sqlite'));
  await seedDemo(db, new Date());
  const raw = new Database(path.join(folder, 'raw.sqlite'));
  raw.pragma('journal_mode = WAL');
  raw.pragma('synchronous = FULL');
  raw.exec(
    'create table e (run text, seq integer, id text unique, at text, body text, primary key (run, seq))',
  );
  const insert = raw.prepare('insert into e values (?, ?, ?, ?, ?)');
  const job = (await nextJobs(db, 100)).find(({ body }) => body.kind === 'remote-vacuum');
  const started = await startRun(db, job!.id, new Date().toISOString());
  if (!started.ok) throw new Error(started.why.message);
  // All that comes before the reading: nothing is taken in out of order.
  const family = FAMILIES[started.value.kind];
  const truth = {
    parameters: family.healthy(started.value.context.profile).values,
    supply_Pa: 67_728,
    gauges: {},
    signs: {},
    noise_steps: 0.3,
  };
  const until = 'hold.input';
  const now = new Date().toISOString();
  // As if it had been begun this morning: an event ahead of the clock is refused.
  const options = { random: seeded(1), startAt: new Date(Date.now() - MORNING_MS).toISOString(), until };
  const before = rehearse(family, started.value.context, truth, options);
  for (let sent = 0; sent < before.length; sent += AT_ONCE) {
    const events = before.slice(sent, sent + AT_ONCE);
    const ready = await appendEvent(db, started.value.id, { expectedVersion: sent, events }, now);
    if (!ready.ok) throw new Error(ready.why.message);
  }
  const capture_ms: number[] = [];
  const raw_ms: number[] = [];
  for (let i = 0; i < ROUNDS; i++) {
    const event: RunEvent = {
      id: crypto.randomUUID(),
      at: new Date().toISOString(),
      type: 'captured',
      item: until,
      value_SI: 22e5,
      by: 'typed',
      typed: '22',
      instrument: 'G-12',
      confirmedUnlikely: false,
    };
    let from = performance.now();
    insert.run(started.value.id, i, event.id, event.at, JSON.stringify(event));
    raw_ms.push(performance.now() - from);
    from = performance.now();
    const answer = await appendEvent(
      db,
      started.value.id,
      { expectedVersion: before.length + i, events: [event] },
      event.at,
    );
    // As every answer does before it is given.
    await keepHead(db);
    capture_ms.push(performance.now() - from);
    if (!answer.ok) throw new Error(answer.why.message);
  }
  console.log(`A run of ${before.length} events, and ${ROUNDS} more.`);
  table('ms', {
    'capture, checked and on disk': quantiles(capture_ms),
    'raw insert, WAL and synchronous=FULL': quantiles(raw_ms),
  });
  await db.destroy();
  raw.close();
  rmSync(folder, { recursive: true, force: true });
}

void main();
