import type { Contradiction } from '../contract/family';
import type { RunContext } from '../contract/run-context';
import type { RunState } from '../contract/run-state';
import { instrumentsOf, measuredItem } from '../procedure/measured-item';

/** Answers that a reading of the same test contradicts, with what is said of it. */
export function contradicted(
  contradictions: readonly Contradiction[],
  context: RunContext<unknown>,
  run: RunState,
): Map<string, string> {
  const instruments = instrumentsOf(context.rig, context.shelf);
  return new Map(
    contradictions.flatMap(({ item, answer, from, when, say }): [string, string][] => {
      if (run.observations[item]?.answer !== answer) return [];
      const read = from.flatMap((id) => measuredItem(instruments, run, id)?.value_SI ?? []);
      return read.length === from.length && when(...read) ? [[item, say]] : [];
    }),
  );
}
