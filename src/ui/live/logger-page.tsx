'use client';

import {
  Box,
  Button,
  MenuItem,
  Slider,
  Table,
  TableBody,
  TableCell,
  TableRow,
  TextField,
} from '@mui/material';
import { useState } from 'react';
import { faultsOf } from '@/core/contract/family';
import { portName } from '@/core/families/port-names';
import { FAMILIES, SIMULATED, type FamilyKind } from '@/core/families/registry';
import { isRead, PRACTICE_LOGGER, type LoggerChannel } from '@/core/shop/live';
import type { StoredInstrument } from '@/core/records/views';
import { findUnit, INHG_PA, toSI, unitFor } from '@/core/quantities/units';
import { call } from '../api';
import { KindSelect } from '../kind-select';
import { LinkButton } from '../link-button';
import { Nothing, Page, Part } from '../page';
import { FreePractice } from '../practice/free-practice';
import { usePrint, useSettings } from '../settings-context';
import { Columns } from '../table-head';
import { useLive } from './use-live';

const STATES = {
  off: 'No bench logger is set: readings are typed.',
  connecting: 'Connecting…',
  streaming: 'Reading.',
  lost: 'The line is down.',
} as const;

/** The bench logger: whether it reads, what it reads, and what stands on it where it is simulated. */
export function LoggerPage({ instruments }: { instruments: readonly StoredInstrument[] }) {
  const settings = useSettings();
  const { status, moment } = useLive(settings.logger !== '');
  const state = settings.logger === '' ? 'off' : (status?.state ?? 'connecting');
  return (
    <Page
      title="Bench logger"
      actions={
        <LinkButton href="/shelf/settings">
          {settings.logger ? 'Change the address' : 'Set an address'}
        </LinkButton>
      }
    >
      <Part title={settings.logger || 'No address'} note={status?.name ?? undefined}>
        <Box role="status" sx={{ fontWeight: 600, color: status?.trouble ? 'error.main' : 'text.primary' }}>
          {status?.trouble ?? STATES[state]}
        </Box>
        {(status?.channels.length ?? 0) > 0 && (
          <Table size="small" aria-label="Channels" sx={{ mt: 1 }}>
            <Columns names={['Channel', 'On the Shelf', 'Stands on', 'Range', 'Now']} />
            <TableBody>
              {status!.channels.map((channel) => (
                <ChannelRow
                  key={channel.tag}
                  channel={channel}
                  gauge={instruments.find(({ body }) => body.tag === channel.tag)}
                  now={moment?.shown[channel.tag]}
                  reads={moment !== null}
                  still={moment?.settled.includes(channel.tag) ?? false}
                />
              ))}
            </TableBody>
          </Table>
        )}
        {state === 'off' && (
          <Nothing>
            A logger reads the gauges by itself: its address is a name and a port, as 127.0.0.1:5025. The
            simulated bench that comes with the demo listens there.
          </Nothing>
        )}
      </Part>
      {(settings.logger === '' || settings.logger === PRACTICE_LOGGER) && (
        <Part title="Practice">
          <FreePractice />
        </Part>
      )}
      {status?.simulated && state === 'streaming' && <SimulatedUnit />}
    </Page>
  );
}

interface ChannelRowProps {
  readonly channel: LoggerChannel;
  readonly gauge: StoredInstrument | undefined;
  readonly now: number | undefined;
  readonly still: boolean;
  /** The logger reads now: a channel without a value could not be read. */
  readonly reads: boolean;
}

function ChannelRow({ channel, gauge, now, still, reads }: ChannelRowProps) {
  const print = usePrint();
  const { unitSet } = useSettings();
  const unit = findUnit(channel.unit);
  const fits = gauge && isRead(channel, gauge.body);
  const quantity = (fits ? gauge.body.quantity : unit?.measures[0]) ?? 'pressure';
  const end = unit ? print.value(toSI(channel.high, unit), quantity) : `${channel.high} ${channel.unit}`;
  return (
    <TableRow>
      <TableCell sx={{ fontWeight: 700 }}>{channel.tag}</TableCell>
      <TableCell>{gaugeWords(channel, gauge?.body)}</TableCell>
      <TableCell>
        {gauge?.body.usualPort ? portName(gauge.body.usualPort, gauge.body.quantity) : ''}
      </TableCell>
      <TableCell>to {end}</TableCell>
      <TableCell sx={{ fontFamily: 'monospace', whiteSpace: 'nowrap' }}>
        {now === undefined
          ? reads
            ? 'cannot be read'
            : ''
          : `${print.value(now, quantity, { bare: true, u_SI: gauge?.body.step_Pa })} ${unitFor(quantity, unitSet).symbol}${still ? '' : ' · moving'}`}
      </TableCell>
    </TableRow>
  );
}

function gaugeWords(channel: LoggerChannel, gauge: StoredInstrument['body'] | undefined): string {
  if (!gauge) return 'Not on the Shelf: it cannot be captured from';
  return isRead(channel, gauge)
    ? gauge.name
    : `${gauge.name}: it reads no ${channel.unit}, so it cannot be captured from`;
}

/** What stands on the simulated bench, and what is hidden in it. */
function SimulatedUnit() {
  const print = usePrint();
  const [kind, setKind] = useState<FamilyKind>(SIMULATED[0]!);
  const [fault, setFault] = useState('');
  const [severity, setSeverity] = useState(0.7);
  const [supply_inHg, setSupply] = useState(20);
  const [said, setSaid] = useState('');
  /** A vehicle brings a supply of its own. */
  const onBench = FAMILIES[kind].setting === 'bench';
  const put = async () => {
    const unit = { kind, fault: fault ? [fault, severity] : null, supply_Pa: supply_inHg * INHG_PA };
    const answer = await call('POST', '/live/hands', { unit });
    const there = onBench
      ? 'On the bench now, vented and released.'
      : 'Here now: key off, foot off the pedal.';
    setSaid(answer.ok ? there : answer.problem.title);
  };
  return (
    <Part title="Simulated bench" note="what is hidden in the unit is not shown to the run">
      <Box sx={{ display: 'grid', gridTemplateColumns: { xs: '1fr', sm: '1fr 1fr' }, gap: 3, pt: 1 }}>
        <KindSelect
          label="Unit or vehicle, with typical figures"
          kind={kind}
          kinds={SIMULATED}
          onKind={(chosen) => {
            setKind(chosen);
            setFault('');
          }}
        />
        <TextField
          select
          label="Hidden fault"
          value={fault}
          onChange={(event) => setFault(event.target.value)}
        >
          <MenuItem value="">None: a healthy unit</MenuItem>
          {faultsOf(FAMILIES[kind], FAMILIES[kind].typical).map(({ id, name }) => (
            <MenuItem key={id} value={id}>
              {name}
            </MenuItem>
          ))}
        </TextField>
        <Box>
          <Box id="severity">How far it has gone: {Math.round(100 * severity)} %</Box>
          <Slider
            aria-labelledby="severity"
            disabled={!fault}
            value={severity}
            min={0}
            max={1}
            step={0.05}
            onChange={(_event, value) => setSeverity(value as number)}
          />
        </Box>
        <Box sx={{ display: onBench ? 'block' : 'none' }}>
          <Box id="supply">
            Vacuum that the pump reaches: {print.value(supply_inHg * INHG_PA, 'depression')}
          </Box>
          <Slider
            aria-labelledby="supply"
            value={supply_inHg}
            min={4}
            max={27}
            step={0.5}
            onChange={(_event, value) => setSupply(value as number)}
          />
        </Box>
      </Box>
      <Button variant="contained" onClick={() => void put()} sx={{ mt: 1 }}>
        {onBench ? 'Put it on the bench' : 'Bring it in'}
      </Button>
      <Box role="status" sx={{ mt: 1 }}>
        {said}
      </Box>
    </Part>
  );
}
