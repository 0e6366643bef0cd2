'use client';

import { createTheme } from '@mui/material/styles';

export const SANS = '"Atkinson Hyperlegible Next Variable", sans-serif';
export const MONO = '"Atkinson Hyperlegible Mono Variable", monospace';

/** Bone, ink, petrol, brass, oxide and moss; a dark scheme for the pit. Square-ish, thin rules, little shadow. */
export const theme = createTheme({
  cssVariables: { colorSchemeSelector: 'class' },
  colorSchemes: {
    light: {
      palette: {
        background: { default: '#F5F2EA', paper: '#FBF9F4' },
        text: { primary: '#1E2426', secondary: '#4A5356' },
        primary: { main: '#0E5A63', contrastText: '#FFFFFF' },
        warning: { main: '#A66A12', dark: '#7C4E0B', contrastText: '#FFFFFF' },
        error: { main: '#9E3524', contrastText: '#FFFFFF' },
        success: { main: '#3D6A38', contrastText: '#FFFFFF' },
        divider: '#CFC8B8',
      },
    },
    dark: {
      palette: {
        background: { default: '#14191A', paper: '#1B2223' },
        text: { primary: '#ECE7DA', secondary: '#B4B6AE' },
        primary: { main: '#6FBCC6', contrastText: '#0C1516' },
        warning: { main: '#DFA850', dark: '#EFC583', contrastText: '#14191A' },
        error: { main: '#E88F7C', contrastText: '#14191A' },
        success: { main: '#93C48B', contrastText: '#14191A' },
        divider: '#3B4446',
      },
    },
  },
  shape: { borderRadius: 4 },
  typography: {
    fontFamily: SANS,
    h1: { fontSize: '1.6rem', fontWeight: 650, lineHeight: 1.2 },
    h2: { fontSize: '1.15rem', fontWeight: 650 },
    h3: { fontSize: '1rem', fontWeight: 650 },
    button: { textTransform: 'none', fontWeight: 600 },
  },
  components: {
    MuiCssBaseline: {
      styleOverrides: {
        // Who asks for less motion gets each change at once.
        '@media (prefers-reduced-motion: reduce)': {
          '*, *::before, *::after': { transitionDuration: '0s !important' },
        },
      },
    },
    MuiButton: { defaultProps: { disableElevation: true } },
    MuiToggleButton: { styleOverrides: { root: { color: 'var(--mui-palette-text-primary)' } } },
    MuiPaper: { defaultProps: { elevation: 0 } },
    MuiTextField: { defaultProps: { size: 'small', fullWidth: true } },
    MuiTableCell: {
      styleOverrides: {
        root: { fontVariantNumeric: 'tabular-nums', borderColor: 'var(--mui-palette-divider)' },
      },
    },
  },
});
