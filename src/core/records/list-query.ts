import { z } from 'zod';
import { FAMILIES, FAMILY_KINDS, type FamilyKind } from '../families/registry';
import type { Assessment } from '../contract/result';

/** Rows on one page of a list. */
export const PER_PAGE = 50;

/** What a finished test came to, as a list is asked for it. */
export const VERDICTS: Readonly<Record<Assessment['call'], string>> = {
  faulty: 'The unit fails',
  open: 'Too close to call',
  incomplete: 'Not complete',
  'weak-supply': 'Weak supply',
  healthy: 'Met every limit',
};

/** Kinds of unit by their names. */
export const KINDS = Object.fromEntries(FAMILY_KINDS.map((kind) => [kind, FAMILIES[kind].name])) as Readonly<
  Record<FamilyKind, string>
>;

/** One of the choices; anything else asks for what is asked when nothing is said. */
export const oneOf = <K extends string>(choices: Readonly<Record<K, string>>, otherwise: NoInfer<K>) =>
  z.enum(Object.keys(choices) as [K, ...K[]]).catch(otherwise);

const orAll = <K extends string>(choices: Readonly<Record<K, string>>) =>
  z.union([z.enum(Object.keys(choices) as [K, ...K[]]), z.literal('')]).catch('');
const day = z.union([z.iso.date(), z.literal('')]).catch('');

/** What can be asked of every list; the empty word asks for all. Nonsense in an address is passed over. */
export const listFields = {
  /** Words that must be found. */
  q: z.string().max(200).catch(''),
  /** First and last day, both counted in. */
  from: day,
  to: day,
  kind: orAll(KINDS),
  verdict: orAll(VERDICTS),
  /** Name of who tested. */
  technician: z.string().max(120).catch(''),
  order: z.enum(['asc', 'desc']).catch('desc'),
  page: z.coerce.number().int().min(1).max(100_000).catch(1),
};
export type ListQuery = z.infer<z.ZodObject<typeof listFields>>;

/** Words of a search, as letters and digits: everything else separates them. */
export const searchWords = (q: string): string[] => q.match(/[\p{L}\p{N}]+/gu) ?? [];
