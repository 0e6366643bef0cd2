import { FAMILIES } from '@/core/families/registry';

/** Ports that an instrument can stand on, over all families. */
export function portChoices(): { value: string; label: string }[] {
  const names = new Map<string, Set<string>>();
  for (const { id, name } of Object.values(FAMILIES).flatMap(({ ports }) => ports))
    names.set(id, (names.get(id) ?? new Set()).add(name));
  return [...names].map(([value, of]) => ({ value, label: [...of].join(' / ') }));
}
