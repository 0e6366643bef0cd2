/** Letters that are drawn alike, each with the one that it is taken for. Two names of one skeleton look the same on paper. */
const ALIKE: Readonly<Record<string, string>> = {
  ...alike('a', 'аα'),
  ...alike('b', 'вβ'),
  ...alike('c', 'сϲ'),
  ...alike('e', 'еε'),
  ...alike('h', 'нһ'),
  ...alike('i', 'іι1l|!ӏı'),
  ...alike('j', 'ј'),
  ...alike('k', 'кκ'),
  ...alike('m', 'мμ'),
  ...alike('n', 'ν'),
  ...alike('o', 'оο0'),
  ...alike('p', 'рρ'),
  ...alike('s', 'ѕ5'),
  ...alike('t', 'тτ'),
  ...alike('x', 'хχ'),
  ...alike('y', 'уγ'),
  ...alike('z', 'ζ'),
};

function alike(to: string, from: string): Record<string, string> {
  return Object.fromEntries([...from].map((letter) => [letter, to]));
}

/** A name as it looks: without case, accents, blanks and points, and with letters that look alike as one. */
export const nameSkeleton = (name: string): string =>
  [...name.normalize('NFKD').toLowerCase()]
    .filter((letter) => /[\p{L}\p{N}|!]/u.test(letter))
    .map((letter) => ALIKE[letter] ?? letter)
    .join('');
