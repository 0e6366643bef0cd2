import { z } from 'zod';
import { sentence, type Sentence } from '../quantities/sentence';
import type { Quantity } from '../quantities/units';
import { normalCdf } from '../numeric/normal';
import type { Instrument } from './instrument';
import { combinedUncertainty, type Term } from './uncertainty';
import { decisionDistance, judge, marginTo, type Limits, type Thresholds } from './verdict';

const tag = z.string().max(40);
export const adviceSchema = z.discriminatedUnion('kind', [
  z.strictObject({
    kind: z.literal('repeat'),
    /** Readings in all, those already taken included. */
    count: z.int(),
    u: z.number(),
    instrument: tag,
  }),
  z.strictObject({ kind: z.literal('gauge'), instrument: tag, inPlaceOf: tag, u: z.number() }),
  z.strictObject({ kind: z.literal('band-too-narrow'), width: z.number(), bestU: z.number() }),
  z.strictObject({ kind: z.literal('nothing') }),
]);
/** What would settle a verdict that is too close to call. */
export type Advice = z.infer<typeof adviceSchema>;

/** The most repeats worth asking a technician for. */
const MOST_REPEATS = 10;
/** A method is advised when it is at least as likely as not to settle the matter. */
const WORTH_TRYING = 0.5;

/** A close verdict: its value, what it was made from, and what there is on the shelf to do better. */
export interface CloseCall {
  readonly value: number;
  readonly limits: Limits;
  readonly terms: readonly Term[];
  /** Uncertainty that no gauge or repeat changes (timing, the cross-check), standard, same unit as the value. */
  readonly otherU: number;
  /** Doubt about one gauge beyond its class, which another gauge in its place would not carry. */
  readonly doubt?: { readonly instrument: string; readonly u: number };
  readonly shelf: readonly Instrument[];
  readonly thresholds: Thresholds;
}

/**
 * Finds the cheapest method that settles a close verdict: repeats with the gauge in use first, the least number with
 * which the probability passes a threshold if their mean stays where it is; then a better gauge on the shelf that
 * reaches the reading and is at least as likely as not to settle it. Where the true value lies at least 2U of the advised method
 * from the limit, following the advice of another gauge settles it: a reading within its own 2u then still lies 2u clear of the
 * limit, and the verdict turns at 1.645 u. Otherwise says that nothing on this shelf can. Handbook 5.
 */
export function adviceFor(call: CloseCall): Advice {
  const distance = decisionDistance(call.thresholds);
  const now = Math.hypot(total(call.terms, call.otherU), call.doubt?.u ?? 0);
  const candidates = methods(call);
  const settles = candidates.find(({ u, advice }) =>
    advice.kind === 'repeat'
      ? judge(call.value, u, call.limits, call.thresholds).word !== 'close'
      : chanceToSettle(call, now, u, distance) >= WORTH_TRYING,
  );
  if (settles) return settles.advice;
  const bestU = Math.min(now, ...candidates.map(({ u }) => u));
  const { low, high } = call.limits;
  if (low !== undefined && high !== undefined && high - low < 2 * distance * bestU) {
    return { kind: 'band-too-narrow', width: high - low, bestU };
  }
  return { kind: 'nothing' };
}

interface Method {
  readonly u: number;
  readonly advice: Advice;
}

/** Every method better than the present one, cheapest first. */
function methods({ terms, otherU, doubt, shelf }: CloseCall): Method[] {
  const doubted = Math.hypot(otherU, doubt?.u ?? 0);
  const now = total(terms, doubted);
  const repeats = withRepeats(terms, doubted);
  const gauges: Method[] = [];
  for (const inUse of new Map(
    terms.map((term) => [term.measured.instrument.tag, term.measured.instrument]),
  ).values()) {
    const reach = Math.max(
      ...terms.filter((t) => t.measured.instrument.tag === inUse.tag).map((t) => t.measured.value_SI),
    );
    for (const gauge of shelf) {
      if (gauge.tag === inUse.tag || gauge.quantity !== inUse.quantity || gauge.fullScale_Pa < reach)
        continue;
      const u = total(
        terms.map((term) => (term.measured.instrument.tag === inUse.tag ? onGauge(term, gauge) : term)),
        doubt?.instrument === inUse.tag ? otherU : doubted,
      );
      if (u < 0.8 * now)
        gauges.push({ u, advice: { kind: 'gauge', instrument: gauge.tag, inPlaceOf: inUse.tag, u } });
    }
  }
  return [...repeats, ...gauges.sort((a, b) => b.u - a.u)];
}

const onGauge = (term: Term, instrument: Instrument): Term => ({
  ...term,
  measured: { ...term.measured, instrument, count: 1, scatter_SI: 0 },
});

/** More readings of the term whose scatter matters most. */
function withRepeats(terms: readonly Term[], otherU: number): Method[] {
  const scattered = [...terms].sort((a, b) => scatterPart(b) - scatterPart(a))[0];
  if (!scattered || scattered.measured.scatter_SI === 0) return [];
  const found: Method[] = [];
  for (let count = scattered.measured.count + 1; count <= MOST_REPEATS; count++) {
    const more = { ...scattered, measured: { ...scattered.measured, count } };
    const u = total(
      terms.map((term) => (term === scattered ? more : term)),
      otherU,
    );
    found.push({ u, advice: { kind: 'repeat', count, u, instrument: scattered.measured.instrument.tag } });
  }
  return found;
}

const scatterPart = ({ sensitivity, measured: { scatter_SI, count } }: Term) =>
  Math.abs(sensitivity) * (scatter_SI / Math.sqrt(count));

const total = (terms: readonly Term[], otherU: number) => Math.hypot(combinedUncertainty(terms), otherU);

/**
 * Probability that a fresh reading with uncertainty u falls outside the grey zone of the nearest limit, the truth
 * being normal about the present value.
 */
function chanceToSettle(call: CloseCall, uNow: number, u: number, distance: number): number {
  const margin = marginTo(call.value, call.limits);
  const spread = Math.hypot(uNow, u);
  const grey = distance * u;
  const { low, high } = call.limits;
  const tooNarrow = low !== undefined && high !== undefined && high - low < 2 * grey;
  const inside = tooNarrow ? 0 : 1 - normalCdf((grey - margin) / spread);
  const outside = normalCdf((-grey - margin) / spread);
  return inside + outside;
}

/** What to do about a close call, in words. @param quantity of the value judged */
export function adviceSentence(advice: Advice, quantity: Quantity): Sentence {
  switch (advice.kind) {
    case 'repeat':
      return sentence(
        `Read ${advice.instrument} again, ${advice.count} readings in all: U comes down to {U}.`,
        {
          U: { value: 2 * advice.u, quantity, u: advice.u / 4 },
        },
      );
    case 'gauge':
      return sentence(
        `Read it again with ${advice.instrument} in place of ${advice.inPlaceOf}: U comes down to {U}.`,
        {
          U: { value: 2 * advice.u, quantity, u: advice.u / 4 },
        },
      );
    case 'band-too-narrow':
      return sentence(
        'Nothing on this shelf can: the limits lie closer together than the best gauge here can tell apart (U = {U}).',
        {
          U: { value: 2 * advice.bestU, quantity, u: advice.bestU / 4 },
        },
      );
    case 'nothing':
      return sentence(
        'Nothing on this shelf can settle it: the value lies nearer to the limit than the best gauge here can tell.',
      );
  }
}
