'use client';

import { Box, Button } from '@mui/material';
import { useRouter } from 'next/navigation';
import { z } from 'zod';
import { SchemaForm } from '../forms/schema-form';
import { Nothing, Page, Part } from '../page';
import { call } from '../api';

const fields = z.strictObject({
  name: z.string().trim().min(1, 'Name: give the technician’s name.').max(120).meta({ title: 'Name' }),
  pin: z
    .string()
    .regex(/^\d{4,12}$/, 'PIN: four to twelve digits.')
    .meta({ title: 'PIN' }),
});

/** Those who may sign a job, each with a PIN. */
export function TechniciansPage({ technicians }: { technicians: readonly { id: string; name: string }[] }) {
  const router = useRouter();
  const remove = async (id: string) => {
    await call('DELETE', `/technicians/${id}`);
    router.refresh();
  };
  return (
    <Page title="Technicians" narrow>
      <Part title="May sign">
        {technicians.length === 0 && <Nothing>Nobody yet. Add those who sign for their work.</Nothing>}
        {technicians.map(({ id, name }) => (
          <Box key={id} sx={{ display: 'flex', alignItems: 'center', py: 0.3 }}>
            <Box sx={{ flex: 1 }}>{name}</Box>
            <Button size="small" onClick={() => void remove(id)} aria-label={`Take ${name} off the list`}>
              Take off the list
            </Button>
          </Box>
        ))}
      </Part>
      <Part title="Add a technician">
        <SchemaForm
          key={technicians.length}
          schema={fields}
          initial={{ name: '', pin: '' }}
          secretFields={['pin']}
          method="POST"
          url="/technicians"
          saveLabel="Add the technician"
          onSaved={() => router.refresh()}
        />
      </Part>
      <Box sx={{ color: 'text.secondary' }}>
        The PIN keeps an honest bench honest: it is stored only as what it is checked against. What makes a
        signed record hold is its seal, which is printed on the report.
      </Box>
    </Page>
  );
}
