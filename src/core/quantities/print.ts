import { fromSI, unitFor, type Quantity, type Unit, type UnitSet } from './units';

/** How a value is printed. */
export interface PrintOptions {
  /** Standard uncertainty, SI. Shown as U = 2u and used to choose the digits. */
  readonly u_SI?: number | null | undefined;
  /** Leave the unit off (a column or a ladder already names it). */
  readonly bare?: boolean;
  /** Print the expanded uncertainty as well: "100.8 ± 1.2 bar". */
  readonly withU?: boolean;
}

/** A doubt about a count below this is none. */
const COUNT_DOUBT = 0.05;

/**
 * Prints an SI value in a unit set with as many digits as the uncertainty deserves: the last digit shown is
 * the second significant digit of U = 2u, or one place coarser where U begins with 3 or more (GUM 7.2.6).
 * Without an uncertainty the unit's own usual place is used. A count is whole, and so is its doubt, rounded up.
 *
 * @example printQuantity(1.008e7, 'pressure', 'mixed', { u_SI: 6e4, withU: true }) → "100.8 ± 1.2 bar"
 */
export function printQuantity(
  value_SI: number,
  quantity: Quantity,
  set: UnitSet,
  options: PrintOptions = {},
): string {
  const unit = unitFor(quantity, set);
  const scale = unit.factor;
  const U = options.u_SI ? (2 * options.u_SI) / scale : null;
  const value = fromSI(value_SI, unit);
  const whole = quantity === 'count';
  const places = whole ? 0 : U === null ? usualPlaces(value, unit) : placesFor(U);
  const number = fixed(value, places);
  const shownU = whole && U !== null ? Math.ceil(U - COUNT_DOUBT) : U;
  const plusMinus = options.withU && shownU ? ` ± ${fixed(shownU, places)}` : '';
  const suffix = options.bare || unit.symbol === '' ? '' : unit.symbol === '%' ? ' %' : ` ${unit.symbol}`;
  return `${number}${plusMinus}${suffix}`;
}

/** Prints a difference: a temperature difference has no zero offset, and a sign is always shown. */
export function printDifference(
  value_SI: number,
  quantity: Quantity,
  set: UnitSet,
  u_SI?: number | null,
): string {
  const unit = unitFor(quantity, set);
  const U = u_SI ? (2 * u_SI) / unit.factor : null;
  const text = fixed(value_SI / unit.factor, U === null ? unit.places : placesFor(U));
  const signed = value_SI > 0 && Number(text) !== 0 ? `+${text}` : text;
  return unit.symbol === '' ? signed : `${signed} ${unit.symbol}`;
}

/** A long time in words: "1 h 40 min". Alike in every unit set. */
export function printHours(seconds: number): string {
  const minutes = Math.round(seconds / 60);
  return `${Math.floor(minutes / 60)} h ${minutes % 60} min`;
}

/** A limit of 1.2 s is not one of 1 s. */
const usualPlaces = (value: number, { places, finePlaces = places }: Unit): number =>
  Math.abs(value) < 10 && !Number.isInteger(value) ? finePlaces : places;

/** Decimal places that U (k = 2) deserves, between 0 and 6. */
function placesFor(U: number): number {
  if (!(U > 0) || !Number.isFinite(U)) return 6;
  const exponent = Math.floor(Math.log10(U));
  const lead = U / 10 ** exponent;
  const places = lead < 2.95 ? 1 - exponent : -exponent;
  return Math.min(6, Math.max(0, places));
}

/** Fixed decimals with a true minus sign, and never "−0". */
function fixed(value: number, places: number): string {
  const text = value.toFixed(places);
  return Number(text) === 0 ? text.replace('-', '') : text.replace('-', '−');
}
