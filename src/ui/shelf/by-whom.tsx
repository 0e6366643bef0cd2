'use client';

import { z } from 'zod';
import { EntryDialog } from '../job/entry-dialog';

interface Technician {
  readonly id: string;
  readonly name: string;
}

/** Technicians as choices. */
export const asChoices = (technicians: readonly Technician[]) =>
  technicians.map(({ id, name }) => ({ value: id, label: name }));

/** Who changes the list of technicians, with their own PIN. */
export const byFields = {
  technician: z.string().min(1, 'By whom: choose one.').meta({ title: 'By whom' }),
  byPin: z.string().min(1, 'Their PIN: type it.').meta({ title: 'Their PIN' }),
};

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
export const ByWhom = ({ technicians, ...rest }: ByWhomProps) => (
  <EntryDialog
    {...rest}
    schema={z.strictObject(byFields)}
    initial={{ technician: technicians.length === 1 ? technicians[0]!.id : '', byPin: '' }}
    choices={{ technician: asChoices(technicians) }}
    secretFields={['byPin']}
    wrap={({ technician, byPin }) => ({ by: { technician, pin: byPin } })}
  />
);
