import { z } from 'zod';
import { sourceSetSchema } from './sources';
import { stepSchema } from './steps';

const base = {
  /** Made by the screen: sending an event twice records it once. */
  id: z.uuid(),
  /** When the technician did it, ISO 8601. */
  at: z.iso.datetime(),
  /** Events of one deed, such as "all dry" or "all gauges at zero": taken back together. */
  deed: z.uuid().optional(),
};
const name = z.string().min(1).max(80);
/** How the value of a capture came about. 'not-said': by a program that did not write it down. */
export const CAPTURED_BY = [
  'typed',
  'gauge',
  'hands-free',
  'at-aim',
  'at-zero',
  'as-last-supply',
  'not-said',
] as const;

/** The same in words, for what was not typed. */
export const CAPTURED_WORDS: Readonly<Record<(typeof CAPTURED_BY)[number], string>> = {
  typed: '',
  gauge: 'taken from the gauge',
  'hands-free': 'taken hands-free',
  'at-aim': 'said to be at the aim',
  'at-zero': 'said to be at zero',
  'as-last-supply': 'said to be as the last supply',
  'not-said': '',
};

const words = z.string().trim().min(1, 'Say why in a few words.').max(20_000);

/** One thing that happened on a run. The run's state is nothing but these in order. */
export const runEventSchema = z.discriminatedUnion('type', [
  z.strictObject({ ...base, type: z.literal('acknowledged'), step: name }),
  z.strictObject({ ...base, type: z.literal('source-set'), step: name, set: sourceSetSchema }),
  z.strictObject({
    ...base,
    type: z.literal('captured'),
    item: name,
    /** SI value as the gauge showed it; a vented zero is subtracted later, never here. */
    value_SI: z.number(),
    /** What was typed, word for word. */
    typed: z.string().max(20_000),
    by: z.enum(CAPTURED_BY),
    instrument: z.string().min(1).max(40),
    /** The technician confirmed a reading that no known fault explains. */
    confirmedUnlikely: z.boolean(),
  }),
  z.strictObject({
    ...base,
    type: z.literal('observed'),
    item: name,
    answer: name,
    note: z.string().max(20_000),
  }),
  z.strictObject({ ...base, type: z.literal('wait-started'), item: name }),
  z.strictObject({
    ...base,
    type: z.literal('wait-ended'),
    item: name,
    /** Before its time was up: the technician was told what is lost, and confirmed. */
    early: z.literal(true).optional(),
  }),
  z.strictObject({ ...base, type: z.literal('struck'), capture: z.uuid() }),
  /** Anything else that was done, taken back: kept, and as if it had not been done. */
  z.strictObject({ ...base, type: z.literal('taken-back'), event: z.uuid() }),
  z.strictObject({ ...base, type: z.literal('reopened'), item: name }),
  /** The test goes on in spite of an answer that stops it, for a reason in words. */
  z.strictObject({ ...base, type: z.literal('gone-on'), item: name, reason: words }),
  /** The test ends here: what was not done is not taken, for this reason; the unit is still made safe. */
  z.strictObject({ ...base, type: z.literal('ended'), reason: words }),
  z.strictObject({ ...base, type: z.literal('skipped'), step: name, item: name.nullable(), reason: words }),
  /** A part changed or a line opened: the readings of these steps are kept and no longer count. */
  z.strictObject({
    ...base,
    type: z.literal('disturbed'),
    steps: z.array(name).min(1).max(200),
    /** The gauges are read vented again: later readings have their own zeros. */
    rezero: z.boolean(),
    /** Ports of which a line was opened: each was read at zero before. */
    opens: z.array(name).max(40).optional(),
    why: words,
  }),
  /** The technician does this step next, out of the usual order. */
  z.strictObject({ ...base, type: z.literal('chosen'), step: name }),
  /** A step that the procedure did not have is to be done, behind the one named: the whole step, as built then. */
  z.strictObject({ ...base, type: z.literal('added'), after: name, step: stepSchema }),
  z.strictObject({ ...base, type: z.literal('finished') }),
]);

export type RunEvent = z.infer<typeof runEventSchema>;
export type RunEventOf<T extends RunEvent['type']> = Extract<RunEvent, { type: T }>;
