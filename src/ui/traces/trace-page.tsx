'use client';

import { Box, Button, MenuItem, TextField } from '@mui/material';
import { useRouter } from 'next/navigation';
import { useCallback, useMemo, useRef, useState } from 'react';
import type { CurvePoint } from '@/core/families/expected-curve';
import type { TraceRecord, Yielded } from '@/core/records/trace-record';
import type { Stored } from '@/core/records/views';
import type { Analysis, Stretch } from '@/core/signals/analysis';
import { call } from '../api';
import { Key, useKeys } from '../keys';
import { LinkButton } from '../link-button';
import { Nothing } from '../page';
import { usePrint } from '../settings-context';
import { day, time } from '../stamp';
import { RemoveButton } from '../shelf/remove-button';
import { CurvePlot } from './curve-plot';
import { TimePlot, type DrawnTrace } from './time-plot';
import { Legend } from './legend';
import { Pins } from './pins';
import { usePins } from './use-pins';
import { savePlot } from './save-plot';
import { StretchEntry } from './stretch-entry';
import type { PlotOption } from './use-chart';

/** A trace with what was worked out of it. */
export interface AnalysedTrace {
  readonly stored: Stored<TraceRecord>;
  readonly analysis: Analysis;
}

interface TracePageProps {
  readonly trace: AnalysedTrace;
  readonly other: AnalysedTrace | null;
  /** Traces that can be laid beside this one. */
  readonly choices: readonly { readonly id: string; readonly name: string }[];
  readonly expected: readonly CurvePoint[];
  readonly profileName: string | null;
  readonly jobTag: string | null;
}

/** One trace: what it yields at the left, output against input at the right, and against time when asked. */
export function TracePage({ trace, other, choices, expected, profileName, jobTag }: TracePageProps) {
  const router = useRouter();
  const [stored, setStored] = useState(trace.stored);
  const { stretches, notes } = trace.analysis;
  const curves = useMemo(() => stretches.filter(({ points }) => points.length > 0), [stretches]);
  const otherCurves = useMemo(
    () => other?.analysis.stretches.filter(({ points }) => points.length > 0) ?? [],
    [other],
  );
  const [against, setAgainst] = useState<'input' | 'time'>(curves.length > 0 ? 'input' : 'time');
  const [chosen, setChosen] = useState<Yielded | null>(null);
  const [problem, setProblem] = useState('');
  const option = useRef<PlotOption>({});
  const keepOption = useCallback((next: PlotOption) => void (option.current = next), []);
  const drawn = useMemo((): DrawnTrace => ({ id: stored.id, record: stored.body, shift_s: 0 }), [stored]);
  const beside = useMemo(
    (): DrawnTrace | null =>
      other && {
        id: other.stored.id,
        record: other.stored.body,
        shift_s: firstPull(stretches) - firstPull(other.analysis.stretches),
      },
    [other, stretches],
  );

  const marked = stored.body.notes.filter(({ yields }) => yields !== undefined);
  const all: readonly Yielded[] = [...stretches, ...marked.flatMap(({ yields = [] }) => yields)];
  const choose = (stretch: Yielded) => {
    setChosen(stretch === chosen ? null : stretch);
    if (stretch !== chosen) setAgainst(curves.some((one) => one === stretch) ? against : 'time');
  };
  const step = (by: number) => {
    if (all.length === 0) return;
    const at = chosen ? all.indexOf(chosen) : by > 0 ? -1 : 0;
    choose(all[(at + by + all.length) % all.length]!);
  };
  const write = async (change: Partial<Pick<TraceRecord, 'name' | 'notes'>>) => {
    return send('PUT', '', { name: stored.body.name, notes: stored.body.notes, ...change });
  };
  const send = async (method: 'PUT' | 'POST', place: string, body: unknown) => {
    const answer = await call<Stored<TraceRecord>>(method, `/traces/${stored.id}${place}`, {
      version: stored.version,
      body,
    });
    setProblem(answer.ok ? '' : answer.problem.title);
    if (answer.ok) setStored(answer.value);
    return answer.ok;
  };
  const pins = usePins(stored.body.notes, {
    keep: (notes) => write({ notes }),
    workOut: (note) => send('POST', '/ranges', note),
    onProblem: setProblem,
  });
  const save = (kind: 'svg' | 'png') => void savePlot(option.current, stored.body.name, kind);
  useKeys([
    {
      key: 't',
      label: 'Against time, or against input',
      run: () => setAgainst(against === 'time' ? 'input' : 'time'),
    },
    { key: '[', label: 'Stretch before', run: () => step(-1) },
    { key: ']', label: 'Next stretch', run: () => step(1) },
    {
      key: 'm',
      label: 'Mark a moment or a range',
      run: () => {
        setAgainst('time');
        pins.begin(chosen);
      },
    },
    { key: 'Backspace', label: 'All traces', run: () => router.push('/traces') },
  ]);

  return (
    <Box
      sx={{
        display: 'grid',
        gridTemplateColumns: { xs: '1fr', md: '380px minmax(0, 1fr)' },
        gridTemplateRows: { xs: 'auto', md: 'auto minmax(0, 1fr)' },
        height: { md: 'calc(100dvh - 49px)' },
        minHeight: { md: 640 },
      }}
    >
      <Box
        sx={{
          gridColumn: { md: '1 / 3' },
          order: { xs: -2, md: 0 },
          display: 'flex',
          alignItems: 'center',
          gap: 1.5,
          px: 2,
          py: 1,
          borderBottom: 1,
          borderColor: 'divider',
          flexWrap: 'wrap',
        }}
      >
        <Box
          component="h1"
          sx={{ m: 0, fontSize: '1.3rem', flex: 1, minWidth: 220, overflowWrap: 'anywhere' }}
        >
          {stored.body.name}
          <Box
            component="span"
            sx={{ fontWeight: 400, fontSize: '0.95rem', color: 'text.secondary', ml: 1.5 }}
          >
            {[day(stored.body.madeAt), time(stored.body.madeAt).slice(0, 5), profileName, jobTag]
              .filter(Boolean)
              .join(' · ')}
          </Box>
        </Box>
        <TextField
          select
          label="Lay beside it"
          value={other?.stored.id ?? ''}
          onChange={(event) =>
            router.replace(`/traces/${stored.id}${event.target.value ? `?with=${event.target.value}` : ''}`)
          }
          sx={{ width: 220 }}
        >
          <MenuItem value="">Nothing</MenuItem>
          {choices.map(({ id, name }) => (
            <MenuItem key={id} value={id}>
              {name}
            </MenuItem>
          ))}
        </TextField>
        <LinkButton href="/traces">All traces</LinkButton>
      </Box>
      <Box
        component="section"
        aria-label="What this trace yields"
        tabIndex={0}
        sx={{ overflowY: 'auto', borderRight: { md: 1 }, borderColor: 'divider', p: 1.5, minHeight: 0 }}
      >
        {stretches.length === 0 && <Nothing>Nothing in this trace could be told apart as a test.</Nothing>}
        {stretches.map((stretch, i) => (
          <StretchEntry
            key={i}
            stretch={stretch}
            others={other ? matching(other.analysis.stretches, stretches, stretch) : null}
            chosen={stretch === chosen}
            onChoose={() => choose(stretch)}
          />
        ))}
        {marked.map(({ id, at_s, to_s, words: said, yields = [] }) => (
          <Box key={id} component="section" aria-label={`Marked range, ${said}`} sx={{ mt: 1.5 }}>
            <Box sx={{ borderTop: 1, borderColor: 'divider', pt: 1, fontWeight: 650 }}>
              Marked {at_s.toFixed(1)} to {to_s?.toFixed(1)} s: {said}
            </Box>
            {yields.length === 0 && <Nothing>Nothing in this range could be told apart as a test.</Nothing>}
            {yields.map((stretch, i) => (
              <StretchEntry
                key={i}
                stretch={stretch}
                others={null}
                chosen={stretch === chosen}
                onChoose={() => choose(stretch)}
              />
            ))}
          </Box>
        ))}
        <Notices notes={notes} record={stored.body} />
      </Box>
      <Box
        sx={{
          display: 'flex',
          flexDirection: 'column',
          order: { xs: -1, md: 0 },
          minHeight: { xs: 620, md: 0 },
          minWidth: 0,
          p: 1.5,
          gap: 1,
        }}
      >
        <Box sx={{ display: 'flex', gap: 1, alignItems: 'center', flexWrap: 'wrap' }}>
          <Button
            variant={against === 'input' ? 'contained' : 'outlined'}
            aria-pressed={against === 'input'}
            disabled={curves.length === 0}
            onClick={() => setAgainst('input')}
          >
            Output against input
          </Button>
          <Button
            variant={against === 'time' ? 'contained' : 'outlined'}
            aria-pressed={against === 'time'}
            onClick={() => setAgainst('time')}
            sx={{ gap: 0.8 }}
          >
            Against time <Key name="t" />
          </Button>
          <Box sx={{ ml: 'auto', display: 'flex', gap: 0.5 }}>
            <Button size="small" onClick={() => save('svg')}>
              Save as SVG
            </Button>
            <Button size="small" onClick={() => save('png')}>
              Save as PNG
            </Button>
            <Button size="small" component="a" href={`/api/v1/traces/${stored.id}/readings.csv`} download>
              Readings as CSV
            </Button>
          </Box>
        </Box>
        <Box sx={{ flex: 1, minHeight: 0 }}>
          {against === 'input' ? (
            <CurvePlot
              channels={stored.body.channels}
              stretches={curves}
              others={otherCurves}
              expected={expected}
              chosen={chosen}
              onOption={keepOption}
            />
          ) : (
            <TimePlot
              trace={drawn}
              other={beside}
              stretches={stretches}
              chosen={chosen}
              onMoment={pins.press}
              onOption={keepOption}
            />
          )}
        </Box>
        <Legend
          against={against}
          channels={stored.body.channels}
          expected={expected.length > 0}
          other={other?.stored.body.name ?? null}
        />
        {against === 'time' && <Pins notes={stored.body.notes} pins={pins} />}
        <Box role="alert" sx={{ color: 'error.main', fontWeight: 600 }}>
          {problem}
        </Box>
        <Box sx={{ display: 'flex', gap: 1 }}>
          <RemoveButton path={`/traces/${stored.id}`} name={stored.body.name} label="Take this trace away" />
        </Box>
      </Box>
    </Box>
  );
}

/** Where the first pull with assist begins, to lay two traces over each other. */
const firstPull = (stretches: readonly Stretch[]) =>
  (stretches.find(({ kind }) => kind === 'pull') ?? stretches[0])?.from_s ?? 0;

/** The stretch of another trace that goes with one here: the same kind, the same place among its kind. */
function matching(theirs: readonly Stretch[], ours: readonly Stretch[], stretch: Stretch): Stretch | null {
  const place = ours.filter(({ name }) => name === stretch.name).indexOf(stretch);
  return theirs.filter(({ name }) => name === stretch.name)[place] ?? null;
}

function Notices({ notes, record }: { notes: Analysis['notes']; record: TraceRecord }) {
  const print = usePrint();
  return (
    <Box sx={{ mt: 2, color: 'text.secondary', fontSize: '0.9rem' }}>
      <Box>
        {record.rows.toLocaleString('en')} readings of {record.channels.length} channels over{' '}
        {print.value(record.duration_s, 'duration')}. Limits are for noise; a gauge’s own error is not in
        them.
      </Box>
      {notes.map((note, i) => (
        <Box key={i}>{print.sentence(note)}</Box>
      ))}
      {record.troubleCount > 0 && (
        <Box component="details" sx={{ mt: 1 }}>
          <summary>{record.troubleCount} places of the file could not be read as they stand</summary>
          <ul>
            {record.troubles.map((trouble) => (
              <li key={trouble}>{trouble}</li>
            ))}
          </ul>
        </Box>
      )}
    </Box>
  );
}
