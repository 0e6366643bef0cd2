'use client';

import { useCallback, useEffect, useState } from 'react';

type Drafts = Readonly<Record<string, string>>;

/**
 * What is typed and not yet recorded, by the item it was typed for: a value never wanders to another reading. It stays
 * through a reload, and when the run is left and come back to, in this window.
 */
export function useDrafts(runId: string): readonly [Drafts, (item: string, value: string) => void] {
  const place = `hard-pedal typed ${runId}`;
  const [drafts, setDrafts] = useState<Drafts>({});
  useEffect(() => {
    const kept = sessionStorage.getItem(place);
    // Read once the page stands: the server knows nothing of it.
    // eslint-disable-next-line react-hooks/set-state-in-effect
    if (kept) setDrafts((now) => ({ ...(JSON.parse(kept) as Drafts), ...now }));
  }, [place]);
  const write = useCallback(
    (item: string, value: string) =>
      setDrafts((all) => {
        const { [item]: _old, ...rest } = all;
        const next = value === '' ? rest : { ...rest, [item]: value };
        sessionStorage.setItem(place, JSON.stringify(next));
        return next;
      }),
    [place],
  );
  return [drafts, write];
}
