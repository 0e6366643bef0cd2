/** @jest-environment node */
import fc from 'fast-check';
import { canonicalJson } from './canonical';
import { breaksIn, NO_HASH, sealOf, type Link } from './chain';

/** Stands for SHA-256, which the core is given: any change of the text changes it. */
const sha256 = (text: string) =>
  `#${[...text].reduce((h, c) => (Math.imul(h, 31) + c.codePointAt(0)!) | 0, text.length)}`;

describe('canonical JSON', () => {
  test('is RFC 8785: members by name, numbers as ECMAScript writes them, no spaces', () => {
    // From RFC 8785, 3.2.2 and 3.2.3.
    const sample = {
      numbers: [333333333.33333329, 1e30, 4.5, 2e-3, 0.000000000000000000000000001],
      string: '€$\u000F\nA\'B"\\"/',
      literals: [null, true, false],
    };
    expect(canonicalJson(sample)).toBe(
      '{"literals":[null,true,false],"numbers":[333333333.3333333,1e+30,4.5,0.002,1e-27],"string":"€$\\u000f\\nA\'B\\"\\\\\\"/"}',
    );
  });
  test('leaves out what is undefined, as JSON does, and refuses what is no JSON', () => {
    expect(canonicalJson({ b: undefined, a: [undefined, 1] })).toBe('{"a":[null,1]}');
    expect(() => canonicalJson({ a: NaN })).toThrow(RangeError);
  });
  test('is the same whatever the order, and reads back the same', () => {
    fc.assert(
      fc.property(fc.jsonValue(), (value) => {
        const text = canonicalJson(value);
        expect(canonicalJson(JSON.parse(text))).toBe(text);
        expect(JSON.parse(text)).toEqual(JSON.parse(JSON.stringify(value)));
      }),
    );
  });
});

describe('a chain of entries', () => {
  const chainOf = (bodies: readonly string[]): Link[] => {
    let before = NO_HASH;
    return bodies.map((body, i) => {
      const link = { id: `e${i}`, place: i + 1, at: '2026-11-24T00:00:00.000Z', body };
      const hash = sealOf('job/x', link, before, sha256);
      before = hash;
      return { ...link, hash };
    });
  };
  const whole = chainOf(['"a"', '"b"', '"c"', '"d"']);
  const placesOf = (links: readonly Link[]) =>
    breaksIn('job/x', links, sha256).map(({ place, why }) => [place, why]);
  test('the seal is the hash of six lines, worked by hand', () => {
    const text = `${NO_HASH}\njob/x\n1\ne0\n2026-11-24T00:00:00.000Z\n"a"`;
    expect(whole[0]!.hash).toBe(sha256(text));
  });
  test('holds as written, and under no other name', () => {
    expect(placesOf(whole)).toEqual([]);
    expect(breaksIn('job/y', whole, sha256)[0]).toMatchObject({ place: 1, why: 'altered' });
  });
  test('an altered entry is named, and does not hide another', () => {
    const two = whole.map((link, i) => (i === 1 || i === 3 ? { ...link, body: '"z"' } : link));
    expect(placesOf(two)).toEqual([
      [2, 'altered'],
      [4, 'altered'],
    ]);
  });
  test('an entry taken out is named, and so is the seal that no longer fits', () => {
    expect(placesOf(whole.filter(({ place }) => place !== 3))).toEqual([
      [3, 'missing'],
      [4, 'altered'],
    ]);
  });
  test('a new seal on an altered entry shows at the next one', () => {
    const { hash: _hash, ...rest } = { ...whole[1]!, body: '"z"' };
    const resealed = { ...rest, hash: sealOf('job/x', rest, whole[0]!.hash, sha256) };
    expect(placesOf(whole.with(1, resealed))).toEqual([[3, 'altered']]);
  });
});
