/** Letters that are not given away: one answers every look of a step. */
const TAKEN = 'a';

/**
 * A key for each answer: the first letter of its label that no answer before it has, so that each is shown where it
 * works and none is a digit, since digits are typed for readings.
 */
export function answerKeys(labels: readonly string[]): string[] {
  const keys: string[] = [];
  for (const label of labels) {
    const letters = [...label.toLowerCase(), ...'bcdefghijklmnopqrstuvwxyz'];
    keys.push(letters.find((letter) => /[b-z]/.test(letter) && letter !== TAKEN && !keys.includes(letter))!);
  }
  return keys;
}
