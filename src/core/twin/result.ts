import type { Advice } from '../metrology/advice';
import type { Term } from '../metrology/uncertainty';
import type { Limits, VerdictWord } from '../metrology/verdict';
import type { Sentence } from '../quantities/sentence';
import type { Quantity } from '../quantities/units';

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

/** One result of a run: a number with its uncertainty, what it must keep to, and the verdict. SI. */
export interface Result {
  readonly id: string;
  readonly name: string;
  /** Step of the procedure that yields it. */
  readonly step: string;
  /** Item whose reading completes it: its verdict stands on the tape there. */
  readonly item: string | null;
  /** Whom the verdict is about: a weak supply is not a weak unit. */
  readonly about: 'unit' | 'supply' | 'gauges';
  readonly quantity: Quantity;
  readonly value: number | null;
  /** Standard uncertainty. */
  readonly u: number | null;
  /** What a healthy unit would show at the conditions read, where the result is a reading. */
  readonly expected: number | null;
  readonly limits: Limits | null;
  /** Where the limit comes from: the profile's own words. */
  readonly limitSource: string;
  /** 'noted': found and shown, judged against nothing. */
  readonly verdict: VerdictWord | 'noted';
  readonly pConform: number | null;
  readonly margin: number | null;
  readonly advice: Advice | null;
  /** In place of a number: what was seen. */
  readonly seen: string | null;
  readonly notes: readonly Sentence[];
  /** Tags of the gauges that the verdict leans on. */
  readonly gauges: readonly string[];
  /** Those of them that were past their calibration date. */
  readonly overdue: readonly string[];
  /** Captures used. */
  readonly captures: readonly string[];
}

const WORDS: Record<Result['verdict'], string> = {
  meets: 'Meets',
  close: 'Too close to call',
  fails: 'Fails',
  'not-taken': 'Not taken',
  noted: 'Noted',
};

/** A verdict in words. */
export const verdictWord = (verdict: Result['verdict']): string => WORDS[verdict];

/** A whole run in plain words. */
export interface Assessment {
  /** 'weak-supply': the unit did all that the supply allows, and the supply falls short. */
  readonly call: 'healthy' | 'weak-supply' | 'faulty' | 'open' | 'incomplete';
  readonly headline: string;
  readonly reasons: readonly Sentence[];
}

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
