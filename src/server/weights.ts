import { randomUUID } from 'node:crypto';
import type { Knex } from 'knex';
import { z } from 'zod';
import {
  anyCounts,
  weightChangeSchema,
  weightsFrom,
  type FaultWeights,
  type WeightEntry,
} from '@/core/diagnosis/weights';
import { FAMILIES, FAMILY_KINDS, type FamilyKind } from '@/core/families/registry';
import { canonicalJson } from '@/core/records/canonical';
import { append, findEntry, linksOf, NAMED_ALREADY, writtenFrom } from './journal';
import { done, invalid, refused, type Outcome } from './outcome';
import { missing } from './store';

/** What is sent to change how often a fault counts. Sent twice under one name it is written once. */
export const changedWeightSchema = weightChangeSchema.extend({
  fault: z.string().min(1).max(80),
  id: z.uuid().optional(),
});

const chainOf = (kind: FamilyKind) => `weights/${kind}`;

const read = async (db: Knex, kind: FamilyKind): Promise<FaultWeights> =>
  weightsFrom((await linksOf(db, chainOf(kind))).map((link) => writtenFrom<WeightEntry>(link)));

/** How often the faults of a kind count, as this shop has it. */
export const faultWeights = read;

/** The same, asked for by the name of a kind. */
export async function weightsOf(db: Knex, kind: string): Promise<Outcome<FaultWeights>> {
  const known = FAMILY_KINDS.find((one) => one === kind);
  return known ? done(await read(db, known)) : missing('model');
}

/** Writes a change behind all others of its kind: what counted before stays in the journal. */
export async function changeWeight(
  db: Knex,
  kind: string,
  input: unknown,
  at: string,
): Promise<Outcome<FaultWeights>> {
  const known = FAMILY_KINDS.find((one) => one === kind);
  if (!known) return missing('model');
  const parsed = changedWeightSchema.safeParse(input);
  if (!parsed.success) return invalid(parsed.error.issues);
  const { id = randomUUID(), ...change } = parsed.data;
  const family = FAMILIES[known];
  if (!family.faults.some((fault) => fault.id === change.fault))
    return invalid([{ path: ['fault'], message: `Fault: ${family.name} has none of that name.` }]);
  return db.transaction(async (trx) => {
    const entry = { type: 'weighed', ...change } satisfies WeightEntry;
    const written = await findEntry(trx, id);
    if (written && (written.chain !== chainOf(known) || written.body !== canonicalJson(entry)))
      return refused({ code: 'refused', message: NAMED_ALREADY });
    if (written) return done(await read(trx, known));
    const { weights } = await read(trx, known);
    if (change.weight !== null && !anyCounts(family, { ...weights, [change.fault]: change.weight }))
      return invalid([{ path: ['weight'], message: 'Weight: no fault would be left that counts.' }]);
    await append(trx, chainOf(known), { id, at, entry });
    return done(await read(trx, known));
  });
}
