'use client';

import { Box, Button } from '@mui/material';
import type { ReactNode } from 'react';
import { HOME_ANSWERS } from '@/core/contract/home-check';
import { homeChecksOf } from '@/core/families/home-checks';
import { FAMILIES } from '@/core/families/registry';
import { CAUTIONS } from '@/core/contract/cautions';
import { DECISIONS, FINDING_KINDS, WORK_DONE, PROVENANCES, type JobEntry } from '@/core/records/entries';
import { byWhom, type JobRecord, type Noted } from '@/core/records/job-record';
import type { Identity } from '@/core/records/entries';
import type { Retest } from '@/core/records/staleness';
import { partName } from '@/core/records/part-name';
import type { TraceRecord } from '@/core/records/trace-record';
import type { Stored } from '@/core/records/views';
import type { Fault } from '@/core/contract/family';
import { CodesFound } from './codes-dialog';
import { Mark } from './mark';
import { TraceLinks } from './trace-links';
import { VisitPart, type Visit } from './visit';

interface JobTapeProps {
  readonly record: Omit<JobRecord, 'runs'>;
  readonly visits: readonly Visit[];
  readonly retest: Retest | null;
  readonly traces: readonly Stored<TraceRecord>[];
  /** Nothing on it can be taken back. */
  readonly locked: boolean;
  readonly nameOf: (point: string | null) => string | null;
  readonly onWrite: (entry: JobEntry, back?: { words: string; entry: JobEntry }) => void;
}

/** What happened to the unit since it was taken in, in the order of time. */
export function JobTape({
  record,
  visits,
  retest,
  traces,
  locked,
  nameOf: pointName,
  onWrite,
}: JobTapeProps) {
  const family = FAMILIES[record.profile.kind];
  const { tag } = record.job;
  const takeBack = (noted: Noted<unknown>, what: string): ReactNode =>
    !locked && (
      <Button
        size="small"
        onClick={() =>
          onWrite(
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
          title={`${partName(record.profile.kind, work.what.part)}: ${WORK_DONE[work.what.did].toLowerCase()}`}
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
    ...record.identities.map((identity) => ({
      at: identity.at,
      node: (
        <Mark
          key={identity.id}
          when={identity.at}
          title={`${partName(record.profile.kind, identity.what.part)}: not what it was said to be`}
          struck={identity.withdrawn}
          actions={takeBack(identity, 'Identity')}
        >
          <SaidAndFound identity={identity.what} photos={record.photos} />
        </Mark>
      ),
    })),
    ...record.codes.map((codes) => ({
      at: codes.at,
      node: (
        <Mark
          key={codes.id}
          when={codes.at}
          title={codes.what.clears ? 'Trouble codes cleared' : 'Trouble codes read'}
        >
          <CodesFound codes={codes.what} />
        </Mark>
      ),
    })),
    ...record.homeChecks.map((home) => ({
      at: home.at,
      node: (
        <Mark
          key={home.id}
          when={home.at}
          title={home.what.how === 'file' ? 'Home check, by the file that came back' : 'Home check'}
          struck={home.withdrawn}
          actions={takeBack(home, 'Home check')}
        >
          {homeChecksOf(record.profile.kind).flatMap(({ id, name }) => {
            const answer = home.what.answers[id];
            return answer && answer !== 'not-tried' ? (
              <Box key={id}>
                {name}: <b>{HOME_ANSWERS[answer].toLowerCase()}</b>
              </Box>
            ) : (
              []
            );
          })}
          {home.what.words && <Box>“{home.what.words}”</Box>}
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
          traces={
            <TraceLinks
              traces={traces.filter((trace) => trace.body.runId === visit.run.id)}
              all={traces}
              tag={tag}
            />
          }
        />
      ),
    })),
    ...traces
      .filter((trace) => trace.body.runId === null)
      .map((trace) => ({
        at: trace.body.madeAt,
        node: (
          <Mark key={trace.id} when={trace.body.madeAt} title={`Logged: ${trace.body.name}`}>
            <TraceLinks traces={[trace]} all={traces} tag={tag} />
          </Mark>
        ),
      })),
    ...record.signatures.map((signature) => ({
      at: signature.at,
      node: (
        <Mark key={signature.id} when={signature.at} title={`Signed ${byWhom(record, signature)}`}>
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
        <Mark
          key={correction.id}
          when={correction.at}
          title={`Correction ${byWhom(record, { ...correction.what, place: correction.place })}`}
        >
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
  return marks.map(({ node }) => node);
}

/** What was said, what was found, what came of it, and the photo that shows it. */
function SaidAndFound({ identity, photos }: { identity: Identity; photos: JobRecord['photos'] }) {
  const { claimed, found, decision, decidedBy, photo } = identity;
  const shown = photos.find(({ id, withdrawn }) => id === photo && !withdrawn);
  return (
    <>
      <Box>Said to be: {claimed}</Box>
      <Box>Found to be: {found}</Box>
      <Box sx={{ fontWeight: 650 }}>
        {DECISIONS[decision]} by {decidedBy}
      </Box>
      {shown ? (
        <a href={`/api/v1/photos/${shown.what.sha256}`} target="_blank" rel="noreferrer">
          Photo that shows it
        </a>
      ) : (
        <Box sx={{ color: 'text.secondary' }}>No photo shows it yet.</Box>
      )}
    </>
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
