/** @jest-environment node */
import type { Procedure, Step } from '../contract/steps';
import { FAMILIES, FAMILY_KINDS } from '../families/registry';
import { RIGS } from '../scenarios/bench';
import { byOwnSteps } from './own-steps';

const ownOf = (kind: (typeof FAMILY_KINDS)[number]) =>
  FAMILIES[kind].procedure(FAMILIES[kind].typical, RIGS[kind]);
const got = (own: Procedure, written: Procedure) => {
  const found = byOwnSteps(own, written);
  return found.ok ? found.procedure : found.unknown;
};

/** A step with nothing of what keeps somebody from harm. */
function bare({ mandatory: _m, gates: _g, closing: _c, ...step }: Step): Step {
  const items = step.items.map((item) => {
    if (item.kind === 'wait') return { ...item, duration_s: 0 };
    if (item.kind === 'observation') return item;
    const { gate: _gate, stopAt_Pa: _stop, ...rest } = item;
    return rest;
  });
  return { ...step, cautions: [], needs: [], instruction: '', items };
}

describe.each(FAMILY_KINDS)('%s', (kind) => {
  const own = ownOf(kind);
  test('goes on by its own steps, whatever was left out of them or which of them', () => {
    expect(got(own, { ...own, steps: own.steps.map(bare) })).toEqual(own);
    expect(got(own, { ...own, steps: own.steps.filter(({ mandatory }) => !mandatory) })).toEqual(own);
  });
  test('does not go on with a step, or a reading, that is not its own', () => {
    const [first, ...rest] = own.steps;
    expect(got(own, { ...own, steps: [{ ...first!, id: 'made-up' }, ...rest] })).toBe('made-up');
    const at = own.steps.findIndex(({ items }) => items.some(({ kind }) => kind === 'reading'));
    const step = own.steps[at]!;
    const items = step.items.map((item) => (item.kind === 'reading' ? { ...item, port: 'elsewhere' } : item));
    const moved = step.items.find((item) => item.kind === 'reading')!.id;
    expect(got(own, { ...own, steps: own.steps.with(at, { ...step, items }) })).toBe(moved);
  });
});

test('keeps the targets at which readings were taken, and the steps that came in while it was done', () => {
  const own = ownOf('rod-servo');
  const at = own.steps.findIndex(({ items }) =>
    items.some((item) => item.kind === 'reading' && item.target_Pa !== undefined),
  );
  const step = own.steps[at]!;
  const items = step.items.map((item) =>
    item.kind === 'reading' && item.target_Pa !== undefined ? { ...item, target_Pa: 7 } : item,
  );
  const closing: Step = { ...step, id: 'closing.1', items: [], closing: true };
  const written = own.steps.with(at, { ...step, items, instruction: '' }).toSpliced(at + 1, 0, closing);
  const found = got(own, { ...own, steps: written });
  expect(found).toEqual({
    ...own,
    steps: own.steps.with(at, { ...step, items }).toSpliced(at + 1, 0, closing),
  });
});
