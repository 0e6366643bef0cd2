import type { TroubleCode } from '@/core/records/trouble-codes';
import { createServer, type Server, type Socket } from 'node:net';
import { ACTIVATED, doipBytes, DoipReader, type DoipFrame } from './doip';
import {
  answerBytes,
  CODES,
  numberOf,
  parseRequest,
  type Session,
  type UdsAnswer,
  type UdsRequest,
} from './uds';

/** What stands behind the interface. */
export interface BehindInterface {
  /** Bytes of an identifier; null where it has none of that number. */
  read(identifier: number): Uint8Array | null;
  /** Takes a state, or has its own way again where that is null. @returns a negative response code, or null where it is done */
  control(identifier: number, state: number | null): number | null;
  codes(statusMask: number): readonly TroubleCode[];
  clear(): void;
}

/** What is wrong with the interface; all off unless set. Each lasts until it is changed. */
export interface InterfaceMischief {
  /** Answers come so much later, ms. */
  readonly late_ms?: number;
  /** So many times it says first that it takes longer. */
  readonly pending?: number;
  /** Everything but keeping alive is refused with this code. */
  readonly refuses?: number;
  /** Answers are about the identifier behind the one that was asked for. */
  readonly otherIdentifier?: boolean;
  /** Answers come from this address. */
  readonly from?: number;
  /** In place of an answer: more announced than is allowed, half a frame, or a line that is cut. */
  readonly instead?: 'too-long' | 'half' | 'cut';
}

const TESTER_UNKNOWN = 0x02;
const UNIT_UNKNOWN = 0x03;
/** Code of routing that is not activated: the address is not known. */
const NOT_ACTIVATED = 0x00;
/** An extended session ends by itself after so long without a word: control is given back. */
const S3_MS = 5000;
const P2_S = 0.05;
const P2_LONG_S = 5;
const AVAILABLE = 0x5d;
const HALF = '02FD8001000000';
const TOO_LONG = '02FD800100001001';

/** One tester at the interface. */
interface Tester {
  readonly socket: Socket;
  address: number | null;
  session: Session;
  idle: ReturnType<typeof setTimeout> | undefined;
  readonly controls: Set<number>;
}

/**
 * A vehicle interface that stands in for a real one: it speaks the subset of handbook-models 16 on loopback, and what it tells comes
 * from whatever stands behind it.
 */
export class VehicleStandIn {
  private readonly server: Server;
  private readonly testers = new Set<Tester>();
  mischief: InterfaceMischief = {};

  constructor(
    private readonly addresses: { readonly tester: number; readonly unit: number },
    private readonly behind: BehindInterface,
    private readonly s3_ms = S3_MS,
  ) {
    this.server = createServer((socket) => this.meet(socket));
  }

  /** Begins, on loopback only. @returns the port taken */
  start(port: number): Promise<number> {
    return new Promise((resolve, reject) => {
      this.server.once('error', reject);
      this.server.listen(port, '127.0.0.1', () => resolve((this.server.address() as { port: number }).port));
    });
  }

  async stop(): Promise<void> {
    for (const { socket } of this.testers) socket.destroy();
    await new Promise((done) => this.server.close(done));
  }

  private meet(socket: Socket): void {
    const tester: Tester = {
      socket,
      address: null,
      session: 'default',
      idle: undefined,
      controls: new Set(),
    };
    this.testers.add(tester);
    const reader = new DoipReader();
    socket.setNoDelay(true);
    socket.on('error', () => socket.destroy());
    socket.on('close', () => {
      this.testers.delete(tester);
      // A real unit knows nothing of the line: its session ends by its own time.
      tester.idle ??= setTimeout(() => this.toDefault(tester), this.s3_ms).unref();
    });
    socket.on('data', (bytes) => {
      for (const read of reader.push(bytes)) {
        if (read.ok) this.take(tester, read.frame);
        else {
          socket.end(doipBytes({ type: 'header-refused', code: read.code }));
          return;
        }
      }
    });
  }

  private take(tester: Tester, frame: DoipFrame): void {
    const { socket } = tester;
    const { tester: known, unit } = this.addresses;
    if (frame.type === 'activate') {
      const code = frame.source === known ? ACTIVATED : NOT_ACTIVATED;
      tester.address = code === ACTIVATED ? frame.source : null;
      socket.write(doipBytes({ type: 'activated', tester: frame.source, unit, code }));
    } else if (frame.type === 'message') {
      const back = { source: frame.target, target: frame.source };
      const code =
        frame.source !== tester.address ? TESTER_UNKNOWN : frame.target !== unit ? UNIT_UNKNOWN : null;
      if (code !== null) socket.write(doipBytes({ type: 'refused', ...back, code }));
      else {
        socket.write(doipBytes({ type: 'received', ...back, code: 0 }));
        this.asked(tester, frame.data);
      }
    }
  }

  private asked(tester: Tester, data: Uint8Array): void {
    this.stay(tester);
    const asked = parseRequest(data);
    const answer: UdsAnswer | null = asked.ok
      ? this.done(tester, asked.request)
      : { service: 'refused', to: asked.to, code: asked.code };
    if (!answer) return;
    const { late_ms = 0, pending = 0, instead } = this.mischief;
    const to = asked.ok ? numberOf(asked.request) : asked.to;
    for (let n = 0; n < pending; n += 1) this.say(tester, { service: 'pending', to });
    const send = () => {
      if (instead === 'cut') tester.socket.destroy();
      else if (instead) tester.socket.write(Buffer.from(instead === 'half' ? HALF : TOO_LONG, 'hex'));
      else this.say(tester, answer);
    };
    if (late_ms > 0) setTimeout(send, late_ms);
    else send();
  }

  private say({ socket, address }: Tester, answer: UdsAnswer): void {
    const { from = this.addresses.unit, otherIdentifier } = this.mischief;
    const other =
      otherIdentifier && 'identifier' in answer ? { ...answer, identifier: answer.identifier + 1 } : answer;
    if (socket.writable)
      socket.write(
        doipBytes({ type: 'message', source: from, target: address ?? 0, data: answerBytes(other) }),
      );
  }

  /** Does what is asked. @returns what is answered; null where no answer is wanted */
  private done(tester: Tester, request: UdsRequest): UdsAnswer | null {
    const refused = (code: number): UdsAnswer => ({ service: 'refused', to: numberOf(request), code });
    const { refuses } = this.mischief;
    if (refuses !== undefined && request.service !== 'present') return refused(refuses);
    switch (request.service) {
      case 'session':
        if (request.session === 'default') this.toDefault(tester);
        tester.session = request.session;
        this.stay(tester);
        return { service: 'session', session: request.session, p2_s: P2_S, p2Long_s: P2_LONG_S };
      case 'present':
        return request.quiet ? null : { service: 'present' };
      case 'read': {
        const data = this.behind.read(request.identifier);
        return data ? { service: 'read', identifier: request.identifier, data } : refused(CODES.range);
      }
      case 'control': {
        const { identifier, state } = request;
        if (tester.session !== 'extended') return refused(CODES.notInSession);
        const code = this.behind.control(identifier, state);
        if (code !== null) return refused(code);
        if (state === null) tester.controls.delete(identifier);
        else tester.controls.add(identifier);
        return { service: 'control', identifier, state };
      }
      case 'codes':
        return { service: 'codes', available: AVAILABLE, codes: this.behind.codes(request.statusMask) };
      case 'clear':
        this.behind.clear();
        return { service: 'clear' };
    }
  }

  /** A word was heard: the session goes on. */
  private stay(tester: Tester): void {
    clearTimeout(tester.idle);
    tester.idle =
      tester.session === 'default' ? undefined : setTimeout(() => this.toDefault(tester), this.s3_ms).unref();
  }

  private toDefault(tester: Tester): void {
    clearTimeout(tester.idle);
    tester.idle = undefined;
    tester.session = 'default';
    for (const identifier of tester.controls) this.behind.control(identifier, null);
    tester.controls.clear();
  }
}
