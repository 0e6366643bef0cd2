import { findUnit, toSI } from '@/core/quantities/units';
import type { BenchOwner, LiveMessage, LiveMoment, LiveStatus, LoggerStatus } from '@/core/shop/live';
import { notAnAddress, parseAddress } from '@/core/shop/address';
import { Settling } from '@/core/signals/settle';
import { LoggerClient, type LoggerSample } from '@/devices/logger/client';
import type { Recording } from './recordings';

const RATE_HZ = 100;
/** Moments sent to a screen in a second. */
const MOMENTS_HZ = 25;
/** A pointer that stood still for so long has settled. */
const SETTLE_S = 1.2;
/** What was recorded is on the disk at most so much later, ms. */
const FLUSH_MS = 500;
/** Where no logger is named. */
export const OFF: LiveStatus = {
  state: 'off',
  name: null,
  simulated: false,
  trouble: null,
  channels: [],
  owner: null,
};

/** The one line to the bench logger: kept while the application runs, whoever looks. */
export class Link {
  status: LiveStatus = OFF;
  moment: LiveMoment | null = null;
  recording: Recording | null = null;
  /** Null where nothing can listen at the address. */
  private readonly client: LoggerClient | null;
  private settling: Settling[] = [];
  private readonly watchers = new Set<(message: LiveMessage) => void>();
  private lastMoment_ms = 0;
  private readonly flushing = setInterval(() => this.bringToDisk(), FLUSH_MS);
  private turn: Promise<unknown> = Promise.resolve();

  constructor(readonly address: string) {
    const at = parseAddress(address);
    if (!at) {
      this.status = { ...OFF, state: 'lost', trouble: notAnAddress(address) };
      this.client = null;
      return;
    }
    this.client = new LoggerClient(at, RATE_HZ, {
      status: (status) => this.onStatus(status),
      sample: (sample) => this.onSample(sample),
    });
    this.client.start();
  }

  stop(): void {
    clearInterval(this.flushing);
    this.client?.stop();
    this.watchers.clear();
  }

  private bringToDisk(): void {
    this.recording?.flush().catch(() => {
      const trouble = 'What the logger sends cannot be written to the disk: is it full?';
      this.status = { ...this.status, trouble };
      this.tell({ type: 'status', status: this.status });
    });
  }

  /** Does what changes the recording one after the other, however many screens ask at once. */
  inTurn<T>(work: () => Promise<T>): Promise<T> {
    const done = this.turn.then(work);
    this.turn = done.catch(() => undefined);
    return done;
  }

  watch(tell: (message: LiveMessage) => void): () => void {
    this.watchers.add(tell);
    tell({ type: 'status', status: this.status });
    return () => this.watchers.delete(tell);
  }

  private tell(message: LiveMessage): void {
    for (const watcher of this.watchers) watcher(message);
  }

  private onStatus({ state, name, channels, trouble }: LoggerStatus): void {
    if (state !== 'streaming') this.settling = [];
    else if (this.settling.length !== channels.length)
      this.settling = channels.map(({ low, high, unit }) => {
        const known = findUnit(unit);
        const span = known ? toSI(high, known) - toSI(low, known) : high - low;
        return new Settling({ over_s: SETTLE_S, step: span / 1000 });
      });
    const { owner } = this.status;
    this.status = { state, name, simulated: /stand-in/i.test(name ?? ''), trouble, channels, owner };
    this.tell({ type: 'status', status: this.status });
  }

  /** Gives the bench to a run, or to none; every screen is told. */
  give(owner: BenchOwner | null): void {
    if (this.status.owner?.run === owner?.run) return;
    this.status = { ...this.status, owner };
    this.tell({ type: 'status', status: this.status });
  }

  private onSample(sample: LoggerSample): void {
    this.settling.forEach((settling, i) => settling.add(sample.t_s, sample.values[i]!));
    this.recording?.add(sample, this.status.channels);
    const now = Date.now();
    if (now - this.lastMoment_ms < 1000 / MOMENTS_HZ) return;
    this.lastMoment_ms = now;
    const { channels } = this.status;
    const shown = Object.fromEntries(
      channels.flatMap(({ tag }, i) =>
        Number.isFinite(sample.values[i]!) ? [[tag, sample.values[i]!]] : [],
      ),
    );
    const settled = channels.flatMap(({ tag }, i) => (this.settling[i]?.settled() ? [tag] : []));
    this.moment = { t_s: sample.t_s, shown, settled };
    this.tell({ type: 'moment', moment: this.moment });
  }
}
