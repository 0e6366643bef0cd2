import { MenuItem, TextField, type TextFieldProps } from '@mui/material';
import { FAMILIES, FAMILY_KINDS, type FamilyKind } from '@/core/families/registry';

interface KindSelectProps extends Pick<TextFieldProps, 'label' | 'size' | 'sx'> {
  readonly kind: FamilyKind;
  /** Those that there are to choose from; all where nothing is said. */
  readonly kinds?: readonly FamilyKind[];
  readonly onKind: (kind: FamilyKind) => void;
}

/** A choice of one kind of unit or vehicle, by its name. */
export function KindSelect({ kind, kinds = FAMILY_KINDS, onKind, ...field }: KindSelectProps) {
  return (
    <TextField select value={kind} onChange={({ target }) => onKind(target.value as FamilyKind)} {...field}>
      {kinds.map((one) => (
        <MenuItem key={one} value={one}>
          {FAMILIES[one].name}
        </MenuItem>
      ))}
    </TextField>
  );
}
