'use client';

import { Box, Button, Table, TableBody, TableCell, TableRow } from '@mui/material';
import { useRouter } from 'next/navigation';
import { useMemo, useState } from 'react';
import type { Values } from '@/core/contract/vehicle-interface';
import type { IdentifierField, IdentifierMap } from '@/core/shop/identifier-map';
import type { Stored } from '@/core/records/views';
import { call } from '../api';
import { FileButton } from '../file-button';
import { LinkButton } from '../link-button';
import { Nothing, Page, Part } from '../page';
import { usePrint, useSettings } from '../settings-context';
import { Columns } from '../table-head';
import { Left } from './control-left';
import { useVehicle } from './use-vehicle';

/** Looked at for no test: nothing can be controlled from here. */
const NO_RUN = '';

/** The vehicle interface: whether it answers, by which map it is read, and what the vehicle tells by it. */
export function VehiclePage({ stored }: { stored: Stored<IdentifierMap> }) {
  const { vehicle: address } = useSettings();
  const { body: map } = stored;
  const all = useMemo(() => map.identifiers.flatMap(({ fields }) => fields.map(({ id }) => id)), [map]);
  const { status, log } = useVehicle(NO_RUN, address === '' ? null : all);
  const values = status?.state === 'reading' ? (log.at(-1)?.values ?? {}) : {};
  return (
    <Page
      title="Vehicle interface"
      actions={
        <LinkButton href="/shelf/settings">{address ? 'Change the address' : 'Set an address'}</LinkButton>
      }
    >
      <Part title={address || 'No address'}>
        <Left status={status} />
        <Box role="status" sx={{ fontWeight: 600, color: status?.trouble ? 'error.main' : 'text.primary' }}>
          {address === ''
            ? 'No vehicle interface is set: everything is done by hand.'
            : (status?.trouble ?? (status?.state === 'reading' ? 'Reading.' : 'Connecting…'))}
        </Box>
        {address === '' && (
          <Nothing>
            A vehicle’s own interface tells what its brake unit measures, and has its vacuum pump run for a
            test. Its address is a name and a port, as 127.0.0.1:13400. Nothing is sent to any other address.
            The simulated one that comes with the demo listens there.
          </Nothing>
        )}
      </Part>
      <MapPart stored={stored} values={values} />
    </Page>
  );
}

/** The map by which vehicles are read, with what this one tells. Another vehicle is another map: a file, and no program. */
function MapPart({ stored, values }: { stored: Stored<IdentifierMap>; values: Values }) {
  const router = useRouter();
  const [problem, setProblem] = useState('');
  const { body: map } = stored;
  const put = async (file: File) => {
    const body = readMap(await file.text());
    if (body === null) {
      setProblem(`${file.name} is no JSON: nothing was changed.`);
      return;
    }
    const answer = await call('PUT', '/vehicle/map', { version: stored.version, body });
    setProblem(answer.ok ? '' : `${file.name}: ${answer.problem.title} Nothing was changed.`);
    if (answer.ok) router.refresh();
  };
  const saved = `data:application/json;charset=utf-8,${encodeURIComponent(JSON.stringify(map, null, 2))}`;
  return (
    <Part
      title={`Map: ${map.name}`}
      note={
        <>
          <Button href={saved} download={`${map.name}.json`}>
            Save it as a file
          </Button>
          <FileButton
            fileLabel="Identifier map"
            accept=".json,application/json"
            onFile={(file) => void put(file)}
          >
            Use another
          </FileButton>
        </>
      }
    >
      <Box role="alert" sx={{ color: 'error.main', fontWeight: 600 }}>
        {problem}
      </Box>
      <Box sx={{ color: 'text.secondary', mb: 1 }}>
        This program is {map.tester}, the unit {map.unit}.{' '}
        {stored.version === 0
          ? 'The map that comes with the program.'
          : `The shop’s own, version ${stored.version}.`}
      </Box>
      <Table size="small" aria-label="Identifiers">
        <Columns names={['Number', 'Identifier', 'Value', 'Now']} />
        <TableBody>
          {map.identifiers.flatMap(({ number, name, fields, controllable }) =>
            fields.flatMap(rowsOf).map((row, i) => (
              <TableRow key={row.id}>
                <TableCell sx={{ fontFamily: 'monospace' }}>{i === 0 ? number : ''}</TableCell>
                <TableCell>
                  {i === 0 ? name : ''}
                  {i === 0 && controllable ? ' · can be controlled' : ''}
                </TableCell>
                <TableCell>{row.name}</TableCell>
                <TableCell sx={{ whiteSpace: 'nowrap' }}>
                  <Now row={row} value={values[row.id]} />
                </TableCell>
              </TableRow>
            )),
          )}
        </TableBody>
      </Table>
    </Part>
  );
}

function readMap(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    return null;
  }
}

interface ValueRow {
  readonly id: string;
  readonly name: string;
  readonly field: IdentifierField;
}

const rowsOf = (field: IdentifierField): ValueRow[] =>
  field.kind === 'flags'
    ? field.flags.map(({ id, name }) => ({ id, name, field }))
    : [{ id: field.id, name: field.name, field }];

function Now({ row: { field }, value }: { row: ValueRow; value: Values[string] | undefined }) {
  const print = usePrint();
  if (value === undefined) return null;
  if (value === null)
    return (
      <Box component="span" sx={{ color: 'text.secondary' }}>
        not told
      </Box>
    );
  if (field.kind === 'flags') return <>{value ? 'on' : 'off'}</>;
  if (field.kind === 'state') return <>{field.states.find((one) => one.value === value)?.name}</>;
  return <>{print.value(value as number, field.quantity)}</>;
}
