/** @jest-environment node */
import type { Knex } from 'knex';
import { BAR, benchTrace, family, INHG, profile, WHOLE_TEST } from '@/core/scenarios/traces';
import { Desk, newId, taken, whyNot } from './demo/desk';
import { readLog, workOut } from './trace-job';
import { analyseLog, importLog } from './trace-import';
import { listProfiles } from './shelf';
import { aboutFor, findTrace, listTraces } from './traces';

let desk: Desk;
let db: Knex;
beforeAll(async () => {
  desk = await Desk.open();
  db = desk.db;
});
afterAll(() => desk.close());

const LOG = [
  'Time [s],Input [bar],Output [bar]',
  ...Array.from({ length: 400 }, (_, i) => {
    const input = i / 10;
    const output = input < 3 ? input : Math.min(3.6 * input, 80.8 + 0.915 * input);
    return `${(i / 10).toFixed(1)},${input.toFixed(2)},${output.toFixed(2)}`;
  }),
  '',
].join('\n');

const request = (query: Record<string, string>, body: BodyInit | null = LOG, signal?: AbortSignal) =>
  new Request(`http://127.0.0.1/api/v1/traces/import?${new URLSearchParams(query)}`, {
    method: 'POST',
    body,
    signal,
    ...(body instanceof ReadableStream ? { duplex: 'half' } : {}),
  });
/** How the log is written, with something changed in its only column. */
const layoutOf = (change: object) => ({
  delimiter: ',',
  decimal: '.',
  firstLine: 1,
  time: { index: 0, kind: 'seconds', interval_s: 1 },
  columns: [
    { index: 1, name: 'In', port: 'input', quantity: 'pressure', unit: 'bar', form: null, ...change },
  ],
});
const count = async () => (await listTraces(db)).length;

describe('a log that is sent', () => {
  test('is kept under its name, with its job and profile, and worked out by them', async () => {
    const tollan = (await listProfiles(db)).find(({ body }) => body.name === 'Tollan RV-230')!;
    const job = await desk.jobOf('GF-0412');
    const { id, body } = taken(
      await importLog(db, request({ name: 'From the cab', profile: tollan.id, job: job.id })),
    );
    expect(body).toMatchObject({
      name: 'From the cab',
      source: 'file',
      rows: 400,
      profileId: tollan.id,
      jobId: job.id,
      runId: null,
      troubleCount: 0,
    });
    expect((await findTrace(db, id))!.body.layout).toMatchObject({ delimiter: ',', firstLine: 1 });
    const odd = await importLog(db, request({ name: 'Odd' }, LOG.replace('Output [bar]', 'Output')));
    expect(odd.ok && odd.value.doubts).toEqual(['“Output” names no unit: choose one.']);
  });
  test.each([
    ['without a name', {}, /^name/],
    ['with a blank name', { name: '  ' }, /Give the trace a name/],
    ['with a layout that is no JSON', { name: 'x', layout: '{' }, /Layout: this is not JSON/],
    ['with a layout that is none', { name: 'x', layout: '{"delimiter":"?"}' }, /layout/],
    ['for a profile that is not there', { name: 'x', profile: newId() }, /Profile: there is none/],
    [
      'with a column of pressure in degrees',
      { name: 'x', layout: JSON.stringify(layoutOf({ unit: 'degC' })) },
      /Column 2: this quantity is not measured in that unit/,
    ],
    [
      'with a column that is the time as well',
      { name: 'x', layout: JSON.stringify(layoutOf({ index: 0 })) },
      /Column 1 is used twice/,
    ],
    ['for a job that is not there', { name: 'x', job: newId() }, /Job: there is none of this number/],
  ])('%s is refused before it is read', async (_name, query, why) => {
    const before = await count();
    expect(whyNot(await importLog(db, request(query as Record<string, string>)))).toMatch(why);
    expect(await count()).toBe(before);
  });
  test.each([
    ['that is empty', '', /The file is empty/],
    ['in a unit that is not known', 'time [s],in [furlong]\n0,1\n1,2\n2,3\n', /“in” is in “furlong”/],
    ['that is a picture', new Uint8Array([0xff, 0xd8, 0, 1, 2, 3]), /not a text file/],
    ['of prose', 'Dear customer,\nall is well.\nRegards\n', /No columns of numbers/],
    ['of too few lines', 'time [s],in [bar],out [bar]\n0,1,2\n1,2,3\n', /Only 2 lines/],
  ])('%s is refused with its reason, and nothing is kept', async (_name, body, why) => {
    const before = await count();
    expect(whyNot(await importLog(db, request({ name: 'x' }, body as BodyInit)))).toMatch(why);
    expect(await count()).toBe(before);
  });
  test('a layout that was confirmed is gone by, not what would be found', async () => {
    const found = taken(await analyseLog(db, request({}))).layout;
    const swapped = {
      ...found,
      columns: found.columns.map((column) => ({
        ...column,
        port: column.port === 'input' ? 'output' : 'input',
      })),
    };
    const read = taken(await analyseLog(db, request({ layout: JSON.stringify(swapped) })));
    expect(read.layout).toEqual(swapped);
    expect(read.analysis.stretches.map(({ kind }) => kind)).not.toContain('pull');
  });
});

describe('a log that is only worked out', () => {
  test('gives every result and keeps nothing', async () => {
    const before = await count();
    const read = taken(await analyseLog(db, request({})));
    expect(read).not.toHaveProperty('packed');
    const pull = read.analysis.stretches.find(({ kind }) => kind === 'pull')!;
    const { estimate } = pull.results.find(({ id }) => id === 'boost-ratio')!;
    expect(estimate.told && estimate.value).toBeCloseTo(3.6, 2);
    expect(await count()).toBe(before);
  });
  test('says what was in doubt and what could not be read', async () => {
    const body = LOG.replace('Output [bar]', 'Output').replace('\n1.0,', '\nnonsense,');
    const read = taken(await analyseLog(db, request({}, body)));
    expect(read.doubts.join()).toMatch(/“Output” names no unit/);
    expect(read.troubles).toEqual([{ line: 12, column: 1, what: 'no time here: line left out' }]);
  });
});

describe('the worker', () => {
  const of = () => aboutFor(db, {});
  /** A log as a stream of pieces that never ends by itself. */
  const endless = (tell: (sent: number) => void) => {
    let sent = 0;
    const piece = new TextEncoder().encode(LOG);
    return new ReadableStream<Uint8Array>({
      pull(controller) {
        sent += 1;
        tell(sent);
        controller.enqueue(piece.slice());
      },
    });
  };
  test('stops where the sender goes away', async () => {
    const leave = new AbortController();
    const body = endless((sent) => sent === 5 && leave.abort());
    const outcome = await readLog(body, { layout: null, about: await of(), bytes: 0 }, leave.signal);
    expect(outcome).toEqual({ ok: false, why: 'Reading was stopped. Nothing was taken in.' });
  });
  test('works out readings in hand as it would a file of them', async () => {
    const trace = benchTrace(family.healthy(profile).values, 20 * INHG, WHOLE_TEST, {
      seed: 2,
      rate_Hz: 25,
      pressureNoise_Pa: 0.1 * BAR,
      vacuumNoise_Pa: 60,
    });
    const { rows, analysis, packed } = await workOut(trace, await of());
    expect([rows, packed.rows]).toEqual([trace.time_s.length, trace.time_s.length]);
    expect(analysis.stretches.map(({ kind }) => kind)).toEqual(
      expect.arrayContaining(['bypass', 'pull', 'hold', 'vacuum']),
    );
  });
});
