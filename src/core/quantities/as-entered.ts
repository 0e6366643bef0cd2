import { fromSI, UNITS, unitFor, type Quantity, type Unit, type UnitSet } from './units';

/** Digits kept when a stored value is put into a field: enough to save it back unchanged. */
const FIELD_DIGITS = 8;
/** A rounder figure this near, as a part of the value, is what was entered: 18, not 17.999999. */
const ENTERED_PART = 1e-7;
/** A figure of so many digits is as a person writes it. */
const WRITTEN_DIGITS = 4;
/** Inches are written in parts of at most this. */
const FINEST_PART = 64;

const near = (a: number, b: number): boolean => Math.abs(a - b) <= ENTERED_PART * Math.abs(b);

/** A value in the fewest digits that say the same, and how many they are. */
function roundest(value: number): { text: string; digits: number } {
  for (let digits = 1; digits < FIELD_DIGITS; digits += 1) {
    const round = Number(value.toPrecision(digits));
    if (near(round, value)) return { text: unmistakable(String(round)), digits };
  }
  return { text: unmistakable(String(Number(value.toPrecision(FIELD_DIGITS)))), digits: FIELD_DIGITS };
}

/** Exactly three decimals could be taken for a thousands group. */
const unmistakable = (text: string): string => (/^-?[1-9]\d{0,2}\.\d{3}$/.test(text) ? `${text}0` : text);

/** Inches as a whole and a common fraction, "9 1/4"; null where they are none. */
function asFraction(inches: number): string | null {
  for (let parts = 2; parts <= FINEST_PART; parts *= 2) {
    const count = Math.round(inches * parts);
    if (count < 1 || !near(count / parts, inches)) continue;
    const whole = Math.floor(count / parts);
    const rest = count % parts;
    return rest === 0 ? null : `${whole > 0 ? `${whole} ` : ''}${rest}/${parts}`;
  }
  return null;
}

/**
 * A stored value as it was entered, to be put into a field again: in the bench's own unit where that is a figure that a
 * person writes, otherwise in the unit in which it is one, with its symbol; inches in common fractions.
 *
 * @example asEntered(0.0206375, 'length', 'metric') → "13/16 in"
 */
export function asEntered(value_SI: number, quantity: Quantity, set: UnitSet): string {
  const own = unitFor(quantity, set);
  const inOwn = roundest(fromSI(value_SI, own));
  const suffix = (unit: Unit) => (unit.symbol === own.symbol ? '' : ` ${unit.symbol}`);
  const fraction = quantity === 'length' ? asFraction(fromSI(value_SI, UNITS.in)) : null;
  if (inOwn.digits <= WRITTEN_DIGITS && !(fraction && own.symbol === UNITS.in.symbol)) return inOwn.text;
  if (fraction) return `${fraction}${suffix(UNITS.in)}`;
  const [best] = (Object.values(UNITS) as Unit[])
    .filter(({ measures }) => measures.includes(quantity))
    .map((unit) => ({ unit, ...roundest(fromSI(value_SI, unit)) }))
    .filter(({ digits }) => digits <= WRITTEN_DIGITS && digits < inOwn.digits)
    .sort((a, b) => a.digits - b.digits);
  return best ? `${best.text}${suffix(best.unit)}` : inOwn.text;
}
