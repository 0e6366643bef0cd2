'use client';

import { Button } from '@mui/material';
import { Nothing, Page } from '@/ui/page';

export default function ErrorPage({ reset }: { error: Error; reset: () => void }) {
  return (
    <Page title="This screen could not be drawn" narrow>
      <Nothing>
        What was recorded is safe: every reading is on disk before it shows as taken. Try again; if the
        trouble stays, restart the application.
      </Nothing>
      <Button variant="contained" onClick={reset}>
        Try again
      </Button>
    </Page>
  );
}
