import { parseNumber } from './number';
import { findUnit, toSI, type Quantity, type Unit } from './units';

/** How a typed reading is to be understood. */
export interface ReadingRules {
  /** What the field takes. */
  readonly quantity: Quantity;
  /** Unit assumed when none is typed. */
  readonly unit: Unit;
  /** Station pressure, Pa absolute: turns `abs` readings into gauge or depression and bounds a depression. */
  readonly barometer_Pa: number;
  /** The sign of a depression is kept, as in a table of what a gauge shows about its zero. */
  readonly signed?: true;
}

/** Why a typed reading was not taken. Numbers are SI; `refusal.ts` puts them into a sentence. */
export type ReadingRefusal =
  | { code: 'empty' }
  | { code: 'not-a-number'; typed: string }
  | { code: 'ambiguous'; candidates_SI: readonly [number, number]; unit: Unit }
  | { code: 'unknown-unit'; typed: string; quantity: Quantity }
  | { code: 'wrong-quantity'; typed: string; quantity: Quantity }
  | { code: 'above-barometer'; value_SI: number; barometer_Pa: number }
  | { code: 'not-a-vacuum'; value_SI: number; barometer_Pa: number }
  | { code: 'below-absolute-zero'; value_SI: number; quantity: Quantity }
  | {
      code: 'above-full-scale';
      value_SI: number;
      fullScale_SI: number;
      instrument: string;
      quantity: Quantity;
    };

export type ReadingResult = { ok: true; value_SI: number; unit: Unit } | { ok: false; why: ReadingRefusal };

/** `abs` behind the unit, in the spellings a gauge face uses. */
const ABSOLUTE = /\s*\(?\babs(olute)?\.?\)?$|(?<=^(psi|bar))a$/i;

const refuse = (why: ReadingRefusal): ReadingResult => ({ ok: false, why });

/**
 * Reads what a technician typed: a number with comma or point, perhaps a unit, perhaps `abs`.
 * A vacuum written as a negative gauge pressure is a depression. The result is SI: Pa of gauge pressure for
 * `pressure`, Pa below the barometer for `depression`, Pa absolute for `barometer`. Handbook 3.
 *
 * @example parseReading('−9 psi', depression rules) → 62 053 Pa of depression
 */
export function parseReading(text: string, rules: ReadingRules): ReadingResult {
  const typed = text.trim();
  if (typed === '') return refuse({ code: 'empty' });
  const match = /^([+\-−–]?(?:(?:\d+[ -])?\d+[/⁄]\d+|[\d.,\s\u00a0\u202f\u2009]*))(.*)$/u.exec(typed)!;
  const absolute = ABSOLUTE.test(match[2]!);
  const unitText = match[2]!.replace(ABSOLUTE, '').trim();
  const unit = unitText === '' ? rules.unit : findUnit(unitText);
  const number = parseNumber(match[1]!);
  if (!number.ok && number.code === 'not-a-number') return refuse({ code: 'not-a-number', typed });
  if (!unit) return refuse({ code: 'unknown-unit', typed: unitText, quantity: rules.quantity });
  if (!unit.measures.includes(rules.quantity)) {
    return refuse({ code: 'wrong-quantity', typed: unit.symbol, quantity: rules.quantity });
  }
  if (!number.ok) {
    const [first, second] = number.candidates;
    const a = asQuantity(toSI(first, unit), absolute, rules);
    const b = asQuantity(toSI(second, unit), absolute, rules);
    return refuse({ code: 'ambiguous', candidates_SI: [a, b], unit });
  }
  const value_SI = asQuantity(toSI(number.value, unit), absolute, rules);
  const impossible = impossibility(value_SI, rules);
  return impossible ? refuse(impossible) : { ok: true, value_SI, unit };
}

function asQuantity(
  value_SI: number,
  absolute: boolean,
  { quantity, barometer_Pa, signed }: ReadingRules,
): number {
  if (quantity === 'depression' && absolute) return barometer_Pa - value_SI;
  if (quantity === 'depression') return signed ? value_SI : Math.abs(value_SI);
  if (quantity === 'pressure' && absolute) return value_SI - barometer_Pa;
  return value_SI;
}

/**
 * Reads a list of values parted by semicolons. A unit behind the last value is that of every value without one.
 *
 * @example readingList('300; 650; 950 psi') → ['300 psi', '650 psi', '950 psi']
 */
export function readingList(text: string): string[] {
  const parts = text
    .split(';')
    .map((part) => part.trim())
    .filter(Boolean);
  const unit = /[\d.,)]\s*([^\d\s.,;/⁄][^;]*)$/u.exec(parts.at(-1) ?? '')?.[1];
  return unit ? parts.map((part) => (/^[+\-−–]?[\d.,\s/⁄]+$/u.test(part) ? `${part} ${unit}` : part)) : parts;
}

/** A vented vacuum gauge of class 2.5 may stand this far below its zero, as a part of the barometer. */
const BELOW_ZERO_PART = 0.025;

/**
 * The physical bound that a value breaks, if any: no vacuum is deeper than the barometer, nothing is below zero
 * absolute, and what stands above the barometer by more than a gauge is off is no vacuum.
 */
export function impossibility(
  value_SI: number,
  { quantity, barometer_Pa }: Pick<ReadingRules, 'quantity' | 'barometer_Pa'>,
): ReadingRefusal | null {
  const isVacuum = quantity === 'depression';
  if (isVacuum && value_SI > barometer_Pa) return { code: 'above-barometer', value_SI, barometer_Pa };
  if (isVacuum && value_SI < -BELOW_ZERO_PART * barometer_Pa)
    return { code: 'not-a-vacuum', value_SI, barometer_Pa };
  const floor: Partial<Record<Quantity, number>> = {
    pressure: -barometer_Pa,
    barometer: Number.MIN_VALUE,
    temperature: 0,
  };
  const lowest = floor[quantity];
  return lowest !== undefined && value_SI < lowest
    ? { code: 'below-absolute-zero', value_SI, quantity }
    : null;
}
