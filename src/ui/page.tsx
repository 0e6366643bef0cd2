import { Box } from '@mui/material';
import type { ReactNode } from 'react';

/** A page with a heading and, beside it, what can be done. */
export function Page({
  title,
  actions,
  children,
  narrow,
}: {
  title: ReactNode;
  actions?: ReactNode;
  children: ReactNode;
  narrow?: boolean;
}) {
  return (
    <Box sx={{ maxWidth: narrow ? 860 : 1240, mx: 'auto', px: 3, py: 2.5 }}>
      <Box sx={{ display: 'flex', alignItems: 'center', gap: 2, mb: 2, flexWrap: 'wrap' }}>
        <Box
          component="h1" // Beside many ways on it keeps its line: they go below.
          sx={{ m: 0, fontSize: '1.6rem', flex: 1, minWidth: 'min(100%, 7em)', overflowWrap: 'anywhere' }}
        >
          {title}
        </Box>
        {actions}
      </Box>
      {children}
    </Box>
  );
}

/** A part of a page under a thin rule. */
export function Part({ title, children, note }: { title: string; children: ReactNode; note?: ReactNode }) {
  return (
    <Box component="section" aria-label={title} sx={{ mb: 3.5 }}>
      <Box
        sx={{
          display: 'flex',
          alignItems: 'baseline',
          gap: 2,
          borderBottom: 2,
          borderColor: 'text.primary',
          mb: 1,
          pb: 0.4,
        }}
      >
        <Box component="h2" sx={{ m: 0, fontSize: '1.1rem' }}>
          {title}
        </Box>
        {note && <Box sx={{ color: 'text.secondary', ml: 'auto' }}>{note}</Box>}
      </Box>
      {children}
    </Box>
  );
}

/** Said where there is nothing yet, with what to do about it. */
export function Nothing({ children }: { children: ReactNode }) {
  return <Box sx={{ color: 'text.secondary', py: 1.5 }}>{children}</Box>;
}
