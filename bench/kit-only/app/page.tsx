'use client';

import { AppRouterCacheProvider } from '@mui/material-nextjs/v16-appRouter';
import { Box, Button, CssBaseline } from '@mui/material';
import { createTheme, ThemeProvider } from '@mui/material/styles';

const theme = createTheme({ cssVariables: true });

/** A page with the UI kit and nothing of ours: the floor that the script weight of our places is measured from. */
export default function Page() {
  return (
    <AppRouterCacheProvider>
      <ThemeProvider theme={theme}>
        <CssBaseline />
        <Box>
          <Button>Kit only</Button>
        </Box>
      </ThemeProvider>
    </AppRouterCacheProvider>
  );
}
