'use client';

import { useEffect, useState } from 'react';

const PLACE = 'hard-pedal number pad';

/** Whether our number pad is shown: it comes with a tap on the field, and is remembered on this device. */
export function usePad(): readonly [boolean, (shown: boolean) => void] {
  const [pad, setPad] = useState(false);
  useEffect(() => {
    // Read once the page stands: the server knows nothing of it.
    // eslint-disable-next-line react-hooks/set-state-in-effect
    setPad(localStorage.getItem(PLACE) === 'shown');
  }, []);
  const show = (shown: boolean) => {
    localStorage.setItem(PLACE, shown ? 'shown' : 'hidden');
    setPad(shown);
  };
  return [pad, show];
}
