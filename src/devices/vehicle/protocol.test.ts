/** @jest-environment node */
import fc from 'fast-check';
import { statusWords } from '@/core/records/trouble-codes';
import { seeded } from '@/core/numeric/chance';
import { doipBytes, DoipReader, LONGEST_PAYLOAD, type DoipFrame, type DoipRead } from './doip';
import { CODES, parseAnswer, REFUSALS, requestBytes, troubleCode, type UdsRequest } from './uds';

const hex = (bytes: Uint8Array) => Buffer.from(bytes).toString('hex').toUpperCase();
const bytesOf = (text: string) => Uint8Array.from(Buffer.from(text, 'hex'));
const readAll = (bytes: Uint8Array): DoipRead[] => new DoipReader().push(bytes);
const only = (text: string): DoipFrame => {
  const [read, ...more] = readAll(bytesOf(text));
  if (!read?.ok || more.length > 0) throw new Error(JSON.stringify(read));
  return read.frame;
};
const TESTER = 0x0e80;
const UNIT = 0x1b10;

describe('the example frames of handbook-models 16', () => {
  test('routing is activated', () => {
    expect(hex(doipBytes({ type: 'activate', source: TESTER }))).toBe('02FD0005000000070E800000000000');
    expect(only('02FD0006000000090E801B101000000000')).toEqual({
      type: 'activated',
      tester: TESTER,
      unit: UNIT,
      code: 0x10,
    });
  });
  const asked = (request: UdsRequest) =>
    hex(doipBytes({ type: 'message', source: TESTER, target: UNIT, data: requestBytes(request) }));
  const answered = (text: string) => {
    const frame = only(text);
    if (frame.type !== 'message') throw new Error(frame.type);
    expect([frame.source, frame.target]).toEqual([UNIT, TESTER]);
    return parseAnswer(frame.data);
  };
  test('an extended session: acknowledged, then 50 ms and 5 s to answer within', () => {
    expect(asked({ service: 'session', session: 'extended' })).toBe('02FD8001000000060E801B101003');
    expect(only('02FD8002000000051B100E8000')).toEqual({
      type: 'received',
      source: UNIT,
      target: TESTER,
      code: 0,
    });
    expect(answered('02FD80010000000A1B100E805003003201F4')).toEqual({
      service: 'session',
      session: 'extended',
      p2_s: 0.05,
      p2Long_s: 5,
    });
  });
  test('identifier 4B03: 46.30 and 101.30 kPa absolute, in steps of 10 Pa', () => {
    expect(asked({ service: 'read', identifier: 0x4b03 })).toBe('02FD8001000000070E801B10224B03');
    const answer = answered('02FD80010000000B1B100E80624B0312162792');
    expect(answer).toMatchObject({ service: 'read', identifier: 0x4b03 });
    const { data } = answer as { data: Uint8Array };
    expect([0, 2].map((at) => ((data[at]! << 8) + data[at + 1]!) * 10)).toEqual([46_300, 101_300]);
  });
  test('the pump is switched on: pending first; and refused while the vehicle moves', () => {
    expect(asked({ service: 'control', identifier: 0x4b02, state: 1 })).toBe(
      '02FD8001000000090E801B102F4B020301',
    );
    expect(answered('02FD8001000000071B100E807F2F78')).toEqual({ service: 'pending', to: 0x2f });
    expect(answered('02FD8001000000091B100E806F4B020301')).toEqual({
      service: 'control',
      identifier: 0x4b02,
      state: 1,
    });
    expect(answered('02FD8001000000071B100E807F2F88')).toEqual({ service: 'refused', to: 0x2f, code: 0x88 });
  });
  test('control is given back with 2F 4B02 00', () =>
    expect(hex(requestBytes({ service: 'control', identifier: 0x4b02, state: null }))).toBe('2F4B0200'));
  test('trouble codes by status: C12A1-62, failed and confirmed', () => {
    expect(asked({ service: 'codes', statusMask: 0x08 })).toBe('02FD8001000000070E801B10190208');
    expect(answered('02FD80010000000B1B100E8059025D52A16209')).toEqual({
      service: 'codes',
      available: 0x5d,
      codes: [{ code: 'C12A1-62', status: 0x09 }],
    });
    expect(statusWords(0x09)).toEqual(['failed when last tested', 'confirmed']);
  });
});

test.each([
  // The two top bits: 00 P, 01 C, 10 B, 11 U; the next two are the first digit.
  [[0x01, 0x23, 0x04], 'P0123-04'],
  [[0x7f, 0xff, 0xff], 'C3FFF-FF'],
  [[0x90, 0x0a, 0x00], 'B100A-00'],
  [[0xc1, 0x00, 0x87], 'U0100-87'],
])('bytes %p are written down as %s', (bytes, code) => expect(troubleCode(bytes)).toBe(code));

test('every refusal that a unit can give here has words of its own', () => {
  const words = Object.values(CODES).map((code) => REFUSALS[code]);
  for (const one of words) expect(one).toMatch(/^\w/);
  expect(new Set(words).size).toBe(words.length);
});

describe('bytes of the other requests', () => {
  test.each<[UdsRequest, string]>([
    [{ service: 'session', session: 'default' }, '1001'],
    [{ service: 'present', quiet: true }, '3E80'],
    [{ service: 'present', quiet: false }, '3E00'],
    [{ service: 'clear' }, '14FFFFFF'],
  ])('%p', (request, bytes) => expect(hex(requestBytes(request))).toBe(bytes));
  test('what is no identifier or no byte is a caller’s mistake', () => {
    expect(() => requestBytes({ service: 'read', identifier: 0x1_0000 })).toThrow(/identifier: 65536/);
    expect(() => requestBytes({ service: 'control', identifier: 1, state: 256 })).toThrow(/state: 256/);
    expect(() => requestBytes({ service: 'codes', statusMask: -1 })).toThrow(/statusMask: -1/);
    expect(() => doipBytes({ type: 'activate', source: 0x1_0000 })).toThrow(/source: 65536/);
    const data = new Uint8Array(LONGEST_PAYLOAD);
    expect(() => doipBytes({ type: 'message', source: 1, target: 2, data })).toThrow(/4100 bytes/);
  });
});

const address = fc.integer({ min: 0, max: 0xffff });
const code = fc.integer({ min: 0, max: 0xff });
const anyFrame: fc.Arbitrary<DoipFrame> = fc.oneof(
  fc.record({ type: fc.constant('header-refused' as const), code }),
  fc.record({ type: fc.constant('activate' as const), source: address }),
  fc.record({ type: fc.constant('activated' as const), tester: address, unit: address, code }),
  fc.record({ type: fc.constant('alive-asked' as const) }),
  fc.record({ type: fc.constant('alive' as const), source: address }),
  fc.record({
    type: fc.constant('message' as const),
    source: address,
    target: address,
    data: fc.uint8Array({ minLength: 1, maxLength: 60 }),
  }),
  fc.record({
    type: fc.constantFrom('received' as const, 'refused' as const),
    source: address,
    target: address,
    code,
  }),
);

test('frames come out as they went in, however the stream is cut', () => {
  fc.assert(
    fc.property(
      fc.array(fc.tuple(anyFrame, fc.constantFrom(2 as const, 3 as const)), { maxLength: 8 }),
      fc.array(fc.integer({ min: 1, max: 12 }), { minLength: 1 }),
      (frames, cuts) => {
        const all = Buffer.concat(frames.map(([frame, version]) => doipBytes(frame, version)));
        const reader = new DoipReader();
        const read: DoipRead[] = [];
        for (let at = 0, n = 0; at < all.length; n += 1) {
          const to = at + cuts[n % cuts.length]!;
          read.push(...reader.push(Uint8Array.from(all.subarray(at, to))));
          at = to;
        }
        expect(read).toEqual(frames.map(([frame]) => ({ ok: true, frame })));
      },
    ),
  );
});

describe('what is no frame ends the stream with its reason', () => {
  const alive = '02FD000800000002' + '0E80';
  test.each([
    ['a foreign version', '01FE000800000002', 0x00],
    ['a complement that is none', '02FC000800000002', 0x00],
    ['more than 4096 bytes announced', '02FD800100001001', 0x04],
    ['a length that its type cannot have', '02FD000800000003', 0x04],
    ['a message with nothing in it', '02FD800100000004', 0x04],
    ['an unknown type, far too long', '02FD4001FFFFFFFF', 0x04],
  ])('%s', (_, header, wrong) => {
    // It is told from the header alone, before anything that was announced has come.
    const reader = new DoipReader();
    expect(reader.push(bytesOf(alive + header))).toEqual([
      { ok: true, frame: { type: 'alive', source: TESTER } },
      { ok: false, code: wrong, why: expect.stringMatching(/^It .*\.$/) as string },
    ]);
    expect(reader.push(bytesOf(alive))).toEqual([]);
  });
  test.each([
    // Types of ISO 13400-2 whose payload has one length: a byte more or less is none of them.
    ['the answer to a header', '0000', 1],
    ['routing asked for', '0005', 7],
    ['routing activated', '0006', 9],
    ['a sign of life', '0008', 2],
  ])('%s has one length', (_, type, length) => {
    const header = (bytes: number) => bytesOf(`02FD${type}${bytes.toString(16).padStart(8, '0')}`);
    expect(readAll(header(length))).toEqual([]);
    for (const other of [length - 1, length + 1])
      expect(readAll(header(other))).toMatchObject([{ ok: false, code: 0x04 }]);
  });
  test('a payload of an unknown type is passed over', () =>
    expect(readAll(bytesOf(`02FD400100000003AABBCC${alive}`))).toHaveLength(1));
});

test('10 000 streams of noise, and frames with some bytes changed: read or refused, and never more held than one frame', () => {
  const random = seeded(20_261_129);
  const byte = () => Math.floor(256 * random());
  const sound = bytesOf('02FD8001000000091B100E806F4B020301');
  for (let n = 0; n < 10_000; n += 1) {
    const bytes =
      n % 2 === 0
        ? Uint8Array.from({ length: Math.floor(64 * random()) }, byte)
        : sound.map((one) => (random() < 0.1 ? byte() : one));
    const reader = new DoipReader();
    for (const read of [...reader.push(bytes), ...reader.push(bytes)]) {
      if (!read.ok) expect(read.why).toMatch(/\.$/);
      else if (read.frame.type === 'message') {
        expect(read.frame.data.length).toBeLessThanOrEqual(LONGEST_PAYLOAD);
        expect(() => parseAnswer((read.frame as { data: Uint8Array }).data)).not.toThrow();
      }
    }
    expect(reader.held).toBeLessThanOrEqual(2 * bytes.length);
  }
});

test('answers that are cut short, too long, or of no service here are none', () => {
  for (const text of [
    '',
    '7F2F',
    '7F2F7800',
    '5003003201',
    '500900320000',
    '624B',
    '624B03',
    '6F4B',
    '6F4B0203',
    '59025D52A162',
    '590A5D',
    '5400',
    '7E01',
    '40',
  ])
    expect([text, parseAnswer(bytesOf(text))]).toEqual([text, null]);
  expect(parseAnswer(bytesOf('54'))).toEqual({ service: 'clear' });
  expect(parseAnswer(bytesOf('7E00'))).toEqual({ service: 'present' });
  expect(parseAnswer(bytesOf('6F4B0200'))).toEqual({ service: 'control', identifier: 0x4b02, state: null });
  expect(parseAnswer(bytesOf('59025D'))).toEqual({ service: 'codes', available: 0x5d, codes: [] });
});
