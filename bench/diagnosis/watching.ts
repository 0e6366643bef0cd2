import type { Running } from '../../src/core/model/running';

/** Longest that anybody waits for something to come or to stand still, s. */
export const LONGEST_S = 60;
/** It stands where it changes by less than this part of it in a second; and is waited for at least so long, s. */
const STILL_PER_S = 2e-3;
const AT_LEAST_S = 3;
const EVERY_S = 0.01;
/** It is at rest where it changes by less than this part of it, or of a pascal or newton, between two looks, so far apart, s. */
const AT_REST = 1e-5;
const LOOKS_S = 5;

/** Something that runs through time, with an eye on its gauges. */
export class Watching {
  constructor(
    readonly running: Running,
    private readonly ports: readonly { readonly id: string }[],
  ) {}

  now(port: string): number {
    return this.running.read()[this.ports.findIndex(({ id }) => id === port)]!;
  }

  wait(seconds: number): void {
    this.running.advance(seconds);
  }

  set(change: Parameters<Running['set']>[0]): void {
    this.running.set(change);
  }

  /** Waits until some gauges stand, or nobody would wait any longer. */
  untilStill(...ports: readonly string[]): void {
    const { running } = this;
    const watched = () => ports.map((port) => this.now(port));
    const from = running.t_s;
    for (let before = watched(); running.t_s - from < LONGEST_S;) {
      running.advance(1);
      const after = watched();
      const still = after.every((value, i) => Math.abs(value - before[i]!) <= STILL_PER_S * Math.abs(value));
      if (still && running.t_s - from >= AT_LEAST_S) return;
      before = after;
    }
  }

  /** Waits until nothing moves that any gauge could ever tell, or so long. */
  untilAtRest(longest_s: number): void {
    const { running } = this;
    const from = running.t_s;
    for (let before = running.read(); running.t_s - from < longest_s;) {
      running.advance(LOOKS_S);
      const after = running.read();
      if (after.every((value, i) => Math.abs(value - before[i]!) <= AT_REST * (Math.abs(value) + 1))) return;
      before = after;
    }
  }

  /** Time at which something is so for the last time, s, within the longest that anybody waits. */
  lastTime(so: () => boolean): number {
    const { running } = this;
    const from = running.t_s;
    let last = from;
    while (running.t_s - from < LONGEST_S) {
      running.advance(EVERY_S);
      if (so()) last = running.t_s;
    }
    return last - from;
  }

  /** Time until something is so, s; the longest that anybody waits where it does not come. */
  timeUntil(so: () => boolean, longest_s = LONGEST_S): number {
    const { running } = this;
    const from = running.t_s;
    while (!so() && running.t_s - from < longest_s) running.advance(EVERY_S);
    return running.t_s - from;
  }
}
