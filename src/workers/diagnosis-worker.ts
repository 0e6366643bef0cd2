import { adviseOn, type Advice } from '@/core/diagnosis/advice';
import { Diagnostician } from '@/core/diagnosis/diagnose';
import type { Beliefs } from '@/core/diagnosis/causes';
import { FAMILIES, type FamilyKind } from '@/core/families/registry';
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
}

/** How far it is, and what came of it. */
export type FromDiagnosis =
  | { readonly ask: number; readonly part: number }
  | { readonly ask: number; readonly advice: Advice }
  | { readonly ask: number; readonly problem: string };

/** Particles are laid out once for a run: an update by one more reading only weighs anew. */
let kept: { readonly key: string; readonly diagnostician: Diagnostician } | null = null;

const answer = (message: FromDiagnosis) => self.postMessage(message);

self.addEventListener('message', ({ data }: MessageEvent<ToDiagnosis>) => {
  const { ask, kind, context, run, beliefs, otherWork } = data;
  try {
    const family = FAMILIES[kind];
    const key = JSON.stringify([kind, context.profile, beliefs]);
    if (kept?.key !== key) kept = { key, diagnostician: new Diagnostician(family, context.profile, beliefs) };
    const advice = adviseOn(kept.diagnostician, family, context, run, { otherWork }, (part) =>
      answer({ ask, part }),
    );
    answer({ ask, advice });
  } catch (error) {
    answer({ ask, problem: error instanceof Error ? error.message : String(error) });
  }
});
