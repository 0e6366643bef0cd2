'use client';

import { Box, Button, Table, TableBody, TableCell, TableRow, TextField } from '@mui/material';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { comparedIn, unknownPlace, type Comparison } from '@/core/shop/comparison';
import type { Stored } from '@/core/records/views';
import { call } from '../api';
import { Nothing, Page } from '../page';
import { Columns } from '../table-head';
import { VERDICT_WORDS } from './verdict-words';

/** Vehicles that another kind of assist is asked for, and what came of it. */
export function ComparisonsPage({ comparisons }: { comparisons: readonly Stored<Comparison>[] }) {
  const router = useRouter();
  const [name, setName] = useState('');
  const [problem, setProblem] = useState('');
  const [busy, setBusy] = useState(false);
  const begin = async () => {
    setBusy(true);
    const body = { place: unknownPlace(name), candidates: [] };
    const answer = await call<Stored<Comparison>>('POST', '/comparisons', body);
    setBusy(false);
    if (answer.ok) return router.push(`/shelf/comparisons/${answer.value.id}`);
    setProblem(Object.values(answer.problem.fields ?? {})[0] ?? answer.problem.title);
  };
  return (
    <Page title="Fitting another assist">
      <Box
        component="form"
        sx={{ display: 'flex', gap: 2, alignItems: 'center', flexWrap: 'wrap', mb: 2 }}
        onSubmit={(event) => {
          event.preventDefault();
          void begin();
        }}
      >
        <TextField
          label="Vehicle"
          value={name}
          onChange={({ target }) => setName(target.value)}
          sx={{ width: 320 }}
        />
        <Button type="submit" variant="contained" disabled={busy}>
          Begin a comparison
        </Button>
        <Box role="alert" sx={{ color: 'error.main', fontWeight: 600 }}>
          {problem}
        </Box>
      </Box>
      {comparisons.length === 0 ? (
        <Nothing>
          None yet. Name the vehicle of a customer who wants another kind of assist, then add what could be
          fitted: what is not known yet is said, and never assumed.
        </Nothing>
      ) : (
        <Table size="small" aria-label="Comparisons">
          <Columns names={['Vehicle', 'Candidates', 'First of them']} />
          <TableBody>
            {comparisons.map(({ id, body }) => {
              const [first] = comparedIn(body);
              return (
                <TableRow key={id} hover>
                  <TableCell>
                    <Box
                      component={Link}
                      href={`/shelf/comparisons/${id}`}
                      sx={{ fontWeight: 700, color: 'primary.main' }}
                    >
                      {body.place.name}
                    </Box>
                  </TableCell>
                  <TableCell>{body.candidates.length}</TableCell>
                  <TableCell>
                    {first ? `${first.name}: ${VERDICT_WORDS[first.verdict].toLowerCase()}` : ''}
                  </TableCell>
                </TableRow>
              );
            })}
          </TableBody>
        </Table>
      )}
    </Page>
  );
}
