import { z } from 'zod';
import { FAMILIES, type FamilyKind } from '../families/registry';
import { jobEntrySchema, type JobEntry } from './entries';
import { judgementSchema } from './judgement';

/** Raised when the form of an entry changes; the entries of every earlier revision are read through `ENTRY_UPCASTS`. */
export const ENTRY_REVISION = 7;

type Raw = Readonly<Record<string, unknown>>;

/**
 * From each revision of an entry to the next. What an older program wrote down says nothing of what a newer one asks:
 * that is then said to be unknown, never made up.
 */
export const ENTRY_UPCASTS: Readonly<Record<number, (entry: Raw) => Raw>> = {
  // 2: profiles carry the revision of their family; a capture says how its value came about.
  1: (entry) => {
    if (entry.type === 'taken-in' || entry.type === 'changed')
      return { ...entry, profile: { ...(entry.profile as Raw), revision: 1 } };
    if (entry.type === 'run-started') return { ...entry, revision: 1 };
    if (entry.type !== 'run-event') return entry;
    const event = entry.event as Raw;
    if (event.type !== 'captured') return entry;
    return { ...entry, event: { ...event, by: event.typed === '' ? 'not-said' : 'typed' } };
  },
  // 3: a step names the state of each source that it needs; until then there was one, the vacuum.
  2: (entry) => {
    if (entry.type === 'run-started') {
      const context = entry.context as Raw;
      const procedure = context.procedure as Raw;
      const steps = (procedure.steps as Raw[]).map(stepWithSources);
      return { ...entry, context: { ...context, procedure: { ...procedure, steps } } };
    }
    if (entry.type !== 'run-event') return entry;
    const event = entry.event as Raw;
    if (event.type === 'added')
      return { ...entry, event: { ...event, step: stepWithSources(event.step as Raw) } };
    if (event.type !== 'source-set') return entry;
    const { vacuum, ...rest } = event;
    return { ...entry, event: { ...rest, set: { source: 'vacuum', to: vacuum } } };
  },
  // 4: a part can have been rebuilt. Nothing that was written before says so, or is said otherwise now.
  3: (entry) => entry,
  // 5: what a part was said to be can stand against what was found. Nothing that was written before says so.
  4: (entry) => entry,
  // 6: trouble codes of a vehicle can stand in a record. Nothing that was written before says any.
  5: (entry) => entry,
  // 7: what a customer tried at home can stand in a record. Nothing that was written before says any.
  6: (entry) => entry,
};

/** Steps at which fluid was handled in every procedure until then. */
const FLUID_STEPS: readonly unknown[] = ['cautions', 'after'];

const stepWithSources = ({ vacuum, ...step }: Raw): Raw => ({
  ...step,
  state: { vacuum },
  ...(FLUID_STEPS.includes(step.id) && { fluid: true }),
});

/** An entry as it is written in the journal. */
export const storedEntry = (entry: JobEntry) => ({ ...entry, entryRevision: ENTRY_REVISION });

/** Schema of an entry as this version writes it. */
export const storedEntrySchema = z.discriminatedUnion(
  'type',
  jobEntrySchema.options.map((option) =>
    option.extend({ entryRevision: z.literal(ENTRY_REVISION) }),
  ) as unknown as typeof jobEntrySchema.options,
);

/** The same of a verdict that stands beside a record. */
export const storedJudgementSchema = judgementSchema.extend({ entryRevision: z.literal(ENTRY_REVISION) });

/**
 * An entry as the journal or a job file holds it, brought to the present form. Its fields are not checked here.
 *
 * @throws RangeError where the entry is of a revision that this program does not know
 */
export function presentEntry(stored: unknown): unknown {
  const { entryRevision = 1, ...raw } = stored as Raw;
  let entry: Raw = raw;
  for (let revision = entryRevision as number; revision !== ENTRY_REVISION; revision += 1) {
    const upcast = ENTRY_UPCASTS[revision];
    if (!upcast)
      throw new RangeError(`entryRevision: ${String(entryRevision)} is newer than ${ENTRY_REVISION}`);
    entry = upcast(entry);
  }
  return withPresentProfile(entry);
}

/** The profile in an entry, brought to the present revision of its family. */
function withPresentProfile(entry: Raw): Raw {
  if (entry.type === 'taken-in' || entry.type === 'changed') {
    const profile = entry.profile as Raw;
    return { ...entry, profile: { ...profile, ...present(profile.kind, profile.body, profile.revision) } };
  }
  if (entry.type !== 'run-started') return entry;
  const context = entry.context as Raw;
  const { body, revision } = present(entry.kind, context.profile, entry.revision);
  return { ...entry, revision, context: { ...context, profile: body } };
}

function present(kind: unknown, body: unknown, from: unknown): { body: unknown; revision: number } {
  const family = FAMILIES[kind as FamilyKind];
  // A kind that is not known is refused by the schema, with its name.
  return family
    ? { body: family.upcast(body, from as number), revision: family.revision }
    : { body, revision: from as number };
}
