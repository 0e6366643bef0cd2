'use client';

import { Box } from '@mui/material';
import type { TraceRecord } from '@/core/records/trace-record';
import { inkFor } from './channel-ink';

interface LegendProps {
  readonly against: 'input' | 'time';
  readonly channels: TraceRecord['channels'];
  readonly expected: boolean;
  readonly other: string | null;
}

/** What the lines are, in words. */
export function Legend({ against, channels, expected, other }: LegendProps) {
  const items =
    against === 'time'
      ? [
          ...channels.map(({ name, port }) => ({
            name,
            color: `var(${inkFor(port)})`,
            dash: false,
          })),
          { name: 'fit', color: 'var(--hp-line)', dash: true },
          ...(other ? [{ name: `${other} (paler)`, color: 'var(--hp-quiet)', dash: false }] : []),
        ]
      : [
          { name: 'readings: full going up, open coming down', color: 'var(--hp-output)', dash: false },
          { name: 'fitted', color: 'var(--hp-line)', dash: false },
          ...(expected
            ? [
                {
                  name: 'healthy unit on this supply, with its band',
                  color: 'var(--mui-palette-success-main)',
                  dash: true,
                },
              ]
            : []),
          ...(other ? [{ name: other, color: 'var(--mui-palette-warning-main)', dash: false }] : []),
        ];
  return (
    <Box
      component="ul"
      aria-label="Lines"
      sx={{ display: 'flex', flexWrap: 'wrap', gap: 2, m: 0, p: 0, listStyle: 'none', fontSize: '0.88rem' }}
    >
      {items.map(({ name, color, dash }) => (
        <Box component="li" key={name} sx={{ display: 'flex', alignItems: 'center', gap: 0.75 }}>
          <Box
            component="span"
            aria-hidden
            sx={{ width: 22, borderTop: `3px ${dash ? 'dashed' : 'solid'} ${color}` }}
          />
          {name}
        </Box>
      ))}
    </Box>
  );
}
