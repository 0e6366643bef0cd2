'use client';

import { Box } from '@mui/material';
import type { ReactNode } from 'react';

/**
 * The places of the run screen: tape at the left, the drawing in the middle, ladders at the right, the live strip above,
 * the action bar below. On a tablet held upright the number pad takes a place of its own.
 */
export function RunGrid({
  padded,
  advised,
  children,
}: {
  padded: boolean;
  /** The advice stands beside the tape. */
  advised: boolean;
  children: ReactNode;
}) {
  return (
    <Box
      sx={{
        display: 'grid',
        height: 'calc(100dvh - 49px)',
        minHeight: { xs: advised ? 1050 : 900, md: 600 },
        gridTemplateColumns: {
          xs: padded ? '220px 300px minmax(0, 1fr)' : '240px minmax(0, 1fr)',
          md: advised ? '240px 300px minmax(0, 1fr) 330px' : '280px minmax(0, 1fr) 330px',
        },
        gridTemplateRows: {
          // What the step says comes first; the ladders have what is left of the height.
          xs: advised
            ? `auto minmax(200px, 1fr) ${padded ? 'minmax(0, 1fr) auto auto' : 'minmax(0, 1fr) 220px auto'}`
            : padded
              ? 'auto minmax(0, 1fr) auto auto'
              : 'auto minmax(0, max-content) minmax(220px, 1fr) auto',
          md: 'auto minmax(0, 1fr) auto',
        },
        gridTemplateAreas: {
          xs: padded
            ? `"live live live" ${advised ? '"tape advice advice"' : ''} "tape middle middle" "tape pad ladders" "bar bar bar"`
            : `"live live" ${advised ? '"tape advice"' : ''} "tape middle" "tape ladders" "bar bar"`,
          md: advised
            ? '"live live live live" "tape advice middle ladders" "bar bar bar bar"'
            : '"live live live" "tape middle ladders" "bar bar bar"',
        },
      }}
    >
      {children}
    </Box>
  );
}
