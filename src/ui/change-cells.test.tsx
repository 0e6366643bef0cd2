/** @jest-environment node */
import { renderToStaticMarkup } from 'react-dom/server';
import { ChangeCells } from './change-cells';

/** Words of each cell. */
const cellsOf = (of: Parameters<typeof ChangeCells>[0]['of']) =>
  renderToStaticMarkup(<ChangeCells of={of} />)
    .replace(/<style[^>]*>.*?<\/style>/gs, '')
    .split('</td>')
    .slice(0, 3)
    .map((cell) =>
      cell
        .replace(/<[^>]+>/g, ' ')
        .replace(/\s+/g, ' ')
        .trim(),
    );
const crack = {
  quantity: 'pressure',
  before: 6e5,
  u_before: 4e3,
  after: 3e5,
  u_after: 4e3,
  change: -3e5,
  u_change: 3e3,
  moved: true,
} as const;

test('a number that both tests tell stands with its change and U of all three', () => {
  expect(cellsOf(crack)).toEqual(['6.00 ± 0.08 bar', '3.00 ± 0.08 bar', '−3.00 bar ± 0.06']);
  expect(cellsOf({ ...crack, told_before: true, told_after: true })).toEqual(cellsOf(crack));
});
test('what one of them does not tell has no number, and the change has its way only', () => {
  expect(cellsOf({ ...crack, told_before: false })).toEqual([
    'could not tell how much',
    '3.00 ± 0.08 bar',
    'less than before',
  ]);
  expect(cellsOf({ ...crack, change: 3e5, told_after: false })).toEqual([
    '6.00 ± 0.08 bar',
    'could not tell how much',
    'more than before',
  ]);
});
