import { Remembered } from './remembered';

test('works out each thing once, no numbers among them, and begins anew when it is full', () => {
  const kept = new Remembered(2);
  const made: string[] = [];
  const tell = (of: string, value: number) =>
    kept.tell(of, () => {
      made.push(of);
      return value;
    });
  expect([tell('a', 1), tell('a', 5), tell('b', NaN), tell('b', 5)]).toEqual([1, 1, NaN, NaN]);
  expect(made).toEqual(['a', 'b']);
  expect([tell('c', 3), tell('a', 4)]).toEqual([3, 4]);
  expect(made).toEqual(['a', 'b', 'c', 'a']);
});
