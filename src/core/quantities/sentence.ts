import { printQuantity } from './print';
import type { Quantity, UnitSet } from './units';

/** A number in a sentence, printed in the reader's units. */
export interface SentenceValue {
  readonly value: number;
  readonly quantity: Quantity;
  readonly u?: number | null;
  /** Print "± U" behind the value. */
  readonly withU?: boolean;
}

/** A sentence with its numbers kept apart: `{name}` in the text is replaced when printed. */
export interface Sentence {
  readonly text: string;
  readonly values: Readonly<Record<string, SentenceValue>>;
}

export const sentence = (text: string, values: Sentence['values'] = {}): Sentence => ({ text, values });

/** Prints a sentence in a unit set. */
export function printSentence({ text, values }: Sentence, set: UnitSet): string {
  return text.replace(/\{(\w+)\}/g, (whole, name: string) => {
    const item = values[name];
    return item ? printQuantity(item.value, item.quantity, set, { u_SI: item.u, withU: item.withU }) : whole;
  });
}

/** Names in a row, "a; b; c", each begun small: names have commas of their own. */
export const printNames = (names: readonly string[]): string =>
  names.map((name) => name.charAt(0).toLowerCase() + name.slice(1)).join('; ');
