'use client';

import { Box, Button } from '@mui/material';
import type { ReactNode } from 'react';
import type { VehicleStatus } from '@/core/shop/vehicle-live';
import { call } from '../api';
import { time } from '../stamp';

/** A control that the application had as it was ended. */
export function Left({ status }: { status: VehicleStatus | null }) {
  if (!status?.left) return null;
  const { name, state, since } = status.left;
  return (
    <Grave>
      The application was ended while “{name}” was told “{state}”, since {time(since)}. A unit that hears
      nothing takes itself back within 5 s: look that it did, or switch off.
      <Looked />
    </Grave>
  );
}

export const Looked = () => (
  <Button size="small" color="inherit" onClick={() => void call('POST', '/vehicle/seen', {})} sx={{ ml: 1 }}>
    I have looked
  </Button>
);

export const Grave = ({ children }: { children: ReactNode }) => (
  <Box
    role="alert"
    sx={{
      borderLeft: '5px solid',
      borderColor: 'error.main',
      color: 'error.main',
      pl: 1.25,
      fontWeight: 650,
    }}
  >
    {children}
  </Box>
);
