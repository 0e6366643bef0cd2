import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { backUp, databaseFile } from '@/server/backup';
import { answerFile, today } from '@/server/http';
import { done } from '@/server/outcome';

export const GET = () =>
  answerFile('application/vnd.sqlite3', async () => {
    const folder = mkdtempSync(path.join(tmpdir(), 'hard-pedal-backup-'));
    try {
      const copy = path.join(folder, 'backup.sqlite');
      backUp(databaseFile(), copy);
      return done({ name: `hard-pedal-${today()}.sqlite`, body: readFileSync(copy) });
    } finally {
      rmSync(folder, { recursive: true, force: true });
    }
  });
