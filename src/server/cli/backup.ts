import path from 'node:path';
import { backUp, databaseFile } from '../backup';
import { dataFolder, noteBackup } from '../folder';

const [file] = process.argv.slice(2);
if (!file) {
  console.error('Say where to: npm run backup -- FILE');
  process.exit(2);
}
try {
  backUp(databaseFile(), path.resolve(file));
  noteBackup(dataFolder(), path.resolve(file), new Date().toISOString());
  console.log(`Backup written to ${path.resolve(file)}.`);
} catch (error) {
  console.error((error as Error).message);
  process.exit(1);
}
