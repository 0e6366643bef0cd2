/** What a typed number can be understood as. */
export type ParsedNumber =
  | { ok: true; value: number }
  | { ok: false; code: 'ambiguous'; candidates: readonly [number, number] }
  | { ok: false; code: 'not-a-number' };

const NOT_A_NUMBER: ParsedNumber = { ok: false, code: 'not-a-number' };
const GROUPED = /^\d{1,3}(\d{3})+$/;

/** "13/16", "9 1/4", "9-1/4", with a plain or a fraction slash. */
const FRACTION = /^([+-]?)(?:(\d+)[ -])?(\d+)[/⁄](\d+)$/;

/**
 * Reads a number with comma or point as the decimal sign. One comma or point before exactly three digits
 * ("1,200") could be a thousands sign or a decimal: both readings are returned and the person is asked.
 * A leading zero ("0,610") settles it, since no thousands group begins with one. A fraction is a number too.
 *
 * @example parseNumber('9 1/4') → { ok: true, value: 9.25 }
 * @example parseNumber('0,61') → { ok: true, value: 0.61 }
 */
export function parseNumber(text: string): ParsedNumber {
  const typed = text
    .trim()
    .replace(/[−–]/g, '-')
    .replace(/[\u00a0\u202f\u2009]/g, ' ');
  const parts = FRACTION.exec(typed);
  if (parts) {
    const [, minus, whole = '0', above, below] = parts;
    if (Number(below) === 0) return NOT_A_NUMBER;
    const value = Number(whole) + Number(above) / Number(below);
    return { ok: true, value: minus === '-' ? -value : value };
  }
  const match = /^([+-]?)\s*([\d., ]*\d[.,]?)$/.exec(typed);
  if (!match) return NOT_A_NUMBER;
  const sign = match[1] === '-' ? -1 : 1;
  let digits = match[2]!;
  if (digits.includes(' ')) {
    if (!/^\d{1,3}( \d{3})+([.,]\d+)?$/.test(digits)) return NOT_A_NUMBER;
    return { ok: true, value: sign * Number(digits.replaceAll(' ', '').replace(',', '.')) };
  }
  const marks = digits.replace(/\d/g, '');
  if (marks === '') return { ok: true, value: sign * Number(digits) };
  const last = marks.at(-1)!;
  const kinds = new Set(marks);
  if (kinds.size === 2) {
    const cut = digits.lastIndexOf(last);
    const whole = digits.slice(0, cut);
    if (whole.includes(last) || !groupsOfThree(whole)) return NOT_A_NUMBER;
    digits = whole.replace(/[.,]/g, '') + '.' + digits.slice(cut + 1);
    return { ok: true, value: sign * Number(digits) };
  }
  if (marks.length > 1) {
    return groupsOfThree(digits)
      ? { ok: true, value: sign * Number(digits.replace(/[.,]/g, '')) }
      : NOT_A_NUMBER;
  }
  const [whole = '', fraction = ''] = digits.split(last);
  const decimal = sign * Number(`${whole || '0'}.${fraction || '0'}`);
  const couldBeThousands = fraction.length === 3 && /^[1-9]\d{0,2}$/.test(whole);
  return couldBeThousands
    ? { ok: false, code: 'ambiguous', candidates: [decimal, sign * Number(whole + fraction)] }
    : { ok: true, value: decimal };
}

function groupsOfThree(text: string): boolean {
  const groups = text.split(/[.,]/);
  return groups.slice(1).every((group) => group.length === 3) && GROUPED.test(groups.join(''));
}
