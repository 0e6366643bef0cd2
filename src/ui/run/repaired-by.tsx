'use client';

import { Box, Table, TableBody, TableCell, TableRow } from '@mui/material';
import type { MovedParameter, Repaired } from '@/core/diagnosis/repaired';
import { chancePercent, repairedWords } from '@/core/diagnosis/words';
import { ChangeCells } from '../change-cells';
import { usePrint } from '../settings-context';
import { Columns } from '../table-head';

/** What a repair came to: the fault it speaks of before and behind it, and the numbers of the unit that it should have moved. */
export function RepairedBy({ of, wide = false }: { of: Repaired; wide?: boolean }) {
  const print = usePrint();
  return (
    <Box role="group" aria-label="What the repair came to" sx={{ mb: 1.5 }}>
      <Box sx={{ fontWeight: 650 }}>
        {of.name[0]!.toUpperCase() + of.name.slice(1)}: {chancePercent(of.before)} before the repair,{' '}
        {chancePercent(of.after)} behind it.
      </Box>
      <Box>{repairedWords(of.is)}</Box>
      {wide ? (
        <Table
          size="small"
          aria-label="What the repair moved"
          sx={{ mt: 1, '& td, & th': { px: 0.75, py: 0.4 } }}
        >
          <Columns
            names={[
              'What it should move',
              'Before, if it was that ± U',
              'After ± U',
              'Change ± U',
              'Finding',
            ]}
          />
          <TableBody>
            {of.parameters.map((one) => (
              <TableRow key={one.id} sx={{ '& td': { fontWeight: one.moved ? 700 : 400 } }}>
                <TableCell>{one.name}</TableCell>
                <ChangeCells of={one} />
                <TableCell sx={{ whiteSpace: 'nowrap' }}>{found(one)}</TableCell>
              </TableRow>
            ))}
          </TableBody>
        </Table>
      ) : (
        of.parameters.map((one) => (
          <Box key={one.id} sx={{ fontSize: '0.9rem' }}>
            {one.name}: {print.value(one.before, one.quantity, { u_SI: one.u_before })} then,{' '}
            {print.value(one.after, one.quantity, { u_SI: one.u_after })} now, {found(one)}
          </Box>
        ))
      )}
    </Box>
  );
}

const found = ({ moved }: MovedParameter) =>
  moved === null ? 'could not tell' : moved ? 'changed' : 'within the noise';
