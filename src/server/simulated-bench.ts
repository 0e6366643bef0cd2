import type { Knex } from 'knex';
import { z } from 'zod';
import { FAMILIES, type FamilyKind } from '@/core/families/registry';
import { handsSchema, simUnitSchema } from '@/core/shop/live';
import { TYPICAL_BENCH } from '@/devices/logger/typical-bench';
import { sayToHands } from './bench-hands';
import { link } from './live';
import { done, invalid, refused, type Outcome } from './outcome';
import { isCaseOnBench } from './case-of-run';
import { layOnBench, liesOnBench } from './practice-bench';
import { findRun } from './runs';

const IN_A_CASE =
  'A practice case lies on the simulated bench: what is wrong with it is not changed by hand.';
const NOT_SIMULATED = 'The bench is a real one: work it by hand.';

/** Works the simulated bench: handle, pump, valve, or what stands on it. */
export async function workBench(db: Knex, input: unknown): Promise<Outcome<unknown>> {
  const parsed = z
    .union([z.strictObject({ hands: handsSchema }), z.strictObject({ unit: simUnitSchema })])
    .safeParse(input);
  if (!parsed.success) return invalid(parsed.error.issues);
  // Another test takes the bench from a case, which is put there again as it is gone on with. Nothing else changes what lies there.
  const taking = 'unit' in parsed.data ? parsed.data.unit.run : undefined;
  const own = taking === undefined || taking === liesOnBench()?.run;
  if ('unit' in parsed.data && own && (await isCaseOnBench(db)))
    return refused({ code: 'refused', message: IN_A_CASE });
  const line = await link(db);
  if (!line?.status.simulated) return refused({ code: 'refused', message: NOT_SIMULATED });
  const unit = 'hands' in parsed.data ? null : await unitFor(db, parsed.data.unit);
  const kind = unit?.kind;
  if (kind && !FAMILIES[kind].motion)
    return refused({
      code: 'refused',
      message: `${FAMILIES[kind].name}: the simulated bench has none of these.`,
    });
  // A case leaves the source as it had it.
  const usual = unit && liesOnBench() ? { supply_Pa: TYPICAL_BENCH.supply_Pa } : {};
  const message = unit ? { unit: { ...usual, ...unit } } : parsed.data;
  const answer = await sayToHands(line.address, message);
  if (answer?.ok && unit) layOnBench(null);
  if (answer?.ok) return done(answer);
  return refused({ code: 'refused', message: answer?.why ?? 'The simulated bench does not answer.' });
}

async function unitFor(
  db: Knex,
  { run, ...rest }: z.infer<typeof simUnitSchema>,
): Promise<Readonly<Record<string, unknown>> & { readonly kind?: FamilyKind }> {
  const found = run ? await findRun(db, run) : null;
  if (!found) return rest.kind ? { ...rest, profile: FAMILIES[rest.kind].typical } : rest;
  const { barometer_Pa, temperature_K } = found.context.conditions;
  return { ...rest, kind: found.kind, profile: found.context.profile, room: { barometer_Pa, temperature_K } };
}
