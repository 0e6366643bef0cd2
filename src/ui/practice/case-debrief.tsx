'use client';

import { Box, Button, Table, TableBody, TableCell, TableContainer, TableRow } from '@mui/material';
import type { ReactNode } from 'react';
import { chancePercent } from '@/core/diagnosis/words';
import { FAMILIES, type FamilyKind } from '@/core/families/registry';
import type { CaseView } from '@/core/practice/case-view';
import { hangsOnVacuum } from '@/core/practice/draw';
import { minutesWords, repairWords, stageWords, toldWords } from '@/core/practice/words';
import { NEEDLESS_PART_MIN } from '@/core/practice/score';
import type { Told } from '@/core/practice/walk';
import { Nothing, Part } from '../page';
import { usePrint } from '../settings-context';
import { Columns } from '../table-head';

interface CaseDebriefProps {
  readonly id: string;
  readonly kind: FamilyKind;
  readonly told: NonNullable<CaseView['told']>;
  readonly actions: ReactNode;
}

/** What was hidden, what each test told of it, and the way that the adviser would have gone. */
export function CaseDebrief({ id, kind, told: { seed, truth, debrief }, actions }: CaseDebriefProps) {
  const { score, tests, adviser, minutes, lapses, better, found, really } = debrief;
  const print = usePrint();
  const { faults: library } = FAMILIES[kind];
  const names = truth.faults.map(([fault, severity]) => {
    const name = library.find((one) => one.id === fault)?.name ?? fault;
    return `${name[0]!.toUpperCase()}${name.slice(1)}, ${stageWords(severity)}`;
  });
  return (
    <>
      <Box
        sx={{
          display: 'grid',
          gridTemplateColumns: { xs: '1fr', md: 'auto minmax(0, 1fr)' },
          gap: 3,
          alignItems: 'center',
          mb: 3,
        }}
      >
        <Box>
          <Box sx={{ fontSize: '3.4rem', fontWeight: 700, lineHeight: 1 }}>{score.points}</Box>
          <Box sx={{ color: 'text.secondary' }}>of 100 points</Box>
        </Box>
        <Box component="dl" sx={{ m: 0, display: 'grid', gridTemplateColumns: 'auto 1fr', columnGap: 2 }}>
          <Line name="Really wrong" is={names.length > 0 ? names.join('. ') : 'Nothing: the unit is sound'} />
          <Line name="Found" is={`${repairWords(kind, found)} (${score.finding} of 50)`} />
          <Line
            name="Time"
            is={`${minutesWords(minutes)}${partsWords(debrief.needless.length)}; the adviser ${minutesWords(adviser.minutes)} (${score.economy} of 40)`}
          />
          <Line
            name="Care"
            is={`${lapses.length > 0 ? lapses.join(' ') : 'Nothing left out'} (${score.care} of 10)`}
          />
          <Line name="Better" is={better} strong />
        </Box>
      </Box>
      <Box
        sx={{
          display: 'grid',
          gap: 3,
          gridTemplateColumns: { xs: 'minmax(0, 1fr)', md: 'minmax(0, 1fr) minmax(0, 1fr)' },
        }}
      >
        <Part title="What each test told" note={minutesWords(minutes)}>
          {tests.length > 0 ? (
            <Way kind={kind} tests={tests} name="What each test told" />
          ) : (
            <Nothing>Nothing was measured.</Nothing>
          )}
        </Part>
        <Part title="The adviser’s own way" note={minutesWords(adviser.minutes)}>
          <Way kind={kind} tests={adviser.tests} name="The adviser’s own way" />
          <Box sx={{ pt: 1 }}>
            It finds: {repairWords(kind, adviser.found).toLowerCase()}
            {adviser.found === really
              ? '.'
              : ', which is not all of it: some cases nobody tells with these tests.'}
          </Box>
        </Part>
      </Box>
      <Part title="Around the unit">
        <Box sx={{ py: 1 }}>
          {hangsOnVacuum(FAMILIES[kind]) &&
            `The source reached ${print.value(truth.supply_Pa, 'depression')}. `}
          {truth.gaugeOut === null
            ? 'Every gauge was within its class.'
            : `${truth.gaugeOut} was far out of its class: it showed ${outWords(truth.gauges[truth.gaugeOut]!.scale)}.`}
        </Box>
        <Box sx={{ display: 'flex', gap: 2, flexWrap: 'wrap', alignItems: 'center' }}>
          <Box>
            Seed <b>{seed}</b>: the same one at the same level draws this case again.
          </Box>
          <Button component="a" href={`/api/v1/practice/cases/${id}/file`} download>
            Share as a file
          </Button>
          {actions}
        </Box>
      </Part>
    </>
  );
}

const outWords = (scale: number): string =>
  `${(100 * Math.abs(scale - 1)).toFixed(1)} % too ${scale > 1 ? 'much' : 'little'}`;

const partsWords = (needless: number): string =>
  needless === 0
    ? ''
    : `, and ${needless} ${needless === 1 ? 'part' : 'parts'} changed for nothing at ${NEEDLESS_PART_MIN} minutes each`;

function Line({ name, is, strong }: { name: string; is: string; strong?: boolean }) {
  return (
    <>
      <Box component="dt" sx={{ color: 'text.secondary' }}>
        {name}
      </Box>
      <Box component="dd" sx={{ m: 0, fontWeight: strong ? 650 : undefined, maxWidth: '80ch' }}>
        {is}
      </Box>
    </>
  );
}

/** A way through the tests: what each took, and what was likeliest behind it. */
function Way({ kind, tests, name }: { kind: FamilyKind; tests: readonly Told[]; name: string }) {
  return (
    <TableContainer>
      <Table size="small" aria-label={name}>
        <Columns names={['Test', 'Took', 'Told', 'Likeliest then']} />
        <TableBody>
          {tests.map((test, i) => (
            <TableRow key={`${i} ${test.step}`}>
              <TableCell>{test.title}</TableCell>
              <TableCell sx={{ whiteSpace: 'nowrap' }}>{Math.round(test.minutes)} min</TableCell>
              <TableCell sx={{ whiteSpace: 'nowrap' }}>{toldWords(test.bits)}</TableCell>
              <TableCell>
                {repairWords(kind, test.likeliest)},{' '}
                <Box component="span" sx={{ whiteSpace: 'nowrap' }}>
                  {chancePercent(test.chance)}
                </Box>
              </TableCell>
            </TableRow>
          ))}
        </TableBody>
      </Table>
    </TableContainer>
  );
}
