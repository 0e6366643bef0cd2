import type { Family, Port } from '../contract/family';
import type { Hands, PartsNow, Stage } from '../model/motion';
import type { Running } from '../model/running';
import { atWork, pressedBy, stageAt, type Shown } from './at-work';
import type { Script } from './recording';

/** One twin at an instant. */
export interface Frame {
  readonly parts: PartsNow;
  /** What true gauges on the ports show, SI, in the order of the ports. */
  readonly shown: readonly number[];
  readonly stage: Stage | null;
}

/** Steps in which a change of stage is looked for, s. */
const LOOK_S = 0.01;

/** A part that stands elsewhere by more than this share of its way can be seen to. */
const APART = 0.02;

/** Ports that say how something works: what goes in, and what comes out. @throws RangeError where a family has none */
export function drawnPorts({ ports, motion }: Family): { readonly input: Port; readonly output: Port } {
  const { quantity } = pressedBy(motion?.commands ?? []);
  const input = ports.find(
    (port) => ['input', 'pedal', 'treadle'].includes(port.id) && port.quantity === quantity,
  );
  const output = ports.find(({ id }) => ['output', 'front', 'front-left'].includes(id));
  if (!input || !output) throw new RangeError(`ports: ${ports.map(({ id }) => id).join(', ')}`);
  return { input, output };
}

/**
 * Something at work, to be looked at: its twin under what the hands do, and beside one with a fault a healthy one under the same hands.
 * A script does by itself what shows the stages; any other hand ends it.
 */
export class Showing {
  private own: Running;
  private healthy: Running | null;
  private script: Script = [];
  private step = 0;
  private left_s = 0;
  private begun_s: number;
  /** A part has stood elsewhere than that of a healthy one. */
  apart = false;
  /** A script went through to its end. */
  played = false;
  /** Why the equations can be solved no further, in words; null while they can. */
  trouble: string | null = null;

  /** @throws RangeError where the family is known at rest only */
  constructor(
    private readonly family: Family,
    profile: unknown,
    shown: Shown,
    from: 'rest' | 'fed',
  ) {
    this.own = atWork(family, profile, shown, from);
    this.healthy = shown.fault ? atWork(family, profile, { ...shown, fault: null }, from) : null;
    this.begun_s = this.own.t_s;
  }

  /** Time since it was begun, s. */
  get t_s(): number {
    return this.own.t_s - this.begun_s;
  }

  get hands(): Hands {
    return this.own.hands;
  }

  /** Whether a script goes on. */
  get plays(): boolean {
    return this.step < this.script.length;
  }

  now(): { readonly own: Frame; readonly healthy: Frame | null } {
    return { own: this.frameOf(this.own), healthy: this.healthy && this.frameOf(this.healthy) };
  }

  private frameOf(running: Running): Frame {
    const parts = running.parts();
    return { parts, shown: running.read(), stage: stageAt(this.family.motion!.stages, parts) };
  }

  /** Does something by hand: a script that goes on is left. */
  set(change: Hands): void {
    this.script = [];
    this.step = 0;
    this.put(change);
  }

  private put(change: Hands): void {
    this.own.set(change);
    this.healthy?.set(change);
  }

  /** Begins a script. */
  play(script: Script): void {
    this.script = script;
    this.step = 0;
    this.begin();
  }

  private begin(): void {
    const next = this.script[this.step];
    if (!next) return;
    this.put(next[0]);
    this.left_s = next[1];
  }

  /** Lets time go on. */
  advance(seconds: number): void {
    let left_s = seconds;
    while (left_s > 1e-9 && !this.trouble) {
      const part_s = this.plays ? Math.min(left_s, this.left_s) : left_s;
      this.move(part_s);
      left_s -= part_s;
      if (!this.plays) continue;
      this.left_s -= part_s;
      if (this.left_s > 1e-9) continue;
      this.step += 1;
      this.played ||= !this.plays;
      this.begin();
    }
  }

  private move(seconds: number): void {
    for (const running of [this.own, this.healthy]) {
      const solved = running?.advance(seconds);
      if (solved?.ok === false) this.trouble = solved.why;
    }
    if (!this.healthy || this.apart) return;
    const healthy = this.healthy.parts();
    this.apart = Object.entries(this.own.parts()).some(
      ([id, { at, of }]) => Math.abs(at - healthy[id]!.at) > APART * of,
    );
  }

  /** Lets time go on until another stage begins, at the most so long, s. */
  toNextStage(most_s: number): void {
    const { motion } = this.family;
    const stage = () => stageAt(motion!.stages, this.own.parts())?.id;
    const before = stage();
    for (let gone_s = 0; gone_s < most_s && stage() === before && !this.trouble; gone_s += LOOK_S)
      this.advance(LOOK_S);
  }
}
