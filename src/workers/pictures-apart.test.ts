/** @jest-environment node */
import fc from 'fast-check';
import { picturesApart } from './pictures-apart';

/** The file as it was: each picture back in its place. */
function together(file: string): string {
  const { json, pictures } = picturesApart(Buffer.from(file));
  let text = json.toString('utf8');
  for (const [name, bytes] of pictures) text = text.replace(name, () => bytes.toString('base64'));
  return text;
}

const noise = (length: number, seed: number) =>
  Buffer.from(Array.from({ length }, (_, i) => (i * 7919 + seed * 104_729) % 251));

test('a long picture is taken out, and is the bytes that its text stood for', () => {
  const long = [noise(5000, 1), noise(7001, 2)];
  const file = JSON.stringify({
    job: 'é',
    photos: long.map((one) => ({ jpeg: one.toString('base64') })),
    end: 1,
  });
  const { json, pictures } = picturesApart(Buffer.from(file));
  expect([...pictures.values()].map((one) => one.equals(long[[...pictures.values()].indexOf(one)]!))).toEqual(
    [true, true],
  );
  expect(json.length).toBeLessThan(150);
  const read = JSON.parse(json.toString('utf8')) as { job: string; photos: { jpeg: string }[]; end: number };
  expect([read.job, read.end]).toEqual(['é', 1]);
  expect(read.photos.map(({ jpeg }) => jpeg)).toEqual([...pictures.keys()]);
});

test.each([
  ['short', JSON.stringify({ jpeg: noise(300, 1).toString('base64') })],
  ['no base64', JSON.stringify({ jpeg: '*'.repeat(6000) })],
  ['cut short', `{"jpeg":"${'A'.repeat(6000)}`],
  ['a group that is not whole', JSON.stringify({ jpeg: 'A'.repeat(6001) })],
  ['under another name', JSON.stringify({ note: 'A'.repeat(6000) })],
  ['within a text', JSON.stringify({ note: `"jpeg":"${'A'.repeat(6000)}"` })],
])('what is %s stays as it is', (_, file) => {
  const { json, pictures } = picturesApart(Buffer.from(file));
  expect(pictures.size).toBe(0);
  expect(json.toString('utf8')).toBe(file);
});

test('nothing of a file is lost or changed', () => {
  const jpeg = fc.oneof(
    fc.string({ unit: 'binary' }),
    fc.nat({ max: 9 }).map((seed) => noise(3072 + seed, seed).toString('base64')),
  );
  fc.assert(
    fc.property(fc.array(fc.record({ jpeg, caption: fc.string({ unit: 'binary' }) })), (photos) => {
      const file = JSON.stringify({ photos });
      expect(together(file)).toBe(Buffer.from(file).toString('utf8'));
    }),
  );
});
