import { writeFileSync } from 'node:fs';
import path from 'node:path';
import { database } from '../../database';
import { dataFolder } from '../../folder';
import { benchAsLeft } from '../bench-as-left';
import { seedDemo } from '../seed';

/** `tsx src/server/demo/cli/seed.ts`: the demo world into HARD_PEDAL_DATA. */
async function main() {
  const db = await database();
  const { HARD_PEDAL_LOGGER_PORT: logger, HARD_PEDAL_VEHICLE_PORT: vehicle } = process.env;
  const at = (port: string | undefined) => (port ? `127.0.0.1:${port}` : '');
  const made = await seedDemo(db, new Date(), { logger: at(logger), vehicle: at(vehicle) });
  // The simulated bench begins as the open run left it.
  writeFileSync(path.join(dataFolder(), 'bench.json'), JSON.stringify(await benchAsLeft(db)));
  console.log(made ? 'Demo data made.' : 'There are jobs already; demo data left as it is.');
  await db.destroy();
}

void main();
