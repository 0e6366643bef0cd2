'use client';

import { Box, ButtonBase } from '@mui/material';
import { memo, useEffect, useRef, type ReactNode } from 'react';
import { findItem } from '@/core/contract/steps';
import { instrumentsOf } from '@/core/procedure/measured-item';
import { measured, readingUncertainty_SI } from '@/core/metrology/uncertainty';
import { tapeOf, type TapeLine } from '@/core/procedure/tape';
import { tapedOf, type LoggedTrace } from '@/core/documents/logged-traces';
import type { RunEvent } from '@/core/contract/events';
import type { RunState } from '@/core/contract/run-state';
import type { Port } from '@/core/contract/family';
import type { RunContext } from '@/core/contract/run-context';
import type { Result } from '@/core/contract/result';
import { notThrough } from '@/core/procedure/opening';
import { usePrint } from '../settings-context';
import { MONO } from '../theme';
import { Overdue } from '../overdue';
import { VerdictMark } from '../verdict-mark';
import { LoggedLines } from './logged-lines';

interface TapeProps {
  readonly ports: readonly Port[];
  readonly context: RunContext<unknown>;
  readonly state: RunState;
  readonly events: readonly RunEvent[];
  readonly results: readonly Result[];
  /** What was logged meanwhile. */
  readonly logged?: readonly LoggedTrace[];
  readonly selected?: string | null;
  readonly onSelect?: (captureId: string) => void;
  /** Keep the newest line in sight. */
  readonly follow?: boolean;
}

const NONE: readonly LoggedTrace[] = [];

/**
 * The run as a growing strip: its memory, its navigation and, printed, its record. Drawn anew only where something
 * happened: the run screen around it changes with every moment of the live bench.
 */
export const Tape = memo(UnrolledTape);

function UnrolledTape({
  ports,
  context,
  state,
  events,
  results,
  logged = NONE,
  selected,
  onSelect,
  follow,
}: TapeProps) {
  const lines = tapeOf(context.procedure, state, events, tapedOf(logged));
  const box = useRef<HTMLOListElement>(null);
  useEffect(() => {
    const tape = box.current;
    if (!follow || !tape) return;
    const toNewest = () => void (tape.scrollTop = tape.scrollHeight);
    toNewest();
    const watch = new ResizeObserver(toNewest);
    watch.observe(tape);
    return () => watch.disconnect();
  }, [follow, lines.length]);
  return (
    <Box
      component="ol"
      ref={box}
      tabIndex={0}
      aria-label="Tape"
      sx={{
        listStyle: 'none',
        m: 0,
        p: 1.5,
        pt: 0.5,
        overflowY: 'auto',
        height: '100%',
        fontFamily: MONO,
        fontSize: '0.8rem',
        lineHeight: 1.35,
      }}
    >
      {lines.length === 0 && <Box component="li">Nothing on the tape yet.</Box>}
      {lines.map((line) => (
        <Line
          key={line.id}
          line={line}
          ports={ports}
          context={context}
          results={results}
          logged={logged}
          selected={selected === line.id}
          onSelect={onSelect}
        />
      ))}
    </Box>
  );
}

/** A mark across the tape: what follows stands otherwise than what came before. */
const Mark = ({ children }: { children: ReactNode }) => (
  <Box
    component="li"
    sx={{ my: 0.8, py: 0.4, borderTop: 2, borderBottom: 2, borderColor: 'warning.main', fontWeight: 650 }}
  >
    {children}
  </Box>
);

interface LineProps extends Pick<TapeProps, 'ports' | 'context' | 'results' | 'logged' | 'onSelect'> {
  readonly line: TapeLine;
  readonly selected: boolean;
}

function Line({ line, ports, context, results, logged, selected, onSelect }: LineProps) {
  switch (line.kind) {
    case 'logged': {
      const trace = logged?.find(({ id }) => id === line.id);
      return trace ? <LoggedLines trace={trace} /> : null;
    }
    case 'step':
      return (
        <Box
          component="li"
          sx={{ mt: 1.2, mb: 0.3, pb: 0.2, borderBottom: 1, borderColor: 'divider', fontWeight: 700 }}
        >
          {line.title}
        </Box>
      );
    case 'look':
      return <LookLine line={line} selected={selected} />;
    case 'wait':
      return (
        <Plain back={line.back}>
          {line.prompt}: {Math.round(line.seconds)} s
        </Plain>
      );
    case 'source':
      return <Plain back={line.back}>{line.words}</Plain>;
    case 'disturbed':
      return <Mark>{line.why}: readings that this can have moved no longer count</Mark>;
    case 'clock':
      return <Mark>{line.words}</Mark>;
    case 'skip':
      return (
        <Plain back={line.back}>
          Skipped {line.what}: {clipped(line.reason)}
        </Plain>
      );
    case 'decided':
      return <Plain back={line.back}>{clipped(line.words)}</Plain>;
    case 'reading':
      return (
        <ReadingLine
          line={line}
          ports={ports}
          context={context}
          results={results}
          selected={selected}
          onSelect={onSelect}
        />
      );
  }
}

/** Brings a line into view once it is chosen elsewhere. */
function useInView(selected: boolean) {
  const line = useRef<HTMLLIElement>(null);
  useEffect(() => {
    if (selected) line.current?.scrollIntoView({ block: 'nearest' });
  }, [selected]);
  return line;
}

function LookLine({ line, selected }: { line: Extract<TapeLine, { kind: 'look' }>; selected: boolean }) {
  const ref = useInView(selected);
  return (
    <Box
      component="li"
      ref={ref}
      aria-current={selected || undefined}
      sx={{
        display: 'flex',
        gap: 1,
        justifyContent: 'space-between',
        py: 0.15,
        bgcolor: selected ? 'action.selected' : undefined,
      }}
    >
      <span>
        <Box component="span" sx={{ textDecoration: line.replaced ? 'line-through' : undefined }}>
          {line.name}: {line.label}
        </Box>
        {line.note && ` (${line.note})`}
        {line.replaced && ' · no longer counts'}
      </span>
      {!line.replaced && (
        <VerdictMark
          bare
          verdict={{ good: 'meets', bad: 'fails', unknown: 'not-taken' }[line.finds] as Result['verdict']}
        />
      )}
    </Box>
  );
}

const clipped = (words: string) => (words.length > 200 ? `${words.slice(0, 200)}…` : words);

/** A line that is no reading; what was taken back is struck out. */
function Plain({ back, children }: { back: boolean; children: ReactNode }) {
  return (
    <Box component="li" sx={{ color: 'text.secondary', overflowWrap: 'anywhere' }}>
      <Box component="span" sx={{ textDecoration: back ? 'line-through' : undefined }}>
        {children}
      </Box>
      {back && ' · taken back'}
    </Box>
  );
}

function ReadingLine({
  line,
  ports,
  context,
  results,
  selected,
  onSelect,
}: LineProps & { line: Extract<TapeLine, { kind: 'reading' }> }) {
  const print = usePrint();
  const ref = useInView(selected);
  const { capture } = line;
  const item = findItem(context.procedure, capture.item)?.item;
  const gauge = instrumentsOf(context.rig, context.shelf).get(capture.instrument);
  if (item?.kind !== 'reading' || !gauge) return null;
  const u_SI = readingUncertainty_SI(measured([capture.value_SI], gauge));
  const result = results.find(
    (candidate) => candidate.item === capture.item && candidate.captures.includes(capture.id),
  );
  const expected = result?.expected;
  const text = (
    <>
      <Box component="span" sx={{ display: 'flex', justifyContent: 'space-between', gap: 1, width: '100%' }}>
        <Box
          component="span"
          sx={{ textDecoration: capture.struck || capture.stale ? 'line-through' : 'none' }}
        >
          {ports.find(({ id }) => id === item.port)?.short}{' '}
          {print.value(capture.value_SI, item.quantity, { u_SI, withU: true })}
        </Box>
        {!capture.struck && !capture.stale && result && <VerdictMark bare verdict={result.verdict} />}
      </Box>
      <Box component="span" sx={{ color: 'text.secondary', fontSize: '0.92em' }}>
        {capture.instrument}
        {expected !== null &&
          expected !== undefined &&
          result?.quantity === item.quantity &&
          ` · expected ${print.value(expected, item.quantity, { u_SI })}`}
        {capture.struck && ' · struck'}
        {capture.stale && ' · stale'}
        {!capture.stale && <Overdue tags={result?.overdue ?? []} />}
        {capture.gateShut && ` · ${print.sentence(notThrough(item))}`}
        {capture.confirmedUnlikely && ' · confirmed'}
      </Box>
    </>
  );
  const style = {
    display: 'block',
    width: '100%',
    textAlign: 'left' as const,
    py: 0.25,
    px: 0.5,
    mx: -0.5,
    bgcolor: selected ? 'action.selected' : undefined,
  };
  return (
    <Box component="li" ref={ref}>
      {onSelect ? (
        <ButtonBase
          className="touched"
          sx={{ ...style, fontFamily: 'inherit', fontSize: 'inherit' }}
          onClick={() => onSelect(capture.id)}
          aria-pressed={selected}
        >
          {text}
        </ButtonBase>
      ) : (
        <Box sx={style}>{text}</Box>
      )}
    </Box>
  );
}
