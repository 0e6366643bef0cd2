'use client';

import { Box, Button } from '@mui/material';
import { useEffect, useRef, type ReactNode } from 'react';
import { Key } from '../keys';

export interface BarProps {
  readonly prompt: ReactNode;
  readonly children?: ReactNode;
  /** The one thing to do next. */
  readonly primary?: { label: string; key?: string; run: () => void; busy?: boolean };
  /** The prompt takes the focus as it appears, where no field of its own does. */
  readonly focused?: boolean;
  readonly others: readonly { label: string; key?: string; run: () => void; disabled?: boolean }[];
  readonly message?: ReactNode;
}

/** The action bar: what is asked, where it is answered, and one large button. */
export function Bar({ prompt, children, primary, others, message, focused }: BarProps) {
  const bar = useRef<HTMLElement>(null);
  const heading = useRef<HTMLElement>(null);
  useEffect(() => {
    if (focused) heading.current?.focus();
  }, [focused]);
  // What had the focus may be gone: it comes back to what is asked, and never falls to the page.
  useEffect(() => {
    if (document.activeElement !== document.body) return;
    (bar.current?.querySelector<HTMLElement>('[data-reading]') ?? heading.current)?.focus();
  });
  return (
    <Box
      ref={bar}
      sx={{ borderTop: 2, borderColor: 'primary.main', bgcolor: 'background.paper', px: 2, py: 1.25 }}
    >
      <Box role="alert" sx={{ color: 'error.main', fontWeight: 600, '&:not(:empty)': { mb: 1 } }}>
        {message}
      </Box>
      <Box sx={{ display: 'flex', gap: 2, alignItems: 'center', flexWrap: 'wrap' }}>
        <Box
          ref={heading}
          tabIndex={-1}
          role={focused ? 'group' : undefined}
          aria-label={focused ? 'What is asked' : undefined}
          // The focus is put here, never by Tab: no frame is needed to find it.
          sx={{ flex: { xs: '1 1 100%', md: '1 1 300px' }, minWidth: 0, '&:focus': { outline: 'none' } }}
        >
          {prompt}
        </Box>
        {children}
        {primary && (
          <Button
            variant="contained"
            size="large"
            onClick={primary.run}
            disabled={primary.busy}
            sx={{ minHeight: 68, px: 3, fontSize: '1.15rem', gap: 1.2 }}
          >
            {primary.busy ? 'Recording…' : primary.label} {primary.key && <Key name={primary.key} />}
          </Button>
        )}
      </Box>
      <Box sx={{ display: 'flex', gap: 1, mt: 0.5, flexWrap: 'wrap' }}>
        {others.map(({ label, key, run, disabled }) => (
          <Button key={label} size="small" onClick={run} disabled={disabled} sx={{ gap: 0.8, minHeight: 44 }}>
            {label} {key && <Key name={key === 'Escape' ? 'Esc' : key} />}
          </Button>
        ))}
      </Box>
    </Box>
  );
}
