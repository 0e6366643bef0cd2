import { SI_SYMBOL } from '@/core/quantities/si-symbol';
import { randomUUID } from 'node:crypto';
import { gunzipSync, gzipSync } from 'node:zlib';
import type { Knex } from 'knex';
import { expectedCurve, type CurvePoint } from '@/core/families/expected-curve';
import { FAMILIES } from '@/core/families/registry';
import { layoutSchema, type LogLayout } from '@/core/signals/csv/layout';
import type { About, Analysis, Stretch } from '@/core/signals/analysis';
import { envelopeOf, packEnvelope } from '@/core/signals/overview';
import { indexAt, type Trace } from '@/core/signals/trace';
import type { LoggedTrace } from '@/core/documents/logged-traces';
import {
  traceChangeSchema,
  traceNoteSchema,
  traceRecordSchema,
  yieldedOf,
  type TraceNote,
  type TraceRecord,
} from '@/core/records/trace-record';
import { roomOf } from '@/core/shop/settings';
import type { Stored } from '@/core/records/views';
import {
  LEAST_ROWS,
  unsqueezed,
  type Packed,
  type TraceProduct,
  type WorkedOut,
} from '@/workers/trace-product';
import { csvOf } from './csv';
import { append } from './journal';
import { done, invalid, refused, type Outcome } from './outcome';
import { readable } from './readable';
import { findRun } from './runs';
import { findProfile, readSettings } from './shelf';
import { workOut } from './trace-job';
import { isDataAsWritten, sealData } from './trace-seals';
import { fromRow, missing, replace, setDeleted, shelfChain, type Shelf } from './store';

export type StoredTrace = Stored<TraceRecord>;

/** Traces as they are kept. */
export const traces: Shelf<TraceRecord> = {
  table: 'traces',
  what: 'trace',
  schema: traceRecordSchema,
  columns: ({ name, madeAt, runId, profileId }) => ({
    name,
    made_at: madeAt,
    run_id: runId,
    profile_id: profileId,
  }),
};

/** Where a trace came from, beside what was read. */
export interface TraceOrigin {
  readonly name: string;
  readonly source: TraceRecord['source'];
  readonly profileId: string | null;
  readonly jobId: string | null;
  readonly runId: string | null;
  readonly tape?: TraceRecord['tape'];
}

type MadeOn = Partial<Pick<TraceOrigin, 'profileId' | 'runId'>>;

/**
 * Room and unit that a trace was made on: of a run, what the run was started under, whatever has changed since;
 * otherwise the bench's settings, and the profile where one is named.
 */
async function madeOn(db: Knex, { profileId, runId }: MadeOn) {
  const run = runId ? await findRun(db, runId) : null;
  if (run) return { room: run.context.conditions, unit: { kind: run.kind, profile: run.context.profile } };
  const profile = profileId ? await findProfile(db, profileId) : null;
  return {
    room: roomOf((await readSettings(db)).body),
    unit: profile && { kind: profile.kind, profile: profile.body as unknown },
  };
}

/** What is known beside a trace. */
export async function aboutFor(db: Knex, origin: MadeOn): Promise<About> {
  const { room, unit } = await madeOn(db, origin);
  const { barometer_Pa, temperature_K } = room;
  return { barometer_Pa, temperature_K, unit: unit && FAMILIES[unit.kind].logged(unit.profile) };
}

/** Keeps a trace: what is said of it, its readings and what was worked out, all on disk together or not at all. */
export async function keepTrace(
  db: Knex,
  origin: TraceOrigin,
  product: WorkedOut & Partial<TraceProduct>,
  now: string,
): Promise<Outcome<StoredTrace>> {
  const { packed } = product;
  const parsed = traceRecordSchema.safeParse({
    ...origin,
    madeAt: now,
    rows: product.rows,
    duration_s: product.duration_s,
    channels: packed.channels,
    sha256: packed.sha256,
    layout: product.layout ?? null,
    troubles: (product.troubles ?? []).map(({ line, column, what }) =>
      `Line ${line}, column ${column}: ${what}`.slice(0, 300),
    ),
    troubleCount: product.troubleCount ?? 0,
    notes: [],
  });
  if (!parsed.success) return invalid(parsed.error.issues);
  const id = randomUUID();
  const body = parsed.data;
  return db.transaction(async (trx) => {
    await trx('traces').insert({ id, version: 1, ...traces.columns(body), body: JSON.stringify(body) });
    await keepData(trx, id, packed, product.analysis, now);
    await append(trx, shelfChain(traces, id), { id: randomUUID(), at: now, entry: { type: 'stored', body } });
    if (product.layout) await rememberLayout(trx, product.layout, now);
    return done({ id, version: 1, body });
  });
}

async function keepData(
  trx: Knex,
  id: string,
  packed: Packed,
  analysis: Analysis,
  now: string,
): Promise<void> {
  const data = {
    starts_s: JSON.stringify(packed.starts_s),
    overview: Buffer.from(packed.overview),
    analysis: gzipSync(JSON.stringify(analysis)),
  };
  await trx('trace_data').insert({ trace_id: id, ...data });
  await sealData(trx, id, data, now);
  for (const { chunk, column, data } of packed.chunks)
    await trx('trace_chunks').insert({ trace_id: id, chunk, column, data: Buffer.from(data) });
}

/** How one make of logger writes is told by the names and units of its columns. */
const loggerOf = ({ columns, delimiter }: Pick<LogLayout, 'columns' | 'delimiter'>) =>
  JSON.stringify([delimiter, columns.map(({ index, name }) => [index, name])]);

async function rememberLayout(trx: Knex, layout: LogLayout, now: string): Promise<void> {
  await trx('log_layouts')
    .insert({ logger: loggerOf(layout), layout: JSON.stringify(layout), used_at: now })
    .onConflict('logger')
    .merge();
}

/** The layout confirmed last time for a file with these columns; null where there was none. */
export async function rememberedLayout(db: Knex, input: unknown): Promise<Outcome<LogLayout | null>> {
  const parsed = layoutSchema.safeParse(input);
  if (!parsed.success) return invalid(parsed.error.issues);
  const row = await db('log_layouts')
    .where({ logger: loggerOf(parsed.data) })
    .first('layout');
  if (!row) return done(null);
  const known = layoutSchema.safeParse(JSON.parse(row.layout as string));
  // The head may have grown by a line since, and a column come on: where the readings stand is taken from this file.
  const { firstLine, width } = parsed.data;
  return done(known.success ? { ...known.data, firstLine, width } : null);
}

const PER_LIST = 500;

/** Traces, newest first; those of one run where it is named. */
export async function listTraces(db: Knex, runId?: string): Promise<StoredTrace[]> {
  const rows = await db('traces')
    .where({ deleted: false, ...(runId && { run_id: runId }) })
    .orderBy('made_at', 'desc')
    .limit(PER_LIST);
  return readable('trace', rows as Parameters<typeof fromRow>[0][], (row) => fromRow<TraceRecord>(row));
}

/** Traces of a job, oldest first: those of its runs and those read from files. */
export async function tracesOfJob(db: Knex, jobId: string): Promise<StoredTrace[]> {
  const rows = await db('traces')
    .where({ deleted: false })
    .whereRaw("json_extract(body, '$.jobId') = ?", [jobId])
    .orderBy('made_at')
    .limit(PER_LIST);
  return readable('trace', rows as Parameters<typeof fromRow>[0][], (row) => fromRow<TraceRecord>(row));
}

/** What was logged during a run, with what was worked out of it, oldest first. */
export async function loggedIn(db: Knex, runId: string): Promise<LoggedTrace[]> {
  const stored = (await listTraces(db, runId)).reverse();
  const logged: LoggedTrace[] = [];
  for (const { id, body } of stored) {
    const analysis = await analysisOf(db, id);
    if (!analysis.ok) {
      logged.push({ id, record: body, stretches: [], altered: true });
      continue;
    }
    const marked = body.notes.flatMap(({ yields = [] }) =>
      yields.map((stretch) => ({ ...stretch, name: `${stretch.name}, range marked by hand` })),
    );
    logged.push({ id, record: body, stretches: [...analysis.value.stretches.map(yieldedOf), ...marked] });
  }
  return logged;
}

export async function findTrace(db: Knex, id: string): Promise<StoredTrace | null> {
  const row = await db('traces').where({ id, deleted: false }).first();
  return row ? fromRow<TraceRecord>(row) : null;
}

/** Changes the name or the notes of a trace, if it is still at the version the screen saw. */
export async function changeTrace(
  db: Knex,
  id: string,
  version: number,
  input: unknown,
  now: string,
): Promise<Outcome<StoredTrace>> {
  const parsed = traceChangeSchema.safeParse(input);
  if (!parsed.success) return invalid(parsed.error.issues);
  const current = await findTrace(db, id);
  if (!current) return missing('trace');
  const notes = parsed.data.notes.map((note) => asWorkedOut(note, current.body.notes));
  return replace(db, traces, id, version, { ...current.body, ...parsed.data, notes }, now);
}

/** A note with what its range was found to yield, as long as it is that range: never what a screen says. */
function asWorkedOut(note: TraceNote, kept: readonly TraceNote[]): TraceNote {
  const { yields: _said, ...rest } = note;
  const known = kept.find(({ id, at_s, to_s }) => id === note.id && at_s === note.at_s && to_s === note.to_s);
  return known?.yields ? { ...rest, yields: known.yields } : rest;
}

/** Works a marked range out by itself, and keeps the mark with what it yields. A mark that is there already is replaced. */
export async function workOutRange(
  db: Knex,
  id: string,
  version: number,
  input: unknown,
  now: string,
): Promise<Outcome<StoredTrace>> {
  const parsed = traceNoteSchema.safeParse(input);
  if (!parsed.success) return invalid(parsed.error.issues);
  const { at_s, to_s } = parsed.data;
  if (to_s === undefined)
    return invalid([{ path: ['to_s'], message: 'Until: a range has an end as well as a beginning.' }]);
  const current = await findTrace(db, id);
  if (!current) return missing('trace');
  const part = await partOf(db, id, at_s, to_s);
  if (!part.ok) return part;
  const trace = within(part.value, at_s, to_s);
  if (trace.time_s.length < LEAST_ROWS)
    return invalid([
      { path: ['to_s'], message: `In this range there are only ${trace.time_s.length} readings.` },
    ]);
  const { analysis } = await workOut(trace, await aboutFor(db, current.body));
  const note = { ...parsed.data, yields: analysis.stretches.map(yieldedOf) };
  const notes = [...current.body.notes.filter((other) => other.id !== note.id), note].sort(
    (a, b) => a.at_s - b.at_s,
  );
  return replace(db, traces, id, version, { ...current.body, notes }, now);
}

/** What of a trace lies between two times. */
function within(trace: Trace, from_s: number, to_s: number): Trace {
  const [from, to] = [indexAt(trace, from_s), indexAt(trace, to_s)];
  return {
    time_s: trace.time_s.slice(from, to),
    channels: trace.channels.map((channel) => ({ ...channel, values: channel.values.slice(from, to) })),
  };
}

export const deleteTrace = (db: Knex, id: string, deleted: boolean, now: string) =>
  setDeleted(db, traces, id, deleted, now);

export async function analysisOf(db: Knex, id: string): Promise<Outcome<Analysis>> {
  const row = await db('trace_data').where({ trace_id: id }).first('analysis');
  if (!row) return missing('trace');
  if (!(await isDataAsWritten(db, id))) return refused({ code: 'refused', message: ALTERED });
  return done(JSON.parse(gunzipSync(row.analysis as Buffer).toString('utf8')) as Analysis);
}

const ALTERED = 'What was worked out of this trace was altered since it was written. Nothing of it is shown.';

export async function overviewOf(db: Knex, id: string): Promise<Outcome<{ body: Buffer }>> {
  const row = await db('trace_data').where({ trace_id: id }).first('overview');
  return row ? done({ body: row.overview as Buffer }) : missing('trace');
}

/** A trace with what was worked out of it. */
export async function analysedTrace(
  db: Knex,
  id: string,
): Promise<{ stored: StoredTrace; analysis: Analysis } | null> {
  const stored = await findTrace(db, id);
  const analysis = stored && (await analysisOf(db, id));
  return stored && analysis?.ok ? { stored, analysis: analysis.value } : null;
}

/** Output that a healthy unit of the trace's kind gives on the vacuum that its longest pull had. */
export async function expectedFor(
  db: Knex,
  { stored, analysis }: { stored: StoredTrace; analysis: Analysis },
): Promise<CurvePoint[]> {
  const reach = ({ points }: Stretch) => Math.max(0, ...points.map(([input]) => input));
  const [pull] = analysis.stretches.filter(({ kind }) => kind === 'pull').sort((a, b) => reach(b) - reach(a));
  const { room: conditions, unit } = await madeOn(db, stored.body);
  if (!pull?.supply_Pa || !unit) return [];
  const { kind, profile } = unit;
  return expectedCurve(FAMILIES[kind], { profile, conditions }, pull.supply_Pa, reach(pull));
}

/** Most samples unpacked for one answer: a quarter of an hour at 1 kHz. */
const MOST_SAMPLES = 1_000_000;
const MOST_BUCKETS = 16_384;

/** Envelope of a part of a trace, from the chunks that hold it and no others. */
export async function windowOf(
  db: Knex,
  id: string,
  asked: { from_s: number; to_s: number; buckets: number },
): Promise<Outcome<{ body: Buffer }>> {
  const { from_s, to_s } = asked;
  if (!(Number.isFinite(from_s) && Number.isFinite(to_s) && to_s > from_s))
    return invalid([
      { path: ['to'], message: 'From and to: two times in seconds, the second after the first.' },
    ]);
  const part = await partOf(db, id, from_s, to_s);
  if (!part.ok) return part;
  const buckets = Math.min(MOST_BUCKETS, Math.max(1, asked.buckets || 1024));
  return done({ body: Buffer.from(packEnvelope(envelopeOf(part.value, from_s, to_s, buckets))) });
}

async function partOf(db: Knex, id: string, from_s: number, to_s: number): Promise<Outcome<Trace>> {
  const trace = await findTrace(db, id);
  const data = await db('trace_data').where({ trace_id: id }).first('starts_s');
  if (!trace || !data) return missing('trace');
  const starts = JSON.parse(data.starts_s as string) as number[];
  const before = starts.findLastIndex((start) => start <= from_s);
  const first = Math.max(0, before);
  const last = Math.max(
    first,
    starts.findLastIndex((start) => start <= to_s),
  );
  const rows = (await db('trace_chunks')
    .where({ trace_id: id })
    .whereBetween('chunk', [first, last])
    .orderBy(['column', 'chunk'])) as { column: number; chunk: number; data: Buffer }[];
  const columnOf = (column: number) => rows.filter((row) => row.column === column);
  const time_s = joined(columnOf(-1).map(({ data: d }) => new Float64Array(unsqueezed(d, 8))));
  if (time_s.length > MOST_SAMPLES)
    return refused({ code: 'refused', message: 'That part is too long to be shown reading by reading.' });
  const channels = trace.body.channels.map((channel, c) => ({
    ...channel,
    values: joined(columnOf(c).map(({ data: d }) => new Float32Array(unsqueezed(d, 4)))),
  }));
  return done({ time_s: time_s as Float64Array, channels });
}

function joined<T extends Float64Array | Float32Array>(parts: readonly T[]): T {
  const Kind = (parts[0]?.constructor ?? Float32Array) as new (length: number) => T;
  const all = new Kind(parts.reduce((sum, part) => sum + part.length, 0));
  let at = 0;
  for (const part of parts) {
    all.set(part, at);
    at += part.length;
  }
  return all;
}

/**
 * A trace as CSV in SI, for other programs. It is written piece by piece as it is fetched, so that however long it is
 * the server holds no more than one chunk of it.
 */
export async function traceCsv(
  db: Knex,
  id: string,
): Promise<Outcome<{ name: string; body: ReadableStream<Uint8Array> }>> {
  const trace = await findTrace(db, id);
  const data = trace && (await db('trace_data').where({ trace_id: id }).first('starts_s'));
  if (!trace || !data) return missing('trace');
  const chunks = (JSON.parse(data.starts_s as string) as number[]).length;
  const head = [
    'Time [s]',
    ...trace.body.channels.map(({ name, quantity }) => `${name} [${SI_SYMBOL[quantity]}]`),
  ];
  const encoder = new TextEncoder();
  let next = 0;
  const body = new ReadableStream<Uint8Array>({
    async pull(controller) {
      if (next === 0) controller.enqueue(encoder.encode(csvOf([head])));
      if (next < chunks) controller.enqueue(encoder.encode(await chunkCsv(db, id, next)));
      next += 1;
      if (next >= chunks) controller.close();
    },
  });
  return done({ name: `${trace.body.name}.csv`, body });
}

/** Lines of one chunk: numbers only, which need no quoting. */
async function chunkCsv(db: Knex, id: string, chunk: number): Promise<string> {
  const rows = (await db('trace_chunks').where({ trace_id: id, chunk }).orderBy('column')) as {
    data: Buffer;
  }[];
  const [time, ...columns] = rows.map(({ data }) => data);
  const time_s = new Float64Array(unsqueezed(time!, 8));
  const values = columns.map((data) => new Float32Array(unsqueezed(data, 4)));
  const lines = Array.from(time_s, (t, i) =>
    [
      Number(t.toFixed(6)),
      ...values.map((of) => (Number.isFinite(of[i]!) ? Number(of[i]!.toPrecision(7)) : '')),
    ].join(','),
  );
  return `${lines.join('\r\n')}\r\n`;
}
