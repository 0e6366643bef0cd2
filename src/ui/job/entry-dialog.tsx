'use client';

import { Button, DialogContent, DialogTitle } from '@mui/material';
import { useId, type ReactNode } from 'react';
import type { z } from 'zod';
import { DraftDialog } from '../draft-dialog';
import { SchemaForm } from '../forms/schema-form';

interface EntryDialogProps<T> {
  readonly title: string;
  readonly schema: z.ZodType<T>;
  readonly formShape?: z.ZodType;
  readonly initial: unknown;
  readonly choices?: Readonly<Record<string, readonly { value: string; label: string }[]>>;
  readonly longFields?: readonly string[];
  readonly saveLabel: string;
  readonly method?: 'POST' | 'PUT' | 'DELETE';
  readonly url: string;
  readonly wrap: (body: T) => unknown;
  readonly intro?: ReactNode;
  readonly secretFields?: readonly string[];
  readonly onClose: () => void;
  readonly onSaved: () => void;
}

/** Something to be written into a job's record, in a form of its own. */
export function EntryDialog<T>({
  title,
  intro,
  method = 'POST',
  onClose,
  onSaved,
  ...form
}: EntryDialogProps<T>) {
  const id = useId();
  return (
    <DraftDialog labelledBy={id} onClose={onClose}>
      <DialogTitle id={id}>{title}</DialogTitle>
      <DialogContent>
        {intro}
        <SchemaForm
          {...form}
          method={method}
          onSaved={onSaved}
          inDialog
          beside={<Button onClick={onClose}>Leave it</Button>}
        />
      </DialogContent>
    </DraftDialog>
  );
}
