'use client';

import type { LiveMessage, LiveMoment, LiveStatus } from '@/core/shop/live';
import { useStream, type AfterMessage } from './use-stream';

/** The live bench as the server passes it on. */
export interface Live {
  readonly status: LiveStatus | null;
  readonly moment: LiveMoment | null;
}

const NOTHING: Live = { status: null, moment: null };
const UNREACHED: LiveStatus = {
  state: 'lost',
  name: null,
  simulated: false,
  trouble: 'The server does not answer. Trying again.',
  channels: [],
  owner: null,
};

const after: AfterMessage<Live, LiveMessage> = (now, message) => {
  if (!message) return { status: UNREACHED, moment: null };
  if (message.type === 'moment') return { ...now, moment: message.moment };
  return { status: message.status, moment: message.status.state === 'streaming' ? now.moment : null };
};

/** Listens to the bench while asked to. */
export const useLive = (on: boolean): Live => useStream(on ? '/api/v1/live' : null, NOTHING, after);
