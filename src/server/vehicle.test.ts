/** @jest-environment node */
import { existsSync, mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { randomUUID } from 'node:crypto';
import { codeLine, notSaved, type TroubleCode } from '@/core/records/trouble-codes';
import { FAMILIES } from '@/core/families/registry';
import { seeded } from '@/core/numeric/chance';
import { rehearse } from '@/core/procedure/rehearse';
import { jobQuerySchema } from '@/core/records/job-query';
import type { StoredRun } from '@/core/records/views';
import { bytesFor, USUAL_MAP } from '@/core/shop/identifier-map';
import { VehicleStandIn, type BehindInterface } from '@/devices/vehicle/stand-in';
import { Desk, taken, whyNot } from './demo/desk';
import { FIXTURE_NOW as NOW } from './demo/fixture';
import { searchJobs } from './job-list';
import { readRecord } from './record';
import { insertEvents, startRun } from './runs';
import { readSettings, writeSettings } from './shelf';
import {
  controlVehicle,
  hangUpVehicle,
  heardCsv,
  identifierMap,
  seenControl,
  vehicleLine,
  vehicleStream,
  writeMap,
} from './vehicle';
import { readCodes } from './vehicle-codes';
import { verify } from './verify';

const KNOCK: TroubleCode = { code: 'C12A1-62', status: 0x09 };
const FUSE: TroubleCode = { code: 'U0100-87', status: 0x44 };

/** A vehicle with codes, which stands still. One that is still wrong comes back as soon as they are cleared. */
class Car implements BehindInterface {
  stored: TroubleCode[] = [KNOCK];
  comesBack: TroubleCode[] = [];
  cleared = 0;
  pump: number | null = null;
  read(number: number) {
    const identifier = USUAL_MAP.identifiers.find((one) => parseInt(one.number, 16) === number);
    return identifier ? bytesFor(identifier, { speed: 0, testState: 0, pump: this.pump ?? 0 }) : null;
  }
  control(_number: number, state: number | null) {
    this.pump = state;
    return null;
  }
  codes() {
    return this.stored;
  }
  clear() {
    this.cleared += 1;
    this.stored = this.comesBack;
  }
}

let desk: Desk;
let car: Car;
let standIn: VehicleStandIn;
let job: string;
const folder = mkdtempSync(path.join(tmpdir(), 'hard-pedal-vehicle-'));
const before = process.env.HARD_PEDAL_DATA;
beforeAll(async () => {
  process.env.HARD_PEDAL_DATA = folder;
  desk = await Desk.open();
  job = (await desk.jobOf('GF-0440')).id;
});
afterAll(async () => {
  await desk.close();
  process.env.HARD_PEDAL_DATA = before;
  rmSync(folder, { recursive: true });
});
beforeEach(async () => {
  car = new Car();
  standIn = new VehicleStandIn({ tester: 0x0e80, unit: 0x1b10 }, car);
  await named(`127.0.0.1:${await standIn.start(0)}`);
});
afterEach(async () => {
  await hangUpVehicle();
  await standIn.stop();
});
async function named(vehicle: string) {
  const { version, body } = await readSettings(desk.db);
  taken(await writeSettings(desk.db, version, { ...body, vehicle }, NOW));
}
const read = (clears: string | null = null, id: string = randomUUID()) =>
  readCodes(desk.db, job, { id, clears }, NOW);
describe('trouble codes', () => {
  test('in words, each with its status; a code that was not there is one that was not saved', () => {
    expect(codeLine(KNOCK)).toBe('C12A1-62: failed when last tested, confirmed');
    expect(codeLine({ code: 'P0001-00', status: 0 })).toBe('P0001-00');
    expect(notSaved([KNOCK], [{ ...KNOCK, status: 0x08 }, FUSE])).toEqual([FUSE]);
  });
  test('are read into the job, found by the search, and cleared once they are saved; sent twice, cleared once', async () => {
    const saved = randomUUID();
    expect(taken(await read(null, saved)).codes.at(-1)).toMatchObject({
      id: saved,
      what: { found: [KNOCK], clears: null },
    });
    expect((await searchJobs(desk.db, jobQuerySchema.parse({ q: 'C12A1' }))).total).toBe(1);
    const clearing = randomUUID();
    for (let times = 0; times < 2; times += 1)
      expect(taken(await read(saved, clearing)).codes.at(-1)).toMatchObject({
        what: { found: [], clears: saved },
      });
    expect(car.cleared).toBe(1);
    // Under a name that stands for something else nothing is read, and nothing cleared.
    const entries = (await readRecord(desk.db, job))!.length;
    const { id: elsewhere } = await desk
      .db('journal')
      .whereNot({ chain: `job/${job}` })
      .first('id');
    for (const [clears, id] of [
      [null, clearing],
      [saved, saved],
      [saved, elsewhere],
    ] as const)
      expect(whyNot(await read(clears, id))).toMatch(/stands for something else already/);
    expect([car.cleared, (await readRecord(desk.db, job))!.length]).toEqual([1, entries]);
    expect((await verify(desk.db)).alterations).toEqual([]);
  });
  test('one that comes back at once is written down behind the clearing', async () => {
    const saved = randomUUID();
    taken(await read(null, saved));
    car.comesBack = [FUSE];
    expect(taken(await read(saved)).codes.at(-1)!.what.found).toEqual([FUSE]);
  });
  test('are not cleared where they were not saved, or others stand there by now', async () => {
    expect(whyNot(await read(randomUUID()))).toMatch(/not saved in this job/);
    const saved = randomUUID();
    taken(await read(null, saved));
    car.stored = [KNOCK, FUSE];
    expect(whyNot(await read(saved))).toMatch(/U0100-87.*read and save them first/);
    expect(car.cleared).toBe(0);
  });
  test('no address, nobody there, a unit that refuses: a sentence, and nothing written', async () => {
    const { length } = taken(await read());
    standIn.mischief = { refuses: 0x22 };
    expect(whyNot(await read())).toMatch(/conditions are not right/);
    await standIn.stop();
    expect(whyNot(await read())).toMatch(/refused|does not answer|nothing/i);
    await named('');
    expect(whyNot(await read())).toMatch(/No vehicle interface is set/);
    expect((await readRecord(desk.db, job))!.length).toBe(length);
    standIn = new VehicleStandIn({ tester: 0x0e80, unit: 0x1b10 }, car);
    await standIn.start(0);
  });
});
/** What somebody has read of a sound vehicle before an item. */
function readUntil({ kind, context, events }: StoredRun, until: string) {
  const family = FAMILIES[kind];
  const truth = {
    parameters: family.healthy(context.profile).values,
    supply_Pa: 0,
    gauges: {},
    signs: {},
    noise_steps: 0,
  };
  return rehearse(family, context, truth, { random: seeded(4), startAt: NOW, from: events, until });
}

describe('control for a test', () => {
  test('is written on the disk while it lasts, and only for a test that is open and looked at', async () => {
    const run = taken(await startRun(desk.db, job, NOW));
    const ask = { run: run.id, value: 'pump', state: 'On' };
    expect(whyNot(await controlVehicle(desk.db, { ...ask, run: randomUUID() }, NOW))).toMatch(/no such run/);
    expect(whyNot(await controlVehicle(desk.db, ask, NOW))).toMatch(/asks for nothing of the kind/);
    await insertEvents(desk.db, run, readUntil(run, 'switch.off'), NOW);
    expect(whyNot(await controlVehicle(desk.db, { ...ask, state: 'Off' }, NOW))).toMatch(
      /nothing of the kind/,
    );
    expect(whyNot(await controlVehicle(desk.db, ask, NOW))).toMatch(/Nobody looks/);
    const line = (await vehicleLine(desk.db))!;
    let heard = 0;
    const leave = line.watch({
      run: run.id,
      reads: ['pump'],
      tell: ({ type }) => (heard += Number(type === 'heard')),
    });
    while (heard === 0) await new Promise((done) => setTimeout(done, 10));
    expect(whyNot(await controlVehicle(desk.db, ask, NOW))).toBe('');
    const file = path.join(folder, 'vehicle-control.json');
    expect(JSON.parse(readFileSync(file, 'utf8'))).toMatchObject({ value: 'pump', run: run.id });
    const now = heard;
    while (heard < now + 2) await new Promise((done) => setTimeout(done, 10));
    const csv = taken(await heardCsv(desk.db, run.id)).body;
    expect(csv).toMatch(/^\uFEFFTime \(s\),Vacuum pump,Under control\r\n/);
    expect(csv).toMatch(/,On,pump\r\n/);
    expect(whyNot(await controlVehicle(desk.db, { ...ask, state: null }, NOW))).toBe('');
    expect([existsSync(file), car.pump]).toEqual([false, null]);
    leave();
    expect(whyNot(await heardCsv(desk.db, randomUUID()))).toMatch(/Nothing was heard/);
  });
  test('without an interface nothing is controlled, and a screen is told that there is none', async () => {
    await named('');
    const ask = { run: randomUUID(), value: 'pump', state: null };
    expect(whyNot(await controlVehicle(desk.db, ask, NOW))).toMatch(/No vehicle interface is set/);
    expect(whyNot(await controlVehicle(desk.db, { ...ask, value: '' }, NOW))).toMatch(/value/);
    expect(whyNot(await seenControl(desk.db))).toMatch(/No vehicle interface is set/);
    const leave = new AbortController();
    const reader = (await vehicleStream(desk.db, new URLSearchParams(), leave.signal)).getReader();
    const { value } = await reader.read();
    expect(new TextDecoder().decode(value)).toMatch(/"type":"status".*"state":"off"/);
    leave.abort();
    await reader.cancel();
  });
  test('a screen is told what it asked for, and of an ended test nothing is controlled', async () => {
    const leave = new AbortController();
    const query = new URLSearchParams({ run: randomUUID(), reads: 'pump,,speed' });
    const reader = (await vehicleStream(desk.db, query, leave.signal)).getReader();
    let text = '';
    while (!text.includes('"heard"')) text += new TextDecoder().decode((await reader.read()).value);
    const [, values] = /"values":({[^}]*})/.exec(text)!;
    // With what stands beside it in the same answer, and nothing else.
    expect(Object.keys(JSON.parse(values!) as object).sort()).toEqual(['pump', 'speed', 'testState']);
    leave.abort();
    await reader.cancel();
    const { id } = (await desk.db('runs').whereNotNull('finished_at').first('id')) as { id: string };
    const ask = { run: id, value: 'pump', state: 'On' };
    expect(whyNot(await controlVehicle(desk.db, ask, NOW))).toMatch(/test is over/);
  });
});

test('a map of another vehicle takes the place of the usual one; one that makes no sense, or is behind, is refused', async () => {
  const { version, body } = await identifierMap(desk.db);
  expect(body).toEqual(USUAL_MAP);
  const other = { ...USUAL_MAP, name: 'Another vehicle', unit: '1B11' };
  expect(taken(await writeMap(desk.db, version, other, NOW)).body.name).toBe('Another vehicle');
  expect(whyNot(await writeMap(desk.db, version, USUAL_MAP, NOW))).toMatch(/changed on another screen/);
  expect(whyNot(await writeMap(desk.db, version + 1, { ...other, tester: 'xyz' }, NOW))).toMatch(
    /hexadecimal/,
  );
  // It is read by that map from now on: this unit answers to another address.
  expect((await vehicleLine(desk.db))!.map.unit).toBe('1B11');
  taken(await writeMap(desk.db, version + 1, USUAL_MAP, NOW));
});
