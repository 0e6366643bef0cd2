'use client';

import { useCallback, useEffect, useRef, useState } from 'react';
import type { CaseView } from '@/core/practice/case-view';
import { call } from '../api';

/** A practice case in a run: its own clock, what is seen where it is looked, and waits that pass at once. */
export interface InCase {
  readonly id: string;
  /** By how much its clock is ahead of the machine's, ms. */
  readonly ahead_ms: number;
  /** What is seen at an observation, in the words of its answer; a sentence where it cannot be told. */
  readonly look: (item: string) => Promise<string>;
  /** Lets the running wait pass. @returns a sentence where it did not; empty where it did */
  readonly pass: () => Promise<string>;
  /** Stops that. */
  readonly stop: () => void;
  readonly passing: boolean;
  /** Why its unit is not on the bench, in a sentence; empty where it is. */
  readonly problem: string;
}

/** Whether a run belongs to a practice case that is not over; its unit is put on the bench. */
export function useCase(of: CaseView | null): InCase | null {
  const [ahead_ms, setAhead] = useState(of?.ahead_ms ?? 0);
  const [passing, setPassing] = useState(false);
  const [problem, setProblem] = useState('');
  const stopped = useRef(false);
  const id = of && of.told === null ? of.id : null;
  useEffect(() => {
    let gone = false;
    if (id)
      void call('POST', `/practice/cases/${id}/bench`).then((answer) => {
        if (!gone) setProblem(answer.ok ? '' : answer.problem.title);
      });
    return () => {
      gone = true;
    };
  }, [id]);
  const look = useCallback(
    async (item: string) => {
      const answer = await call<{ label: string }>('POST', `/practice/cases/${id}/look`, { item });
      return answer.ok ? answer.value.label : answer.problem.title;
    },
    [id],
  );
  const pass = useCallback(async () => {
    stopped.current = false;
    setPassing(true);
    let problem = '';
    for (let left_s = 1; left_s > 0 && !stopped.current && problem === '';) {
      const answer = await call<{ ahead_ms: number; left_s: number }>('POST', `/practice/cases/${id}/pass`);
      if (answer.ok) {
        setAhead(answer.value.ahead_ms);
        left_s = answer.value.left_s;
      } else problem = answer.problem.title;
    }
    setPassing(false);
    return problem;
  }, [id]);
  const stop = useCallback(() => {
    stopped.current = true;
  }, []);
  return id === null ? null : { id, ahead_ms, look, pass, stop, passing, problem };
}
