'use client';

import { Box, Button } from '@mui/material';
import { useMemo } from 'react';
import { fittingPlan } from '@/core/documents/fitting-plan';
import type { Comparison } from '@/core/shop/comparison';
import type { Stored } from '@/core/records/views';
import { DocumentView } from '../document-view';
import { Key, useKeys } from '../keys';
import { LinkButton } from '../link-button';
import { Paper } from '../report';
import { useSettings } from '../settings-context';
import { day, time } from '../stamp';

/** What is handed to whoever fits a candidate, to be printed. */
export function FittingPlanPage({ stored, at }: { stored: Stored<Comparison>; at: number }) {
  const shop = useSettings();
  const document = useMemo(
    () => fittingPlan(stored.body, at, { set: shop.unitSet, shop, day, time }),
    [stored, at, shop],
  );
  useKeys([{ key: 'p', label: 'Print the plan', run: () => window.print() }]);
  if (!document) return null;
  return (
    <Paper>
      <Box className="no-print" sx={{ display: 'flex', gap: 1, mb: 2 }}>
        <LinkButton href={`/shelf/comparisons/${stored.id}`}>Back to the comparison</LinkButton>
        <Box sx={{ flex: 1 }} />
        <Button variant="contained" onClick={() => window.print()} sx={{ gap: 1 }}>
          Print <Key name="p" />
        </Button>
      </Box>
      <DocumentView document={document} label="Fitting plan" />
    </Paper>
  );
}
