/** @jest-environment node */
import type { Knex } from 'knex';
import sharp from 'sharp';
import { nextAction } from '@/core/procedure/next-action';
import { NO_HASH, sealOf } from '@/core/records/chain';
import { canonicalJson } from '@/core/records/canonical';
import type { JobEntry } from '@/core/records/entries';
import { byWhom } from '@/core/records/job-record';
import { stateOf } from '@/core/records/judged-run';
import { photosGone } from './altered';
import { openDatabase } from './database';
import { Desk, FINDING, newId, taken, whyNot } from './demo/desk';
import { FIXTURE_NOW as NOW } from './demo/fixture';
import { exportJob, importJob } from './job-files';
import { write } from './jobs';
import { sha256 } from './journal';
import { addPhoto, readPicture, shownPictures } from './photos';
import { findRun } from './runs';
import { readRecord } from './record';
import { addTechnician, signJob } from './technicians';
import { verify } from './verify';

/** Job files that somebody else has written, every seal as it should be. */

let desk: Desk;
let other: Knex;
let count = 0;
beforeAll(async () => {
  desk = await Desk.open();
});
afterAll(() => desk.close());
beforeEach(async () => {
  other = await openDatabase(desk.file(`other-${(count += 1)}.sqlite`));
});
afterEach(() => other.destroy());

type Entry = Record<string, unknown> & { type: string };
interface Line {
  id: string;
  place: number;
  at: string;
  entry: Entry;
  hash: string;
}
interface Draft {
  job: string;
  entries: Line[];
}

/** A file with its entries changed and every one of them sealed anew. */
function forged(text: string, alter: (draft: Draft) => void): string {
  const draft = JSON.parse(text) as Draft;
  alter(draft);
  let before = NO_HASH;
  draft.entries.forEach((line, i) => {
    line.place = i + 1;
    const body = canonicalJson(line.entry);
    line.hash = sealOf(`job/${draft.job}`, { ...line, body }, before, sha256);
    before = line.hash;
  });
  return JSON.stringify(draft);
}

const entry = (one: JobEntry) => ({ id: newId(), at: NOW, entry: one });
const fileOf = async (tag: string) => taken(await exportJob(desk.db, (await desk.jobOf(tag)).id));
const begun = ({ entries }: Draft) => entries.filter(({ entry }) => entry.type === 'run-started');
/** The run that is not finished in the demo world: a remote unit, half done. */
const openTag = async () => {
  const row = await desk
    .db('jobs')
    .join('runs', 'runs.job_id', 'jobs.id')
    .where({ 'jobs.open_run': 1, 'runs.kind': 'remote-vacuum' })
    .first('jobs.tag');
  return row.tag as string;
};

test('a photo of a file is shown and printed as a picture made here, and kept and given on as its seal has it', async () => {
  const tag = 'GF-0424';
  const job = await desk.jobOf(tag);
  const plain = { create: { width: 60, height: 30, channels: 3, background: '#a42' } } as const;
  // A picture that tells where it was taken, with a page hung on behind it.
  const theirs = Buffer.concat([
    await sharp(plain)
      .withExif({ IFD0: { Model: 'Somecam' }, IFD3: { GPSLatitude: '51/1 30/1 0/1', GPSLatitudeRef: 'N' } })
      .jpeg()
      .toBuffer(),
    Buffer.from('<html><script>alert(1)</script>'),
  ]);
  const ours = await sharp(plain).jpeg().toBuffer();
  taken(await addPhoto(desk.db, job.id, { id: newId(), point: null, caption: '' }, ours, NOW));
  const name = sha256(theirs);
  const text = forged(await fileOf(tag), (draft) => {
    const file = draft as Draft & { photos: { sha256: string; jpeg: string }[] };
    for (const line of file.entries)
      if (line.entry.type === 'photo')
        line.entry.photo = { ...(line.entry.photo as object), sha256: name, bytes: theirs.length };
    file.photos = [{ sha256: name, jpeg: theirs.toString('base64') }];
  });
  const { id } = taken(await importJob(other, text, NOW));
  const shown = taken(await readPicture(other, name));
  const { exif, width, height } = await sharp(shown).metadata();
  expect([exif, width, height]).toEqual([undefined, 60, 30]);
  expect(shown.includes('script')).toBe(false);
  expect([...(await shownPictures(other, [name, 'none'])).keys()]).toEqual([name]);
  // The record holds, and goes on to another shop as it came.
  expect((await verify(other)).alterations).toEqual([]);
  expect(await photosGone(other, (await readRecord(other, id))!)).toBe(0);
  expect(taken(await exportJob(other, id))).toContain(theirs.toString('base64'));
  // One of our own is not made twice.
  const [own] = (await readRecord(desk.db, job.id))!.photos;
  const stored = await desk.db('photos').where({ sha256: own!.what.sha256 }).first();
  expect(taken(await readPicture(desk.db, own!.what.sha256))).toEqual(stored.jpeg);
});

async function refusesWhole(text: string, sentence: RegExp): Promise<void> {
  const why = whyNot(await importJob(other, text, NOW));
  expect(why).toMatch(sentence);
  expect(why).toMatch(/Nothing was taken in\.$/);
  for (const table of ['jobs', 'runs', 'journal', 'photos']) expect(await other(table)).toEqual([]);
}

describe('a run', () => {
  test('that goes on from itself is refused', async () => {
    const text = forged(await fileOf(await openTag()), (draft) => {
      const [line] = begun(draft);
      line!.entry.continues = line!.entry.run;
    });
    await refusesWhole(text, /goes on from/);
  });

  test('that goes on from one that is not in its job is refused', async () => {
    const text = forged(await fileOf('GF-0421'), (draft) => {
      begun(draft)[0]!.entry.continues = newId();
    });
    await refusesWhole(text, /goes on from/);
  });

  test('of the name of another in the same job is refused', async () => {
    const text = forged(await fileOf('GF-0421'), (draft) => {
      const [line] = begun(draft);
      const last = draft.entries.at(-1)!;
      draft.entries.push({ ...line!, id: newId(), at: last.at });
    });
    await refusesWhole(text, /name of another/);
  });

  test('of the name of one in another job here is refused, and that one stays as it was', async () => {
    const first = await fileOf('GF-0421');
    const mine = taken(await importJob(other, first, NOW)).runs[0]!.id;
    const before = await findRun(other, mine);
    const text = forged(await fileOf('GF-0422'), (draft) => {
      const old = begun(draft)[0]!.entry.run as string;
      for (const { entry } of draft.entries) if (entry.run === old) entry.run = mine;
    });
    expect(whyNot(await importJob(other, text, NOW))).toMatch(/another job here.*Nothing was taken in\.$/);
    expect(await findRun(other, mine)).toEqual(before);
    expect(await other('jobs')).toHaveLength(1);
  });

  test('that is in a circle already is read all the same', async () => {
    const job = taken(await importJob(other, await fileOf(await openTag()), NOW));
    const { id } = job.runs[0]!;
    const row = await other('journal').where({ run_id: id }).orderBy('place').first();
    const entry = { ...(JSON.parse(row.body as string) as Entry), continues: id };
    await other.raw('drop trigger if exists journal_unchanged');
    await other('journal')
      .where({ seq: row.seq })
      .update({ body: canonicalJson(entry) });
    expect((await findRun(other, id))!.id).toBe(id);
    expect((await readRecord(other, job.id))!.runs).toHaveLength(1);
  });
});

describe('a test that is not finished', () => {
  type Item = Record<string, unknown> & { id: string; kind: string };
  type Step = Record<string, unknown> & { id: string; items: Item[] };
  const stepsOf = (draft: Draft) =>
    (begun(draft)[0]!.entry.context as { procedure: { steps: Step[] } }).procedure.steps;

  test('goes on by this program’s own safety steps, whatever its file left out of them', async () => {
    const whole = await fileOf(await openTag());
    const text = forged(whole, (draft) => {
      for (const step of stepsOf(draft)) {
        delete step.mandatory;
        delete step.gates;
        step.cautions = [];
        step.needs = [];
        step.instruction = 'Go on.';
        for (const item of step.items) {
          delete item.gate;
          delete item.stopAt_Pa;
          if (item.kind === 'wait') item.duration_s = 0.001;
        }
      }
    });
    const id = taken(await importJob(other, text, NOW)).runs[0]!.id;
    expect((await findRun(other, id))!.context.procedure).toEqual(
      (await findRun(desk.db, id))!.context.procedure,
    );
  });

  test('with a wait of nothing is refused', async () => {
    const text = forged(await fileOf(await openTag()), (draft) => {
      for (const step of stepsOf(draft))
        for (const item of step.items) if (item.kind === 'wait') item.duration_s = 0;
    });
    await refusesWhole(text, /expected number to be >0/);
  });

  test('has the safety steps that its file took out', async () => {
    const text = forged(await fileOf(await openTag()), (draft) => {
      const steps = stepsOf(draft);
      const safety = steps.filter(({ mandatory }) => mandatory).map(({ id }) => id);
      expect(safety.length).toBeGreaterThan(1);
      for (const id of safety)
        steps.splice(
          steps.findIndex((step) => step.id === id),
          1,
        );
      const gone = new Set(safety);
      for (const step of steps) step.needs = (step.needs as string[]).filter((need) => !gone.has(need));
      draft.entries = draft.entries.filter(({ entry }) => entry.type !== 'run-event');
    });
    const run = (await findRun(other, taken(await importJob(other, text, NOW)).runs[0]!.id))!;
    expect(nextAction(run.context.procedure, stateOf(run))).toMatchObject({ step: { id: 'cautions' } });
  });

  test('with a step that this program does not have is refused', async () => {
    const text = forged(await fileOf(await openTag()), (draft) => {
      stepsOf(draft).find(({ mandatory }) => !mandatory)!.id = 'made-up';
    });
    await refusesWhole(text, /not finished.*made-up/);
  });
});

test('an entry of the name of another, in the same file or in another job here, is refused', async () => {
  const text = await fileOf('GF-0421');
  const twice = forged(text, ({ entries }) => {
    entries.at(-1)!.id = entries[1]!.id;
  });
  await refusesWhole(twice, /name|identity|once|same/i);
  const theirs = await desk
    .db('journal')
    .where('chain', 'like', 'job/%')
    .whereNot({ chain: `job/${(await desk.jobOf('GF-0421')).id}` })
    .first('id', 'chain');
  taken(await importJob(other, taken(await exportJob(desk.db, (theirs.chain as string).slice(4))), NOW));
  const before = await other('journal').count({ n: '*' });
  const stolen = forged(text, ({ entries }) => {
    entries.at(-1)!.id = theirs.id as string;
  });
  expect(whyNot(await importJob(other, stolen, NOW))).toMatch(
    /stands in another job here. Nothing was taken in/,
  );
  expect(await other('journal').count({ n: '*' })).toEqual(before);
});

describe('a signature', () => {
  test('over anything but what stands before it is refused', async () => {
    const text = forged(await fileOf('GF-0421'), (draft) => {
      const entry = { type: 'signed', technician: 'Pell Tarn', head: 'ab'.repeat(32), entryRevision: 6 };
      draft.entries.push({ ...draft.entries.at(-1)!, id: newId(), entry });
    });
    await refusesWhole(text, /signature.*not over what stands before it/);
  });

  test('from a file is said to be in the file, and never given here', async () => {
    const job = await desk.jobOf('GF-0421');
    taken(await signJob(desk.db, job.id, { id: newId(), ...(await desk.signer()) }, NOW));
    const mine = (await readRecord(desk.db, job.id))!;
    expect(byWhom(mine, mine.signatures[0]!)).toBe('by Pell Tarn');
    taken(await importJob(other, taken(await exportJob(desk.db, job.id)), NOW));
    const theirs = (await readRecord(other, job.id))!;
    expect(byWhom(theirs, theirs.signatures[0]!)).toBe('in the file, by Pell Tarn');
    // What is signed here behind that is signed here.
    taken(await write(other, job.id, entry({ type: 'reopened', reason: 'One more look' })));
    const { id: technician } = taken(await addTechnician(other, { name: 'Pell Tarn', pin: '471100' }, NOW));
    taken(await signJob(other, job.id, { id: newId(), technician, pin: '471100' }, NOW));
    const both = (await readRecord(other, job.id))!;
    expect(both.signatures.map((one) => byWhom(both, one))).toEqual([
      'in the file, by Pell Tarn',
      'by Pell Tarn',
    ]);
    expect((await verify(other)).alterations).toEqual([]);
  });
});

describe('a file without measure', () => {
  test('nested as deep as it may be sent is refused in a sentence', async () => {
    const deep = `{"format":"hard-pedal-job","version":2,"job":${'['.repeat(60_000)}${']'.repeat(60_000)}}`;
    await refusesWhole(deep, /nested/);
  });

  test.each([
    [12_000_000, /has more parts than any job file/],
    [30_000_000, /has more than 40 MB beside its photos/],
  ])('of %d brackets is refused before memory is taken for each of them', async (brackets, sentence) => {
    const text = `{"format":"hard-pedal-job","version":2,"entries":[${'[],'.repeat(brackets)}[]]}`;
    await refusesWhole(text, sentence);
  });
  test('with more entries than any job has is refused', async () => {
    const text = forged(await fileOf('GF-0421'), (draft) => {
      const last = draft.entries.at(-1)!;
      for (let i = 0; i < 20_000; i += 1)
        draft.entries.push({ ...last, id: newId(), entry: { ...FINDING, entryRevision: 6 } });
    });
    await refusesWhole(text, /20.000/);
  });

  test('with very many is taken in, and its entries are not looked through for each of them', async () => {
    const most = 8_000;
    const text = forged(await fileOf('GF-0422'), (draft) => {
      const last = draft.entries.at(-1)!;
      for (let i = 0; i < most; i += 1)
        draft.entries.push({ ...last, id: newId(), entry: { ...FINDING, entryRevision: 6 } });
    });
    const there = taken(await importJob(other, text, NOW));
    expect((await readRecord(other, there.id))!.findings).toHaveLength(most);
  });
});
