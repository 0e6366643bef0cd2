'use client';

import { useRemembered } from '../remembered';

/** Whether our number pad is shown: it comes with a tap on the field, and is remembered on this device. */
export function usePad(): readonly [boolean, (shown: boolean) => void] {
  const [word, remember] = useRemembered('hard-pedal number pad');
  return [word === 'shown', (shown) => remember(shown ? 'shown' : 'hidden')];
}
