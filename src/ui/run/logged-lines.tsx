import { Box, Link } from '@mui/material';
import NextLink from 'next/link';
import { toldBy, type LoggedTrace } from '@/core/documents/logged-traces';
import { usePrint } from '../settings-context';

/** On the tape: what the logger's recording of a step tells, with the way to it. Nothing where it tells nothing. */
export function LoggedLines({ trace }: { trace: LoggedTrace }) {
  const print = usePrint();
  const { told, silent } = toldBy(trace);
  if (told.length + silent === 0) return null;
  return (
    <Box component="li" sx={{ my: 0.5, pl: 1, borderLeft: 2, borderColor: 'divider' }}>
      <Link
        component={NextLink}
        href={`/traces/${trace.id}`}
        color="inherit"
        aria-label={`Logged: ${trace.record.name}`}
      >
        Logged
      </Link>
      {told.map(({ result, estimate }, i) => (
        // On a narrow tape a value goes to a line of its own, in one piece.
        <Box key={i} sx={{ display: 'flex', flexWrap: 'wrap', columnGap: 1 }}>
          <Box component="span" sx={{ color: 'text.secondary' }}>
            {result.name}
          </Box>
          <Box component="span" sx={{ ml: 'auto', whiteSpace: 'nowrap' }}>
            {print.value(estimate.value, result.quantity, { u_SI: estimate.u, withU: true })}
          </Box>
        </Box>
      ))}
      {silent > 0 && <Box sx={{ color: 'text.secondary' }}>{silent} could not be told</Box>}
    </Box>
  );
}
