import type { Item, Procedure, Step } from '../contract/steps';

/** How the steps of a test that is not finished are gone on with: by the program's own, or not at all. */
export type OwnSteps =
  { readonly ok: true; readonly procedure: Procedure } | { readonly ok: false; readonly unknown: string };

/** Steps that came into a test while it was done: to settle which of two gauges is wrong, or to close what was opened. */
const cameIn = ({ exchange, closing }: Step) => Boolean(exchange ?? closing);

/**
 * The steps by which a test that is not finished goes on. What was written down says where readings were to be taken; what is safe,
 * said and waited for is this program's own, whoever wrote the rest.
 *
 * @param own steps of the family for this profile and these gauges
 * @param written those that stand in the record
 * @returns not ok, with its id, where a step or an item of the record is none of the program's own
 */
export function byOwnSteps(own: Procedure, written: Procedure): OwnSteps {
  const writtenBy = new Map(written.steps.map((step) => [step.id, step]));
  const steps = own.steps.map((step) => withTargets(step, writtenBy.get(step.id)));
  const known = new Map(own.steps.map((step) => [step.id, step]));
  for (const [i, step] of written.steps.entries()) {
    const mine = known.get(step.id);
    if (mine) {
      const unknown = step.items.find((item) => !mine.items.some((one) => isSame(one, item)));
      if (unknown) return { ok: false, unknown: unknown.id };
    } else if (cameIn(step)) {
      const before = written.steps[i - 1]?.id;
      steps.splice(steps.findIndex(({ id }) => id === before) + 1 || steps.length, 0, step);
    } else return { ok: false, unknown: step.id };
  }
  return { ok: true, procedure: { ...own, steps } };
}

const isSame = (one: Item, other: Item): boolean =>
  one.id === other.id &&
  one.kind === other.kind &&
  (one.kind !== 'reading' ||
    (other.kind === 'reading' && one.port === other.port && one.quantity === other.quantity));

/** A step with the targets at which its readings were to be taken. */
const withTargets = (step: Step, written: Step | undefined): Step => ({
  ...step,
  items: step.items.map((item) => {
    const was = written?.items.find(({ id }) => id === item.id);
    return item.kind === 'reading' && was?.kind === 'reading' && was.target_Pa !== undefined
      ? { ...item, target_Pa: was.target_Pa }
      : item;
  }),
});
