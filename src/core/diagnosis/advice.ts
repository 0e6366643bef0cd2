import type { Family } from '../contract/family';
import type { RunContext } from '../contract/run-context';
import type { RunState } from '../contract/run-state';
import { nextAction } from '../procedure/next-action';
import { HEALTHY, UNKNOWN } from './causes';
import type { LookEvidence } from './evidence';
import type { Diagnostician, Standing } from './diagnose';
import { evidenceOf, type StepTrace } from './of-run';
import type { Ranked } from './posterior';
import { possibleSteps } from './possible';
import { repairedBy, type Believed, type Repaired } from './repaired';
import { waitCounts, entropy_bits, LEAST_BITS } from './next-test';

/** A piece of evidence, and how much it multiplies the odds of a cause, as a natural logarithm. */
export interface Speaks {
  /** Item of the procedure. */
  readonly item: string;
  readonly weighs: number;
}

/** A cause as it is shown. */
export interface AdvisedCause {
  readonly id: string;
  readonly name: string;
  readonly chance: number;
  /** The strongest first. */
  readonly for: readonly Speaks[];
  readonly against: readonly Speaks[];
}

/** A step that could be done next, with what it is expected to tell. */
export interface AdvisedStep {
  readonly step: string;
  readonly title: string;
  /** Step to begin with: this one, or the first of those that it needs. */
  readonly first: string;
  readonly gain_bits: number;
  /** Part of the doubt that it is expected to take away, 0 to 1. */
  readonly part: number;
  readonly attended_s: number;
  readonly waiting_s: number;
  readonly setUp_s: number;
  readonly setUp: readonly string[];
  readonly bitsPerMinute: number;
}

/** Two things that were seen and do not go together. */
export interface AdvisedRepeat {
  readonly item: string;
  readonly partner: string | null;
  /** The cheaper of the two to do again. */
  readonly repeat: string;
}

/** What a technician is told: what it probably is, what to do next, and when to stop. */
export interface Advice {
  readonly causes: readonly AdvisedCause[];
  readonly standing: Standing;
  /** In words: names of the causes of the repair that is claimed, or of the group. */
  readonly names: readonly string[];
  readonly atOdds: readonly AdvisedRepeat[];
  /** Where nothing known explains what was seen, the item that clashes most with all that is known; else null. */
  readonly clash: string | null;
  /** The best first; those that tell too little to be advised are left out. */
  readonly steps: readonly AdvisedStep[];
  /** What the usual order would do next, with what that is expected to tell; null where nothing is left. */
  readonly usual: AdvisedStep | null;
  readonly evidence: number;
  /** What the repair that this run follows came to; null where there was none, or none of what it mends was suspected. */
  readonly repaired: Repaired | null;
}

/** What was believed before a repair, and the parts that were changed or mended in it. */
export interface BeforeRepair extends Believed {
  readonly parts: readonly string[];
}

/** A cause less likely than this is not shown. */
const SHOWN_FROM = 0.01;
const MOST_SHOWN = 6;
/** Evidence that changes the odds by less than this part of them says nothing. */
const SAYS_FROM = Math.log(1.15);
const MOST_SPEAKING = 4;

/** What to tell a technician at this moment of a run. */
export function adviseOn(
  diagnostician: Diagnostician,
  family: Family,
  context: RunContext<unknown>,
  run: RunState,
  {
    otherWork,
    before = null,
    logged = [],
    home = [],
  }: {
    readonly otherWork: boolean;
    readonly before?: BeforeRepair | null;
    readonly logged?: readonly StepTrace[];
    /** What the customer tried at home. */
    readonly home?: readonly LookEvidence[];
  },
  progress?: (part: number) => void,
): Advice {
  const evidence = [...evidenceOf(family, context, run, logged), ...home];
  const items = evidence.map((one) => (one.kind === 'look' ? one.item : one.of));
  const possible = possibleSteps(family, context, run);
  const { posterior, tests, standing } = diagnostician.diagnose(
    evidence,
    possible,
    waitCounts(otherWork),
    progress,
  );
  const doubt = entropy_bits(posterior.classes.values());
  const titles = new Map(possible.map((one) => [one.step, one]));
  const steps = tests.map(({ test, gain_bits, bitsPerMinute }): AdvisedStep => {
    const { title, setUp, chain } = titles.get(test.step)!;
    return {
      step: test.step,
      title,
      first: chain[0]!.id,
      setUp,
      gain_bits,
      bitsPerMinute,
      part: doubt > 0 ? Math.min(1, gain_bits / doubt) : 0,
      attended_s: test.attended_s,
      waiting_s: test.waiting_s,
      setUp_s: test.setUp_s,
    };
  });
  const action = nextAction(context.procedure, { ...run, chosen: null });
  const next = 'step' in action ? action.step.id : null;
  const costOf = (item: string) => {
    const step = context.procedure.steps.find((one) => one.items.some(({ id }) => id === item));
    return step?.attended_s ?? 0;
  };
  return {
    causes: posterior.ranked
      .filter(({ chance }) => chance >= SHOWN_FROM)
      .slice(0, MOST_SHOWN)
      .map(({ cause, chance, weighs }) => {
        const speaks = weighs
          .map((weighing, i): Speaks => ({ item: items[i]!, weighs: weighing }))
          .sort((a, b) => Math.abs(b.weighs) - Math.abs(a.weighs));
        return {
          id: cause.id,
          name: nameOf(cause),
          chance,
          for: speaks.filter((one) => one.weighs > SAYS_FROM).slice(0, MOST_SPEAKING),
          against: speaks.filter((one) => one.weighs < -SAYS_FROM).slice(0, MOST_SPEAKING),
        };
      }),
    standing,
    names: namesOf(posterior.ranked, standing),
    atOdds: posterior.atOdds.map(({ piece, partner }): AdvisedRepeat => {
      const [item, other] = [items[piece]!, partner < 0 ? null : items[partner]!];
      return { item, partner: other, repeat: other && costOf(other) < costOf(item) ? other : item };
    }),
    clash: standing.is === 'unexplained' ? (items[posterior.clash] ?? null) : null,
    steps: steps.filter(({ gain_bits }) => gain_bits >= LEAST_BITS),
    usual: steps.find(({ step }) => step === next) ?? null,
    evidence: evidence.length,
    repaired:
      before &&
      repairedBy(family.parameters, family.healthy(context.profile).values, before.parts, before, {
        posterior,
        set: diagnostician.set,
      }),
  };
}

/** A cause in words. */
export const nameOf = ({
  id,
  faults,
}: {
  readonly id: string;
  readonly faults: readonly { readonly name: string }[];
}) =>
  id === HEALTHY
    ? 'nothing wrong'
    : id === UNKNOWN
      ? 'none of the known faults'
      : faults.map(({ name }) => name).join(' and ');

/** Part of a repair's chance from which one of its causes is named with it. */
const NAMED_FROM = 0.05;

/** Names of the causes behind the repairs that a standing speaks of, the likeliest first. */
function namesOf(ranked: readonly Ranked[], standing: Standing): string[] {
  const repairs =
    standing.is === 'claimed' ? [standing.repair] : standing.is === 'not-told-apart' ? standing.group : [];
  return repairs.flatMap((repair) => {
    const causes = ranked.filter(({ cause }) => cause.repair === repair);
    const whole = causes.reduce((sum, { chance }) => sum + chance, 0);
    return causes.filter(({ chance }) => chance >= NAMED_FROM * whole).map(({ cause }) => nameOf(cause));
  });
}
