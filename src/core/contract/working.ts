import { z } from 'zod';
import type { Quantity, UnitSet } from '../quantities/units';

/** One number or word that a working gives. SI. */
export type Answered =
  | {
      readonly id: string;
      readonly name: string;
      readonly value: number;
      readonly quantity: Quantity;
      readonly u?: number;
    }
  | { readonly id: string; readonly name: string; readonly text: string };

/** A named calculation of the core: called by a screen, by another program, and drawn. */
export interface Working<Input = unknown> {
  readonly name: string;
  readonly title: string;
  /** What it works out, in a sentence. */
  readonly about: string;
  /** Where the formula comes from. */
  readonly source: string;
  readonly input: z.ZodType<Input>;
  /** What the fields show at first. */
  readonly example: Input;
  /** @throws RangeError naming the field, where the input cannot be */
  readonly compute: (input: Input) => readonly Answered[];
  /** A picture of what it computes, as SVG. */
  readonly picture: (input: Input, set: UnitSet) => string;
}

/** Closes a working over its own input, so that the registry needs no type of it. */
export const defineWorking = <Input>(working: Working<Input>): Working => working as unknown as Working;

/** A number field of a working. */
export const field = (title: string, quantity: Quantity, low: number, high: number) =>
  z
    .number(`${title}: a number is needed.`)
    .min(low, `${title} is too small.`)
    .max(high, `${title} is too large.`)
    .meta({ title, quantity });

export const series = (title: string, least: number, high: number) =>
  z
    .array(
      z.number().min(0, `${title}: none can be below zero.`).max(high, `${title}: one of them is too large.`),
    )
    .min(least, `${title}: at least ${least} are needed.`)
    .max(30, `${title}: 30 at the most.`)
    .meta({ title, quantity: 'pressure' });

export type WorkingOutcome =
  { ok: true; answers: readonly Answered[] } | { ok: false; fields: Readonly<Record<string, string>> };

/** Runs a working on whatever it is given: answers, or a sentence for each field that cannot be. */
export function runWorking(working: Working, input: unknown): WorkingOutcome {
  const parsed = working.input.safeParse(input);
  if (!parsed.success) {
    const fields: Record<string, string> = {};
    for (const { path, message } of parsed.error.issues) fields[String(path[0] ?? '')] ??= message;
    return { ok: false, fields };
  }
  try {
    return { ok: true, answers: working.compute(parsed.data) };
  } catch (error) {
    if (!(error instanceof RangeError)) throw error;
    const [name = '', ...rest] = error.message.split(': ');
    const why = rest.join(': ');
    return { ok: false, fields: { [name]: `${why.charAt(0).toUpperCase()}${why.slice(1)}.` } };
  }
}
