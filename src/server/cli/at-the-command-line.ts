import { existsSync } from 'node:fs';
import { databaseFile } from '../backup';
import { dataFolder } from '../folder';
import { troubleWords } from '../trouble';

/** Does what was asked at the command line; where it cannot be done, says why in a sentence, and ends with a failure. */
export function atTheCommandLine(work: () => Promise<void> | void): void {
  Promise.resolve()
    .then(work)
    .catch((error: unknown) => {
      console.error(troubleWords(error) ?? (error as Error).message);
      process.exit(1);
    });
}

/** The database of the shop in the data folder. Looking at one that is not there would make an empty one. @throws Error */
export function shopHere(): string {
  const file = databaseFile();
  if (!existsSync(file))
    throw new Error(`There is no shop in ${dataFolder()}: HARD_PEDAL_DATA names another folder.`);
  return file;
}
