'use client';

import { Alert, Box, Button, MenuItem, Snackbar, TextField } from '@mui/material';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { homeChecksOf } from '@/core/families/home-checks';
import { FAMILIES } from '@/core/families/registry';
import { FLUIDS } from '@/core/fluid/kinds';
import type { JobEntry } from '@/core/records/entries';
import { BLEEDING_ORDERS } from '@/core/records/installation';
import { byWhom, type JobRecord } from '@/core/records/job-record';
import type { Retest } from '@/core/records/staleness';
import type { TraceRecord } from '@/core/records/trace-record';
import type { Stored, StoredJob } from '@/core/records/views';
import type { FoundInJob, PreChargeHistory } from '@/core/shop/pre-charges';
import { call, type Problem } from '../api';
import { Key, useKeys } from '../keys';
import { LinkButton } from '../link-button';
import { AlteredWords } from '../altered';
import { Page } from '../page';
import { SCHEMATICS } from '../schematics/registry';
import { useSettings } from '../settings-context';
import { day } from '../stamp';
import { CompareLinks } from './compare-links';
import { JobDialog, type DialogKind } from './job-dialogs';
import { JobTape } from './job-tape';
import { Mark } from './mark';
import { PreCharges } from './pre-charges';
import type { Visit } from './visit';

export interface JobSheetProps {
  readonly job: StoredJob;
  readonly record: Omit<JobRecord, 'runs'>;
  readonly visits: readonly Visit[];
  /** Why nothing of its record is printed as tested; null where it is as it was written. */
  readonly altered: string | null;
  /** What is not known of its record. */
  readonly doubts: readonly string[];
  readonly retest: Retest | null;
  /** What a signature would leave open. */
  readonly unconfirmed: readonly string[];
  readonly technicians: readonly { id: string; name: string }[];
  /** Everything that was logged of the unit, oldest first. */
  readonly traces: readonly Stored<TraceRecord>[];
  /** The gas of the unit’s accumulators, by all its jobs. */
  readonly preCharges: readonly PreChargeHistory<FoundInJob>[];
}

/** The unit's own continuous tape through its visits: what was found, tested, done and signed, in order. */
export function JobSheet(props: JobSheetProps) {
  const { job, record, visits, retest, technicians, traces } = props;
  const router = useRouter();
  const [problem, setProblem] = useState<Problem | null>(null);
  const [dialog, setDialog] = useState<DialogKind | null>(null);
  const [undo, setUndo] = useState<{ words: string; entry: JobEntry } | null>(null);
  const { technician: usual } = useSettings();
  const [chosen, setChosen] = useState<string | null>(null);
  const technician = chosen ?? technicians.find(({ name }) => name === usual)?.id ?? '';
  const family = FAMILIES[job.body.kind];
  const onVehicle = family.setting === 'vehicle';
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
    const run = await post(technician ? `${path}?technician=${technician}` : path, {});
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
        : `Start the ${family.setting === 'bench' ? 'bench test' : 'test'}`;
  /** There is something that its customer can try. */
  const tried = homeChecksOf(job.body.kind).length > 0;
  useKeys([
    ...(locked
      ? []
      : [
          { key: 't', label: goLabel, run: go },
          { key: 'e', label: 'Change what was taken in', run: () => router.push(`/jobs/${job.id}/edit`) },
          { key: 'f', label: 'Write down a finding', run: () => setDialog('finding') },
          { key: 'w', label: 'Write down work on a part or line', run: () => setDialog('work') },
          {
            key: 'o',
            label: 'Write down what it was said to be, and what it is',
            run: () => setDialog('identity'),
          },
          ...(onVehicle
            ? [{ key: 'd', label: 'Trouble codes of the vehicle', run: () => setDialog('codes') }]
            : []),
          ...(tried ? [{ key: 'h', label: 'Home check of the customer', run: () => setDialog('home') }] : []),
          { key: 'i', label: 'Add a photo', run: () => setDialog('photo') },
          { key: 'g', label: 'Sign the job', run: () => setDialog('sign') },
        ]),
    ...(record.signed ? [{ key: 'c', label: 'Add a correction', run: () => setDialog('correct') }] : []),
  ]);
  const pointName = (id: string | null) =>
    [...family.leakPoints, ...family.ports].find((one) => one.id === id)?.name ?? null;
  const { body } = job;

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
            {!open && technicians.length > 1 && (
              <TextField
                select
                label="Tested by"
                value={technician}
                onChange={(event) => setChosen(event.target.value)}
                sx={{ width: 200 }}
              >
                {technicians.map(({ id, name }) => (
                  <MenuItem key={id} value={id}>
                    {name}
                  </MenuItem>
                ))}
              </TextField>
            )}
            <Button variant="contained" size="large" onClick={go} sx={{ gap: 1 }}>
              {goLabel} <Key name="t" />
            </Button>
          </>
        )
      }
    >
      {props.altered && <AlteredWords why={props.altered} />}
      {props.doubts.map((why) => (
        <AlteredWords key={why} why={why} />
      ))}
      <Box role="alert" sx={{ color: 'error.main', fontWeight: 600, mb: problem ? 1.5 : 0 }}>
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
          <JobTape
            record={record}
            visits={visits}
            retest={retest}
            traces={traces}
            locked={locked}
            nameOf={pointName}
            onWrite={(entry, back) => void write(entry, back)}
          />
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
          <PreCharges histories={props.preCharges} parts={family.parts} jobId={job.id} />
          {!locked && (
            <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr', gap: 1 }}>
              <AddButton label="Finding" name="f" onClick={() => setDialog('finding')} />
              <AddButton label="Part or line" name="w" onClick={() => setDialog('work')} />
              <AddButton label="Said and found" name="o" onClick={() => setDialog('identity')} />
              {onVehicle && <AddButton label="Trouble codes" name="d" onClick={() => setDialog('codes')} />}
              {tried && <AddButton label="Home check" name="h" onClick={() => setDialog('home')} />}
              <AddButton label="Photo" name="i" onClick={() => setDialog('photo')} />
              <AddButton label="Sign" name="g" onClick={() => setDialog('sign')} wide />
            </Box>
          )}
          {record.signed && (
            <Box sx={{ border: 1, borderColor: 'divider', p: 1.5 }}>
              <b>Signed {byWhom(record, record.signatures.at(-1)!)}</b> on {day(record.signatures.at(-1)!.at)}
              . Nothing above can be changed; a correction is added below it.
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
              {record.fitting?.bleeding
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
          record={record}
          technicians={technicians}
          unconfirmed={props.unconfirmed}
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

function StaleNotice({ retest, onFull }: { retest: Retest; onFull: () => void }) {
  return (
    <Box sx={{ border: 2, borderColor: 'warning.main', p: 1.5, mb: 2.5 }} role="status">
      <b>Since the last test: {retest.why}.</b> Readings that this can have moved are stale and no longer
      count.
      <Box>Test again: {retest.titles.join(' · ')}.</Box>
      <Box sx={{ color: 'text.secondary' }}>
        {retest.readings} readings and {retest.looks} looks;{' '}
        {retest.attended_s !== null &&
          `about ${Math.ceil((retest.attended_s + retest.waiting_s) / 60)} min, of which `}
        {Math.ceil(retest.waiting_s / 60)} min is waiting.
        {retest.rezero && ' The gauges are read vented again.'} The other readings are carried over.
      </Box>
      <Button onClick={onFull}>Test it again in full instead</Button>
    </Box>
  );
}

interface AddButtonProps {
  readonly label: string;
  readonly name: string;
  readonly onClick: () => void;
  /** Across both columns. */
  readonly wide?: boolean;
}

const AddButton = ({ label, name, onClick, wide = false }: AddButtonProps) => (
  <Button variant="outlined" onClick={onClick} sx={{ gap: 0.8, gridColumn: wide ? '1 / -1' : undefined }}>
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
