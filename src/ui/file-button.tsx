'use client';

import { Button, type ButtonProps } from '@mui/material';
import { useRef } from 'react';

interface FileButtonProps extends Omit<ButtonProps, 'onClick'> {
  /** What the file is, for those who hear the page. */
  readonly fileLabel: string;
  readonly accept: string;
  readonly onFile: (file: File) => void;
}

/** A button that asks for a file. The same file can be chosen again after a refusal. */
export function FileButton({ fileLabel, accept, onFile, ...button }: FileButtonProps) {
  const input = useRef<HTMLInputElement>(null);
  return (
    <>
      <input
        ref={input}
        type="file"
        hidden
        accept={accept}
        aria-label={fileLabel}
        onChange={(event) => {
          const file = event.target.files?.[0];
          event.target.value = '';
          if (file) onFile(file);
        }}
      />
      <Button {...button} onClick={() => input.current?.click()} />
    </>
  );
}
