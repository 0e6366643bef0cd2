import type { MemberFolder, Part } from '../contract/family';

const changed =
  (kind: Part['kind']) =>
  (id: string, name: string, disturbs: readonly string[], opens: readonly string[]): Part => ({
    id,
    name,
    kind,
    disturbs,
    opens,
  });

/** A part that can be changed: the steps that it disturbs, and the ports that it opens. */
export const part = changed('part');
/** A line that can be opened. */
export const line = changed('line');
/** A gauge that can be moved or changed. */
export const gauge = changed('gauge');

/** What is joined to a unit, of which nothing is tested. */
export const UNTESTED = {
  faults: [],
  looks: [],
  steps: () => [],
  keeps: {},
  results: () => [],
  parts: [],
  leakPoints: [],
} as const satisfies Partial<MemberFolder<unknown>>;
