'use client';

import { Skeleton } from '@mui/material';
import dynamic from 'next/dynamic';

/** A date, typed in the reader's own order or chosen from a calendar. The calendar's weight comes after the page. */
export const DateField = dynamic(
  () => import('./date-picker').then(({ DatePickerField }) => DatePickerField),
  {
    ssr: false,
    loading: () => <Skeleton variant="rounded" height={40} animation={false} />,
  },
);
