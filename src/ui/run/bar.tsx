'use client';

import { Box, Button } from '@mui/material';
import { createContext, use, useEffect, useRef, useState, type ReactNode } from 'react';
import { createPortal } from 'react-dom';
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

/** Where every bar of a run puts what it asks. */
const PromptPlace = createContext<HTMLElement | null>(null);

/**
 * The frame around the bars of a run. What is asked stands in one place that outlives the bars: those who hear the
 * page hear it when it changes, once and politely.
 */
export function BarFrame({ children }: { children: ReactNode }) {
  const [place, setPlace] = useState<HTMLElement | null>(null);
  return (
    <Box
      sx={{
        gridArea: 'bar',
        borderTop: 2,
        borderColor: 'primary.main',
        bgcolor: 'background.paper',
        px: 2,
        py: 1.25,
        display: 'grid',
        alignItems: 'center',
        columnGap: 2,
        rowGap: 0.75,
        gridTemplateColumns: { xs: 'minmax(0, 1fr)', md: 'minmax(260px, 1fr) auto' },
        gridTemplateAreas: {
          xs: '"message" "prompt" "controls" "others"',
          md: '"message message" "prompt controls" "others others"',
        },
      }}
    >
      <Box
        ref={setPlace}
        tabIndex={-1}
        role="group"
        aria-label="What is asked"
        aria-live="polite"
        // The focus is put here, never by Tab: no frame is needed to find it.
        sx={{ gridArea: 'prompt', minWidth: 0, '&:focus': { outline: 'none' } }}
      />
      <PromptPlace value={place}>{children}</PromptPlace>
    </Box>
  );
}

/** The action bar: what is asked, where it is answered, and one large button. */
export function Bar({ prompt, children, primary, others, message, focused }: BarProps) {
  const place = use(PromptPlace);
  const controls = useRef<HTMLElement>(null);
  useEffect(() => {
    if (focused) place?.focus();
  }, [focused, place]);
  // What had the focus may be gone: it comes back to what is asked, and never falls to the page.
  useEffect(() => {
    if (document.activeElement !== document.body) return;
    (controls.current?.querySelector<HTMLElement>('[data-reading]') ?? place)?.focus();
  });
  return (
    <>
      {place && createPortal(prompt, place)}
      <Box
        role="alert"
        sx={{ gridArea: 'message', color: 'error.main', fontWeight: 600, '&:not(:empty)': { mb: 1 } }}
      >
        {message}
      </Box>
      <Box
        ref={controls}
        sx={{
          gridArea: 'controls',
          display: 'flex',
          gap: 2,
          alignItems: 'center',
          justifyContent: { md: 'flex-end' },
          flexWrap: 'wrap',
        }}
      >
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
      <Box sx={{ gridArea: 'others', display: 'flex', gap: 1, mt: 0.5, flexWrap: 'wrap' }}>
        {others.map(({ label, key, run, disabled }) => (
          <Button key={label} size="small" onClick={run} disabled={disabled} sx={{ gap: 0.8, minHeight: 44 }}>
            {label} {key && <Key name={key === 'Escape' ? 'Esc' : key} />}
          </Button>
        ))}
      </Box>
    </>
  );
}
