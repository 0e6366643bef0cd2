import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';

/** Names the process that works on a data folder, for those who must not touch it meanwhile. */
const mark = (folder: string) => path.join(/*turbopackIgnore: true*/ folder, 'running.pid');

/** Says that this process works on the data folder. */
export const markRunning = (folder: string): void => writeFileSync(mark(folder), String(process.pid));

/** The process that works on a data folder; null where none does, or the one that did was ended. */
export function runningServer(folder: string): number | null {
  if (!existsSync(mark(folder))) return null;
  const pid = Number(readFileSync(mark(folder), 'utf8'));
  try {
    process.kill(pid, 0);
    return pid;
  } catch {
    return null;
  }
}
