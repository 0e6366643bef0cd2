'use client';

import { Button, type ButtonProps } from '@mui/material';
import Link from 'next/link';

/** A button that goes somewhere. */
export function LinkButton({ href, ...rest }: ButtonProps & { href: string }) {
  return <Button component={Link} href={href} {...rest} />;
}
