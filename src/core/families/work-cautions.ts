import type { CautionId } from '../contract/cautions';
import { FAMILIES, type FamilyKind } from './registry';

/** Cautions of what holds force while nothing runs: those that are said before any part is touched. */
const HOLDS_FORCE: readonly CautionId[] = [
  'open-line',
  'held-by-check-valves',
  'charged-vessel',
  'body-moves',
  'machine-stands',
  'spring-casing',
];

/** What is said before a part of a unit is touched: whatever holds force there, by the repairs of its faults. Handbook 2. */
export function workCautions(kind: FamilyKind): CautionId[] {
  const said = new Set(FAMILIES[kind].faults.flatMap(({ cautions }) => cautions));
  return HOLDS_FORCE.filter((id) => said.has(id));
}
