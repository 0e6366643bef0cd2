import { rootOfFalling } from '../numeric/root';
import type { Descriptor, Vector } from './descriptor';
import {
  COUPLINGS,
  type Coupling,
  type Member,
  type Model,
  type Nodes,
  type Standing,
  type Terminal,
} from './member';
import { extremesOf, type HealthyUnit, type InputDescriptor } from './vectors';

/** What stands together: a source feeds a unit, and the unit a load. */
export const ROLES = ['unit', 'source', 'load'] as const;
export type Role = (typeof ROLES)[number];

export interface Members<S, U, L> {
  readonly source: Member<S>;
  readonly unit: Member<U>;
  readonly load: Member<L>;
}

/** The unit's own numbers keep their names; those of the others carry what they are. */
const named = (role: Role, id: string) => (role === 'unit' ? id : `${role}.${id}`);

const EFFORT_QUANTITY = {
  vacuum: 'barometer',
  fluid: 'pressure',
  pumped: 'pressure',
  electric: 'ratio',
  rod: 'force',
} as const satisfies Record<Coupling, Descriptor['quantity']>;

/** Input that takes the place of what lies upstream of a cut node. */
export const cutInput = (terminal: string): string => `cut.${terminal}`;

/** One node: a terminal of the unit, and the terminal of the member that it is joined to. */
interface Node {
  readonly id: string;
  readonly coupling: Coupling;
  /** The unit's terminal, counted through those that feed it and those that it feeds. */
  readonly unit: number;
  readonly other: 'source' | 'load';
  readonly otherTerminal: number;
  /** Place of the input that gives the effort where the node is cut; −1 where it is not. */
  readonly cutAt: number;
}

const terminalsOf = ({ fedBy, feeds }: Pick<Member<never>, 'fedBy' | 'feeds'>) => [...fedBy, ...feeds];

const joins = (a: Terminal, b: Terminal) => a.coupling === b.coupling && a.circuit === b.circuit;

/**
 * A source, a unit and a load joined at the terminals that they have in common: again one model. At each node the effort
 * is one, and what is given there is what is taken: a balance that falls as the effort rises, the supply's nodes first,
 * then those of the load.
 *
 * A number of the unit keeps its name; one of the source or load is named `source.…` or `load.…`. Inputs of one name are
 * one. A node that was read by a gauge can be cut: what was read takes the place of all that lies beyond it, as the input
 * `cut.<terminal>`.
 *
 * @param cut terminals of the unit at which a gauge was read
 * @throws RangeError where a terminal of the unit finds none to be joined to, or a cut names no terminal
 */
export function installation<S, U, L>(
  members: Members<S, U, L>,
  cut: readonly string[] = [],
): Model<{ readonly source: S; readonly unit: U; readonly load: L }> {
  const { source, unit, load } = members;
  const terminals = terminalsOf(unit);
  const unknown = cut.find((id) => !terminals.some((terminal) => terminal.id === id));
  if (unknown !== undefined) throw new RangeError(`cut: the unit has no terminal “${unknown}”`);
  const inputs: InputDescriptor[] = [];
  for (const role of ROLES)
    for (const input of members[role].inputs)
      if (!inputs.some(({ id }) => id === input.id)) inputs.push(input);
  const nodes = terminals.map((terminal, place): Node => {
    const other = place < unit.fedBy.length ? 'source' : 'load';
    const joined = other === 'source' ? source.feeds : load.fedBy;
    const found = joined.findIndex((one) => joins(one, terminal));
    const isCut = cut.includes(terminal.id);
    if (found < 0 && !isCut)
      throw new RangeError(`${other}: nothing to be joined to the unit’s ${terminal.name.toLowerCase()}`);
    if (isCut)
      inputs.push({
        id: cutInput(terminal.id),
        name: `${terminal.name}, as read`,
        quantity: EFFORT_QUANTITY[terminal.coupling],
      });
    return {
      id: terminal.id,
      coupling: terminal.coupling,
      unit: place,
      other,
      otherTerminal: other === 'source' ? source.fedBy.length + found : found,
      cutAt: isCut ? inputs.length - 1 : -1,
    };
  });
  const placed = ROLES.map((role) => ({
    role,
    member: members[role] as Member<unknown>,
    inputs: members[role].inputs.map(({ id }) => inputs.findIndex((input) => input.id === id)),
  }));
  const sizes = placed.map(({ member }) => member.parameters.length);
  const described = (of: 'parameters' | 'readings') =>
    placed.flatMap(({ role, member }) => member[of].map((one) => ({ ...one, id: named(role, one.id) })));

  const steady = (parameters: Vector, given: Vector): number[] => {
    let from = 0;
    const [standingUnit, standingSource, standingLoad] = placed.map(({ member, inputs: places }, i) => {
      const own = parameters.slice(from, (from += sizes[i]!));
      return member.with(
        own,
        places.map((place) => given[place]!),
      );
    }) as [Standing, Standing, Standing];
    return new Joined(members, nodes, given, standingUnit, standingSource, standingLoad).readings();
  };
  return {
    parameters: described('parameters'),
    inputs,
    readings: described('readings'),
    healthy: (profiles) => together(ROLES.map((role) => members[role].healthy(profiles[role] as never))),
    steady,
  };
}

/** Members at one state of their inputs, with the efforts between them. */
class Joined {
  private readonly efforts: Record<Role, Float64Array>;

  constructor(
    private readonly members: Members<never, never, never>,
    private readonly nodes: readonly Node[],
    private readonly given: Vector,
    private readonly unit: Standing,
    private readonly source: Standing,
    private readonly load: Standing,
  ) {
    const sized = (role: Role) => new Float64Array(terminalsOf(members[role]).length);
    this.efforts = { unit: sized('unit'), source: sized('source'), load: sized('load') };
  }

  readings(): number[] {
    const own = this.efforts.unit;
    for (const node of this.nodes) {
      const effort = this.settle(node, (at) => this.unit.through(node.unit, at, own));
      own[node.unit] = effort;
      this.efforts[node.other][node.otherTerminal] = effort;
    }
    const ofUnit: Nodes = {
      settle: (terminal, through, span) => this.settle(this.nodes[terminal]!, through, span),
      taken: (terminal, effort) => this.taken(this.nodes[terminal]!, effort),
    };
    const readings = this.unit.read(own, ofUnit);
    for (const role of ['source', 'load'] as const)
      readings.push(...this[role].read(this.efforts[role], NOTHING_TO_SETTLE));
    return readings;
  }

  private taken({ other, otherTerminal }: Node, effort: number): number {
    return this[other].through(otherTerminal, effort, this.efforts[other]);
  }

  /** The effort of a node at which what the unit passes there is what the other member does. */
  private settle(
    node: Node,
    unitPasses: (effort: number) => number,
    given?: readonly [idle: number, furthest: number],
  ): number {
    if (node.cutAt >= 0) return this.given[node.cutAt]!;
    const { close } = COUPLINGS[node.coupling];
    if (node.other === 'load') {
      const [idle, furthest] = given ?? this.unit.span(node.unit, this.efforts.unit);
      return rootOfFalling((effort) => unitPasses(effort) - this.taken(node, effort), idle, furthest, close);
    }
    const [idle, furthest] = this.source.span(node.otherTerminal, this.efforts.source);
    if (!this.members.source.knownAtRest)
      return rootOfFalling((effort) => unitPasses(effort) - this.taken(node, effort), idle, furthest, close);
    // What the gauge on the unit showed at rest: the source's line goes through that point.
    const rest = this.unit.atRest(node.unit, idle);
    const shift = idle - rest.effort;
    return rootOfFalling(
      (effort) => unitPasses(effort) - rest.passes - this.taken(node, effort + shift),
      rest.effort,
      furthest - shift,
      close,
    );
  }
}

const notSettled = (terminal: number): number => {
  throw new RangeError(`terminal: ${terminal} is settled by the unit alone`);
};
const NOTHING_TO_SETTLE: Nodes = { settle: notSettled, taken: notSettled };

/** Healthy members together: those at their limits are every one of each with every one of the others. */
function together(healthy: readonly HealthyUnit[]): HealthyUnit {
  const values = healthy.flatMap((one) => one.values);
  const tolerances = healthy.flatMap((one) => one.tolerances);
  if (!healthy.some(({ extremes }) => extremes)) return { values, tolerances };
  const extremes = healthy
    .map(extremesOf)
    .reduce((made, next) => made.flatMap((left) => next.map((right) => [...left, ...right])), [
      [],
    ] as Vector[]);
  return { values, tolerances, extremes };
}
