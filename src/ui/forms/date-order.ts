const TOKENS: Partial<Record<Intl.DateTimeFormatPartTypes, string>> = {
  year: 'YYYY',
  month: 'MM',
  day: 'DD',
};

/**
 * Format of a date as numbers, in the order that readers of a language write it.
 *
 * @param locale BCP 47 tag; undefined asks the machine
 * @returns tokens of the date library: "DD.MM.YYYY", "MM/DD/YYYY", "YYYY-MM-DD"
 */
export function dateFormat(locale?: string): string {
  const parts = new Intl.DateTimeFormat(locale, {
    calendar: 'gregory',
    year: 'numeric',
    month: '2-digit',
    day: '2-digit',
  }).formatToParts(0);
  const between = parts
    .find(({ type, value }) => type === 'literal' && /[./-]/.test(value))
    ?.value.match(/[./-]/)?.[0];
  return parts.flatMap(({ type }) => TOKENS[type] ?? []).join(between ?? '-');
}
