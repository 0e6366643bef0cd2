import { randomUUID } from 'node:crypto';
import { readFileSync, rmSync } from 'node:fs';
import { backUp, databaseFile, withoutPins } from '@/server/backup';
import { dataFolder, noteBackup, scratchFile } from '@/server/folder';
import { answerFile, now, today } from '@/server/http';
import { done } from '@/server/outcome';

export const GET = () =>
  answerFile('application/vnd.sqlite3', async () => {
    const copy = scratchFile(`${randomUUID()}.sqlite`);
    try {
      backUp(databaseFile(), copy);
      withoutPins(copy);
      const name = `hard-pedal-${today()}.sqlite`;
      const body = readFileSync(copy);
      noteBackup(dataFolder(), `${name}, saved in a browser`, now());
      return done({ name, body });
    } finally {
      rmSync(copy, { force: true });
    }
  });
