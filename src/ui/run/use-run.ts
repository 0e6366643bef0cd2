'use client';

import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { FAMILIES } from '@/core/families/registry';
import type { RunEvent } from '@/core/contract/events';
import { contextWith } from '@/core/procedure/exchange';
import { instrumentsOf, gateRule } from '@/core/procedure/measured-item';
import { nextAction } from '@/core/procedure/next-action';
import { reduceRun } from '@/core/procedure/run';
import type { StoredRun } from '@/core/records/views';
import { call, type Problem } from '../api';
import type { InCase } from './use-case';

/** An event before it has an identity and a time. */
export type NewEvent = RunEvent extends infer E
  ? E extends RunEvent
    ? Omit<E, 'id' | 'at' | 'deed'>
    : never
  : never;

/** Events with identity and time; where there are several they are one deed. @param ahead_ms by how much the run's own clock is ahead */
function stamped(deeds: readonly NewEvent[], ahead_ms: number): RunEvent[] {
  const at = new Date(Date.now() + ahead_ms).toISOString();
  const one = deeds.length > 1 ? { deed: crypto.randomUUID() } : {};
  return deeds.map((deed) => ({ ...deed, ...one, id: crypto.randomUUID(), at }) as RunEvent);
}

/** Another screen was first: what it recorded, and what was entered here. */
export interface Clash {
  readonly mine: NewEvent;
  readonly theirs: readonly RunEvent[];
}

const POLL_MS = 4000;

/**
 * A run on the screen: its events as the server has them, and a way to add one. Nothing shows as recorded before the
 * server has said that it is on disk; an entry that did not get through keeps its identity, so that sending it again
 * records it once.
 *
 * @param inCase the practice case that it belongs to; null where it belongs to none
 */
export function useRun(stored: StoredRun, inCase: InCase | null) {
  const [events, setEvents] = useState<readonly RunEvent[]>(stored.events);
  const [problem, setProblem] = useState<Problem | null>(null);
  const [clash, setClash] = useState<Clash | null>(null);
  const [busy, setBusy] = useState(false);
  const ahead_ms = inCase?.ahead_ms ?? 0;
  const unsent = useRef<{ body: string; made: RunEvent[] } | null>(null);
  const family = FAMILIES[stored.kind];
  const context = useMemo(() => contextWith(stored.context, events), [stored.context, events]);
  const gate = useMemo(() => gateRule(instrumentsOf(context.rig, context.shelf)), [context]);
  const state = useMemo(() => reduceRun(context.procedure, events, gate), [context, events, gate]);
  const action = useMemo(() => nextAction(context.procedure, state), [context, state]);
  const results = useMemo(() => family.results(context, state), [family, context, state]);

  const send = useCallback(
    async (...deeds: NewEvent[]): Promise<boolean> => {
      const body = JSON.stringify(deeds);
      const made = unsent.current?.body === body ? unsent.current.made : stamped(deeds, ahead_ms);
      setBusy(true);
      setProblem(null);
      const answer = await call<RunEvent[]>('POST', `/runs/${stored.id}/events`, {
        expectedVersion: events.length,
        events: made,
      });
      setBusy(false);
      if (answer.ok) {
        unsent.current = null;
        setEvents(answer.value);
        return true;
      }
      if (answer.problem.code === 'conflict') {
        const current = answer.problem.current as RunEvent[];
        setClash({ mine: deeds[0]!, theirs: current.slice(events.length) });
        setEvents(current);
        return false;
      }
      if (answer.problem.code === 'unreached') unsent.current = { body, made };
      setProblem(answer.problem);
      return false;
    },
    [events, stored.id, ahead_ms],
  );

  useEffect(() => {
    const timer = setInterval(async () => {
      if (document.hidden) return;
      const answer = await call<StoredRun>('GET', `/runs/${stored.id}`);
      if (answer.ok)
        setEvents((mine) => (answer.value.events.length > mine.length ? answer.value.events : mine));
    }, POLL_MS);
    return () => clearInterval(timer);
  }, [stored.id]);

  return {
    family,
    context,
    events,
    state,
    action,
    results,
    send,
    busy,
    problem,
    clash,
    inCase,
    forgetClash: () => setClash(null),
  };
}

export type RunHandle = ReturnType<typeof useRun>;
