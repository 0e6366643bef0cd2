import Papa from 'papaparse';

/** A spreadsheet would run these; a plain number that begins with a minus sign is none of them. */
const FORMULA = /^(?![+-]?\d+([.,]\d+)?$)[=+\-@\t\r]/;

/** Rows as CSV (RFC 4180) with a byte-order mark, so that spreadsheets read the units' letters right. */
export const csvOf = (rows: readonly (readonly (string | number)[])[]): string =>
  `\uFEFF${Papa.unparse(rows as (string | number)[][], { escapeFormulae: FORMULA, newline: '\r\n' })}\r\n`;
