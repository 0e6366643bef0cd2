/** SHA-256 of a text as lower-case hex; given by whoever runs the core. */
export type Sha256 = (text: string) => string;

/** One entry of an append-only record, sealed to the one before it. */
export interface Link {
  readonly id: string;
  /** 1 for the first entry of the chain. */
  readonly place: number;
  /** When it was written down, ISO 8601. */
  readonly at: string;
  /** The entry as canonical JSON. */
  readonly body: string;
  readonly hash: string;
}

/** What stands before the first entry. */
export const NO_HASH = '0'.repeat(64);

/** The seal of an entry: a hash over where it stands, what it says and the seal of the entry before it. */
export const sealOf = (chain: string, link: Omit<Link, 'hash'>, before: string, sha256: Sha256): string =>
  sha256([before, chain, link.place, link.id, link.at, link.body].join('\n'));

/** Where a chain does not hold. */
export interface Break<L extends Link = Link> {
  readonly place: number;
  /** The entry that is not as it was written; null where one is missing. */
  readonly link: L | null;
  readonly why: 'missing' | 'altered';
}

/**
 * Checks a chain from its first entry, in order of place. Every entry is judged by itself, so that one alteration
 * is located and does not hide another: an entry must carry the seal of its own content on the stored seal before it.
 */
export function breaksIn<L extends Link>(chain: string, links: readonly L[], sha256: Sha256): Break<L>[] {
  const breaks: Break<L>[] = [];
  let before = NO_HASH;
  let expected = 1;
  for (const link of links) {
    for (; expected < link.place; expected += 1) breaks.push({ place: expected, link: null, why: 'missing' });
    if (link.place !== expected || sealOf(chain, link, before, sha256) !== link.hash)
      breaks.push({ place: link.place, link, why: 'altered' });
    before = link.hash;
    expected = link.place + 1;
  }
  return breaks;
}
