import { tmpdir } from 'node:os';
import path from 'node:path';

/** Where the log of an hour is made and looked for. */
export const HOUR = path.join(tmpdir(), 'hard-pedal-hour.csv');
