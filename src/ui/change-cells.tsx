import { Box, TableCell } from '@mui/material';
import { printDifference } from '@/core/quantities/print';
import type { Quantity } from '@/core/quantities/units';
import type { Change } from '@/core/twin/compare';
import { usePrint } from './settings-context';

type Told = 'told_before' | 'told_after';

interface ChangeCellsProps {
  readonly of: Omit<Change, 'place' | Told> & Partial<Pick<Change, Told>> & { readonly quantity: Quantity };
}

/** One number before and after, and its change, each with U: three cells of a row. What is not told has no number. */
export function ChangeCells({ of }: ChangeCellsProps) {
  const { told_before = true, told_after = true } = of;
  const print = usePrint();
  const value = (value_SI: number, u_SI: number) => print.value(value_SI, of.quantity, { u_SI, withU: true });
  return (
    <>
      <TableCell>{told_before ? value(of.before, of.u_before) : HOW_MUCH}</TableCell>
      <TableCell>{told_after ? value(of.after, of.u_after) : HOW_MUCH}</TableCell>
      <TableCell>
        {told_before && told_after ? (
          <>
            {printDifference(of.change, of.quantity, print.unitSet, of.u_change)}{' '}
            <Box component="span" sx={{ color: 'text.secondary', fontWeight: 400 }}>
              ± {print.value(2 * of.u_change, of.quantity, { u_SI: of.u_change, bare: true })}
            </Box>
          </>
        ) : of.change < 0 ? (
          'less than before'
        ) : (
          'more than before'
        )}
      </TableCell>
    </>
  );
}
const HOW_MUCH = 'could not tell how much';
