'use client';

import { usePathname, useRouter } from 'next/navigation';
import type { FamilyKind } from '@/core/families/registry';
import { KindSelect } from './kind-select';

interface KindChoiceProps {
  readonly kind: FamilyKind;
  /** Those that there are to choose from; all where nothing is said. */
  readonly kinds?: readonly FamilyKind[];
  readonly label?: string;
}

/** What kind of unit a page is about: chosen in its address. */
export function KindChoice({ kind, kinds, label = 'Kind of unit' }: KindChoiceProps) {
  const router = useRouter();
  const path = usePathname();
  return (
    <KindSelect
      label={label}
      kind={kind}
      kinds={kinds}
      onKind={(chosen) => router.replace(`${path}?kind=${chosen}`)}
      sx={{ width: 320 }}
    />
  );
}
