import { z } from 'zod';
import { sentenceSchema } from '../quantities/sentence';
import { QUANTITIES } from '../quantities/units';
import type { Stretch } from '../signals/analysis';
import { layoutSchema } from '../signals/csv/layout';

const words = z.string().trim().max(2_000);

const estimateSchema = z.discriminatedUnion('told', [
  z.strictObject({
    told: z.literal(true),
    value: z.number(),
    u: z.number().min(0),
    quantity: z.enum(QUANTITIES),
  }),
  z.strictObject({ told: z.literal(false), why: sentenceSchema, wanted: sentenceSchema.nullable() }),
]);

/** A stretch of a trace with what it yields, without what is only drawn of it. */
export const yieldedSchema = z.strictObject({
  name: z.string().max(200),
  from_s: z.number(),
  to_s: z.number(),
  results: z
    .array(
      z.strictObject({
        id: z.string().max(80),
        name: z.string().max(200),
        quantity: z.enum(QUANTITIES),
        estimate: estimateSchema,
      }),
    )
    .readonly(),
  notes: z.array(sentenceSchema).readonly(),
});
export type Yielded = Readonly<z.infer<typeof yieldedSchema>>;

/** A stretch without what is only drawn of it. */
export const yieldedOf = ({ name, from_s, to_s, results, notes }: Stretch): Yielded => ({
  name,
  from_s,
  to_s,
  results,
  notes,
});

/** Something written at a moment of a trace, or over a range of it. */
export const traceNoteSchema = z
  .strictObject({
    id: z.uuid(),
    at_s: z.number(),
    /** End of the range; without one the note is of a moment. */
    to_s: z.number().optional(),
    words: words.min(1, 'Note: write what is to be said.'),
    /** What the range yields where it was worked out by itself. The server writes it; what a screen sends is not taken. */
    yields: z.array(yieldedSchema).max(200).readonly().optional(),
  })
  .refine(({ at_s, to_s }) => to_s === undefined || to_s > at_s, {
    path: ['to_s'],
    message: 'Note: a range ends after it begins.',
  });
export type TraceNote = z.infer<typeof traceNoteSchema>;

/** What is said of a trace; its readings lie beside it and never change. */
export const traceRecordSchema = z.strictObject({
  name: z.string().trim().min(1, 'Give the trace a name.').max(200).meta({ title: 'Name' }),
  /** Where it came from: a file, or the logger of the bench. */
  source: z.enum(['file', 'bench']),
  madeAt: z.iso.datetime(),
  rows: z.int().min(0),
  duration_s: z.number().min(0),
  channels: z
    .array(
      z.strictObject({
        name: z.string().max(200),
        port: z.string().max(40).nullable(),
        quantity: z.enum(QUANTITIES),
      }),
    )
    .max(64)
    .readonly(),
  /** Seal over the packed readings. */
  sha256: z.string().regex(/^[0-9a-f]{64}$/),
  /** How the file was read. */
  layout: layoutSchema.nullable(),
  /** What could not be read: the first of it, in words. */
  troubles: z.array(z.string().max(300)).max(20).readonly(),
  troubleCount: z.int().min(0),
  profileId: z.string().nullable(),
  jobId: z.string().nullable(),
  runId: z.string().nullable(),
  /** Where it stands on the tape of its run: the step it is of, and how many events stand before it. */
  tape: z.strictObject({ step: z.string().max(80), events: z.int().min(0) }).optional(),
  notes: z.array(traceNoteSchema).max(500).readonly(),
});
export type TraceRecord = z.infer<typeof traceRecordSchema>;

/** What a person may change of it. */
export const traceChangeSchema = traceRecordSchema.pick({ name: true, notes: true });
