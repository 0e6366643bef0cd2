import { Box } from '@mui/material';
import type { Version } from '@/core/records/views';
import { Nothing } from '../page';
import { day } from '../stamp';

/** What happened to a thing on the shelf, newest first: every version stays. */
export function History({ versions }: { versions: readonly Version[] }) {
  if (versions.length === 0) return <Nothing>Nothing on record.</Nothing>;
  return (
    <Box component="ol" sx={{ listStyle: 'none', m: 0, p: 0 }}>
      {versions.map(({ at, version, what, calibration }, i) => (
        <Box component="li" key={i} sx={{ py: 0.6, borderBottom: 1, borderColor: 'divider' }}>
          <b>{day(at)}</b> {what}, version {version}
          {calibration && (
            <Box sx={{ color: 'text.secondary' }}>
              {[
                `on ${calibration.on}`,
                calibration.due && `next ${calibration.due}`,
                calibration.certificate && `certificate ${calibration.certificate}`,
                calibration.found,
                calibration.correction &&
                  `correction table of ${calibration.correction.points.length} points`,
              ]
                .filter(Boolean)
                .join(' · ')}
            </Box>
          )}
        </Box>
      ))}
    </Box>
  );
}
