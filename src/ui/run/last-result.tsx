'use client';

import { Box } from '@mui/material';
import { adviceSentence } from '@/core/metrology/advice';
import { printDifference } from '@/core/quantities/print';
import type { Result } from '@/core/contract/result';
import { Overdue } from '../overdue';
import { usePrint } from '../settings-context';
import { VerdictMark } from '../verdict-mark';

/** The result that the last reading gave: value with U, verdict, margin, and what would settle a close call. */
export function LastResult({ result }: { result: Result }) {
  const print = usePrint();
  const { value, u, quantity, expected, margin, advice } = result;
  return (
    <Box sx={{ borderTop: 1, borderBottom: 1, borderColor: 'divider', py: 0.75 }}>
      <Box sx={{ display: 'flex', gap: 1.5, alignItems: 'baseline', flexWrap: 'wrap' }}>
        <Box sx={{ fontWeight: 650 }}>{result.name}</Box>
        {value !== null && (
          <Box sx={{ fontSize: '1.15rem' }}>{print.value(value, quantity, { u_SI: u, withU: true })}</Box>
        )}
        {expected !== null && (
          <Box sx={{ color: 'text.secondary' }}>expected {print.value(expected, quantity, { u_SI: u })}</Box>
        )}
        <VerdictMark verdict={result.verdict} />
        <Overdue tags={result.overdue} />
        {margin !== null && (
          <Box sx={{ color: 'text.secondary' }}>
            {printDifference(Math.abs(margin), quantity, print.unitSet, u).replace('+', '')}{' '}
            {margin >= 0 ? 'inside' : 'outside'} the limit
          </Box>
        )}
      </Box>
      {result.verdict === 'close' && result.pConform !== null && (
        <Box>Probability of keeping to the limit: {Math.round(result.pConform * 100)} %</Box>
      )}
      {result.notes.map((note, i) => (
        <Box key={i}>{print.sentence(note)}</Box>
      ))}
      {advice && (
        <Box sx={{ fontWeight: 600, color: 'warning.dark' }}>
          What would settle it: {print.sentence(adviceSentence(advice, quantity))}
        </Box>
      )}
    </Box>
  );
}
