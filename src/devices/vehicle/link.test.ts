/** @jest-environment node */
import { connect, createServer, type AddressInfo, type Server } from 'node:net';
import { VehicleLink, type Times } from './client';
import { doipBytes, DoipReader, type DoipFrame } from './doip';
import { VehicleStandIn, type BehindInterface } from './stand-in';
import {
  answerBytes,
  codeBytes,
  parseAnswer,
  parseRequest,
  requestBytes,
  type UdsAnswer,
  type UdsRequest,
} from './uds';

const TESTER = 0x0e80;
const UNIT = 0x1b10;
const PUMP = 0x4b02;
const SPEED = 0x4b19;
/** Quicker than in the protocol, and still slow beside a machine that is busy. */
const QUICK: Partial<Times> = {
  connect: 3000,
  acknowledged: 3000,
  answered: 3000,
  pending: 3000,
  present: 50,
  control: 20_000,
};
const S3_MS = 2000;

/** A pump with a switch, and two codes. */
function pump() {
  const log: (number | null)[] = [];
  let codes = [
    { code: 'C12A1-62', status: 0x09 },
    { code: 'U0100-87', status: 0x40 },
  ];
  let moving = false;
  const behind: BehindInterface = {
    read: (identifier) =>
      identifier === PUMP
        ? Uint8Array.of(log.at(-1) ?? 0)
        : identifier === SPEED
          ? Uint8Array.of(0, 0, 0)
          : null,
    control: (identifier, state) => {
      if (identifier !== PUMP) return 0x31;
      if (moving && state !== null) return 0x88;
      log.push(state);
      return null;
    },
    codes: (mask) => codes.filter(({ status }) => (status & mask) > 0),
    clear: () => (codes = []),
  };
  return { behind, log, drive: () => (moving = true) };
}

let standIn: VehicleStandIn;
let port: number;
let one: ReturnType<typeof pump>;
const links: VehicleLink[] = [];
beforeEach(async () => {
  one = pump();
  standIn = new VehicleStandIn({ tester: TESTER, unit: UNIT }, one.behind, S3_MS);
  port = await standIn.start(0);
});
afterEach(async () => {
  for (const link of links.splice(0)) await link.close();
  await standIn.stop();
});
const address = () => ({ host: '127.0.0.1', port, tester: TESTER, unit: UNIT });
async function opened(times: Partial<Times> = {}): Promise<VehicleLink> {
  const found = await VehicleLink.open(address(), { ...QUICK, ...times });
  if (!found.ok) throw new Error(found.why);
  links.push(found.link);
  return found.link;
}
/** The port that a server of its own listens at. */
const listening = (server: Server) =>
  new Promise<number>((resolve) =>
    server.listen(0, '127.0.0.1', () => resolve((server.address() as AddressInfo).port)),
  );
const soon = (ms: number) => new Promise((done) => setTimeout(done, ms));
/** Waits until the pump was told so, and fails where it never is. */
async function told(...wanted: readonly (number | null)[]): Promise<void> {
  for (let n = 0; n < 200 && one.log.length < wanted.length; n += 1) await soon(25);
  expect(one.log).toEqual(wanted);
}

test('reads, in the order in which it was asked, and refuses what there is none of in words', async () => {
  const link = await opened();
  const [pumps, none, speed] = await Promise.all([
    link.ask({ service: 'read', identifier: PUMP }),
    link.ask({ service: 'read', identifier: 0x4bff }),
    link.ask({ service: 'read', identifier: SPEED }),
  ]);
  expect(pumps).toEqual({ ok: true, answer: { service: 'read', identifier: PUMP, data: Uint8Array.of(0) } });
  expect(none).toMatchObject({ ok: false, refusal: 0x31, isOpen: true });
  expect(none.ok || none.why).toBe('The unit refused: it has no such identifier, or not within that range.');
  expect(speed.ok).toBe(true);
});

test('codes by status, and cleared', async () => {
  const link = await opened();
  expect(await link.ask({ service: 'codes', statusMask: 0x08 })).toMatchObject({
    ok: true,
    answer: { codes: [{ code: 'C12A1-62', status: 9 }] },
  });
  expect((await link.ask({ service: 'clear' })).ok).toBe(true);
  expect(await link.ask({ service: 'codes', statusMask: 0xff })).toMatchObject({ answer: { codes: [] } });
});

describe('control', () => {
  test('is refused outside its session, taken in it, and kept while the session is kept alive', async () => {
    const link = await opened();
    expect(await link.control(PUMP, 1)).toMatchObject({ ok: false, refusal: 0x7f });
    await link.session('extended');
    expect((await link.control(PUMP, 1)).ok).toBe(true);
    await soon(1.5 * S3_MS);
    expect(one.log.at(-1)).toBe(1);
    expect(await link.giveBack(PUMP)).toBe(true);
    expect(one.log.at(-1)).toBeNull();
    expect(link.underControl).toEqual([]);
  });
  test('is given back by itself after its longest time', async () => {
    const link = await opened({ control: 100 });
    await link.session('extended');
    await link.control(PUMP, 1);
    await told(1, null);
  });
  test('is given back before the line is closed', async () => {
    const link = await opened();
    await link.session('extended');
    await link.control(PUMP, 1);
    expect(await link.close()).toEqual([]);
    expect(one.log).toEqual([1, null]);
  });
  test('ends with the session of a tester that is heard no more, as one that was killed', async () => {
    const link = await opened({ present: 10_000 });
    await link.session('extended');
    await link.control(PUMP, 1);
    (link as unknown as { socket: { destroy: () => void } }).socket.destroy();
    expect(one.log).toEqual([1]);
    await told(1, null);
  });
  test('that was refused, and cannot be given back either, is not under control: it never was', async () => {
    const link = await opened();
    await link.session('extended');
    expect(await link.control(SPEED, 1)).toMatchObject({ ok: false, refusal: 0x31 });
    expect(link.underControl).toEqual([]);
  });
  test('that is refused because the vehicle moves is said so, and asked back all the same', async () => {
    const link = await opened();
    await link.session('extended');
    one.drive();
    const refused = await link.control(PUMP, 1);
    expect(refused).toMatchObject({ ok: false, refusal: 0x88, isOpen: true });
    expect(refused.ok || refused.why).toMatch(/the vehicle is moving/);
    expect(one.log).toEqual([null]);
  });
  test.each([
    ['half', 'half' as const],
    ['too much announced', 'too-long' as const],
    ['a line that is cut', 'cut' as const],
  ])(
    'an answer that dies, %s: the pump is given back by the line or by the session’s end',
    async (_, instead) => {
      const link = await opened({ answered: 1000 });
      await link.session('extended');
      standIn.mischief = { instead };
      const failed = await link.control(PUMP, 1);
      expect(failed).toMatchObject({ ok: false, isOpen: false });
      expect(link.closed).toMatch(/\.$/);
      standIn.mischief = {};
      await told(1, null);
      expect(await link.ask({ service: 'read', identifier: PUMP })).toMatchObject({
        ok: false,
        why: link.closed,
      });
    },
  );
});

describe('an answer', () => {
  test('that takes longer is waited for, eight times and no more', async () => {
    const link = await opened({ answered: 1000 });
    standIn.mischief = { pending: 8, late_ms: 1500 };
    expect((await link.ask({ service: 'read', identifier: PUMP })).ok).toBe(true);
    standIn.mischief = { pending: 9 };
    const more = await link.ask({ service: 'read', identifier: PUMP });
    expect(more).toMatchObject({ ok: false, isOpen: false });
    expect(more.ok || more.why).toMatch(/went on saying/);
  });
  test.each([
    ['late', { late_ms: 600 }, /did not answer in time/],
    ['about another identifier', { otherIdentifier: true }, /something else/],
    ['from somebody else', { from: 0x1b11 }, /somebody else/],
  ])('%s ends the line, so that it is taken for no other', async (_, mischief, why) => {
    const link = await opened('late_ms' in mischief ? { answered: 300 } : {});
    standIn.mischief = mischief;
    const replied = await link.ask({ service: 'read', identifier: PUMP });
    expect(replied).toMatchObject({ ok: false, isOpen: false });
    expect(replied.ok || replied.why).toMatch(why);
    let lost = '';
    link.whenLost((reason) => (lost = reason));
    expect(lost).toMatch(why);
  });
});

test('what keeps a session alive is acknowledged too, and that is no acknowledgement of what was asked behind it', async () => {
  const back = { source: UNIT, target: TESTER };
  const answered = (answer: UdsAnswer) => doipBytes({ type: 'message', ...back, data: answerBytes(answer) });
  const acknowledged = doipBytes({ type: 'received', ...back, code: 0 });
  let present = 0;
  const server = createServer((socket) => {
    const reader = new DoipReader();
    socket.on('error', () => {});
    socket.on('data', (bytes) => {
      for (const read of reader.push(bytes)) {
        if (!read.ok) continue;
        const { frame } = read;
        if (frame.type === 'activate')
          socket.write(doipBytes({ type: 'activated', tester: TESTER, unit: UNIT, code: 0x10 }));
        if (frame.type !== 'message') continue;
        const asked = parseRequest(frame.data);
        if (!asked.ok) continue;
        if (asked.request.service === 'present') present += 1;
        else if (asked.request.service === 'session')
          socket.write(
            Buffer.concat([
              acknowledged,
              answered({ service: 'session', session: 'extended', p2_s: 0.05, p2Long_s: 5 }),
            ]),
          );
        else {
          // Slow to acknowledge: first all that kept the session alive, and what was asked only later than an answer may take.
          for (; present > 0; present -= 1) socket.write(acknowledged);
          setTimeout(() => {
            socket.write(acknowledged);
            socket.write(answered({ service: 'read', identifier: PUMP, data: Uint8Array.of(0) }));
          }, 1800);
        }
      }
    });
  });
  port = await listening(server);
  const link = await opened({ answered: 1000 });
  await link.session('extended');
  for (let n = 0; n < 200 && present === 0; n += 1) await soon(10);
  expect(present).toBeGreaterThan(0);
  expect(await link.ask({ service: 'read', identifier: PUMP })).toMatchObject({ ok: true });
  await link.close();
  await new Promise((done) => server.close(done));
});

describe('a line that does not come about', () => {
  test('where nothing listens, or a foreign tester is not let in', async () => {
    const foreign = await VehicleLink.open({ ...address(), tester: 0x0e81 }, QUICK);
    expect(foreign).toMatchObject({ ok: false, why: expect.stringMatching(/does not let/) as string });
    await standIn.stop();
    const nothing = await VehicleLink.open(address(), QUICK);
    expect(nothing).toMatchObject({ ok: false, why: expect.stringMatching(/Nothing listens/) as string });
    port = await standIn.start(0);
  });
  test.each([
    ['says nothing', '', /does not answer in time/],
    [
      'speaks another protocol',
      Buffer.from('HTTP/1.1 400\r\n\r\n').toString('hex'),
      /no frame of this protocol/,
    ],
  ])('where what listens %s', async (_, said, why) => {
    const server = createServer((socket) => {
      socket.on('error', () => {}).resume();
      if (said) socket.write(Buffer.from(said, 'hex'));
    });
    const other = await listening(server);
    const found = await VehicleLink.open(
      { ...address(), port: other },
      said ? QUICK : { ...QUICK, connect: 200 },
    );
    expect(found).toMatchObject({ ok: false, why: expect.stringMatching(why) as string });
    await new Promise((done) => server.close(done));
  });
});

/** An interface that answers each frame that is sent by some of its own. */
async function answering(answers: (frame: DoipFrame) => readonly DoipFrame[]) {
  const heard: DoipFrame[] = [];
  const server = createServer((socket) => {
    const reader = new DoipReader();
    socket.on('error', () => {});
    socket.on('data', (bytes) => {
      for (const read of reader.push(bytes)) {
        if (!read.ok) continue;
        heard.push(read.frame);
        for (const frame of answers(read.frame)) socket.write(doipBytes(frame));
      }
    });
  });
  port = await listening(server);
  return { heard, close: () => new Promise((done) => server.close(done)) };
}
const ACTIVATED: DoipFrame = { type: 'activated', tester: TESTER, unit: UNIT, code: 0x10 };
const READ = { service: 'read', identifier: PUMP } as const;

describe('an interface that is asked for a reading', () => {
  const back = { source: UNIT, target: TESTER };
  const said = (answer: UdsAnswer): DoipFrame => ({ type: 'message', ...back, data: answerBytes(answer) });
  const received: DoipFrame = { type: 'received', ...back, code: 0 };
  test.each<[string, readonly DoipFrame[], RegExp, boolean]>([
    // Codes of ISO 13400-2: 3 an unknown target, 5 no room, others by their number. The line stays.
    ['and knows no such unit', [{ type: 'refused', ...back, code: 3 }], /passes nothing on: \S/, true],
    ['and refuses by a code of its own', [{ type: 'refused', ...back, code: 0x77 }], /code 119\.$/, true],
    ['and could not read it', [{ type: 'header-refused', code: 0 }], /could not read what was sent/, false],
    [
      'and its unit refuses by a code of its own',
      [received, said({ service: 'refused', to: 0x22, code: 0x99 })],
      /The unit refused: code 153\.$/,
      true,
    ],
    [
      'and its unit refuses something else',
      [received, said({ service: 'refused', to: 0x2f, code: 0x22 })],
      /answered something else/,
      false,
    ],
    [
      'and its answer cannot be read',
      [received, { type: 'message', ...back, data: Uint8Array.of(0x40) }],
      /cannot be read/,
      false,
    ],
  ])('%s', async (_, answers, why, isOpen) => {
    const other = await answering(({ type }) =>
      type === 'activate' ? [ACTIVATED] : type === 'message' ? answers : [],
    );
    const link = await opened();
    expect(await link.ask(READ)).toMatchObject({
      ok: false,
      isOpen,
      why: expect.stringMatching(why) as string,
    });
    await link.close();
    await other.close();
  });
  test('says that it is alive where it is asked to, and what nobody asked for ends the line', async () => {
    const other = await answering(({ type }) => {
      if (type === 'activate') return [ACTIVATED, { type: 'alive-asked' }];
      return type === 'alive' ? [said({ service: 'present' })] : [];
    });
    const link = await opened();
    let lost = '';
    link.whenLost((why) => (lost = why));
    for (let n = 0; n < 200 && lost === ''; n += 1) await soon(10);
    expect(lost).toBe('An answer came that nobody waited for.');
    expect(other.heard).toContainEqual({ type: 'alive', source: TESTER });
    await other.close();
  });
});

test('the stand-in refuses a foreign unit, and closes on what is no frame', async () => {
  const socket = connect(port, '127.0.0.1');
  let heard = '';
  socket.on('data', (bytes) => (heard += bytes.toString('hex').toUpperCase()));
  const ended = new Promise((done) => socket.on('end', done));
  const sent = [
    '02FD0005000000070E800000000000',
    '02FD8001000000070E801B11224B02',
    // A header that cannot be, in two pieces.
    'FFFF',
    '000000000000',
  ];
  for (const text of sent) socket.write(Buffer.from(text, 'hex'));
  await ended;
  expect(heard).toBe(
    ['02FD0006000000090E801B101000000000', '02FD8003000000051B110E8003', '02FD00000000000100'].join(''),
  );
  socket.destroy();
});

test('what a unit reads is what a tester wrote, and the other way round', () => {
  const requests: UdsRequest[] = [
    { service: 'session', session: 'extended' },
    { service: 'present', quiet: true },
    { service: 'read', identifier: 0x4b13 },
    { service: 'control', identifier: PUMP, state: 1 },
    { service: 'control', identifier: PUMP, state: null },
    { service: 'codes', statusMask: 0xff },
    { service: 'clear' },
  ];
  for (const request of requests) expect(parseRequest(requestBytes(request))).toEqual({ ok: true, request });
  const answers: UdsAnswer[] = [
    { service: 'session', session: 'extended', p2_s: 0.05, p2Long_s: 5 },
    { service: 'present' },
    { service: 'read', identifier: 0x4b13, data: Uint8Array.of(1, 2) },
    { service: 'control', identifier: PUMP, state: null },
    { service: 'codes', available: 0x5d, codes: [{ code: 'C12A1-62', status: 9 }] },
    { service: 'clear' },
    { service: 'pending', to: 0x2f },
    { service: 'refused', to: 0x2f, code: 0x88 },
  ];
  for (const answer of answers) expect(parseAnswer(answerBytes(answer))).toEqual(answer);
  expect(() => codeBytes('X1234-00')).toThrow(/no trouble code/);
});

test.each([
  ['85', 0x11],
  ['1002', 0x12],
  ['1001FF', 0x13],
  ['2F4B0203', 0x13],
  ['2F4B020201', 0x31],
  ['14FF00FF', 0x31],
])('%s is refused with its code', (bytes, code) =>
  expect(parseRequest(Uint8Array.from(Buffer.from(bytes, 'hex')))).toMatchObject({ ok: false, code }),
);
