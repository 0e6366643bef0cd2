import { FAMILIES, type FamilyKind } from '../families/registry';

/** What a kind works on: vacuum where one of its gauges reads any, else fluid that a pump feeds it with. */
export const worksOn = (kind: FamilyKind): 'vacuum' | 'fluid' =>
  FAMILIES[kind].ports.some(({ quantity }) => quantity === 'depression') ? 'vacuum' : 'fluid';
