import { z } from 'zod';
import { FAMILY_KINDS } from '../families/registry';
import { FLUIDS, FLUID_KINDS } from '../fluid/kinds';
import { runEventSchema } from '../contract/events';
import { runContextSchema } from '../contract/run-context';
import { jobSchema } from './job';
import { judgementSchema } from './judgement';
import { BLEEDING_ORDERS } from './installation';
import { homeAnswersSchema } from './home-answers';
import { codesReadSchema } from './trouble-codes';

const words = (title: string) =>
  z
    .string()
    .trim()
    .min(1, `${title}: write a few words.`)
    .max(20_000, `${title}: 20 000 characters at the most.`);
const line = z.string().trim().max(200);
const point = z.string().min(1).max(40).nullable();

/** What was noticed, in the technician's terms. */
export const FINDING_KINDS = {
  seep: 'Seep',
  noise: 'Noise',
  feel: 'Feel',
  'fluid-in-vacuum': 'Fluid in the vacuum side',
  damage: 'Damage or wear',
  other: 'Other',
} as const;
type FindingKind = keyof typeof FINDING_KINDS;

export const findingSchema = z.strictObject({
  kind: z
    .enum(Object.keys(FINDING_KINDS) as [FindingKind, ...FindingKind[]], 'What was noticed: choose one.')
    .meta({ title: 'What was noticed', labels: FINDING_KINDS }),
  point: point.meta({ title: 'Where on the unit' }),
  words: words('Finding').meta({ title: 'In words' }),
  fault: point.meta({ title: 'Fault it points to' }),
});
export type Finding = z.infer<typeof findingSchema>;

export const WORK_DONE = {
  replaced: 'Replaced',
  rebuilt: 'Rebuilt or filled again',
  reused: 'Taken out and used again',
  refused: 'Refused',
  opened: 'Opened or moved',
} as const;
type WorkDone = keyof typeof WORK_DONE;

/** Where a part came from. Handbook 14. */
export const PROVENANCES = {
  new: 'New',
  reconditioned: 'Reconditioned',
  'used-donor': 'Used, from a donor',
  'customers-own': 'Customer’s own',
} as const;
type Provenance = keyof typeof PROVENANCES;

export const workSchema = z
  .strictObject({
    part: z.string().min(1, 'Part or line: choose one.').max(40).meta({ title: 'Part or line' }),
    did: z
      .enum(Object.keys(WORK_DONE) as [WorkDone, ...WorkDone[]], 'What was done: choose one.')
      .meta({ title: 'What was done', labels: WORK_DONE }),
    reason: z.string().trim().max(2_000).meta({ title: 'Why' }),
    provenance: z
      .enum(Object.keys(PROVENANCES) as [Provenance, ...Provenance[]])
      .nullable()
      .meta({ title: 'Where it came from', labels: PROVENANCES }),
    serial: line.meta({ title: 'Serial or batch' }),
  })
  .refine(({ did, provenance }) => did !== 'replaced' || provenance !== null, {
    path: ['provenance'],
    message: 'Where it came from: say whether it is new, reconditioned, used or the customer’s own.',
  })
  .refine(({ did, reason }) => did !== 'refused' || reason !== '', {
    path: ['reason'],
    message: 'Why: say why it was refused.',
  });
export type Work = z.infer<typeof workSchema>;

/** What came of something that is not what it was said to be. Handbook 14. */
export const DECISIONS = { accepted: 'Accepted', refused: 'Refused' } as const;
type Decision = keyof typeof DECISIONS;

/** What a unit or a part was said to be against what was found, and who decided what comes of it. */
export const identitySchema = z.strictObject({
  part: point.meta({ title: 'Unit or part' }),
  claimed: words('Said to be').meta({ title: 'Said to be' }),
  found: words('Found to be').meta({ title: 'Found to be' }),
  decision: z
    .enum(Object.keys(DECISIONS) as [Decision, ...Decision[]], 'What comes of it: choose one.')
    .meta({ title: 'What comes of it', labels: DECISIONS }),
  decidedBy: z
    .string()
    .trim()
    .min(1, 'Decided by: give the name.')
    .max(120, 'Decided by: 120 characters at the most.')
    .meta({ title: 'Decided by' }),
  /** Entry of the photo that shows it. */
  photo: z.uuid().nullable().meta({ title: 'Photo that shows it' }),
});
export type Identity = z.infer<typeof identitySchema>;

export const photoSchema = z.strictObject({
  /** Name and seal in one: SHA-256 of the stored picture. */
  sha256: z.string().regex(/^[0-9a-f]{64}$/),
  width: z.int().min(1).max(20_000),
  height: z.int().min(1).max(20_000),
  bytes: z.int().min(1).max(20_000_000),
  point,
  caption: z.string().trim().max(500),
});
export type Photo = z.infer<typeof photoSchema>;

export const fittingSchema = z.strictObject({
  /** Which of two schools; null where stored pressure goes into the brakes itself, and each circuit is bled by itself. */
  bleeding: z
    .enum(Object.keys(BLEEDING_ORDERS) as [keyof typeof BLEEDING_ORDERS, ...(keyof typeof BLEEDING_ORDERS)[]])
    .meta({ title: 'Bleeding order' })
    .nullable(),
  fluid: z
    .enum(FLUID_KINDS, 'Fluid left in the unit: choose one.')
    .meta({ title: 'Fluid left in the unit', labels: FLUIDS }),
});
export type Fitting = z.infer<typeof fittingSchema>;

const technician = z.string().trim().min(1, 'Technician: give the name.').max(120);

/** A profile as it stood on the shelf, so that the record can be read anywhere. */
const profileSchema = z.strictObject({
  id: z.uuid(),
  kind: z.enum(FAMILY_KINDS),
  /** Revision of its family's profiles. */
  revision: z.int().min(1),
  body: z.unknown(),
});

/** One thing written in the record of a job. The record is nothing but these in order; none is ever changed. */
export const jobEntrySchema = z.discriminatedUnion('type', [
  z.strictObject({
    type: z.literal('taken-in'),
    job: jobSchema,
    profile: profileSchema,
  }),
  z.strictObject({
    type: z.literal('changed'),
    job: jobSchema,
    profile: profileSchema,
  }),
  z.strictObject({
    type: z.literal('run-started'),
    run: z.uuid(),
    kind: z.enum(FAMILY_KINDS),
    /** Revision of the profile in the context. */
    revision: z.int().min(1),
    context: runContextSchema,
    /** The run whose readings are carried over, where this is a re-test. */
    continues: z.uuid().nullable(),
  }),
  z.strictObject({ type: z.literal('run-event'), run: z.uuid(), event: runEventSchema }),
  /** What a run came to, written down as it is finished: right behind the event that finishes it. */
  judgementSchema,
  z.strictObject({ type: z.literal('finding'), finding: findingSchema }),
  z.strictObject({ type: z.literal('work'), work: workSchema }),
  z.strictObject({ type: z.literal('photo'), photo: photoSchema }),
  z.strictObject({ type: z.literal('identity'), identity: identitySchema }),
  /** Trouble codes that a vehicle had stored, and what was left of them once they were cleared. */
  z.strictObject({ type: z.literal('codes'), codes: codesReadSchema }),
  /** What a customer tried at home, and what came of it. */
  z.strictObject({ type: z.literal('home-check'), home: homeAnswersSchema }),
  z.strictObject({ type: z.literal('fitting'), fitting: fittingSchema }),
  /** A finding, part, photo or identity taken back: kept, struck out. */
  z.strictObject({ type: z.literal('withdrawn'), entry: z.uuid() }),
  z.strictObject({ type: z.literal('put-back'), entry: z.uuid() }),
  z.strictObject({ type: z.literal('signed'), technician, head: z.string().length(64) }),
  /** Something said after signing about what stands above; nothing above changes. */
  z.strictObject({
    type: z.literal('corrected'),
    about: z.uuid().nullable(),
    words: words('Correction'),
    technician,
  }),
  z.strictObject({ type: z.literal('reopened'), reason: words('Reason') }),
  z.strictObject({ type: z.literal('archived'), archived: z.boolean() }),
  z.strictObject({ type: z.literal('deleted'), deleted: z.boolean() }),
]);
export type JobEntry = z.infer<typeof jobEntrySchema>;
export type JobEntryOf<T extends JobEntry['type']> = Extract<JobEntry, { type: T }>;
