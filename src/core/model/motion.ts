import type { Quantity } from '../quantities/units';
import type { Descriptor, Vector } from './descriptor';

/** A state of a model that changes with time, and the size at which it begins to matter. */
export interface StateDescriptor extends Descriptor {
  readonly scale: number;
}

interface Handle {
  readonly id: string;
  readonly name: string;
  /** No hand does it: it is asked for through the vehicle's own interface. */
  readonly by?: 'interface';
}

/** Something that is brought to a level by hand, and how fast. SI of its quantity, from nothing up. */
export interface Level extends Handle {
  readonly kind: 'level';
  readonly quantity: Quantity;
  readonly most: number;
  readonly usual: number;
  readonly speed: { readonly id: string; readonly usual: number; readonly most: number };
}

/** What can be done by hand to what a model describes: the simulated bench has no other hands. */
export type Command =
  | Level
  | (Handle & { readonly kind: 'switch'; readonly usual: boolean })
  | (Handle & {
      readonly kind: 'choice';
      readonly usual: string;
      readonly choices: readonly Handle[];
    });

/** What the hands do, by the name of the command, and of a level's speed. */
export type Hands = Readonly<Record<string, number | boolean | string>>;

/** What acts on every member at an instant. One object, written over as time goes on. */
export interface Instant<H extends Hands = Hands> {
  readonly barometer_Pa: number;
  readonly temperature_K: number;
  readonly hands: H;
}

/**
 * A node as time goes on. Its owner writes the effort, by what its states are; whoever else stands at it writes what passes:
 * a flow, or for a rod how far it has moved.
 */
export interface NodeNow {
  effort: number;
  passed: number;
  /** How much more a load takes up for a little more effort: m³/Pa, m/N. Written once, by the load. */
  give: (effort: number) => number;
  /** Whether the unit there asks its source for anything: a switch of its own starts and stops it. */
  asks: boolean;
  /** Volume that stands open to the node beside its owner's own: a tank, m³. Written once, by who brings it. */
  volume_m3: number;
}

/** A switch: it flips where this rises through zero, and the solver stops there. */
export interface Turn {
  readonly beyond: (y: Float64Array, at: Instant) => number;
  readonly flip: () => void;
}

/**
 * A member over time, its parameters taken in once. Its steady end is its closed form. Nothing is allocated on the way.
 * First every member writes the efforts and movements that follow from its states, the source first; then a source at a node
 * of the unit's own says what passes there; then, the load first, each writes its rates and what passes.
 */
export interface Moving {
  /** Its states with nothing going on. */
  atRest(at: Instant): number[];
  efforts?(y: Float64Array, at: Instant): void;
  /** For a source at a node that the unit owns: writes what passes there, once the efforts are known. */
  passes?(at: Instant): void;
  /** Writes the rates of its own states, and what passes. */
  rates?(y: Float64Array, dy: Float64Array, at: Instant): void;
  /** Writes what a true gauge on each of the family's ports would show, in the order of the ports. */
  shown?(y: Float64Array, at: Instant, out: Float64Array): void;
  /**
   * Writes what the vehicle's own sensors and control unit tell through its interface, by the names of values of an identifier map:
   * numbers in SI. Called once the efforts are known.
   */
  tells?(y: Float64Array, at: Instant, out: Told): void;
  /** Writes where each of its parts is. Called once the efforts are known. */
  parts?(y: Float64Array, at: Instant, out: PartsNow): void;
  readonly turns?: readonly Turn[];
}

/** Where a part is that moves, opens, fills or stands under pressure: SI of its quantity, and the figure of its far end, above zero. */
export interface PartNow {
  readonly at: number;
  readonly of: number;
}
/** Where every part is, by its name. */
export type PartsNow = Record<string, PartNow>;

/** How far a part is from its rest, as a share of its way: from −1, for one that goes either way, to 1. */
export const shareOf = ({ at, of }: PartNow): number => Math.max(-1, Math.min(1, at / of));

/** What happens in a unit while it is in one state among others, as somebody tells it who shows how it works. */
export interface Stage {
  readonly id: string;
  readonly says: string;
  /** Whether that is what happens, by the share of each part. Of several that hold the last one is told. */
  readonly holds: (share: (part: string) => number) => boolean;
}

/** What a vehicle tells of itself. */
export type Told = Record<string, number | boolean>;

/** Where a member stands among the others. */
export interface Place {
  /** Place of its first state. */
  readonly from: number;
  /** The nodes at its terminals: those at which it is fed, then those that it feeds. */
  readonly nodes: readonly NodeNow[];
  /** Its steady inputs that stay as they are: the room, how deep a source reaches. */
  readonly inputs: Readonly<Record<string, number>>;
}

/** An input of a place. @throws RangeError where it was not given: it is never taken as zero */
export function inputAt({ inputs }: Pick<Place, 'inputs'>, id: string): number {
  const value = inputs[id];
  if (value === undefined) throw new RangeError(`inputs: nothing says what “${id}” is`);
  return value;
}

/** What a member says of itself over time. */
export interface Motion {
  readonly states: readonly StateDescriptor[];
  /** Commands that it answers to. Those of one name are one, whoever answers to it. */
  readonly commands: readonly Command[];
  /** Terminals of which it writes the effort: a node has one owner. */
  readonly owns: readonly string[];
  /** Parts that a drawing of it shows. */
  readonly parts?: readonly Descriptor[];
  /** How it works, in the order of events. */
  readonly stages?: readonly Stage[];
  readonly with: (parameters: Vector, place: Place) => Moving;
}

/** Nothing done by hand. */
export const handsOff = (commands: readonly Command[]): Hands =>
  Object.fromEntries(
    commands.flatMap((command) => [
      [command.id, command.usual],
      ...(command.kind === 'level' ? [[command.speed.id, command.speed.usual] as const] : []),
    ]),
  );

/** Why a change is none that these commands allow, in a sentence; null where it is. */
export function handsRefused(commands: readonly Command[], change: Hands): string | null {
  for (const [id, value] of Object.entries(change)) {
    const own = commands.find((command) => command.id === id);
    const speed = commands.find((command) => command.kind === 'level' && command.speed.id === id);
    const within = (most: number, least = 0) =>
      typeof value === 'number' && value >= least && value <= most
        ? null
        : `${id}: from ${least} to ${most}.`;
    const problem =
      own?.kind === 'level'
        ? within(own.most)
        : speed?.kind === 'level'
          ? within(speed.speed.most, Number.MIN_VALUE)
          : own?.kind === 'switch'
            ? typeof value === 'boolean'
              ? null
              : `${id}: true or false.`
            : own?.kind === 'choice'
              ? own.choices.some((choice) => choice.id === value)
                ? null
                : `${id}: ${own.choices.map((choice) => choice.id).join(', ')}.`
              : `This bench has no “${id}”: ${Object.keys(handsOff(commands)).join(', ')}.`;
    if (problem) return problem;
  }
  return null;
}
