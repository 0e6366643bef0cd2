'use client';

import { Box, Button } from '@mui/material';
import { findItem } from '@/core/contract/steps';
import { usePrint } from '../settings-context';
import type { RunHandle } from './use-run';

/** Another screen recorded first: both values are shown, and mine can still be recorded. */
export function ClashNotice({ run, onDone }: { run: RunHandle; onDone: (itemId: string) => void }) {
  const print = usePrint();
  const { clash } = run;
  if (!clash) return null;
  const mine = clash.mine.type === 'captured' ? clash.mine : null;
  const item = mine ? findItem(run.context.procedure, mine.item)?.item : null;
  const theirs = clash.theirs.flatMap((e) => (e.type === 'captured' && e.item === mine?.item ? [e] : []))[0];
  const leave = () => {
    if (mine) onDone(mine.item);
    run.forgetClash();
  };
  const show = (value: number) => (item?.kind === 'reading' ? print.value(value, item.quantity) : '');
  return (
    <Box role="alert" sx={{ border: 2, borderColor: 'warning.main', p: 1.5 }}>
      <Box sx={{ fontWeight: 650 }}>Another screen was first.</Box>
      {mine && theirs ? (
        <Box>
          It recorded {show(theirs.value_SI)}; you had {show(mine.value_SI)}. Yours is not recorded.
        </Box>
      ) : (
        <Box>
          It moved this run on. What you entered is not recorded{mine ? `: ${show(mine.value_SI)}` : ''}.
        </Box>
      )}
      <Box sx={{ display: 'flex', gap: 1, mt: 1 }}>
        {mine && (
          <Button variant="outlined" onClick={() => void run.send(mine).then((sent) => sent && leave())}>
            Record mine too, as a repeat
          </Button>
        )}
        <Button onClick={leave}>Leave it</Button>
      </Box>
    </Box>
  );
}
