'use client';

import { Alert, Button, Snackbar } from '@mui/material';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { call } from '../api';

interface RemoveButtonProps {
  /** Where the thing is, as in `/instruments/…`. */
  readonly path: string;
  readonly name: string;
  readonly label?: string;
}

/** Takes a thing off the shelf; it can be put back at once, or at any later time. */
export function RemoveButton({ path, name, label = 'Take off the shelf' }: RemoveButtonProps) {
  const router = useRouter();
  const [gone, setGone] = useState(false);
  const [problem, setProblem] = useState('');
  const move = async (back: boolean) => {
    const answer = back ? await call('POST', `${path}/restore`, {}) : await call('DELETE', path);
    setProblem(answer.ok ? '' : answer.problem.title);
    if (answer.ok) setGone(!back);
  };
  return (
    <>
      <Button color="error" onClick={() => void move(false)} disabled={gone}>
        {label}
      </Button>
      <Snackbar open={gone || problem !== ''}>
        <Alert
          severity={problem ? 'error' : 'info'}
          variant="filled"
          action={
            gone && (
              <>
                <Button color="inherit" onClick={() => void move(true)}>
                  Undo
                </Button>
                <Button
                  color="inherit"
                  onClick={() => {
                    router.push('/shelf');
                    router.refresh();
                  }}
                >
                  To the Shelf
                </Button>
              </>
            )
          }
        >
          {problem || `${name} is off the shelf. Runs made with it keep it.`}
        </Alert>
      </Snackbar>
    </>
  );
}
