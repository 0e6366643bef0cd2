import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { StoreTrouble } from './trouble';

/** Names the process that works on a data folder, for those who must not touch it meanwhile. */
const mark = (folder: string) => path.join(/*turbopackIgnore: true*/ folder, 'running.pid');

/** When a process began, in ticks of the machine; empty where there is none, or the machine does not tell. A number is used again. */
function beganAt(pid: number): string {
  try {
    // The name of the program stands in brackets, and may hold blanks.
    const fields = readFileSync(`/proc/${pid}/stat`, 'utf8')
      .replace(/^.*\) /s, '')
      .split(' ');
    // One that was killed and not yet cleared away does nothing any more.
    return fields[0] === 'Z' ? 'over' : (fields[19] ?? '');
  } catch {
    return '';
  }
}

/**
 * Says that this process works on the data folder.
 *
 * @throws StoreTrouble where another one does
 */
export function markRunning(folder: string): void {
  const other = runningServer(folder);
  if (other !== null && other !== process.pid)
    throw new StoreTrouble(
      `Another Hard Pedal works on this data folder already (process ${other}). Stop it first: two would write over each other.`,
    );
  writeFileSync(mark(folder), `${process.pid} ${beganAt(process.pid)}`);
}

/** The process that works on a data folder; null where none does, or the one that did was ended. */
export function runningServer(folder: string): number | null {
  if (!existsSync(mark(folder))) return null;
  const [pid = NaN, began = ''] = readFileSync(mark(folder), 'utf8')
    .split(' ')
    .map((word, i) => (i === 0 ? Number(word) : word)) as [number?, string?];
  try {
    process.kill(pid, 0);
  } catch (error) {
    // There is one, and it is somebody else's.
    if ((error as { code?: string }).code !== 'EPERM') return null;
  }
  return began === '' || began === beganAt(pid) ? pid : null;
}
