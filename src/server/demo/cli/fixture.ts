import { openDatabase } from '../../database';
import { seedDemo } from '../seed';

/** `tsx src/server/demo/cli/fixture.ts FILE MOMENT`: the demo world as of a moment into one file, for tests. */
async function main([file, moment]: readonly string[]) {
  const db = await openDatabase(file!);
  await seedDemo(db, new Date(moment!));
  await db.raw('PRAGMA wal_checkpoint(TRUNCATE)');
  await db.destroy();
}

void main(process.argv.slice(2));
