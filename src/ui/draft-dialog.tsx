'use client';

import { Box, Dialog } from '@mui/material';
import { useRef, useState, type ReactNode } from 'react';

interface DraftDialogProps {
  readonly labelledBy: string;
  readonly onClose: () => void;
  readonly children: ReactNode;
}

/** A dialog with fields in it: once something was typed, neither Esc nor a press beside it drops that. */
export function DraftDialog({ labelledBy, onClose, children }: DraftDialogProps) {
  const typed = useRef(false);
  const [said, setSaid] = useState(false);
  return (
    <Dialog
      open
      onInput={() => (typed.current = true)}
      onClose={() => (typed.current ? setSaid(true) : onClose())}
      aria-labelledby={labelledBy}
      fullWidth
      maxWidth="sm"
    >
      {children}
      <Box role="status" sx={{ px: 3, pb: 2, fontWeight: 600, '&:empty': { display: 'none' } }}>
        {said && 'What is typed here stays. “Leave it” drops it.'}
      </Box>
    </Dialog>
  );
}
