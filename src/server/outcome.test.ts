import { invalid } from './outcome';

const message = (...issues: Parameters<typeof invalid>[0]) => {
  const { why } = invalid(issues);
  return why.code === 'invalid' ? [why.message, why.fields] : [];
};

describe('what is wrong, as sentences', () => {
  test('a sentence of ours stands as it is, without the place it came from', () => {
    expect(message({ path: ['event'], message: 'This run is finished.' })).toEqual([
      'This run is finished.',
      { event: 'This run is finished.' },
    ]);
  });
  test('a bare message gets the name of its field', () => {
    expect(message({ path: ['limits', 'crack'], message: 'Invalid input' })[0]).toBe(
      'limits.crack: Invalid input.',
    );
    expect(message({ path: [], message: 'Invalid input' })[0]).toBe('The request: Invalid input.');
  });
  test('the first message of a field counts', () => {
    const [, fields] = message({ path: ['tag'], message: 'First.' }, { path: ['tag'], message: 'Second.' });
    expect(fields).toEqual({ tag: 'First.' });
  });
  test('nothing said is still a sentence', () => expect(message()[0]).toMatch(/\.$/));
});
