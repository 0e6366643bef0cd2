/** @jest-environment node */
import { createServer, type Server, type Socket } from 'node:net';
import type { Knex } from 'knex';
import type { LiveMessage, LiveMoment } from '@/core/shop/live';
import { StandIn } from '@/devices/logger/stand-in';
import { FAMILIES } from '@/core/families/registry';
import { TYPICAL_BENCH } from '@/devices/logger/typical-bench';
import { Desk, newId, taken, whyNot } from './demo/desk';
import { FIXTURE_NOW as NOW } from './demo/fixture';
import { hangUp, link, liveStream } from './live';
import { recordStep } from './live-recording';
import { workBench } from './simulated-bench';
import { dropRecording, parted, piecesOf, Recording, traceOf } from './recordings';
import { openRuns, startRun, usualRig } from './runs';
import { benchAsLeft } from './demo/bench-as-left';
import { contradiction, liveState } from '@/core/procedure/live';
import { stateOf } from '@/core/records/judged-run';
import { SimBench } from '@/devices/logger/sim-bench';
import { listInstruments, readSettings, writeSettings } from './shelf';
import { aboutFor, analysisOf, listTraces } from './traces';

let desk: Desk;
let db: Knex;
let bench: StandIn;
let port: number;
beforeAll(async () => {
  desk = await Desk.open();
  db = desk.db;
});
afterAll(() => desk.close());
beforeEach(async () => {
  // The hands listen on the port above the logger's: a pair of free ports is looked for.
  for (port = 40_000 + 2 * Math.floor(Math.random() * 8000); ; port += 2) {
    bench = new StandIn(TYPICAL_BENCH, () => performance.now() / 1000);
    if (await bench.start(port, port + 1).catch(() => null)) break;
    await bench.stop();
  }
  await setLogger(`127.0.0.1:${port}`);
});
afterEach(async () => {
  hangUp();
  await bench.stop();
});

async function setLogger(logger: string) {
  const { version, body } = await readSettings(db);
  taken(await writeSettings(db, version, { ...body, logger }, NOW));
}
const until = async (what: () => boolean | Promise<boolean>, ms = 60_000) => {
  const end = Date.now() + ms;
  while (!(await what()) && Date.now() < end) await new Promise((soon) => setTimeout(soon, 20));
  expect(await what()).toBe(true);
};
const streaming = async () => {
  const line = (await link(db))!;
  await until(() => line.status.state === 'streaming' && line.moment !== null);
  return line;
};

/** Reads messages off a stream until one is wanted, then leaves. */
async function messagesUntil(wanted: (message: LiveMessage) => boolean): Promise<LiveMessage[]> {
  const leave = new AbortController();
  const reader = (await liveStream(db, leave.signal)).getReader();
  const seen: LiveMessage[] = [];
  const decoder = new TextDecoder();
  for (let i = 0; i < 2000; i += 1) {
    const { value, done } = await reader.read();
    if (done) break;
    for (const line of decoder.decode(value).split('\n\n').filter(Boolean))
      seen.push(JSON.parse(line.replace(/^data: /, '')) as LiveMessage);
    if (seen.some(wanted)) break;
  }
  leave.abort();
  await reader.cancel();
  return seen;
}

test('the demo’s half-done run and its bench begin in agreement', async () => {
  const run = (await openRuns(db)).findLast(({ kind }) => kind === 'remote-vacuum')!;
  const left = (await benchAsLeft(db))!;
  const device = new SimBench({ ...TYPICAL_BENCH, ...left.unit });
  device.set(left.hands);
  let shown: readonly number[] = [];
  device.advance(30, 0.02, (_t, values) => (shown = values));
  const at = (tag: string) => shown[TYPICAL_BENCH.gauges.findIndex((gauge) => gauge.tag === tag)]!;
  const live = liveState(run.context.procedure, stateOf(run));
  expect(live.sources.vacuum).toBe('on');
  expect(Math.abs(at('G-12') - (live.input as number)) / 1e5).toBeLessThan(0.5);
  expect(Math.abs(at('V-31') / live.supply_Pa! - 1)).toBeLessThan(0.03);
  const supply = { value: at('V-31'), settled: true, step: 100 };
  expect(contradiction(live, { supply })).toBeNull();
});

describe('the line to the logger', () => {
  test('is one, follows the settings, and is none where none is set', async () => {
    const line = await streaming();
    expect(await link(db)).toBe(line);
    expect(line.status).toMatchObject({ simulated: true, trouble: null });
    await setLogger('');
    expect(await link(db)).toBeNull();
    const [first] = await messagesUntil(({ type }) => type === 'status');
    expect(first).toMatchObject({ type: 'status', status: { state: 'off' } });
  });
  test('tells a screen what every gauge shows, in SI, and which stand still', async () => {
    await streaming();
    const seen = await messagesUntil(
      (message) => message.type === 'moment' && message.moment.settled.length === TYPICAL_BENCH.gauges.length,
    );
    const moments = seen.flatMap((message) => (message.type === 'moment' ? [message.moment] : []));
    expect(moments.length).toBeGreaterThan(5);
    expect(Object.keys(moments.at(-1)!.shown).sort()).toEqual(
      TYPICAL_BENCH.gauges.map(({ tag }) => tag).sort(),
    );
    expect(Math.abs(moments.at(-1)!.shown['G-12']!)).toBeLessThan(1e5);
  });
  test('a pointer that stood still for 1.2 s of the bench’s own time has settled', async () => {
    const line = (await link(db))!;
    const moments: LiveMoment[] = [];
    const leave = line.watch((message) => message.type === 'moment' && moments.push(message.moment));
    await until(() => moments.some(({ settled }) => settled.length > 0));
    leave();
    // Samples may have come before anybody looked: so it may be less, down to nothing.
    const last = moments.findLast(({ settled }) => settled.length === 0) ?? moments[0]!;
    expect(last.t_s - moments[0]!.t_s).toBeLessThan(1.3);
  });
  test('says where nothing is there', async () => {
    await bench.stop();
    hangUp();
    const line = (await link(db))!;
    await until(() => /Nothing listens/.test(line.status.trouble ?? ''));
    bench = new StandIn(TYPICAL_BENCH, () => performance.now() / 1000);
    await bench.start(0, 0);
  });
});

describe('the simulated bench', () => {
  test('is worked from the screen: handle, valve, and what stands on it', async () => {
    const line = await streaming();
    expect(await workBench(db, { hands: { handle_Pa: 2e6, pull_PaPerS: 2e7 } })).toMatchObject({
      ok: true,
      value: { hands: { handle_Pa: 2e6 } },
    });
    await until(() => Math.abs(line.moment!.shown['G-12']! - 2e6) < 5e4);
    const job = await desk.jobOf('GF-0425');
    const run = taken(await startRun(db, job.id, NOW));
    taken(await workBench(db, { unit: { run: run.id, fault: ['torn-diaphragm', 0.5], supply_Pa: 50_000 } }));
    await until(() => Math.abs(line.moment!.shown['G-12']!) < 1e5);
  });
  test('refuses what makes no sense', async () => {
    await streaming();
    expect(whyNot(await workBench(db, { unit: { fault: ['gremlins', 1] } }))).toMatch(/gremlins/);
    expect(whyNot(await workBench(db, { hands: { valve: 'ajar' } }))).not.toBe('');
    await setLogger('');
    expect(whyNot(await workBench(db, { hands: { pump: false } }))).toMatch(/work it by hand/);
  });
});

describe('hands that answer what no hand answers', () => {
  let servers: Server[];
  /** A bench that reads as the simulated one does, and whose hands do this when they are spoken to. */
  const handsDo = async (spoken: (socket: Socket) => void) => {
    await bench.stop();
    hangUp();
    const speak = (socket: Socket, heard: (line: string) => void) => {
      socket.on('error', () => socket.destroy());
      socket.on('data', (text) => String(text).trim().split('\n').forEach(heard));
    };
    const logger = createServer((socket) =>
      speak(socket, (line) => {
        const answers = { '*IDN?': 'A stand-in', 'CHAN:CAT?': '"A","BAR",0,1', 'SYST:ERR?': '0,"No error"' };
        const answer = answers[line as keyof typeof answers];
        socket.write(answer ? `${answer}\n` : '#1,1\n');
      }),
    );
    servers = [logger, createServer((socket) => speak(socket, () => spoken(socket)))];
    await Promise.all(
      servers.map((server, i) => new Promise<void>((ready) => server.listen(port + i, '127.0.0.1', ready))),
    );
    await streaming();
  };
  afterEach(async () => {
    hangUp();
    await Promise.all(servers.map((server) => new Promise((done) => server.close(done))));
    bench = new StandIn(TYPICAL_BENCH, () => performance.now() / 1000);
    await bench.start(0, 0);
  });
  test.each<[string, (socket: Socket) => void, RegExp]>([
    ['garbage', (socket) => socket.write('<html>\n'), /does not answer/],
    ['another thing than was asked', (socket) => socket.write('{"ok":"yes"}\n'), /does not answer/],
    ['a line without end', (socket) => socket.write('x'.repeat(9000)), /does not answer/],
    ['nothing, and hang up', (socket) => socket.end(), /does not answer/],
    [
      'in pieces',
      (socket) => [...'{"ok":false,"why":"No."}\n'].forEach((one) => socket.write(one)),
      /^No\.$/,
    ],
    [
      'drop by drop, for ever',
      (socket) => void setInterval(() => socket.write('x'), 50).unref(),
      /does not answer/,
    ],
  ])('%s', async (_name, spoken, why) => {
    await handsDo(spoken);
    expect(whyNot(await workBench(db, { hands: { valve: 'open' } }))).toMatch(why);
  });
});

test('an address that was kept before ports were checked is said, and nothing is thrown', async () => {
  hangUp();
  const { version, body } = await readSettings(db);
  expect(whyNot(await writeSettings(db, version, { ...body, logger: '127.0.0.1:99999' }, NOW))).toMatch(
    /a port from 1 to 65535/,
  );
  await db('settings').update({ body: JSON.stringify({ ...body, logger: '127.0.0.1:99999' }) });
  expect((await link(db))!.status).toMatchObject({
    state: 'lost',
    trouble: expect.stringMatching(/^“127.0.0.1:99999” is no name and port/) as string,
  });
  const said = await messagesUntil(({ type }) => type === 'status');
  expect(said).toMatchObject([{ status: { state: 'lost' } }]);
  await db('settings').update({ body: JSON.stringify(body) });
});

describe('the trace of a step', () => {
  test('is what the logger sent while it was done, kept when the next begins', async () => {
    const line = await streaming();
    const job = await desk.jobOf('GF-0424');
    const run = taken(await startRun(db, job.id, NOW));
    expect(taken(await recordStep(db, run.id, { step: 'bypass' }, NOW))).toEqual({ recording: true });
    taken(await workBench(db, { hands: { handle_Pa: 6e6, pull_PaPerS: 2e7 } }));
    await until(() => (line.recording?.count ?? 0) > 420);
    taken(await recordStep(db, run.id, { step: 'bypass' }, NOW));
    expect(await listTraces(db, run.id)).toEqual([]);
    taken(await recordStep(db, run.id, { step: null }, NOW));
    const [kept] = await listTraces(db, run.id);
    expect(kept!.body).toMatchObject({
      name: 'GF-0424: Bypass, assist off',
      source: 'bench',
      runId: run.id,
      tape: { step: 'bypass', events: run.events.length },
    });
    // Of the tied pairs the wide ranges are kept: they have seen everything.
    expect(kept!.body.channels.map(({ name }) => name)).toEqual(['G-12', 'G-22', 'V-31', 'V-41']);
    expect(taken(await analysisOf(db, kept!.id)).stretches.map(({ kind }) => kind)).toContain('bypass');
    // Room and unit are those that the run was started under, whatever the settings say since.
    const { version, body } = await readSettings(db);
    taken(await writeSettings(db, version, { ...body, temperature_K: body.temperature_K + 9 }, NOW));
    const { temperature_K } = run.context.conditions;
    const about = await aboutFor(db, kept!.body);
    expect(about.temperature_K).toBe(temperature_K);
    expect(about.unit).toEqual(FAMILIES[run.kind].logged(run.context.profile));
    expect((await aboutFor(db, {})).temperature_K).toBe(temperature_K + 9);
  });
  test('the bench belongs to one run: another is told who has it, and takes it over knowingly', async () => {
    const line = await streaming();
    const [first, second] = await Promise.all(
      ['GF-0415', 'GF-0421'].map(async (tag) => taken(await startRun(db, (await desk.jobOf(tag)).id, NOW))),
    );
    const say = async (run: string, step: string | null, take?: true) =>
      taken(await recordStep(db, run, { step, ...(take && { take }) }, NOW)).recording;
    expect(await say(first!.id, 'bypass')).toBe(true);
    expect(line.status.owner).toEqual({ run: first!.id, tag: 'GF-0415' });
    await until(() => (line.recording?.count ?? 0) > 220);
    expect(await say(second!.id, 'zeros')).toBe(false);
    // A run that does not have the bench cannot end what another records.
    expect(await say(second!.id, null)).toBe(false);
    expect(line.recording?.runId).toBe(first!.id);
    expect(await say(second!.id, 'zeros', true)).toBe(true);
    expect(line.status.owner).toEqual({ run: second!.id, tag: 'GF-0421' });
    // What was recorded until then is filed under the run that had it, and nothing of it under the other.
    expect((await listTraces(db, first!.id)).map(({ body }) => body.name)).toEqual([
      'GF-0415: Bypass, assist off',
    ]);
    expect(await listTraces(db, second!.id)).toEqual([]);
    expect(await say(first!.id, 'seep-low')).toBe(false);
    expect(await say(second!.id, null)).toBe(false);
    expect(line.status.owner).toBeNull();
  });
  test('of a moment is none; of no run is refused; without a logger nothing is recorded', async () => {
    await streaming();
    const job = await desk.jobOf('GF-0412');
    const run = taken(await startRun(db, job.id, NOW));
    taken(await recordStep(db, run.id, { step: 'zeros' }, NOW));
    taken(await recordStep(db, run.id, { step: null }, NOW));
    expect(await listTraces(db, run.id)).toEqual([]);
    expect(whyNot(await recordStep(db, newId(), { step: 'zeros' }, NOW))).toMatch(/no such run/);
    expect(whyNot(await recordStep(db, run.id, {}, NOW))).not.toBe('');
    await setLogger('');
    expect(taken(await recordStep(db, run.id, { step: 'zeros' }, NOW))).toEqual({ recording: false });
  });
});

describe('what a logger sent, as a trace', () => {
  const channels = ['G-11', 'G-12', 'V-31', 'T-05', 'X-99'].map((tag) => ({
    tag,
    unit: 'BAR',
    low: 0,
    high: 1,
  }));
  const rows = (...times: number[]) => ({
    channels,
    rows: Float64Array.from(times.flatMap((t_s) => [t_s, 1, 2, 3, 4, t_s < 0.5 ? NaN : 5])),
  });
  const gauges = async () =>
    usualRig(
      FAMILIES['remote-vacuum'].ports,
      (await listInstruments(db)).map(({ body }) => body),
      'dot4',
    );
  const rounded = (times: Float64Array) => [...times].map((t) => Number(t.toFixed(6)));
  test('has a channel to a port, begins at nothing, and leaves out what stands on no port', async () => {
    const [piece] = parted([rows(7, 7.1), rows(7.2)]);
    const { time_s, channels: kept } = traceOf(piece!, await gauges());
    expect(rounded(time_s)).toEqual([0, 0.1, 0.2]);
    // G-11 is the low range of the port that G-12 reads whole; T-05 is in the cupboard; X-99 is not on the Shelf.
    expect(kept.map(({ name, port, quantity, values }) => [name, port, quantity, values[0]])).toEqual([
      ['G-12', 'input', 'pressure', 2],
      ['V-31', 'supply', 'depression', 3],
    ]);
  });
  test('time never runs back: each piece that a new start of the logger leaves stands by itself', async () => {
    const rig = await gauges();
    const pieces = parted([rows(5, 5.1, 0.1, 0.2), rows(0.3, 0.4, 0.05)]);
    expect(pieces.map((piece) => rounded(traceOf(piece, rig).time_s))).toEqual([
      [0, 0.1],
      [0, 0.1, 0.2, 0.3],
      [0],
    ]);
  });
  test('so does what came of other channels', () => {
    const other = { channels: channels.slice(1), rows: Float64Array.of(5.2, 2, 3, 4, 5) };
    expect(parted([rows(5, 5.1), other]).map(({ count, channels: { length } }) => [count, length])).toEqual([
      [2, 5],
      [1, 4],
    ]);
  });
  test('a gap of more than ten minutes parts it, a shorter one does not', () => {
    expect(parted([rows(0, 600, 1200.1, 1200.2)]).map(({ count }) => count)).toEqual([2, 2]);
  });
  test('a channel in a unit of something else is not the gauge of its name', async () => {
    const strange = channels.map((channel) =>
      channel.tag === 'G-12' ? { ...channel, unit: 'DEGC' } : channel,
    );
    const [piece] = parted([{ ...rows(0, 0.1), channels: strange }]);
    // Of the pair at the input the other one is left.
    expect(traceOf(piece!, await gauges()).channels.map(({ name }) => name)).toEqual(['G-11', 'V-31']);
  });
  test('nothing is no piece', () => expect(parted([])).toEqual([]));
});

describe('a recording', () => {
  test('is on the disk as it grows: of what lies there a server that is ended in the middle loses nothing', async () => {
    const line = await streaming();
    const job = await desk.jobOf('GF-0419');
    const run = taken(await startRun(db, job.id, NOW));
    taken(await recordStep(db, run.id, { step: 'bypass' }, NOW));
    await until(() => (line.recording?.count ?? 0) > 450);
    const { count: sent, id } = line.recording!;
    const written = async () => (await piecesOf(db, id)).reduce((sum, { count }) => sum + count, 0);
    await until(async () => (await written()) >= sent);
    // Nothing gets a chance to tidy up: the line is gone, and another server opens the same data.
    line.recording = null;
    hangUp();
    await streaming();
    await until(async () => (await listTraces(db, run.id)).length > 0);
    const [kept] = await listTraces(db, run.id);
    expect(kept!.body).toMatchObject({ name: 'GF-0419: Bypass, assist off', runId: run.id, jobId: job.id });
    expect(kept!.body.rows).toBeGreaterThanOrEqual(sent);
    expect(await db('recordings')).toEqual([]);
    expect(await db('recording_parts')).toEqual([]);
  });
  test('is not cut, however long it is', async () => {
    const recording = await Recording.begin(db, newId(), 'hold', NOW);
    const channels = [{ tag: 'G-22', unit: 'BAR', low: 0, high: 160 }];
    const samples = 361_000;
    for (let i = 0; i < samples; i += 1) {
      recording.add({ t_s: i / 100, values: [i] }, channels);
      if (i % 100_000 === 0) await recording.flush();
    }
    await recording.flush();
    const [piece] = await piecesOf(db, recording.id);
    const rig = { output: [(await listInstruments(db)).find(({ body }) => body.tag === 'G-22')!.body] };
    const { time_s, channels: kept } = traceOf(piece!, rig);
    expect([time_s.length, time_s.at(-1), kept[0]!.values.at(-1)]).toEqual([
      samples,
      (samples - 1) / 100,
      samples - 1,
    ]);
    await dropRecording(db, recording.id);
  });
});
