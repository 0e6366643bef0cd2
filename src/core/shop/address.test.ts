/** @jest-environment node */
import { addressField, parseAddress } from './address';

test.each([
  ['127.0.0.1:5025', { host: '127.0.0.1', port: 5025 }],
  ['bench-2.shop:65535', { host: 'bench-2.shop', port: 65535 }],
  ['a:1', { host: 'a', port: 1 }],
  ['127.0.0.1:99999', null],
  ['127.0.0.1:65536', null],
  ['127.0.0.1:0', null],
  ['127.0.0.1', null],
  [':5025', null],
  ['a:b:5025', null],
  ['a:5025 ', null],
  ['', null],
])('an address: “%s”', (text, read) => expect(parseAddress(text)).toEqual(read));

test('a field takes an address or nothing, and says what one looks like', () => {
  const field = addressField('Bench logger', '127.0.0.1:5025');
  expect(field.parse('')).toBe('');
  expect(field.parse(' 127.0.0.1:5025 ')).toBe('127.0.0.1:5025');
  expect(field.safeParse('127.0.0.1:99999').error!.issues[0]!.message).toMatch(
    /^Bench logger: a name and a port from 1 to 65535/,
  );
});
