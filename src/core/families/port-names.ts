import type { Quantity } from '../quantities/units';
import { FAMILIES, type FamilyKind } from './registry';

/** What ports of one place are called over all families, or over those that are read in one quantity. */
export function portName(id: string, quantity?: Quantity): string {
  const ports = Object.values(FAMILIES).flatMap((family) => family.ports);
  const here = ports.filter((port) => port.id === id && (!quantity || port.quantity === quantity));
  return [...new Set(here.map(({ name }) => name))].join(' / ') || id;
}

/** Ports that an instrument can stand on, over all families, each once. */
export const portIds = (): string[] => [
  ...new Set(Object.values(FAMILIES).flatMap(({ ports }) => ports.map(({ id }) => id))),
];

/** Names of the ports of one family. */
export const portNamer =
  (kind: FamilyKind) =>
  (id: string): string =>
    FAMILIES[kind].ports.find((port) => port.id === id)?.name ?? id;
