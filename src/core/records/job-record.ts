import { homeChecksOf } from '../families/home-checks';
import type { CodesRead } from './trouble-codes';
import type { RunEvent } from '../contract/events';
import { contextWith } from '../procedure/exchange';
import type { Finding, Fitting, Identity, JobEntry, JobEntryOf, Photo, Work } from './entries';
import type { HomeAnswers } from './home-answers';
import type { Job } from './job';
import type { Judgement } from './judgement';
import type { StoredRun } from './views';

/** An entry as it stands in a record. */
export interface Written<E = JobEntry> {
  readonly id: string;
  readonly place: number;
  readonly at: string;
  readonly entry: E;
}

/** Something written down that can be taken back: kept, and marked as taken back. */
export interface Noted<T> {
  readonly id: string;
  readonly place: number;
  readonly at: string;
  readonly what: T;
  readonly withdrawn: boolean;
}

export interface Signature {
  readonly id: string;
  readonly at: string;
  readonly technician: string;
  /** Seal of the last entry signed: what a printed report carries. */
  readonly head: string;
  readonly place: number;
}

/** Entries that came in a job file, by their places. */
export interface FromFile {
  readonly first: number;
  readonly last: number;
}

/** A job as its entries leave it. */
export interface JobRecord {
  readonly id: string;
  readonly job: Job;
  /** Counts changes of what was taken in. */
  readonly version: number;
  readonly profile: JobEntryOf<'taken-in'>['profile'];
  readonly createdAt: string;
  readonly runs: readonly StoredRun[];
  /** Place of the entry that closed the last finished run; 0 where none is finished. */
  readonly testedTo: number;
  readonly findings: readonly Noted<Finding>[];
  readonly work: readonly Noted<Work>[];
  readonly photos: readonly Noted<Photo>[];
  readonly identities: readonly Noted<Identity>[];
  readonly codes: readonly Noted<CodesRead>[];
  readonly homeChecks: readonly Noted<HomeAnswers>[];
  readonly fitting: Fitting | null;
  readonly signatures: readonly Signature[];
  readonly corrections: readonly Noted<{ about: string | null; words: string; technician: string }>[];
  readonly reopenings: readonly { id: string; at: string; reason: string }[];
  /** Signed and not reopened since: only corrections are added. */
  readonly signed: boolean;
  readonly archived: boolean;
  readonly deleted: boolean;
  /** Entries that came in a job file: who signed or corrected there did not do so here. */
  readonly fromFiles: readonly FromFile[];
  /** Number of entries. */
  readonly length: number;
  /** When anything was last written. */
  readonly lastAt: string;
}

export type RecordRefusal =
  | 'not-begun'
  | 'begun'
  | 'signed'
  | 'not-signed'
  | 'run-open'
  | 'not-finished'
  | 'judged-already'
  | 'no-such-run'
  | 'run-known'
  | 'no-run-before'
  | 'no-such-entry'
  | 'no-such-photo'
  | 'no-such-check'
  | 'deleted'
  | 'not-deleted';

/** Entries that do not touch what was signed. */
const AFTER_SIGNING: readonly JobEntry['type'][] = ['corrected', 'reopened', 'archived', 'deleted'];

/** Whether an entry may be added to a record as it stands. */
export function admitEntry(record: JobRecord | null, entry: JobEntry): RecordRefusal | null {
  if (!record) return entry.type === 'taken-in' ? null : 'not-begun';
  if (entry.type === 'taken-in') return 'begun';
  if (record.deleted && !(entry.type === 'deleted' && !entry.deleted)) return 'deleted';
  if (record.signed && !AFTER_SIGNING.includes(entry.type)) return 'signed';
  switch (entry.type) {
    case 'run-started':
      return admitRun(record, entry);
    case 'run-event':
      return record.runs.some(({ id }) => id === entry.run) ? null : 'no-such-run';
    case 'judged': {
      const run = record.runs.find(({ id }) => id === entry.run);
      if (!run) return 'no-such-run';
      if (!run.finishedAt) return 'not-finished';
      return run.judged ? 'judged-already' : null;
    }
    case 'withdrawn':
    case 'put-back':
      return [record.findings, record.work, record.photos, record.identities, record.homeChecks].some(
        (list) => list.some(({ id }) => id === entry.entry),
      )
        ? null
        : 'no-such-entry';
    case 'home-check': {
      const known = homeChecksOf(record.profile.kind).map(({ id }) => id);
      return Object.keys(entry.home.answers).every((id) => known.includes(id)) ? null : 'no-such-check';
    }
    case 'identity': {
      const { photo } = entry.identity;
      return photo === null || record.photos.some(({ id }) => id === photo) ? null : 'no-such-photo';
    }
    case 'codes': {
      const { clears } = entry.codes;
      return clears === null || record.codes.some(({ id }) => id === clears) ? null : 'no-such-entry';
    }
    case 'signed':
      return record.runs.some((run) => !run.finishedAt) ? 'run-open' : null;
    case 'corrected':
    case 'reopened':
      return record.signed ? null : 'not-signed';
    case 'deleted':
      return record.deleted === entry.deleted ? 'not-deleted' : null;
    default:
      return null;
  }
}

/** A run has a name of its own, and goes on from none or from one that was finished before it in the same job. */
function admitRun({ runs }: JobRecord, entry: JobEntryOf<'run-started'>): RecordRefusal | null {
  if (runs.some((run) => !run.finishedAt)) return 'run-open';
  if (runs.some(({ id }) => id === entry.run)) return 'run-known';
  return entry.continues === null || runs.some(({ id }) => id === entry.continues) ? null : 'no-run-before';
}

const REFUSED: Record<RecordRefusal, string> = {
  'not-begun': 'There is no such job.',
  begun: 'This job has been taken in already.',
  signed: 'This job is signed. Add a correction, or open it again with a reason.',
  'not-signed': 'This job is not signed.',
  'run-open': 'A bench test is not finished yet. Finish it first.',
  'not-finished': 'This run is not finished, so nothing is to be judged yet.',
  'judged-already': 'This run has been judged already.',
  'no-such-run': 'There is no such run.',
  'run-known': 'A bench test has the name of another.',
  'no-run-before': 'A bench test goes on from one that does not stand before it in this job.',
  'no-such-entry': 'There is nothing of that kind in this job.',
  'no-such-photo': 'There is no such photo in this job. Add it first, then choose it.',
  'no-such-check': 'A home check of this kind asks for nothing of that name.',
  deleted: 'This job is deleted. Put it back first.',
  'not-deleted': 'That has been done already.',
};

/** A sentence for a refused entry. */
export const recordRefusalSentence = (why: RecordRefusal): string => REFUSED[why];

/** How one more is put behind a list. */
type Put = <T>(list: readonly T[], one: T) => readonly T[];
const copied: Put = (list, one) => [...list, one];
/** Only where nobody else holds the list: a record of many entries is so made in a time that goes by their number. */
const inPlace: Put = <T>(list: readonly T[], one: T) => {
  (list as T[]).push(one);
  return list;
};

/** The record after one more entry, which has been admitted. */
export const withEntry = (jobId: string, record: JobRecord | null, written: Written): JobRecord =>
  grown(jobId, record, written, copied);

/** The same where nobody looks at the record before it again: its lists go on in the new one. */
export const intoEntry = (jobId: string, record: JobRecord | null, written: Written): JobRecord =>
  grown(jobId, record, written, inPlace);

function grown(jobId: string, record: JobRecord | null, written: Written, put: Put): JobRecord {
  const { entry, id, at, place } = written;
  if (!record) {
    if (entry.type !== 'taken-in')
      throw new RangeError(`entry: a record begins with taken-in, not ${entry.type}`);
    return {
      id: jobId,
      job: entry.job,
      version: 1,
      profile: entry.profile,
      createdAt: at,
      runs: [],
      testedTo: 0,
      findings: [],
      work: [],
      photos: [],
      identities: [],
      codes: [],
      homeChecks: [],
      fitting: null,
      signatures: [],
      corrections: [],
      reopenings: [],
      signed: false,
      archived: false,
      deleted: false,
      fromFiles: [],
      length: 1,
      lastAt: at,
    };
  }
  const next: JobRecord = { ...record, length: record.length + 1, lastAt: at };
  const noted = <T>(what: T): Noted<T> => ({ id, place, at, what, withdrawn: false });
  switch (entry.type) {
    case 'taken-in':
    case 'changed':
      return { ...next, job: entry.job, profile: entry.profile, version: record.version + 1 };
    case 'run-started':
      return { ...next, runs: put(record.runs, startedRun(record, entry, written)) };
    case 'run-event':
      return {
        ...next,
        runs: record.runs.map((run) => (run.id === entry.run ? withEventBy(run, entry.event, put) : run)),
        testedTo: entry.event.type === 'finished' ? place : record.testedTo,
      };
    case 'judged':
      return {
        ...next,
        runs: record.runs.map((run) => (run.id === entry.run ? { ...run, judged: entry } : run)),
      };
    case 'finding':
      return { ...next, findings: put(record.findings, noted(entry.finding)) };
    case 'work':
      return { ...next, work: put(record.work, noted(entry.work)) };
    case 'photo':
      return { ...next, photos: put(record.photos, noted(entry.photo)) };
    case 'identity':
      return { ...next, identities: put(record.identities, noted(entry.identity)) };
    case 'home-check':
      return { ...next, homeChecks: put(record.homeChecks, noted(entry.home)) };
    case 'codes':
      return { ...next, codes: put(record.codes, noted(entry.codes)) };
    case 'fitting':
      return { ...next, fitting: entry.fitting };
    case 'withdrawn':
    case 'put-back': {
      const mark = <T>(list: readonly Noted<T>[]) =>
        list.map((one) => (one.id === entry.entry ? { ...one, withdrawn: entry.type === 'withdrawn' } : one));
      return {
        ...next,
        findings: mark(record.findings),
        work: mark(record.work),
        photos: mark(record.photos),
        identities: mark(record.identities),
        homeChecks: mark(record.homeChecks),
      };
    }
    case 'signed': {
      const signature = { id, at, technician: entry.technician, head: entry.head, place };
      return { ...next, signed: true, signatures: put(record.signatures, signature) };
    }
    case 'corrected':
      return {
        ...next,
        corrections: put(
          record.corrections,
          noted({ about: entry.about, words: entry.words, technician: entry.technician }),
        ),
      };
    case 'reopened':
      return { ...next, signed: false, reopenings: put(record.reopenings, { id, at, reason: entry.reason }) };
    case 'archived':
      return { ...next, archived: entry.archived };
    case 'deleted':
      return { ...next, deleted: entry.deleted };
  }
}

/**
 * A job from its whole record.
 *
 * @param judged verdicts of runs in whose record none is written, by run: they were finished by a program that did not
 *   write them, and judged when they were moved here or came in
 * @param fromFiles which of its entries came in a job file
 * @returns null for an empty record
 */
export function jobRecord(
  jobId: string,
  entries: readonly Written[],
  judged: ReadonlyMap<string, Judgement> = new Map(),
  fromFiles: readonly FromFile[] = [],
): JobRecord | null {
  const record = entries.reduce<JobRecord | null>((sofar, written) => intoEntry(jobId, sofar, written), null);
  if (!record) return record;
  const runs = record.runs.map((run) => ({ ...run, judged: run.judged ?? judged.get(run.id) ?? null }));
  return { ...record, runs, fromFiles };
}

/** A re-test begins with the readings of the run that it continues; what happened since makes some of them stale. */
const startedRun = (record: JobRecord, entry: JobEntryOf<'run-started'>, { at }: Written): StoredRun =>
  runFrom(record.id, entry, at, record.runs.find(({ id }) => id === entry.continues) ?? null);

/**
 * A run as it begins.
 *
 * @param before the run that it continues: its readings are carried over with the room that they were taken in
 */
export function runFrom(
  jobId: string,
  entry: JobEntryOf<'run-started'>,
  startedAt: string,
  before: StoredRun | null,
): StoredRun {
  const events = carriedFrom(before ?? undefined);
  const earlier = before && [...(before.context.earlier ?? []), { until: events.length, ...roomOf(before) }];
  const context = { ...entry.context, ...(earlier ? { earlier } : {}) };
  return {
    id: entry.run,
    jobId,
    kind: entry.kind,
    context: context as StoredRun['context'],
    events,
    continues: entry.continues,
    startedAt,
    finishedAt: null,
    judged: null,
  };
}

const roomOf = ({ context }: StoredRun) => ({
  barometer_Pa: context.conditions.barometer_Pa,
  temperature_K: context.conditions.temperature_K,
});

/** What a re-test takes over from the run before it: everything but that it was finished. */
export const carriedFrom = (before: StoredRun | undefined): RunEvent[] =>
  (before?.events ?? []).filter(({ type }) => type !== 'finished');

/** A run after one more event of its own. */
export const withEvent = (run: StoredRun, event: RunEvent): StoredRun => withEventBy(run, event, copied);

const withEventBy = (run: StoredRun, event: RunEvent, put: Put): StoredRun => ({
  ...run,
  context: contextWith(run.context, [event]),
  events: put(run.events, event),
  finishedAt: event.type === 'finished' ? event.at : run.finishedAt,
});

/**
 * By whom something was signed or corrected: a name from a job file is nobody who gave a PIN here.
 *
 * @param place of its entry in the record
 */
export const byWhom = (
  { fromFiles }: Pick<JobRecord, 'fromFiles'>,
  { technician, place }: { readonly technician: string; readonly place: number },
): string =>
  fromFiles.some(({ first, last }) => place >= first && place <= last)
    ? `in the file, by ${technician}`
    : `by ${technician}`;
