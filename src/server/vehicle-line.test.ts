/** @jest-environment node */
import type { Heard } from '@/core/contract/vehicle-interface';
import { identifierWith, bytesFor, USUAL_MAP } from '@/core/shop/identifier-map';
import type { VehicleControl, VehicleMessage, VehicleStatus } from '@/core/shop/vehicle-live';
import { VehicleStandIn, type BehindInterface } from '@/devices/vehicle/stand-in';
import { VehicleLine, type ControlKept } from './vehicle-line';

const [TESTER, UNIT, PUMP, PRESSURE] = [0x0e80, 0x1b10, 0x4b02, 0x4b03];
const RUN = '7b0c1b52-6f0e-4f0e-8a52-0c8f5b4f7a11';
const NOW = '2026-11-29T09:00:00.000Z';
/** Far longer than anything takes: a starved machine has its time. */
const PATIENCE_MS = 20_000;

/** A vehicle that stands, with its engine off, and a pump that does as it is told. */
class Car implements BehindInterface {
  speed: number | null = 0;
  pump: number | null = null;
  refuses: number | null = null;
  keepsIt = false;
  /** Number of an identifier that the unit does not know. */
  unknown: number | null = null;
  read(number: number): Uint8Array | null {
    const identifier = USUAL_MAP.identifiers.find((one) => parseInt(one.number, 16) === number);
    const values = {
      pump: this.pump ?? 0,
      speed: this.speed,
      testState: 0,
      unitPressure: 60_000,
      barometer: 101_300,
    };
    return identifier && number !== this.unknown ? bytesFor(identifier, values) : null;
  }
  control(number: number, state: number | null): number | null {
    if (this.refuses !== null && state !== null) return this.refuses;
    if (this.keepsIt && state === null) return 0x22;
    if (number === PUMP) this.pump = state;
    return null;
  }
  codes = () => [];
  clear() {}
}

/** What is written down of a control, in place of a file. */
class Kept implements ControlKept {
  written: VehicleControl | null = null;
  left = () => this.written;
  keep(control: VehicleControl) {
    this.written = control;
  }
  forget() {
    this.written = null;
  }
}

async function until(holds: () => boolean): Promise<void> {
  const began = Date.now();
  while (!holds()) {
    if (Date.now() - began > PATIENCE_MS) throw new Error('It never came to be.');
    await new Promise((done) => setTimeout(done, 10));
  }
}

describe('the line to a vehicle interface', () => {
  let car: Car;
  let kept: Kept;
  let standIn: VehicleStandIn;
  let line: VehicleLine;
  let heard: Heard[];
  let leave: () => void;
  const statuses: VehicleStatus[] = [];
  const tell = (message: VehicleMessage) => {
    if (message.type === 'heard') heard.push(message.heard);
    if (message.type === 'status') statuses.push(message.status);
  };
  const begin = async (times = {}) => {
    const port = await standIn.start(0);
    line = new VehicleLine(`127.0.0.1:${port}`, USUAL_MAP, kept, times);
    leave = line.watch({ run: RUN, reads: ['pump', 'unitPressure'], tell });
    await until(() => line.status.state === 'reading' && heard.length > 0);
  };
  beforeEach(() => {
    [car, kept, heard, statuses.length] = [new Car(), new Kept(), [], 0];
    standIn = new VehicleStandIn({ tester: TESTER, unit: UNIT }, car, 300);
  });
  afterEach(async () => {
    await line.stop();
    await standIn.stop();
  });

  test('tells what the screens show, by the map, and with it what stands beside it', async () => {
    await begin();
    expect(heard[0]!.values).toEqual({ pump: 0, unitPressure: 60_000, barometer: 101_300 });
    expect(heard[0]!.asked).toEqual([]);
    expect(identifierWith(USUAL_MAP, 'unitPressure')!.number).toBe('4B03');
  });

  test('of one value that the unit does not know it is said, and the others are told', async () => {
    car.unknown = PRESSURE;
    await begin();
    expect(heard[0]!.values).toEqual({ pump: 0 });
    const { name } = identifierWith(USUAL_MAP, 'unitPressure')!;
    expect(line.status.trouble).toMatch(new RegExp(`^${name}: .*(does not know|not known|no such)`, 'i'));
  });

  test('taken, it is written down first, and told with every moment; given back, it is forgotten', async () => {
    await begin();
    expect(await line.take(RUN, 'pump', 'On', NOW)).toBeNull();
    expect(car.pump).toBe(1);
    expect(kept.written).toMatchObject({ value: 'pump', state: 'On', run: RUN, since: NOW });
    await until(() => heard.at(-1)!.asked.includes('pump'));
    expect(await line.take(RUN, 'pump', 'Off', NOW)).toMatch(/give it back first/);
    await line.giveBack();
    expect(car.pump).toBeNull();
    expect(kept.written).toBeNull();
    expect(line.status).toMatchObject({ control: null, said: { isGrave: false } });
  });

  test('nothing is controlled that moves, does not say that it stands, is not the map’s, or that nobody looks at', async () => {
    await begin();
    expect(await line.take('another', 'pump', 'On', NOW)).toMatch(/Nobody looks/);
    expect(await line.take(RUN, 'accumulator', 'On', NOW)).toMatch(/nothing of that name/);
    expect(await line.take(RUN, 'pump', 'Backwards', NOW)).toMatch(/nothing of that name/);
    car.speed = 3;
    expect(await line.take(RUN, 'pump', 'On', NOW)).toMatch(/moves/);
    car.speed = null;
    expect(await line.take(RUN, 'pump', 'On', NOW)).toMatch(/does not say that it stands/);
    car.unknown = parseInt(identifierWith(USUAL_MAP, 'speed')!.number, 16);
    expect(await line.take(RUN, 'pump', 'On', NOW)).toMatch(/does not say that it stands/);
    expect([car.pump, kept.written]).toEqual([null, null]);
  });

  test('of two that ask at once one is told so', async () => {
    await begin();
    const both = await Promise.all([line.take(RUN, 'pump', 'On', NOW), line.take(RUN, 'pump', 'Off', NOW)]);
    expect(both).toEqual([null, expect.stringMatching(/already/)]);
    expect(car.pump).toBe(1);
  });

  test('refused by the unit, it is said, and nothing is left written down', async () => {
    await begin();
    car.refuses = 0x93;
    expect(await line.take(RUN, 'pump', 'On', NOW)).toMatch(/supply is too low/);
    expect(line.status).toMatchObject({ control: null, said: { isGrave: false } });
    expect(kept.written).toBeNull();
  });

  test('a screen that is lost gives it back', async () => {
    await begin();
    await line.take(RUN, 'pump', 'On', NOW);
    leave();
    await until(() => car.pump === null);
    await until(() => kept.written === null);
    expect(line.status.said!.says).toMatch(/was left/);
  });

  test.each([
    ['the last one there is', false],
    ['the last one of the test', true],
  ])('a screen that is lost just as it is taken, %s, gives it back', async (_which, another) => {
    await begin();
    const other = another ? line.watch({ run: '', reads: ['pump'], tell }) : () => {};
    const taking = line.take(RUN, 'pump', 'On', NOW);
    leave();
    await taking;
    await until(() => car.pump === null && line.status.control === null && kept.written === null);
    // It can be taken anew.
    leave = line.watch({ run: RUN, reads: ['pump'], tell });
    await until(() => line.status.state === 'reading');
    expect(await line.take(RUN, 'pump', 'On', NOW)).toBeNull();
    other();
  });

  test('what is read of an earlier control forgets nothing of one that lasts', async () => {
    await begin();
    await line.take(RUN, 'pump', 'On', NOW);
    line.seen();
    expect(kept.written).not.toBeNull();
  });

  test('after its time it is given back by itself, and that is said', async () => {
    await begin({ control: 300 });
    await line.take(RUN, 'pump', 'On', NOW);
    await until(() => line.status.control === null);
    expect(car.pump).toBeNull();
    expect(line.status.said!.says).toMatch(/by itself after 30 s/);
  });

  test('a unit that does not give itself back after its time is said gravely, and goes on being written down', async () => {
    await begin({ control: 200 });
    await line.take(RUN, 'pump', 'On', NOW);
    car.keepsIt = true;
    await until(() => line.status.said !== null);
    expect(line.status.said).toMatchObject({
      isGrave: true,
      says: expect.stringMatching(/could not be given back/),
    });
    expect(kept.written).not.toBeNull();
    car.keepsIt = false;
  });

  test('a line that fails under control is said gravely, the unit takes itself back, and it stays written down until it was read', async () => {
    await begin();
    await line.take(RUN, 'pump', 'On', NOW);
    standIn.mischief = { instead: 'cut' };
    await until(() => line.status.said?.isGrave === true);
    expect(line.status.said!.says).toMatch(/could not be given back/);
    await until(() => car.pump === null);
    expect(kept.written).not.toBeNull();
    const again = new VehicleLine('127.0.0.1:1', USUAL_MAP, kept);
    expect(again.status.left).toMatchObject({ value: 'pump', state: 'On' });
    again.seen();
    expect([again.status.left, kept.written]).toEqual([null, null]);
  });

  test('one that lets itself be spoken to and answers nothing whole does not read, however often it is tried', async () => {
    await begin({ answered: 100 });
    statuses.length = 0;
    standIn.mischief = { instead: 'half' };
    await until(() => statuses.filter(({ state }) => state === 'lost').length >= 2);
    expect(statuses.filter(({ state }) => state === 'reading')).toEqual([]);
    standIn.mischief = {};
    await until(() => line.status.state === 'reading' && line.status.trouble === null);
  });

  test('an interface that is not there is said, and tried again', async () => {
    await begin();
    const { address } = line;
    await standIn.stop();
    await until(() => line.status.state === 'lost');
    expect(line.status.trouble).toMatch(/Trying again/);
    standIn = new VehicleStandIn({ tester: TESTER, unit: UNIT }, car);
    await standIn.start(Number(address.split(':')[1]));
    await until(() => line.status.state === 'reading');
  });
});
