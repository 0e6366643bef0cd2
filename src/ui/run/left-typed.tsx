'use client';

import { Box, Button } from '@mui/material';
import { findItem } from '@/core/contract/steps';
import type { RunHandle } from './use-run';

interface LeftTypedProps {
  readonly run: RunHandle;
  readonly drafts: Readonly<Record<string, string>>;
  readonly onDrop: (itemId: string) => void;
}

/** What was typed when the run moved on without it, by another screen or a skip: kept, and said. */
export function LeftTyped({ run, drafts, onDrop }: LeftTypedProps) {
  const { action, clash, context } = run;
  const here = action.kind === 'item' ? action.item.id : null;
  const clashing = clash?.mine.type === 'captured' ? clash.mine.item : null;
  const left = Object.entries(drafts).filter(
    ([id, typed]) => typed.trim() !== '' && id !== here && id !== clashing,
  );
  return left.map(([id, typed]) => {
    const item = findItem(context.procedure, id)?.item;
    return (
      <Box
        key={id}
        role="alert"
        sx={{ border: 2, borderColor: 'warning.main', p: 1.25, overflowWrap: 'anywhere' }}
      >
        The run moved on while “{typed.slice(0, 60)}” stood typed for “
        {item && 'prompt' in item ? item.prompt : id}” It is not recorded.
        <Box sx={{ display: 'flex', gap: 1 }}>
          <Button size="small" onClick={() => void run.send({ type: 'reopened', item: id })}>
            Go back to it
          </Button>
          <Button size="small" onClick={() => onDrop(id)}>
            Drop it
          </Button>
        </Box>
      </Box>
    );
  });
}
