'use client';

import { Box } from '@mui/material';
import { useMemo, useState } from 'react';
import { z } from 'zod';
import { FAMILIES } from '@/core/families/registry';
import { workCautions } from '@/core/families/work-cautions';
import { findingSchema, identitySchema, workSchema } from '@/core/records/entries';
import type { JobRecord } from '@/core/records/job-record';
import type { StoredJob } from '@/core/records/views';
import { CautionList } from '../run/caution-list';
import { CodesDialog } from './codes-dialog';
import { EntryDialog } from './entry-dialog';
import { HomeDialog } from './home-dialog';
import { PhotoDialog } from './photo-dialog';

export type DialogKind =
  'finding' | 'work' | 'identity' | 'codes' | 'home' | 'photo' | 'sign' | 'correct' | 'reopen';

interface JobDialogProps {
  readonly kind: DialogKind;
  readonly job: StoredJob;
  readonly record: Pick<JobRecord, 'photos' | 'codes' | 'profile'>;
  readonly technicians: readonly { id: string; name: string }[];
  /** What a signature would leave open. */
  readonly unconfirmed: readonly string[];
  readonly onClose: () => void;
  readonly onSaved: () => void;
}

const named = (list: readonly { id: string; name: string }[]) =>
  list.map(({ id, name }) => ({ value: id, label: name }));

/** Photos of a job as choices: by their words, else by what they show. */
const photosOf = (
  { photos }: Pick<JobRecord, 'photos'>,
  points: readonly { value: string; label: string }[],
) => [
  { value: '', label: 'None yet' },
  ...photos
    .filter(({ withdrawn }) => !withdrawn)
    .map(({ id, what }, i) => ({
      value: id,
      label: `${i + 1}: ${what.caption || points.find(({ value }) => value === what.point)?.label || 'the unit as a whole'}`,
    })),
];

const pin = z.string().min(1, 'PIN: type it.').meta({ title: 'PIN' });
const technician = z.string().min(1, 'Technician: choose one.').meta({ title: 'Technician' });
const signFields = z.strictObject({ technician, pin });
const correctFields = z.strictObject({
  words: z
    .string()
    .trim()
    .min(1, 'Correction: write what is to be said.')
    .max(20_000)
    .meta({ title: 'Correction' }),
  technician,
  pin,
});
const reopenFields = z.strictObject({
  reason: z.string().trim().min(1, 'Reason: write a few words.').max(20_000).meta({ title: 'Reason' }),
});

/** The forms in which something is written into a job's record. */
export function JobDialog({ kind, job, record, technicians, unconfirmed, onClose, onSaved }: JobDialogProps) {
  const family = FAMILIES[job.body.kind];
  // Made once for the dialog: sent twice, an entry is recorded once.
  const [id] = useState(() => crypto.randomUUID());
  const points = useMemo(() => named([...family.leakPoints, ...family.ports]), [family]);
  const choices = useMemo(
    () => ({
      point: [{ value: '', label: 'The unit as a whole' }, ...points],
      fault: [{ value: '', label: 'Not known yet' }, ...named(family.faults)],
      part: named(family.parts),
      technician: named(technicians),
    }),
    [family, points, technicians],
  );
  const common = { choices, onClose, onSaved };
  const entries = `/jobs/${job.id}/entries`;
  switch (kind) {
    case 'finding':
      return (
        <EntryDialog
          {...common}
          title="Finding"
          schema={findingSchema}
          initial={{ kind: 'seep', point: null, words: '', fault: null }}
          longFields={['words']}
          saveLabel="Write it down"
          url={entries}
          wrap={(finding) => ({ id, entry: { type: 'finding', finding } })}
        />
      );
    case 'work':
      return (
        <EntryDialog
          {...common}
          title="Part or line"
          schema={workSchema}
          initial={{ part: '', did: 'replaced', reason: '', provenance: 'new', serial: '' }}
          longFields={['reason']}
          saveLabel="Write it down"
          url={entries}
          wrap={(work) => ({ id, entry: { type: 'work', work } })}
          intro={
            <Box sx={{ mb: 2 }}>
              <CautionList ids={workCautions(job.body.kind)} />
            </Box>
          }
        />
      );
    case 'identity':
      return (
        <EntryDialog
          {...common}
          title="Said to be, found to be"
          schema={identitySchema}
          choices={{
            part: [{ value: '', label: 'The unit as a whole' }, ...named(family.parts)],
            photo: photosOf(record, points),
          }}
          initial={{ part: null, claimed: '', found: '', decision: '', decidedBy: '', photo: null }}
          longFields={['claimed', 'found']}
          saveLabel="Write it down"
          url={entries}
          wrap={(identity) => ({ id, entry: { type: 'identity', identity } })}
        />
      );
    case 'home':
      return <HomeDialog id={id} job={job} record={record} onClose={onClose} onSaved={onSaved} />;
    case 'codes':
      return <CodesDialog jobId={job.id} record={record} onClose={onClose} onSaved={onSaved} />;
    case 'photo':
      return <PhotoDialog jobId={job.id} points={points} onClose={onClose} onSaved={onSaved} />;
    case 'sign':
    case 'correct': {
      const nobody = technicians.length === 0 && (
        <Box sx={{ mb: 2, color: 'error.main', fontWeight: 600 }}>
          Nobody can sign yet. Add a technician with a PIN on the Shelf, under Technicians.
        </Box>
      );
      return kind === 'sign' ? (
        <EntryDialog
          {...common}
          title="Sign the job"
          schema={signFields}
          initial={{ technician: technicians[0]?.id ?? '', pin: '' }}
          secretFields={['pin']}
          saveLabel="Sign"
          url={`/jobs/${job.id}/signatures`}
          wrap={(body) => ({ id, ...body })}
          intro={
            <>
              <Box sx={{ mb: 2 }}>
                Everything written so far is sealed. It cannot be changed after that, only corrected by adding
                to it.
              </Box>
              {unconfirmed.length > 0 && (
                <Box sx={{ mb: 2, borderLeft: '5px solid', borderColor: 'warning.main', pl: 1.25 }}>
                  <b>Not confirmed yet:</b>
                  <Box component="ul" sx={{ m: 0, pl: 2.5 }}>
                    {unconfirmed.map((sentence) => (
                      <li key={sentence}>{sentence}</li>
                    ))}
                  </Box>
                </Box>
              )}
              {nobody}
            </>
          }
        />
      ) : (
        <EntryDialog
          {...common}
          title="Correction"
          schema={correctFields}
          initial={{ words: '', technician: technicians[0]?.id ?? '', pin: '' }}
          longFields={['words']}
          secretFields={['pin']}
          saveLabel="Add the correction"
          url={`/jobs/${job.id}/corrections`}
          wrap={(body) => ({ id, about: null, ...body })}
          intro={nobody}
        />
      );
    }
    case 'reopen':
      return (
        <EntryDialog
          {...common}
          title="Open the job again"
          schema={reopenFields}
          initial={{ reason: '' }}
          longFields={['reason']}
          saveLabel="Open it again"
          url={entries}
          wrap={({ reason }) => ({ id, entry: { type: 'reopened', reason } })}
          intro={
            <Box sx={{ mb: 2 }}>
              What was signed stays signed as it is. What is added now is signed again.
            </Box>
          }
        />
      );
  }
}
