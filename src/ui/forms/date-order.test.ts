import { dateFormat } from './date-order';

test.each([
  ['en-US', 'MM/DD/YYYY'],
  ['en-GB', 'DD/MM/YYYY'],
  ['de-DE', 'DD.MM.YYYY'],
  ['sv-SE', 'YYYY-MM-DD'],
  ['nl-NL', 'DD-MM-YYYY'],
  // Spaces between, a dot at the end, letters after the year: the order alone is taken.
  ['cs-CZ', 'DD.MM.YYYY'],
  ['ko-KR', 'YYYY.MM.DD'],
  ['bg-BG', 'DD.MM.YYYY'],
])('a reader of %s writes %s', (locale, format) => {
  expect(dateFormat(locale)).toBe(format);
});
