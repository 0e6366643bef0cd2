'use client';

import { useEffect, useRef, useState } from 'react';

interface Size {
  readonly width: number;
  readonly height: number;
}

/** Size of an element, kept up to date. @param unmeasured before the screen has been measured */
export function useSize(unmeasured: Size) {
  const ref = useRef<HTMLDivElement>(null);
  const [size, setSize] = useState(unmeasured);
  useEffect(() => {
    if (!ref.current) return;
    const watch = new ResizeObserver(([entry]) => {
      if (entry) setSize({ width: entry.contentRect.width, height: entry.contentRect.height });
    });
    watch.observe(ref.current);
    return () => watch.disconnect();
  }, []);
  return [ref, size] as const;
}
