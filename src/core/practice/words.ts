import { HEALTHY, UNKNOWN, type RepairClass } from '../diagnosis/causes';
import { FAMILIES, type FamilyKind } from '../families/registry';

/** What a repair is called: its parts by their names. */
export function repairWords(kind: FamilyKind, repair: RepairClass): string {
  if (repair === HEALTHY) return 'Nothing is wrong with it';
  if (repair === UNKNOWN) return 'Not known';
  const { parts } = FAMILIES[kind];
  const names = repair.split(' + ').map((part) => parts.find(({ id }) => id === part)?.name ?? part);
  return names.map((name, i) => (i === 0 ? name : name.toLowerCase())).join(' and ');
}

/** Minutes in words. */
export const minutesWords = (minutes: number): string =>
  `${Math.max(1, Math.round(minutes))} ${Math.round(minutes) <= 1 ? 'minute' : 'minutes'}`;

/** How far on a fault is, from its severity. */
export const stageWords = (severity: number): string =>
  severity >= 0.75 ? 'far on' : severity >= 0.5 ? 'half way' : 'not long begun';

/** How much a test told, from the doubt that it took away, bits. */
export const toldWords = (bits: number): string =>
  bits >= 1
    ? 'much'
    : bits >= 0.3
      ? 'something'
      : bits >= 0.05
        ? 'a little'
        : bits > -0.3
          ? 'nothing'
          : 'raised doubt';
