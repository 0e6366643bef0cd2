/** @jest-environment node */
import type { Knex } from 'knex';
import { BAR, benchTrace, family, INHG, profile, WHOLE_TEST } from '@/core/scenarios/traces';
import type { Analysis } from '@/core/signals/analysis';
import { CHUNK, pack, productOf, TraceJob, type TraceProduct } from '@/workers/trace-product';
import { Desk, newId, taken, whyNot } from './demo/desk';
import { FIXTURE_NOW as NOW } from './demo/fixture';
import { listRemoved } from './removed';
import { listProfiles } from './shelf';
import {
  aboutFor,
  analysedTrace,
  analysisOf,
  changeTrace,
  deleteTrace,
  expectedFor,
  findTrace,
  keepTrace,
  listTraces,
  overviewOf,
  rememberedLayout,
  traceCsv,
  tracesOfJob,
  windowOf,
  workOutRange,
} from './traces';
import { verify } from './verify';

let desk: Desk;
let db: Knex;
beforeAll(async () => {
  desk = await Desk.open();
  db = desk.db;
});
afterAll(() => desk.close());

const healthy = family.healthy(profile).values;
const recorded = benchTrace(healthy, 20 * INHG, WHOLE_TEST, {
  seed: 3,
  rate_Hz: 50,
  pressureNoise_Pa: 0.1 * BAR,
  vacuumNoise_Pa: 80,
});
const origin = {
  name: 'Pull of the day',
  source: 'bench' as const,
  profileId: null,
  jobId: null,
  runId: null,
};
const about = async () => {
  const tollan = (await listProfiles(db)).find(({ body }) => body.name === 'Tollan RV-230')!;
  return aboutFor(db, { profileId: tollan.id });
};
const keep = async () => taken(await keepTrace(db, origin, productOf(recorded, await about()), NOW));

/** A log that is in hand, read on this thread. */
function readText(text: string, { about: of }: { about: Parameters<typeof productOf>[1] }) {
  const job = new TraceJob(null, of, text.length);
  job.push(new TextEncoder().encode(text));
  return job.finish();
}

/** Least and greatest of channel c out of an envelope as it is sent. */
function sent(body: Buffer) {
  const bytes = new Uint8Array(body);
  const [from_s, to_s, buckets] = new Float64Array(bytes.buffer, 0, 3);
  const values = new Float32Array(bytes.buffer, 24);
  const at = (c: number) => ({
    least: values.subarray(2 * c * buckets!, (2 * c + 1) * buckets!),
    greatest: values.subarray((2 * c + 1) * buckets!, (2 * c + 2) * buckets!),
  });
  return { from_s, to_s, buckets, at };
}

describe('a trace that is kept', () => {
  test('comes back reading by reading, with what was worked out of it', async () => {
    const { id, body } = await keep();
    expect(body).toMatchObject({ rows: recorded.time_s.length, channels: [{ port: 'input' }, {}, {}, {}] });
    const analysis: Analysis = taken(await analysisOf(db, id));
    const kinds = analysis.stretches.map(({ kind }) => kind);
    expect(kinds).toEqual(expect.arrayContaining(['bypass', 'pull', 'let down', 'hold', 'vacuum']));
    const { least, greatest } = sent(
      taken(await windowOf(db, id, { from_s: 60, to_s: 61, buckets: 50 })).body,
    ).at(1);
    const from = recorded.time_s.findIndex((t) => t >= 60);
    const own = recorded.channels[1]!.values.subarray(from, from + 51);
    expect(Math.min(...least.filter(Number.isFinite))).toBeCloseTo(Math.min(...own), -1);
    expect(Math.max(...greatest.filter(Number.isFinite))).toBeCloseTo(Math.max(...own), -1);
  });
  test('its overview loses no spike', async () => {
    const spiked = {
      ...recorded,
      channels: recorded.channels.map((c) => ({ ...c, values: c.values.slice() })),
    };
    spiked.channels[0]!.values[7001] = 999 * BAR;
    const { id } = taken(await keepTrace(db, origin, productOf(spiked, await about()), NOW));
    const { at } = sent(taken(await overviewOf(db, id)).body);
    expect(Math.max(...at(0).greatest.filter(Number.isFinite))).toBeCloseTo(999 * BAR, -2);
  });
  test('is named, noted, taken away and put back; two screens do not overwrite each other', async () => {
    const { id } = await keep();
    const note = { id: newId(), at_s: 12.5, words: 'Handle slipped' };
    const changed = taken(await changeTrace(db, id, 1, { name: 'Slip', notes: [note] }, NOW));
    expect(changed.body).toMatchObject({ name: 'Slip', notes: [note] });
    expect(await changeTrace(db, id, 1, { name: 'Other', notes: [] }, NOW)).toMatchObject({
      ok: false,
      why: { code: 'conflict', current: { body: { name: 'Slip' } } },
    });
    expect(whyNot(await changeTrace(db, id, 2, { name: '', notes: [] }, NOW))).toMatch(
      /Give the trace a name/,
    );
    taken(await deleteTrace(db, id, true, NOW));
    expect(await findTrace(db, id)).toBeNull();
    expect((await listRemoved(db)).map(({ name }) => name)).toContain('Slip');
    taken(await deleteTrace(db, id, false, NOW));
    expect((await listTraces(db)).map(({ body }) => body.name)).toContain('Slip');
    expect(await listTraces(db, newId())).toEqual([]);
  });
  test('goes out as CSV and comes in again the same', async () => {
    const { id } = await keep();
    const { body, name } = taken(await traceCsv(db, id));
    expect(name).toBe('Pull of the day.csv');
    const again = readText(await new Response(body).text(), { about: await about() });
    if (!again.ok) throw new Error(again.why);
    expect(again.product.rows).toBe(recorded.time_s.length);
    const ratio = ({ analysis }: Pick<TraceProduct, 'analysis'>) =>
      analysis.stretches.find(({ kind }) => kind === 'pull')!.results.find((r) => r.id === 'boost-ratio')!
        .estimate;
    const [ours, theirs] = [ratio(productOf(recorded, await about())), ratio(again.product)];
    if (!ours.told || !theirs.told) throw new Error('not told');
    expect(Math.abs(ours.value - theirs.value)).toBeLessThan(0.2 * ours.u);
  });
  test('however long, its CSV is written chunk by chunk and lacks no line', async () => {
    const rows = 2 * CHUNK + 17;
    const long = {
      time_s: Float64Array.from({ length: rows }, (_, i) => i / 1000),
      channels: [
        {
          name: 'In',
          port: 'input',
          quantity: 'pressure' as const,
          values: Float32Array.from({ length: rows }, (_, i) => i),
        },
      ],
    };
    const { id } = taken(await keepTrace(db, origin, productOf(long, await about()), NOW));
    const reader = taken(await traceCsv(db, id)).body.getReader();
    const pieces: string[] = [];
    for (let piece = await reader.read(); !piece.done; piece = await reader.read())
      pieces.push(new TextDecoder().decode(piece.value));
    expect(pieces.length).toBeGreaterThanOrEqual(3);
    const lines = pieces.join('').trim().split('\r\n');
    expect(lines).toHaveLength(rows + 1);
    expect(lines[0]).toContain('Time [s],In [Pa]');
    expect(lines[CHUNK + 1]).toBe(`${CHUNK / 1000},${CHUNK}`);
    // Line by line in the order in which it was logged.
    expect(lines.slice(1).findIndex((line, i) => line !== `${i / 1000},${i}`)).toBe(-1);
    expect(lines.at(-1)).toBe(`${(rows - 1) / 1000},${rows - 1}`);
  });
  test('is found by its job, by an index and not by looking through all', async () => {
    const jobId = newId();
    const mine = taken(await keepTrace(db, { ...origin, jobId }, productOf(recorded, await about()), NOW));
    expect((await tracesOfJob(db, jobId)).map(({ id }) => id)).toEqual([mine.id]);
    const plan = (await db.raw(
      "explain query plan select * from traces where deleted = 0 and json_extract(body, '$.jobId') = ?",
      [jobId],
    )) as { detail: string }[];
    expect(plan.map(({ detail }) => detail).join(' ')).toContain('traces_job');
  });
  test('one reading changed in the database is found by verify', async () => {
    const { id } = await keep();
    expect((await verify(db)).alterations).toEqual([]);
    const row = await db('trace_chunks').where({ trace_id: id, chunk: 0, column: 1 }).first();
    const data = Buffer.from(row.data as Buffer);
    data[20]! ^= 1;
    await db('trace_chunks').where({ trace_id: id, chunk: 0, column: 1 }).update({ data });
    expect((await verify(db)).alterations).toEqual([
      { where: 'Trace Pull of the day', entry: null, what: 'Its readings are not as they were written.' },
    ]);
    await db('trace_chunks').where({ trace_id: id, chunk: 0, column: 1 }).update({ data: row.data });
  });
  test('beside it stands what a healthy unit gives as far as the longest pull goes, and of no unit nothing', async () => {
    const { id: profileId } = (await listProfiles(db)).find(({ body }) => body.name === 'Tollan RV-230')!;
    const made = productOf(recorded, await about());
    const own = taken(await keepTrace(db, { ...origin, profileId }, made, NOW));
    const trace = (await analysedTrace(db, own.id))!;
    expect(trace.stored.id).toBe(own.id);
    const pulls = trace.analysis.stretches.filter(({ kind }) => kind === 'pull');
    const most = Math.max(...pulls.flatMap(({ points }) => points.map(([input]) => input)));
    const curve = await expectedFor(db, trace);
    const last = curve.at(-1)!;
    expect(last.input).toBeCloseTo(most, 0);
    // Each pull was made on some 20 inHg, which is what the longest had; so is what the unit in the trace gives there.
    const given = Math.max(...pulls.flatMap(({ points }) => points.map(([, output]) => output)));
    expect(Math.abs(last.expected / given - 1)).toBeLessThan(0.05);
    expect([last.low < last.expected, last.expected < last.high]).toEqual([true, true]);
    const strangers = (await analysedTrace(db, (await keep()).id))!;
    expect(await expectedFor(db, strangers)).toEqual([]);
    expect(await analysedTrace(db, newId())).toBeNull();
  });
  test('what cannot be shown is refused with a sentence', async () => {
    const { id } = await keep();
    expect(whyNot(await windowOf(db, id, { from_s: 5, to_s: 5, buckets: 10 }))).toMatch(
      /two times in seconds/,
    );
    for (const answer of [
      await windowOf(db, newId(), { from_s: 0, to_s: 1, buckets: 10 }),
      await analysisOf(db, newId()),
      await overviewOf(db, newId()),
      await traceCsv(db, newId()),
      await changeTrace(db, newId(), 1, { name: 'x', notes: [] }, NOW),
    ])
      expect(whyNot(answer as never)).toMatch(/no such trace/);
  });
});

describe('a log that is read', () => {
  const text = 'time [s];in [bar];out [bar]\n0,0;1,5;5,4\n0,1;2,0;7,2\n0,2;2,5;9,0\n0,3;oops;9,9\n';
  test('keeps how it was read, what could not be, and the layout for the next of its kind', async () => {
    const read = readText(text, { about: await about() });
    if (!read.ok) throw new Error(read.why);
    const { body } = taken(await keepTrace(db, { ...origin, source: 'file' }, read.product, NOW));
    expect(body.troubles).toEqual(['Line 5, column 2: “oops” is no number: left as a gap']);
    const layout = body.layout!;
    expect(taken(await rememberedLayout(db, { ...layout, firstLine: 4 }))).toEqual({
      ...layout,
      firstLine: 4,
    });
    const other = { ...layout, columns: layout.columns.map((c) => ({ ...c, name: `${c.name} 2` })) };
    expect(taken(await rememberedLayout(db, other))).toBeNull();
    expect(whyNot(await rememberedLayout(db, { delimiter: '?' }))).not.toBe('');
  });
  test.each([
    ['', /empty/],
    ['time [s],in [bar],out [bar]\n0,1,2\n1,2,3\nx,y,z\n', /Only 2 lines .* Line 4/],
  ])('%j is refused', async (log, why) => {
    const read = readText(log, { about: await about() });
    expect(read.ok ? '' : read.why).toMatch(why);
  });
  test('a unit is known by its profile', async () => {
    const [first] = await listProfiles(db);
    const { unit } = await aboutFor(db, { profileId: first!.id });
    expect(unit?.slave).toMatchObject({ spring_N: expect.any(Number) as number });
    expect((await aboutFor(db, {})).unit).toBeNull();
  });
  test('packing loses nothing but what a float has not', () => {
    const packed = pack(recorded);
    expect(packed.chunks).toHaveLength(5 * Math.ceil(recorded.time_s.length / 65_536));
    expect(pack(recorded).sha256).toBe(packed.sha256);
  });
});

describe('a range that is marked by hand', () => {
  const mark = (at_s: number, to_s?: number) => ({ id: newId(), at_s, to_s, words: 'Second pull only' });
  test('is worked out by itself, and what it yields is kept with the mark and in the journal', async () => {
    const { id, version, body } = await keep();
    const { stretches } = taken(await analysisOf(db, id));
    const pull = stretches.find(({ kind }) => kind === 'pull')!;
    const range = mark(pull.from_s - 1, pull.to_s + 1);
    const worked = taken(await workOutRange(db, id, version, range, NOW));
    const [note] = worked.body.notes;
    expect(note!.yields!.map(({ name }) => name)).toContain('Pull with assist');
    const ratio = (results: (typeof pull)['results']) =>
      results.find((result) => result.id === 'boost-ratio')!.estimate as { value: number };
    const found = note!.yields!.find(({ name }) => name === 'Pull with assist')!;
    expect(ratio(found.results).value).toBeCloseTo(ratio(pull.results).value, 1);
    expect(found.from_s).toBeGreaterThanOrEqual(range.at_s);
    expect((await findTrace(db, id))!.body.notes).toEqual(worked.body.notes);
    expect((await verify(db)).alterations).toEqual([]);

    // What a screen sends is not taken for what was worked out, and a change of the words keeps it.
    const forged = { ...note!, words: 'Other words', yields: [] };
    const change = { name: body.name, notes: [forged] };
    const changed = taken(await changeTrace(db, id, worked.version, change, NOW));
    expect(changed.body.notes[0]!.yields).toEqual(note!.yields);
    const moved = { name: body.name, notes: [{ ...forged, at_s: 0, yields: note!.yields }] };
    const other = taken(await changeTrace(db, id, changed.version, moved, NOW));
    expect(other.body.notes[0]!.yields).toBeUndefined();
  });
  test('stands among the others by when it begins, whichever was marked first', async () => {
    const { id, version } = await keep();
    const { from_s, to_s } = taken(await analysisOf(db, id)).stretches.find(({ kind }) => kind === 'pull')!;
    let at = version;
    for (const begins of [2, 0, 1])
      ({ version: at } = taken(await workOutRange(db, id, at, mark(from_s + begins, to_s + 3), NOW)));
    const { notes } = (await findTrace(db, id))!.body;
    expect(notes.map(({ at_s }) => at_s - from_s)).toEqual(
      [0, 1, 2].map((n) => expect.closeTo(n, 6) as number),
    );
  });
  test('without an end, or without readings, is refused and nothing is lost', async () => {
    const { id, version } = await keep();
    expect(whyNot(await workOutRange(db, id, version, mark(3), NOW))).toMatch(/a range has an end/);
    expect(whyNot(await workOutRange(db, id, version, mark(3, 3.001), NOW))).toMatch(/only \d readings/);
    expect((await findTrace(db, id))!.body.notes).toEqual([]);
  });
});
