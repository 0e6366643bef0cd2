/** Why the store did not do what it was asked. A conflict carries what is there now, so that both can be shown. */
export type Refusal =
  | { code: 'not-found'; message: string }
  | { code: 'invalid'; message: string; fields: Readonly<Record<string, string>> }
  | { code: 'conflict'; message: string; current: unknown };

export type Outcome<T> = { ok: true; value: T } | { ok: false; why: Refusal };

export const done = <T>(value: T): Outcome<T> => ({ ok: true, value });
export const refused = (why: Refusal): { ok: false; why: Refusal } => ({ ok: false, why });

/** A Zod refusal as one sentence per field. */
export function invalid(issues: readonly { path: PropertyKey[]; message: string }[]): {
  ok: false;
  why: Refusal;
} {
  const fields: Record<string, string> = {};
  for (const { path, message } of issues) fields[path.join('.')] ??= message;
  const [first] = issues;
  const where = first?.path.join('.') || 'The request';
  return refused({
    code: 'invalid',
    message: first ? `${where}: ${first.message}` : 'The request is not understood.',
    fields,
  });
}
