/** @jest-environment node */
import fc from 'fast-check';
import { asciiJson } from './ascii-json';

const bytesOf = (text: string) => new TextEncoder().encode(text);

test.each([
  ['{"a":[1,"b"]}', '{"a":[1,"b"]}'],
  ['"é"', '"\\u00e9"'],
  ['["µ – 🔧",1]', '["\\u00b5 \\u2013 \\ud83d\\udd27",1]'],
  ['', ''],
])('%s is written as %s', (json, ascii) => {
  expect(asciiJson(bytesOf(json)).toString('latin1')).toBe(ascii);
});

test('says the same, whatever it says', () => {
  fc.assert(
    fc.property(fc.json({ stringUnit: 'binary' }), (json) => {
      const ascii = asciiJson(bytesOf(json)).toString('latin1');
      expect(/^[\0-\x7f]*$/.test(ascii)).toBe(true);
      expect(JSON.parse(ascii)).toEqual(JSON.parse(Buffer.from(bytesOf(json)).toString('utf8')));
    }),
  );
});

test('bytes that are no UTF-8 are the mark for that, as they are read otherwise', () => {
  const bytes = Uint8Array.of(0x22, 0xff, 0xc3, 0x22);
  expect(JSON.parse(asciiJson(bytes).toString('latin1'))).toBe(
    JSON.parse(Buffer.from(bytes).toString('utf8')),
  );
});
