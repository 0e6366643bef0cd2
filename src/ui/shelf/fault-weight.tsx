'use client';

import { Box, Button, DialogContent, DialogTitle } from '@mui/material';
import { useRouter } from 'next/navigation';
import { useId } from 'react';
import type { Fault } from '@/core/contract/family';
import { weightChangeSchema, type FaultWeights } from '@/core/diagnosis/weights';
import type { FamilyKind } from '@/core/families/registry';
import { DraftDialog } from '../draft-dialog';
import { SchemaForm } from '../forms/schema-form';
import { day } from '../stamp';

/** How often a fault counts beside the others, and who has changed that. */
export function HowOften({
  fault,
  weighed: { weights, changes },
  onChange,
}: {
  fault: Fault;
  weighed: FaultWeights;
  onChange: () => void;
}) {
  const last = changes.find((one) => one.fault === fault.id);
  const now = weights[fault.id];
  return (
    <Box sx={{ display: 'flex', alignItems: 'baseline', gap: 1 }}>
      <span>
        {now === undefined
          ? `${fault.prior} beside the others, the handbook’s own`
          : `${now} here; the handbook has ${fault.prior}`}
        {last && `. ${last.by}, ${day(last.at)}: ${last.why}`}
      </span>
      <Button size="small" onClick={onChange} aria-label={`Change how often it is met: ${fault.name}`}>
        Change
      </Button>
    </Box>
  );
}

/** Changes how often a fault counts, with who says so and why; what counted before is kept below. */
export function WeightDialog({
  kind,
  fault,
  weighed: { weights, changes },
  onClose,
}: {
  kind: FamilyKind;
  fault: Fault;
  weighed: FaultWeights;
  onClose: () => void;
}) {
  const heading = useId();
  const router = useRouter();
  const before = changes.filter((one) => one.fault === fault.id);
  return (
    <DraftDialog labelledBy={heading} onClose={onClose}>
      <DialogTitle id={heading}>How often it is met: {fault.name}</DialogTitle>
      <DialogContent>
        <Box sx={{ mb: 1.5 }}>
          What it may be begins with how often each fault is met, before anything was read. The handbook has{' '}
          {fault.prior} here, a judgement. At zero it is left out.
        </Box>
        <SchemaForm
          schema={weightChangeSchema}
          initial={{ weight: weights[fault.id] ?? null, by: '', why: '' }}
          longFields={['why']}
          method="POST"
          url={`/models/${kind}/weights`}
          wrap={(body) => ({ ...(body as object), fault: fault.id })}
          columns={1}
          inDialog
          saveLabel="Change it"
          onSaved={() => {
            onClose();
            router.refresh();
          }}
        />
        <Button onClick={onClose} sx={{ mt: 1 }}>
          Leave it
        </Button>
        {before.length > 0 && (
          <Box component="ol" aria-label="Changes" sx={{ listStyle: 'none', p: 0, mt: 2 }}>
            {before.map(({ at, weight, by, why }) => (
              <li key={at}>
                {day(at)} {by}: {weight ?? 'the handbook’s own'}. {why}
              </li>
            ))}
          </Box>
        )}
      </DialogContent>
    </DraftDialog>
  );
}
