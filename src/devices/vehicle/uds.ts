import type { TroubleCode } from '@/core/records/trouble-codes';
import { at16, u16 } from './bytes';

/**
 * Unified diagnostic services (UDS, ISO 14229-1), the subset of handbook-models 16: sessions, reading data, input and output
 * control, trouble codes. Requests and answers are bytes; what they travel in is not known here.
 */

/** What is asked of a unit. */
export type UdsRequest =
  | { readonly service: 'session'; readonly session: Session }
  /** Keeps a session alive; `quiet` asks for no answer. */
  | { readonly service: 'present'; readonly quiet: boolean }
  | { readonly service: 'read'; readonly identifier: number }
  /** Short-term adjustment to a state, or control given back to the unit where that is null. */
  | { readonly service: 'control'; readonly identifier: number; readonly state: number | null }
  | { readonly service: 'codes'; readonly statusMask: number }
  | { readonly service: 'clear' };

export const SESSIONS = { default: 0x01, extended: 0x03 } as const;
export type Session = keyof typeof SESSIONS;

const SERVICES = {
  session: 0x10,
  clear: 0x14,
  codes: 0x19,
  read: 0x22,
  control: 0x2f,
  present: 0x3e,
} as const;
type Service = keyof typeof SERVICES;

/** An answer that is no refusal has the number of its service and this. */
const POSITIVE = 0x40;
const NEGATIVE = 0x7f;
const BY_STATUS_MASK = 0x02;
const ADJUST = 0x03;
const GIVE_BACK = 0x00;
/** No answer is wanted. */
const QUIET = 0x80;
/** A trouble code with its status. */
const CODE_BYTES = 4;

/** What a unit answers. */
export type UdsAnswer =
  | {
      readonly service: 'session';
      readonly session: Session;
      readonly p2_s: number;
      readonly p2Long_s: number;
    }
  | { readonly service: 'present' }
  | { readonly service: 'read'; readonly identifier: number; readonly data: Uint8Array }
  | { readonly service: 'control'; readonly identifier: number; readonly state: number | null }
  | { readonly service: 'codes'; readonly available: number; readonly codes: readonly TroubleCode[] }
  | { readonly service: 'clear' }
  /** It takes longer: another answer follows. */
  | { readonly service: 'pending'; readonly to: number }
  | { readonly service: 'refused'; readonly to: number; readonly code: number };

/** Negative response code of an answer that follows later. */
const PENDING = 0x78;

/** Negative response codes, as a sentence goes on behind “The unit refused: ”. */
export const REFUSALS: Readonly<Record<number, string>> = {
  0x11: 'it has no such service',
  0x12: 'it has no such part of the service',
  0x13: 'the message has the wrong length',
  0x21: 'it is busy; ask again',
  0x22: 'the conditions are not right',
  0x31: 'it has no such identifier, or not within that range',
  0x7e: 'not in this session, that part of it',
  0x7f: 'not in this session',
  0x88: 'the vehicle is moving',
  0x93: 'its supply is too low',
};

/** @throws RangeError where an identifier is no 16-bit number, or a state or mask no byte */
export function requestBytes(request: UdsRequest): Uint8Array {
  const service = SERVICES[request.service];
  switch (request.service) {
    case 'session':
      return Uint8Array.of(service, SESSIONS[request.session]);
    case 'present':
      return Uint8Array.of(service, request.quiet ? QUIET : 0);
    case 'read':
      return Uint8Array.of(service, ...u16(whole('identifier', request.identifier, 0xffff)));
    case 'control': {
      const identifier = u16(whole('identifier', request.identifier, 0xffff));
      return request.state === null
        ? Uint8Array.of(service, ...identifier, GIVE_BACK)
        : Uint8Array.of(service, ...identifier, ADJUST, whole('state', request.state, 0xff));
    }
    case 'codes':
      return Uint8Array.of(service, BY_STATUS_MASK, whole('statusMask', request.statusMask, 0xff));
    case 'clear':
      return Uint8Array.of(service, 0xff, 0xff, 0xff);
  }
}

function whole(name: string, value: number, most: number): number {
  if (!Number.isInteger(value) || value < 0 || value > most)
    throw new RangeError(`${name}: ${value} is no whole number from 0 to ${most}`);
  return value;
}

/** Reads an answer. @returns null where it is none of this subset */
export function parseAnswer(bytes: Uint8Array): UdsAnswer | null {
  const [first = 0] = bytes;
  if (first === NEGATIVE) {
    if (bytes.length !== 3) return null;
    const [, to = 0, code = 0] = bytes;
    return code === PENDING ? { service: 'pending', to } : { service: 'refused', to, code };
  }
  const service = (Object.keys(SERVICES) as Service[]).find((one) => SERVICES[one] + POSITIVE === first);
  return service ? READERS[service](bytes) : null;
}

/** What a unit was asked, or the negative response code of what cannot be read. */
export type UdsAsked =
  | { readonly ok: true; readonly request: UdsRequest }
  | { readonly ok: false; readonly to: number; readonly code: number };

/** Negative response codes that a unit gives of itself. */
export const CODES = {
  noService: 0x11,
  noPart: 0x12,
  length: 0x13,
  conditions: 0x22,
  range: 0x31,
  notInSession: 0x7f,
  moving: 0x88,
  lowSupply: 0x93,
} as const;

/** Lengths of requests; control has another where it is given back. */
const LENGTHS: Readonly<Record<Service, readonly number[]>> = {
  session: [2],
  present: [2],
  read: [3],
  control: [4, 5],
  codes: [3],
  clear: [4],
};

/** Reads a request, as a unit does. */
export function parseRequest(bytes: Uint8Array): UdsAsked {
  const [to = 0, part = 0] = bytes;
  const refused = (code: number) => ({ ok: false, to, code }) as const;
  const read = (request: UdsRequest) => ({ ok: true, request }) as const;
  const service = (Object.keys(SERVICES) as Service[]).find((one) => SERVICES[one] === to);
  if (!service) return refused(CODES.noService);
  if (!LENGTHS[service].includes(bytes.length)) return refused(CODES.length);
  switch (service) {
    case 'session': {
      const session = (Object.keys(SESSIONS) as Session[]).find((one) => SESSIONS[one] === part);
      return session ? read({ service, session }) : refused(CODES.noPart);
    }
    case 'present':
      return part === 0 || part === QUIET ? read({ service, quiet: part === QUIET }) : refused(CODES.noPart);
    case 'read':
      return read({ service, identifier: at16(bytes, 1) });
    case 'control': {
      const [identifier, how] = [at16(bytes, 1), bytes[3]];
      if (how === GIVE_BACK && bytes.length === 4) return read({ service, identifier, state: null });
      if (how === ADJUST && bytes.length === 5) return read({ service, identifier, state: bytes[4]! });
      return refused(how === GIVE_BACK || how === ADJUST ? CODES.length : CODES.range);
    }
    case 'codes':
      return part === BY_STATUS_MASK ? read({ service, statusMask: bytes[2]! }) : refused(CODES.noPart);
    case 'clear':
      return bytes.subarray(1).every((byte) => byte === 0xff) ? read({ service }) : refused(CODES.range);
  }
}

/** Bytes of an answer. @throws RangeError where a trouble code is not written as such */
export function answerBytes(answer: UdsAnswer): Uint8Array {
  if (answer.service === 'pending') return Uint8Array.of(NEGATIVE, answer.to, PENDING);
  if (answer.service === 'refused') return Uint8Array.of(NEGATIVE, answer.to, answer.code);
  const service = SERVICES[answer.service] + POSITIVE;
  switch (answer.service) {
    case 'session': {
      const [p2_ms, p2Long] = [Math.round(answer.p2_s * 1000), Math.round(answer.p2Long_s * 100)];
      return Uint8Array.of(service, SESSIONS[answer.session], ...u16(p2_ms), ...u16(p2Long));
    }
    case 'present':
      return Uint8Array.of(service, 0);
    case 'read':
      return Uint8Array.of(service, ...u16(answer.identifier), ...answer.data);
    case 'control': {
      const { identifier, state } = answer;
      return Uint8Array.of(service, ...u16(identifier), ...(state === null ? [GIVE_BACK] : [ADJUST, state]));
    }
    case 'codes': {
      const codes = answer.codes.flatMap(({ code, status }) => [...codeBytes(code), status]);
      return Uint8Array.of(service, BY_STATUS_MASK, answer.available, ...codes);
    }
    case 'clear':
      return Uint8Array.of(service);
  }
}

/** Number of the service that a request asks for: a refusal names it. */
export const numberOf = ({ service }: Pick<UdsRequest, 'service'>): number => SERVICES[service];

const READERS: Readonly<Record<Service, (bytes: Uint8Array) => UdsAnswer | null>> = {
  session: (bytes) => {
    const session = (Object.keys(SESSIONS) as Session[]).find((one) => SESSIONS[one] === bytes[1]);
    return session && bytes.length === 6
      ? // P2 counts in milliseconds, P2* in steps of ten.
        { service: 'session', session, p2_s: at16(bytes, 2) / 1000, p2Long_s: at16(bytes, 4) / 100 }
      : null;
  },
  present: (bytes) => (bytes.length === 2 && bytes[1] === 0 ? { service: 'present' } : null),
  read: (bytes) =>
    bytes.length > 3 ? { service: 'read', identifier: at16(bytes, 1), data: bytes.slice(3) } : null,
  control: (bytes) => {
    if (bytes.length < 4) return null;
    const identifier = at16(bytes, 1);
    if (bytes[3] === GIVE_BACK) return { service: 'control', identifier, state: null };
    return bytes[3] === ADJUST && bytes.length === 5
      ? { service: 'control', identifier, state: bytes[4]! }
      : null;
  },
  codes: (bytes) => {
    if (bytes.length < 3 || bytes[1] !== BY_STATUS_MASK || (bytes.length - 3) % CODE_BYTES !== 0) return null;
    const codes: TroubleCode[] = [];
    for (let at = 3; at < bytes.length; at += CODE_BYTES)
      codes.push({ code: troubleCode(bytes.subarray(at, at + 3)), status: bytes[at + 3]! });
    return { service: 'codes', available: bytes[2]!, codes };
  },
  clear: (bytes) => (bytes.length === 1 ? { service: 'clear' } : null),
};

const AREAS = 'PCBU';

/**
 * A trouble code as it is written down: the two top bits are the area (powertrain, chassis, body, network), then four digits,
 * and behind a hyphen the type of failure. `52 A1 62` is C12A1-62.
 */
export function troubleCode([first = 0, second = 0, type = 0]: ArrayLike<number> & Iterable<number>): string {
  const hex = (value: number, digits: number) => value.toString(16).toUpperCase().padStart(digits, '0');
  return `${AREAS[first >> 6]}${(first >> 4) & 3}${hex(first & 0xf, 1)}${hex(second, 2)}-${hex(type, 2)}`;
}

/** Three bytes of a trouble code that is written down. @throws RangeError where it is none */
export function codeBytes(code: string): [number, number, number] {
  const m = /^([PCBU])([0-3])([0-9A-F])([0-9A-F]{2})-([0-9A-F]{2})$/.exec(code);
  if (!m) throw new RangeError(`code: “${code}” is no trouble code such as C12A1-62`);
  const [, area = '', first, second, third, type] = m;
  const top = (AREAS.indexOf(area) << 6) | (Number(first) << 4) | parseInt(second!, 16);
  return [top, parseInt(third!, 16), parseInt(type!, 16)];
}
