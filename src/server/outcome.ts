/** Why the store did not do what it was asked. A conflict carries what is there now, so that both can be shown. */
export type Refusal =
  | { code: 'not-found'; message: string }
  | { code: 'invalid'; message: string; fields: Readonly<Record<string, string>> }
  | { code: 'conflict'; message: string; current: unknown }
  | { code: 'refused'; message: string };

export type Outcome<T> = { ok: true; value: T } | { ok: false; why: Refusal };

export const done = <T>(value: T): Outcome<T> => ({ ok: true, value });
export const refused = (why: Refusal): { ok: false; why: Refusal } => ({ ok: false, why });

/** A Zod refusal as one sentence per field. Our own schemas write whole sentences; Zod's own words get the field's name. */
export function invalid(issues: readonly { path: PropertyKey[]; message: string }[]): {
  ok: false;
  why: Refusal;
} {
  const fields: Record<string, string> = {};
  for (const { path, message } of issues) {
    const where = path.join('.');
    fields[where] ??= message.endsWith('.') ? message : `${where || 'The request'}: ${message}.`;
  }
  const message = Object.values(fields)[0] ?? 'The request is not understood.';
  return refused({ code: 'invalid', message, fields });
}
