import { z } from 'zod';
import { QUANTITIES } from '../quantities/units';
import { CAUTION_IDS } from './cautions';
import { sourcesSchema } from './sources';

const name = z.string().min(1).max(80);
const prose = z.string().max(2_000);
const SI = z.number();

/**
 * The moment that a reading asks for, where it is not simply that gauges stand still at the aim. 'by-hand': only a
 * meter or an eye tells it.
 */
const MOMENTS = [
  'by-hand',
  'working-side-moves',
  'working-side-empty',
  'output-begins',
  'next-application',
] as const;

/** Where a reading must lie before anything goes on: at its gauge's own zero, or within bounds, SI. */
const gateSchema = z.union([z.literal('zero'), z.strictObject({ low: SI.optional(), high: SI.optional() })]);
export type Gate = z.infer<typeof gateSchema>;

const readingItemSchema = z.strictObject({
  kind: z.literal('reading'),
  id: name,
  prompt: prose,
  port: name,
  quantity: z.enum(QUANTITIES),
  /** The twin's reading that this measures; 'input' and 'supply' are set or found, not predicted. */
  measures: name,
  /** Where the input is to be set for this reading, Pa. */
  target_Pa: SI.optional(),
  /** Pressure is being raised here: the profile's proof limit, at which the technician stops, Pa. */
  stopAt_Pa: SI.optional(),
  /** Reading item that says at what input this one was taken; without it, the target or a released input. */
  inputFrom: name.optional(),
  /**
   * Reading of the source that counts for this item in place of an earlier one: under the same load, or, where the
   * source is off by now, of what it has stored.
   */
  sourceFrom: name.optional(),
  /** Elapsed time of a hold at this reading, as planned, s. */
  elapsed_s: SI.optional(),
  /** Full applications since the source was stopped or all that it had stored was used up, this one among them. */
  applications: z.int().min(1).max(100).optional(),
  moment: z.enum(MOMENTS).optional(),
  /** Only these gauges of the port (tags): a vented zero is read on each. */
  gauge: name.optional(),
  /**
   * The step goes on only when the reading lies here: at the gauge's own zero, or within bounds. A hazard is never
   * ticked away.
   */
  gate: gateSchema.optional(),
});
/** A number to be read and captured. */
export type ReadingItem = Readonly<z.infer<typeof readingItemSchema>>;

const stopSchema = z.strictObject({
  /** What to do, in a sentence or two. */
  say: prose,
  /** What lets the test go on: only mending it and looking again, or else a reason in words. */
  goesOn: z.enum(['mended', 'reason']),
});

const answerSchema = z.strictObject({
  id: name,
  label: prose,
  finds: z.enum(['good', 'bad', 'unknown']),
  /** The test stops at this answer. */
  stops: stopSchema.optional(),
});
export type Answer = Readonly<z.infer<typeof answerSchema>>;

const observationItemSchema = z.strictObject({
  kind: z.literal('observation'),
  id: name,
  prompt: prose,
  /** What it is called in the results. */
  name: prose,
  point: name.optional(),
  /** Port that is known to be empty by this and its fellows where no gauge can be fitted. Handbook 2. */
  empties: name.optional(),
  answers: z.tuple([answerSchema, answerSchema], answerSchema),
});
/** Something to be looked at, listened to or asked. The first answer is what a healthy unit gives. */
export type ObservationItem = Readonly<z.infer<typeof observationItemSchema>>;

const waitItemSchema = z.strictObject({
  kind: z.literal('wait'),
  id: name,
  prompt: prose,
  duration_s: SI.positive(),
  /** 'key': starts when the technician says so. 'reading': started when the reading before it was captured. */
  starts: z.enum(['key', 'reading']),
});
/** A wait that is counted down. */
export type WaitItem = Readonly<z.infer<typeof waitItemSchema>>;

const itemSchema = z.discriminatedUnion('kind', [readingItemSchema, observationItemSchema, waitItemSchema]);
export type Item = ReadingItem | ObservationItem | WaitItem;

/** What a step takes besides one pair of hands. */
export const HANDS = {
  helper: 'Takes a second pair of hands.',
  'pedal-jack': 'Takes a pedal jack, or a second pair of hands.',
} as const;
type Hands = keyof typeof HANDS;

export const stepSchema = z.strictObject({
  id: name,
  title: prose,
  instruction: prose,
  cautions: z.array(z.enum(CAUTION_IDS)).readonly(),
  /** States that sources must be in; the run asks for each that differs. Those not named may stand as they are. */
  state: sourcesSchema,
  /** Steps that must have been done, or skipped with a reason, before this one. */
  needs: z.array(name).readonly(),
  /**
   * Readings with a gate that must be open as the step begins. One at zero is open where nothing has reached its port since
   * a gauge there was last read at zero; one within bounds lapses as a source is changed.
   */
  gates: z.array(name).readonly().optional(),
  /** Fluid is handled in it: which one is said, where it is not the one that the unit came in with. */
  fluid: z.literal(true).optional(),
  /** It takes a second pair of hands, or what stands in for them. */
  hands: z.enum(Object.keys(HANDS) as [Hands, ...Hands[]]).optional(),
  /** How it leaves the input, and sources that it changes by itself: a reserve test uses up the charge. */
  leaves: sourcesSchema.extend({ input: z.enum(['applied', 'released']).optional() }).optional(),
  /** A safety step cannot be skipped. */
  mandatory: z.literal(true).optional(),
  /** A line was opened while the run was done: the run does not end before it is closed, bled and looked at. */
  closing: z.literal(true).optional(),
  /** Time that a technician is at it, without its waits, s. */
  attended_s: SI.optional(),
  /** Added while the run was done: a gauge is put in another's place, to settle which of two is wrong. Tags. */
  exchange: z.strictObject({ out: name, in: name, against: name }).optional(),
  items: z.array(itemSchema).readonly(),
});
/** One step of a test: what must be so before it, what is done in it, and what it leaves behind. */
export type Step = Readonly<z.infer<typeof stepSchema>>;

/** The steps of a test, as data. */
export const procedureSchema = z.strictObject({
  id: name,
  version: z.int().min(1),
  /** Where it is done; without it, on a bench. */
  setting: z.enum(['bench', 'vehicle']).optional(),
  steps: z.array(stepSchema).max(200).readonly(),
});
export type Procedure = Readonly<z.infer<typeof procedureSchema>>;

/** A hold shorter than this tells no loss, s: the moments of its readings are not known better. */
export const SHORTEST_HOLD_S = 2;

/** From this version on, what hangs on a reading or a wait is asked for again when that is done anew. */
const HANGS_TOGETHER = 2;

/**
 * Items that are worth nothing without the one named: the wait that a reading starts, and the reading that a wait
 * is for, and so on down the step. A hold is such a chain.
 */
export function hangingOn(procedure: Procedure, id: string): string[] {
  const found = procedure.version >= HANGS_TOGETHER ? findItem(procedure, id) : null;
  if (!found) return [];
  const { items } = found.step;
  const chain: string[] = [];
  for (let i = items.indexOf(found.item); i + 1 < items.length; i += 1) {
    const [item, next] = [items[i]!, items[i + 1]!];
    const hangs =
      item.kind === 'wait'
        ? next.kind === 'reading'
        : item.kind === 'reading' && next.kind === 'wait' && next.starts === 'reading';
    if (!hangs) break;
    chain.push(next.id);
  }
  return chain;
}

/** The wait that a reading is for; null where it is for none. */
export function waitBefore(procedure: Procedure, id: string): WaitItem | null {
  const found = procedure.version >= HANGS_TOGETHER ? findItem(procedure, id) : null;
  const before = found?.step.items[found.step.items.indexOf(found.item) - 1];
  return found?.item.kind === 'reading' && before?.kind === 'wait' ? before : null;
}

/**
 * The reading from which a hold is counted, for a reading at the end of one: the one before the wait that it follows. Null
 * for any other reading.
 */
export function holdStart(procedure: Procedure, { id, elapsed_s }: ReadingItem): string | null {
  const step = elapsed_s === undefined ? undefined : findItem(procedure, id)?.step;
  if (!step) return null;
  const before = step.items.slice(
    0,
    step.items.findIndex((item) => item.id === id),
  );
  const from = before.findLastIndex(({ kind }) => kind === 'wait') - 1;
  const start = before[from];
  return start?.kind === 'reading' ? start.id : null;
}

/**
 * The item at which the input on a port was set for a reading: the one that it names, or where that was read on a gauge behind
 * the input, the one which that names. Null where none is named.
 */
export function setItem(procedure: Procedure, { inputFrom }: ReadingItem, port: string): ReadingItem | null {
  const from = inputFrom ? findItem(procedure, inputFrom)?.item : null;
  if (from?.kind !== 'reading') return null;
  return from.port === port ? from : setItem(procedure, from, port);
}

type Found = { readonly step: Step; readonly item: Item };

/** Items of a procedure by name: looked up many times for every reading, and a procedure never changes. */
const ITEMS = new WeakMap<Procedure, ReadonlyMap<string, Found>>();

/** Finds an item and its step. */
export function findItem(procedure: Procedure, id: string): Found | null {
  let items = ITEMS.get(procedure);
  if (!items) {
    // Of two of one name the first counts.
    const all = procedure.steps.flatMap((step) =>
      step.items.map((item): [string, Found] => [item.id, { step, item }]),
    );
    items = new Map(all.reverse());
    ITEMS.set(procedure, items);
  }
  return items.get(id) ?? null;
}
