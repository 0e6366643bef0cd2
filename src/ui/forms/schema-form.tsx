'use client';

import { Box, Button, Checkbox, FormControlLabel, MenuItem, TextField } from '@mui/material';
import { useMemo, useSyncExternalStore, type ReactNode } from 'react';
import { Controller, useForm, useWatch } from 'react-hook-form';
import type { z } from 'zod';
import { unitFor, type Quantity } from '@/core/quantities/units';
import { Key, useKeys } from '../keys';
import type { Stored } from '@/core/records/views';
import { useSettings } from '../settings-context';
import { Part } from '../page';
import { DateField } from './date-field';
import { bodyFrom, fieldsOf, textOf, type FormText, type SchemaField } from './schema-fields';
import { PictureField } from './picture-field';
import { useSave } from './save';

interface SchemaFormProps<T> {
  readonly schema: z.ZodType<T>;
  /** Object schema that the fields are made from, where the schema itself is more than an object. */
  readonly formShape?: z.ZodType;
  /** What the fields show at first. */
  readonly initial: unknown;
  /** Parts of the body that are not edited here. */
  readonly fixed?: Record<string, unknown>;
  readonly method: 'POST' | 'PUT' | 'DELETE';
  readonly url: string;
  /** What is sent, made from the body; without it, the body itself or a change of a version. */
  readonly wrap?: (body: T) => unknown;
  /** Version being changed; absent when adding. */
  readonly version?: number;
  readonly saveLabel: string;
  readonly onSaved: (stored: { id: string }) => void;
  readonly extra?: ReactNode;
  /** Choices for text fields that name something on the shelf. */
  readonly choices?: Readonly<Record<string, readonly { value: string; label: string }[]>>;
  /** Fields that take several lines. */
  readonly longFields?: readonly string[];
  readonly columns?: number;
  /** Fields whose text is not shown. */
  readonly secretFields?: readonly string[];
  /** Keys do not work over a dialog, and its own button stands beside. */
  readonly inDialog?: boolean;
  readonly beside?: ReactNode;
  /** A stored body as the form shows it, where that differs. */
  readonly asShown?: (body: unknown) => unknown;
  /** Fields whose quantity is what another field says. */
  readonly quantityFrom?: { readonly field: string; readonly of: readonly string[] };
}

/** A form made from a schema: the same schema validates, on the screen and on the server. */
export function SchemaForm<T>(props: SchemaFormProps<T>) {
  const {
    schema,
    formShape = schema,
    initial,
    fixed = {},
    method,
    url,
    wrap,
    version,
    saveLabel,
    onSaved,
    columns = 2,
    quantityFrom,
    asShown: shownBody = (body) => body,
    choices,
    longFields,
    secretFields,
    inDialog = false,
  } = props;
  const { unitSet } = useSettings();
  const plain = useMemo(
    () =>
      fieldsOf(formShape).map((field): SchemaField =>
        choices?.[field.path] ? { ...field, kind: 'choice', choices: choices[field.path] } : field,
      ),
    [formShape, choices],
  );
  const withQuantity = (quantity: unknown): readonly SchemaField[] =>
    quantityFrom
      ? plain.map((field) =>
          quantityFrom.of.includes(field.path) ? { ...field, quantity: quantity as Quantity } : field,
        )
      : plain;
  const firstQuantity = quantityFrom && (initial as Record<string, unknown>)[quantityFrom.field];
  const form = useForm<{ f: FormText }>({
    defaultValues: { f: flat(textOf(withQuantity(firstQuantity), initial, unitSet)) },
  });
  const alive = useAlive();
  const { save, problem, busy } = useSave(form.setError, (field) => {
    const shown = plain.find(({ path }) => field === path || field.startsWith(`${path}.`));
    return shown ? `f.${flatKey(shown.path)}` : null;
  });
  const watched = useWatch({ control: form.control }) as { f?: FormText };

  const fields = withQuantity(quantityFrom && (watched.f?.[quantityFrom.field] ?? firstQuantity));

  const saveAt = async (at: number | undefined, f: FormText) => {
    const read = bodyFrom(fields, unflat(f), unitSet, fixed);
    if (!read.ok) return showErrors(read.errors);
    const parsed = schema.safeParse(read.body);
    if (!parsed.success) {
      return showErrors(
        Object.fromEntries(
          parsed.error.issues.map(({ path, message }) => [nearest(path.join('.')), message]),
        ),
      );
    }
    const stored = await save<{ id: string }>(
      method,
      url,
      wrap ? wrap(parsed.data) : at === undefined ? parsed.data : { version: at, body: parsed.data },
    );
    if (stored) onSaved(stored);
  };
  const submit = form.handleSubmit(({ f }) => saveAt(version, f));
  const theirs = problem?.code === 'conflict' ? (problem.current as Stored<unknown>) : null;

  /** An error deep in a list is shown at the list's field. */
  const nearest = (path: string) =>
    fields.find((field) => path === field.path || path.startsWith(`${field.path}.`))?.path ?? path;

  function showErrors(errors: Record<string, string>) {
    Object.entries(errors).forEach(([path, message], i) =>
      form.setError(`f.${flatKey(path)}`, { message }, { shouldFocus: i === 0 }),
    );
  }

  useKeys([{ key: 'F8', label: saveLabel, run: () => void submit(), inFields: true }]);
  const groups = [...new Set(fields.map(({ group }) => group))];
  return (
    <Box component="form" onSubmit={submit} noValidate>
      <Box component="fieldset" disabled={!alive} sx={{ border: 0, p: 0, m: 0, minInlineSize: 0 }}>
        {groups.map((group) => {
          const body = (
            <Box
              sx={{
                display: 'grid',
                gridTemplateColumns: { xs: '1fr', sm: `repeat(${columns}, minmax(0, 1fr))` },
                gap: 2,
                mb: 3,
                pt: 1,
              }}
            >
              {fields
                .filter((field) => field.group === group)
                .filter((field) => visible(field, fields, watched.f ?? {}))
                .map((field) => (
                  <Controller
                    key={field.path}
                    name={`f.${flatKey(field.path)}`}
                    control={form.control}
                    render={({ field: input, fieldState }) => (
                      <FieldInput
                        field={field}
                        input={input}
                        error={fieldState.error?.message}
                        long={longFields?.includes(field.path) ?? false}
                        secret={secretFields?.includes(field.path) ?? false}
                        first={field === fields[0]}
                        unit={field.quantity ? unitFor(field.quantity, unitSet).symbol : ''}
                      />
                    )}
                  />
                ))}
            </Box>
          );
          return group === '' ? (
            <Box key="first">{body}</Box>
          ) : (
            <Part key={group} title={group}>
              {body}
            </Part>
          );
        })}
        {props.extra}
        {theirs && (
          <Conflict
            fields={fields}
            theirs={textOf(fields, shownBody(theirs.body), unitSet)}
            mine={unflat(watched.f ?? {})}
            onSave={() => void saveAt(theirs.version, form.getValues().f)}
          />
        )}
        <Box role="alert" sx={{ color: 'error.main', fontWeight: 600, '&:not(:empty)': { mb: 2 } }}>
          {problem?.title ??
            (Object.keys(form.formState.errors).length > 0
              ? 'Some fields need another look; nothing is lost.'
              : '')}
        </Box>
        <Button type="submit" variant="contained" size="large" disabled={busy} sx={{ gap: 1 }}>
          {busy ? 'Saving…' : saveLabel} {!inDialog && <Key name="F8" />}
        </Button>
        {props.beside}
      </Box>
    </Box>
  );
}

/** Whether the page has come alive: what is typed into a form before that would be thrown away. */
const useAlive = () =>
  useSyncExternalStore(
    () => () => {},
    () => true,
    () => false,
  );

interface ConflictProps {
  readonly fields: readonly SchemaField[];
  readonly theirs: FormText;
  readonly mine: FormText;
  readonly onSave: () => void;
}

/** What the other screen saved beside what stands here, field by field, where they differ. */
function Conflict({ fields, theirs, mine, onSave }: ConflictProps) {
  const differing = fields.filter(({ path }) => (theirs[path] ?? '') !== (mine[path] ?? ''));
  return (
    <Box sx={{ border: 2, borderColor: 'warning.main', p: 1.5, mb: 2 }}>
      {differing.map(({ path, title }) => (
        <Box key={path} sx={{ overflowWrap: 'anywhere' }}>
          <b>{title}</b>: saved on the other screen <q>{theirs[path]}</q>, here <q>{mine[path]}</q>
        </Box>
      ))}
      <Button variant="outlined" onClick={onSave} sx={{ mt: 1 }}>
        Save mine over it
      </Button>
    </Box>
  );
}

interface FieldInputProps {
  readonly field: SchemaField;
  readonly input: {
    name: string;
    value: string;
    onChange: (value: unknown) => void;
    onBlur: () => void;
    ref: React.Ref<HTMLInputElement>;
  };
  readonly error: string | undefined;
  readonly long: boolean;
  readonly secret: boolean;
  /** The form begins here. */
  readonly first: boolean;
  readonly unit: string;
}

function FieldInput({ field, input, error, long, secret, first, unit }: FieldInputProps) {
  if (field.kind === 'switch') {
    return (
      <FormControlLabel
        sx={{ gridColumn: '1 / -1' }}
        control={
          <Checkbox
            checked={input.value === 'yes'}
            onChange={(event) => input.onChange(event.target.checked ? 'yes' : '')}
          />
        }
        label={field.title}
      />
    );
  }
  if (field.kind === 'flag') {
    return (
      <FormControlLabel
        control={
          <Checkbox
            checked={input.value === 'yes'}
            onChange={(event) => input.onChange(event.target.checked ? 'yes' : '')}
          />
        }
        label={field.title}
      />
    );
  }
  const { ref, ...rest } = input;
  if (field.kind === 'picture')
    return <PictureField label={field.title} value={input.value} onChange={input.onChange} error={error} />;
  if (field.kind === 'key') {
    return (
      <TextField
        {...rest}
        inputRef={ref}
        label={field.title}
        error={Boolean(error)}
        helperText={error ?? 'Put the cursor here and press the key once'}
        slotProps={{ htmlInput: { readOnly: true } }}
        onKeyDown={(event) => {
          if (event.key === 'Tab' || event.key === 'Shift') return;
          event.preventDefault();
          event.stopPropagation();
          input.onChange(event.key);
        }}
      />
    );
  }
  if (field.kind === 'date') {
    return (
      <DateField
        name={input.name}
        value={input.value ?? ''}
        onChange={input.onChange}
        onBlur={input.onBlur}
        inputRef={ref}
        autoFocus={first}
        label={field.title}
        error={error}
      />
    );
  }
  const label = unit ? `${field.title}, ${unit}` : field.title;
  const hint = field.kind === 'quantities' ? 'Rising, separated by semicolons' : undefined;
  return (
    <TextField
      {...rest}
      value={input.value ?? ''}
      inputRef={ref}
      autoFocus={first}
      label={label}
      error={Boolean(error)}
      helperText={error ?? hint}
      select={field.kind === 'choice'}
      type={secret ? 'password' : undefined}
      multiline={long}
      minRows={long ? 3 : undefined}
      sx={long ? { gridColumn: '1 / -1' } : undefined}
    >
      {field.choices?.map(({ value, label: name }) => (
        <MenuItem key={value} value={value}>
          {name}
        </MenuItem>
      ))}
    </TextField>
  );
}

/** The form library reads dots as nesting; the body's own paths stay whole. */
const flatKey = (path: string) => path.replaceAll('.', '/');
const flat = (text: FormText): FormText =>
  Object.fromEntries(Object.entries(text).map(([path, value]) => [flatKey(path), value]));
const unflat = (text: FormText): FormText =>
  Object.fromEntries(Object.entries(text).map(([key, value]) => [key.replaceAll('/', '.'), value]));

/** Fields inside something that is not fitted are not shown. */
const visible = (field: SchemaField, fields: readonly SchemaField[], text: FormText) =>
  !fields.some(
    (other) =>
      other.kind === 'switch' &&
      field.path.startsWith(`${other.path}.`) &&
      text[flatKey(other.path)] !== 'yes',
  );
