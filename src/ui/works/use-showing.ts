'use client';

import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import type { Family } from '@/core/contract/family';
import type { Hands } from '@/core/model/motion';
import type { Shown } from '@/core/twin/at-work';
import type { Script } from '@/core/twin/recording';
import { Showing } from '@/core/twin/showing';

/** Pictures in a second. */
const PICTURES_PER_S = 30;
/** Longest time that passes at once, s: a window that was hidden does not make up for it. */
const LONGEST_S = 0.1;
/** Points of the curve kept. */
const TRAIL = 600;
/** A stage that does not come within this time is not waited for, s. */
const STAGE_S = 20;

/** A point of the curve: what goes in, and what comes out. */
type Point = readonly [input: number, output: number];

/** What is seen of something at work, and how it is moved. */
export interface AtWork {
  readonly t_s: number;
  readonly now: ReturnType<Showing['now']>;
  readonly hands: Hands;
  readonly plays: boolean;
  /** A script went through to its end. */
  readonly played: boolean;
  readonly trouble: string | null;
  /** With a fault: a part has stood elsewhere than that of a healthy one. */
  readonly apart: boolean;
  readonly trail: { readonly own: readonly Point[]; readonly healthy: readonly Point[] };
  readonly set: (change: Hands) => void;
  readonly show: (script: Script) => void;
  readonly step: (seconds: number) => void;
  readonly toNextStage: () => void;
}

interface Asked {
  readonly shown: Shown;
  readonly from: 'rest' | 'fed';
  /** Raised to begin anew. */
  readonly turn: number;
}

interface Drawn {
  readonly input: number;
  readonly output: number;
}

/**
 * Something at work, carried on by the clock of the screen.
 *
 * @param pace how fast its time goes: 1 as in life; 0 where it stands
 * @param drawn places of the ports that the curve is drawn of
 */
export function useShowing(
  family: Family,
  profile: unknown,
  asked: Asked,
  pace: number,
  drawn: Drawn,
): AtWork {
  const showing = useMemo(
    () => new Showing(family, profile, asked.shown, asked.from),
    [family, profile, asked],
  );
  const [seen, setSeen] = useState(() => ({ of: showing, ...snapshot(showing), trail: NO_TRAIL }));
  const look = useCallback(() => {
    const taken = snapshot(showing);
    setSeen((before) => {
      const trail = before.of === showing ? before.trail : NO_TRAIL;
      const { own, healthy } = taken.now;
      const point = (shown: readonly number[]): Point => [shown[drawn.input]!, shown[drawn.output]!];
      return {
        of: showing,
        ...taken,
        trail: {
          own: longer(trail.own, point(own.shown)),
          healthy: healthy ? longer(trail.healthy, point(healthy.shown)) : [],
        },
      };
    });
  }, [showing, drawn]);

  const last = useRef<number | null>(null);
  useEffect(() => {
    if (pace === 0) return;
    let frame = 0;
    let looked_ms = 0;
    last.current = null;
    const go = (at_ms: number) => {
      const gone_s = last.current === null ? 0 : Math.min(LONGEST_S, (at_ms - last.current) / 1000);
      last.current = at_ms;
      showing.advance(gone_s * pace);
      if (at_ms - looked_ms >= 1000 / PICTURES_PER_S) {
        looked_ms = at_ms;
        look();
      }
      frame = requestAnimationFrame(go);
    };
    frame = requestAnimationFrame(go);
    return () => cancelAnimationFrame(frame);
  }, [showing, pace, look]);
  const doing = (deed: () => void) => () => {
    deed();
    look();
  };
  const { of, ...rest } = seen.of === showing ? seen : { of: showing, ...snapshot(showing), trail: NO_TRAIL };
  return {
    ...rest,
    set: (change) => doing(() => of.set(change))(),
    show: (script) => doing(() => of.play(script))(),
    step: (seconds) => doing(() => of.advance(seconds))(),
    toNextStage: doing(() => of.toNextStage(STAGE_S)),
  };
}

const NO_TRAIL: AtWork['trail'] = { own: [], healthy: [] };

const snapshot = (showing: Showing) => ({
  t_s: showing.t_s,
  now: showing.now(),
  hands: showing.hands,
  plays: showing.plays,
  played: showing.played,
  trouble: showing.trouble,
  apart: showing.apart,
});

/** A trail with one more point, where that lies elsewhere. */
function longer(trail: readonly Point[], point: Point): readonly Point[] {
  const end = trail.at(-1);
  return end && end[0] === point[0] && end[1] === point[1] ? trail : [...trail.slice(1 - TRAIL), point];
}
