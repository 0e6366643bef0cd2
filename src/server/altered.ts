import type { Knex } from 'knex';
import { breaksIn, NO_HASH } from '@/core/records/chain';
import type { JobRecord } from '@/core/records/job-record';
import type { Alteration, SealFound } from '@/core/records/verification';
import type { StoredRun } from '@/core/records/views';
import { photosGoneWords } from '@/core/documents/photos-gone';
import { losses, lossWords, type NoticedLoss } from './head-file';
import { isListed } from './job-index';
import { jobChain, runOf, sha256, type JournalRow } from './journal';
import { done, invalid, refused, type Outcome } from './outcome';
import { recordOf, rowsOf, type RecordRows } from './record';
import { missing } from './store';

type Altered = Omit<Alteration, 'where'>;

/**
 * What of a chain is not as it was written: entries that are missing, altered or filed under another run, and signatures over
 * anything but what stands before them.
 *
 * @param links in order of their places
 */
export function alteredEntries(chain: string, links: readonly JournalRow[]): Altered[] {
  const broken = breaksIn(chain, links, sha256).map(({ place, link, why }) => ({
    entry: place,
    line: link?.seq,
    what: why === 'missing' ? 'This entry is missing.' : 'This entry is not as it was written.',
  }));
  const stray = links.flatMap((link, i) => {
    const entry = entryIn(link);
    if (entry === undefined) return [];
    const at = (what: string) => ({ entry: link.place, line: link.seq, what });
    return [
      ...(runOf(entry) === link.run_id ? [] : [at('This entry is filed under another run.')]),
      ...(entry.type === 'signed' && entry.head !== (links[i - 1]?.hash ?? NO_HASH)
        ? [at('This signature is not over what stands before it.')]
        : []),
    ];
  });
  return [...broken, ...stray];
}

/** What an entry says; undefined where it cannot be read, which its seal tells. */
function entryIn({ body }: JournalRow): { type?: unknown; head?: unknown } | undefined {
  try {
    return (JSON.parse(body) ?? undefined) as { type?: unknown; head?: unknown } | undefined;
  } catch {
    return undefined;
  }
}

/** Why nothing of a job is printed or sent out as tested: its record is not as it was written. Null where it is. */
export async function whyNotPrinted(db: Knex, jobId: string): Promise<string | null> {
  const found = await recordToPrint(db, jobId);
  return found.ok || found.why.code === 'not-found' ? null : found.why.message;
}

function alteredWords(jobId: string, { links, judged }: RecordRows): string | null {
  const [first] = [
    ...alteredEntries(jobChain(jobId), links),
    ...judged.flatMap((link) => alteredEntries(link.chain, [link]).map((one) => ({ ...one, entry: null }))),
  ];
  if (!first) return null;
  const where = first.entry === null ? 'in a verdict' : `at entry ${first.entry}`;
  return `This record was altered ${where}. Nothing is printed as tested.`;
}

/** The record of a job, for printing or sending out: refused where it is not as it was written. */
export async function recordToPrint(db: Knex, jobId: string): Promise<Outcome<JobRecord>> {
  const rows = await rowsOf(db, jobId);
  const why = alteredWords(jobId, rows);
  if (why) return refused({ code: 'refused', message: why });
  const record = await recordOf(db, jobId, rows);
  if (!record) return missing('job');
  return (await isListed(db, record)) ? done(record) : refused({ code: 'refused', message: NOT_AS_LISTED });
}

/** What a record says of itself that is whole, and not what the list has it as. */
const NOT_AS_LISTED =
  'This record is not what the list of jobs says of it: entries at its end may have been taken out. Nothing is printed as tested.';

/** What is not known of a record that is as it was written as far as it goes: said on its page, and first on what is printed of it. */
export async function doubtsOf(db: Knex, record: JobRecord): Promise<string[]> {
  const gone = await photosGone(db, record);
  const last = (await db<JournalRow>('journal')
    .where({ chain: jobChain(record.id) })
    .orderBy('place', 'desc')
    .first())!;
  const lost = (await losses(db)).filter(({ seq }) => last.seq < seq).map(lostEndWords);
  const lines = await linesGone(db, last.seq);
  return [
    ...(gone > 0 ? [photosGoneWords(gone)] : []),
    ...lost,
    ...(lines > 0 && lost.length === 0 ? [linesGoneWords(lines)] : []),
  ];
}

const lostEndWords = ({ at, loss }: NoticedLoss): string =>
  `${lossWords(loss)} That was ${at.slice(0, 10)}; what was entered last before then for this job may be missing here.`;

const linesGoneWords = (count: number): string =>
  `${count === 1 ? 'An entry' : `${count} entries`} written after the last one of this job ${count === 1 ? 'is' : 'are'} gone from the journal; of which job, nobody can tell. Verify all records.`;

/** How many lines of the journal behind one of them are not there: it counts up without a gap. */
async function linesGone(db: Knex, behind: number): Promise<number> {
  const { n, last } = (await db('journal')
    .where('seq', '>', behind)
    .count({ n: '*' })
    .max({ last: 'seq' })
    .first())!;
  const counted = (await db('sqlite_sequence').where({ name: 'journal' }).first('seq')) as
    { seq: number } | undefined;
  return Math.max(Number(last ?? behind), counted?.seq ?? 0) - behind - Number(n);
}

/** A run with its record, for printing: refused where that is not as it was written. */
export async function runToPrint(
  db: Knex,
  runId: string,
): Promise<Outcome<{ readonly record: JobRecord; readonly run: StoredRun }>> {
  const row = await db('runs').where({ id: runId }).first('job_id');
  if (!row) return missing('run');
  const found = await recordToPrint(db, row.job_id as string);
  if (!found.ok) return found;
  const run = found.value.runs.find(({ id }) => id === runId);
  return run ? done({ record: found.value, run }) : missing('run');
}

/** How many photos of a record are not in the database, or are not as they were stored. */
export async function photosGone(db: Knex, { photos }: Pick<JobRecord, 'photos'>): Promise<number> {
  const names = [...new Set(photos.filter(({ withdrawn }) => !withdrawn).map(({ what }) => what.sha256))];
  const rows: { sha256: string; jpeg: Buffer }[] = await db('photos').whereIn('sha256', names);
  return names.length - rows.filter(({ sha256: name, jpeg }) => sha256(jpeg) === name).length;
}

/** So many of its digits stand on a report. */
const PRINTED = 16;

/**
 * The signature whose seal begins as the one that stands on a report. Whoever alters a record and seals all of it anew gives it another.
 */
export async function whereSealed(db: Knex, typed: string): Promise<Outcome<SealFound>> {
  const seal = typed.replace(/\s/g, '').toLowerCase();
  if (!new RegExp(`^[0-9a-f]{${PRINTED},64}$`).test(seal))
    return invalid([
      {
        path: ['seal'],
        message: `Seal: type the ${PRINTED} digits from 0 to 9 and a to f that stand on the report.`,
      },
    ]);
  const rows: JournalRow[] = await db<JournalRow>('journal')
    .where('chain', 'like', jobChain('%'))
    .whereRaw("json_valid(body) and json_extract(body, '$.type') = 'signed'")
    .whereRaw("substr(json_extract(body, '$.head'), 1, ?) = ?", [seal.length, seal]);
  const [row] = rows;
  if (!row)
    return refused({
      code: 'not-found',
      message:
        'No signature here has this seal: the paper is of another shop, or the record behind it is not the one that was signed.',
    });
  const job = row.chain.slice(jobChain('').length);
  const { technician } = JSON.parse(row.body) as { technician: string };
  const { tag = '' } = (await db('jobs').where({ id: job }).first('tag')) ?? {};
  return done({ job, tag, technician, at: row.at, why: await whyNotPrinted(db, job) });
}
