'use client';

import { useRouter } from 'next/navigation';
import { useMemo } from 'react';
import { z } from 'zod';
import { FLUID_KINDS, FLUIDS } from '@/core/fluid/kinds';
import { ACCURACY_CHOICES, accuracyFrom, accuracyLabel } from '@/core/metrology/accuracy';
import { correctionSchema } from '@/core/metrology/correction';
import {
  INSTRUMENT_QUANTITIES,
  instrumentFields,
  instrumentSchema,
  type Instrument,
} from '@/core/metrology/instrument';
import { QUANTITY_NAMES } from '@/core/quantities/names';
import { SchemaForm } from './forms/schema-form';

interface InstrumentFormProps {
  readonly initial: Partial<Instrument>;
  readonly id?: string;
  readonly version?: number;
  readonly ports: readonly { value: string; label: string }[];
  readonly tags: readonly string[];
}

/** The accuracy stands in one field of the form, as on the gauge's face; the record keeps its parts. */
const formSchema = z
  .strictObject({
    ...instrumentFields,
    accuracy: z.string().meta({ title: 'Accuracy' }),
    correction: correctionSchema.nullable(),
  })
  .transform((form, ctx) => {
    const accuracy = accuracyFrom(form.accuracy);
    if (!accuracy) ctx.addIssue({ code: 'custom', path: ['accuracy'], message: 'Accuracy: choose one.' });
    return { ...form, accuracy };
  })
  .pipe(instrumentSchema);

/** A gauge or transducer. */
export function InstrumentForm({ initial, id, version, ports, tags }: InstrumentFormProps) {
  const router = useRouter();
  const choices = useMemo(
    () => ({
      accuracy: ACCURACY_CHOICES.map((accuracy) => ({
        value: accuracyLabel(accuracy),
        label: accuracyLabel(accuracy),
      })),
      quantity: INSTRUMENT_QUANTITIES.map((value) => ({ value, label: QUANTITY_NAMES[value] })),
      fluid: [
        { value: '', label: 'Dry, or not known' },
        ...FLUID_KINDS.map((kind) => ({ value: kind, label: FLUIDS[kind] })),
      ],
      usualPort: [{ value: '', label: 'In the cupboard' }, ...ports],
      tiedTo: [{ value: '', label: 'Not tied' }, ...tags.map((tag) => ({ value: tag, label: tag }))],
    }),
    [ports, tags],
  );
  return (
    <SchemaForm
      schema={formSchema}
      formShape={z.strictObject({ ...instrumentFields, accuracy: z.string().meta({ title: 'Accuracy' }) })}
      initial={asShown(initial)}
      fixed={{ correction: initial.correction ?? null }}
      asShown={(body) => asShown(body as Instrument)}
      method={id ? 'PUT' : 'POST'}
      url={id ? `/instruments/${id}` : '/instruments'}
      version={version}
      saveLabel="Save the instrument"
      choices={choices}
      quantityFrom={SCALE_QUANTITY}
      onSaved={() => {
        router.push('/shelf');
        router.refresh();
      }}
    />
  );
}

const asShown = (body: Partial<Instrument>) => ({
  ...body,
  accuracy: body.accuracy ? accuracyLabel(body.accuracy) : '',
});

/** A scale is typed in units of what the instrument reads. */
const SCALE_QUANTITY = { field: 'quantity', of: ['fullScale_Pa', 'lowEnd_Pa', 'step_Pa'] };
