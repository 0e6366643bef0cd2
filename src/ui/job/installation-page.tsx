'use client';

import { Box, Button } from '@mui/material';
import { useRouter } from 'next/navigation';
import { useMemo, useState } from 'react';
import { fittingSchema } from '@/core/records/entries';
import { FAMILIES } from '@/core/families/registry';
import { FLUIDS } from '@/core/fluid/kinds';
import { BLEEDING_ORDERS } from '@/core/records/installation';
import { installationDocument } from '@/core/documents/installation-document';
import type { JobRecord } from '@/core/records/job-record';
import { DocumentView } from '../document-view';
import { Key, useKeys } from '../keys';
import { LinkButton } from '../link-button';
import { Paper } from '../report';
import { useSettings } from '../settings-context';
import { day, time } from '../stamp';
import { EntryDialog } from './entry-dialog';

const byCircuit = fittingSchema.omit({ bleeding: true });
const bySchool = fittingSchema.extend({ bleeding: fittingSchema.shape.bleeding.unwrap() });

/** The sheet for whoever fits the unit: what to do first, in which order to bleed, and what is in it. */
export function InstallationPage({ record }: { record: JobRecord }) {
  const router = useRouter();
  const shop = useSettings();
  const { unitSet } = shop;
  const [choosing, setChoosing] = useState(false);
  const [id] = useState(() => crypto.randomUUID());
  const document = useMemo(
    () => installationDocument(record, { set: unitSet, shop, day, time }),
    [record, unitSet, shop],
  );
  const locked = record.signed || record.deleted;
  const { fluid: fluidOf, fullPower } = FAMILIES[record.profile.kind];
  // Brakes that stored pressure goes into itself are bled circuit by circuit: there is nothing to choose.
  const confirmed = fullPower ? 'fluid' : 'fluid and bleeding order';
  useKeys([
    { key: 'p', label: 'Print the sheet', run: () => window.print() },
    ...(locked ? [] : [{ key: 'f', label: `Confirm the ${confirmed}`, run: () => setChoosing(true) }]),
  ]);
  const named = fluidOf(record.profile.body);
  const { fluid } = record.job;
  return (
    <Paper>
      <Box className="no-print" sx={{ display: 'flex', gap: 1, mb: 2, flexWrap: 'wrap' }}>
        <LinkButton href={`/jobs/${record.id}`}>Back to the job</LinkButton>
        <Box sx={{ flex: 1 }} />
        {!locked && (
          <Button variant="outlined" onClick={() => setChoosing(true)} sx={{ gap: 1 }}>
            Confirm {confirmed} <Key name="f" />
          </Button>
        )}
        <Button component="a" href={`/api/v1/jobs/${record.id}/installation.pdf`} variant="outlined">
          PDF
        </Button>
        <Button variant="contained" onClick={() => window.print()} sx={{ gap: 1 }}>
          Print <Key name="p" />
        </Button>
      </Box>
      <DocumentView document={document} label="Installation sheet" />
      {choosing && (
        <EntryDialog
          title={fullPower ? 'What is in the unit' : 'What is in the unit, and how it is bled'}
          schema={fullPower ? byCircuit : bySchool}
          initial={record.fitting ?? { ...(fullPower ? {} : { bleeding: 'wheels-first' }), fluid: '' }}
          choices={{
            bleeding: Object.entries(BLEEDING_ORDERS).map(([value, { title }]) => ({ value, label: title })),
          }}
          saveLabel="Confirm"
          url={`/jobs/${record.id}/entries`}
          wrap={(fitting) => ({ id, entry: { type: 'fitting', fitting: { bleeding: null, ...fitting } } })}
          intro={
            <Box sx={{ mb: 2 }}>
              The profile names {named ? FLUIDS[named] : 'no fluid'}
              {fluid !== 'unknown' && `; found in the unit when it came in: ${FLUIDS[fluid]}`}. Look at the
              bench’s own supply before confirming.
            </Box>
          }
          onClose={() => setChoosing(false)}
          onSaved={() => {
            setChoosing(false);
            router.refresh();
          }}
        />
      )}
    </Paper>
  );
}
