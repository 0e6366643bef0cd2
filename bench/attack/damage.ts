import {
  copyFileSync,
  existsSync,
  mkdtempSync,
  openSync,
  readFileSync,
  rmSync,
  writeFileSync,
  writeSync,
  closeSync,
} from 'node:fs';
import { tmpdir } from 'node:os';
import { gunzipSync, gzipSync } from 'node:zlib';
import path from 'node:path';
import Sqlite from 'better-sqlite3';
import type { Knex } from 'knex';
import { seeded } from '../../src/core/numeric/chance';
import { jobQuerySchema } from '../../src/core/records/job-query';
import { openDatabase } from '../../src/server/database';
import { Desk, newId, picture, taken } from '../../src/server/demo/desk';
import { FIXTURE_NOW } from '../../src/server/demo/fixture';
import { keepHead } from '../../src/server/head-file';
import { exportJob } from '../../src/server/job-files';
import { searchJobs } from '../../src/server/job-list';
import { addPhoto } from '../../src/server/photos';
import { readingsCsv, reportOf } from '../../src/server/reports';
import { troubleWords } from '../../src/server/trouble';
import { verify } from '../../src/server/verify';

/**
 * Damage to the files of a shop: single bytes over every table, index and the write-ahead log, and changes of structure. Each is found by
 * verifying, refused in words as the database is opened, or harmless: all that can be printed or sent out is then as it was, to the last
 * letter. What is printed is never otherwise without a word, found or not.
 *
 * npx tsx --tsconfig tsconfig.json bench/attack/damage.ts [SEED] [FLIPS]
 */
const SEED = Number(process.argv[2] ?? Date.now() % 100_000);
const FLIPS = Number(process.argv[3] ?? 60);
const NAME = 'hard-pedal.sqlite';
const TAILS = ['', '-wal', '.head'] as const;
const random = seeded(SEED);
const below = (most: number) => Math.floor(random() * most);

/** A shop's files as an application that was killed leaves them: the last entries stand in the write-ahead log alone. */
async function shop(): Promise<string> {
  const desk = await Desk.open();
  const job = await desk.jobOf('GF-0424');
  const jpeg = await picture().jpeg().toBuffer();
  taken(await addPhoto(desk.db, job.id, { id: newId(), point: null, caption: 'Cap' }, jpeg, FIXTURE_NOW));
  await desk.db.raw('PRAGMA wal_checkpoint(TRUNCATE)');
  for (const words of ['Hisses', 'Knocks', 'Weeps'])
    await desk.note(job.id, { type: 'finding', finding: { kind: 'noise', point: null, words, fault: null } });
  // As the application does behind each answer.
  await keepHead(desk.db);
  const folder = mkdtempSync(path.join(tmpdir(), 'hard-pedal-damage-'));
  for (const tail of TAILS)
    if (existsSync(desk.file(NAME + tail)))
      copyFileSync(desk.file(NAME + tail), path.join(folder, NAME + tail));
  await desk.close();
  return folder;
}

/** What can be printed or sent out, each by its name; a refusal is none. */
async function printed(db: Knex): Promise<Map<string, unknown>> {
  const papers = new Map<string, unknown>();
  const keep = async (name: string, work: () => Promise<{ ok: boolean; value?: unknown }>) => {
    const outcome = await work().catch(() => ({ ok: false }) as const);
    if (outcome.ok) papers.set(name, (outcome as { value: unknown }).value);
  };
  const { jobs } = await searchJobs(db, jobQuerySchema.parse({ show: 'all', size: 200 })).catch(() => ({
    jobs: [],
  }));
  for (const job of jobs) {
    await keep(`file of ${job.body.tag}`, () => exportJob(db, job.id));
    for (const { id } of job.runs) {
      await keep(`report of ${job.body.tag}, ${id}`, () => reportOf(db, id));
      await keep(`readings of ${job.body.tag}, ${id}`, () => readingsCsv(db, id));
    }
  }
  return papers;
}

interface Looked {
  /** Why the database is not opened, or what verifying finds; empty where nothing is. */
  readonly found: readonly string[];
  readonly papers: ReadonlyMap<string, unknown>;
}

async function look(folder: string): Promise<Looked> {
  let db: Knex | null = null;
  try {
    db = await openDatabase(path.join(folder, NAME));
    const { alterations } = await verify(db);
    const found = alterations.map(
      ({ where, entry, what }) => `${where}${entry === null ? '' : `, entry ${entry}`}: ${what}`,
    );
    return { found, papers: await printed(db) };
  } catch (error) {
    const words = troubleWords(error);
    return { found: [words ?? `WITHOUT WORDS: ${(error as Error).message}`], papers: new Map() };
  } finally {
    await db?.destroy().catch(() => undefined);
  }
}

function copyOf(sound: string): string {
  const folder = mkdtempSync(path.join(tmpdir(), 'hard-pedal-damage-'));
  for (const tail of TAILS)
    if (existsSync(path.join(sound, NAME + tail)))
      copyFileSync(path.join(sound, NAME + tail), path.join(folder, NAME + tail));
  return folder;
}

/** Where the bytes of each table and index lie, and the write-ahead log. */
function places(sound: string): {
  readonly name: string;
  readonly file: string;
  readonly ranges: (readonly [from: number, length: number])[];
}[] {
  const copy = copyOf(sound);
  rmSync(path.join(copy, `${NAME}-wal`));
  const db = new Sqlite(path.join(copy, NAME));
  const pages = db.prepare('SELECT name, pgoffset, pgsize FROM dbstat').all() as {
    name: string;
    pgoffset: number;
    pgsize: number;
  }[];
  db.close();
  rmSync(copy, { recursive: true });
  const names = [...new Set(pages.map(({ name }) => name))];
  const wal = readFileSync(path.join(sound, `${NAME}-wal`)).length;
  return [
    ...names.map((name) => ({
      name,
      file: NAME,
      ranges: pages
        .filter((page) => page.name === name)
        .map(({ pgoffset, pgsize }) => [pgoffset, pgsize] as const),
    })),
    { name: 'write-ahead log', file: `${NAME}-wal`, ranges: [[0, wal]] },
  ];
}

function flip(file: string, ranges: readonly (readonly [number, number])[]): string {
  const [from, length] = ranges[below(ranges.length)]!;
  const at = from + below(length);
  const bit = 1 << below(8);
  const bytes = readFileSync(file);
  const handle = openSync(file, 'r+');
  writeSync(handle, Buffer.from([bytes[at]! ^ bit]), 0, 1, at);
  closeSync(handle);
  return `byte ${at}, bit ${Math.log2(bit)}`;
}

/** Runs statements on a copy as somebody would who can open the file: what guards the journal is put back as it was. */
function bySql(...statements: readonly string[]) {
  return (folder: string) => {
    const db = new Sqlite(path.join(folder, NAME));
    const guards = db.prepare("SELECT name, sql FROM sqlite_master WHERE type = 'trigger'").all() as {
      name: string;
      sql: string;
    }[];
    for (const { name } of guards) db.exec(`DROP TRIGGER "${name}"`);
    db.pragma('foreign_keys = OFF');
    for (const statement of statements) db.exec(statement);
    for (const { sql } of guards) db.exec(sql);
    db.close();
  };
}
const LAST_OF_JOB = "(SELECT seq FROM journal WHERE chain LIKE 'job/%' ORDER BY seq DESC LIMIT 1)";
const FIRST_JOB = "(SELECT chain FROM journal WHERE chain LIKE 'job/%' LIMIT 1)";
const STRUCTURAL: Readonly<Record<string, (folder: string) => void>> = {
  'a line in the middle of a job is taken out': bySql(
    `DELETE FROM journal WHERE chain = ${FIRST_JOB} AND place = 2`,
  ),
  'the first line of a job is taken out': bySql(
    `DELETE FROM journal WHERE chain = ${FIRST_JOB} AND place = 1`,
  ),
  'the last line of the journal is taken out': bySql(`DELETE FROM journal WHERE seq = ${LAST_OF_JOB}`),
  'and the count is set back to it': bySql(
    `DELETE FROM journal WHERE seq = ${LAST_OF_JOB}`,
    "UPDATE sqlite_sequence SET seq = (SELECT max(seq) FROM journal) WHERE name = 'journal'",
  ),
  'a whole job is taken out of the journal': bySql(`DELETE FROM journal WHERE chain = ${FIRST_JOB}`),
  'two lines change places': bySql(
    `UPDATE journal SET place = -1 WHERE chain = ${FIRST_JOB} AND place = 2`,
    `UPDATE journal SET place = 2 WHERE chain = ${FIRST_JOB} AND place = 3`,
    `UPDATE journal SET place = 3 WHERE place = -1`,
  ),
  'a line is dated back': bySql(
    `UPDATE journal SET at = '2020-01-01T00:00:00.000Z' WHERE seq = ${LAST_OF_JOB}`,
  ),
  'a reading is altered': bySql(
    `UPDATE journal SET body = replace(body, '"value_SI":', '"value_SI":1') WHERE body LIKE '%"captured"%' AND chain = (SELECT chain FROM journal WHERE body LIKE '%"captured"%' LIMIT 1)`,
  ),
  'a verdict is altered': bySql(
    `UPDATE journal SET body = replace(body, '"fails"', '"meets"') WHERE body LIKE '%"fails"%'`,
  ),
  'a signature is taken from another job': bySql(
    `UPDATE journal SET chain = ${FIRST_JOB}, place = 999 WHERE body LIKE '%"signed"%'`,
  ),
  'a job is taken out of the index': bySql('DELETE FROM jobs WHERE id = (SELECT id FROM jobs LIMIT 1)'),
  'a run is taken out of the index': bySql('DELETE FROM runs WHERE id = (SELECT id FROM runs LIMIT 1)'),
  'a photo is exchanged': bySql("UPDATE photos SET jpeg = x'FFD8FFD9'"),
  'a photo is taken out': bySql('DELETE FROM photos'),
  'what a trace yields is altered': (folder) => {
    const db = new Sqlite(path.join(folder, NAME));
    const rows = db.prepare('SELECT trace_id, analysis FROM trace_data').all() as {
      trace_id: string;
      analysis: Buffer;
    }[];
    for (const { trace_id, analysis } of rows)
      db.prepare('UPDATE trace_data SET analysis = ? WHERE trace_id = ?').run(
        gzipSync(gunzipSync(analysis).toString('utf8').replaceAll('"value":1', '"value":9')),
        trace_id,
      );
    db.close();
  },
  'a trigger is added': bySql('CREATE TRIGGER sly AFTER INSERT ON journal BEGIN DELETE FROM photos; END'),
  'an index is taken out': bySql(`DROP INDEX ${'"'}journal_chain_place_unique${'"'}`),
  'the write-ahead log is taken away': (folder) => rmSync(path.join(folder, `${NAME}-wal`)),
  'the file is cut in half': (folder) => {
    const bytes = readFileSync(path.join(folder, NAME));
    writeFileSync(path.join(folder, NAME), bytes.subarray(0, bytes.length / 2));
  },
  'the file has lost its header': (folder) => {
    const bytes = readFileSync(path.join(folder, NAME));
    writeFileSync(path.join(folder, NAME), bytes.fill(0, 0, 100));
  },
};

/** Words of a report that say what is not known of it. */
const DOUBT =
  /gone from the journal|may be missing here|missing, or (is|are) not as|altered since it was written/;

/**
 * Whether a paper that is not as it was says so itself: a report in words before all else or beside the trace, a job file by ending where
 * the record ends, which Bench and verifying say.
 */
function isSaid(before: unknown, after: unknown, found: readonly string[]): boolean {
  if (typeof after !== 'string')
    return DOUBT.test(JSON.stringify(after)) && !DOUBT.test(JSON.stringify(before));
  const entriesIn = (text: unknown) => (JSON.parse(text as string) as { entries?: unknown[] }).entries ?? [];
  if (!after.startsWith('{') || found.length === 0) return false;
  const [all, left] = [entriesIn(before), entriesIn(after)];
  return left.length < all.length && JSON.stringify(left) === JSON.stringify(all.slice(0, left.length));
}

type Kind = 'found' | 'harmless' | 'silent' | 'without words';

function kindOf(
  whole: Looked,
  { found, papers }: Looked,
): { readonly kind: Kind; readonly silent: readonly string[] } {
  const otherwise = [...papers].filter(
    ([name, paper]) => JSON.stringify(whole.papers.get(name)) !== JSON.stringify(paper),
  );
  const silent = otherwise.flatMap(([name, paper]) =>
    isSaid(whole.papers.get(name), paper, found) ? [] : [name],
  );
  if (silent.length > 0) return { kind: 'silent', silent };
  if (found.some((one) => one.startsWith('WITHOUT WORDS'))) return { kind: 'without words', silent };
  const isAsItWas = found.length === 0 && otherwise.length === 0 && papers.size === whole.papers.size;
  return { kind: isAsItWas ? 'harmless' : 'found', silent };
}

async function main() {
  const sound = await shop();
  const first = copyOf(sound);
  const whole = await look(first);
  rmSync(first, { recursive: true });
  console.log(`seed ${SEED}: ${whole.papers.size} papers of a sound shop, ${whole.found.length} alterations`);
  const kinds: Record<Kind, number> = { found: 0, harmless: 0, silent: 0, 'without words': 0 };
  const judge = async (name: string, folder: string) => {
    const looked = await look(folder);
    const { kind, silent } = kindOf(whole, looked);
    kinds[kind] += 1;
    const words = [
      `${kind}: ${name}`,
      `${whole.papers.size - looked.papers.size} papers refused`,
      ...silent.map((paper) => `printed otherwise: ${paper}`),
      ...looked.found.slice(0, 1),
      ...(looked.found.length > 1 ? [`and ${looked.found.length - 1} more`] : []),
    ];
    console.log(words.join('; '));
    rmSync(folder, { recursive: true });
  };
  const where = places(sound);
  // Each place once, then those again in turn.
  for (let i = 0; i < FLIPS; i += 1) {
    const { name, file, ranges } = where[i % where.length]!;
    const folder = copyOf(sound);
    await judge(`${name}, ${flip(path.join(folder, file), ranges)}`, folder);
  }
  for (const [name, damage] of Object.entries(STRUCTURAL)) {
    const folder = copyOf(sound);
    damage(folder);
    await judge(name, folder);
  }
  console.log(JSON.stringify({ seed: SEED, places: where.length, ...kinds }));
  rmSync(sound, { recursive: true });
  process.exitCode = kinds.silent + kinds['without words'] > 0 ? 1 : 0;
}

void main();
