'use client';

import { z } from 'zod';
import { EntryDialog } from '../job/entry-dialog';

interface Technician {
  readonly id: string;
  readonly name: string;
}

/** Who changes the list of technicians, with their own PIN. */
export const byField = z
  .strictObject({
    technician: z.string().min(1, 'By whom: choose one.').meta({ title: 'By whom' }),
    pin: z.string().min(1, 'Their PIN: type it.').meta({ title: 'Their PIN' }),
  })
  .meta({ title: 'Who says so' });
const byFields = z.strictObject({ by: byField });

/** What such a form has at first, and its choices. */
export const byAtFirst = (technicians: readonly Technician[]) => ({
  initial: { technician: technicians.length === 1 ? technicians[0]!.id : '', pin: '' },
  choices: { 'by.technician': technicians.map(({ id, name }) => ({ value: id, label: name })) },
});

interface ByWhomProps {
  readonly title: string;
  readonly saveLabel: string;
  readonly method: 'POST' | 'DELETE';
  readonly url: string;
  readonly technicians: readonly Technician[];
  readonly onClose: () => void;
  readonly onSaved: () => void;
}

/** A change of the list of technicians, which one of them has to answer for. */
export function ByWhom({ technicians, ...rest }: ByWhomProps) {
  const { initial, choices } = byAtFirst(technicians);
  return (
    <EntryDialog
      {...rest}
      schema={byFields}
      initial={{ by: initial }}
      choices={choices}
      secretFields={['by.pin']}
      wrap={(body) => body}
    />
  );
}
