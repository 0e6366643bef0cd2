import { Box } from '@mui/material';
import type { ReactNode } from 'react';
import { day, time } from '../stamp';

interface MarkProps {
  readonly when: string;
  readonly title: string;
  readonly children: ReactNode;
  /** Taken back: kept, struck out. */
  readonly struck?: boolean;
  readonly actions?: ReactNode;
}

/** One place on a unit's tape: a tick on its edge, when it was and what it is. */
export function Mark({ when, title, children, struck = false, actions }: MarkProps) {
  return (
    <Box
      component="section"
      aria-label={title}
      sx={{
        position: 'relative',
        pb: 2.5,
        '&::before': {
          content: '""',
          position: 'absolute',
          left: '-27px',
          top: '7px',
          width: 12,
          height: 3,
          bgcolor: 'text.primary',
        },
      }}
    >
      <Box sx={{ display: 'flex', gap: 1.5, alignItems: 'baseline' }}>
        <Box component="h2" sx={{ m: 0, fontSize: '1rem' }}>
          {title}
        </Box>
        <Box sx={{ color: 'text.secondary', flex: 1 }}>{`${day(when)}, ${time(when).slice(0, 5)}`}</Box>
        {actions}
      </Box>
      <Box sx={{ textDecoration: struck ? 'line-through' : undefined, overflowWrap: 'anywhere' }}>
        {children}
      </Box>
      {struck && <Box sx={{ color: 'text.secondary' }}>Taken back</Box>}
    </Box>
  );
}
