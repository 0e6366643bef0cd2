/** @jest-environment node */
import { createServer, connect, type Server } from 'node:net';
import { FAMILIES } from '@/core/families/registry';
import type { LoggerStatus } from '@/core/shop/live';
import { LoggerClient, type LoggerSample } from './client';
import { catalogueText, Lines, parseCatalogue, parseSample, sampleText } from './protocol';
import { SimBench } from './sim-bench';
import { StandIn, UNIT_NAMES } from './stand-in';
import { INSTRUMENT_QUANTITIES } from '@/core/metrology/instrument';
import { findUnit } from '@/core/quantities/units';
import { TYPICAL_BENCH } from './typical-bench';

const BAR = 1e5;
const until = async (what: () => boolean, ms = 60_000) => {
  const end = Date.now() + ms;
  while (!what() && Date.now() < end) await new Promise((soon) => setTimeout(soon, 10));
  expect(what()).toBe(true);
};

describe('the protocol', () => {
  test('every quantity of an instrument has a unit whose name finds it again', () => {
    for (const quantity of INSTRUMENT_QUANTITIES) {
      const { name, unit } = UNIT_NAMES[quantity];
      expect(unit.measures).toContain(quantity);
      expect(findUnit(name)).toBe(unit);
    }
  });
  test('a scale that begins below zero is told, and ends there', () => {
    const volts = { tag: 'M-1', port: 'input', quantity: 'voltage', fullScale_Pa: 5, step_Pa: 0.01 } as const;
    const gauges = [{ ...volts, lowEnd_Pa: -5, zero_Pa: -9 }];
    const bench = new SimBench({ ...TYPICAL_BENCH, gauges });
    expect(bench.read()[0]).toBeCloseTo(-5.1, 6);
  });

  test('a catalogue comes back as it was written', () => {
    const channels = [
      { tag: 'G-11', unit: 'BAR', low: 0, high: 10 },
      { tag: 'V-31', unit: 'KPA', low: -5, high: 101.6 },
    ];
    expect(parseCatalogue(catalogueText(channels))).toEqual(channels);
    for (const text of [
      '',
      'nonsense',
      '"G","BAR",0',
      '"G","BAR",0,x',
      Array(80).fill('"G","BAR",0,1').join(';'),
    ])
      expect(parseCatalogue(text)).toBeNull();
  });
  test('a sample comes back; one that is garbled does not', () => {
    expect(parseSample(sampleText(1.25, [2.5, NaN]), 2)).toEqual({ t_s: 1.25, values: [2.5, NaN] });
    for (const line of ['#1,2', '#1,2,3,4', '#x,2,3', '#1,,3', '#1,inf,3', '1,2,3', '#?!,,x'])
      expect(parseSample(line, 2)).toBeNull();
  });
  test('lines come whole from pieces, and an endless one is no line', () => {
    const lines = new Lines();
    expect(lines.push('#1,2\r\n#3')).toEqual(['#1,2']);
    expect(lines.push(',4\n\n')).toEqual(['#3,4']);
    expect(lines.push('x'.repeat(5000))).toBeNull();
    expect(lines.push('ok\n')).toEqual(['ok']);
  });
});

describe('the simulated bench with a servo on it', () => {
  const servo = FAMILIES['rod-servo'];
  const unit = { ...TYPICAL_BENCH, kind: 'rod-servo' as const, profile: servo.typical, noise_steps: 0 };
  const place = (tag: string) => TYPICAL_BENCH.gauges.findIndex((gauge) => gauge.tag === tag);
  test('the load cell reads its force, and gauges that it has no place for lie vented', () => {
    const bench = new SimBench(unit);
    bench.set({ valve: 'open' });
    bench.advance(60, 0.1, () => undefined);
    bench.set({ handle_Pa: 9 * BAR, pull_PaPerS: 3 * BAR });
    bench.advance(15, 0.1, () => undefined);
    const shown = bench.read();
    const tank_Pa = shown[place('V-31')]!;
    // Full lift at 8 bar: (Δp·0.02 − 100)/(1 + 2/60).
    expect(shown[place('L-51')]).toBeCloseTo((tank_Pa * 0.02 - 100) / (1 + 2 / 60), -1);
    expect(shown[place('G-11')]! / BAR).toBeCloseTo(9, 1);
    expect([place('G-21'), place('G-22'), place('V-41')].map((i) => shown[i])).toEqual([0, 0, 0]);
  });
  test('with a remote unit on it the load cell lies idle, and a thermometer in no oil shows the room', () => {
    const bench = new SimBench({ ...TYPICAL_BENCH, noise_steps: 0 });
    bench.set({ handle_Pa: 20 * BAR, pull_PaPerS: 20 * BAR });
    bench.advance(4, 0.1, () => undefined);
    expect(bench.read()[place('L-51')]).toBe(0);
    for (const tag of ['T-87', 'T-95']) expect(bench.read()[place(tag)]).toBeCloseTo(293.15, 1);
    expect(bench.read()[place('G-22')]! / BAR).toBeCloseTo(20, 0);
  });
});

describe('the simulated bench', () => {
  test('shows what gauges show: steps, end stops, errors of their own', () => {
    const bench = new SimBench({
      ...TYPICAL_BENCH,
      noise_steps: 0,
      gauges: TYPICAL_BENCH.gauges.map((g) =>
        g.tag === 'G-22' ? { ...g, scale: 1.08, zero_Pa: 0.5 * BAR } : g,
      ),
    });
    bench.set({ handle_Pa: 50 * BAR, pull_PaPerS: 20 * BAR });
    bench.advance(6, 0.02, () => undefined);
    const [low, high, , out] = bench.read();
    expect(low).toBeCloseTo(10.2 * BAR, 0);
    expect(high! / BAR).toBeCloseTo(50, 1);
    expect(out! / BAR).toBeCloseTo(1.08 * 50 + 0.5, 1);
    expect(bench.hands.handle_Pa).toBe(50 * BAR);
  });
  test('a fault that the unit does not have is refused', () => {
    expect(() => new SimBench({ ...TYPICAL_BENCH, fault: ['gremlins', 1] })).toThrow('fault: no “gremlins”');
  });
});

describe('the stand-in and its reader', () => {
  let standIn: StandIn;
  let ports: { logger: number; hands: number };
  let client: LoggerClient;
  let statuses: LoggerStatus[];
  let samples: LoggerSample[];
  const last = () => statuses.at(-1)!;
  const read = (port: number, rate_Hz = 200, now = Date.now) =>
    new LoggerClient(
      { host: '127.0.0.1', port },
      rate_Hz,
      { status: (status) => statuses.push(status), sample: (sample) => samples.push(sample) },
      now,
    );
  const hand = (message: object) =>
    new Promise<{ ok: boolean; why?: string }>((resolve) => {
      const socket = connect(ports.hands, '127.0.0.1', () => socket.write(`${JSON.stringify(message)}\n`));
      socket.on('data', (text) => {
        socket.destroy();
        resolve(JSON.parse(String(text)) as { ok: boolean });
      });
    });
  /** Asks the logger as any program would, over a socket of its own. */
  const ask = (...commands: string[]) =>
    askFor(commands.filter((command) => command.includes('?')).length, ...commands);
  const askFor = (wanted: number, ...commands: string[]) =>
    new Promise<string[]>((resolve) => {
      const answers: string[] = [];
      const lines = new Lines();
      const socket = connect(ports.logger, '127.0.0.1', () => socket.write(`${commands.join('\n')}\n`));
      socket.setEncoding('ascii');
      socket.on('data', (text) => {
        answers.push(...lines.push(String(text))!);
        if (answers.length < wanted) return;
        socket.destroy();
        resolve(answers);
      });
    });

  beforeEach(async () => {
    statuses = [];
    samples = [];
    standIn = new StandIn(TYPICAL_BENCH, () => performance.now() / 1000);
    ports = await standIn.start(0, 0);
    client = read(ports.logger);
  });
  afterEach(async () => {
    client.stop();
    await standIn.stop();
  });

  test('answers who it is, what it reads, single readings, and errors in turn', async () => {
    const [name, catalogue, one, all] = await ask('*IDN?', 'CHAN:CAT?', 'READ? "G-12"', 'READ?');
    expect(name).toMatch(/^Hard Pedal,Bench stand-in/);
    expect(parseCatalogue(catalogue!)!.map(({ tag }) => tag)).toEqual([
      ...['G-11', 'G-12', 'G-21', 'G-22', 'V-31', 'V-41', 'L-51'],
      ...['P-71', 'P-72', 'F-73', 'V-75'],
      ...['A-81', 'A-82', 'C-83', 'C-84', 'C-85', 'R-86', 'T-87', 'A-91', 'U-92', 'I-93', 'U-94', 'T-95'],
      ...[
        'S-97',
        'Q-98',
        'P-101',
        'P-102',
        'A-103',
        'N-106',
        'U-109',
        'U-115',
        'I-110',
        'U-111',
        'U-112',
        'U-113',
        'U-116',
        'P-121',
        'P-122',
        'P-123',
        'P-124',
        'U-117',
        'U-118',
        'U-119',
        'U-125',
        'U-126',
        'U-127',
        'U-128',
        'N-131',
        'N-132',
      ],
      ...['travel', 'gap', 'left', 'right'],
    ]);
    expect(Math.abs(Number(one))).toBeLessThan(1);
    expect(all!.split(',')).toHaveLength(TYPICAL_BENCH.gauges.length);
    expect(await ask('FLY:AWAY', 'STR:RATE', 'STR:RATE 5', ...Array<string>(4).fill('SYST:ERR?'))).toEqual([
      '-113,"Undefined header"',
      '-109,"Missing parameter"',
      '-224,"Illegal parameter value"',
      '0,"No error"',
    ]);
  });
  test('tells each channel with the ends of its scale, in its own unit', async () => {
    const [catalogue] = await ask('CHAN:CAT?');
    const told = new Map(parseCatalogue(catalogue!)!.map((one) => [one.tag, one]));
    // 30 inHg are 30 · 3.386389 = 101.592 kPa; 393.15 K are 120 °C; 30 L/min; 100 turns a second are 6 000 a minute.
    for (const [tag, unit, low, high] of [
      ['G-12', 'BAR', 0, 160],
      ['V-31', 'KPA', 0, 101.592],
      ['L-51', 'N', 0, 2500],
      ['R-86', 'MM', 0, 30],
      ['T-87', 'DEGC', -273.15, 120],
      ['U-94', 'V', 0, 5],
      ['Q-98', 'L/MIN', 0, 30],
      ['N-106', 'RPM', 0, 6000],
      ['N-131', 'NM', 0, 2000],
    ] as const)
      expect(told.get(tag)).toEqual({ tag, unit, low, high });
  });
  test('of a channel that there is none of it says so and nothing else; of too many errors the last is that', async () => {
    expect(await askFor(2, 'READ? "G-99"', 'SYST:ERR?', 'SYST:ERR?')).toEqual([
      '-224,"Illegal parameter value"',
      '0,"No error"',
    ]);
    const nonsense = Array<string>(20).fill('FLY:AWAY');
    const errors = await ask(...nonsense, ...Array<string>(17).fill('SYST:ERR?'));
    // Sixteen are kept: fifteen as they came, the last says that there were more.
    expect(errors).toEqual([
      ...Array<string>(15).fill('-113,"Undefined header"'),
      '-350,"Queue overflow"',
      '0,"No error"',
    ]);
  });
  test('a stream is ended where it is asked to, and the line stays', async () => {
    const heard: string[] = [];
    const socket = connect(ports.logger, '127.0.0.1', () => socket.write('STR:RATE 100\nSTR:STAR\n'));
    socket.on('data', (text) => heard.push(...String(text).trim().split('\n')));
    await until(() => heard.length > 10);
    socket.write('STR:STOP\n*IDN?\n');
    await until(() => heard.some((line) => line.startsWith('Hard Pedal')));
    const ended = heard.length;
    await new Promise((later) => setTimeout(later, 300));
    expect(heard.length).toBe(ended);
    socket.destroy();
  });
  test('time passes at once: up to a minute, and the handle has moved by then', async () => {
    for (const ahead of [-1, 61])
      expect(await hand({ ahead })).toMatchObject({ ok: false, why: 'ahead: from 0 to 60 s' });
    const began_s = standIn.stands.t_s;
    await hand({ hands: { handle_Pa: 8 * BAR, pull_PaPerS: BAR } });
    expect(await hand({ ahead: 60 })).toMatchObject({ ok: true });
    expect(standIn.stands.t_s - began_s).toBeGreaterThanOrEqual(60);
    expect(Number((await ask('READ? "G-12"'))[0])).toBeCloseTo(8, 0);
  });
  test('samples that get lost leave gaps: of every third a third is missing', async () => {
    await hand({ mischief: { dropEvery: 3 } });
    client.start();
    await until(() => samples.length > 60);
    // 200 a second: 5 ms from one to the next, and 10 ms over each that is missing.
    const gaps = samples.slice(1, 60).map(({ t_s }, i) => Math.round((t_s - samples[i]!.t_s) / 0.005));
    expect(new Set(gaps)).toEqual(new Set([1, 2]));
    const missing = gaps.filter((gap) => gap === 2).length;
    expect(missing / (gaps.length + missing)).toBeCloseTo(1 / 3, 1);
  });
  test('a line that is cut after so many samples is lost, and taken up again', async () => {
    await hand({ mischief: { cutAfter: 5 } });
    client.start();
    await until(() => statuses.filter(({ state }) => state === 'lost').length >= 2);
    expect(samples.length % 5).toBe(0);
    await hand({ mischief: {} });
    await until(() => last().state === 'streaming' && samples.length > 30);
  });
  test('streams in SI at the rate asked for, and the handle moves the readings', async () => {
    client.start();
    await until(() => samples.length > 20);
    expect(last()).toMatchObject({ state: 'streaming', trouble: null });
    const spacing = samples.slice(1).map(({ t_s }, i) => t_s - samples[i]!.t_s);
    expect(Math.max(...spacing)).toBeLessThan(0.0101);
    expect((await hand({ hands: { handle_Pa: 8 * BAR, pull_PaPerS: 40 * BAR } })).ok).toBe(true);
    await until(() => Math.abs(samples.at(-1)!.values[0]! / BAR - 8) < 0.1);
  });
  test('time passes faster where it is asked to: nineteen minutes of a bench in a few seconds', async () => {
    expect(await hand({ pace: 5000 })).toMatchObject({ ok: false, why: 'pace: from 1 to 1000' });
    expect(await hand({ pace: 300 })).toMatchObject({ ok: true });
    client.start();
    await until(() => samples.length > 0 && samples.at(-1)!.t_s - samples[0]!.t_s > 1140);
    // Nineteen minutes in some four seconds, still no more readings than were asked for.
    expect(samples.length).toBeLessThan(1000);
    expect(samples.every(({ values }) => values.every(Number.isFinite))).toBe(true);
  });
  test('a pulled cable is said, and taken up again', async () => {
    client.start();
    await until(() => samples.length > 5);
    standIn.cut();
    await until(() => last().state === 'lost');
    expect(last().trouble).toMatch(/closed the line|line to the logger broke/);
    const before = samples.length;
    await until(() => last().state === 'streaming' && samples.length > before + 5);
    expect(last().trouble).toBeNull();
  });
  test('nonsense between readings is passed over; drop-outs and late packets too', async () => {
    await hand({ mischief: { dropEvery: 3, garbleEvery: 4, lateBy: 10 } });
    client.start();
    await until(() => samples.length > 40);
    expect(
      samples.every(
        ({ values }) => values.length === TYPICAL_BENCH.gauges.length && values.every(Number.isFinite),
      ),
    ).toBe(true);
  });
  test('nothing but nonsense is said', async () => {
    await hand({ mischief: { garbleEvery: 1 } });
    client.start();
    await until(() => /lines that are no readings/.test(last()?.trouble ?? ''));
    expect(samples).toEqual([]);
  });
  test('hands that make no sense are refused', async () => {
    expect(await hand({ unit: { fault: ['gremlins', 1] } })).toMatchObject({ ok: false });
    expect((await hand({ unit: { fault: ['torn-diaphragm', 0.5], supply_Pa: 50_000 } })).ok).toBe(true);
    expect(await hand({ hands: { lever: 1 } })).toMatchObject({
      why: expect.stringMatching(/no “lever”/) as string,
    });
    expect(await hand({ hands: { handle_Pa: -1 } })).toMatchObject({ ok: false });
  });

  describe('what is no bench logger', () => {
    let other: Server;
    const serve = (talk: (line: string, say: (text: string) => void) => void) =>
      new Promise<number>((resolve) => {
        other = createServer((socket) => {
          socket.on('error', () => socket.destroy());
          const lines = new Lines();
          socket.on('data', (text) =>
            lines.push(String(text))?.forEach((line) => talk(line, (said) => socket.write(said))),
          );
        }).listen(0, '127.0.0.1', () => resolve((other.address() as { port: number }).port));
      });
    afterEach(() => new Promise((done) => other.close(done)));
    const stranger = async (talk: Parameters<typeof serve>[0], now = Date.now) => {
      client = read(await serve(talk), 200, now);
      client.start();
    };
    test('answers nothing', async () => {
      await stranger(() => undefined);
      await until(() => /does not answer \*IDN\?/.test(last()?.trouble ?? ''));
      client.stop();
    });
    test('refuses the rate: what it says of it is said', async () => {
      await stranger((line, say) => {
        if (line === '*IDN?') say('X\n');
        if (line === 'CHAN:CAT?') say('"A","BAR",0,1\n');
        if (line === 'SYST:ERR?') say('-224,"Illegal parameter value"\n');
      });
      await until(() => /It refused the rate: -224,"Illegal parameter value"\./.test(said()));
      expect(samples).toEqual([]);
      client.stop();
      expect(last()).toMatchObject({ state: 'off', trouble: null });
    });
    test('its name and channels are told as it says them, each value with its own channel and unit', async () => {
      await lying('"A","BAR",0,10;"B","KPA",-5,100;"C","V",0,5', ['#1,2,30,4', '#2,3,NAN,5']);
      await until(() => samples.length === 2);
      expect(last()).toEqual({
        state: 'streaming',
        name: 'X',
        trouble: null,
        channels: [
          { tag: 'A', unit: 'BAR', low: 0, high: 10 },
          { tag: 'B', unit: 'KPA', low: -5, high: 100 },
          { tag: 'C', unit: 'V', low: 0, high: 5 },
        ],
      });
      expect(samples).toEqual([
        { t_s: 1, values: [2 * BAR, 30_000, 4] },
        { t_s: 2, values: [3 * BAR, NaN, 5] },
      ]);
      client.stop();
    });
    test('has a catalogue that cannot be read, or units not known', async () => {
      await stranger((line, say) => say(line === '*IDN?' ? 'X\n' : '"A","FURLONG",0,1\n'));
      await until(() => /reads in “FURLONG”, a unit not known/.test(last()?.trouble ?? ''));
      client.stop();
    });
    /** A logger that answers as it should, with these channels, and then streams these lines. */
    const lying = (catalogue: string, lines: readonly string[], now?: () => number) =>
      stranger((line, say) => {
        if (line === '*IDN?') say('X\n');
        if (line === 'CHAN:CAT?') say(`${catalogue}\n`);
        if (line === 'SYST:ERR?') say('0,"No error"\n');
        if (line === 'STR:STAR') say(`${lines.join('\n')}\n`);
      }, now);
    const said = () => statuses.map(({ trouble }) => trouble).join(' ');
    const times = () => samples.map(({ t_s }) => t_s);

    test.each([
      ['two channels of one tag', '"A","BAR",0,1;"A","KPA",0,100', /two channels named A/],
      [
        'a range the wrong way round',
        '"A","BAR",0,1;"B","BAR",10,0',
        /B reads from 10 to 0 BAR, which is no range/,
      ],
      ['a range of nothing', '"A","BAR",5,5', /from 5 to 5 BAR/],
      ['a range without end', '"A","BAR",0,1E999', /from 0 to Infinity BAR/],
      ['a range beyond any gauge', '"A","BAR",0,1E13', /which is no range/],
      ['a name that no screen can show', '"A\t","BAR",0,1', /list of channels cannot be read/],
    ])('a catalogue of %s is refused', async (_name, catalogue, why) => {
      await lying(catalogue, ['#1,1']);
      await until(() => why.test(said()));
      expect(statuses.some(({ state }) => state === 'streaming')).toBe(false);
      expect(samples).toEqual([]);
      client.stop();
    });
    test('tells what no gauge of that range can show: left out, and said until it is right for a second', async () => {
      // A quarter of a range of 10 bar beyond its ends is told yet; the clock goes on by half a second a sample.
      const told = ['12.5', '-2.5', '12.6', '1e308', '-2.6', '5', '6', '7', '8'];
      let now_ms = 0;
      await lying(
        '"A","BAR",0,10;"B","BAR",0,1',
        told.map((value, i) => `#${i},${value},NAN`),
        () => (now_ms += 100),
      );
      await until(() => samples.length === told.length);
      expect(samples.map(({ values }) => values[0]! / BAR)).toEqual([12.5, -2.5, NaN, NaN, NaN, 5, 6, 7, 8]);
      expect(samples.every(({ values }) => Number.isNaN(values[1]))).toBe(true);
      expect(said()).toMatch(/A tells what a gauge from 0 to 10 BAR cannot show/);
      expect(last().trouble).toBeNull();
      client.stop();
    });
    test('has a clock that stands still: one reading of a time is taken', async () => {
      await lying('"A","BAR",0,1', Array<string>(40).fill('#7,1'));
      await until(() => /clock of the logger stands still/.test(said()));
      expect(times()).toEqual([7]);
      client.stop();
    });
    test('begins its time anew up to three times in ten seconds; then nothing of it is taken', async () => {
      const onAndOff = [0, 1, 2, 0, 1, 900, 901, 5, 6];
      await lying(
        '"A","BAR",0,1',
        [...onAndOff, 3, 4].map((t) => `#${t},1`),
        () => 1_000_000,
      );
      await until(() => /runs back or leaps again and again/.test(said()));
      expect(times()).toEqual(onAndOff);
      client.stop();
    });
    test('counts to where no clock counts', async () => {
      await lying('"A","BAR",0,1', Array<string>(30).fill('#1e300,1'));
      await until(() => /lines that are no readings/.test(said()));
      expect(samples).toEqual([]);
      client.stop();
    });

    test('goes silent three seconds after its last reading, and not while it reads on', async () => {
      jest.useFakeTimers({
        doNotFake: ['setImmediate', 'nextTick', 'performance', 'queueMicrotask', 'Date'],
      });
      try {
        let tell = (_text: string): void => undefined;
        await stranger((line, say) => {
          tell = say;
          if (line === '*IDN?') say('X\n');
          if (line === 'CHAN:CAT?') say('"A","BAR",0,1\n');
          if (line === 'SYST:ERR?') say('0,"No error"\n');
          if (line === 'STR:STAR') say('#0,1\n');
        });
        const heard = async (count: number) => {
          while (samples.length < count) await new Promise((soon) => setImmediate(soon));
        };
        for (let read = 1; read <= 4; read += 1) {
          await heard(read);
          jest.advanceTimersByTime(2000);
          expect(last().state).toBe('streaming');
          if (read < 4) tell(`#${read},1\n`);
        }
        jest.advanceTimersByTime(1100);
        expect(said()).toMatch(/gone silent/);
        client.stop();
      } finally {
        jest.useRealTimers();
      }
    });
    test('floods: within one second, which here stands still however slow the machine is', async () => {
      await stranger(
        (line, say) => {
          if (line === '*IDN?') say('X\n');
          if (line === 'CHAN:CAT?') say('"A","BAR",0,1\n');
          if (line === 'SYST:ERR?') say('0,"No error"\n');
          if (line === 'STR:STAR') say('#1,1\n'.repeat(12_000));
        },
        () => 1_000_000,
      );
      await until(() =>
        /far more readings than it was asked for/.test(statuses.map(({ trouble }) => trouble).join()),
      );
      expect(samples.length).toBeLessThanOrEqual(5000);
      client.stop();
    });
  });
  test('nothing at the address', async () => {
    await standIn.stop();
    client.start();
    await until(() => /Nothing listens at 127\.0\.0\.1, port \d+/.test(last()?.trouble ?? ''));
    client.stop();
    standIn = new StandIn(TYPICAL_BENCH, () => performance.now() / 1000);
    await standIn.start(0, 0);
  });
});
