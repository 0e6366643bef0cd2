import { database } from '../../database';
import { seedDemo } from '../seed';

/** `tsx src/server/demo/cli/seed.ts`: the demo world into HARD_PEDAL_DATA. */
async function main() {
  const db = await database();
  const port = process.env.HARD_PEDAL_LOGGER_PORT;
  const made = await seedDemo(db, new Date(), port ? `127.0.0.1:${port}` : '');
  console.log(made ? 'Demo data made.' : 'There are jobs already; demo data left as it is.');
  await db.destroy();
}

void main();
