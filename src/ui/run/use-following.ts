'use client';

import { useEffect, useRef, useState } from 'react';
import type { Family } from '@/core/contract/family';
import type { RunContext } from '@/core/contract/run-context';
import { shareOf, type PartsNow } from '@/core/model/motion';
import { Following, type Followed } from '@/core/twin/following';
import type { Pose } from '../schematics/moving';

/** A twin is not moved by more than this at once, s: a window that was hidden does not make up for it. */
const LONGEST_S = 0.25;
/** Vacuum of an ordinary bench, Pa, until one is read. */
const USUAL_SUPPLY_PA = 68_000;

interface Moved {
  readonly twin: Following;
  last_s: number;
}

/**
 * How the drawing of a run stands: as the healthy twin does at the input that its gauges show.
 *
 * @param told what the gauges tell, and when, s; null where nothing is to be followed
 */
export function useFollowing(
  {
    kind,
    context,
    family,
  }: { readonly kind: string; readonly context: RunContext<unknown>; readonly family: Family },
  told: (Followed & { readonly t_s: number }) | null,
): Pose | null {
  const [seen, setSeen] = useState<{ readonly parts: PartsNow; readonly t_s: number } | null>(null);
  const moved = useRef<Moved | null>(null);
  const { profile, conditions } = context;
  useEffect(() => {
    moved.current = null;
  }, [kind, profile, conditions]);
  const { t_s, input, fed, supply_Pa } = told ?? { t_s: null, input: 0, fed: false, supply_Pa: null };
  useEffect(() => {
    if (t_s === null || !family.motion) return;
    const frame = requestAnimationFrame(() => {
      const { barometer_Pa, temperature_K } = conditions;
      const room = { barometer_Pa, temperature_K };
      moved.current ??= {
        twin: new Following(family, profile, { room, supply_Pa: supply_Pa || USUAL_SUPPLY_PA }),
        last_s: t_s,
      };
      const gone_s = Math.max(0, Math.min(LONGEST_S, t_s - moved.current.last_s));
      moved.current.last_s = t_s;
      setSeen({ parts: moved.current.twin.follow({ input, fed, supply_Pa }, gone_s), t_s });
    });
    return () => cancelAnimationFrame(frame);
  }, [family, profile, conditions, t_s, input, fed, supply_Pa]);
  if (t_s === null || !seen) return null;
  return { share: (part) => (seen.parts[part] ? shareOf(seen.parts[part]) : 0), t_s: seen.t_s };
}
