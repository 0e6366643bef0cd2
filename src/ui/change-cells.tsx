import { Box, TableCell } from '@mui/material';
import { printDifference } from '@/core/quantities/print';
import type { Quantity } from '@/core/quantities/units';
import type { Change } from '@/core/twin/compare';
import { usePrint } from './settings-context';

/** One number before and after, and its change, each with U: three cells of a row. */
export function ChangeCells({ of }: { of: Omit<Change, 'place'> & { readonly quantity: Quantity } }) {
  const print = usePrint();
  return (
    <>
      <TableCell>{print.value(of.before, of.quantity, { u_SI: of.u_before, withU: true })}</TableCell>
      <TableCell>{print.value(of.after, of.quantity, { u_SI: of.u_after, withU: true })}</TableCell>
      <TableCell>
        {printDifference(of.change, of.quantity, print.unitSet, of.u_change)}{' '}
        <Box component="span" sx={{ color: 'text.secondary', fontWeight: 400 }}>
          ± {print.value(2 * of.u_change, of.quantity, { u_SI: of.u_change, bare: true })}
        </Box>
      </TableCell>
    </>
  );
}
