import { randomUUID } from 'node:crypto';
import type { Knex } from 'knex';
import { judgedChain, writeJobFile } from '@/core/records/job-file';
import type { Link } from '@/core/records/chain';
import type { StoredJob } from '@/core/records/views';
import type { JobFileAnswer } from '@/workers/job-file-thread';
import { photosGoneWords } from '@/core/documents/photos-gone';
import { photosGone, recordToPrint } from './altered';
import { indexJob } from './job-index';
import { findJob } from './jobs';
import { jobChain, linksOf, runOf } from './journal';
import { done, refused, type Outcome } from './outcome';
import { keptPicture, storePicture } from './photos';
import { appendFromFile, appendJudgement, judgedLinks, readRecord } from './record';
import { addProfile } from './shelf';
import { inThread, TooMuch } from './thread';
import { Undone } from './undone';

/** Largest job file read, bytes: a job with some hundred photos. */
export const MOST_FILE_BYTES = 100_000_000;

const TOO_MUCH = 'This file takes more memory to read than any job file does. Nothing was taken in.';

/** So many entries are written by one statement. */
const AT_ONCE = 500;

/** A job as a file, with its photos: for another shop, or for keeping. */
export async function exportJob(db: Knex, jobId: string): Promise<Outcome<string>> {
  const found = await recordToPrint(db, jobId);
  if (!found.ok) return found;
  const record = found.value;
  const gone = await photosGone(db, record);
  if (gone > 0) return refused({ code: 'refused', message: `${photosGoneWords(gone)} No file is made.` });
  const names = [...new Set(record.photos.map(({ what }) => what.sha256))];
  const rows: { sha256: string; jpeg: Buffer }[] = await db('photos').whereIn('sha256', names);
  const photos = rows.map((row) => ({ sha256: row.sha256, jpeg: row.jpeg.toString('base64') }));
  const links = await linksOf(db, jobChain(jobId));
  return done(writeJobFile(jobId, links, await judgedLinks(db, links), photos));
}

/**
 * Takes in a job file: all of it or nothing. A job that is here already is carried on where the file goes further;
 * where the two have gone different ways, nothing is touched.
 */
export async function importJob(
  db: Knex,
  sent: string | Uint8Array<ArrayBuffer>,
  at: string,
): Promise<Outcome<StoredJob>> {
  // Off the main thread: a file may be long, and whoever reads a gauge meanwhile is not to wait for it. It is handed over, not copied.
  const bytes = typeof sent === 'string' ? new TextEncoder().encode(sent) : sent;
  const answer = await inThread<JobFileAnswer>('job-file-thread', bytes, { given: [bytes.buffer] }).catch(
    (error: unknown) => {
      if (error instanceof TooMuch) return null;
      throw error;
    },
  );
  if (!answer) return refused({ code: 'refused', message: TOO_MUCH });
  const { read, pictures } = answer;
  if (!read.ok) return refused({ code: 'refused', message: read.why });
  const { file, links, judged, judgedNow } = read.value;
  const pictureOf = (jpeg: string) => Buffer.from(pictures.get(jpeg) ?? Buffer.from(jpeg, 'base64'));
  for (const { jpeg } of file.photos) {
    const picture = await keptPicture(pictureOf(jpeg));
    if (!picture.ok)
      return refused({
        code: 'refused',
        message: 'A photo in this file is not a picture. Nothing was taken in.',
      });
  }
  const chain = jobChain(file.job);
  try {
    return await db.transaction(async (trx) => {
      const here = await linksOf(trx, chain);
      const parts = here.find((link, i) => link.hash !== links[i]?.hash);
      if (parts && parts.place <= links.length)
        throw undone(
          `This job is here already and has gone another way since entry ${parts.place}. Nothing was taken in.`,
        );
      if (parts || here.length === links.length)
        throw undone('This job is here already, with everything that is in the file. Nothing was changed.');
      const { profile } = read.value.record;
      if (!(await trx('profiles').where({ id: profile.id }).first())) {
        const added = await addProfile(trx, profile.body, at, profile.id);
        if (!added.ok) throw new Undone(added);
      }
      const mine = read.value.record.runs.map(({ id }) => id);
      const theirs = await trx('runs').whereIn('id', mine).whereNot({ job_id: file.job }).first();
      if (theirs)
        throw undone(
          'A bench test of this file has the name of one in another job here. Nothing was taken in.',
        );
      for (const { sha256: name, jpeg } of file.photos) await storePicture(trx, name, pictureOf(jpeg), false);
      const fresh = links.slice(here.length);
      for (let from = 0; from < fresh.length; from += AT_ONCE)
        await trx('journal').insert(fresh.slice(from, from + AT_ONCE).map((link) => rowOf(chain, link)));
      await appendFromFile(trx, file.job, { first: here.length + 1, last: links.length }, at);
      for (const [i, link] of judged.entries()) {
        const chain = judgedChain(file.judged[i]!.entry.run);
        if ((await linksOf(trx, chain)).length === 0) await trx('journal').insert(rowOf(chain, link));
      }
      for (const judgement of judgedNow) await appendJudgement(trx, randomUUID(), judgement, at);
      await indexJob(trx, (await readRecord(trx, file.job))!);
      return done((await findJob(trx, file.job))!);
    });
  } catch (error) {
    if (error instanceof Undone) return error.outcome as Outcome<StoredJob>;
    if ((error as { code?: string }).code === 'SQLITE_CONSTRAINT_UNIQUE')
      return refused({
        code: 'refused',
        message: 'An entry of this file stands in another job here. Nothing was taken in.',
      });
    throw error;
  }
}

const rowOf = (chain: string, link: Link) => ({ ...link, chain, run_id: runOf(JSON.parse(link.body)) });

const undone = (message: string) => new Undone(refused({ code: 'refused', message }));
