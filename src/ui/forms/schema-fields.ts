import { z } from 'zod';
import { asEntered } from '@/core/quantities/as-entered';
import { printQuantity } from '@/core/quantities/print';
import { parseReading, readingList } from '@/core/quantities/reading';
import { refusalSentence } from '@/core/quantities/refusal';
import { unitFor, type Quantity, type UnitSet } from '@/core/quantities/units';

/** One field of a form, made from the schema of the thing itself. */
export interface SchemaField {
  /** Place in the body, joined with dots: also the field's name in the form. */
  readonly path: string;
  readonly title: string;
  readonly group: string;
  readonly kind:
    'text' | 'date' | 'quantity' | 'quantities' | 'choice' | 'switch' | 'flag' | 'key' | 'picture';
  readonly quantity?: Quantity;
  readonly nullable: boolean;
  readonly choices?: readonly { value: string; label: string }[];
}

interface Meta {
  title?: string;
  quantity?: Quantity;
  labels?: Record<string, string>;
  /** Taught by pressing the key. */
  taught?: boolean;
  /** Seal of a picture of the user's own. */
  picture?: boolean;
}

/** Fields of an object schema, in its own order; nested objects give their title as the group. */
export function fieldsOf(schema: z.ZodType, path = '', group = ''): SchemaField[] {
  if (!(schema instanceof z.ZodObject)) return [];
  return Object.entries(schema.shape as Record<string, z.ZodType>).flatMap(([key, whole]): SchemaField[] => {
    const child =
      whole instanceof z.ZodOptional || whole instanceof z.ZodDefault ? (whole.unwrap() as z.ZodType) : whole;
    const nullable = child instanceof z.ZodNullable;
    const inner = nullable ? (child.unwrap() as z.ZodType) : child;
    const meta = {
      ...(inner.meta() as Meta | undefined),
      ...(child.meta() as Meta | undefined),
      ...(whole.meta() as Meta | undefined),
    };
    const here = path ? `${path}.${key}` : key;
    const title = meta.title ?? key;
    if (inner instanceof z.ZodLiteral) return [];
    if (inner instanceof z.ZodObject) {
      const inside = fieldsOf(inner, here, group === '' || nullable ? title : group).map((f) =>
        f.title === 'Source' ? { ...f, title: `${title}: source` } : f,
      );
      return nullable ? [{ path: here, title, group: title, kind: 'switch', nullable }, ...inside] : inside;
    }
    const base = { path: here, title, group, nullable };
    if (inner instanceof z.ZodISODate) return [{ ...base, kind: 'date' }];
    if (inner instanceof z.ZodBoolean) return [{ ...base, kind: 'flag' }];
    if (meta.picture) return [{ ...base, kind: 'picture' }];
    if (meta.taught) return [{ ...base, kind: 'key' }];
    if (inner instanceof z.ZodEnum) {
      const choices = inner.options.map((value) => ({
        value: String(value),
        label: meta.labels?.[String(value)] ?? String(value),
      }));
      return [{ ...base, kind: 'choice', choices }];
    }
    if (inner instanceof z.ZodArray) return [{ ...base, kind: 'quantities', quantity: meta.quantity }];
    return [{ ...base, kind: meta.quantity ? 'quantity' : 'text', quantity: meta.quantity }];
  });
}

/** What a schema leaves no choice about, in its place: nobody types it. */
export function literalsOf(schema: z.ZodType): Record<string, unknown> {
  if (!(schema instanceof z.ZodObject)) return {};
  return Object.fromEntries(
    Object.entries(schema.shape as Record<string, z.ZodType>).flatMap(([key, child]): [string, unknown][] => {
      if (child instanceof z.ZodLiteral) return [[key, child.value]];
      const inside = literalsOf(child);
      return Object.keys(inside).length > 0 ? [[key, inside]] : [];
    }),
  );
}

/** What is typed in the fields, by path. */
export type FormText = Record<string, string>;

/** A body as text in the fields, in a unit set. */
export function textOf(fields: readonly SchemaField[], body: unknown, set: UnitSet): FormText {
  return Object.fromEntries(
    fields.map((field) => {
      const value = at(body, field.path);
      if (field.kind === 'switch') return [field.path, value === null || value === undefined ? '' : 'yes'];
      if (value === null || value === undefined) return [field.path, ''];
      if (field.kind === 'flag') return [field.path, value ? 'yes' : ''];
      if (field.kind === 'quantity') return [field.path, asEntered(value as number, field.quantity!, set)];
      if (field.kind === 'quantities')
        return [field.path, (value as number[]).map((v) => asEntered(v, field.quantity!, set)).join('; ')];
      return [field.path, String(value)];
    }),
  );
}

export type ReadForm =
  { ok: true; body: Record<string, unknown> } | { ok: false; errors: Record<string, string> };

/** Reads the fields back into a body; every field that is not understood gets a sentence. */
export function bodyFrom(
  fields: readonly SchemaField[],
  text: FormText,
  set: UnitSet,
  fixed: Record<string, unknown>,
): ReadForm {
  const body: Record<string, unknown> = { ...fixed };
  const errors: Record<string, string> = {};
  const off = fields.filter((f) => f.kind === 'switch' && text[f.path] !== 'yes').map((f) => f.path);
  for (const path of off) put(body, path, null);
  for (const field of fields) {
    if (field.kind === 'switch' || off.some((path) => field.path.startsWith(`${path}.`))) continue;
    const typed = (text[field.path] ?? '').trim();
    if (field.kind === 'flag') {
      put(body, field.path, typed === 'yes');
      continue;
    }
    if (field.kind === 'quantity' || field.kind === 'quantities') {
      const parts = field.kind === 'quantity' ? [typed] : readingList(typed);
      if (typed === '' && field.nullable) {
        put(body, field.path, null);
        continue;
      }
      const values = parts.map((part) => readQuantity(part, field, set));
      const wrong = values.find((value) => typeof value === 'string');
      if (wrong !== undefined) errors[field.path] = wrong as string;
      else put(body, field.path, field.kind === 'quantity' ? values[0] : values);
    } else {
      put(body, field.path, typed === '' && field.nullable ? null : typed);
    }
  }
  return Object.keys(errors).length > 0 ? { ok: false, errors } : { ok: true, body };
}

/** Dimensions and limits are not bounded by any barometer here: the schema bounds them. */
const NO_BAROMETER_PA = 1e9;

function readQuantity(typed: string, field: SchemaField, set: UnitSet): number | string {
  const quantity = field.quantity!;
  const result = parseReading(typed, {
    quantity,
    unit: unitFor(quantity, set),
    barometer_Pa: NO_BAROMETER_PA,
  });
  if (result.ok) return result.value_SI;
  if (result.why.code === 'ambiguous') {
    const [a, b] = result.why.candidates_SI;
    return `${field.title}: “${typed}” can be read as ${printQuantity(a, quantity, set, { u_SI: Math.abs(a) / 2000 })} or ${printQuantity(b, quantity, set)}. Write it without doubt, as in 1.2 or 1200.`;
  }
  return refusalSentence(result.why, field.title, set);
}

function at(body: unknown, path: string): unknown {
  return path
    .split('.')
    .reduce<unknown>((value, key) => (value as Record<string, unknown> | null | undefined)?.[key], body);
}

function put(body: Record<string, unknown>, path: string, value: unknown): void {
  const keys = path.split('.');
  const last = keys.pop()!;
  let place = body;
  for (const key of keys) {
    place[key] = { ...(place[key] as Record<string, unknown> | undefined) };
    place = place[key] as Record<string, unknown>;
  }
  place[last] = value;
}
