import type { Family } from '../contract/family';
import type { RunContext } from '../contract/run-context';
import type { RunState } from '../contract/run-state';
import { settingUp, withSource, type Sources } from '../contract/sources';
import { HEALTHY, UNKNOWN, type RepairClass } from '../diagnosis/causes';
import type { Diagnostician, Standing } from '../diagnosis/diagnose';
import type { Evidence } from '../diagnosis/evidence';
import { entropy_bits, waitCounts, type Valued } from '../diagnosis/next-test';
import { evidenceOf } from '../diagnosis/of-run';
import { portsOf, possibleSteps, type PossibleStep } from '../diagnosis/possible';
import { overRun } from '../diagnosis/question';
import { leftBy } from '../procedure/run';

/** A test that was made, and what was known behind it. */
export interface Told {
  readonly step: string;
  readonly title: string;
  /** Time that it took, with what had to be set up for it, min. */
  readonly minutes: number;
  /** Doubt about what to mend that it took away, bits; below zero where it raised doubt. */
  readonly bits: number;
  /** The likeliest repair behind it, and its chance. */
  readonly likeliest: RepairClass;
  readonly chance: number;
}

/** A way through the tests of one case. */
export interface Walk {
  readonly tests: readonly Told[];
  readonly minutes: number;
  readonly standing: Standing;
}

/** A test to be made next, among those that can be. */
export type Choose = (possible: readonly PossibleStep[], valued: readonly Valued[]) => string | null;

/** More tests than this no procedure has: a walk ends. */
const MOST_TESTS = 60;

/** Steps that are over, and how the sources stand behind them. */
class Way {
  readonly done: string[] = [];
  private sources: Sources | undefined;

  constructor(
    private readonly family: Family,
    private readonly context: RunContext<unknown>,
  ) {}

  /** What can be done from here. */
  possible(): PossibleStep[] {
    const { procedure } = this.context;
    const over = procedure.steps.filter(({ id }) => this.done.includes(id)).flatMap(({ items }) => items);
    const run = overRun(over, { done: this.done, sources: this.sources });
    return possibleSteps(this.family, this.context, run, portsOf(over));
  }

  /** Does a step, with those that it needs. @returns what that takes, min */
  take({ chain, attended_s, waiting_s, setUp_s, restoring_s }: PossibleStep): number {
    for (const step of chain) {
      this.done.push(step.id);
      const sources = this.sources ?? {};
      this.sources = leftBy(step, settingUp(sources, step.state).reduce(withSource, sources));
    }
    return (attended_s + waitCounts(false) * waiting_s + setUp_s + restoring_s) / 60;
  }
}

/** What was seen in some steps, of all that a run shows. */
function seenIn(
  procedure: RunContext<unknown>['procedure'],
  all: readonly Evidence[],
  done: readonly string[],
) {
  const items = new Set(
    procedure.steps.filter(({ id }) => done.includes(id)).flatMap(({ items: of }) => of.map(({ id }) => id)),
  );
  return all.filter((one) => items.has(one.kind === 'look' ? one.item : one.of));
}

/** The likeliest repair, and its chance. */
const likeliestOf = (classes: ReadonlyMap<RepairClass, number>): readonly [RepairClass, number] =>
  [...classes].sort(([, a], [, b]) => b - a)[0] ?? [HEALTHY, 0];

/**
 * Goes through the tests of a case until one repair is as good as sure, nothing more can be told, or nobody chooses one.
 *
 * @param whole a run in which everything was tested: what each test shows is taken from it
 * @param choose the next test; by the advice it is the first of those that are valued
 */
export function walk(
  diagnostician: Diagnostician,
  family: Family,
  context: RunContext<unknown>,
  whole: RunState,
  choose: Choose = (_, valued) => valued[0]?.test.step ?? null,
): Walk {
  const way = new Way(family, context);
  const all = evidenceOf(family, context, whole);
  const tests: Told[] = [];
  for (;;) {
    const possible = way.possible();
    const evidence = seenIn(context.procedure, all, way.done);
    const {
      posterior,
      tests: valued,
      standing,
    } = diagnostician.diagnose(evidence, possible, waitCounts(false));
    const last = tests.at(-1);
    const [likeliest, chance] = likeliestOf(posterior.classes);
    const doubt = entropy_bits(posterior.classes.values());
    if (last) tests[tests.length - 1] = { ...last, bits: last.bits - doubt, likeliest, chance };
    const chosen = standing.is === 'open' && tests.length < MOST_TESTS ? choose(possible, valued) : null;
    const next = possible.find(({ step }) => step === chosen);
    if (!next) return { tests, standing, minutes: tests.reduce((sum, { minutes }) => sum + minutes, 0) };
    tests.push({
      step: next.step,
      title: next.title,
      minutes: way.take(next),
      bits: doubt,
      likeliest,
      chance,
    });
  }
}

/**
 * What each step of a run told at that moment, in the order in which they were done.
 *
 * @param order steps by their ids, those that were done
 */
export function toldBy(
  diagnostician: Diagnostician,
  family: Family,
  context: RunContext<unknown>,
  run: RunState,
  order: readonly string[],
): Told[] {
  const way = new Way(family, context);
  const all = evidenceOf(family, context, run);
  const doubtBehind = (done: readonly string[]) => {
    const { classes } = diagnostician.posterior(seenIn(context.procedure, all, done));
    return { doubt: entropy_bits(classes.values()), by: likeliestOf(classes) };
  };
  let before = doubtBehind([]);
  return order.flatMap((id): Told[] => {
    if (way.done.includes(id)) return [];
    const step = context.procedure.steps.find((one) => one.id === id);
    if (!step) return [];
    // What was done without what it needs is done all the same: only its own time counts.
    const possible = way.possible().find((one) => one.step === id);
    const alone = {
      chain: [step],
      attended_s: step.attended_s ?? 0,
      waiting_s: 0,
      setUp_s: 0,
      restoring_s: 0,
    };
    const minutes = way.take((possible ?? alone) as PossibleStep);
    const behind = doubtBehind(way.done);
    const bits = before.doubt - behind.doubt;
    before = behind;
    const [likeliest, chance] = behind.by;
    return [{ step: id, title: step.title, minutes, bits, likeliest, chance }];
  });
}

/** The repair that a walk comes to: the one that is claimed, or else the likeliest of all that it does not tell apart. */
export function foundBy({ standing, tests }: Pick<Walk, 'standing' | 'tests'>): RepairClass {
  if (standing.is === 'claimed') return standing.repair;
  if (standing.is === 'not-told-apart') return standing.group[0]!;
  return standing.is === 'unexplained' ? UNKNOWN : (tests.at(-1)?.likeliest ?? UNKNOWN);
}
