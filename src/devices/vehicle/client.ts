import { connect, type Socket } from 'node:net';
import { CONTROL_S } from '@/core/shop/vehicle-live';
import {
  ACTIVATED,
  doipBytes,
  DOIP_PORT,
  DoipReader,
  MESSAGE_REFUSALS,
  type DoipFrame,
  type DoipRead,
} from './doip';
import { lineTrouble } from '../line-trouble';
import { numberOf, parseAnswer, REFUSALS, requestBytes, type UdsAnswer, type UdsRequest } from './uds';

/** Where a vehicle interface listens, and the logical addresses of both ends. */
export interface VehicleAddress {
  readonly host: string;
  readonly port?: number;
  readonly tester: number;
  readonly unit: number;
}

/** What came of a request. Where it failed, `isOpen` says whether another may be made. */
export type Replied<A extends UdsAnswer = UdsAnswer> =
  | { readonly ok: true; readonly answer: A }
  | { readonly ok: false; readonly why: string; readonly refusal: number | null; readonly isOpen: boolean };

/** How long each thing may take, ms. Handbook-models 16. */
export const TIMES_MS = {
  connect: 5000,
  /** Until a message is acknowledged. */
  acknowledged: 2000,
  /** From then to the answer. */
  answered: 1000,
  /** Added by each answer that says that it takes longer. */
  pending: 5000,
  /** A session is kept alive this often. */
  present: 2000,
  /** Control is given back by itself after so long. */
  control: 1000 * CONTROL_S,
} as const;
export type Times = { readonly [T in keyof typeof TIMES_MS]: number };

/** So many times a unit may say that it takes longer. */
const MOST_PENDING = 8;

type AnswerTo<R extends UdsRequest> = Extract<UdsAnswer, { service: R['service'] }>;

/** A request that waits for its acknowledgement and its answer. */
interface Waiting {
  readonly request: UdsRequest;
  readonly resolve: (replied: Replied) => void;
  timer: ReturnType<typeof setTimeout>;
  pending: number;
}

/**
 * One connection to a vehicle interface. It knows the protocol and nothing of what is behind it. One request is made at a time. What
 * comes late, from somebody else, or about something else ends the connection: the next answer could be taken for another's.
 *
 * A session other than the default one is kept alive. Control that was taken is given back when it is asked for, when anything
 * fails, after 30 s, and before the connection is closed; a unit that hears nothing more gives itself back after 5 s.
 */
export class VehicleLink {
  private readonly reader = new DoipReader();
  private waiting: Waiting | null = null;
  private queue: Promise<unknown> = Promise.resolve();
  private present: ReturnType<typeof setInterval> | undefined;
  /** What was sent and is not acknowledged yet, in its order: what keeps a session alive is acknowledged as well. */
  private readonly sent: UdsRequest[] = [];
  private readonly controlled = new Map<number, ReturnType<typeof setTimeout>>();
  private readonly overdue = new Set<number>();
  /** Routing is activated: what comes is for those who ask. */
  private isActive = false;
  private ended: string | null = null;
  private readonly onEnd: ((why: string) => void)[] = [];

  private constructor(
    private readonly socket: Socket,
    private readonly address: VehicleAddress,
    private readonly times: Times,
  ) {}

  /** Connects, and has routing activated. @returns the connection, or why there is none, in a sentence */
  static async open(
    address: VehicleAddress,
    times: Partial<Times> = {},
  ): Promise<
    { readonly ok: true; readonly link: VehicleLink } | { readonly ok: false; readonly why: string }
  > {
    const { host, port = DOIP_PORT } = address;
    const all = { ...TIMES_MS, ...times };
    return new Promise((resolve) => {
      const socket = connect({ host, port });
      const link = new VehicleLink(socket, address, all);
      const fail = (why: string) => {
        clearTimeout(timer);
        link.end(why);
        resolve({ ok: false, why });
      };
      const timer = setTimeout(() => fail(`${host}, port ${port}, does not answer in time.`), all.connect);
      socket.setNoDelay(true);
      socket.on('error', (error: NodeJS.ErrnoException) =>
        fail(lineTrouble(error, { host, port }, 'vehicle interface')),
      );
      socket.on('close', () => fail('The vehicle interface closed the line.'));
      socket.on('connect', () => socket.write(doipBytes({ type: 'activate', source: address.tester })));
      socket.on('data', (bytes) => {
        for (const read of link.reader.push(bytes)) {
          if (link.isActive) link.take(read);
          else if (!read.ok) fail(read.why);
          else if (isActivation(read.frame, address)) {
            clearTimeout(timer);
            link.isActive = true;
            resolve({ ok: true, link });
          } else if (read.frame.type === 'alive-asked') link.alive();
          else fail(notActivated(read.frame));
        }
      });
    });
  }

  /** Why it is closed; null while it is open. */
  get closed(): string | null {
    return this.ended;
  }

  /** Called once when the line ends by itself or by an error, with the reason in a sentence. */
  whenLost(then: (why: string) => void): void {
    if (this.ended) then(this.ended);
    else this.onEnd.push(then);
  }

  /** Asks for something, once everything that was asked before is answered. */
  async ask<R extends UdsRequest>(request: R): Promise<Replied<AnswerTo<R>>> {
    const before = this.queue;
    const asked = before.then(() => this.send(request));
    this.queue = asked;
    return (await asked) as Replied<AnswerTo<R>>;
  }

  /** Opens a session and keeps it alive; the default one needs no keeping. */
  async session(session: 'default' | 'extended'): Promise<Replied> {
    const replied = await this.ask({ service: 'session', session });
    clearInterval(this.present);
    if (replied.ok && session === 'extended')
      this.present = setInterval(() => this.write({ service: 'present', quiet: true }), this.times.present);
    return replied;
  }

  /** Takes control of something. It is given back by itself after 30 s. */
  async control(identifier: number, state: number): Promise<Replied> {
    clearTimeout(this.controlled.get(identifier));
    this.overdue.delete(identifier);
    // From here on it may be under control, whatever is answered.
    this.controlled.set(
      identifier,
      setTimeout(() => void this.giveBackInTime(identifier), this.times.control),
    );
    const replied = await this.ask({ service: 'control', identifier, state });
    if (replied.ok) return replied;
    await this.giveBack(identifier);
    // What the unit has refused it never did, whatever it says to the rest. What it did not answer it may have done.
    if (replied.refusal !== null) this.controlled.delete(identifier);
    return replied;
  }

  /** Gives control back. @returns whether the unit says that it has it */
  async giveBack(identifier: number): Promise<boolean> {
    clearTimeout(this.controlled.get(identifier));
    const replied = await this.ask({ service: 'control', identifier, state: null });
    if (replied.ok) this.controlled.delete(identifier);
    return replied.ok;
  }

  private async giveBackInTime(identifier: number): Promise<void> {
    if (!(await this.giveBack(identifier))) this.overdue.add(identifier);
  }

  /** What was to be given back after its time, and was not. */
  get goesOn(): readonly number[] {
    return [...this.overdue];
  }

  /** What is, or may be, under control. */
  get underControl(): readonly number[] {
    return [...this.controlled.keys()];
  }

  /** Gives back what is under control, and closes the line. @returns what could not be given back */
  async close(): Promise<readonly number[]> {
    for (const identifier of this.underControl) await this.giveBack(identifier);
    const left = this.underControl;
    this.end('The line to the vehicle interface is closed.');
    return left;
  }

  private send(request: UdsRequest): Promise<Replied> {
    if (this.ended) return Promise.resolve(this.failed(this.ended));
    return new Promise((resolve) => {
      const timer = setTimeout(
        () => this.end('The unit did not acknowledge in time.'),
        this.times.acknowledged,
      );
      this.waiting = { request, resolve, timer, pending: 0 };
      this.write(request);
    });
  }

  private write(request: UdsRequest): void {
    if (this.ended) return;
    this.sent.push(request);
    const { tester, unit } = this.address;
    const data = requestBytes(request);
    this.socket.write(doipBytes({ type: 'message', source: tester, target: unit, data }));
  }

  private alive(): void {
    this.socket.write(doipBytes({ type: 'alive', source: this.address.tester }));
  }

  private take(read: DoipRead): void {
    if (!read.ok) {
      this.end(`What came is nothing that can be read. ${read.why}`);
      return;
    }
    const { frame } = read;
    const { tester, unit } = this.address;
    if (frame.type === 'alive-asked') this.alive();
    else if (frame.type === 'header-refused') this.end('The vehicle interface could not read what was sent.');
    else if (frame.type === 'message' || frame.type === 'received' || frame.type === 'refused') {
      if (frame.source !== unit || frame.target !== tester)
        this.end('An answer came from, or for, somebody else.');
      else if (frame.type === 'message') this.answer(frame.data);
      else this.acknowledged(frame);
    }
  }

  private acknowledged({
    type,
    code,
  }: {
    readonly type: 'received' | 'refused';
    readonly code: number;
  }): void {
    const { waiting } = this;
    if (this.sent.shift() !== waiting?.request || !waiting) return;
    if (type === 'refused') {
      const reason = MESSAGE_REFUSALS[code] ?? `code ${code}`;
      this.settle(this.failed(`The vehicle interface passes nothing on: ${reason}.`));
      return;
    }
    this.until(this.times.answered);
  }

  private answer(data: Uint8Array): void {
    const { waiting } = this;
    const answer = parseAnswer(data);
    if (!waiting || !answer) {
      this.end(answer ? 'An answer came that nobody waited for.' : 'An answer came that cannot be read.');
      return;
    }
    const { request } = waiting;
    if (answer.service === 'pending' || answer.service === 'refused') {
      if (answer.to !== numberOf(request)) this.end('The unit answered something else.');
      else if (answer.service === 'refused')
        this.settle(
          this.failed(`The unit refused: ${REFUSALS[answer.code] ?? `code ${answer.code}`}.`, answer.code),
        );
      else if ((waiting.pending += 1) > MOST_PENDING)
        this.end('The unit went on saying that it takes longer.');
      else this.until(this.times.pending);
    } else if (!answers(request, answer)) this.end('The unit answered something else.');
    else this.settle({ ok: true, answer });
  }

  /** Waits so long for the next word: what is late may come yet, and would be taken for the next answer. */
  private until(ms: number): void {
    const { waiting } = this;
    if (!waiting) return;
    clearTimeout(waiting.timer);
    waiting.timer = setTimeout(() => this.end('The unit did not answer in time.'), ms);
  }

  private settle(replied: Replied): void {
    const { waiting } = this;
    if (!waiting) return;
    clearTimeout(waiting.timer);
    this.waiting = null;
    waiting.resolve(replied);
  }

  private failed(why: string, refusal: number | null = null): Replied {
    return { ok: false, why, refusal, isOpen: this.ended === null };
  }

  private end(why: string): void {
    if (this.ended) return;
    this.ended = why;
    clearInterval(this.present);
    for (const timer of this.controlled.values()) clearTimeout(timer);
    // As a last word, unheard: what is under control is given back even where the line has lost its thread.
    const { tester, unit } = this.address;
    for (const identifier of this.controlled.keys()) {
      const data = requestBytes({ service: 'control', identifier, state: null });
      if (this.socket.writable)
        this.socket.write(doipBytes({ type: 'message', source: tester, target: unit, data }));
    }
    // What was written goes out; an end that says nothing more is not waited for.
    this.socket.destroySoon();
    this.settle(this.failed(why));
    for (const then of this.onEnd) then(why);
  }
}

const isActivation = (frame: DoipFrame, { tester, unit }: VehicleAddress): boolean =>
  frame.type === 'activated' && frame.tester === tester && frame.unit === unit && frame.code === ACTIVATED;

const notActivated = (frame: DoipFrame): string =>
  frame.type === 'activated'
    ? 'The vehicle interface does not let this program in, or another unit answers.'
    : 'What answers is no vehicle interface of this kind.';

/** Whether an answer is to this request: about the same identifier, state and session. */
function answers(request: UdsRequest, answer: UdsAnswer): boolean {
  switch (request.service) {
    case 'session':
      return answer.service === 'session' && answer.session === request.session;
    case 'read':
      return answer.service === 'read' && answer.identifier === request.identifier;
    case 'control':
      return (
        answer.service === 'control' &&
        answer.identifier === request.identifier &&
        answer.state === request.state
      );
    default:
      return answer.service === request.service;
  }
}
