'use client';

import { ReasonDialog } from './reason-dialog';

interface SkipDialogProps {
  readonly open: { title: string; item: string | null } | null;
  readonly onClose: () => void;
  readonly onSkip: (reason: string, wholeStep: boolean) => Promise<void>;
}

/** Asks why something is skipped. */
export const SkipDialog = ({ open, onClose, onSkip }: SkipDialogProps) => (
  <ReasonDialog
    title={`Skip: ${open?.title ?? ''}`}
    what="What is skipped is reported as not taken, with this reason."
    open={open !== null}
    back="Do not skip"
    onClose={onClose}
    ways={[
      { label: 'Skip the whole step', take: (reason) => onSkip(reason, true) },
      ...(open?.item ? [{ label: 'Skip this', take: (reason: string) => onSkip(reason, false) }] : []),
    ]}
  />
);
