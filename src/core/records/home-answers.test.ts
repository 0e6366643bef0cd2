import fc from 'fast-check';
import { homeChecksOf } from '../families/home-checks';
import { answersThatCount } from './answers-that-count';
import { homeAnswersSchema, homeFields, homeFile, readHomeFile } from './home-answers';

const checks = homeChecksOf('vacuum-vehicle');
const blank = homeFile('GF-0426', checks, ({ expect: words }) => words);
const filled = (change: (text: string) => string) => readHomeFile(change(blank), 'GF-0426', checks);

describe('a file that came back', () => {
  test('with yes and no behind its checks: what is left empty was not tried', () => {
    const read = filled((text) =>
      text
        .replace('home-drop: ', 'home-drop: No, hardly')
        .replace('home-standing: ', 'home-standing:YES')
        .replace('said: ', 'said: It hissed.'),
    );
    expect(read).toMatchObject({
      ok: true,
      answers: { 'home-drop': 'otherwise', 'home-standing': 'as-described', 'home-reserve': 'not-tried' },
      words: 'It hissed.',
    });
  });
  test.each([
    ['nothing answered', (text: string) => text, /Nothing is answered/],
    [
      'of another job',
      (text: string) => text.replace('GF-0426', 'GF-0400'),
      /is of GF-0400, and this job is GF-0426/,
    ],
    ['something else', () => 'Dear brake room', /no home check/],
    ['without end', () => 'x'.repeat(200_000), /far longer/],
    [
      '“nothing” and “maybe” are no answers',
      (text: string) => text.replace('home-drop: ', 'home-drop: maybe'),
      /Nothing is answered/,
    ],
  ])('%s is refused in words', (_, change, why) => {
    const read = filled(change);
    expect(read.ok ? '' : read.why).toMatch(why);
  });
  test('line ends, a mark of its encoding and spaces do not matter', () => {
    const read = filled(
      (text) => `\uFEFF${text.replaceAll('\r\n', '\n').replace('home-firm: ', 'home-firm:    yes ')}`,
    );
    expect(read).toMatchObject({ ok: true, answers: { 'home-firm': 'as-described' } });
  });
  test('whatever comes, it is read or refused', () => {
    fc.assert(
      fc.property(fc.string({ unit: 'binary' }), (noise) => {
        const read = readHomeFile(`${blank}${noise}`, 'GF-0426', checks);
        if (read.ok)
          expect(homeFields(checks).safeParse({ ...read.answers, words: read.words }).success).toBe(true);
      }),
    );
  });
});

test('nothing answered and nothing said is not written down, by form or as an entry', () => {
  const nothing = Object.fromEntries(checks.map(({ id }) => [id, 'not-tried']));
  expect(homeFields(checks).safeParse({ ...nothing, words: ' ' }).success).toBe(false);
  expect(homeFields(checks).safeParse({ ...nothing, words: 'It hisses.' }).success).toBe(true);
  const entry = (answers: object, words = '') =>
    homeAnswersSchema.safeParse({ answers, words, how: 'typed' }).success;
  expect([entry({}), entry(nothing), entry({ ...nothing, 'home-drop': 'otherwise' })]).toEqual([
    false,
    false,
    true,
  ]);
});

describe('what counts', () => {
  const home = (
    place: number,
    answers: Record<string, 'otherwise' | 'as-described' | 'not-tried'>,
    withdrawn = false,
  ) => ({
    id: String(place),
    place,
    at: '',
    withdrawn,
    what: { answers, words: '', how: 'typed' as const },
  });
  const work = (place: number, did: 'replaced' | 'opened', withdrawn = false) =>
    ({ id: `w${place}`, place, at: '', withdrawn, what: { part: 'booster', did } }) as never;

  test('is the last answer to each check, and not what was taken back or not tried', () => {
    expect(
      answersThatCount({
        work: [],
        homeChecks: [
          home(2, { 'home-drop': 'otherwise', 'home-firm': 'as-described' }),
          home(3, { 'home-drop': 'as-described', 'home-firm': 'not-tried' }),
          home(4, { 'home-drop': 'otherwise' }, true),
        ],
      }),
    ).toEqual({ 'home-drop': 'as-described', 'home-firm': 'as-described' });
  });
  test('ends where something was mended; what was only opened leaves it', () => {
    const homeChecks = [home(2, { 'home-drop': 'otherwise' })];
    expect(answersThatCount({ homeChecks, work: [work(3, 'replaced')] })).toEqual({});
    expect(answersThatCount({ homeChecks, work: [work(3, 'opened')] })).toEqual({ 'home-drop': 'otherwise' });
    expect(answersThatCount({ homeChecks, work: [work(3, 'replaced', true)] })).toEqual({
      'home-drop': 'otherwise',
    });
    expect(answersThatCount({ homeChecks, work: [work(1, 'replaced')] })).toEqual({
      'home-drop': 'otherwise',
    });
  });
});
