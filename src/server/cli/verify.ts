import knex from 'knex';
import { databaseFile } from '../backup';
import { verify } from '../verify';

async function main() {
  const db = knex({
    client: 'better-sqlite3',
    connection: { filename: databaseFile() },
    useNullAsDefault: true,
  });
  const { entries, records, photos, alterations } = await verify(db);
  await db.destroy();
  for (const { where, entry, what } of alterations)
    console.log(`${where}${entry === null ? '' : `, entry ${entry}`}: ${what}`);
  console.log(
    alterations.length === 0
      ? `${entries} entries in ${records} records and ${photos} photos are as they were written.`
      : `${alterations.length} places are not as they were written.`,
  );
  process.exitCode = alterations.length === 0 ? 0 : 1;
}

main().catch((error: Error) => {
  console.error(error.message);
  process.exit(1);
});
