'use client';

import { LocalizationProvider } from '@mui/x-date-pickers/LocalizationProvider';
import { AdapterDayjs } from '@mui/x-date-pickers/AdapterDayjs';
import { DatePicker } from '@mui/x-date-pickers/DatePicker';
import dayjs, { type Dayjs } from 'dayjs';
import 'dayjs/locale/en-gb';
import type { FieldRef } from '@mui/x-date-pickers/models';
import { useRef, useState, useSyncExternalStore, type Ref } from 'react';
import { dateFormat } from './date-order';
import { ISO_DATE } from './iso-date';

const ISO = 'YYYY-MM-DD';
/** A year of two digits is still being typed, or was never finished. */
const FIRST_YEAR = 1950;

interface DatePickerFieldProps {
  readonly label: string;
  /** ISO date; empty for none; anything else is a date that was begun and makes no day yet. */
  readonly value: string;
  readonly onChange: (value: string) => void;
  readonly onBlur?: () => void;
  readonly name?: string;
  readonly inputRef?: Ref<HTMLInputElement>;
  readonly autoFocus?: boolean;
  readonly error?: string;
}

/** A date, typed in the reader's own order or chosen from a calendar. An ISO date can be pasted, whatever the order. */
export function DatePickerField(props: DatePickerFieldProps) {
  const { label, value, onChange, onBlur, name, inputRef, autoFocus, error } = props;
  const format = useDateFormat();
  const fieldRef = useRef<FieldRef<Dayjs | null>>(null);
  const [shown, setShown] = useState<Dayjs | null>(value ? dayjs(value) : null);
  // What is half typed stays in the field, although it is no date to the form; what the form sets is shown.
  if (textOf(shown) !== value && (value === '' || ISO_DATE.test(value)))
    setShown(value ? dayjs(value) : null);
  const take = (date: Dayjs | null) => {
    setShown(date);
    onChange(textOf(date));
  };
  // A date begun where there was none is kept by the field to itself: it is asked for, so that it cannot get lost.
  const check = () => {
    const sections = fieldRef.current?.getSections() ?? [];
    const filled = sections.filter((section) => section.value !== '').length;
    if (filled > 0 && filled < sections.length) onChange(UNFINISHED);
    else if (filled === 0 && value === UNFINISHED) onChange('');
  };
  return (
    <LocalizationProvider
      dateAdapter={AdapterDayjs}
      // The calendar's week begins on Sunday where the month comes first, on Monday elsewhere.
      adapterLocale={format.startsWith('M') ? 'en' : 'en-gb'}
    >
      <DatePicker
        label={label}
        value={shown}
        onChange={take}
        format={format}
        name={name}
        inputRef={inputRef}
        autoFocus={autoFocus}
        slotProps={{
          textField: {
            error: Boolean(error),
            helperText: error,
            size: 'small',
            fullWidth: true,
            onKeyUp: check,
            onBlur: () => {
              check();
              onBlur?.();
            },
            onPasteCapture: (event) => {
              const pasted = event.clipboardData.getData('text');
              if (!ISO_DATE.test(pasted)) return;
              event.preventDefault();
              event.stopPropagation();
              take(dayjs(pasted.trim()));
            },
          },
          field: { clearable: true, fieldRef },
        }}
      />
    </LocalizationProvider>
  );
}

const UNFINISHED = 'unfinished';

/** What the form keeps of a date in the field. */
function textOf(date: Dayjs | null): string {
  if (!date) return '';
  return date.isValid() && date.year() >= FIRST_YEAR ? date.format(ISO) : UNFINISHED;
}

/** The order of the reader's language; on the server, which knows of none, ISO. */
const useDateFormat = () =>
  useSyncExternalStore(
    () => () => {},
    () => dateFormat(navigator.language),
    () => ISO,
  );
