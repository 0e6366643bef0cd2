import knex from 'knex';
import { MIGRATION_NAMES } from '../migrations';
import { verify } from '../verify';
import { atTheCommandLine, shopHere } from './at-the-command-line';

async function main() {
  const db = knex({
    client: 'better-sqlite3',
    connection: { filename: shopHere(), options: { readonly: true } },
    useNullAsDefault: true,
  });
  const look = async () => {
    const made = (await db('knex_migrations').select('name')) as { name: string }[];
    if (made.length < MIGRATION_NAMES.length)
      throw new Error(
        'An older Hard Pedal wrote this last. Start the application once, which brings it up to date; then verify.',
      );
    return verify(db);
  };
  const { entries, records, photos, alterations } = await look().finally(() => db.destroy());
  for (const { where, entry, what } of alterations)
    console.log(`${where}${entry === null ? '' : `, entry ${entry}`}: ${what}`);
  console.log(
    alterations.length === 0
      ? `${entries} entries in ${records} records and ${photos} photos are as they were written.`
      : `${alterations.length} places are not as they were written.`,
  );
  process.exitCode = alterations.length === 0 ? 0 : 1;
}

atTheCommandLine(main);
