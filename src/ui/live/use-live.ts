'use client';

import { useEffect, useState } from 'react';
import type { LiveMessage, LiveMoment, LiveStatus } from '@/core/shop/live';

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

/** Listens to the bench while asked to. The browser takes the line up again by itself where it breaks. */
export function useLive(on: boolean): Live {
  const [live, setLive] = useState<Live>(NOTHING);
  useEffect(() => {
    if (!on) return;
    const source = new EventSource('/api/v1/live');
    source.onmessage = ({ data }) => {
      const message = JSON.parse(data as string) as LiveMessage;
      setLive((now) =>
        message.type === 'moment'
          ? { ...now, moment: message.moment }
          : { status: message.status, moment: message.status.state === 'streaming' ? now.moment : null },
      );
    };
    source.onerror = () => setLive({ status: UNREACHED, moment: null });
    return () => source.close();
  }, [on]);
  return on ? live : NOTHING;
}
