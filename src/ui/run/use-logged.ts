'use client';

import { useCallback, useEffect, useState } from 'react';
import type { LoggedTrace } from '@/core/documents/logged-traces';
import { call } from '../api';

/** What the traces of a run were made to yield, and a way to ask for it anew. Nothing before it was asked for. */
export function useLogged(runId: string) {
  const [logged, setLogged] = useState<readonly LoggedTrace[]>([]);
  const ask = useCallback(async () => {
    const answer = await call<LoggedTrace[]>('GET', `/runs/${runId}/logged`);
    if (answer.ok) setLogged(answer.value);
  }, [runId]);
  return { logged, ask };
}

/**
 * Says to the server which step is being done: what the logger sends meanwhile is that step's trace, kept when the next
 * one begins. What it tells is then asked for.
 */
export function useStepTraces(runId: string, step: string | null, streaming: boolean) {
  const { logged, ask } = useLogged(runId);
  const at = streaming ? step : null;
  useEffect(() => {
    const said = streaming ? call('POST', `/runs/${runId}/live`, { step: at }) : Promise.resolve();
    void said.then(ask);
  }, [streaming, at, runId, ask]);
  useEffect(
    () => () => {
      if (streaming) void call('POST', `/runs/${runId}/live`, { step: null });
    },
    [streaming, runId],
  );
  /** Takes the bench over from the run that has it, or from none. */
  const takeOver = useCallback(
    () => call('POST', `/runs/${runId}/live`, { step, take: true }),
    [runId, step],
  );
  return { logged, takeOver };
}
