import { at16, u16 } from './bytes';

/**
 * Diagnostic communication over Internet Protocol (DoIP, ISO 13400-2), the subset of handbook-models 16: frames over one TCP
 * connection, big-endian. A header of eight bytes (version, its complement, payload type, payload length) and a payload.
 */

/** Versions that are spoken: 2 is ISO 13400-2:2012, 3 is ISO 13400-2:2019. */
export type DoipVersion = 2 | 3;

/** TCP port of a vehicle interface. */
export const DOIP_PORT = 13400;
/** Longest payload that is taken in, bytes. */
export const LONGEST_PAYLOAD = 4096;

const HEADER = 8;
const RESERVED = 4;
/** Two addresses in front of a diagnostic message. */
const ADDRESSES = 4;

const TYPES = {
  headerRefused: 0x0000,
  activate: 0x0005,
  activated: 0x0006,
  aliveAsked: 0x0007,
  alive: 0x0008,
  message: 0x8001,
  received: 0x8002,
  refused: 0x8003,
} as const;

/** Routing is activated with this code, and with no other. */
export const ACTIVATED = 0x10;

/** Codes of a header that is refused: the connection is closed after either. */
export const HEADER_REFUSALS = { pattern: 0x00, length: 0x04 } as const;

/** Why a diagnostic message is not passed on. */
export const MESSAGE_REFUSALS: Readonly<Record<number, string>> = {
  0x02: 'it does not know who asks',
  0x03: 'it does not know who is asked',
  0x04: 'the message is too long',
  0x06: 'the unit cannot be reached',
};

/** One frame. Addresses are 16-bit logical addresses, 0 to 0xFFFF. */
export type DoipFrame =
  | { readonly type: 'header-refused'; readonly code: number }
  | { readonly type: 'activate'; readonly source: number }
  | { readonly type: 'activated'; readonly tester: number; readonly unit: number; readonly code: number }
  | { readonly type: 'alive-asked' }
  | { readonly type: 'alive'; readonly source: number }
  | { readonly type: 'message'; readonly source: number; readonly target: number; readonly data: Uint8Array }
  | { readonly type: 'received'; readonly source: number; readonly target: number; readonly code: number }
  | { readonly type: 'refused'; readonly source: number; readonly target: number; readonly code: number };

/** What a stream of bytes turned out to be: frames, or the reason why it is no stream of them. */
export type DoipRead =
  | { readonly ok: true; readonly frame: DoipFrame }
  /** Nothing behind it can be read: the connection is to be closed. */
  | { readonly ok: false; readonly code: number; readonly why: string };

const nothing = (count: number): number[] => Array.from({ length: count }, () => 0);

function payloadOf(frame: DoipFrame): readonly [type: number, payload: ArrayLike<number>] {
  switch (frame.type) {
    case 'header-refused':
      return [TYPES.headerRefused, [frame.code]];
    case 'activate':
      return [TYPES.activate, [...u16(frame.source), 0, ...nothing(RESERVED)]];
    case 'activated':
      return [TYPES.activated, [...u16(frame.tester), ...u16(frame.unit), frame.code, ...nothing(RESERVED)]];
    case 'alive-asked':
      return [TYPES.aliveAsked, []];
    case 'alive':
      return [TYPES.alive, u16(frame.source)];
    case 'message':
      return [TYPES.message, [...u16(frame.source), ...u16(frame.target), ...frame.data]];
    case 'received':
    case 'refused':
      return [TYPES[frame.type], [...u16(frame.source), ...u16(frame.target), frame.code]];
  }
}

/**
 * Bytes of a frame.
 *
 * @throws RangeError where an address is no 16-bit number, a code no byte, or the payload longer than 4096 bytes
 */
export function doipBytes(frame: DoipFrame, version: DoipVersion = 2): Uint8Array {
  for (const name of ['source', 'target', 'tester', 'unit'] as const) within(frame, name, 0xffff);
  within(frame, 'code', 0xff);
  const [type, payload] = payloadOf(frame);
  if (payload.length > LONGEST_PAYLOAD)
    throw new RangeError(`data: ${payload.length} bytes; at most ${LONGEST_PAYLOAD}`);
  const bytes = new Uint8Array(HEADER + payload.length);
  const view = new DataView(bytes.buffer);
  bytes.set([version, 0xff - version, ...u16(type)]);
  view.setUint32(4, payload.length);
  bytes.set(payload, HEADER);
  return bytes;
}

function within(frame: DoipFrame, name: string, most: number): void {
  const value = (frame as unknown as Readonly<Record<string, unknown>>)[name];
  if (value === undefined) return;
  if (!Number.isInteger(value) || (value as number) < 0 || (value as number) > most)
    throw new RangeError(`${name}: ${String(value)} is no whole number from 0 to ${most}`);
}

/** Lengths that a payload may have, by its type; a message has at least one byte behind its addresses. */
const LENGTHS: Readonly<Record<number, readonly [least: number, most: number]>> = {
  [TYPES.headerRefused]: [1, 1],
  [TYPES.activate]: [7, 7],
  [TYPES.activated]: [9, 9],
  [TYPES.aliveAsked]: [0, 0],
  [TYPES.alive]: [2, 2],
  [TYPES.message]: [ADDRESSES + 1, LONGEST_PAYLOAD],
  [TYPES.received]: [ADDRESSES + 1, LONGEST_PAYLOAD],
  [TYPES.refused]: [ADDRESSES + 1, LONGEST_PAYLOAD],
};

function frameOf(type: number, payload: Uint8Array): DoipFrame {
  const address = (at: number) => at16(payload, at);
  const both = { source: address(0), target: address(2) };
  switch (type) {
    case TYPES.headerRefused:
      return { type: 'header-refused', code: payload[0]! };
    case TYPES.activate:
      return { type: 'activate', source: address(0) };
    case TYPES.activated:
      return { type: 'activated', tester: address(0), unit: address(2), code: payload[4]! };
    case TYPES.aliveAsked:
      return { type: 'alive-asked' };
    case TYPES.alive:
      return { type: 'alive', source: address(0) };
    case TYPES.message:
      return { type: 'message', ...both, data: payload.slice(ADDRESSES) };
    // Behind the code may stand what is acknowledged.
    case TYPES.received:
      return { type: 'received', ...both, code: payload[ADDRESSES]! };
    default:
      return { type: 'refused', ...both, code: payload[ADDRESSES]! };
  }
}

/**
 * Cuts what comes in from a socket into frames. It never holds more than one frame. A payload of a type that is not known is
 * passed over. After a header that cannot be, nothing more is read.
 */
export class DoipReader {
  private rest = new Uint8Array(0);
  private ended = false;

  /** Bytes of a frame that is not whole yet. */
  get held(): number {
    return this.rest.length;
  }

  /** @returns what these bytes complete, in order */
  push(bytes: Uint8Array): DoipRead[] {
    if (this.ended) return [];
    const joined = new Uint8Array(this.rest.length + bytes.length);
    joined.set(this.rest);
    joined.set(bytes, this.rest.length);
    const read: DoipRead[] = [];
    let from = 0;
    while (joined.length - from >= HEADER && !this.ended) {
      const view = new DataView(joined.buffer, from);
      const [type, length] = [view.getUint16(2), view.getUint32(4)];
      const wrong = wrongHeader(view.getUint8(0), view.getUint8(1), type, length);
      if (wrong) {
        this.ended = true;
        read.push(wrong);
      } else if (joined.length - from < HEADER + length) break;
      else {
        const payload = joined.subarray(from + HEADER, from + HEADER + length);
        if (LENGTHS[type]) read.push({ ok: true, frame: frameOf(type, payload) });
        from += HEADER + length;
      }
    }
    this.rest = this.ended ? new Uint8Array(0) : joined.slice(from);
    return read;
  }
}

function wrongHeader(version: number, complement: number, type: number, length: number): DoipRead | null {
  if ((version !== 2 && version !== 3) || complement !== 0xff - version)
    return { ok: false, code: HEADER_REFUSALS.pattern, why: 'It is no frame of this protocol and version.' };
  const [least, most] = LENGTHS[type] ?? [0, LONGEST_PAYLOAD];
  if (length < least || length > most)
    return {
      ok: false,
      code: HEADER_REFUSALS.length,
      why: `It announces ${length} bytes where ${least === most ? least : `${least} to ${most}`} are right.`,
    };
  return null;
}
