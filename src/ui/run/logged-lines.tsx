import { Box, Link } from '@mui/material';
import NextLink from 'next/link';
import { toldBy, type LoggedTrace } from '@/core/records/logged-traces';
import { usePrint } from '../settings-context';

/** On the tape: what the logger's recording of a step tells, with the way to it. Nothing where it tells nothing. */
export function LoggedLines({ trace }: { trace: LoggedTrace }) {
  const print = usePrint();
  const { told, silent } = toldBy(trace);
  if (told.length + silent === 0) return null;
  return (
    <Box component="li" sx={{ my: 0.5, pl: 1, borderLeft: 2, borderColor: 'divider' }}>
      <Link component={NextLink} href={`/traces/${trace.id}`} color="inherit">
        Logged
      </Link>
      {told.map(({ stretch, result, estimate }) => (
        <Box
          key={`${stretch} ${result.id}`}
          sx={{ display: 'flex', justifyContent: 'space-between', gap: 1 }}
        >
          <Box component="span" sx={{ color: 'text.secondary' }}>
            {result.name}
          </Box>
          <Box component="span" sx={{ textAlign: 'right' }}>
            {print.value(estimate.value, result.quantity, { u_SI: estimate.u, withU: true })}
          </Box>
        </Box>
      ))}
      {silent > 0 && <Box sx={{ color: 'text.secondary' }}>{silent} could not be told</Box>}
    </Box>
  );
}
