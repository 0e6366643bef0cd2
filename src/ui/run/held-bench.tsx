'use client';

import { Box, Button, Dialog, DialogActions, DialogContent, DialogTitle } from '@mui/material';
import { useState } from 'react';
import type { BenchOwner } from '@/core/shop/live';

interface HeldBenchProps {
  readonly owner: BenchOwner;
  readonly onTake: () => Promise<unknown>;
}

/** Another run has the live bench: says which, and takes it over knowingly. */
export function HeldBench({ owner, onTake }: HeldBenchProps) {
  const [asking, setAsking] = useState(false);
  return (
    <>
      <Box role="status" sx={{ fontWeight: 600, color: 'warning.dark' }}>
        The live bench belongs to the test of {owner.tag}. Type the readings, or take it over.
      </Box>
      <Button variant="outlined" onClick={() => setAsking(true)} sx={{ minHeight: 44 }}>
        Take the bench over
      </Button>
      <Dialog open={asking} onClose={() => setAsking(false)} aria-labelledby="take-title">
        <DialogTitle id="take-title">Take the bench over from {owner.tag}?</DialogTitle>
        <DialogContent>
          Its test is then without the bench. What was recorded of its step is kept with it. Whose unit stands
          on the bench?
        </DialogContent>
        <DialogActions>
          <Button autoFocus onClick={() => setAsking(false)}>
            Leave it to {owner.tag}
          </Button>
          <Button onClick={() => void onTake().then(() => setAsking(false))}>This unit stands on it</Button>
        </DialogActions>
      </Dialog>
    </>
  );
}
