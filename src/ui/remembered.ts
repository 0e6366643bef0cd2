'use client';

import { useCallback, useSyncExternalStore } from 'react';

const listeners = new Set<() => void>();
const subscribe = (listener: () => void) => {
  listeners.add(listener);
  return () => {
    listeners.delete(listener);
  };
};

/**
 * A word remembered on this device, over reloads.
 *
 * @param place its name, with ours in front of it
 * @returns the word, null where there is none yet and on the server, and how it is set
 */
export function useRemembered(place: string): readonly [string | null, (word: string) => void] {
  const word = useSyncExternalStore(
    subscribe,
    () => localStorage.getItem(place),
    () => null,
  );
  const remember = useCallback(
    (next: string) => {
      localStorage.setItem(place, next);
      for (const listener of listeners) listener();
    },
    [place],
  );
  return [word, remember];
}
