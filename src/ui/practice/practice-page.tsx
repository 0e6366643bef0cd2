'use client';

import {
  Box,
  Button,
  MenuItem,
  Table,
  TableBody,
  TableCell,
  TableContainer,
  TableRow,
  TextField,
} from '@mui/material';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { FAMILIES, SIMULATED } from '@/core/families/registry';
import type { CaseView } from '@/core/practice/case-view';
import { READY_CASES, READY_POINTS, standsAt, type AtLevel } from '@/core/practice/history';
import { LEVEL_IDS, LEVELS, type LevelId } from '@/core/practice/levels';
import { call, type Answer } from '../api';
import { FileButton } from '../file-button';
import { KindSelect } from '../kind-select';
import { Nothing, Page, Part } from '../page';
import { useSettings } from '../settings-context';
import { day } from '../stamp';
import { Columns } from '../table-head';
import { FreePractice } from './free-practice';

/** Cases with something hidden in them: to be begun, gone on with, and looked back at. */
export function PracticePage({ cases }: { cases: readonly CaseView[] }) {
  const open = cases.filter(({ told }) => told === null);
  const over = cases.filter(({ told }) => told !== null);
  const who = [...new Set(over.map(({ technician }) => technician))].sort();
  return (
    <Page title="Practice">
      <Part title="A new case" note="Made up. Something may be wrong with it, and nobody says what.">
        <NewCase />
      </Part>
      {open.length > 0 && (
        <Part title="Not over yet">
          <TableContainer>
            <Table size="small" aria-label="Cases not over yet">
              <Columns names={['Case', 'On', 'Level', 'Technician', 'Complaint', 'Begun']} />
              <TableBody>
                {open.map((one) => (
                  <TableRow key={one.id} hover>
                    <CaseCells one={one} />
                    <TableCell>{one.complaint}</TableCell>
                    <TableCell sx={{ whiteSpace: 'nowrap' }}>{day(one.beganAt)}</TableCell>
                  </TableRow>
                ))}
              </TableBody>
            </Table>
          </TableContainer>
        </Part>
      )}
      <Part
        title="How it stands"
        note={`Ready at a level: ${READY_POINTS} points on average in the last ${READY_CASES} cases that count.`}
      >
        {who.length === 0 ? (
          <Nothing>No case is over yet. The first one shows here, with what would have been better.</Nothing>
        ) : (
          <TableContainer>
            <Table size="small" aria-label="How it stands">
              <Columns names={['Technician', ...LEVEL_IDS.map((level) => `Level ${level}`)]} />
              <TableBody>
                {who.map((technician) => (
                  <TableRow key={technician}>
                    <TableCell sx={{ fontWeight: 650 }}>{technician}</TableCell>
                    {standsAt(pastOf(over), technician).map((at) => (
                      <TableCell key={at.level}>{standingWords(at)}</TableCell>
                    ))}
                  </TableRow>
                ))}
              </TableBody>
            </Table>
          </TableContainer>
        )}
      </Part>
      {over.length > 0 && (
        <Part title="Cases that are over">
          <TableContainer>
            <Table size="small" aria-label="Cases that are over">
              <Columns
                names={['Case', 'On', 'Level', 'Technician', 'Points', 'What would have been better']}
              />
              <TableBody>
                {over.map((one) => (
                  <TableRow key={one.id} hover>
                    <CaseCells one={one} />
                    <TableCell>
                      {one.told!.debrief.score.points}
                      {one.notCounted && ' (does not count)'}
                    </TableCell>
                    <TableCell>{one.told!.debrief.better}</TableCell>
                  </TableRow>
                ))}
              </TableBody>
            </Table>
          </TableContainer>
        </Part>
      )}
      <Part title="Without a case">
        <FreePractice />
      </Part>
    </Page>
  );
}

const pastOf = (over: readonly CaseView[]) =>
  over.toReversed().map(({ technician, level, notCounted, told }) => ({
    technician,
    level,
    counts: notCounted === null,
    points: told!.debrief.score.points,
  }));

const standingWords = ({ cases, average, ready }: AtLevel): string =>
  average === null
    ? '–'
    : `${Math.round(average)} in ${Math.min(cases, READY_CASES)} of ${READY_CASES}${ready ? ': ready' : ''}`;

function CaseCells({ one }: { one: CaseView }) {
  return (
    <>
      <TableCell>
        <Box
          component={Link}
          href={`/practice/${one.id}`}
          sx={{ fontWeight: 700, color: 'primary.main', whiteSpace: 'nowrap' }}
        >
          {one.tag}
        </Box>
      </TableCell>
      <TableCell>{FAMILIES[one.kind].name}</TableCell>
      <TableCell>{one.level}</TableCell>
      <TableCell>{one.technician}</TableCell>
    </>
  );
}

function NewCase() {
  const router = useRouter();
  const settings = useSettings();
  const [technician, setTechnician] = useState(settings.technician);
  const [kind, setKind] = useState(SIMULATED[0]!);
  const [level, setLevel] = useState<LevelId>(1);
  const [seed, setSeed] = useState('');
  const [problem, setProblem] = useState('');
  const [busy, setBusy] = useState(false);
  const begin = async (body: object) => {
    setBusy(true);
    const answer: Answer<CaseView> = await call('POST', '/practice/cases', { technician, ...body });
    if (answer.ok) {
      router.push(`/practice/${answer.value.id}`);
      return router.refresh();
    }
    setBusy(false);
    setProblem(Object.values(answer.problem.fields ?? {})[0] ?? answer.problem.title);
  };
  const typed = seed.trim();
  return (
    <Box
      component="form"
      sx={{ display: 'grid', gap: 1.5, pt: 1 }}
      onSubmit={(event) => {
        event.preventDefault();
        if (typed !== '' && !/^\d+$/.test(typed)) return setProblem('Seed: a whole number, or nothing.');
        void begin({ kind, level, ...(typed !== '' && { seed: Number(typed) }) });
      }}
    >
      <Box sx={{ display: 'flex', gap: 2, flexWrap: 'wrap', alignItems: 'flex-start' }}>
        <TextField
          label="Technician"
          value={technician}
          onChange={({ target }) => setTechnician(target.value)}
          sx={{ width: 200 }}
        />
        <KindSelect
          label="What to practise on"
          kind={kind}
          kinds={SIMULATED}
          onKind={setKind}
          sx={{ width: 300 }}
        />
        <TextField
          select
          label="Level"
          value={level}
          onChange={({ target }) => setLevel(Number(target.value) as LevelId)}
          sx={{ width: 320 }}
        >
          {LEVEL_IDS.map((id) => (
            <MenuItem key={id} value={id}>
              {id} · {LEVELS[id].name}
            </MenuItem>
          ))}
        </TextField>
        <TextField
          label="Seed, to repeat a case"
          value={seed}
          onChange={({ target }) => setSeed(target.value)}
          sx={{ width: 200 }}
          slotProps={{ htmlInput: { inputMode: 'numeric', maxLength: 10 } }}
        />
      </Box>
      <Box sx={{ color: 'text.secondary' }}>{LEVELS[level].says}</Box>
      <Box sx={{ display: 'flex', gap: 2, flexWrap: 'wrap', alignItems: 'center' }}>
        <Button type="submit" variant="contained" disabled={busy} sx={{ minHeight: 44 }}>
          Begin a case
        </Button>
        <FileButton
          fileLabel="Practice file"
          accept="application/json"
          disabled={busy}
          sx={{ minHeight: 44 }}
          onFile={(file) => void file.text().then((text) => begin({ file: text }))}
        >
          Begin from a file
        </FileButton>
        <Box role="alert" sx={{ color: 'error.main', fontWeight: 600 }}>
          {problem}
        </Box>
      </Box>
    </Box>
  );
}
