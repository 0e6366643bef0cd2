import { randomUUID } from 'node:crypto';
import type { Knex } from 'knex';
import { append, jobChain } from '../journal';

type Row = Record<string, string> & { version: number };
type Json = Record<string, unknown>;

const parsed = (text: string) => JSON.parse(text) as Json;
/** Instruments had no correction table before. */
const withCorrection = (gauge: unknown): Json => ({ correction: null, ...(gauge as Json) });

/**
 * Everything that is written becomes an entry in one journal, each sealed to the one before it; the other tables
 * turn into an index over it that can be made anew at any time.
 */
export async function journal(db: Knex): Promise<void> {
  await createTables(db);
  const at = new Date().toISOString();
  const stored = (chain: string, body: unknown) =>
    append(db, chain, { id: randomUUID(), at, entry: { type: 'stored', body } });
  for (const row of (await db('settings')) as Row[]) await stored('settings', parsed(row.body!));
  for (const row of (await db('profiles')) as Row[]) await stored(`profile/${row.id}`, parsed(row.body!));
  for (const row of (await db('instruments')) as Row[]) {
    const body = withCorrection(parsed(row.body!));
    await db('instruments')
      .where({ id: row.id })
      .update({ body: JSON.stringify(body) });
    await stored(`instrument/${row.id}`, body);
  }
  await db('settings').update({ version: 1 });
  await db('profiles').update({ version: 1 });
  await db('instruments').update({ version: 1 });
  for (const job of (await db('jobs').orderBy('created_at')) as Row[]) await moveJob(db, job);
  await db.schema.dropTable('run_events');
  await db.raw('ALTER TABLE runs DROP COLUMN context');
}

async function createTables(db: Knex): Promise<void> {
  await db.schema.createTable('journal', (t) => {
    t.increments('seq');
    t.text('id').notNullable().unique();
    t.text('chain').notNullable();
    t.integer('place').notNullable();
    t.text('run_id');
    t.text('at').notNullable();
    t.text('body').notNullable();
    t.text('hash').notNullable();
    t.unique(['chain', 'place']);
    t.index(['run_id', 'place']);
  });
  await db.schema.createTable('photos', (t) => {
    t.text('sha256').primary();
    t.binary('jpeg').notNullable();
  });
  await db.schema.createTable('technicians', (t) => {
    t.text('id').primary();
    t.integer('version').notNullable();
    t.text('name').notNullable();
    t.boolean('deleted').notNullable().defaultTo(false);
    t.text('body').notNullable();
  });
  for (const table of ['profiles', 'instruments', 'jobs'])
    await db.schema.alterTable(table, (t) => t.boolean('deleted').notNullable().defaultTo(false));
  // A deleted thing keeps its tag and does not stand in the way of another.
  await db.schema.alterTable('instruments', (t) => t.dropUnique(['tag']));
  await db.raw('CREATE UNIQUE INDEX instruments_tag_unique ON instruments (tag) WHERE deleted = 0');
  await db.raw('CREATE UNIQUE INDEX technicians_name_unique ON technicians (name) WHERE deleted = 0');
  await db.schema.alterTable('jobs', (t) => {
    t.boolean('signed').notNullable().defaultTo(false);
    t.boolean('archived').notNullable().defaultTo(false);
    t.boolean('open_run').notNullable().defaultTo(false);
    t.text('headline');
    t.text('call');
    // Its row in the search table; unlike a rowid it survives a compacted copy.
    t.integer('no').unique();
    t.index(['deleted', 'archived', 'created_at']);
    t.index(['deleted', 'promised_on']);
    t.index(['deleted', 'tag']);
  });
  await db.schema.alterTable('runs', (t) => {
    t.text('continues');
    t.text('headline');
    t.text('call');
  });
  await db.raw(
    `CREATE VIRTUAL TABLE job_search USING fts5(text, tokenize = "unicode61 remove_diacritics 2", prefix = '2 3')`,
  );
  await db.schema.createTable('derived', (t) => {
    t.integer('id').primary();
    t.integer('version').notNullable();
  });
}

async function moveJob(db: Knex, job: Row): Promise<void> {
  const chain = jobChain(job.id!);
  const profile = (await db('profiles').where({ id: job.profile_id }).first()) as Row;
  await append(db, chain, {
    id: randomUUID(),
    at: job.created_at!,
    entry: {
      type: 'taken-in',
      job: parsed(job.body!),
      profile: { id: profile.id, kind: profile.kind, body: parsed(profile.body!) },
    },
  });
  for (const run of (await db('runs').where({ job_id: job.id }).orderBy('started_at')) as Row[]) {
    const context = parsed(run.context!) as { rig: Record<string, unknown[]>; shelf: unknown[] };
    const rig = Object.fromEntries(
      Object.entries(context.rig).map(([port, gauges]) => [port, gauges.map(withCorrection)]),
    );
    await append(db, chain, {
      id: randomUUID(),
      at: run.started_at!,
      entry: {
        type: 'run-started',
        run: run.id,
        kind: run.kind,
        context: { ...context, rig, shelf: context.shelf.map(withCorrection) },
        continues: null,
      },
    });
    for (const row of (await db('run_events').where({ run_id: run.id }).orderBy('seq')) as Row[]) {
      const event = parsed(row.body!);
      await append(db, chain, {
        id: row.id!,
        at: row.recorded_at!,
        entry: { type: 'run-event', run: run.id, event },
      });
    }
  }
}
