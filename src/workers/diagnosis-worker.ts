import { adviseOn, type Advice, type BeforeRepair } from '@/core/diagnosis/advice';
import { evidenceOf, type StepTrace } from '@/core/diagnosis/of-run';
import { chancesAfter } from '@/core/diagnosis/repaired';
import { Diagnostician } from '@/core/diagnosis/diagnose';
import type { Beliefs } from '@/core/diagnosis/causes';
import { homeEvidence } from '@/core/families/home-checks';
import { FAMILIES, type FamilyKind } from '@/core/families/registry';
import type { HomeAnswer } from '@/core/contract/home-check';
import type { RunContext } from '@/core/contract/run-context';
import type { RunState } from '@/core/contract/run-state';

/** What a run asks: everything that was seen so far. */
export interface ToDiagnosis {
  readonly ask: number;
  readonly kind: FamilyKind;
  readonly context: RunContext<unknown>;
  readonly run: RunState;
  readonly beliefs: Beliefs;
  readonly otherWork: boolean;
  /** What the logger recorded while its steps were done. */
  readonly logged: readonly StepTrace[];
  /** What the customer tried at home since the last repair. */
  readonly home: Readonly<Record<string, HomeAnswer>>;
  /** The test before a repair that this run follows, and the parts that were changed or mended; null where it follows none. */
  readonly before: {
    readonly context: RunContext<unknown>;
    readonly run: RunState;
    readonly parts: readonly string[];
  } | null;
}

/** How far it is, and what came of it. */
export type FromDiagnosis =
  | { readonly ask: number; readonly part: number }
  | { readonly ask: number; readonly advice: Advice }
  | { readonly ask: number; readonly problem: string };

/** Particles are laid out once for a run: an update by one more reading only weighs anew. */
let kept: { readonly key: string; readonly diagnostician: Diagnostician } | null = null;
/** What was believed before a repair is worked out once. */
let keptBefore: { readonly key: string; readonly before: BeforeRepair } | null = null;

const answer = (message: FromDiagnosis) => self.postMessage(message);

/** What stood before the repair; its particles stay, since nobody asks that diagnostician again. */
function believedBefore(
  { kind, beliefs }: Pick<ToDiagnosis, 'kind' | 'beliefs'>,
  before: NonNullable<ToDiagnosis['before']>,
): BeforeRepair {
  const key = JSON.stringify([kind, beliefs, before]);
  if (keptBefore?.key !== key) {
    const { context, run, parts } = before;
    const family = FAMILIES[kind];
    const diagnostician = new Diagnostician(family, context.profile, beliefs);
    const posterior = diagnostician.posterior(evidenceOf(family, context, run));
    keptBefore = { key, before: { posterior, set: diagnostician.set, parts } };
  }
  return keptBefore.before;
}

self.addEventListener('message', ({ data }: MessageEvent<ToDiagnosis>) => {
  const { ask, kind, context, run, otherWork, logged } = data;
  try {
    const family = FAMILIES[kind];
    const before = data.before && believedBefore(data, data.before);
    const beliefs = before
      ? { ...data.beliefs, after: chancesAfter(before.posterior.ranked, before.parts) }
      : data.beliefs;
    const key = JSON.stringify([kind, context.profile, beliefs]);
    if (kept?.key !== key) kept = { key, diagnostician: new Diagnostician(family, context.profile, beliefs) };
    const home = homeEvidence(kind, context.profile, data.home);
    const beside = { otherWork, before, logged, home };
    const advice = adviseOn(kept.diagnostician, family, context, run, beside, (part) =>
      answer({ ask, part }),
    );
    answer({ ask, advice });
  } catch (error) {
    answer({ ask, problem: error instanceof Error ? error.message : String(error) });
  }
});
