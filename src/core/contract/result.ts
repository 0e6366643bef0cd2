import { z } from 'zod';
import { adviceSchema } from '../metrology/advice';
import type { Term } from '../metrology/uncertainty';
import { limitsSchema, VERDICT_WORDS, type Limits } from '../metrology/verdict';
import { sentenceSchema, type Sentence } from '../quantities/sentence';
import { QUANTITIES } from '../quantities/units';

/** What a reading should be, known before it is taken. SI. */
export interface Expectation {
  /** What a healthy unit shows, or null where only a limit is known. */
  readonly expected: number | null;
  readonly limits: Limits | null;
  readonly limitSource: string;
  /** Readings that the expectation leans on, with −∂ŷ/∂x: they enter the verdict, never the band. */
  readonly terms: readonly Term[];
  /** How many times too much the gauge in use shows, where the cross-check says it reads high or low. */
  readonly gaugeScale: number | null;
  readonly notes: readonly Sentence[];
}

const tag = z.string().max(40);
const name = z.string().max(200);

export const resultSchema = z.strictObject({
  id: name,
  name: z.string().max(2_000),
  /** Step of the procedure that yields it. */
  step: name,
  /** Item whose reading completes it: its verdict stands on the tape there. */
  item: name.nullable(),
  /** Whom the verdict is about: a weak supply is not a weak unit. */
  about: z.enum(['unit', 'supply', 'load', 'gauges']),
  quantity: z.enum(QUANTITIES),
  value: z.number().nullable(),
  /** Standard uncertainty. */
  u: z.number().nullable(),
  /** What a healthy unit would show at the conditions read, where the result is a reading. */
  expected: z.number().nullable(),
  limits: limitsSchema.nullable(),
  /** Where the limit comes from: the profile's own words. */
  limitSource: z.string().max(2_000),
  /** 'noted': found and shown, judged against nothing. */
  verdict: z.enum([...VERDICT_WORDS, 'noted']),
  pConform: z.number().nullable(),
  margin: z.number().nullable(),
  advice: adviceSchema.nullable(),
  /** In place of a number: what was seen. */
  seen: z.string().max(25_000).nullable(),
  notes: z.array(sentenceSchema).readonly(),
  /** Tags of the gauges that the verdict leans on. */
  gauges: z.array(tag).readonly(),
  /** Those of them that were past their calibration date. */
  overdue: z.array(tag).readonly(),
  /** Captures used. */
  captures: z.array(z.string().max(80)).readonly(),
});
/** One result of a run: a number with its uncertainty, what it must keep to, and the verdict. SI. */
export type Result = Readonly<z.infer<typeof resultSchema>>;

const WORDS: Record<Result['verdict'], string> = {
  meets: 'Meets',
  close: 'Too close to call',
  fails: 'Fails',
  'not-taken': 'Not taken',
  noted: 'Noted',
};

/** A verdict in words. */
export const verdictWord = (verdict: Result['verdict']): string => WORDS[verdict];

export const assessmentSchema = z.strictObject({
  /** 'weak-supply': the unit did all that the supply allows, and the supply falls short. */
  call: z.enum(['healthy', 'weak-supply', 'faulty', 'open', 'incomplete']),
  headline: z.string().max(2_000),
  reasons: z.array(sentenceSchema).readonly(),
});
/** A whole run in plain words. */
export type Assessment = Readonly<z.infer<typeof assessmentSchema>>;

/** What a result is, before there is anything in it. */
export type ResultHead = Pick<Result, 'id' | 'name' | 'step' | 'item' | 'about' | 'quantity'>;

export const notTaken = (of: ResultHead, limitSource = ''): Result => ({
  ...of,
  value: null,
  u: null,
  expected: null,
  limits: null,
  limitSource,
  verdict: 'not-taken',
  pConform: null,
  margin: null,
  advice: null,
  seen: null,
  notes: [],
  gauges: [],
  overdue: [],
  captures: [],
});
