import { FAMILIES } from '@/core/families/registry';

/** Ports that an instrument can stand on, over all families. */
export function portChoices(): { value: string; label: string }[] {
  const ports = new Map(
    Object.values(FAMILIES).flatMap((family) => family.ports.map(({ id, name }) => [id, name] as const)),
  );
  return [...ports].map(([value, label]) => ({ value, label }));
}
