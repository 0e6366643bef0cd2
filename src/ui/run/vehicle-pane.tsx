'use client';

import { Box, Button } from '@mui/material';
import { useMemo, useState } from 'react';
import type { FoundInLog, Heard, ThroughInterface, Values } from '@/core/contract/vehicle-interface';
import { Plot } from '@/core/plot/plot';
import { Ladder } from '../ladder';
import { fromSI, unitFor } from '@/core/quantities/units';
import { CONTROL_S, type VehicleControl, type VehicleStatus } from '@/core/shop/vehicle-live';
import { call } from '../api';
import { usePrint, useSettings } from '../settings-context';
import { time } from '../stamp';
import { useSize } from '../use-size';
import { Grave, Left, Looked } from '../live/control-left';
import type { VehicleNow } from '../live/use-vehicle';

interface VehiclePaneProps {
  readonly runId: string;
  readonly through: ThroughInterface;
  readonly profile: unknown;
  readonly vehicle: VehicleNow;
  /** The cautions of the step were read, and something in it is asked for. */
  readonly isAtWork: boolean;
}

/** What a log tells is worked out anew so often, s. */
const TOLD_EVERY_S = 2;
/** So much of it is drawn at the least, s. */
const LEAST_DRAWN_S = 60;
const LEAST = { width: 300, height: 140 };

/** What the vehicle's own interface tells in a step, and what it may be asked to do: beside the step's manual way, never in its place. */
export function VehiclePane({ runId, through, profile, vehicle, isAtWork }: VehiclePaneProps) {
  const { status, log } = vehicle;
  const print = usePrint();
  const isReading = status?.state === 'reading';
  const last = log.at(-1);
  const values = isReading && last ? last.values : {};
  const figures = through.shows(values);
  return (
    <Box
      component="section"
      aria-label="From the vehicle"
      sx={{ borderTop: 2, borderColor: 'text.primary', pt: 1, display: 'grid', gap: 1 }}
    >
      <Left status={status} />
      <Box sx={{ display: 'flex', alignItems: 'baseline', gap: 2, flexWrap: 'wrap' }}>
        <Box component="h3" sx={{ m: 0, fontSize: '1.05rem' }}>
          From the vehicle
        </Box>
        <Box
          role="status"
          sx={{ color: isReading && !status.trouble ? 'text.secondary' : 'error.main', fontWeight: 600 }}
        >
          {lineWords(status)}
        </Box>
      </Box>
      <Figures
        rows={figures.map(({ id, name, shows }) => ({
          id,
          name,
          text:
            'word' in shows
              ? (shows.word ?? NOT_TOLD)
              : shows.value === null
                ? NOT_TOLD
                : print.value(shows.value, shows.quantity),
        }))}
      />
      <Asking runId={runId} through={through} status={status} isAtWork={isAtWork} />
      <Told through={through} log={log} values={values} profile={profile} runId={runId} />
    </Box>
  );
}

const NOT_TOLD = 'not told';

/** Names with what they are, side by side. */
const Figures = ({
  rows,
}: {
  rows: readonly { readonly id: string; readonly name: string; readonly text: string }[];
}) => (
  <Box component="dl" sx={{ m: 0, display: 'flex', flexWrap: 'wrap', columnGap: 2.5, rowGap: 0.5 }}>
    {rows.map(({ id, name, text }) => (
      <Box key={id}>
        <Box component="dt" sx={{ fontSize: '0.8rem', color: 'text.secondary' }}>
          {name}
        </Box>
        <Box
          component="dd"
          sx={{
            m: 0,
            fontSize: '1.1rem',
            fontWeight: 650,
            fontVariantNumeric: 'tabular-nums',
            whiteSpace: 'nowrap',
          }}
        >
          {text}
        </Box>
      </Box>
    ))}
  </Box>
);

function lineWords(status: VehicleStatus | null): string {
  if (!status || status.state === 'connecting') return 'Connecting…';
  return status.trouble
    ? `${status.trouble} Go on by hand, as the step says.`
    : 'Its own sensors: no reading of the test.';
}

interface AskingProps {
  readonly runId: string;
  readonly through: ThroughInterface;
  readonly status: VehicleStatus | null;
  readonly isAtWork: boolean;
}

/** What the unit may be asked to do, who has it now, and what came of it. */
function Asking({ runId, through: { asks }, status, isAtWork }: AskingProps) {
  const [problem, setProblem] = useState('');
  const [busy, setBusy] = useState(false);
  if (!asks) return null;
  const { control = null, said = null } = status ?? {};
  const send = async (state: string | null) => {
    setBusy(true);
    const answer = await call('POST', '/vehicle/control', { run: runId, value: asks.value, state });
    setProblem(answer.ok ? '' : answer.problem.title);
    setBusy(false);
  };
  return (
    <Box sx={{ display: 'grid', gap: 0.5 }}>
      <Box sx={{ display: 'flex', alignItems: 'center', gap: 1.5, flexWrap: 'wrap' }}>
        {control ? (
          <Button variant="contained" color="warning" disabled={busy} onClick={() => void send(null)}>
            Give it back
          </Button>
        ) : (
          <Button
            variant="outlined"
            disabled={busy || !isAtWork || status?.state !== 'reading'}
            onClick={() => void send(asks.state)}
          >
            {asks.says}
          </Button>
        )}
        <Box sx={{ flex: 1, minWidth: '22ch', fontSize: '0.85rem', color: 'text.secondary' }}>
          {control ? <Having control={control} runId={runId} /> : STANDS}
        </Box>
      </Box>
      {said?.isGrave ? (
        <Grave>
          {said.says} <Looked />
        </Grave>
      ) : (
        <Box role="status" sx={{ fontWeight: 600, color: problem ? 'error.main' : 'text.primary' }}>
          {problem || said?.says}
        </Box>
      )}
    </Box>
  );
}

const STANDS = `Only while the vehicle stands; it has its own way again after ${CONTROL_S} s, or as this screen is left.`;

const Having = ({
  control: { name, state, since, run },
  runId,
}: {
  control: VehicleControl;
  runId: string;
}) => (
  <>
    {name}: told “{state}” at {time(since)}
    {run === runId ? '' : ', for another test'}. It has its own way again after {CONTROL_S} s.
  </>
);

/** A scale of its own for what is drawn, with the band that the unit means to keep it within. */
function Own({ through: { course }, values }: { through: ThroughInterface; values: Values }) {
  const { unitSet } = useSettings();
  const keeps = course.keeps(values);
  return (
    <Box sx={{ height: LEAST.height + 30, display: 'grid' }}>
      <Ladder
        name={course.name}
        channel="supply"
        gauges={[{ tag: 'its own', quantity: course.quantity, fullScale_Pa: course.most }]}
        unitSet={unitSet}
        band={keeps && { low: keeps[0], high: keeps[1] }}
        reading={course.of(values)}
        lit
      />
    </Box>
  );
}

/** The course of one figure, shaded where something is so. */
function Course({ through: { course }, log }: { through: ThroughInterface; log: readonly Heard[] }) {
  const { unitSet } = useSettings();
  const [box, size] = useSize(LEAST);
  const svg = useMemo(() => {
    const unit = unitFor(course.quantity, unitSet);
    const end_s = log.at(-1)?.t_s ?? 0;
    const plot = new Plot(
      {
        title: 'Time, s',
        low: Math.max(0, Math.floor(end_s) - 10 * LEAST_DRAWN_S),
        high: Math.max(LEAST_DRAWN_S, Math.ceil(end_s)),
      },
      { title: `${course.name}, ${unit.symbol}`, low: 0, high: fromSI(course.most, unit) },
      { width: Math.max(LEAST.width, Math.floor(size.width)), height: LEAST.height },
    );
    const drawn = log.filter(({ t_s }) => t_s >= end_s - 10 * LEAST_DRAWN_S);
    let from: number | null = null;
    const top = fromSI(course.most, unit);
    const shade = (a: number, b: number) =>
      plot.band(
        [
          [a, 0],
          [b, 0],
        ],
        [
          [a, top],
          [b, top],
        ],
      );
    for (const { t_s, values } of drawn) {
      const is = course.isShaded(values);
      if (is) from ??= t_s;
      if (!is && from !== null) {
        shade(from, t_s);
        from = null;
      }
    }
    if (from !== null) shade(from, end_s);
    const points = drawn.flatMap(({ t_s, values }) => {
      const value = course.of(values);
      return value === null ? [] : [[t_s, fromSI(value, unit)] as const];
    });
    if (points.length > 1) plot.line(points);
    return plot.svg(`${course.name} as it went; shaded where ${course.shaded}`);
  }, [course, log, size.width, unitSet]);
  return (
    <Box ref={box} sx={{ minWidth: 0, overflow: 'hidden', '& svg': { display: 'block' } }}>
      <div dangerouslySetInnerHTML={{ __html: svg }} />
      <Box sx={{ fontSize: '0.8rem', color: 'text.secondary' }}>Shaded: {course.shaded}.</Box>
    </Box>
  );
}

interface ToldProps {
  readonly through: ThroughInterface;
  readonly log: readonly Heard[];
  /** What it tells now; nothing while it is not read. */
  readonly values: Values;
  readonly profile: unknown;
  readonly runId: string;
}

/** A doubt from noise alone that is less than this part says nothing beside what the sensor may be out by itself. */
const TOLD_DOUBT = 0.005;
const doubtOf = (value: number, u: number) =>
  u > TOLD_DOUBT * Math.abs(value) ? { u_SI: u, withU: true } : {};

/** What the log tells so far. */
function Told({ through, log, values, profile, runId }: ToldProps) {
  const print = usePrint();
  const turn = Math.floor((log.at(-1)?.t_s ?? 0) / TOLD_EVERY_S);
  // Anew every few moments, not with each of them.
  // eslint-disable-next-line react-hooks/exhaustive-deps
  const { found, says } = useMemo(() => through.tells(log, profile), [through, turn, profile]);
  if (log.length === 0) return null;
  const told = found.flatMap(({ name, found: one }) =>
    one.told
      ? [{ id: name, name, text: print.value(one.value, one.quantity, doubtOf(one.value, one.u)) }]
      : [],
  );
  const untold = found.filter(({ found: one }) => !one.told);
  return (
    <Box sx={{ display: 'grid', gap: 0.75 }}>
      {says.map((one, i) => (
        <Box key={i} sx={{ borderLeft: '5px solid', borderColor: 'primary.main', pl: 1.25, fontWeight: 600 }}>
          {print.sentence(one)}
        </Box>
      ))}
      {told.length > 0 && <Figures rows={told} />}
      <Box sx={{ display: 'grid', gap: 1.5, gridTemplateColumns: '80px minmax(0, 1fr)' }}>
        <Own through={through} values={values} />
        <Course through={through} log={log} />
      </Box>
      <Box component="ul" sx={{ m: 0, pl: 2.25, fontSize: '0.85rem', color: 'text.secondary' }}>
        {untold.map((one) => (
          <Missing key={one.name} {...one} />
        ))}
      </Box>
      <Button href={`/api/v1/vehicle/log.csv?run=${runId}`} size="small" sx={{ justifySelf: 'start' }}>
        Log as CSV
      </Button>
    </Box>
  );
}

function Missing({ name, found }: FoundInLog) {
  const print = usePrint();
  if (found.told) return null;
  return (
    <li>
      {name}: {print.sentence(found.why)} {found.wanted && print.sentence(found.wanted)}
    </li>
  );
}
