import { z } from 'zod';
import { printQuantity } from './print';
import { QUANTITIES, type UnitSet } from './units';

const sentenceValueSchema = z.strictObject({
  value: z.number(),
  quantity: z.enum(QUANTITIES),
  u: z.number().nullable().optional(),
  /** Print "± U" behind the value. */
  withU: z.boolean().optional(),
});
/** A number in a sentence, printed in the reader's units. */
export type SentenceValue = Readonly<z.infer<typeof sentenceValueSchema>>;

export const sentenceSchema = z.strictObject({
  text: z.string().max(20_000),
  values: z.record(z.string().max(80), sentenceValueSchema).readonly(),
});
/** A sentence with its numbers kept apart: `{name}` in the text is replaced when printed. */
export type Sentence = Readonly<z.infer<typeof sentenceSchema>>;

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
