import type { Keep, Of } from '../contract/keeps';

/** A rule of one part of a vehicle, as one of the whole. */
export function keptOf<Whole, Own>(of: (whole: Whole) => Own, keep: Keep<Own>): Keep<Whole> {
  const limit =
    (own: Of<Own>): Of<Whole> =>
    (whole, item) =>
      own(of(whole), item);
  switch (keep.to) {
    case 'band':
      return {
        to: 'band',
        says: (whole) => keep.says(of(whole)),
        ...(keep.wider && { wider: limit(keep.wider) }),
      };
    case 'at-most':
    case 'at-least':
      return { ...keep, limit: limit(keep.limit) };
    case 'range':
      return { ...keep, low: limit(keep.low), high: limit(keep.high) };
    case 'about':
      return {
        ...keep,
        least: limit(keep.least),
        part: keep.part && { of: keep.part.of, limit: limit(keep.part.limit) },
      };
    case 'below':
      return { to: 'below', by: limit(keep.by) };
    case 'start':
      return { to: 'start', lossPerS: limit(keep.lossPerS) };
    case 'noted':
      return keep;
  }
}
