'use client';

import { Button } from '@mui/material';
import { useEffect, useState } from 'react';
import { AlteredWords } from '@/ui/altered';
import { call } from '@/ui/api';
import { Nothing, Page } from '@/ui/page';

const MORE =
  'Nothing was taken away. What else is damaged stands under Records; the last backup has it as it was.';

export default function ErrorPage({ reset }: { error: Error; reset: () => void }) {
  const [why, setWhy] = useState('');
  useEffect(() => {
    // What went wrong on the server is not told to the page: whether it is the database is asked for.
    void call('GET', '/health?whole').then((answer) => setWhy(answer.ok ? '' : answer.problem.title));
  }, []);
  return (
    <Page title="This screen could not be drawn" narrow>
      {why && <AlteredWords why={why} more={MORE} />}
      <Nothing>
        What was recorded is safe: every reading is on disk before it shows as taken. Try again; if the
        trouble stays, verify all records, and restart the application.
      </Nothing>
      <Button variant="contained" onClick={reset}>
        Try again
      </Button>
    </Page>
  );
}
