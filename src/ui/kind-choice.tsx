'use client';

import { MenuItem, TextField } from '@mui/material';
import { usePathname, useRouter } from 'next/navigation';
import { FAMILIES, FAMILY_KINDS, type FamilyKind } from '@/core/families/registry';

interface KindChoiceProps {
  readonly kind: FamilyKind;
  /** Those that there are to choose from; all where nothing is said. */
  readonly kinds?: readonly FamilyKind[];
  readonly label?: string;
}

/** What kind of unit a page is about: chosen in its address. */
export function KindChoice({ kind, kinds = FAMILY_KINDS, label = 'Kind of unit' }: KindChoiceProps) {
  const router = useRouter();
  const path = usePathname();
  return (
    <TextField
      select
      label={label}
      value={kind}
      onChange={(event) => router.replace(`${path}?kind=${event.target.value}`)}
      sx={{ width: 320 }}
    >
      {kinds.map((one) => (
        <MenuItem key={one} value={one}>
          {FAMILIES[one].name}
        </MenuItem>
      ))}
    </TextField>
  );
}
