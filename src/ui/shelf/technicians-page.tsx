'use client';

import { Box, Button } from '@mui/material';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { z } from 'zod';
import { SchemaForm } from '../forms/schema-form';
import { EntryDialog } from '../job/entry-dialog';
import { Nothing, Page, Part } from '../page';
import { byAtFirst, byField, ByWhom } from './by-whom';

const pin = (title: string) => z.string().min(1, `${title}: type it.`).meta({ title });
const fields = {
  name: z.string().trim().min(1, 'Name: give the technician’s name.').max(120).meta({ title: 'Name' }),
  pin: pin('PIN'),
};
const firstFields = z.strictObject(fields);
const addFields = z.strictObject({ ...fields, by: byField });
const pinFields = z.strictObject({ pin: pin('PIN until now'), next: pin('New PIN') });

interface Technician {
  readonly id: string;
  readonly name: string;
}

/** Those who may sign a job, each with a PIN. */
export function TechniciansPage({ technicians }: { technicians: readonly Technician[] }) {
  const router = useRouter();
  const [asked, setAsked] = useState<{ readonly of: Technician; readonly what: 'off' | 'pin' } | null>(null);
  const close = () => setAsked(null);
  const saved = () => {
    close();
    router.refresh();
  };
  const { initial, choices } = byAtFirst(technicians);
  const adding = { method: 'POST', url: '/technicians', saveLabel: 'Add the technician' } as const;
  return (
    <Page title="Technicians" narrow>
      <Part title="May sign">
        {technicians.length === 0 && <Nothing>Nobody yet. Add those who sign for their work.</Nothing>}
        {technicians.map((one) => (
          <Box key={one.id} sx={{ display: 'flex', alignItems: 'center', py: 0.3, flexWrap: 'wrap' }}>
            <Box sx={{ flex: 1 }}>{one.name}</Box>
            <Button
              size="small"
              onClick={() => setAsked({ of: one, what: 'pin' })}
              aria-label={`Change the PIN of ${one.name}`}
            >
              Change the PIN
            </Button>
            <Button
              size="small"
              onClick={() => setAsked({ of: one, what: 'off' })}
              aria-label={`Take ${one.name} off the list`}
            >
              Take off the list
            </Button>
          </Box>
        ))}
      </Part>
      <Part title="Add a technician">
        {technicians.length === 0 ? (
          <SchemaForm
            {...adding}
            schema={firstFields}
            initial={{ name: '', pin: '' }}
            secretFields={['pin']}
            onSaved={saved}
          />
        ) : (
          <SchemaForm
            {...adding}
            key={technicians.length}
            schema={addFields}
            initial={{ name: '', pin: '', by: initial }}
            choices={choices}
            secretFields={['pin', 'by.pin']}
            onSaved={saved}
          />
        )}
      </Part>
      <Box sx={{ color: 'text.secondary' }}>
        A PIN has six digits at least, or is a phrase. It keeps an honest bench honest: it is stored only as
        what it is checked against, and in no backup that a browser saves. What makes a signed record hold is
        its seal, which is printed on the report.
      </Box>
      {asked?.what === 'off' && (
        <ByWhom
          title={`Take ${asked.of.name} off the list`}
          saveLabel="Take off the list"
          method="DELETE"
          url={`/technicians/${asked.of.id}`}
          technicians={technicians}
          onClose={close}
          onSaved={saved}
        />
      )}
      {asked?.what === 'pin' && (
        <EntryDialog
          title={`PIN of ${asked.of.name}`}
          schema={pinFields}
          initial={{ pin: '', next: '' }}
          secretFields={['pin', 'next']}
          saveLabel="Change the PIN"
          method="PUT"
          url={`/technicians/${asked.of.id}/pin`}
          wrap={(body) => body}
          onClose={close}
          onSaved={saved}
        />
      )}
    </Page>
  );
}
