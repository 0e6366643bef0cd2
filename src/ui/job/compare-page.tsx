'use client';

import {
  Alert,
  Box,
  LinearProgress,
  MenuItem,
  Table,
  TableBody,
  TableCell,
  TableRow,
  TextField,
} from '@mui/material';
import { useRouter } from 'next/navigation';
import { Suspense, use, useEffect, useState } from 'react';
import { printNames } from '@/core/quantities/sentence';
import type { Moved, ParameterChange, ResultPair } from '@/core/documents/before-after';
import type { Beliefs } from '@/core/diagnosis/causes';
import type { Repaired } from '@/core/diagnosis/repaired';
import type { FamilyKind } from '@/core/families/registry';
import type { RepairBefore } from '@/core/records/repair-before';
import type { StoredJob } from '@/core/records/views';
import type { Result } from '@/core/contract/result';
import { ChangeCells } from '../change-cells';
import { useKeys } from '../keys';
import { LinkButton } from '../link-button';
import { Nothing, Page, Part } from '../page';
import { RepairedBy } from '../run/repaired-by';
import { useAdvice } from '../run/use-advice';
import type { RunHandle } from '../run/use-run';
import { usePrint } from '../settings-context';
import { day, time } from '../stamp';
import { Columns } from '../table-head';
import { VerdictMark } from '../verdict-mark';

interface ComparePageProps {
  readonly job: StoredJob;
  readonly runs: readonly { id: string; startedAt: string }[];
  readonly before: string;
  readonly after: string;
  readonly results: readonly ResultPair[];
  /** What changed in the unit, which takes seconds. */
  readonly moved: Promise<Moved>;
  /** What was repaired in between, with both tests; null where nothing was. */
  readonly repaired: {
    readonly kind: FamilyKind;
    readonly weights: Beliefs['weights'];
    readonly before: RepairBefore;
    readonly after: Pick<RunHandle, 'context' | 'state'>;
  } | null;
}

/** Two tests of a unit side by side: what in the unit changed, by how much, and every result before and after. */
export function ComparePage({ job, runs, before, after, results, moved, repaired }: ComparePageProps) {
  const router = useRouter();
  const print = usePrint();
  const [came, setCame] = useState<Repaired | null>(null);
  useKeys([{ key: 'Backspace', label: 'Back to the job', run: () => router.push(`/jobs/${job.id}`) }]);
  const choose = (change: { before?: string; after?: string }) =>
    router.replace(`/jobs/${job.id}/compare?${new URLSearchParams({ before, after, ...change })}`);
  const picker = (label: string, value: string, onChoose: (id: string) => void) => (
    <TextField
      select
      label={label}
      value={value}
      onChange={(event) => onChoose(event.target.value)}
      sx={{ width: 220 }}
    >
      {runs.map(({ id, startedAt }) => (
        <MenuItem key={id} value={id}>{`${day(startedAt)}, ${time(startedAt).slice(0, 5)}`}</MenuItem>
      ))}
    </TextField>
  );
  return (
    <Page
      title={`${job.body.tag}: before and after`}
      actions={
        <>
          <LinkButton href={`/jobs/${job.id}`}>Back to the job</LinkButton>
          {picker('Before', before, (id) => choose({ before: id }))}
          {picker('After', after, (id) => choose({ after: id }))}
        </>
      }
    >
      {repaired && <RepairPart of={repaired} complaint={job.body.complaint} onFound={setCame} />}
      <Part
        title={came ? 'What else changed in the unit' : 'What changed in the unit'}
        note="found by fitting the unit’s model to each test’s readings"
      >
        <Suspense
          key={`${before} ${after}`}
          fallback={<LinearProgress aria-label="Fitting the unit to both tests" sx={{ my: 1 }} />}
        >
          <WhatMoved moved={moved} elsewhere={came?.parameters ?? []} />
        </Suspense>
      </Part>
      <Part title="Results side by side">
        <Table
          size="small"
          aria-label="Results before and after"
          sx={{ '& td, & th': { px: 0.75, py: 0.4 } }}
        >
          <Columns names={['Result', 'Before', 'Verdict before', 'After', 'Verdict after', 'Readings']} />
          <TableBody>
            {results.map(({ id, name, before: a, after: b, carried }) => (
              <TableRow key={id}>
                <TableCell sx={{ width: '36%' }}>{name}</TableCell>
                <TableCell>{shown(a, print.value)}</TableCell>
                <TableCell>{a && <VerdictMark verdict={a.verdict} />}</TableCell>
                <TableCell>{shown(b, print.value)}</TableCell>
                <TableCell>{b && <VerdictMark verdict={b.verdict} />}</TableCell>
                <TableCell sx={{ color: 'text.secondary' }}>
                  {carried ? 'carried over' : 'taken again'}
                </TableCell>
              </TableRow>
            ))}
          </TableBody>
        </Table>
      </Part>
    </Page>
  );
}

/** Whether the repair mended what it was made for: worked out beside the page from the readings of both tests. */
function RepairPart({
  of,
  complaint,
  onFound,
}: {
  of: NonNullable<ComparePageProps['repaired']>;
  complaint: string;
  onFound: (came: Repaired | null) => void;
}) {
  const { advice, part, problem } = useAdvice(of.after, of.kind, complaint, of.weights, true, of);
  const came = advice?.repaired ?? null;
  useEffect(() => onFound(came), [onFound, came]);
  return (
    <Part title="What the repair came to" note="found from the readings of both tests, as far as they tell">
      {part !== null && (
        <LinearProgress variant="determinate" value={100 * part} aria-label="Working it out" sx={{ my: 1 }} />
      )}
      {problem && <Alert severity="error">{problem}</Alert>}
      {advice &&
        (advice.repaired ? (
          <RepairedBy of={advice.repaired} wide />
        ) : (
          <Nothing>Nothing that this repair mends was suspected before it.</Nothing>
        ))}
    </Part>
  );
}

type PrintValue = ReturnType<typeof usePrint>['value'];

function shown(result: Result | null, print: PrintValue): string {
  if (!result) return '';
  return result.value === null
    ? (result.seen ?? '')
    : print(result.value, result.quantity, { u_SI: result.u, withU: true });
}

/** The same as it comes. */
function WhatMoved({
  moved,
  elsewhere,
}: Pick<ComparePageProps, 'moved'> & Pick<Parameters<typeof ParameterTable>[0], 'elsewhere'>) {
  const found = use(moved);
  return found.ok ? (
    <ParameterTable parameters={found.parameters} elsewhere={elsewhere} />
  ) : (
    <Nothing>{found.why}</Nothing>
  );
}

/**
 * Every number of the unit by fitting it, but for those that stand above: there they are found knowing how rare two faults at once
 * are, which the fit does not.
 */
function ParameterTable({
  parameters: all,
  elsewhere,
}: {
  parameters: readonly ParameterChange[];
  elsewhere: readonly { readonly id: string }[];
}) {
  const parameters = all.filter((one) => !elsewhere.some(({ id }) => id === one.id));
  const moved = parameters.filter((one) => one.moved);
  const order = [
    ...moved,
    ...parameters.filter((one) => one.moved === false),
    ...parameters.filter((one) => one.moved === null),
  ];
  return (
    <>
      <Box sx={{ fontSize: '1.2rem', fontWeight: 650, my: 1 }}>
        {moved.length === 0
          ? `Nothing ${elsewhere.length > 0 ? 'else ' : ''}changed beyond the noise of the readings.`
          : `Changed: ${printNames(moved.map(({ name }) => name))}.`}
      </Box>
      <Table
        size="small"
        aria-label="Parameters before and after"
        sx={{ '& td, & th': { px: 0.75, py: 0.4 } }}
      >
        <Columns names={['Parameter', 'Before ± U', 'After ± U', 'Change ± U', 'Finding']} />
        <TableBody>
          {order.map((one) => (
            <TableRow key={one.id} sx={{ '& td': { fontWeight: one.moved ? 700 : 400 } }}>
              <TableCell>{one.name}</TableCell>
              {one.moved === null ? (
                <TableCell colSpan={3} sx={{ color: 'text.secondary' }}>
                  could not tell
                </TableCell>
              ) : (
                <ChangeCells of={one} />
              )}
              <TableCell sx={{ whiteSpace: 'nowrap' }}>
                {one.moved === null
                  ? 'not told by these readings'
                  : one.moved
                    ? 'changed'
                    : 'within the noise'}
              </TableCell>
            </TableRow>
          ))}
        </TableBody>
      </Table>
      <Box sx={{ color: 'text.secondary', mt: 1 }}>
        U is the expanded uncertainty (k = 2). A change counts only where noise alone would make any one of
        these look changed less than once in a hundred comparisons. An error of a gauge that read both tests
        is in both and largely drops out of the change.
      </Box>
    </>
  );
}
