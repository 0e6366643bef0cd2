'use client';

import { Box } from '@mui/material';
import Link from 'next/link';
import type { Part } from '@/core/contract/family';
import { forecastSentence, type FoundInJob, type PreChargeHistory } from '@/core/shop/pre-charges';
import { usePrint } from '../settings-context';

interface Props {
  readonly histories: readonly PreChargeHistory<FoundInJob>[];
  readonly parts: readonly Pick<Part, 'id' | 'name'>[];
  /** The job that is looked at: its own readings need no link. */
  readonly jobId: string;
}

/** The gas of a unit’s accumulators over the years, and when it will be too low. */
export function PreCharges({ histories, parts, jobId }: Props) {
  const print = usePrint();
  return histories.map((history) => {
    const name = parts.find(({ id }) => id === history.accumulator)?.name ?? history.accumulator;
    return (
      <Box key={history.accumulator} component="section" aria-label={`${name}: pre-charge over the years`}>
        <Box sx={{ fontWeight: 650 }}>{name}: pre-charge at 20 °C</Box>
        <Box
          component="table"
          sx={{ borderCollapse: 'collapse', width: 1, maxWidth: 460, '& td': { py: 0.3, pr: 1.5 } }}
        >
          <tbody>
            {history.found.map((one) => (
              <tr key={one.at}>
                <td>{one.on}</td>
                <td>
                  {one.jobId === jobId ? (
                    one.tag
                  ) : (
                    <Box component={Link} href={`/jobs/${one.jobId}`} sx={{ color: 'primary.main' }}>
                      {one.tag}
                    </Box>
                  )}
                </td>
                <Box component="td" sx={{ textAlign: 'right' }}>
                  {print.value(one.preCharge_Pa, 'pressure', { u_SI: one.u_Pa, withU: true })}
                </Box>
              </tr>
            ))}
          </tbody>
        </Box>
        <Box sx={{ color: 'text.secondary' }}>{print.sentence(forecastSentence(history))}</Box>
      </Box>
    );
  });
}
