import { connect } from 'node:net';
import type { Knex } from 'knex';
import { z } from 'zod';
import { FAMILIES } from '@/core/families/registry';
import { tapedAt } from '@/core/procedure/tape';
import { findUnit, toSI } from '@/core/quantities/units';
import {
  handsSchema,
  simUnitSchema,
  type BenchOwner,
  type LiveMessage,
  type LiveMoment,
  type LiveStatus,
  type LoggerStatus,
} from '@/core/records/live';
import { Settling } from '@/core/signals/settle';
import type { StoredRun } from '@/core/records/views';
import { LoggerClient, type LoggerSample } from '@/devices/logger/client';
import { Lines } from '@/devices/logger/protocol';
import { findJob } from './jobs';
import { done, invalid, refused, type Outcome } from './outcome';
import { PRACTICE_LOGGER, practiceBench } from './practice';
import { dropRecording, keptRecordings, piecesOf, Recording, traceOf, type Kept } from './recordings';
import { findRun } from './runs';
import { readSettings } from './shelf';
import { missing } from './store';
import { workOut } from './trace-job';
import { aboutFor, keepTrace } from './traces';

const RATE_HZ = 100;
/** Moments sent to a screen in a second. */
const MOMENTS_HZ = 25;
/** A pointer that stood still for so long has settled. */
const SETTLE_S = 1.2;
/** What was recorded is on the disk at most so much later, ms. */
const FLUSH_MS = 500;
const LEAST_SAMPLES = 200;
const OFF: LiveStatus = {
  state: 'off',
  name: null,
  simulated: false,
  trouble: null,
  channels: [],
  owner: null,
};

/** The one line to the bench logger: kept while the application runs, whoever looks. */
class Link {
  status: LiveStatus = OFF;
  moment: LiveMoment | null = null;
  recording: Recording | null = null;
  private readonly client: LoggerClient;
  private settling: Settling[] = [];
  private readonly watchers = new Set<(message: LiveMessage) => void>();
  private lastMoment_ms = 0;
  private readonly flushing = setInterval(() => this.bringToDisk(), FLUSH_MS);
  private turn: Promise<unknown> = Promise.resolve();

  constructor(readonly address: string) {
    const [host = '127.0.0.1', port = ''] = address.split(':');
    this.client = new LoggerClient({ host, port: Number(port) }, RATE_HZ, {
      status: (status) => this.onStatus(status),
      sample: (sample) => this.onSample(sample),
    });
    this.client.start();
  }

  stop(): void {
    clearInterval(this.flushing);
    this.client.stop();
    this.watchers.clear();
  }

  private bringToDisk(): void {
    this.recording?.flush().catch(() => {
      const trouble = 'What the logger sends cannot be written to the disk: is it full?';
      this.status = { ...this.status, trouble };
      this.tell({ type: 'status', status: this.status });
    });
  }

  /** Does what changes the recording one after the other, however many screens ask at once. */
  inTurn<T>(work: () => Promise<T>): Promise<T> {
    const done = this.turn.then(work);
    this.turn = done.catch(() => undefined);
    return done;
  }

  watch(tell: (message: LiveMessage) => void): () => void {
    this.watchers.add(tell);
    tell({ type: 'status', status: this.status });
    return () => this.watchers.delete(tell);
  }

  private tell(message: LiveMessage): void {
    for (const watcher of this.watchers) watcher(message);
  }

  private onStatus({ state, name, channels, trouble }: LoggerStatus): void {
    if (state !== 'streaming') this.settling = [];
    else if (this.settling.length !== channels.length)
      this.settling = channels.map(({ low, high, unit }) => {
        const known = findUnit(unit);
        const span = known ? toSI(high, known) - toSI(low, known) : high - low;
        return new Settling({ over_s: SETTLE_S, step: span / 1000 });
      });
    const { owner } = this.status;
    this.status = { state, name, simulated: /stand-in/i.test(name ?? ''), trouble, channels, owner };
    this.tell({ type: 'status', status: this.status });
  }

  /** Gives the bench to a run, or to none; every screen is told. */
  give(owner: BenchOwner | null): void {
    if (this.status.owner?.run === owner?.run) return;
    this.status = { ...this.status, owner };
    this.tell({ type: 'status', status: this.status });
  }

  private onSample(sample: LoggerSample): void {
    this.settling.forEach((settling, i) => settling.add(sample.t_s, sample.values[i]!));
    this.recording?.add(sample, this.status.channels);
    const now = Date.now();
    if (now - this.lastMoment_ms < 1000 / MOMENTS_HZ) return;
    this.lastMoment_ms = now;
    const { channels } = this.status;
    const shown = Object.fromEntries(
      channels.flatMap(({ tag }, i) =>
        Number.isFinite(sample.values[i]!) ? [[tag, sample.values[i]!]] : [],
      ),
    );
    const settled = channels.flatMap(({ tag }, i) => (this.settling[i]?.settled() ? [tag] : []));
    this.moment = { t_s: sample.t_s, shown, settled };
    this.tell({ type: 'moment', moment: this.moment });
  }
}

const held = globalThis as typeof globalThis & { hardPedalLink?: Link };

/** The line to the logger that the settings name; null where they name none. */
export async function link(db: Knex): Promise<Link | null> {
  const address = (await readSettings(db)).body.logger;
  if (held.hardPedalLink && held.hardPedalLink.address !== address) hangUp();
  if (address === '') return null;
  if (address === PRACTICE_LOGGER) await practiceBench();
  if (!held.hardPedalLink) {
    const line = new Link(address);
    held.hardPedalLink = line;
    // What a server was recording as it was ended is filed now, under the run that it was of.
    // Where that fails it stays on the disk, and is filed the next time.
    line.inTurn(() => fileLeft(db, line)).catch(() => undefined);
  }
  return held.hardPedalLink;
}

async function fileLeft(db: Knex, line: Link): Promise<void> {
  for (const kept of await keptRecordings(db))
    if (kept.id !== line.recording?.id) await fileRecording(db, kept, new Date().toISOString());
}

/** Lets go of the logger: for an end of the application, and of a test. */
export function hangUp(): void {
  held.hardPedalLink?.stop();
  held.hardPedalLink = undefined;
}

/** Events for a screen: the status as it changes, and what the instruments show, many times a second. */
export async function liveStream(db: Knex, signal: AbortSignal): Promise<ReadableStream<Uint8Array>> {
  const line = await link(db);
  const encoder = new TextEncoder();
  let leave: (() => void) | undefined;
  return new ReadableStream({
    start(controller) {
      const send = (message: LiveMessage) => {
        // A screen that does not keep up is sent less, not ever more.
        if ((controller.desiredSize ?? 1) < -64 && message.type === 'moment') return;
        controller.enqueue(encoder.encode(`data: ${JSON.stringify(message)}\n\n`));
      };
      if (line) leave = line.watch(send);
      else send({ type: 'status', status: OFF });
      signal.addEventListener('abort', () => leave?.());
    },
    cancel: () => leave?.(),
  });
}

export const recordSchema = z.strictObject({
  step: z.string().min(1).max(80).nullable(),
  /** Takes the bench over from the run that has it. */
  take: z.boolean().optional(),
});

/**
 * Says which step of a run is being done: what the logger sends from now on is its trace. The trace of the step
 * before is kept with the run; a null step ends the last one, and lets the bench go. The bench belongs to one run: another
 * records nothing before it takes it over, and what was recorded until then stays with the run that had it.
 */
export async function recordStep(
  db: Knex,
  runId: string,
  input: unknown,
  now: string,
): Promise<Outcome<{ recording: boolean }>> {
  const parsed = recordSchema.safeParse(input);
  if (!parsed.success) return invalid(parsed.error.issues);
  const run = await findRun(db, runId);
  if (!run) return missing('run');
  const line = await link(db);
  if (!line) return done({ recording: false });
  return line.inTurn(() => recordNow(db, line, run, parsed.data, now));
}

async function recordNow(
  db: Knex,
  line: Link,
  run: StoredRun,
  { step, take }: z.infer<typeof recordSchema>,
  now: string,
): Promise<Outcome<{ recording: boolean }>> {
  const { owner } = line.status;
  const others = owner !== null && owner.run !== run.id && !(await findRun(db, owner.run))?.finishedAt;
  if (others && !take) return done({ recording: false });
  const before = line.recording;
  if (before?.runId === run.id && before.step === step) return done({ recording: true });
  line.recording = step === null ? null : await Recording.begin(db, run.id, step, now);
  const job = step === null ? null : await findJob(db, run.jobId);
  line.give(job && { run: run.id, tag: job.body.tag });
  if (before) {
    await before.flush();
    await fileRecording(db, before, now);
  }
  return done({ recording: step !== null });
}

/** Files what was recorded as traces of its run, a piece each, and lets go of the recording once they are kept. */
async function fileRecording(db: Knex, recording: Kept, now: string): Promise<void> {
  const run = await findRun(db, recording.runId);
  const job = run && (await findJob(db, run.jobId));
  const pieces =
    run && job ? (await piecesOf(db, recording.id)).filter(({ count }) => count >= LEAST_SAMPLES) : [];
  if (!run || !job) return dropRecording(db, recording.id);
  const title = run.context.procedure.steps.find(({ id }) => id === recording.step)?.title ?? recording.step;
  for (const [i, piece] of pieces.entries()) {
    const origin = {
      name: `${job.body.tag}: ${title}${i === 0 ? '' : `, part ${i + 1}`}`,
      source: 'bench',
      profileId: job.body.profileId,
      jobId: job.id,
      runId: run.id,
      tape: tapedAt(run.context.procedure, run.events, recording.step),
    } as const;
    const trace = traceOf(piece, run.context.rig);
    if (trace.channels.length > 0)
      await keepTrace(db, origin, await workOut(trace, await aboutFor(db, origin)), now);
  }
  await dropRecording(db, recording.id);
}

const ANSWER_MS = 2000;
const NOT_SIMULATED = 'The bench is a real one: work it by hand.';

/** Works the simulated bench: handle, pump, valve, or what stands on it. */
export async function workBench(db: Knex, input: unknown): Promise<Outcome<unknown>> {
  const parsed = z
    .union([z.strictObject({ hands: handsSchema }), z.strictObject({ unit: simUnitSchema })])
    .safeParse(input);
  if (!parsed.success) return invalid(parsed.error.issues);
  const line = await link(db);
  if (!line?.status.simulated) return refused({ code: 'refused', message: NOT_SIMULATED });
  const [host = '', port = ''] = line.address.split(':');
  const message = 'hands' in parsed.data ? parsed.data : { unit: await unitFor(db, parsed.data.unit) };
  const answer = await say(host, Number(port) + 1, message);
  return answer?.ok
    ? done(answer)
    : refused({ code: 'refused', message: answer?.why ?? 'The simulated bench does not answer.' });
}

async function unitFor(db: Knex, { run, ...rest }: z.infer<typeof simUnitSchema>): Promise<object> {
  const found = run ? await findRun(db, run) : null;
  if (!found) return rest.kind ? { ...rest, profile: FAMILIES[rest.kind].typical } : rest;
  const { barometer_Pa, temperature_K } = found.context.conditions;
  return { ...rest, kind: found.kind, profile: found.context.profile, room: { barometer_Pa, temperature_K } };
}

/** Says one thing to the hands at the simulated bench. @returns null where nothing answers in time */
function say(host: string, port: number, message: object): Promise<{ ok: boolean; why?: string } | null> {
  return new Promise((resolve) => {
    const socket = connect({ host, port });
    const lines = new Lines();
    const end = (answer: { ok: boolean; why?: string } | null) => {
      socket.destroy();
      resolve(answer);
    };
    socket.setTimeout(ANSWER_MS, () => end(null));
    socket.setEncoding('utf8');
    socket.on('error', () => end(null));
    socket.on('connect', () => socket.write(`${JSON.stringify(message)}\n`));
    socket.on('data', (text: string) => {
      const [line] = lines.push(text) ?? [];
      if (line) end(JSON.parse(line) as { ok: boolean });
    });
  });
}
