import type { Family } from '../contract/family';
import type { RunContext } from '../contract/run-context';
import type { RunState } from '../contract/run-state';
import { settingUp, sourceState, withSource, type Sources } from '../contract/sources';
import type { Item, Procedure, Step } from '../contract/steps';
import { needsFirst, waitingIn } from '../procedure/next-action';
import { gatesShut } from '../procedure/opening';
import { waitingTime_s } from '../procedure/plan';
import { belongs, isDone, leftBy, makesSafe } from '../procedure/run';
import { plannedLook, plannedReading } from './of-run';
import type { PossibleTest } from './next-test';

type Planned = PossibleTest['planned'][number];

/** Time of a step that does not say, s. */
const USUAL_S = 120;

/** A step that could be done, with what it would show and what has to be set for it. */
export interface PossibleStep extends PossibleTest {
  readonly title: string;
  /** Steps to be done for it, in their order: those that it needs and are still to be done, and itself. */
  readonly chain: readonly Step[];
  /** What has to be done for it, in the order in which it is. */
  readonly setUp: readonly string[];
}

/**
 * Every step that could be done, with those that it needs before it. None whose gate is shut, or the gate of a step that it
 * needs; none while the bench is left alone.
 *
 * @param fitted ports at which a gauge stands already
 */
export function possibleSteps(
  family: Family,
  context: RunContext<unknown>,
  run: RunState,
  fitted = fittedIn(context.procedure, run),
): PossibleStep[] {
  const { procedure } = context;
  if (waitingIn(procedure, run)) return [];
  // An item that several chains have in common is planned once.
  const known = new Map<Item, Planned | null>();
  const plannedFor = (item: Item) => {
    const found = known.get(item);
    if (found !== undefined) return found;
    const made =
      item.kind === 'reading'
        ? plannedReading(family, context, run, item)
        : item.kind === 'observation'
          ? plannedLook(family, item)
          : null;
    known.set(item, made);
    return made;
  };
  return procedure.steps.flatMap((step): PossibleStep[] => {
    if (makesSafe(step) || step.closing || !belongs(run, step)) return [];
    if (step.items.every((item) => isDone(run, item))) return [];
    const chain = [...before(procedure, run, step), step];
    if (chain.some((one) => gatesShut(procedure, run, one).length > 0)) return [];
    return [possible(family, run, chain, fitted, plannedFor)];
  });
}

/** Ports at which something is read. */
export const portsOf = (items: readonly Item[]): Set<string> =>
  new Set(items.flatMap((item) => (item.kind === 'reading' ? [item.port] : [])));

/** Ports at which something was read: a gauge stands there. */
function fittedIn({ steps }: Procedure, { captures }: RunState): Set<string> {
  const read = new Set(captures.map(({ item }) => item));
  return portsOf(steps.flatMap(({ items }) => items.filter(({ id }) => read.has(id))));
}

/** Steps that one needs, and that those need, which are still to be done, in the usual order. */
function before(procedure: Procedure, run: RunState, step: Step): Step[] {
  const found = new Set<Step>();
  const add = (one: Step) => {
    for (const need of needsFirst(procedure, run, one))
      if (!found.has(need)) {
        found.add(need);
        add(need);
      }
  };
  add(step);
  return procedure.steps.filter((one) => found.has(one));
}

/** A step behind those that it needs: all that they show together, and all that they take. */
function possible(
  family: Family,
  run: RunState,
  chain: readonly Step[],
  fitted: ReadonlySet<string>,
  plannedFor: (item: Item) => Planned | null,
): PossibleStep {
  const last = chain.at(-1)!;
  const open = chain.flatMap(({ items }) => items.filter((item) => !isDone(run, item)));
  const planned = open.flatMap((item) => plannedFor(item) ?? []);
  const needed = portsOf(open);
  const toFit = family.ports.filter(
    ({ id, fit_s }) => fit_s !== undefined && needed.has(id) && !fitted.has(id),
  );
  // Sources are set step by step, each as the one before has left them.
  let sources: Sources = run.sources;
  const sets = chain.flatMap((step) => {
    const needs = settingUp(sources, step.state);
    sources = leftBy(step, needs.reduce(withSource, sources));
    return needs;
  });
  return {
    step: last.id,
    title: last.title,
    chain,
    planned,
    attended_s: chain.reduce((sum, { attended_s = USUAL_S }) => sum + attended_s, 0),
    waiting_s: waitingTime_s([{ items: open }]),
    setUp_s:
      sets.reduce((sum, set) => sum + sourceState(set).takes_s, 0) +
      toFit.reduce((sum, { fit_s = 0 }) => sum + fit_s, 0),
    // What it uses up the next one has to charge again.
    restoring_s: last.leaves?.charge === 'spent' ? sourceState({ source: 'charge', to: 'full' }).takes_s : 0,
    setUp: [
      ...toFit.map(({ name }) => `Gauge on ${name.toLowerCase()}`),
      ...sets.map((set) => sourceState(set).words),
      ...chain.slice(0, -1).map(({ title }) => `“${title}”`),
    ],
  };
}
