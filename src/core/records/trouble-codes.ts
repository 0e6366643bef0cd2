import { z } from 'zod';

/** A diagnostic trouble code, and the bits of its status. ISO 14229-1. */
export const troubleCodeSchema = z.strictObject({
  /** As it is written down: a letter for the part of the vehicle, four digits, and the type of failure. */
  code: z.string().regex(/^[PCBU][0-3][0-9A-F]{3}-[0-9A-F]{2}$/, 'Code: as in C12A1-62.'),
  status: z.int().min(0).max(255),
});
export type TroubleCode = Readonly<z.infer<typeof troubleCodeSchema>>;

/** Bits of a trouble code's status, in words. ISO 14229-1, of which these are used. */
const STATUS_BITS: readonly (readonly [bit: number, words: string])[] = [
  [0x01, 'failed when last tested'],
  [0x04, 'pending'],
  [0x08, 'confirmed'],
  [0x10, 'not tested since the codes were cleared'],
  [0x40, 'not tested since it was switched on'],
  [0x80, 'asks for the lamp'],
];

/** Status of a trouble code in words, the lowest bit first. */
export const statusWords = (status: number): string[] =>
  STATUS_BITS.flatMap(([bit, words]) => ((status & bit) > 0 ? [words] : []));

/** A code with its status, as a line: “C12A1-62: failed when last tested, confirmed”. */
export const codeLine = ({ code, status }: TroubleCode): string =>
  [code, statusWords(status).join(', ')].filter(Boolean).join(': ');

/** What a vehicle had stored, as it was read. */
export const codesReadSchema = z.strictObject({
  /** Name of the map by which it was asked. */
  unit: z.string().min(1).max(80),
  found: z.array(troubleCodeSchema).max(1000),
  /** Entry of the codes that were saved before, and are cleared now: what is left behind it stands here. */
  clears: z.uuid().nullable(),
});
export type CodesRead = Readonly<z.infer<typeof codesReadSchema>>;

/** Codes that stand there now and were not there, or not so, in what was saved. */
export const notSaved = (saved: readonly TroubleCode[], now: readonly TroubleCode[]): TroubleCode[] =>
  now.filter(({ code }) => !saved.some((one) => one.code === code));
