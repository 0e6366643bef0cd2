import { rootOfFalling } from '../numeric/root';
import type { Descriptor, Vector } from './descriptor';
import {
  COUPLINGS,
  type Coupling,
  type Member,
  type Model,
  type Nodes,
  type Standing,
  type Stopped,
  type Wanted,
  type Terminal,
} from './member';
import { extremesOf, type HealthyUnit, type InputDescriptor } from './vectors';

/** What stands together: a source feeds a unit, and the unit a load. */
export const ROLES = ['unit', 'source', 'load'] as const;
export type Role = (typeof ROLES)[number];
/** Places in `ROLES`: a state is asked for by number, since it is asked for often. */
const [UNIT, SOURCE, LOAD] = [0, 1, 2] as const;

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
  readonly coupling: Coupling;
  /** The unit's terminal, counted through those that feed it and those that it feeds. */
  readonly unit: number;
  readonly other: typeof SOURCE | typeof LOAD;
  readonly otherTerminal: number;
  /** Place of the input that gives the effort where the node is cut; −1 where it is not. */
  readonly cutAt: number;
}

export const terminalsOf = ({ fedBy, feeds }: Pick<Member<never>, 'fedBy' | 'feeds'>) => [...fedBy, ...feeds];

export const joins = (a: Terminal, b: Terminal) => a.coupling === b.coupling && a.circuit === b.circuit;

type Ends = Pick<Member<never>, 'fedBy' | 'feeds'>;

/**
 * Why a source, a unit and a load do not make an installation, in a sentence; null where they do.
 *
 * @param cut terminals of the unit at which a gauge was read
 */
export function whyNotJoined(
  { source, unit, load }: Readonly<Record<Role, Ends>>,
  cut: readonly string[],
): string | null {
  const unknown = cut.find((id) => !terminalsOf(unit).some((terminal) => terminal.id === id));
  if (unknown !== undefined)
    return `The unit has no terminal “${unknown}”: ${terminalsOf(unit)
      .map(({ id }) => id)
      .join(', ')}.`;
  const lacking = (mine: readonly Terminal[], theirs: readonly Terminal[], whose: string) => {
    const alone = mine.find((one) => !cut.includes(one.id) && !theirs.some((other) => joins(one, other)));
    if (!alone) return null;
    const what = [alone.coupling, ...(alone.circuit ? [alone.circuit] : [])].join(', ');
    const offered = theirs.map(({ coupling }) => coupling).join(', ') || 'nothing';
    return `The unit’s ${alone.name.toLowerCase()} (${what}) finds nothing to be joined to: the ${whose} has ${offered}.`;
  };
  return lacking(unit.fedBy, source.feeds, 'source') ?? lacking(unit.feeds, load.fedBy, 'load');
}

/**
 * A source, a unit and a load joined at the terminals that they have in common: again one model. At each node the effort
 * is one, and what is given there is what is taken: a balance that falls as the effort rises, the supply's nodes first,
 * then those of the load.
 *
 * A number of the unit keeps its name; one of the source or load is named `source.…` or `load.…`. Inputs of one name are
 * one. A node that was read by a gauge can be cut: what was read takes the place of all that lies beyond it, as the input
 * `cut.<terminal>`. A source or load of which every node is cut is left out; one that meets the unit at no node stands beside it.
 *
 * @param cut terminals of the unit at which a gauge was read
 * @throws RangeError where they cannot be joined: `whyNotJoined` says so beforehand
 */
export function installation<S, U, L>(
  members: Members<S, U, L>,
  cut: readonly string[] = [],
): Model<{ readonly source: S; readonly unit: U; readonly load: L }> {
  const why = whyNotJoined(members, cut);
  if (why) throw new RangeError(`members: ${why}`);
  const { source, unit, load } = members;
  const terminals = terminalsOf(unit);
  const otherOf = (place: number) => (place < unit.fedBy.length ? SOURCE : LOAD);
  const used = ROLES.filter((role) => {
    const nodes = terminals.filter((_, place) => ROLES[otherOf(place)] === role);
    return nodes.length === 0 || nodes.some(({ id }) => !cut.includes(id));
  });
  const inputs: InputDescriptor[] = [];
  for (const role of used)
    for (const input of members[role].inputs)
      if (!inputs.some(({ id }) => id === input.id)) inputs.push(input);
  const nodes = terminals.map((terminal, place): Node => {
    const other = otherOf(place);
    const found = (other === SOURCE ? source.feeds : load.fedBy).findIndex((one) => joins(one, terminal));
    const isCut = cut.includes(terminal.id);
    if (isCut)
      inputs.push({
        id: cutInput(terminal.id),
        name: `${terminal.name}, as read`,
        quantity: EFFORT_QUANTITY[terminal.coupling],
      });
    return {
      coupling: terminal.coupling,
      unit: place,
      other,
      otherTerminal: other === SOURCE ? source.fedBy.length + found : found,
      cutAt: isCut ? inputs.length - 1 : -1,
    };
  });
  const placed = used.map((role) => ({
    role,
    place: ROLES.indexOf(role),
    member: members[role] as Member<unknown>,
    inputs: members[role].inputs.map(({ id }) => inputs.findIndex((input) => input.id === id)),
  }));
  const described = (of: 'parameters' | 'readings') =>
    placed.flatMap(({ role, member }) => member[of].map((one) => ({ ...one, id: named(role, one.id) })));

  const steady = (parameters: Vector, given: Vector, wanted?: Wanted): number[] => {
    let from = 0;
    const standing: (Standing | undefined)[] = [undefined, undefined, undefined];
    for (const { place, member, inputs: places } of placed) {
      const own = parameters.slice(from, (from += member.parameters.length));
      const inputsOfOwn: number[] = [];
      for (const input of places) inputsOfOwn.push(given[input]!);
      standing[place] = member.with(own, inputsOfOwn);
    }
    return new Joined(members, nodes, given, standing).readings(wanted);
  };
  return {
    parameters: described('parameters'),
    inputs,
    readings: described('readings'),
    healthy: (profiles) => together(used.map((role) => members[role].healthy(profiles[role] as never))),
    steady,
  };
}

/** Members at one state of their inputs, with the efforts between them. */
class Joined {
  private readonly efforts: readonly number[][] = [[], [], []];
  private readonly unit: Standing;

  constructor(
    private readonly members: Members<never, never, never>,
    private readonly nodes: readonly Node[],
    private readonly given: Vector,
    /** Those that have a node which is not cut, by their places in `ROLES`. */
    private readonly standing: readonly (Standing | undefined)[],
  ) {
    this.unit = standing[UNIT]!;
  }

  readings(wanted?: Wanted): number[] {
    const own = this.efforts[UNIT]!;
    const ofUnit: Nodes = {
      settle: (terminal, through, span) => this.settle(this.nodes[terminal]!, through, span),
      taken: (terminal, effort) => this.taken(this.nodes[terminal]!, effort),
      goesOn: (terminal, effort) => this.goesOn(this.nodes[terminal]!, effort),
      stopped: (terminal) => this.standing[this.nodes[terminal]!.other]?.stopped ?? NOTHING_JOINED,
    };
    for (const node of this.nodes) {
      const brought = node.cutAt < 0 && node.other === LOAD && this.unit.brings?.(node.unit, own, ofUnit);
      const effort =
        typeof brought === 'number'
          ? brought
          : this.settle(node, (at) => this.unit.through(node.unit, at, own));
      own[node.unit] = effort;
      const asked = node.other === LOAD || (this.unit.asks?.(node.unit) ?? true);
      if (node.cutAt < 0) this.efforts[node.other]![node.otherTerminal] = asked ? effort : NaN;
    }
    // The unit's own come first.
    const readings = this.unit.read(own, ofUnit, wanted);
    for (const other of [SOURCE, LOAD]) {
      const standing = this.standing[other];
      if (standing)
        for (const reading of standing.read(this.efforts[other]!, NOTHING_TO_SETTLE)) readings.push(reading);
    }
    return readings;
  }

  private taken({ other, otherTerminal }: Node, effort: number): number {
    return this.standing[other]!.through(otherTerminal, effort, this.efforts[other]!);
  }

  private goesOn({ other, otherTerminal }: Node, effort: number): number {
    return this.standing[other]!.goesOn?.(otherTerminal, effort) ?? 0;
  }

  /** The effort of a node at which what the unit passes there is what the other member does. */
  private settle(
    node: Node,
    unitPasses: (effort: number) => number,
    given?: readonly [idle: number, furthest: number],
  ): number {
    if (node.cutAt >= 0) return this.given[node.cutAt]!;
    const { close } = COUPLINGS[node.coupling];
    if (node.other === LOAD) {
      const [idle, furthest] = given ?? this.unit.span(node.unit, this.efforts[UNIT]!);
      return rootOfFalling((effort) => unitPasses(effort) - this.taken(node, effort), idle, furthest, close);
    }
    const told = this.efforts[SOURCE]!;
    const source = this.standing[SOURCE]!;
    const terminal = node.otherTerminal;
    const [idle, furthest] = source.span(terminal, told);
    if (!source.drawnAtRest)
      return rootOfFalling((effort) => unitPasses(effort) - this.taken(node, effort), idle, furthest, close);
    // The gauge at rest is a point of the source's line, and what the unit draws at work is more than there, or less.
    const rest = this.unit.atRest(node.unit, idle);
    const behind = source.drawnAtRest(rest.effort, rest.passes);
    const taken = behind.through(terminal, rest.effort, told);
    const more = (effort: number) =>
      unitPasses(effort) - rest.passes - (behind.through(terminal, effort, told) - taken);
    return more(rest.effort) < 0
      ? rootOfFalling(more, behind.span(terminal, told)[0], rest.effort, close)
      : rootOfFalling(more, rest.effort, furthest, close);
  }
}

const notSettled = (terminal: number): number => {
  throw new RangeError(`terminal: ${terminal} is settled by the unit alone`);
};
const NOTHING_JOINED: Stopped = { volume_m3: 0, leak_m3PerSPa: 0, back_m3PerSPa: 0, crack_Pa: 0 };
const NOTHING_TO_SETTLE: Nodes = {
  settle: notSettled,
  taken: notSettled,
  goesOn: notSettled,
  stopped: () => NOTHING_JOINED,
};

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
