'use client';

import { useCallback, useEffect, useRef } from 'react';

/** A key pressed this soon after the prompt changed was meant for the one before it, ms. */
const SETTLING_MS = 800;

export const TOO_SOON = 'That key came as the prompt changed, and was ignored. Press it again.';

/**
 * Whether the prompt has only just changed: what captures or answers is then ignored, and said to be.
 *
 * @param prompt what is asked, and whatever else makes it another question
 */
export function useJustChanged(prompt: string): () => boolean {
  const since = useRef(Number.NEGATIVE_INFINITY);
  useEffect(() => {
    since.current = performance.now();
  }, [prompt]);
  return useCallback(() => performance.now() - since.current < SETTLING_MS, []);
}
