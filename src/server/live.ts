import type { Knex } from 'knex';
import type { LiveMessage } from '@/core/shop/live';
import { PRACTICE_LOGGER } from '@/core/shop/live';
import { eventStream } from './event-stream';
import { fileRecording } from './live-filing';
import { Link, OFF } from './live-link';
import { practiceBench } from './practice-bench';
import { keptRecordings } from './recordings';
import { readSettings } from './shelf';

const held = globalThis as typeof globalThis & { hardPedalLink?: Link };

/** The line to the logger that the settings name; null where they name none. */
export async function link(db: Knex): Promise<Link | null> {
  const named = (await readSettings(db)).body.logger;
  // A name for the simulated bench of this process, wherever it listens.
  const address = named === PRACTICE_LOGGER ? `127.0.0.1:${(await practiceBench()).port}` : named;
  if (held.hardPedalLink && held.hardPedalLink.address !== address) hangUp();
  if (address === '') return null;
  if (!held.hardPedalLink) {
    const line = new Link(address);
    held.hardPedalLink = line;
    // What a server was recording as it was ended is filed now, under the run that it was of.
    // Where that fails it stays on the disk, and is filed the next time.
    line.inTurn(() => fileLeft(db, line)).catch(() => undefined);
  }
  return held.hardPedalLink;
}

async function fileLeft(db: Knex, line: Link): Promise<void> {
  for (const kept of await keptRecordings(db))
    if (kept.id !== line.recording?.id) await fileRecording(db, kept, new Date().toISOString());
}

/** Lets go of the logger: for an end of the application, and of a test. */
export function hangUp(): void {
  held.hardPedalLink?.stop();
  held.hardPedalLink = undefined;
}

/** Events for a screen: the status as it changes, and what the instruments show, many times a second. */
export async function liveStream(db: Knex, signal: AbortSignal): Promise<ReadableStream<Uint8Array>> {
  const line = await link(db);
  return eventStream<LiveMessage>(
    signal,
    (tell) => {
      if (line) return line.watch(tell);
      tell({ type: 'status', status: OFF });
    },
    'moment',
  );
}
