import { FAMILIES, type FamilyKind } from '../families/registry';

/** How a part of a kind is spoken of; the unit as a whole where none is named. */
export const partName = (kind: FamilyKind, part: string | null): string =>
  FAMILIES[kind].parts.find(({ id }) => id === part)?.name ?? part ?? 'The unit as a whole';
