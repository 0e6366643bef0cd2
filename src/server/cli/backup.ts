import path from 'node:path';
import { backUp } from '../backup';
import { dataFolder, noteBackup } from '../folder';
import { atTheCommandLine, shopHere } from './at-the-command-line';

atTheCommandLine(() => {
  const [file] = process.argv.slice(2);
  if (!file) throw new Error('Say where to: npm run backup -- FILE');
  backUp(shopHere(), path.resolve(file));
  noteBackup(dataFolder(), path.resolve(file), new Date().toISOString());
  console.log(`Backup written to ${path.resolve(file)}.`);
});
