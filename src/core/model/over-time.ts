import type { Descriptor, Vector } from './descriptor';
import { ROLES, terminalsOf, joins, type Members, type Role } from './installation';
import type {
  Command,
  Instant,
  Motion,
  Moving,
  NodeNow,
  PartsNow,
  Place,
  Stage,
  StateDescriptor,
  Told,
  Turn,
} from './motion';

/** A source, a unit and a load over time, joined at their nodes. */
export interface OverTime {
  /** Of the unit, the source, the load, in this order. */
  readonly states: readonly StateDescriptor[];
  readonly commands: readonly Command[];
  /** Parts that a drawing shows, and how all of it works. */
  readonly parts: readonly Descriptor[];
  readonly stages: readonly Stage[];
  /** @param parameters those of the unit, the source and the load, as `installation` has them */
  readonly with: (parameters: Vector, inputs: Place['inputs']) => Together;
}

/** All members under their parameters. */
export interface Together {
  readonly atRest: (at: Instant) => number[];
  readonly rates: (y: Float64Array, dy: Float64Array, at: Instant) => void;
  readonly shown: (y: Float64Array, at: Instant, out: Float64Array) => void;
  /** What the vehicle tells of itself through its interface. */
  readonly tells: (y: Float64Array, at: Instant) => Told;
  /** Where every part is. */
  readonly parts: (y: Float64Array, at: Instant) => PartsNow;
  readonly turns: readonly Turn[];
}

const unknownGive = (): number => {
  throw new RangeError('node: no load stands at it');
};

/**
 * Joins members over time at the terminals that they have in common.
 *
 * @returns null where one of them is known at rest only
 * @throws RangeError where a node has no owner, or two
 */
export function overTime(members: Members<never, never, never>): OverTime | null {
  const { source, unit, load } = members;
  if (!source.motion || !unit.motion || !load.motion) return null;
  const motionOf: Readonly<Record<Role, Motion>> = {
    source: source.motion,
    unit: unit.motion,
    load: load.motion,
  };
  const terminals = Object.fromEntries(ROLES.map((role) => [role, terminalsOf(members[role])])) as Record<
    Role,
    ReturnType<typeof terminalsOf>
  >;
  // A node of the unit is met by a terminal of the source or the load.
  const nodeAt = (role: Role, terminal: (typeof terminals)['unit'][number]) =>
    role === 'unit'
      ? terminals.unit.indexOf(terminal)
      : terminals.unit.findIndex(
          (one, place) => place < members.unit.fedBy.length === (role === 'source') && joins(one, terminal),
        );
  const owners = terminals.unit.map(() => 0);
  for (const role of ROLES)
    for (const terminal of terminals[role])
      if (motionOf[role].owns.includes(terminal.id)) owners[nodeAt(role, terminal)]! += 1;
  const wrong = owners.findIndex((count) => count !== 1);
  if (wrong >= 0)
    throw new RangeError(`owns: the node “${terminals.unit[wrong]!.id}” has ${owners[wrong]} owners`);

  const commands: Command[] = [];
  for (const role of ROLES)
    for (const command of motionOf[role].commands)
      if (!commands.some(({ id }) => id === command.id)) commands.push(command);

  return {
    states: ROLES.flatMap((role) => motionOf[role].states),
    commands,
    parts: ROLES.flatMap((role) => motionOf[role].parts ?? []),
    stages: ROLES.flatMap((role) => motionOf[role].stages ?? []),
    with: (parameters, inputs) => {
      const nodes = terminals.unit.map((): NodeNow => ({
        effort: 0,
        passed: 0,
        asks: true,
        give: unknownGive,
        volume_m3: 0,
      }));
      let [parameter, from] = [0, 0];
      const moving = {} as Record<Role, Moving>;
      for (const role of ROLES) {
        const own = parameters.slice(parameter, (parameter += members[role].parameters.length));
        const met = terminals[role].map((terminal) => nodes[nodeAt(role, terminal)]!);
        moving[role] = motionOf[role].with(own, { from, nodes: met, inputs });
        from += motionOf[role].states.length;
      }
      const { source, unit, load } = moving;
      const efforts = (y: Float64Array, at: Instant) => {
        if (source.efforts) source.efforts(y, at);
        if (unit.efforts) unit.efforts(y, at);
        if (load.efforts) load.efforts(y, at);
      };
      return {
        atRest: (at) => ROLES.flatMap((role) => moving[role].atRest(at)),
        rates: (y, dy, at) => {
          efforts(y, at);
          if (source.passes) source.passes(at);
          if (load.rates) load.rates(y, dy, at);
          if (unit.rates) unit.rates(y, dy, at);
          if (source.rates) source.rates(y, dy, at);
        },
        shown: (y, at, out) => {
          efforts(y, at);
          if (source.passes) source.passes(at);
          if (source.shown) source.shown(y, at, out);
          if (unit.shown) unit.shown(y, at, out);
          if (load.shown) load.shown(y, at, out);
        },
        tells: (y, at) => {
          const told: Told = {};
          efforts(y, at);
          if (source.passes) source.passes(at);
          for (const role of ROLES) moving[role].tells?.(y, at, told);
          return told;
        },
        parts: (y, at) => {
          const now: PartsNow = {};
          efforts(y, at);
          if (source.passes) source.passes(at);
          for (const role of ROLES) moving[role].parts?.(y, at, now);
          return now;
        },
        turns: ROLES.flatMap((role) => moving[role].turns ?? []).map(({ beyond, flip }) => ({
          beyond: (y, at) => {
            efforts(y, at);
            return beyond(y, at);
          },
          flip,
        })),
      };
    },
  };
}
