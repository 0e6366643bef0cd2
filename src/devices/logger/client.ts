import { connect, type Socket } from 'node:net';
import { findUnit, toSI, type Unit } from '@/core/quantities/units';
import type { LoggerChannel, LoggerStatus } from '@/core/shop/live';
import { canTell, channelTrouble, Lines, NO_ERROR, parseCatalogue, parseSample } from './protocol';
import { SampleClock } from './sample-clock';
import { lineTrouble } from '../line-trouble';

/** A sample in SI, one value to a channel; NaN where the channel could not be read. */
export interface LoggerSample {
  readonly t_s: number;
  readonly values: readonly number[];
}

const ANSWER_MS = 2000;
/** Without a sample for so long, the line is taken for dead. */
const SILENCE_MS = 3000;
const RETRY_MS = [250, 500, 1000, 2000, 4000] as const;
/** Lines in a row that are no samples before the logger is said to talk nonsense. */
const MOST_NONSENSE = 20;
/** What was wrong with a sample is said for so long at least, ms: it may be wrong with every tenth. */
const SAID_MS = 1000;
/** Samples in a second above which a logger floods: more than anything here asked for. */
const FLOOD_PER_S = 5000;

/**
 * Reads a logger by address. It knows the protocol and nothing of what is behind it; it keeps trying while the line is
 * down, and says in a sentence what is wrong.
 */
export class LoggerClient {
  private status: LoggerStatus = { state: 'off', name: null, channels: [], trouble: null };
  private socket: Socket | null = null;
  private stopped = true;
  private tries = 0;
  private retry: ReturnType<typeof setTimeout> | undefined;
  private silence: ReturnType<typeof setTimeout> | undefined;
  private units: Unit[] = [];
  private waiting: ((line: string) => void) | null = null;
  private nonsense = 0;
  private clock = new SampleClock();
  private troubled_ms = -Infinity;
  private second = { from_ms: 0, samples: 0 };

  constructor(
    private readonly address: { readonly host: string; readonly port: number },
    private readonly rate_Hz: number,
    private readonly on: {
      readonly status: (status: LoggerStatus) => void;
      readonly sample: (sample: LoggerSample) => void;
    },
    private readonly now: () => number = Date.now,
  ) {}

  start(): void {
    if (!this.stopped) return;
    this.stopped = false;
    this.tries = 0;
    this.open();
  }

  stop(): void {
    this.stopped = true;
    clearTimeout(this.retry);
    clearTimeout(this.silence);
    this.socket?.destroy();
    this.tell({ state: 'off', trouble: null });
  }

  private tell(change: Partial<LoggerStatus>): void {
    this.status = { ...this.status, ...change };
    this.on.status(this.status);
  }

  private open(): void {
    const { host, port } = this.address;
    this.tell({ state: this.tries === 0 ? 'connecting' : 'lost' });
    const socket = connect({ host, port });
    this.socket = socket;
    const lines = new Lines();
    socket.setEncoding('ascii');
    socket.setNoDelay(true);
    socket.on('connect', () => void this.greet(socket));
    socket.on('data', (text: string) => {
      const found = lines.push(text);
      if (found) for (const line of found) this.line(line);
      else this.babble();
    });
    socket.on('error', (error: NodeJS.ErrnoException) =>
      this.fail(socket, lineTrouble(error, { host, port }, 'logger')),
    );
    socket.on('close', () => this.fail(socket, 'The logger closed the line.'));
  }

  /** Ends a connection for a reason, and tries again after a while. */
  private fail(socket: Socket, why: string): void {
    if (this.socket !== socket) return;
    this.socket = null;
    socket.destroy();
    clearTimeout(this.silence);
    if (this.stopped) return;
    this.tell({ state: 'lost', trouble: `${why} Trying again.` });
    const wait = RETRY_MS[Math.min(this.tries, RETRY_MS.length - 1)]!;
    this.tries += 1;
    this.retry = setTimeout(() => this.open(), wait);
  }

  private async greet(socket: Socket): Promise<void> {
    try {
      const name = await this.ask(socket, '*IDN?');
      const channels = parseCatalogue(await this.ask(socket, 'CHAN:CAT?'));
      if (!channels) throw new Error('Its list of channels cannot be read.');
      const units = channels.map(({ unit }) => findUnit(unit));
      const strange = units.findIndex((unit) => !unit);
      if (strange >= 0)
        throw new Error(
          `Channel ${channels[strange]!.tag} reads in “${channels[strange]!.unit}”, a unit not known here.`,
        );
      const trouble = channelTrouble(channels);
      if (trouble) throw new Error(trouble);
      this.units = units as Unit[];
      this.clock = new SampleClock();
      socket.write(`STR:RATE ${this.rate_Hz}\n`);
      const error = await this.ask(socket, 'SYST:ERR?');
      if (error !== NO_ERROR) throw new Error(`It refused the rate: ${error.slice(0, 80)}.`);
      socket.write('STR:STAR\n');
      this.nonsense = 0;
      this.tell({
        state: 'streaming',
        name: name.replace(/[^ -~]/g, '').slice(0, 120),
        channels,
        trouble: null,
      });
      this.heard();
    } catch (error) {
      this.fail(socket, (error as Error).message);
    }
  }

  private ask(socket: Socket, question: string): Promise<string> {
    return new Promise((resolve, reject) => {
      const timer = setTimeout(() => {
        if (this.waiting === answered) this.waiting = null;
        reject(
          new Error(
            `What is at this address does not answer ${question}: it is no bench logger, or it is busy.`,
          ),
        );
      }, ANSWER_MS);
      const answered = (line: string) => {
        clearTimeout(timer);
        this.waiting = null;
        resolve(line);
      };
      this.waiting = answered;
      socket.write(`${question}\n`);
    });
  }

  private line(line: string): void {
    if (this.waiting && !line.startsWith('#')) {
      this.waiting(line);
      return;
    }
    if (this.status.state !== 'streaming') return;
    const sample = parseSample(line, this.units.length);
    if (!sample) {
      this.babble();
      return;
    }
    if (this.floods()) return;
    this.nonsense = 0;
    this.tries = 0;
    this.heard();
    const { channels } = this.status;
    const { isLater, trouble } = this.clock.read(sample.t_s, this.now());
    let lying: LoggerChannel | null = null;
    const values = sample.values.map((value, i) => {
      if (canTell(channels[i]!, value)) return toSI(value, this.units[i]!);
      if (!Number.isNaN(value)) lying ??= channels[i]!;
      return NaN;
    });
    this.say(trouble ?? (lying && beyondRange(lying)));
    if (isLater) this.on.sample({ t_s: sample.t_s, values });
  }

  /** Says what is wrong with a sample, and takes it back once samples have been right for a while. */
  private say(trouble: string | null): void {
    const now = this.now();
    if (trouble) this.troubled_ms = now;
    else if (now - this.troubled_ms < SAID_MS) return;
    if (trouble !== this.status.trouble) this.tell({ trouble });
  }

  private babble(): void {
    this.nonsense += 1;
    if (this.nonsense === MOST_NONSENSE)
      this.tell({ trouble: 'The logger sends lines that are no readings. What it sent before is kept.' });
  }

  private floods(): boolean {
    const now = this.now();
    if (now - this.second.from_ms > 1000) this.second = { from_ms: now, samples: 0 };
    this.second.samples += 1;
    if (this.second.samples < FLOOD_PER_S) return false;
    if (this.second.samples === FLOOD_PER_S)
      this.tell({
        trouble: 'The logger sends far more readings than it was asked for. The rest are left out.',
      });
    return true;
  }

  private heard(): void {
    clearTimeout(this.silence);
    const { socket } = this;
    this.silence = setTimeout(() => {
      if (socket) this.fail(socket, 'The logger has gone silent.');
    }, SILENCE_MS);
  }
}

const beyondRange = ({ tag, unit, low, high }: LoggerChannel) =>
  `${tag} tells what a gauge from ${low} to ${high} ${unit} cannot show: those readings are left out.`;
