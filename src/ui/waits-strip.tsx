'use client';

import { Box } from '@mui/material';
import Link from 'next/link';
import { useEffect, useRef, useState } from 'react';
import type { RunningWait } from '@/core/shop/waits';
import { call } from './api';
import { useSettings } from './settings-context';
import { callOut } from './signal';
import { clock, useNow } from './use-now';

const POLL_MS = 5000;

/** Waits running on the bench, on every screen: they call out when they are over. */
export function WaitsStrip() {
  const [waits, setWaits] = useState<readonly RunningWait[]>([]);
  const called = useRef(new Set<string>());
  const now = useNow(500);
  const { sound } = useSettings();
  useEffect(() => {
    const look = async () => {
      const answer = await call<RunningWait[]>('GET', '/waits');
      if (answer.ok) setWaits(answer.value);
    };
    const first = setTimeout(look, 0);
    const timer = setInterval(look, POLL_MS);
    return () => {
      clearTimeout(first);
      clearInterval(timer);
    };
  }, []);
  useEffect(() => {
    if (now === null) return;
    for (const wait of waits) {
      const key = `${wait.runId} ${wait.endsAt}`;
      if (Date.parse(wait.endsAt) <= now && !called.current.has(key)) {
        called.current.add(key);
        callOut(sound);
      }
    }
  }, [now, waits, sound]);
  if (now === null || waits.length === 0) return null;
  return (
    <Box role="status" aria-label="Waits" sx={{ display: 'flex', gap: 2, minWidth: 0 }}>
      {waits.map((wait) => {
        const left_s = (Date.parse(wait.endsAt) - now) / 1000;
        return (
          <Box
            key={`${wait.runId} ${wait.endsAt}`}
            component={Link}
            href={`/runs/${wait.runId}`}
            sx={{
              display: 'flex',
              gap: '1ch',
              minWidth: 0,
              whiteSpace: 'nowrap',
              color: 'warning.dark',
              fontWeight: 700,
            }}
          >
            {/* Where there is no room, what is waited for goes first: whose it is and how long still stay. */}
            <span>{wait.tag}</span>{' '}
            <Box component="span" sx={{ minWidth: 0, overflow: 'hidden', textOverflow: 'ellipsis' }}>
              {wait.prompt.toLowerCase()}
            </Box>{' '}
            <span>{left_s > 0 ? clock(left_s) : 'over: read now'}</span>
          </Box>
        );
      })}
    </Box>
  );
}
