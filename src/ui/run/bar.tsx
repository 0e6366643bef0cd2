'use client';

import { Box, Button } from '@mui/material';
import type { ReactNode } from 'react';
import { Key } from '../keys';

export interface BarProps {
  readonly prompt: ReactNode;
  readonly children?: ReactNode;
  /** The one thing to do next. */
  readonly primary?: { label: string; key: string; run: () => void; busy?: boolean };
  readonly others: readonly { label: string; key?: string; run: () => void; disabled?: boolean }[];
  readonly message?: ReactNode;
}

/** The action bar: what is asked, where it is answered, and one large button. */
export function Bar({ prompt, children, primary, others, message }: BarProps) {
  return (
    <Box sx={{ borderTop: 2, borderColor: 'primary.main', bgcolor: 'background.paper', px: 2, py: 1.25 }}>
      <Box role="alert" sx={{ color: 'error.main', fontWeight: 600, '&:not(:empty)': { mb: 1 } }}>
        {message}
      </Box>
      <Box sx={{ display: 'flex', gap: 2, alignItems: 'center', flexWrap: 'wrap' }}>
        <Box sx={{ flex: { xs: '1 1 100%', md: '1 1 300px' }, minWidth: 0 }}>{prompt}</Box>
        {children}
        {primary && (
          <Button
            variant="contained"
            size="large"
            onClick={primary.run}
            disabled={primary.busy}
            sx={{ minHeight: 68, px: 3, fontSize: '1.15rem', gap: 1.2 }}
          >
            {primary.busy ? 'Recording…' : primary.label} <Key name={primary.key} />
          </Button>
        )}
      </Box>
      <Box sx={{ display: 'flex', gap: 1, mt: 0.5, flexWrap: 'wrap' }}>
        {others.map(({ label, key, run, disabled }) => (
          <Button key={label} size="small" onClick={run} disabled={disabled} sx={{ gap: 0.8, minHeight: 32 }}>
            {label} {key && <Key name={key} />}
          </Button>
        ))}
      </Box>
    </Box>
  );
}
