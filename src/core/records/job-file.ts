import { z } from 'zod';
import { FAMILIES } from '../families/registry';
import { canonicalJson } from './canonical';
import { breaksIn, type Link, type Sha256 } from './chain';
import { jobEntrySchema, type JobEntryOf } from './entries';
import { judgementSchema, type Judgement } from './judgement';
import { byOwnSteps } from '../procedure/own-steps';
import { admitEntry, intoEntry, jobRecord, recordRefusalSentence, type JobRecord } from './job-record';
import { judgementOf } from './judged-run';
import { jsonExcess, unkeptText, unkeptWords } from './text';
import type { StoredRun } from './views';
import { presentEntry, storedEntrySchema, storedJudgementSchema } from './stored-entry';

export const JOB_FILE_FORMAT = 'hard-pedal-job';
export const JOB_FILE_VERSION = 2;

/** No job has more entries. */
const MOST_ENTRIES = 20_000;
const TOO_MANY = `more than ${MOST_ENTRIES.toLocaleString('en').replace(',', ' ')} entries, which no job has`;

const seal = z.string().regex(/^[0-9a-f]{64}$/);

const sealed = <E extends z.ZodType>(entry: E) =>
  z.strictObject({ id: z.uuid(), place: z.int().min(1), at: z.iso.datetime(), entry, hash: seal });

/** A job file with its entries of one schema, and the verdicts beside it of another. */
const fileOf = <E extends z.ZodType, J extends z.ZodType>(entry: E, judgement: J) =>
  z.strictObject({
    format: z.literal(JOB_FILE_FORMAT),
    version: z.literal(JOB_FILE_VERSION),
    job: z.uuid(),
    entries: z.array(sealed(entry)).min(1).max(MOST_ENTRIES, TOO_MANY),
    /**
     * Verdicts of runs that were finished before verdicts were written down, each in a chain of its own, "judged/" and
     * the run's id: they were given when the record was moved to a newer program or came in from an older one.
     */
    judged: z.array(sealed(judgement)).max(10_000),
    photos: z.array(z.strictObject({ sha256: seal, jpeg: z.base64() })).max(2_000),
  });

/**
 * A job as it goes from shop to shop: its whole record, entry by entry with their seals, and its photos. The seal of
 * an entry is the SHA-256 of six lines: the seal before it (64 zeros for the first), "job/" and the job's id, its
 * place, its id, its time, and the entry as canonical JSON (RFC 8785).
 */
export const jobFileSchema = fileOf(storedEntrySchema, storedJudgementSchema);

/** The same with every entry in its present form, whatever revision it was written in. */
const presentFileSchema = fileOf(jobEntrySchema, judgementSchema);
export type JobFile = z.infer<typeof presentFileSchema>;

type Raw = Readonly<Record<string, unknown>>;

/** From each version of the file to the next. Version 1 knew no verdicts. */
export const JOB_FILE_UPCASTS: Readonly<Record<number, (file: Raw) => Raw>> = {
  1: (file) => ({ ...file, version: 2, judged: [] }),
};

/** The text of a job file. Written from the same record, it is the same text. */
export function writeJobFile(
  job: string,
  links: readonly Link[],
  judged: readonly Link[],
  photos: readonly { sha256: string; jpeg: string }[],
): string {
  const written = ({ id, place, at, body, hash }: Link) => ({
    id,
    place,
    at,
    entry: JSON.parse(body) as unknown,
    hash,
  });
  const file = {
    format: JOB_FILE_FORMAT,
    version: JOB_FILE_VERSION,
    job,
    entries: links.map(written),
    judged: judged.map(written),
    photos: [...photos].sort((a, b) => (a.sha256 < b.sha256 ? -1 : 1)),
  };
  return `${canonicalJson(file)}\n`;
}

export interface ReadFile {
  readonly file: JobFile;
  readonly links: readonly Link[];
  /** Verdicts that came with the file, outside its record, each sealed in a chain of its own. */
  readonly judged: readonly Link[];
  /** Runs of the file for which no verdict was written, as today's program judges them. */
  readonly judgedNow: readonly Judgement[];
  readonly record: JobRecord;
}

export type ReadJobFile = { ok: true; value: ReadFile } | { ok: false; why: string };

const no = (why: string): { ok: false; why: string } => ({ ok: false, why: `${why} Nothing was taken in.` });

/** What reading needs of the machine it runs on. */
export interface Digests {
  readonly text: Sha256;
  /** SHA-256 of what a base64 text stands for. */
  readonly base64: Sha256;
}

/** Names that would reach past the data into the program that reads it. */
const POISON = new Set(['__proto__', 'constructor', 'prototype']);

function poisoned(value: unknown): boolean {
  if (value === null || typeof value !== 'object') return false;
  return Object.entries(value).some(([name, member]) => POISON.has(name) || poisoned(member));
}

/**
 * Reads a job file: whole and unaltered, or not at all with a sentence that says why. Every seal is checked, every
 * entry must be one that the application itself would have written, and every run must be one that can be judged.
 */
export function readJobFile(text: string, digests: Digests): ReadJobFile {
  const excess = jsonExcess(text);
  if (excess === 'depth') return no('This file is nested more deeply than any job file.');
  if (excess === 'parts') return no('This file has more parts than any job file.');
  let raw: unknown;
  try {
    raw = JSON.parse(text);
  } catch {
    return no('This file is broken: it is not whole JSON.');
  }
  const head = raw as { format?: unknown; version?: unknown; entries?: { entry?: unknown }[] } | null;
  if (head?.format !== JOB_FILE_FORMAT) return no('This is not a Hard Pedal job file.');
  if (typeof head.version === 'number' && head.version > JOB_FILE_VERSION)
    return no(
      `This job file was written by a newer Hard Pedal (format ${head.version}; this one reads ${JOB_FILE_VERSION}).`,
    );
  if (Array.isArray(head.entries) && head.entries.length > MOST_ENTRIES)
    return no(`This file has ${TOO_MANY}.`);
  const unkept = unkeptText(raw);
  if (unkept) return no(unkeptWords(unkept.slice(0, 5)));
  if (poisoned(raw)) return no('This file carries names that no job file has.');
  const parsed = presentFileSchema.safeParse(presentFile(head as Raw));
  if (!parsed.success) {
    const issue = parsed.error.issues[0]!;
    const where = issue.path.slice(0, 4).join(', ');
    return no(
      `This job file is not as it should be${where ? ` at ${where}` : ''}: ${issue.message.replace(/\.$/, '')}.`,
    );
  }
  const file = parsed.data;
  // As the file has it, not as the schema would tidy it: the seal is over what was written.
  const links = linksIn(file.entries, head.entries!);
  const judged = linksIn(file.judged, (head as { judged?: { entry?: unknown }[] }).judged ?? []);
  const [broken] = [
    ...breaksIn(`job/${file.job}`, links, digests.text),
    ...file.judged.flatMap(({ entry }, i) => breaksIn(judgedChain(entry.run), [judged[i]!], digests.text)),
  ];
  if (broken)
    return no(
      `This record has been altered: entry ${broken.place} ${broken.why === 'missing' ? 'is missing' : 'is not as it was written'}.`,
    );
  const replayed = replay(file);
  if (!replayed.ok) return replayed;
  const { record, judgedNow } = replayed;
  const pictures = checkPhotos(file, record, digests.base64);
  return pictures ? no(pictures) : { ok: true, value: { file, links, judged, judgedNow, record } };
}

/** Name of the chain that holds the verdicts of a run whose record has none. */
export const judgedChain = (runId: string) => `judged/${runId}`;

const linksIn = (
  entries: readonly Omit<Link, 'body'>[],
  raw: readonly { readonly entry?: unknown }[],
): Link[] =>
  entries.map(({ id, place, at, hash }, i) => ({ id, place, at, hash, body: canonicalJson(raw[i]!.entry) }));

/** A file of any version in the present form; what cannot be brought to it is left as it is, for the schema to refuse. */
function presentFile(raw: Raw): unknown {
  let file = raw;
  for (let version = raw.version; version !== JOB_FILE_VERSION; version = file.version) {
    const upcast = JOB_FILE_UPCASTS[version as number];
    if (!upcast) return raw;
    file = upcast(file);
  }
  const { entries, judged } = file;
  if (!Array.isArray(entries) || !Array.isArray(judged)) return file;
  const present = (all: Raw[]) => all.map((one) => ({ ...one, entry: presentEntry(one.entry) }));
  try {
    return { ...file, entries: present(entries as Raw[]), judged: present(judged as Raw[]) };
  } catch {
    return file;
  }
}

type Replayed = { ok: true; record: JobRecord; judgedNow: readonly Judgement[] } | { ok: false; why: string };

function replay(file: JobFile): Replayed {
  let record: JobRecord | null = null;
  const names = new Set<string>();
  for (const [i, { id, place, at, entry }] of file.entries.entries()) {
    if (names.has(id)) return no(`Entry ${place} has the name of another entry.`);
    names.add(id);
    const refusal = admitEntry(record, entry);
    if (refusal) return no(`Entry ${place} cannot stand where it does: ${recordRefusalSentence(refusal)}`);
    if (entry.type === 'taken-in' || entry.type === 'changed' || entry.type === 'run-started') {
      const wrong = profileProblem(entry);
      if (wrong) return no(`Entry ${place}: ${wrong}`);
    }
    if (entry.type === 'signed' && entry.head !== file.entries[i - 1]!.hash)
      return no(`Entry ${place} is a signature, and not over what stands before it.`);
    record = intoEntry(file.job, record, { id, place, at, entry });
  }
  if (!record) return no('This job file has no entries.');
  const judged = new Map(file.judged.map(({ entry }) => [entry.run, entry]));
  const judgedNow: Judgement[] = [];
  for (const [i, run] of record.runs.entries()) {
    try {
      const today = judgementOf(run, 'imported');
      if (run.finishedAt && !run.judged && !judged.has(run.id)) judgedNow.push(today);
    } catch {
      return no(`Bench test ${i + 1} in this file cannot be judged: its readings do not go with its steps.`);
    }
  }
  const foreign = record.runs.flatMap((run) => foreignStep(run) ?? []);
  if (foreign.length > 0)
    return no(
      `The test in this file that is not finished has a step that this program does not have: “${foreign[0]}”. Finish it where it was begun.`,
    );
  for (const today of judgedNow) judged.set(today.run, today);
  const written = file.entries.map(({ id, place, at, entry }) => ({ id, place, at, entry }));
  return { ok: true, record: jobRecord(file.job, written, judged)!, judgedNow };
}

/** A step of a test that is not finished which is none of the family's own. */
function foreignStep({ finishedAt, kind, context }: StoredRun): string | null {
  if (finishedAt) return null;
  const own = byOwnSteps(FAMILIES[kind].procedure(context.profile, context.rig), context.procedure);
  return own.ok ? null : own.unknown;
}

function profileProblem(entry: JobEntryOf<'taken-in' | 'changed' | 'run-started'>): string | null {
  const [kind, body] =
    entry.type === 'run-started'
      ? [entry.kind, entry.context.profile]
      : [entry.profile.kind, entry.profile.body];
  const parsed = FAMILIES[kind].profile.safeParse(body);
  return parsed.success ? null : `its profile is not one of a ${FAMILIES[kind].name.toLowerCase()}.`;
}

function checkPhotos(file: JobFile, record: JobRecord, sha256: Sha256): string | null {
  const named = new Set(record.photos.map(({ what }) => what.sha256));
  const held = new Set(file.photos.map((photo) => photo.sha256));
  const absent = [...named].filter((name) => !held.has(name));
  if (absent.length > 0)
    return `${absent.length === 1 ? 'A photo is' : `${absent.length} photos are`} missing from this file.`;
  if (file.photos.some((photo) => !named.has(photo.sha256)))
    return 'This file carries a photo that its record does not name.';
  if (file.photos.some((photo) => sha256(photo.jpeg) !== photo.sha256))
    return 'A photo in this file has been altered.';
  return null;
}
