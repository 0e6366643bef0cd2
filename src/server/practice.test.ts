/** @jest-environment node */
import { connect, createServer } from 'node:net';
import { once } from 'node:events';
import type { Knex } from 'knex';
import { FAMILIES, SIMULATED, type FamilyKind } from '@/core/families/registry';
import { PRACTICE_LOGGER, PRACTICE_PORT } from '@/core/shop/live';
import { TYPICAL_BENCH } from '@/devices/logger/typical-bench';
import { openDatabase } from './database';
import { instruments } from './demo/shelf';
import { hangUp, link } from './live';
import { recordStep } from './live-recording';
import { startPractice } from './practice';
import { practiceBench } from './practice-bench';
import { addInstrument, listInstruments, listProfiles, readSettings, writeSettings } from './shelf';
import { addJob } from './jobs';
import { startRun } from './runs';

const AT = '2026-11-28T09:00:00.000Z';
let db: Knex;
beforeAll(async () => {
  db = await openDatabase(':memory:');
});
afterAll(async () => {
  hangUp();
  await (await (await practiceBench()).bench).stop();
  await db.destroy();
});

const begun = async (kind: FamilyKind) => {
  const outcome = await startPractice(db, { kind }, AT);
  if (!outcome.ok) throw new Error(outcome.why.message);
  return outcome.value;
};
/** What the bench answers to its hands. */
async function handsAre(hands: Record<string, unknown>): Promise<unknown> {
  const socket = connect((await practiceBench()).port + 1, '127.0.0.1');
  socket.setEncoding('utf8');
  socket.write(`${JSON.stringify({ hands })}\n`);
  const [line] = (await once(socket, 'data')) as [string];
  socket.destroy();
  return JSON.parse(line);
}

test.each(SIMULATED)(
  '%s can be practised on with nothing set up, and leaves no gauge on the Shelf',
  async (kind) => {
    const run = await begun(kind);
    expect(run.kind).toBe(kind);
    const bare = FAMILIES[kind].ports.filter(({ id, optional }) => !optional && !run.context.rig[id]?.length);
    expect(bare).toEqual([]);
    for (const gauge of Object.values(run.context.rig).flat())
      expect(gauge).toMatchObject({ name: 'Simulated, for practice', fluid: null, calibrationDue: null });
    expect(await listInstruments(db)).toEqual([]);
  },
);

// What is left out on the shelf is read by eye: a ruler along the rod, a feeler in the gap.
const onShelf = TYPICAL_BENCH.gauges.filter(({ tag, port }) => tag !== port);
test.each(onShelf.map((gauge) => [gauge.tag, gauge] as const))(
  'gauge %s of the simulated bench is the one of the shelf, and no coarser',
  (tag, { port, quantity, fullScale_Pa, step_Pa }) => {
    const gauge = instruments.find((one) => one.tag === tag)!;
    expect({ port: gauge.usualPort, quantity: gauge.quantity }).toEqual({ port, quantity });
    expect(gauge.fullScale_Pa).toBeCloseTo(fullScale_Pa, 9);
    // Its wire carries at least as much as the eye reads, and not a hundred times as much.
    expect(step_Pa / gauge.step_Pa).toBeLessThanOrEqual(1 + 1e-9);
    expect(step_Pa / gauge.step_Pa).toBeGreaterThan(0.01);
  },
);

test('what was begun is gone on with, each kind with its own, and that is what lies on the bench', async () => {
  const valve = await begun('pedal-valve');
  const servo = await begun('rod-servo');
  expect(servo.id).not.toBe(valve.id);
  expect(await handsAre({ treadle_m: 0.005 })).toMatchObject({ ok: false });
  expect((await begun('pedal-valve')).id).toBe(valve.id);
  expect(await handsAre({ treadle_m: 0.005 })).toMatchObject({ ok: true, hands: { treadle_m: 0.005 } });
  // What the bench recorded for the one is over once the other lies there.
  await recordStep(db, valve.id, { step: 'cautions' }, AT);
  expect((await link(db))!.status.owner).toMatchObject({ run: valve.id });
  await begun('rod-servo');
  expect((await link(db))!.status.owner).toBeNull();
  await begun('pedal-valve');
  await handsAre({ treadle_m: 0.005 });
  // Asked for once more it stays as it lies there.
  await begun('pedal-valve');
  expect(await handsAre({})).toMatchObject({ ok: true, hands: { treadle_m: 0.005 } });
});

test('a test with the shop’s own gauges is not read by the bench that practice brought along, whatever their tags', async () => {
  const practised = await begun('rod-servo');
  for (const gauge of instruments) if (!(await addInstrument(db, gauge, AT)).ok) throw new Error(gauge.tag);
  const [profile] = (await listProfiles(db)).filter(({ kind }) => kind === 'rod-servo');
  const job = await addJob(
    db,
    {
      tag: 'GF-9',
      kind: 'rod-servo',
      profileId: profile!.id,
      from: 'Next door',
      complaint: 'Hard pedal.',
      fluid: 'unknown',
      promisedOn: null,
    },
    AT,
  );
  if (!job.ok) throw new Error(job.why.message);
  const real = await startRun(db, job.value.id, AT);
  if (!real.ok) throw new Error(real.why.message);
  const tags = Object.values(real.value.context.rig).flatMap((gauges) => gauges.map(({ tag }) => tag));
  expect(tags.filter((tag) => TYPICAL_BENCH.gauges.some((gauge) => gauge.tag === tag))).not.toEqual([]);
  const first = { step: 'cautions', take: true };
  expect(await recordStep(db, real.value.id, first, AT)).toEqual({ ok: true, value: { recording: false } });
  expect((await link(db))!.status.owner).toBeNull();
  expect(await recordStep(db, practised.id, first, AT)).toEqual({ ok: true, value: { recording: true } });
  await recordStep(db, practised.id, { step: null }, AT);
});

test('what is no kind is refused, and so is a bench with a logger of its own', async () => {
  expect(await startPractice(db, { kind: 'hand-cart' }, AT)).toMatchObject({ ok: false });
  const { version, body } = await readSettings(db);
  expect(body.logger).toBe(PRACTICE_LOGGER);
  await writeSettings(db, version, { ...body, logger: '10.0.0.9:5025' }, AT);
  const refused = await startPractice(db, {}, AT);
  expect(refused.ok ? '' : refused.why.message).toMatch(/The logger 10\.0\.0\.9:5025 does not answer/);
});

test('where another application has the usual port, the simulated bench listens on the next that is free', async () => {
  // Two benches of their own beside the one of this process: each has a pair of ports.
  const { port } = await practiceBench();
  const other = createServer().listen(port + 2, '127.0.0.1');
  await once(other, 'listening').catch(() => undefined);
  const kept = (globalThis as { hardPedalPractice?: unknown }).hardPedalPractice;
  (globalThis as { hardPedalPractice?: unknown }).hardPedalPractice = undefined;
  const second = await practiceBench();
  expect(second.port).not.toBe(port);
  expect((second.port - PRACTICE_PORT) % 2).toBe(0);
  await (await second.bench).stop();
  (globalThis as { hardPedalPractice?: unknown }).hardPedalPractice = kept;
  other.close();
});
