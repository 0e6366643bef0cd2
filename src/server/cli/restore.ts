import path from 'node:path';
import { restore } from '../backup';
import { dataFolder } from '../folder';
import { runningServer } from '../running';
import { atTheCommandLine } from './at-the-command-line';

async function main() {
  const [file] = process.argv.slice(2);
  if (!file) throw new Error('Say what from: npm run restore -- FILE');
  const server = runningServer(dataFolder());
  if (server) throw new Error(`The application is running (process ${server}). Stop it first.`);
  const stamp = new Date().toISOString().replace(/[:.]/g, '-');
  const { kept, verification } = await restore(dataFolder(), path.resolve(file), stamp);
  if (kept) console.log(`What was there is kept as ${kept}.`);
  console.log(`Restored: ${verification.entries} entries in ${verification.records} records.`);
  for (const { where, what } of verification.alterations) console.log(`NOT AS WRITTEN: ${where}: ${what}`);
  if (verification.alterations.length > 0) process.exitCode = 1;
}

atTheCommandLine(main);
