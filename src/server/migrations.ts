import type { Knex } from 'knex';
import { firstTables } from './migrations/001-first-tables';
import { journal } from './migrations/002-journal';
import { traces } from './migrations/003-traces';
import { traceJobs } from './migrations/004-trace-jobs';
import { judgements } from './migrations/005-judgements';
import { shelfRevisions } from './migrations/006-shelf-revisions';
import { recordings } from './migrations/007-recordings';
import { listColumns } from './migrations/008-list-columns';
import { preCharges } from './migrations/009-pre-charges';
import { pins } from './migrations/011-pins';
import { photosMadeHere } from './migrations/012-photos-made-here';
import { comparisons } from './migrations/013-comparisons';
import { practiceCases } from './migrations/014-practice-cases';
import { days } from './migrations/015-days';
import { traceSeals } from './migrations/010-trace-seals';

/** Forward only: what has run on a user's data is never edited, only followed by another. */
const MIGRATIONS: Record<string, (db: Knex) => Promise<void>> = {
  '001-first-tables': firstTables,
  '002-journal': journal,
  '003-traces': traces,
  '004-trace-jobs': traceJobs,
  '005-judgements': judgements,
  '006-shelf-revisions': shelfRevisions,
  '007-recordings': recordings,
  '008-list-columns': listColumns,
  '009-pre-charges': preCharges,
  '010-trace-seals': traceSeals,
  '011-pins': pins,
  '012-photos-made-here': photosMadeHere,
  '013-comparisons': comparisons,
  '014-practice-cases': practiceCases,
  '015-days': days,
};

/** Migrations as a static map, so that the same code runs in the server, in scripts and in tests. */
export const migrationSource: Knex.MigrationSource<string> = {
  getMigrations: () => Promise.resolve(Object.keys(MIGRATIONS)),
  getMigrationName: (name) => name,
  getMigration: (name) => Promise.resolve({ up: MIGRATIONS[name]!, down: () => Promise.resolve() }),
};

export const MIGRATION_NAMES = Object.keys(MIGRATIONS);
