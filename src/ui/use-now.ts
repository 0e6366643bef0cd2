'use client';

import { useEffect, useState } from 'react';

/** The time, ticking; null until the screen is alive, so that server and browser draw the same first picture. */
export function useNow(every_ms = 250): number | null {
  const [now, setNow] = useState<number | null>(null);
  useEffect(() => {
    const tick = () => setNow(Date.now());
    const first = setTimeout(tick, 0);
    const timer = setInterval(tick, every_ms);
    return () => {
      clearTimeout(first);
      clearInterval(timer);
    };
  }, [every_ms]);
  return now;
}

/** "1:05". */
export function clock(seconds: number): string {
  const whole = Math.max(0, Math.ceil(seconds));
  return `${Math.floor(whole / 60)}:${String(whole % 60).padStart(2, '0')}`;
}
