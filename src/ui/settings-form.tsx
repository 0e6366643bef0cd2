'use client';

import { Box } from '@mui/material';
import { useRouter } from 'next/navigation';
import { useMemo, useState } from 'react';
import { settingsSchema, stationPressure_Pa, type Settings } from '@/core/shop/settings';
import type { Stored } from '@/core/records/views';
import { SchemaForm } from './forms/schema-form';
import { usePrint } from './settings-context';

/** Settings of the bench. A run keeps the ones it was started under. */
export function SettingsForm({
  stored,
  technicians,
}: {
  stored: Stored<Settings>;
  /** Names of those who may sign. */
  technicians: readonly string[];
}) {
  const router = useRouter();
  const print = usePrint();
  const [saved, setSaved] = useState(false);
  const { technician } = stored.body;
  const choices = useMemo(() => {
    // Who stood there before, and is on the list no more, is not lost by saving something else.
    const names =
      technician === '' || technicians.includes(technician) ? technicians : [technician, ...technicians];
    return {
      technician: [
        { value: '', label: 'Nobody yet' },
        ...names.map((name) => ({ value: name, label: name })),
      ],
    };
  }, [technician, technicians]);
  return (
    <>
      <Box sx={{ mb: 2 }}>
        The barometer that counts is the one in this room, not a weather report reduced to sea level. Now:{' '}
        <b>{print.value(stationPressure_Pa(stored.body), 'barometer')}</b>
        {stored.body.barometer_Pa === null ? ', from the altitude.' : ', as measured.'}
      </Box>
      <SchemaForm
        key={stored.version}
        schema={settingsSchema}
        initial={stored.body}
        method="PUT"
        url="/settings"
        version={stored.version}
        saveLabel="Save the settings"
        choices={choices}
        onSaved={() => {
          setSaved(true);
          router.refresh();
        }}
      />
      <Box role="status" sx={{ mt: 1.5, fontWeight: 600 }}>
        {saved ? 'Saved. Runs already started keep what they were started under.' : ''}
      </Box>
    </>
  );
}
