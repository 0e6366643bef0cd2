'use client';

import { Alert, Button, Table, TableBody, TableCell, TableRow } from '@mui/material';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import type { RemovedThing } from '@/core/records/views';
import { call } from '../api';
import { Nothing, Page, Part } from '../page';
import { day } from '../stamp';
import { Columns } from '../table-head';
import { ByWhom } from './by-whom';

interface RemovedPageProps {
  readonly things: readonly RemovedThing[];
  readonly technicians: readonly { readonly id: string; readonly name: string }[];
}

/** What was taken off the shelf: everything is kept, and can be put back. */
export function RemovedPage({ things, technicians }: RemovedPageProps) {
  const [asked, setAsked] = useState<RemovedThing | null>(null);
  const router = useRouter();
  const [said, setSaid] = useState<{ severity: 'success' | 'error'; words: string } | null>(null);
  const putBack = async ({ path, name }: RemovedThing) => {
    const answer = await call('POST', `${path}/restore`, {});
    setSaid(
      answer.ok
        ? { severity: 'success', words: `${name} is on the shelf again.` }
        : { severity: 'error', words: answer.problem.title },
    );
    router.refresh();
  };
  return (
    <Page title="Off the shelf" narrow>
      {said && (
        <Alert severity={said.severity} sx={{ mb: 2 }}>
          {said.words}
        </Alert>
      )}
      <Part title="Taken off, and kept">
        {things.length === 0 && (
          <Nothing>
            Nothing. What is taken off the shelf or the list of technicians can be put back here.
          </Nothing>
        )}
        {things.length > 0 && (
          <Table size="small" aria-label="Taken off">
            <Columns names={['Name', 'What', 'Taken off', 'Put back']} />
            <TableBody>
              {things.map((thing) => (
                <TableRow key={thing.id} hover>
                  <TableCell sx={{ fontWeight: 700, overflowWrap: 'anywhere' }}>{thing.name}</TableCell>
                  <TableCell>{thing.what}</TableCell>
                  <TableCell>{day(thing.at)}</TableCell>
                  <TableCell align="right">
                    <Button
                      size="small"
                      onClick={() => (thing.what === 'technician' ? setAsked(thing) : void putBack(thing))}
                      aria-label={`Put ${thing.name} back`}
                    >
                      Put back
                    </Button>
                  </TableCell>
                </TableRow>
              ))}
            </TableBody>
          </Table>
        )}
      </Part>
      {asked && (
        <ByWhom
          title={`Put ${asked.name} back`}
          saveLabel="Put back"
          method="POST"
          url={`${asked.path}/restore`}
          technicians={technicians}
          onClose={() => setAsked(null)}
          onSaved={() => {
            setSaid({ severity: 'success', words: `${asked.name} is on the list again.` });
            setAsked(null);
            router.refresh();
          }}
        />
      )}
    </Page>
  );
}
