import { createServer, type Server, type Socket } from 'node:net';
import { fromSI, UNITS, type Unit } from '@/core/quantities/units';
import type { InstrumentQuantity } from '@/core/metrology/instrument';
import type { LoggerChannel } from '@/core/shop/live';
import type { Hands } from '@/core/model/motion';
import { catalogueText, ERRORS, Lines, MOST_ERRORS, NO_ERROR, RATES_HZ, sampleText } from './protocol';
import { handServer } from '../hand-line';
import type { InterfaceMischief } from '../vehicle/stand-in';
import type { Around } from '../vehicle/twin-vehicle';
import { SimBench, type SimUnit } from './sim-bench';

/** What is wrong with the line between logger and reader; all off unless set. */
export interface Mischief {
  /** A sample in so many is not sent. */
  readonly dropEvery?: number;
  /** A sample in so many is nonsense. */
  readonly garbleEvery?: number;
  /** Samples are held back and sent so many at a time. */
  readonly lateBy?: number;
  /** Every connection is cut after so many samples. */
  readonly cutAfter?: number;
}

/** What can be sent to the bench by hand, a JSON object to a line: this is not part of the logger's protocol. */
export type HandMessage =
  | { readonly hands: Hands }
  | {
      readonly unit: Partial<
        Pick<SimUnit, 'fault' | 'own' | 'supply_Pa' | 'profile' | 'kind' | 'room' | 'errors' | 'label'>
      >;
    }
  | { readonly mischief: Mischief }
  /** What is wrong with the vehicle's interface, and what the vehicle does beside its brakes. */
  | { readonly vehicle: { readonly mischief?: InterfaceMischief; readonly around?: Partial<Around> } }
  /** How many times as fast as real time it passes on the bench, 1 to 1 000. Samples come as often as before. */
  | { readonly pace: number }
  /** Time that passes at once, s, at the most a minute. */
  | { readonly ahead: number };

/** Real time between two looks at the clock, s. */
const TICK_S = 0.02;
/** Time that is not caught up with, s: a machine that slept does not race. */
const MOST_CATCH_UP_S = 0.5;
const USUAL_RATE_HZ = 50;
/** Time that passes at once, and time between two samples meanwhile, s. */
const MOST_AHEAD_S = 60;
const AHEAD_EVERY_S = 0.25;
/** The twin itself keeps up with far more. */
const MOST_PACE = 1000;
/** Bytes that may wait in a connection before samples are dropped for it. */
const MOST_WAITING = 1_000_000;

/** What a channel of each quantity is written down in, and the name that goes over the line. */
export const UNIT_NAMES: Readonly<Record<InstrumentQuantity, { name: string; unit: Unit }>> = {
  pressure: { name: 'BAR', unit: UNITS.bar },
  depression: { name: 'KPA', unit: UNITS.kPa },
  force: { name: 'N', unit: UNITS.N },
  duration: { name: 'S', unit: UNITS.s },
  voltage: { name: 'V', unit: UNITS.V },
  current: { name: 'A', unit: UNITS.A },
  resistance: { name: 'OHM', unit: UNITS.ohm },
  flow: { name: 'L/MIN', unit: UNITS.LPerMin },
  rotation: { name: 'RPM', unit: UNITS.rpm },
  speed: { name: 'KM/H', unit: UNITS.kmPerH },
  angle: { name: 'DEG', unit: UNITS.deg },
  travel: { name: 'MM', unit: UNITS.mm },
  temperature: { name: 'DEGC', unit: UNITS.degC },
  torque: { name: 'NM', unit: UNITS.Nm },
};

interface Listener {
  readonly socket: Socket;
  readonly errors: string[];
  rate_Hz: number;
  streaming: boolean;
  due_s: number;
  sent: number;
  held: string[];
}

/** A bench logger that is driven by the twin: it speaks the protocol, and time passes on it as on a real one, or faster. */
export class StandIn {
  private bench: SimBench;
  private unit: SimUnit;
  private mischief: Mischief = {};
  private pace = 1;
  private readonly listeners = new Set<Listener>();
  private readonly logger: Server;
  private readonly handle: Server;
  private timer: ReturnType<typeof setInterval> | undefined;
  private latest: number[];
  private lastTick = 0;
  private count = 0;

  /**
   * @param clock seconds of a clock that never goes back
   * @param others told of every message besides, where something else stands on the same unit
   */
  constructor(
    unit: SimUnit,
    private readonly clock: () => number,
    private readonly others: (message: HandMessage) => void = () => {},
  ) {
    this.unit = unit;
    this.bench = new SimBench(unit);
    this.latest = this.bench.read();
    this.logger = createServer((socket) => this.listen(socket));
    this.handle = handServer((message) => ({
      hands: this.obeyed(message as HandMessage),
      label: this.unit.label ?? null,
    }));
  }

  /** What stands on it now. */
  get stands(): SimBench {
    return this.bench;
  }

  /** Begins, on loopback only. @returns the ports taken */
  async start(loggerPort: number, handPort: number): Promise<{ logger: number; hands: number }> {
    const ports = { logger: await bind(this.logger, loggerPort), hands: await bind(this.handle, handPort) };
    this.lastTick = this.clock();
    this.timer = setInterval(() => this.tick(), TICK_S * 1000);
    return ports;
  }

  async stop(): Promise<void> {
    clearInterval(this.timer);
    this.cut();
    await Promise.all([this.logger, this.handle].map((server) => new Promise((done) => server.close(done))));
  }

  /** Pulls every cable. */
  cut(): void {
    for (const { socket } of this.listeners) socket.destroy();
    this.listeners.clear();
  }

  private channels(): LoggerChannel[] {
    return this.unit.gauges.map(({ tag, quantity, fullScale_Pa, lowEnd_Pa = 0 }) => {
      const { name, unit } = UNIT_NAMES[quantity];
      const [low = 0, high = 0] = [lowEnd_Pa, fullScale_Pa].map((end) =>
        Number(fromSI(end, unit).toPrecision(6)),
      );
      return { tag, unit: name, low, high };
    });
  }

  private inUnits(shown: readonly number[]): number[] {
    return shown.map((value, i) => fromSI(value, UNIT_NAMES[this.unit.gauges[i]!.quantity].unit));
  }

  private tick(): void {
    const now = this.clock();
    const passed = Math.min(MOST_CATCH_UP_S, now - this.lastTick);
    this.lastTick = now;
    const fastest = Math.max(USUAL_RATE_HZ, ...[...this.listeners].map(({ rate_Hz }) => rate_Hz));
    this.bench.advance(this.pace * passed, this.pace / fastest, (t, shown) => {
      this.latest = shown;
      for (const listener of this.listeners) if (listener.streaming) this.sample(listener, t);
    });
  }

  /** Lets time pass at once, as fast as the machine can. @throws RangeError where it is no time, or more than a minute */
  private runAhead(seconds: number): void {
    if (!(seconds >= 0 && seconds <= MOST_AHEAD_S))
      throw new RangeError(`ahead: from 0 to ${MOST_AHEAD_S} s`);
    this.bench.advance(seconds, AHEAD_EVERY_S, (t, shown) => {
      this.latest = shown;
      for (const listener of this.listeners) if (listener.streaming) this.sample(listener, t);
    });
  }

  private sample(listener: Listener, t: number): void {
    if (t < listener.due_s - 1e-9) return;
    listener.due_s = Math.max(listener.due_s + this.pace / listener.rate_Hz, t);
    this.count += 1;
    const { dropEvery, garbleEvery, lateBy, cutAfter } = this.mischief;
    if (dropEvery && this.count % dropEvery === 0) return;
    listener.held.push(
      garbleEvery && this.count % garbleEvery === 0 ? '#?!,,x' : sampleText(t, this.inUnits(this.latest)),
    );
    if (listener.held.length < (lateBy ?? 1)) return;
    if (listener.socket.writableLength < MOST_WAITING) listener.socket.write(`${listener.held.join('\n')}\n`);
    listener.held = [];
    listener.sent += 1;
    if (cutAfter && listener.sent % cutAfter === 0) {
      listener.socket.destroy();
      this.listeners.delete(listener);
    }
  }

  private listen(socket: Socket): void {
    const listener: Listener = {
      socket,
      errors: [],
      rate_Hz: USUAL_RATE_HZ,
      streaming: false,
      due_s: 0,
      sent: 0,
      held: [],
    };
    this.listeners.add(listener);
    const lines = new Lines();
    socket.setNoDelay(true);
    socket.setEncoding('ascii');
    socket.on('data', (text: string) => {
      for (const line of lines.push(text) ?? []) this.command(listener, line);
    });
    socket.on('error', () => socket.destroy());
    socket.on('close', () => this.listeners.delete(listener));
  }

  private command(listener: Listener, line: string): void {
    const { socket, errors } = listener;
    const [, head = '', tail = ''] = /^(\S+)\s*(.*)$/.exec(line)!;
    const fail = (error: string) => {
      if (errors.length < MOST_ERRORS) errors.push(error);
      else errors[MOST_ERRORS - 1] = ERRORS.overflow;
    };
    switch (head.toUpperCase()) {
      case '*IDN?':
        socket.write('Hard Pedal,Bench stand-in,0,1\n');
        return;
      case 'SYST:ERR?':
      case 'SYSTEM:ERROR?':
        socket.write(`${errors.shift() ?? NO_ERROR}\n`);
        return;
      case 'CHAN:CAT?':
        socket.write(`${catalogueText(this.channels())}\n`);
        return;
      case 'READ?': {
        const values = this.inUnits(this.latest).map((value) => Number(value.toPrecision(7)));
        const place = this.unit.gauges.findIndex(({ tag }) => `"${tag}"` === tail);
        if (tail !== '' && place < 0) fail(ERRORS.parameter);
        else socket.write(`${tail === '' ? values.join(',') : values[place]}\n`);
        return;
      }
      case 'STR:RATE': {
        const rate = Number(tail);
        if (tail === '') fail(ERRORS.missing);
        else if (!(rate >= RATES_HZ.least && rate <= RATES_HZ.most)) fail(ERRORS.parameter);
        else listener.rate_Hz = rate;
        return;
      }
      case 'STR:STAR':
        listener.streaming = true;
        listener.due_s = this.bench.t_s;
        return;
      case 'STR:STOP':
        listener.streaming = false;
        return;
      default:
        fail(ERRORS.undefinedHeader);
    }
  }

  /** Does what is sent to the bench by hand. @returns what its hands do then. @throws where it makes no sense */
  obeyed(message: HandMessage): Hands {
    this.others(message);
    if ('mischief' in message) this.mischief = message.mischief;
    if ('pace' in message) {
      if (!(message.pace >= 1 && message.pace <= MOST_PACE))
        throw new RangeError(`pace: from 1 to ${MOST_PACE}`);
      this.pace = message.pace;
    }
    if ('ahead' in message) this.runAhead(message.ahead);
    if ('unit' in message) {
      // Numbers, errors and a label of its own are those of one unit: what is put there next has none unless it says so.
      this.unit = { ...this.unit, own: null, errors: null, label: null, ...message.unit };
      this.bench = new SimBench(this.unit);
      for (const listener of this.listeners) listener.due_s = 0;
    }
    if ('hands' in message) this.bench.set(message.hands);
    return this.bench.hands;
  }
}

function bind(server: Server, port: number): Promise<number> {
  return new Promise((resolve, reject) => {
    server.once('error', reject);
    server.listen(port, '127.0.0.1', () => resolve((server.address() as { port: number }).port));
  });
}
