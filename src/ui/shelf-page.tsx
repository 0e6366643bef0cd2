'use client';

import { Box, Table, TableBody, TableCell, TableRow } from '@mui/material';
import Link from 'next/link';
import { portName } from '@/core/families/port-names';
import { FAMILIES } from '@/core/families/registry';
import { accuracyLabel } from '@/core/metrology/accuracy';
import { calibrationState } from '@/core/metrology/calibration';
import type { StoredInstrument, StoredProfile } from '@/core/records/views';
import { LinkButton } from './link-button';
import { Nothing, Page, Part } from './page';
import { usePrint } from './settings-context';
import { ProfileImport } from './shelf/profile-import';
import { Columns } from './table-head';

interface ShelfPageProps {
  readonly profiles: readonly StoredProfile[];
  readonly instruments: readonly StoredInstrument[];
  readonly today: string;
}

/** A number stays with its unit, a tag is not broken. */
const TOGETHER = { whiteSpace: { md: 'nowrap' } } as const;

/** What the bench works with: profiles of units, instruments, settings. */
export function ShelfPage({ profiles, instruments, today }: ShelfPageProps) {
  const print = usePrint();
  return (
    <Page
      title="Shelf"
      actions={
        <>
          <LinkButton href="/shelf/works">How it works</LinkButton>
          <LinkButton href="/shelf/failed-assist">Failed assist</LinkButton>
          <LinkButton href="/shelf/comparisons">Fitting</LinkButton>
          <LinkButton href="/shelf/workings">Workings</LinkButton>
          <LinkButton href="/shelf/faults">Faults</LinkButton>
          <LinkButton href="/shelf/logger">Bench logger</LinkButton>
          <LinkButton href="/shelf/vehicle">Vehicle interface</LinkButton>
          <LinkButton href="/shelf/technicians">Technicians</LinkButton>
          <LinkButton href="/shelf/records">Records</LinkButton>
          <LinkButton href="/shelf/removed">Off the shelf</LinkButton>
          <LinkButton href="/shelf/settings" variant="outlined">
            Settings
          </LinkButton>
        </>
      }
    >
      <Part
        title="Instruments"
        note={<LinkButton href="/shelf/instruments/new">Add an instrument</LinkButton>}
      >
        {instruments.length === 0 && (
          <Nothing>No gauges yet. A test needs at least one on each port.</Nothing>
        )}
        {instruments.length > 0 && (
          <Table size="small" aria-label="Instruments">
            <Columns
              names={[
                'Tag',
                'Description',
                'Port',
                'Full scale',
                'Accuracy',
                'Step',
                'Tied to',
                'Calibration',
              ]}
            />
            <TableBody>
              {instruments.map(({ id, body }) => {
                const state = calibrationState(body, today);
                return (
                  <TableRow key={id} hover>
                    <TableCell sx={TOGETHER}>
                      <Box
                        component={Link}
                        href={`/shelf/instruments/${id}`}
                        sx={{ fontWeight: 700, color: 'primary.main' }}
                      >
                        {body.tag}
                      </Box>
                    </TableCell>
                    <TableCell>{body.name}</TableCell>
                    <TableCell>
                      {body.usualPort ? portName(body.usualPort, body.quantity) : 'in the cupboard'}
                    </TableCell>
                    <TableCell sx={TOGETHER}>{print.value(body.fullScale_Pa, body.quantity)}</TableCell>
                    <TableCell>
                      {accuracyLabel(body.accuracy)}
                      {body.correction && <Box sx={{ color: 'text.secondary' }}>with a correction table</Box>}
                    </TableCell>
                    <TableCell sx={TOGETHER}>
                      {print.value(body.step_Pa, body.quantity, { u_SI: body.step_Pa / 4 })}
                    </TableCell>
                    <TableCell sx={TOGETHER}>{body.tiedTo ?? ''}</TableCell>
                    <TableCell
                      sx={{
                        ...TOGETHER,
                        color: state === 'overdue' ? 'error.main' : undefined,
                        fontWeight: state === 'overdue' ? 700 : 400,
                      }}
                    >
                      {state === 'no date'
                        ? 'no date'
                        : state === 'overdue'
                          ? `overdue since ${body.calibrationDue}`
                          : `due ${body.calibrationDue}`}
                    </TableCell>
                  </TableRow>
                );
              })}
            </TableBody>
          </Table>
        )}
      </Part>
      <Part
        title="Profiles"
        note={
          <>
            <ProfileImport />
            <LinkButton href="/shelf/profiles/new">Add a profile</LinkButton>
          </>
        }
      >
        {profiles.length === 0 && (
          <Nothing>
            No profiles yet. Add one from typical figures and change it to what the maker says.
          </Nothing>
        )}
        {profiles.length > 0 && (
          <Table size="small" aria-label="Profiles">
            <Columns names={['Name', 'Maker', 'Kind', 'To start from']} />
            <TableBody>
              {profiles.map(({ id, kind, body }) => (
                <TableRow key={id} hover>
                  <TableCell>
                    <Box
                      component={Link}
                      href={`/shelf/profiles/${id}`}
                      sx={{ fontWeight: 700, color: 'primary.main' }}
                    >
                      {body.name}
                    </Box>
                  </TableCell>
                  <TableCell>{body.maker}</TableCell>
                  <TableCell>{FAMILIES[kind].name}</TableCell>
                  <TableCell>
                    <LinkButton href={`/shelf/profiles/new?copy=${id}`} size="small">
                      Copy
                    </LinkButton>
                  </TableCell>
                </TableRow>
              ))}
            </TableBody>
          </Table>
        )}
      </Part>
    </Page>
  );
}
