'use client';

import { Alert, Box, Button, Snackbar } from '@mui/material';
import { useRouter } from 'next/navigation';
import { useState, type ReactNode } from 'react';
import { FAMILIES } from '@/core/families/registry';
import { FLUIDS } from '@/core/fluid/kinds';
import { CAUTIONS } from '@/core/procedure/cautions';
import type { Fault } from '@/core/twin/family';
import { FINDING_KINDS, PROVENANCES, WORK_DONE, type JobEntry } from '@/core/records/entries';
import { BLEEDING_ORDERS } from '@/core/records/installation';
import type { JobRecord, Noted } from '@/core/records/job-record';
import type { Retest } from '@/core/records/staleness';
import type { StoredJob } from '@/core/records/views';
import { call, type Problem } from '../api';
import { Key, useKeys } from '../keys';
import { LinkButton } from '../link-button';
import { Page } from '../page';
import { SCHEMATICS } from '../schematics/registry';
import { day } from '../stamp';
import { CompareLinks } from './compare-links';
import { JobDialog, type DialogKind } from './job-dialogs';
import { Mark } from './mark';
import { VisitPart, type Visit } from './visit';

export interface JobSheetProps {
  readonly job: StoredJob;
  readonly record: Omit<JobRecord, 'runs'>;
  readonly visits: readonly Visit[];
  readonly retest: Retest | null;
  readonly technicians: readonly { id: string; name: string }[];
}

/** The unit's own continuous tape through its visits: what was found, tested, done and signed, in order. */
export function JobSheet({ job, record, visits, retest, technicians }: JobSheetProps) {
  const router = useRouter();
  const [problem, setProblem] = useState<Problem | null>(null);
  const [dialog, setDialog] = useState<DialogKind | null>(null);
  const [undo, setUndo] = useState<{ words: string; entry: JobEntry } | null>(null);
  const family = FAMILIES[job.body.kind];
  const open = visits.find(({ run }) => !run.finishedAt);
  const post = async (path: string, body: unknown) => {
    const answer = await call<{ id: string }>('POST', `/jobs/${job.id}/${path}`, body);
    setProblem(answer.ok ? null : answer.problem);
    return answer.ok ? answer.value : null;
  };
  const write = async (entry: JobEntry, back?: { words: string; entry: JobEntry }) => {
    if (!(await post('entries', { id: crypto.randomUUID(), entry }))) return;
    setUndo(back ?? null);
    router.refresh();
  };
  const start = async (path: 'runs' | 'retests') => {
    const run = await post(path, {});
    if (run) router.push(`/runs/${run.id}`);
  };
  const go = () => {
    if (open) router.push(`/runs/${open.run.id}`);
    else void start(retest ? 'retests' : 'runs');
  };
  const locked = record.signed || record.deleted;
  const goLabel = open
    ? 'Go on with the test'
    : retest
      ? 'Start the re-test'
      : visits.length > 0
        ? 'Test it again'
        : 'Start the bench test';
  useKeys([
    ...(locked
      ? []
      : [
          { key: 'Enter', label: goLabel, run: go },
          { key: 'e', label: 'Change what was taken in', run: () => router.push(`/jobs/${job.id}/edit`) },
          { key: 'f', label: 'Write down a finding', run: () => setDialog('finding') },
          { key: 'w', label: 'Write down work on a part or line', run: () => setDialog('work') },
          { key: 'i', label: 'Add a photo', run: () => setDialog('photo') },
          { key: 'g', label: 'Sign the job', run: () => setDialog('sign') },
        ]),
    ...(record.signed ? [{ key: 'c', label: 'Add a correction', run: () => setDialog('correct') }] : []),
  ]);
  const takeBack = (noted: Noted<unknown>, what: string): ReactNode =>
    !locked && (
      <Button
        size="small"
        onClick={() =>
          void write(
            { type: noted.withdrawn ? 'put-back' : 'withdrawn', entry: noted.id },
            noted.withdrawn
              ? undefined
              : { words: `${what} taken back`, entry: { type: 'put-back', entry: noted.id } },
          )
        }
      >
        {noted.withdrawn ? 'Put back' : 'Take back'}
      </Button>
    );
  const pointName = (id: string | null) =>
    [...family.leakPoints, ...family.ports].find((one) => one.id === id)?.name ?? null;
  const { body } = job;

  const marks: { at: string; node: ReactNode }[] = [
    ...record.findings.map((finding) => ({
      at: finding.at,
      node: (
        <Mark
          key={finding.id}
          when={finding.at}
          title={[FINDING_KINDS[finding.what.kind], pointName(finding.what.point)].filter(Boolean).join(', ')}
          struck={finding.withdrawn}
          actions={takeBack(finding, 'Finding')}
        >
          {finding.what.words}
          {finding.what.fault && (
            <FaultLine fault={family.faults.find(({ id }) => id === finding.what.fault)} />
          )}
        </Mark>
      ),
    })),
    ...record.work.map((work) => ({
      at: work.at,
      node: (
        <Mark
          key={work.id}
          when={work.at}
          title={`${family.parts.find(({ id }) => id === work.what.part)?.name ?? work.what.part}: ${WORK_DONE[work.what.did].toLowerCase()}`}
          struck={work.withdrawn}
          actions={takeBack(work, 'Work')}
        >
          {[
            work.what.provenance && PROVENANCES[work.what.provenance],
            work.what.serial && `serial or batch ${work.what.serial}`,
            work.what.reason,
          ]
            .filter(Boolean)
            .join(' · ')}
        </Mark>
      ),
    })),
    ...record.photos.map((photo) => ({
      at: photo.at,
      node: (
        <Mark
          key={photo.id}
          when={photo.at}
          title={`Photo${photo.what.point ? `, ${pointName(photo.what.point) ?? photo.what.point}` : ''}`}
          struck={photo.withdrawn}
          actions={takeBack(photo, 'Photo')}
        >
          <Box
            component="img"
            src={`/api/v1/photos/${photo.what.sha256}`}
            alt={photo.what.caption || 'Photo of the unit'}
            loading="lazy"
            sx={{
              maxWidth: 260,
              maxHeight: 200,
              display: 'block',
              my: 0.5,
              opacity: photo.withdrawn ? 0.4 : 1,
            }}
          />
          {photo.what.caption}
        </Mark>
      ),
    })),
    ...visits.map((visit, i) => ({
      at: visit.run.startedAt,
      node: (
        <VisitPart
          key={visit.run.id}
          visit={visit}
          stale={retest && i === visits.length - 1 ? retest.steps : []}
        />
      ),
    })),
    ...record.signatures.map((signature) => ({
      at: signature.at,
      node: (
        <Mark key={signature.id} when={signature.at} title={`Signed by ${signature.technician}`}>
          Seal of the {signature.place - 1} entries above:{' '}
          <Box component="code" sx={{ overflowWrap: 'anywhere' }}>
            {signature.head.slice(0, 16)}
          </Box>
        </Mark>
      ),
    })),
    ...record.corrections.map((correction) => ({
      at: correction.at,
      node: (
        <Mark key={correction.id} when={correction.at} title={`Correction by ${correction.what.technician}`}>
          {correction.what.words}
        </Mark>
      ),
    })),
    ...record.reopenings.map((reopening) => ({
      at: reopening.at,
      node: (
        <Mark key={reopening.id} when={reopening.at} title="Opened again">
          {reopening.reason}
        </Mark>
      ),
    })),
  ].sort((a, b) => a.at.localeCompare(b.at));

  const found = record.findings.filter(({ withdrawn, what }) => !withdrawn && what.point);
  const Drawing = SCHEMATICS[job.body.kind];
  return (
    <Page
      title={`${body.tag} · ${job.profileName}`}
      actions={
        locked ? undefined : (
          <>
            <LinkButton href={`/jobs/${job.id}/edit`} sx={{ gap: 0.8 }}>
              Change <Key name="e" />
            </LinkButton>
            <Button variant="contained" size="large" onClick={go} sx={{ gap: 1 }}>
              {goLabel} <Key name="Enter" />
            </Button>
          </>
        )
      }
    >
      <Box role="alert" sx={{ color: 'error.main', fontWeight: 600 }}>
        {problem?.title}
      </Box>
      {retest && !open && !locked && <StaleNotice retest={retest} onFull={() => void start('runs')} />}
      <Box sx={{ display: 'grid', gridTemplateColumns: { xs: '1fr', md: 'minmax(0, 1fr) 380px' }, gap: 4 }}>
        <Box sx={{ borderLeft: 3, borderColor: 'text.primary', pl: 2.5 }}>
          <Mark when={job.createdAt} title="Taken in">
            {body.from && <Box>From {body.from}</Box>}
            <Box
              component="blockquote"
              sx={{ m: 0, my: 0.75, fontSize: '1.1rem', whiteSpace: 'pre-wrap', overflowWrap: 'anywhere' }}
            >
              {body.complaint ? `“${body.complaint}”` : 'No complaint written down.'}
            </Box>
            <Box sx={{ color: 'text.secondary' }}>
              Fluid found: {body.fluid === 'unknown' ? 'not known' : FLUIDS[body.fluid]}
              {body.promisedOn && ` · promised for ${body.promisedOn}`}
            </Box>
          </Mark>
          {marks.map(({ node }) => node)}
          {visits.length === 0 && <Box sx={{ color: 'text.secondary', py: 2 }}>Not tested yet.</Box>}
        </Box>
        <Box
          component="aside"
          aria-label="What can be added"
          sx={{ display: 'grid', gap: 2, alignContent: 'start' }}
        >
          <Box sx={{ height: 210 }}>
            <Drawing
              lit={null}
              marks={Object.fromEntries(found.map(({ what }) => [what.point!, 'bad' as const]))}
            />
          </Box>
          <PointPhotos record={record} nameOf={pointName} />
          {!locked && (
            <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr', gap: 1 }}>
              <AddButton label="Finding" name="f" onClick={() => setDialog('finding')} />
              <AddButton label="Part or line" name="w" onClick={() => setDialog('work')} />
              <AddButton label="Photo" name="i" onClick={() => setDialog('photo')} />
              <AddButton label="Sign" name="g" onClick={() => setDialog('sign')} />
            </Box>
          )}
          {record.signed && (
            <Box sx={{ border: 1, borderColor: 'divider', p: 1.5 }}>
              <b>Signed by {record.signatures.at(-1)!.technician}</b> on {day(record.signatures.at(-1)!.at)}.
              Nothing above can be changed; a correction is added below it.
              <Box sx={{ display: 'flex', gap: 1, mt: 1 }}>
                <Button variant="outlined" onClick={() => setDialog('correct')} sx={{ gap: 0.8 }}>
                  Correct <Key name="c" />
                </Button>
                <Button onClick={() => setDialog('reopen')}>Open again</Button>
              </Box>
            </Box>
          )}
          <CompareLinks job={job} visits={visits} />
          <Box sx={{ display: 'grid', justifyItems: 'start' }}>
            <LinkButton href={`/jobs/${job.id}/installation`}>
              Installation sheet
              {record.fitting
                ? `: ${BLEEDING_ORDERS[record.fitting.bleeding].title.split(',')[0]!.toLowerCase()}`
                : ''}
            </LinkButton>
            <Button component="a" href={`/api/v1/jobs/${job.id}/file`} download>
              Job file for another shop
            </Button>
            {!record.deleted && (
              <Button
                onClick={() =>
                  void write(
                    { type: 'archived', archived: !record.archived },
                    record.archived
                      ? undefined
                      : { words: 'Archived', entry: { type: 'archived', archived: false } },
                  )
                }
              >
                {record.archived ? 'Take out of the archive' : 'Archive'}
              </Button>
            )}
            <Button
              color={record.deleted ? 'primary' : 'error'}
              onClick={() =>
                void write(
                  { type: 'deleted', deleted: !record.deleted },
                  record.deleted
                    ? undefined
                    : { words: 'Deleted', entry: { type: 'deleted', deleted: false } },
                )
              }
            >
              {record.deleted ? 'Put this job back' : 'Delete'}
            </Button>
          </Box>
        </Box>
      </Box>
      {dialog && (
        <JobDialog
          kind={dialog}
          job={job}
          technicians={technicians}
          onClose={() => setDialog(null)}
          onSaved={() => {
            setDialog(null);
            router.refresh();
          }}
        />
      )}
      <Snackbar
        open={undo !== null}
        autoHideDuration={12_000}
        onClose={(_, why) => why === 'timeout' && setUndo(null)}
      >
        <Alert
          severity="info"
          variant="filled"
          action={
            <Button color="inherit" onClick={() => undo && void write(undo.entry)}>
              Undo
            </Button>
          }
        >
          {undo?.words}
        </Alert>
      </Snackbar>
    </Page>
  );
}

/** A finding's likely cause: what a customer is told, what confirms it, what mends it, and what to beware of. */
function FaultLine({ fault }: { fault: Fault | undefined }) {
  if (!fault) return null;
  return (
    <Box sx={{ color: 'text.secondary', mt: 0.5 }}>
      <Box sx={{ color: 'text.primary' }}>Points to: {fault.name}</Box>
      <Box>{fault.confirm}</Box>
      <Box>Repair: {fault.repair}</Box>
      {fault.cautions.map((id) => (
        <Box key={id} sx={{ color: 'warning.dark' }}>
          {CAUTIONS[id].hazard} {CAUTIONS[id].action}
        </Box>
      ))}
    </Box>
  );
}

function StaleNotice({ retest, onFull }: { retest: Retest; onFull: () => void }) {
  return (
    <Box sx={{ border: 2, borderColor: 'warning.main', p: 1.5, mb: 2.5 }} role="status">
      <b>Since the last test: {retest.why}.</b> Readings that this can have moved are stale and no longer
      count.
      <Box>Test again: {retest.titles.join(' · ')}.</Box>
      <Box sx={{ color: 'text.secondary' }}>
        {retest.readings} readings and {retest.looks} looks; {Math.ceil(retest.waiting_s / 60)} min of it is
        waiting.
        {retest.rezero && ' The gauges are read vented again.'} The other readings are carried over.
      </Box>
      <Button onClick={onFull}>Test it again in full instead</Button>
    </Box>
  );
}

const AddButton = ({ label, name, onClick }: { label: string; name: string; onClick: () => void }) => (
  <Button variant="outlined" onClick={onClick} sx={{ gap: 0.8 }}>
    {label} <Key name={name} />
  </Button>
);

/** Photos under the point of the drawing that they show. */
function PointPhotos({
  record,
  nameOf,
}: {
  record: Pick<JobRecord, 'photos'>;
  nameOf: (point: string | null) => string | null;
}) {
  const shown = record.photos.filter(({ withdrawn }) => !withdrawn);
  const points = [...new Set(shown.map(({ what }) => what.point))];
  return points.map((point) => (
    <Box key={point ?? ''}>
      <Box sx={{ fontWeight: 650 }}>{nameOf(point) ?? 'The unit as a whole'}</Box>
      <Box sx={{ display: 'flex', gap: 1, flexWrap: 'wrap' }}>
        {shown
          .filter(({ what }) => what.point === point)
          .map(({ id, what }) => (
            <a key={id} href={`/api/v1/photos/${what.sha256}`} target="_blank" rel="noreferrer">
              <Box
                component="img"
                src={`/api/v1/photos/${what.sha256}`}
                alt={what.caption || `Photo: ${nameOf(point) ?? 'the unit'}`}
                sx={{ height: 84, display: 'block' }}
              />
            </a>
          ))}
      </Box>
    </Box>
  ));
}
