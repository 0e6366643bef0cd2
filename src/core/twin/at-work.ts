import { withFault, type Family } from '../contract/family';
import type { Command, Hands, Level, PartsNow, Stage } from '../model/motion';
import { shareOf } from '../model/motion';
import { AT_ONCE, inputVector, placeOf } from '../model/vectors';
import { Running } from '../model/running';
import type { Room, Script } from './recording';

/** What is shown at work. */
export interface Shown {
  /** A fault and its severity, 0 to 1; null for a healthy one. */
  readonly fault: readonly [id: string, severity: number] | null;
  readonly room: Room;
  /** Vacuum that the pump of a bench makes, Pa; what is not on such a bench does not ask for it. */
  readonly supply_Pa: number;
}

/** What stands on while something works, by the commands that there are. */
const ON: Hands = { valve: 'open', pump: true, power: true, key: 'engine' };

/** Hands that switch on whatever feeds it. */
export const switchedOn = (commands: readonly Command[]): Hands =>
  Object.fromEntries(commands.flatMap(({ id }) => (id in ON ? [[id, ON[id]!]] : [])));

/** The hand that presses or pulls: the first level of all commands. @throws RangeError where there is none */
export function pressedBy(commands: readonly Command[]): Level {
  const level = commands.find((command) => command.kind === 'level');
  if (!level) throw new RangeError('commands: none of them presses');
  return level;
}

/** Longest time in which a feed comes up, s: a pump charges its accumulators, and they cool. Looked at so often, s. */
const COMES_UP_S = 180;
const LOOK_S = 5;
/** A part that moves by less than this share of its way in that time stands. */
const STANDS = 1e-3;

/** Whether no part has moved. */
export const isStill = (before: PartsNow, now: PartsNow): boolean =>
  Object.entries(now).every(([id, { at, of }]) => Math.abs(at - before[id]!.at) <= STANDS * of);

/** Its twin with every gauge at zero, or with everything on that feeds it, as long as that takes. @throws RangeError where a family is known at rest only */
export function atWork(family: Family, profile: unknown, shown: Shown, from: 'rest' | 'fed'): Running {
  if (!family.motion) throw new RangeError(`family: ${family.kind} has no motion`);
  const { values } = family.healthy(profile);
  const parameters = withFault(family, values, shown.fault);
  const inputs = { ...shown.room, supply_Pa: shown.supply_Pa };
  const running = new Running(family.motion, parameters, inputs, family.ports.length);
  if (from === 'fed') {
    running.set(switchedOn(family.motion.commands));
    let before = running.parts();
    for (let gone_s = 0; gone_s < COMES_UP_S; gone_s += LOOK_S) {
      running.advance(LOOK_S);
      const now = running.parts();
      if (isStill(before, now)) break;
      before = now;
    }
  }
  return running;
}

/**
 * What the hand is brought to in a full application, SI: beyond what a unit can give, where it is known by that.
 */
export function fullOf(family: Family, profile: unknown, { room, supply_Pa }: Omit<Shown, 'fault'>): number {
  const { curve } = family;
  const known: Readonly<Record<string, number>> = { ...AT_ONCE, ...room, supply_Pa, ...family.full(profile) };
  const full = known[curve.input]!;
  const { values } = family.healthy(profile);
  const knee = family.steady(values, inputVector(family.inputs, known))[
    placeOf(family.readings, curve.knee.reading)
  ]!;
  return Number.isFinite(knee) && knee < MOST_BEYOND * full ? Math.max(full, knee) : full;
}
/** A knee that lies further beyond a full application than this many times is not gone to. */
const MOST_BEYOND = 1.5;

/**
 * An application that shows the stages one after another: half of a full one, held; all of it and a little more, held; let go.
 *
 * @param full what the hand is brought to in a full application, SI
 */
export function showing(commands: readonly Command[], full: number): Script {
  const { id, speed } = pressedBy(commands);
  const to = (part: number, seconds: number): Hands => ({
    [id]: part * full,
    [speed.id]: (0.6 * full) / seconds,
  });
  return [
    [{}, 0.5],
    [to(0.5, 1.5), 2.5],
    [to(1.1, 1.5), 3],
    [to(0, 1), 3],
  ];
}

/** What a gauge on a port shows of a healthy one that is brought to an input and held there, SI. */
export function givesAt(
  family: Family,
  profile: unknown,
  shown: Omit<Shown, 'fault'>,
  input: number,
  port: number,
): number {
  const running = atWork(family, profile, { ...shown, fault: null }, 'fed');
  const { id, speed } = pressedBy(family.motion!.commands);
  running.set({ [id]: input, [speed.id]: input });
  running.advance(HELD_S);
  return running.read()[port]!;
}
const HELD_S = 3;

/** The stage that it is in: the last of those that hold. @throws RangeError where a stage asks for a part that there is none of */
export function stageAt(stages: readonly Stage[], parts: PartsNow): Stage | null {
  const share = (part: string) => {
    const now = parts[part];
    if (!now) throw new RangeError(`parts: no “${part}”`);
    return shareOf(now);
  };
  return stages.findLast(({ holds }) => holds(share)) ?? null;
}
