import { createHash } from 'node:crypto';
import type { Knex } from 'knex';
import { canonicalJson } from '@/core/records/canonical';
import type { Link } from '@/core/records/chain';
import { jobEntrySchema } from '@/core/records/entries';
import { judgedChain } from '@/core/records/job-file';
import { jobRecord, type JobRecord } from '@/core/records/job-record';
import type { Alteration, Verification } from '@/core/records/verification';
import { alteredEntries } from './altered';
import { IN_MEMORY, openDatabase } from './database';
import { losses, lossWords, shortOfHead } from './head-file';
import { indexRows, rowSays } from './job-index';
import { jobChain, jobEntryFrom, sha256, writtenFrom, type JournalRow } from './journal';
import { judgementsFrom } from './record';
import type { ShelfEntry } from './store';
import { isDataAsWritten } from './trace-seals';

/**
 * Reads the whole database as it lies on disk and finds whatever was altered behind the application's back: in a
 * record, in a photo, or in what is derived from them. Every finding says where.
 */
export async function verify(db: Knex): Promise<Verification> {
  const found: Alteration[] = [];
  for (const { integrity_check: message } of (await db.raw('PRAGMA integrity_check')) as {
    integrity_check: string;
  }[])
    if (message !== 'ok') found.push({ where: 'The file itself', entry: null, what: message });
  const last = await lastSeq(db);
  const rows = await readRows(db, last);
  found.push(...gaps(rows, last), ...(await schemaAlterations(db)), ...(await headAlterations(db)));
  const chains = new Map<string, JournalRow[]>();
  for (const row of rows) chains.set(row.chain, [...(chains.get(row.chain) ?? []), row]);
  const photos = await photoSeals(db, found);
  const jobs = new Set<string>();
  for (const [chain, links] of chains) {
    const sorted = links.sort((a, b) => a.place - b.place);
    const where = nameOf(chain, sorted);
    found.push(...alteredEntries(chain, sorted).map((one) => ({ where, ...one })));
    if (!chain.startsWith(jobChain(''))) {
      found.push(...(await shelfAlterations(db, chain, sorted, where)));
      continue;
    }
    const id = chain.slice(jobChain('').length);
    jobs.add(id);
    const runs = new Set(sorted.flatMap(({ run_id }) => run_id ?? []));
    const judged = [...runs].flatMap((run) => chains.get(judgedChain(run)) ?? []);
    const record = recordFrom(id, sorted, judged);
    if (record)
      found.push(...(await indexAlterations(db, record, where)), ...missingPhotos(record, photos, where));
  }
  for (const { id, tag } of (await db('jobs').select('id', 'tag')) as { id: string; tag: string }[])
    if (!jobs.has(id)) found.push({ where: tag, entry: null, what: 'This job has no record behind it.' });
  found.push(...(await traceAlterations(db)));
  return { entries: rows.length, records: chains.size, photos: photos.size, alterations: found };
}

/**
 * Every line of the journal in the order of its rows: an index that was altered cannot hide one. Where the file is
 * too damaged to be read through, each line is read by itself and those that cannot be are left out.
 */
async function readRows(db: Knex, last: number): Promise<JournalRow[]> {
  try {
    return await db.raw('SELECT * FROM journal NOT INDEXED ORDER BY seq');
  } catch {
    const rows: JournalRow[] = [];
    for (let seq = 1; seq <= last; seq += 1) {
      const row = await db<JournalRow>('journal')
        .where({ seq })
        .first()
        .catch(() => undefined);
      if (row) rows.push(row);
    }
    return rows;
  }
}

async function lastSeq(db: Knex): Promise<number> {
  const row = await db('sqlite_sequence').where({ name: 'journal' }).first();
  return row?.seq ?? 0;
}

type Schema = ReadonlyMap<string, { readonly type: string; readonly sql: string | null }>;

async function schemaOf(db: Knex): Promise<Schema> {
  const rows: { name: string; type: string; sql: string | null }[] = await db('sqlite_master')
    .whereNot('name', 'like', 'sqlite_%')
    .select('name', 'type', 'sql');
  return new Map(rows.map(({ name, type, sql }) => [name, { type, sql }]));
}

/** What the migrations make: worked out once. */
let ownSchema: Promise<Schema> | null = null;

async function schemaMade(): Promise<Schema> {
  const fresh = await openDatabase(IN_MEMORY);
  const schema = await schemaOf(fresh);
  await fresh.destroy();
  return schema;
}

/** Tables, indexes and triggers must be those that the migrations make. */
async function schemaAlterations(db: Knex): Promise<Alteration[]> {
  const [own, here] = [await (ownSchema ??= schemaMade()), await schemaOf(db)];
  const at = (what: string): Alteration => ({ where: 'The schema', entry: null, what });
  return [
    ...[...own].flatMap(([name, { type, sql }]) => {
      const there = here.get(name);
      if (!there) return at(`The ${type} “${name}” is gone.`);
      return there.sql === sql ? [] : at(`The ${type} “${name}” is not as this program makes it.`);
    }),
    ...[...here].flatMap(([name, { type }]) =>
      own.has(name) ? [] : at(`It has a ${type} “${name}” that this program does not have.`),
    ),
  ];
}

/** How far the journal had come, and what was noticed to be lost of it. */
async function headAlterations(db: Knex): Promise<Alteration[]> {
  const where = 'The journal';
  const short = await shortOfHead(db);
  return [
    ...(await losses(db)).map(({ loss }) => ({ where, entry: null, what: lossWords(loss) })),
    ...(short
      ? [
          {
            where,
            entry: null,
            what: `It had come to line ${short.seq}, and that line is not there as it was.`,
          },
        ]
      : []),
  ];
}

/** Rows taken out whole: the journal counts up without a gap. */
function gaps(rows: readonly { seq: number }[], last: number): Alteration[] {
  const present = new Set(rows.map(({ seq }) => seq));
  const missing = Array.from({ length: last }, (_, i) => i + 1).filter((seq) => !present.has(seq));
  return missing.map((seq) => ({
    where: 'The journal',
    entry: null,
    what: `Line ${seq} of the journal is gone or cannot be read.`,
  }));
}

async function photoSeals(db: Knex, found: Alteration[]): Promise<Set<string>> {
  const names: { sha256: string }[] = await db('photos').select('sha256');
  for (const { sha256: name } of names) {
    const { jpeg } = await db('photos').where({ sha256: name }).first('jpeg');
    if (sha256(jpeg) !== name)
      found.push({
        where: `Photo ${name.slice(0, 12)}`,
        entry: null,
        what: 'This picture is not as it was stored.',
      });
  }
  return new Set(names.map(({ sha256: name }) => name));
}

const missingPhotos = (record: JobRecord, photos: ReadonlySet<string>, where: string): Alteration[] =>
  record.photos
    .filter(({ what }) => !photos.has(what.sha256))
    .map(({ what }) => ({ where, entry: null, what: `Photo ${what.sha256.slice(0, 12)} is missing.` }));

function recordFrom(id: string, links: readonly Link[], judged: readonly JournalRow[]): JobRecord | null {
  try {
    return jobRecord(
      id,
      links.map((link) => {
        const written = jobEntryFrom(link);
        return { ...written, entry: jobEntrySchema.parse(written.entry) };
      }),
      judgementsFrom(judged),
    );
  } catch {
    return null;
  }
}

/** A record by what it is called; an entry that has lost its record by its line. */
function nameOf(chain: string, links: readonly JournalRow[]): string {
  const first = links[0]!;
  const stray = `Line ${first.seq} of the journal`;
  try {
    const { job, body } = JSON.parse(first.body) as {
      job?: { tag: string };
      body?: { tag?: string; name?: string };
    };
    const name = job?.tag ?? body?.tag ?? body?.name;
    if (first.place !== 1) return stray;
    return name ? `${chain.split('/')[0]!.replace(/^./, (c) => c.toUpperCase())} ${name}` : chain;
  } catch {
    return stray;
  }
}

/** Lists and searches must show what the record says. */
async function indexAlterations(db: Knex, record: JobRecord, where: string): Promise<Alteration[]> {
  const { job, runs, text } = indexRows(record);
  const row = await db('jobs').where({ id: job.id }).first();
  const found: Alteration[] = [];
  if (!rowSays(row, job))
    found.push({ where, entry: null, what: 'The list of jobs does not show what its record says.' });
  const stored: Record<string, unknown>[] = await db('runs').where({ job_id: job.id });
  for (const run of runs)
    if (
      !rowSays(
        stored.find(({ id }) => id === run.id),
        run,
      )
    )
      found.push({ where, entry: null, what: 'The list of runs does not show what the record says.' });
  if (stored.length > runs.length)
    found.push({ where, entry: null, what: 'A run stands in the list that is not in the record.' });
  const search = row && (await db('job_search').where({ rowid: row.no }).first('text'));
  if (search?.text !== text)
    found.push({ where, entry: null, what: 'The search does not find what the record says.' });
  return found;
}

const TABLES: Readonly<Record<string, string>> = {
  profile: 'profiles',
  instrument: 'instruments',
  comparison: 'comparisons',
  technician: 'technicians',
  trace: 'traces',
  settings: 'settings',
};

/** What is on the shelf must be the last version in its history. */
async function shelfAlterations(
  db: Knex,
  chain: string,
  links: readonly Link[],
  where: string,
): Promise<Alteration[]> {
  const [kind = '', id] = chain.split('/');
  const table = TABLES[kind];
  if (!table) return [];
  try {
    let body: unknown = null;
    let deleted = false;
    for (const link of links) {
      const { entry } = writtenFrom<ShelfEntry>(link);
      if (entry.type === 'deleted') deleted = entry.deleted;
      else body = entry.body;
    }
    const row = id ? await db(table).where({ id }).first() : await db(table).first();
    const now = row && { body: JSON.parse(row.body) as unknown, deleted: Boolean(row.deleted) };
    return now && canonicalJson(now.body) === canonicalJson(body) && now.deleted === deleted
      ? []
      : [{ where, entry: null, what: 'What is on the shelf is not the last version written.' }];
  } catch {
    return [{ where, entry: null, what: 'What is on the shelf cannot be read.' }];
  }
}

/** The readings of every trace against the seal that is written of them. */
async function traceAlterations(db: Knex): Promise<Alteration[]> {
  const found: Alteration[] = [];
  const all = (await db('traces').select('id', 'name', 'body')) as {
    id: string;
    name: string;
    body: string;
  }[];
  for (const { id, name, body } of all) {
    const rows = (await db('trace_chunks')
      .where({ trace_id: id })
      .orderBy(['chunk', 'column'])
      .select('data')) as { data: Buffer }[];
    const hash = createHash('sha256');
    for (const { data } of rows) hash.update(data);
    const altered = (what: string) => found.push({ where: `Trace ${name}`, entry: null, what });
    if (hash.digest('hex') !== sealIn(body)) altered('Its readings are not as they were written.');
    if (!(await isDataAsWritten(db, id))) altered('What was worked out of it is not as it was written.');
  }
  return found;
}

function sealIn(body: string): string | null {
  try {
    return (JSON.parse(body) as { sha256?: string }).sha256 ?? null;
  } catch {
    return null;
  }
}
