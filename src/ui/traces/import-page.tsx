'use client';

import {
  Box,
  Button,
  LinearProgress,
  MenuItem,
  Table,
  TableBody,
  TableCell,
  TableHead,
  TableRow,
  TextField,
} from '@mui/material';
import { useRouter } from 'next/navigation';
import { useRef, useState } from 'react';
import { QUANTITIES, UNITS, type Quantity, type UnitId } from '@/core/quantities/units';
import { detectLayout, foreignSentence, type Detected, type ForeignUnit } from '@/core/signals/csv/detect';
import {
  LOG_PORTS,
  TIME_KINDS,
  VACUUM_FORMS,
  type LogColumn,
  type LogLayout,
  type TimeKind,
} from '@/core/signals/csv/layout';
import { headText } from '@/core/signals/csv/plain-text';
import { PORT_NAMES } from '@/core/signals/csv/ports';
import type { TraceRecord } from '@/core/records/trace-record';
import type { Stored } from '@/core/records/views';
import { call, type Problem } from '../api';
import { FileButton } from '../file-button';
import { useKeys } from '../keys';
import { LinkButton } from '../link-button';
import { Page, Part } from '../page';

interface ImportPageProps {
  readonly profiles: readonly { readonly id: string; readonly name: string }[];
  readonly jobs: readonly { readonly id: string; readonly tag: string; readonly profileId: string }[];
}

const HEAD_BYTES = 65_536;
const TIMES: Readonly<Record<TimeKind, string>> = {
  seconds: 'seconds',
  milliseconds: 'milliseconds',
  minutes: 'minutes',
  hours: 'hours',
  iso: 'date and time, year first',
  'day-first': 'date and time, day first',
  'month-first': 'date and time, month first',
  spreadsheet: 'days, as a spreadsheet counts',
  clock: 'time of day',
  rows: 'no time: evenly spaced lines',
};
const FORMS: Readonly<Record<string, string>> = {
  depression: 'below the barometer',
  negative: 'negative gauge pressure',
  absolute: 'absolute',
};

type Found = Extract<Detected, { ok: true }>;

/** Reads a log: what was found out about it is shown and can be put right before it is read. */
export function ImportPage({ profiles, jobs }: ImportPageProps) {
  const router = useRouter();
  const [file, setFile] = useState<File | null>(null);
  const [found, setFound] = useState<Found | null>(null);
  const [layout, setLayout] = useState<LogLayout | null>(null);
  const [remembered, setRemembered] = useState(false);
  /** Columns in a unit that is not known, until one is chosen for each or it is left out. */
  const [foreign, setForeign] = useState<readonly ForeignUnit[]>([]);
  const [name, setName] = useState('');
  const [profile, setProfile] = useState('');
  const [job, setJob] = useState('');
  const [problem, setProblem] = useState('');
  const [progress, setProgress] = useState<number | null>(null);
  const request = useRef<XMLHttpRequest | null>(null);

  const open = async (chosen: File) => {
    setFile(chosen);
    setFound(null);
    setLayout(null);
    setProblem('');
    setName((typed) => typed || chosen.name.replace(/\.[^.]*$/, ''));
    const head = new Uint8Array(await chosen.slice(0, HEAD_BYTES).arrayBuffer());
    const detected = detectLayout(headText(head));
    if (!detected.ok) {
      setProblem(`${chosen.name}: ${detected.why}`);
      return;
    }
    setFound(detected);
    setLayout(detected.layout);
    setForeign(detected.foreign);
    const known = await call<LogLayout | null>('POST', '/traces/layout', detected.layout);
    if (known.ok && known.value) {
      setLayout(known.value);
      setForeign([]);
      setRemembered(true);
    } else setRemembered(false);
  };

  const read = () => {
    if (!file || !layout || progress !== null || foreign.length > 0) return;
    const asked = new URLSearchParams({ name, layout: JSON.stringify(layout) });
    if (profile) asked.set('profile', profile);
    if (job) asked.set('job', job);
    const sending = new XMLHttpRequest();
    request.current = sending;
    sending.open('POST', `/api/v1/traces/import?${asked}`);
    sending.setRequestHeader('content-type', 'text/csv');
    sending.upload.onprogress = ({ loaded, total }) => setProgress(total ? loaded / total : 0);
    sending.onload = () => {
      setProgress(null);
      const answer = JSON.parse(sending.responseText) as Stored<TraceRecord> | Problem;
      if (sending.status === 201) router.push(`/traces/${(answer as Stored<TraceRecord>).id}`);
      else setProblem((answer as Problem).title);
    };
    sending.onerror = () => {
      setProgress(null);
      setProblem('The server does not answer. Nothing was taken in; try again.');
    };
    sending.onabort = () => {
      setProgress(null);
      setProblem('Stopped. Nothing was taken in.');
    };
    setProblem('');
    setProgress(0);
    sending.send(file);
  };
  useKeys([{ key: 'Backspace', label: 'All traces', run: () => router.push('/traces') }]);
  const change = (index: number, of: Partial<LogColumn>) => {
    setLayout(
      (now) => now && { ...now, columns: now.columns.map((c) => (c.index === index ? { ...c, ...of } : c)) },
    );
    if (of.unit) setForeign((open) => open.filter((one) => one.index !== index));
  };
  const leaveOut = (index: number) => {
    setLayout((now) => now && { ...now, columns: now.columns.filter((c) => c.index !== index) });
    setForeign((open) => open.filter((one) => one.index !== index));
  };

  return (
    <Page title="Read a log" actions={<LinkButton href="/traces">All traces</LinkButton>}>
      <Part title="The file">
        <Box
          onDragOver={(event: React.DragEvent) => event.preventDefault()}
          onDrop={(event: React.DragEvent) => {
            event.preventDefault();
            const dropped = event.dataTransfer.files[0];
            if (dropped) void open(dropped);
          }}
          sx={{
            display: 'flex',
            gap: 2,
            alignItems: 'center',
            border: '1.5px dashed',
            borderColor: 'divider',
            p: 2,
          }}
        >
          <FileButton
            fileLabel="A log as CSV"
            accept=".csv,.txt,.tsv,.log,text/*"
            variant={file ? 'outlined' : 'contained'}
            onFile={(chosen) => void open(chosen)}
          >
            Choose a file
          </FileButton>
          <Box sx={{ overflowWrap: 'anywhere' }}>
            {file
              ? `${file.name}, ${file.size < 1e6 ? `${Math.ceil(file.size / 1e3)} kB` : `${(file.size / 1e6).toFixed(1)} MB`}`
              : 'A CSV or text file from any logger, or drop it here. Nothing leaves this machine.'}
          </Box>
        </Box>
        <Box role="alert" sx={{ color: 'error.main', fontWeight: 600, mt: 1, overflowWrap: 'anywhere' }}>
          {problem}
        </Box>
      </Part>
      {found && layout && (
        <>
          <Part
            title="How it is written"
            note={
              remembered ? 'as confirmed last time for this logger' : 'found in its first lines: look it over'
            }
          >
            {found.doubts.length > 0 && !remembered && (
              <Box component="ul" sx={{ mt: 0, color: 'warning.dark', fontWeight: 600 }}>
                {found.doubts.map((doubt) => (
                  <li key={doubt}>{doubt}</li>
                ))}
              </Box>
            )}
            {foreign.map((one) => (
              <Box
                key={one.index}
                sx={{ display: 'flex', gap: 2, alignItems: 'center', color: 'error.main', fontWeight: 600 }}
              >
                {foreignSentence(one)}
                <Button size="small" onClick={() => leaveOut(one.index)}>
                  Leave “{one.name}” out
                </Button>
              </Box>
            ))}
            <LayoutTable
              layout={layout}
              found={found}
              onTime={(time) => setLayout({ ...layout, time })}
              foreign={foreign}
              onColumn={change}
            />
          </Part>
          <Part title="What it is of">
            <Box
              sx={{
                display: 'grid',
                gridTemplateColumns: { xs: '1fr', sm: 'repeat(3, 1fr)' },
                gap: 2,
                pt: 1,
              }}
            >
              <TextField label="Name" value={name} onChange={(event) => setName(event.target.value)} />
              <Pick
                label="Profile"
                value={profile}
                onPick={setProfile}
                choices={profiles.map(({ id, name: n }) => [id, n])}
                none="Not known"
              />
              <Pick
                label="Job"
                value={job}
                onPick={(id) => {
                  setJob(id);
                  const of = jobs.find((one) => one.id === id);
                  if (of) setProfile(of.profileId);
                }}
                choices={jobs.map(({ id, tag }) => [id, tag])}
                none="None"
              />
            </Box>
          </Part>
          <Box sx={{ display: 'flex', gap: 2, alignItems: 'center' }}>
            <Button
              variant="contained"
              size="large"
              onClick={read}
              disabled={
                progress !== null || name.trim() === '' || foreign.length > 0 || layout.columns.length === 0
              }
            >
              Read and analyse
            </Button>
            {progress !== null && (
              <>
                <Box sx={{ flex: 1, maxWidth: 360 }}>
                  <LinearProgress
                    aria-label="Reading"
                    variant={progress < 1 ? 'determinate' : 'indeterminate'}
                    value={100 * progress}
                  />
                </Box>
                <Box role="status">
                  {progress < 1 ? `${Math.round(100 * progress)} % read` : 'Working it out…'}
                </Box>
                <Button onClick={() => request.current?.abort()}>Stop</Button>
              </>
            )}
          </Box>
        </>
      )}
    </Page>
  );
}

interface LayoutTableProps {
  readonly layout: LogLayout;
  readonly found: Found;
  readonly foreign: readonly ForeignUnit[];
  readonly onTime: (time: LogLayout['time']) => void;
  readonly onColumn: (index: number, of: Partial<LogColumn>) => void;
}

/** First lines of the file under what each column is taken for. */
function LayoutTable({ layout, found, foreign, onTime, onColumn }: LayoutTableProps) {
  const width = found.sample[0]?.length ?? 0;
  const columnAt = (index: number) => layout.columns.find((column) => column.index === index);
  return (
    <Box tabIndex={0} role="region" aria-label="Columns" sx={{ overflowX: 'auto' }}>
      <Table size="small" sx={{ '& td, & th': { verticalAlign: 'top', minWidth: 128 } }}>
        <TableHead>
          <TableRow>
            {Array.from({ length: width }, (_, index) => {
              const column = columnAt(index);
              return (
                <TableCell key={index}>
                  <Box sx={{ fontWeight: 650, mb: 1 }}>
                    {index === layout.time.index ? 'Time' : (column?.name ?? 'Not read')}
                  </Box>
                  {index === layout.time.index ? (
                    <Pick
                      label="Counted in"
                      value={layout.time.kind}
                      onPick={(kind) => onTime({ ...layout.time, kind: kind as TimeKind })}
                      choices={TIME_KINDS.filter((kind) => kind !== 'rows').map((kind) => [
                        kind,
                        TIMES[kind],
                      ])}
                    />
                  ) : (
                    column && (
                      <ColumnChoices
                        column={column}
                        unknown={foreign.some((one) => one.index === index)}
                        onColumn={onColumn}
                      />
                    )
                  )}
                </TableCell>
              );
            })}
          </TableRow>
        </TableHead>
        <TableBody>
          {found.sample.slice(0, 6).map((cells, i) => (
            <TableRow key={i}>
              {cells.map((cell, k) => (
                <TableCell key={k}>{cell}</TableCell>
              ))}
            </TableRow>
          ))}
        </TableBody>
      </Table>
      {layout.time.index === null && (
        <TextField
          label="Time between lines, s"
          type="number"
          defaultValue={layout.time.interval_s}
          onChange={(event) => {
            const interval_s = Number(event.target.value);
            if (interval_s > 0) onTime({ ...layout.time, interval_s });
          }}
          sx={{ width: 220, mt: 2 }}
        />
      )}
    </Box>
  );
}

const unitsOf = (quantity: Quantity) =>
  (Object.keys(UNITS) as UnitId[]).filter((id) =>
    (UNITS[id].measures as readonly Quantity[]).includes(quantity),
  );

function ColumnChoices({
  column,
  unknown,
  onColumn,
}: {
  readonly column: LogColumn;
  /** Its unit is still to be chosen. */
  readonly unknown: boolean;
  readonly onColumn: LayoutTableProps['onColumn'];
}) {
  const set = (of: Partial<LogColumn>) => onColumn(column.index, of);
  const asQuantity = (quantity: Quantity): Partial<LogColumn> => {
    const units = unitsOf(quantity);
    return {
      quantity,
      unit: units.includes(column.unit) ? column.unit : units[0]!,
      form: quantity === 'depression' ? (column.form ?? 'depression') : null,
    };
  };
  /** Where the unit is not known yet, saying what is read does not choose one. */
  const placed = ({ unit, ...rest }: Partial<LogColumn>) =>
    unknown || unit === column.unit ? rest : { ...rest, unit };
  return (
    <Box sx={{ display: 'grid', gap: 1 }}>
      <Pick
        label="Taken at"
        value={column.port ?? ''}
        onPick={(port) => set(port ? { port, ...placed(asQuantity(LOG_PORTS[port]!)) } : { port: null })}
        choices={Object.entries(PORT_NAMES)}
        none="Elsewhere"
      />
      {!column.port && (
        <Pick
          label="Quantity"
          value={column.quantity}
          onPick={(quantity) => set(placed(asQuantity(quantity as Quantity)))}
          choices={QUANTITIES.filter((q) => unitsOf(q).length > 0).map((q) => [q, q])}
        />
      )}
      <Pick
        label="Unit"
        value={unknown ? '' : column.unit}
        none={unknown ? 'Choose a unit' : undefined}
        onPick={(unit) => set({ unit: unit as UnitId })}
        choices={unitsOf(column.quantity).map((id) => [id, UNITS[id].symbol || 'none'])}
      />
      {column.quantity === 'depression' && (
        <Pick
          label="Written as"
          value={column.form ?? 'depression'}
          onPick={(form) => set({ form: form as LogColumn['form'] })}
          choices={VACUUM_FORMS.map((form) => [form, FORMS[form]!])}
        />
      )}
    </Box>
  );
}

interface PickProps {
  readonly label: string;
  readonly value: string;
  readonly onPick: (value: string) => void;
  readonly choices: readonly (readonly [value: string, name: string])[];
  /** What choosing nothing is called; left out where something must be chosen. */
  readonly none?: string;
}

function Pick({ label, value, onPick, choices, none }: PickProps) {
  return (
    <TextField select label={label} value={value} onChange={(event) => onPick(event.target.value)}>
      {none !== undefined && <MenuItem value="">{none}</MenuItem>}
      {choices.map(([key, name]) => (
        <MenuItem key={key} value={key}>
          {name}
        </MenuItem>
      ))}
    </TextField>
  );
}
