'use client';

import { Box, Button } from '@mui/material';
import type { Sentence } from '@/core/quantities/sentence';
import type { Yielded } from '@/core/records/trace-record';
import type { TraceResult } from '@/core/signals/analysis';
import { usePrint } from '../settings-context';

interface StretchEntryProps {
  readonly stretch: Yielded;
  /** The same stretch of the trace laid beside; null where there is none. */
  readonly others: Yielded | null;
  readonly chosen: boolean;
  readonly onChoose: () => void;
}

/** A stretch of a trace: what it tells, what it could not tell, and beside it the same of another trace. */
export function StretchEntry({ stretch, others, chosen, onChoose }: StretchEntryProps) {
  const print = usePrint();
  return (
    <Box
      component="article"
      sx={{
        borderLeft: 4,
        borderColor: chosen ? 'primary.main' : 'transparent',
        pl: 1,
        py: 0.5,
        mb: 1,
        fontSize: '0.93rem',
      }}
    >
      <Button
        onClick={onChoose}
        aria-pressed={chosen}
        sx={{ p: 0, minWidth: 0, fontSize: '1rem', fontWeight: 650, textAlign: 'left' }}
      >
        {stretch.name}
        <Box component="span" sx={{ fontWeight: 400, color: 'text.secondary', ml: 1 }}>
          {stretch.from_s.toFixed(1)} to {stretch.to_s.toFixed(1)} s
        </Box>
      </Button>
      <Box
        component="dl"
        sx={{ m: 0, display: 'grid', gridTemplateColumns: '1fr auto', columnGap: 1, rowGap: 0.2 }}
      >
        {stretch.results
          .filter(({ estimate }) => estimate.told)
          .map((result) => (
            <ResultLine
              key={result.id}
              result={result}
              other={others?.results.find(({ id }) => id === result.id) ?? null}
            />
          ))}
      </Box>
      {untoldOf(stretch, print.sentence).map(({ names, why }) => (
        <Box key={why} sx={{ color: 'text.secondary' }}>
          <b>{names.join(', ')}: could not tell.</b> {why}
        </Box>
      ))}
      {stretch.notes.map((note, i) => (
        <Box key={i} sx={{ color: 'text.secondary' }}>
          {print.sentence(note)}
        </Box>
      ))}
    </Box>
  );
}

/** What the stretch does not tell, said once for all that share the reason. */
function untoldOf(stretch: Yielded, say: (sentence: Sentence) => string) {
  const reasons = new Map<string, string[]>();
  for (const { name, estimate } of stretch.results) {
    if (estimate.told) continue;
    const why = [say(estimate.why), estimate.wanted ? say(estimate.wanted) : ''].join(' ').trim();
    reasons.set(why, [...(reasons.get(why) ?? []), name]);
  }
  return [...reasons].map(([why, names]) => ({ why, names }));
}

function ResultLine({ result, other }: { result: TraceResult; other: TraceResult | null }) {
  const print = usePrint();
  const { estimate } = result;
  if (!estimate.told) return null;
  const shown = (value: number, u: number) =>
    print.value(value, result.quantity, u > 0 ? { u_SI: u, withU: true } : {});
  return (
    <>
      <Box component="dt">{result.name}</Box>
      <Box component="dd" sx={{ m: 0, textAlign: 'right', whiteSpace: 'nowrap' }}>
        {shown(estimate.value, estimate.u)}
        {other?.estimate.told && (
          <Box sx={{ color: 'warning.dark' }}>
            {shown(other.estimate.value, other.estimate.u)}
            {Math.abs(estimate.value - other.estimate.value) > 2 * Math.hypot(estimate.u, other.estimate.u)
              ? ', moved'
              : ', as before'}
          </Box>
        )}
      </Box>
    </>
  );
}
