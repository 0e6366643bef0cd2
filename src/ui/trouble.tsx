'use client';

import { Box, Button } from '@mui/material';
import { Themed } from './themed';
import { Page } from './page';

/** Said in the place of everything, where the records of the shop cannot be worked on. */
export function Trouble({ words }: { words: string }) {
  return (
    <Themed>
      <Page title="The records cannot be opened" narrow>
        <Box
          role="alert"
          sx={{ borderLeft: '6px solid', borderColor: 'error.main', pl: 2, py: 1, mb: 2, fontWeight: 650 }}
        >
          {words}
        </Box>
        <Button variant="contained" onClick={() => location.reload()}>
          Try again
        </Button>
      </Page>
    </Themed>
  );
}
