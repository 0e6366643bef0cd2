'use client';

import { Box, Button } from '@mui/material';
import { useState, type ReactNode } from 'react';
import { FAMILIES } from '@/core/families/registry';
import {
  judgedWords,
  otherwiseSentences,
  type JudgedRun,
  type SaidOtherwise,
} from '@/core/records/judged-run';
import type { StoredRun } from '@/core/records/views';
import { LinkButton } from '../link-button';
import { Overdue } from '../overdue';
import { Tape } from '../run/tape';
import { useLogged } from '../run/use-logged';
import { usePrint } from '../settings-context';
import { VerdictMark } from '../verdict-mark';
import { Mark } from './mark';

/** One test of the unit, judged. */
export interface Visit extends JudgedRun {
  readonly run: StoredRun;
  /** What today's program would say, where that is not what was written. */
  readonly otherwise: SaidOtherwise | 'unreadable' | null;
}

interface VisitPartProps {
  readonly visit: Visit;
  readonly stale: readonly string[];
  /** Traces of this test to open. */
  readonly traces: ReactNode;
}

/** A test on the unit's tape: what it came to, what tells, and its own tape to unroll. */
export function VisitPart({ visit, stale, traces }: VisitPartProps) {
  const print = usePrint();
  const { run, results, assessment, state, otherwise } = visit;
  const [tape, setTape] = useState(false);
  const { logged, ask } = useLogged(run.id);
  const telling = results.filter(({ verdict }) => verdict === 'fails' || verdict === 'close');
  const kind = run.continues
    ? 'Re-test'
    : run.context.procedure.setting === 'vehicle'
      ? 'Test of the vehicle'
      : 'Bench test';
  return (
    <Mark when={run.startedAt} title={run.finishedAt ? kind : `${kind}, not finished`}>
      <Box sx={{ fontSize: '1.3rem', fontWeight: 650 }}>
        {run.finishedAt ? assessment.headline : `So far: ${assessment.headline.toLowerCase()}`}
      </Box>
      {assessment.reasons.map((reason, i) => (
        <Box key={i}>{print.sentence(reason)}</Box>
      ))}
      {run.judged?.how === 'imported' && <Box>{judgedWords(run.judged)}.</Box>}
      {otherwise && (
        <Box sx={{ borderLeft: 4, borderColor: 'warning.main', pl: 1.5, my: 1 }}>
          <Box sx={{ fontWeight: 600 }}>
            Today’s program would judge these readings otherwise. What was written stands.
          </Box>
          {otherwiseSentences(otherwise).map((text) => (
            <Box key={text}>{text}</Box>
          ))}
        </Box>
      )}
      <Box component="ul" sx={{ listStyle: 'none', p: 0, my: 1 }}>
        {telling.map((result) => {
          const isStale = stale.includes(result.step);
          return (
            <Box component="li" key={result.id} sx={{ display: 'flex', gap: 2, py: 0.2 }}>
              <Box sx={{ width: 160 }}>
                <VerdictMark verdict={result.verdict} />
              </Box>
              <Box>
                <Box component="span" sx={{ textDecoration: isStale ? 'line-through' : undefined }}>
                  {result.name}
                  {result.value !== null &&
                    `: ${print.value(result.value, result.quantity, { u_SI: result.u, withU: true })}`}
                  {result.seen && `: ${result.seen}`}
                </Box>
                {isStale && ' · stale'}
                <Overdue tags={result.overdue} />
              </Box>
            </Box>
          );
        })}
      </Box>
      <Box sx={{ display: 'flex', gap: 1, flexWrap: 'wrap' }}>
        <LinkButton href={`/runs/${run.id}/report`} variant="outlined">
          {run.finishedAt ? 'Report' : 'Report so far'}
        </LinkButton>
        <Button
          onClick={() => {
            setTape((shown) => !shown);
            void ask();
          }}
          aria-expanded={tape}
        >
          {tape ? 'Roll up the tape' : 'Unroll the tape'}
        </Button>
      </Box>
      {traces}
      {tape && (
        <Box sx={{ maxWidth: 420, mt: 1, border: 1, borderColor: 'divider' }}>
          <Tape
            ports={FAMILIES[run.kind].ports}
            context={run.context}
            state={state}
            events={run.events}
            results={results}
            logged={logged}
          />
        </Box>
      )}
    </Mark>
  );
}
