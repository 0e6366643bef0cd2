/** Gauss–Legendre nodes and weights on 0 to 1, eight points. Abramowitz & Stegun, table 25.4. */
export const GAUSS_8 = [
  [0.1834346424956498, 0.362683783378362],
  [0.525532409916329, 0.3137066458778873],
  [0.7966664774136267, 0.2223810344533745],
  [0.9602898564975363, 0.1012285362903763],
].flatMap(([x, w]) => [
  [(1 - x!) / 2, w! / 2],
  [(1 + x!) / 2, w! / 2],
]) as readonly (readonly [node: number, weight: number])[];
