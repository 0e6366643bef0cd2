/** @jest-environment node */
import { gunzipSync, gzipSync } from 'node:zlib';
import type { Knex } from 'knex';
import { canonicalJson } from '@/core/records/canonical';
import { NO_HASH, sealOf } from '@/core/records/chain';
import { doubtsOf, photosGone, recordToPrint, whereSealed, whyNotPrinted } from './altered';
import { openDatabase } from './database';
import { Desk, FINDING, newId, picture, taken, whyNot } from './demo/desk';
import { FIXTURE_NOW as NOW } from './demo/fixture';
import { keepHead, lossWords, losses, noticeLoss } from './head-file';
import { exportJob } from './job-files';
import { jobChain, linksOf, sha256 } from './journal';
import { addNote } from './notes';
import { addPhoto } from './photos';
import { readRecord } from './record';
import { chartFile, installationPdf, readingsCsv, reportOf, reportPdf } from './reports';
import { signJob } from './technicians';
import { loggedIn, analysisOf } from './traces';
import { verify } from './verify';

let desk: Desk;
let db: Knex;
beforeEach(async () => {
  desk = await Desk.open();
  db = desk.db;
});
afterEach(() => desk.close());

const found = async () =>
  (await verify(db)).alterations.map(({ where, entry, what }) => `${where}, ${entry}: ${what}`).join('\n');

/** Changes the words of an entry; every seal behind it is made anew where that is asked for. */
async function rewrite(chain: string, place: number, change: (entry: object) => object, reseal = false) {
  const links = await linksOf(db, chain);
  let before = links[place - 2]?.hash ?? NO_HASH;
  for (const link of links.slice(place - 1, reseal ? undefined : place)) {
    const body = link.place === place ? canonicalJson(change(JSON.parse(link.body) as object)) : link.body;
    const hash = reseal ? sealOf(chain, { ...link, body }, before, sha256) : link.hash;
    await db('journal').where({ seq: link.seq }).update({ body, hash });
    before = hash;
  }
}

const signed = async (tag: string) => {
  const job = await desk.jobOf(tag);
  taken(await signJob(db, job.id, { id: newId(), ...(await desk.signer()) }, NOW));
  return job;
};

describe('what is printed', () => {
  test('is refused from a record that was altered, and says at which entry; and so is a file of it', async () => {
    const job = await desk.jobOf('GF-0421');
    const [run] = job.runs;
    const links = await linksOf(db, jobChain(job.id));
    const { place } = links.find(({ body }) => body.includes('"captured"'))!;
    await rewrite(jobChain(job.id), place, (entry) => {
      const { event } = entry as { event: { value_SI: number } };
      return { ...entry, event: { ...event, value_SI: 1.5 * event.value_SI } };
    });
    const why = new RegExp(`altered at entry ${place}. Nothing is printed as tested`);
    expect(whyNot(await reportPdf(db, run!.id, 'A4'))).toMatch(why);
    expect(whyNot(await installationPdf(db, job.id, 'A4'))).toMatch(why);
    expect(whyNot(await chartFile(db, run!.id, 'svg'))).toMatch(why);
    expect(whyNot(await readingsCsv(db, run!.id))).toMatch(why);
    expect(whyNot(await exportJob(db, job.id))).toMatch(why);
  });

  test('is refused where an entry cannot be read at all', async () => {
    const job = await desk.jobOf('GF-0421');
    const [first] = await linksOf(db, jobChain(job.id));
    await db('journal').where({ seq: first!.seq }).update({ body: '{"type":' });
    expect(whyNot(await recordToPrint(db, job.id))).toMatch(/altered at entry 1/);
  });

  test('is refused under a signature that is over something else, though every seal was made anew', async () => {
    const job = await signed('GF-0421');
    await rewrite(jobChain(job.id), 1, (entry) => ({ ...entry, tampered: true }), true);
    const { length } = await linksOf(db, jobChain(job.id));
    expect(whyNot(await recordToPrint(db, job.id))).toMatch(new RegExp(`altered at entry ${length}`));
    expect(await found()).toMatch(`${length}: This signature is not over what stands before it`);
  });

  test('of a record as it was written is printed', async () => {
    const job = await signed('GF-0421');
    expect(taken(await reportPdf(db, job.runs[0]!.id, 'A4')).body.length).toBeGreaterThan(1000);
    expect(await found()).toBe('');
  });

  test('says that a photo is gone, and no file is made without it', async () => {
    const job = await desk.jobOf('GF-0421');
    const jpeg = await picture().jpeg().toBuffer();
    taken(await addPhoto(db, job.id, { id: newId(), point: null, caption: 'Torn' }, jpeg, NOW));
    const record = (await readRecord(db, job.id))!;
    expect(await photosGone(db, record)).toBe(0);
    await db('photos').delete();
    expect(await photosGone(db, record)).toBe(1);
    expect(whyNot(await exportJob(db, job.id))).toMatch(/photo of this job is missing.*No file is made/);
    expect(taken(await reportPdf(db, job.runs[0]!.id, 'A4')).body.length).toBeGreaterThan(1000);
  });
});

describe('beside the records', () => {
  test('a picture that is another than was stored is told, and no other', async () => {
    const job = await desk.jobOf('GF-0421');
    for (const caption of ['Torn', 'Whole']) {
      const jpeg = await picture()
        .jpeg({ quality: caption === 'Torn' ? 90 : 60 })
        .toBuffer();
      taken(await addPhoto(db, job.id, { id: newId(), point: null, caption }, jpeg, NOW));
    }
    const [one, other] = (await readRecord(db, job.id))!.photos;
    expect(one!.what.sha256).not.toBe(other!.what.sha256);
    await db('photos')
      .where({ sha256: one!.what.sha256 })
      .update({ jpeg: Buffer.from('another') });
    expect(await found()).toBe(
      `Photo ${one!.what.sha256.slice(0, 12)}, null: This picture is not as it was stored.`,
    );
  });

  test.each([
    ['jobs', 'The list of jobs does not show', { tag: 'GF-9999' }],
    ['runs', 'The list of runs does not show', { finished_at: '2020-01-01T00:00:00.000Z' }],
  ])('a list of %s that says something else than the record is told', async (table, says, change) => {
    const { id } = await desk.jobOf('GF-0421');
    await db(table)
      .where(table === 'jobs' ? { id } : { job_id: id })
      .update(change);
    expect(await found()).toMatch(says);
  });

  test('so is a run in the list of which no record knows', async () => {
    const { id } = await desk.jobOf('GF-0421');
    const row = (await db('runs').where({ job_id: id }).first()) as Record<string, unknown>;
    await db('runs').insert({ ...row, id: newId() });
    expect(await found()).toMatch('A run stands in the list that is not in the record');
  });
});

describe('a record whose end was taken out, which breaks no seal', () => {
  /** What stands before all else on a report, in place of its title. */
  const saidFirst = async (runId: string) => {
    const { blocks } = taken(await reportOf(db, runId));
    const strong = blocks.slice(
      0,
      blocks.findIndex(({ kind }) => kind !== 'paragraph'),
    );
    return strong.map((block) => (block.kind === 'paragraph' ? block.text : '')).join(' ');
  };
  const takeOutLast = async (jobId: string) => {
    const { seq } = (await linksOf(db, jobChain(jobId))).at(-1)!;
    await db('journal').where({ seq }).delete();
  };

  test('is not printed where the list still shows what stood there', async () => {
    const job = await signed('GF-0421');
    await takeOutLast(job.id);
    const why = /not what the list of jobs says of it.*Nothing is printed as tested/;
    expect(whyNot(await reportPdf(db, job.runs[0]!.id, 'A4'))).toMatch(why);
    expect(whyNot(await exportJob(db, job.id))).toMatch(why);
    expect(await whyNotPrinted(db, job.id)).toMatch(why);
  });
  test('nor where a test is not in the list, or one too many', async () => {
    const job = await desk.jobOf('GF-0421');
    const [run] = await db('runs').where({ job_id: job.id });
    await db('runs').insert({ ...run, id: newId() });
    expect(await whyNotPrinted(db, job.id)).toMatch(/list of jobs/);
    await db('runs').where({ job_id: job.id }).delete();
    expect(await whyNotPrinted(db, job.id)).toMatch(/list of jobs/);
    await db('runs').insert({ ...run, finished_at: null });
    expect(await whyNotPrinted(db, job.id)).toMatch(/list of jobs/);
  });
  test('is printed with the words that entries are gone, and so is every other that may have had them', async () => {
    const [job, other] = [await desk.jobOf('GF-0421'), await desk.jobOf('GF-0412')];
    for (const one of [job, job, other]) taken(await desk.note(one.id, FINDING));
    expect(await saidFirst(job.runs[0]!.id)).toBe('');
    // The list shows nothing of a finding but to a search.
    await takeOutLast(job.id);
    const gone =
      /An entry written after the last one of this job is gone from the journal; of which job, nobody can tell/;
    expect(await saidFirst(job.runs[0]!.id)).toMatch(gone);
    // What was written behind it was not of a job that goes on behind it.
    expect(await saidFirst(other.runs[0]!.id)).toBe('');
    expect((await doubtsOf(db, (await readRecord(db, (await desk.jobOf('GF-0418')).id))!)).join()).toMatch(
      gone,
    );
    // The last of all, with nothing behind it but the count.
    await takeOutLast(other.id);
    for (const { runs } of [job, other])
      expect(await saidFirst(runs[0]!.id)).toMatch(/2 entries written after .* are gone/);
  });
  test('is printed with the words that the end of the journal was lost, until something is entered for the job', async () => {
    const job = await desk.jobOf('GF-0421');
    await desk.note(job.id, FINDING);
    await keepHead(db);
    await takeOutLast(job.id);
    await db('sqlite_sequence')
      .where({ name: 'journal' })
      .update({ seq: db('journal').max('seq') });
    await noticeLoss(db, '2026-11-23T12:00:00.000Z');
    expect(await saidFirst(job.runs[0]!.id)).toMatch(
      /The last entry that was written .* was gone.* That was 2026-11-23; what was entered last before then for this job may be missing/,
    );
    taken(await addNote(db, job.id, { id: newId(), entry: FINDING }, '2026-11-23T12:00:01.000Z'));
    expect(await saidFirst(job.runs[0]!.id)).toBe('');
  });
});

describe('what was worked out of a trace', () => {
  const traced = async () =>
    (await db('traces').whereNotNull('run_id').first('id', 'run_id')) as {
      id: string;
      run_id: string;
    };

  test('stands under a seal: with its results made larger nothing of it is told, and verifying says so', async () => {
    const { id, run_id } = await traced();
    expect((await loggedIn(db, run_id)).map(({ altered }) => altered)).not.toContain(true);
    const row = await db('trace_data').where({ trace_id: id }).first();
    const analysis = gunzipSync(row.analysis as Buffer).toString('utf8');
    const larger = analysis.replaceAll(
      /"value":(\d+(\.\d+)?)/g,
      (_, value) => `"value":${1.5 * Number(value)}`,
    );
    expect(larger).not.toBe(analysis);
    await db('trace_data')
      .where({ trace_id: id })
      .update({ analysis: gzipSync(larger) });
    const logged = (await loggedIn(db, run_id)).find((one) => one.id === id)!;
    expect(logged).toMatchObject({ altered: true, stretches: [] });
    expect(whyNot(await analysisOf(db, id))).toMatch(/altered since it was written/);
    expect(await found()).toMatch(/What was worked out of it is not as it was written/);
  });

  test('with one bit turned over is said to be altered, and nothing fails', async () => {
    const { id } = await traced();
    const { analysis } = (await db('trace_data').where({ trace_id: id }).first('analysis')) as {
      analysis: Buffer;
    };
    analysis[analysis.length >> 1]! ^= 4;
    await db('trace_data').where({ trace_id: id }).update({ analysis });
    expect(whyNot(await analysisOf(db, id))).toMatch(/altered since it was written/);
  });
});

describe('verifying finds', () => {
  test('what was put into the schema or taken out of it', async () => {
    expect(await found()).toBe('');
    await db.raw("create trigger quiet after insert on journal begin update jobs set call = 'sound'; end");
    expect(await found()).toMatch(/trigger “quiet” that this program does not have/);
    await db.raw('drop trigger quiet');
    await db.raw('drop table log_layouts');
    expect(await found()).toMatch(/table “log_layouts” is gone/);
  });

  test('a job that was taken away, though the lines were counted anew', async () => {
    await keepHead(db);
    const job = await desk.jobOf('GF-0421');
    const lines = (await db('journal')
      .where({ chain: jobChain(job.id) })
      .orWhereIn(
        'run_id',
        job.runs.map(({ id }) => id),
      )
      .count({ n: '*' })
      .first()) as { n: number };
    await db('journal')
      .where({ chain: jobChain(job.id) })
      .delete();
    await db('runs').where({ job_id: job.id }).delete();
    await db('jobs').where({ id: job.id }).delete();
    const rows: { seq: number }[] = await db('journal').orderBy('seq').select('seq');
    for (const [i, { seq }] of rows.entries())
      await db('journal')
        .where({ seq })
        .update({ seq: i + 1 });
    await db('sqlite_sequence').where({ name: 'journal' }).update({ seq: rows.length });
    expect(lines.n).toBeGreaterThan(50);
    expect(await found()).toMatch(/had come to line \d+, and that line is not there/);
  });
});

describe('the end of the journal', () => {
  test('that was lost is noticed at the next start, said for good, and what is written then is kept', async () => {
    const file = desk.file('lost.sqlite');
    const first = await openDatabase(file);
    await first('settings').delete();
    const lines = (await first('journal').max({ seq: 'seq' }).first())!.seq as number;
    await first('journal').insert(
      [1, 2, 3].map((n) => ({
        id: newId(),
        chain: 'made-up/one',
        place: n,
        run_id: null,
        at: NOW,
        body: '{}',
        hash: String(n).repeat(64),
      })),
    );
    await keepHead(first);
    expect(await losses(first)).toEqual([]);
    await first('journal')
      .where('seq', '>', lines + 1)
      .delete();
    await first.destroy();

    const again = await openDatabase(file);
    const [noticed, ...others] = await losses(again);
    expect(others).toEqual([]);
    expect(lossWords(noticed!.loss)).toMatch(/The last 2 entries that were written/);
    await again.destroy();
    const third = await openDatabase(file);
    expect(await losses(third)).toHaveLength(1);
    expect((await verify(third)).alterations.map(({ what }) => what)).toContain(lossWords(noticed!.loss));
    await third.destroy();
  });
});

describe('a seal typed in from paper', () => {
  test('is found with its job, and said to be whole or not', async () => {
    const job = await signed('GF-0421');
    const { head } = (await readRecord(db, job.id))!.signatures[0]!;
    expect(await whereSealed(db, ` ${head.slice(0, 16).toUpperCase()} `)).toMatchObject({
      ok: true,
      value: { tag: 'GF-0421', technician: 'Pell Tarn', why: null },
    });
    expect(whyNot(await whereSealed(db, 'ab'.repeat(8)))).toMatch(/No signature here has this seal/);
    expect(whyNot(await whereSealed(db, 'abc'))).toMatch(/16/);
    await rewrite(jobChain(job.id), 1, (entry) => ({ ...entry, tampered: true }), true);
    // Whoever seals everything anew has another head than the one on paper.
    const links = await linksOf(db, jobChain(job.id));
    await rewrite(jobChain(job.id), links.length, (entry) => ({ ...entry, head: links.at(-2)!.hash }), true);
    expect(await found()).toBe('');
    expect(whyNot(await whereSealed(db, head.slice(0, 16)))).toMatch(/No signature here has this seal/);
  });
});
