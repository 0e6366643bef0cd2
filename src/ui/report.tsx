'use client';

import { Box, Button, Table, TableBody, TableCell, TableRow } from '@mui/material';
import { adviceSentence } from '@/core/metrology/advice';
import { FAMILIES } from '@/core/families/registry';
import { accuracyLabel } from '@/core/metrology/instrument';
import { measured, readingUncertainty_Pa } from '@/core/metrology/uncertainty';
import type { Limits } from '@/core/metrology/verdict';
import { NOT_CLAIMED } from '@/core/procedure/cautions';
import { instrumentsOf, zeroGate } from '@/core/procedure/measured-item';
import { findItem } from '@/core/procedure/procedure';
import { reduceRun } from '@/core/procedure/run';
import { FLUIDS, type FluidKind } from '@/core/fluid/kinds';
import type { Quantity } from '@/core/quantities/units';
import type { ReportContent } from '@/core/records/report';
import type { StoredJob, StoredRun } from '@/core/records/views';
import type { Assessment, Result } from '@/core/twin/result';
import { Key, useKeys } from './keys';
import { LinkButton } from './link-button';
import { Overdue } from './overdue';
import { RatioChart } from './ratio-chart';
import { usePrint } from './settings-context';
import { day, time } from './stamp';
import { Columns } from './table-head';
import { VerdictMark, verdictWord } from './verdict-mark';

interface ReportProps {
  readonly job: StoredJob;
  readonly run: StoredRun;
  readonly results: readonly Result[];
  readonly assessment: Assessment;
  readonly content: ReportContent;
}

/** The report, on screen and on paper: a page for the customer in plain words, then the numbers behind it. */
export function Report({ job, run, results, assessment, content }: ReportProps) {
  const print = usePrint();
  useKeys([{ key: 'p', label: 'Print the report', run: () => window.print() }]);
  const { conditions, profile } = run.context;
  const fluid = FLUIDS[(profile as { fluid: FluidKind }).fluid];
  const taken = results.filter(({ verdict }) => verdict !== 'not-taken');
  const seeps = taken.filter(({ id }) => id.startsWith('seep'));
  return (
    <Box
      sx={{
        maxWidth: 860,
        mx: 'auto',
        px: 3,
        py: 2.5,
        '@media print': { p: 0, fontSize: '10.5pt', maxWidth: 'none' },
      }}
    >
      <Box className="no-print" sx={{ display: 'flex', gap: 1, mb: 2 }}>
        <LinkButton href={`/jobs/${job.id}`}>Back to the job</LinkButton>
        <Button variant="contained" onClick={() => window.print()} sx={{ gap: 1, ml: 'auto' }}>
          Print <Key name="p" />
        </Button>
      </Box>
      <Box component="article" aria-label="Report">
        <Box component="section" aria-label="For the customer" sx={{ breakAfter: 'page' }}>
          <Box
            sx={{
              display: 'flex',
              justifyContent: 'space-between',
              borderBottom: 3,
              borderColor: 'text.primary',
              pb: 1,
              mb: 2,
            }}
          >
            <Box component="h1" sx={{ m: 0, fontSize: '1.7rem' }}>
              Bench test report
            </Box>
            <Box sx={{ textAlign: 'right' }}>
              <b>{job.body.tag}</b>
              <br />
              {day(run.startedAt)}
            </Box>
          </Box>
          {!run.finishedAt && (
            <Box sx={{ fontWeight: 700, color: 'warning.dark', mb: 1 }}>
              This run is not finished. What follows is what is known so far.
            </Box>
          )}
          <Facts
            facts={[
              ['Unit', job.profileName],
              ['From', job.body.from || 'not given'],
              ['You told us', job.body.complaint ? `“${job.body.complaint}”` : 'nothing written down'],
              ['Technician', conditions.technician || 'not given'],
            ]}
          />
          <Box component="h2" sx={{ fontSize: '1.5rem', mt: 3, mb: 1 }}>
            {assessment.headline}
          </Box>
          {content.plain.map((line) => (
            <Box key={line} component="p" sx={{ fontSize: '1.1rem', my: 0.75 }}>
              {line}
            </Box>
          ))}
          {(assessment.call === 'weak-supply' || assessment.call === 'open') && (
            <Box component="ul" sx={{ fontSize: '1.05rem' }}>
              {assessment.reasons.map((reason, i) => (
                <li key={i}>{print.sentence(reason)}</li>
              ))}
            </Box>
          )}
          <Heading>What was not tested</Heading>
          {content.untested.length === 0 ? (
            <p>Everything that this bench test has was done. Nothing on the vehicle itself was tested.</p>
          ) : (
            <>
              <ul>
                {content.untested.map(({ what, why }) => (
                  <Box component="li" key={what} sx={{ overflowWrap: 'anywhere' }}>
                    {what}: {why.length > 300 ? `${why.slice(0, 300)}…` : why}
                  </Box>
                ))}
              </ul>
              <p>Nothing on the vehicle itself was tested.</p>
            </>
          )}
          <Heading>What to know before it goes back on</Heading>
          <p>
            The unit holds {fluid}. Drain the old fluid from the vehicle first, and do not mix kinds. The
            vehicle maker’s procedure, local regulation and a licensed technician decide how it is fitted and
            whether the vehicle may be used.
          </p>
          <p>{NOT_CLAIMED}</p>
        </Box>

        <Heading>Results</Heading>
        <p>
          U is the expanded uncertainty (k = 2). A verdict is given where the probability of keeping to the
          limit is above {Math.round(conditions.thresholds.meets * 100)} % or below{' '}
          {Math.round(conditions.thresholds.fails * 100)} %; between them it is too close to call.
        </p>
        <Table
          size="small"
          aria-label="Results"
          sx={{ '& td, & th': { px: 0.75, py: 0.4, verticalAlign: 'top' } }}
        >
          <Columns names={['Result', 'Value ± U', 'Expected', 'Limits', 'Verdict']} />
          <TableBody>
            {taken
              .filter((result) => !seeps.includes(result))
              .map((result) => (
                <ResultRow key={result.id} result={result} />
              ))}
          </TableBody>
        </Table>
        <Heading>Expected against measured</Heading>
        <RatioChart run={run} />
        <Heading>Seep findings</Heading>
        {seeps.length === 0 ? (
          <p>No seep look was made.</p>
        ) : (
          <p>
            {seeps.map(({ name, seen, verdict }) => `${name}: ${seen ?? verdictWord(verdict)}`).join('. ')}.
          </p>
        )}
        <Heading>Every reading</Heading>
        <Readings run={run} />
        <Heading>Instruments</Heading>
        <Table size="small" aria-label="Instruments" sx={{ '& td, & th': { px: 0.75, py: 0.4 } }}>
          <Columns names={['Tag', 'Full scale', 'Accuracy', 'Step', 'Calibration']} />
          <TableBody>
            {content.instruments.map(({ gauge, calibration }) => (
              <TableRow key={gauge.tag}>
                <TableCell>{gauge.tag}</TableCell>
                <TableCell>{print.value(gauge.fullScale_Pa, gauge.quantity)}</TableCell>
                <TableCell>{accuracyLabel(gauge.accuracy)}</TableCell>
                <TableCell>
                  {print.value(gauge.step_Pa, gauge.quantity, { u_SI: gauge.step_Pa / 4 })}
                </TableCell>
                <TableCell
                  sx={{
                    color: calibration === 'overdue' ? 'error.main' : undefined,
                    fontWeight: calibration === 'overdue' ? 700 : 400,
                  }}
                >
                  {calibration === 'no date'
                    ? 'no date on record'
                    : `${calibration}, due ${gauge.calibrationDue}`}
                </TableCell>
              </TableRow>
            ))}
          </TableBody>
        </Table>
        {content.leansOnOverdue.length > 0 && (
          <Box component="p" sx={{ fontWeight: 650 }}>
            These lean on a gauge past its calibration date: {content.leansOnOverdue.join('; ')}.
          </Box>
        )}
        <Heading>Conditions</Heading>
        <Facts
          facts={[
            ['Barometer, station pressure', print.value(conditions.barometer_Pa, 'barometer')],
            ['Room temperature', print.value(conditions.temperature_K, 'temperature')],
            ['Supply', conditions.supplyKind === 'pump' ? 'vacuum pump' : 'engine manifold'],
            ['Procedure', `${run.context.procedure.id}, version ${run.context.procedure.version}`],
          ]}
        />
        <Heading>Cautions shown</Heading>
        <ul>
          {content.cautions.map(({ hazard, action }) => (
            <li key={hazard}>
              <b>{hazard}</b> {action}
            </li>
          ))}
        </ul>
        <Heading>Not claimed</Heading>
        <p>{NOT_CLAIMED}</p>
      </Box>
    </Box>
  );
}

function ResultRow({ result }: { result: Result }) {
  const print = usePrint();
  const { value, u, quantity, expected, limits, limitSource, notes, seen, advice } = result;
  const more = [
    ...notes.map(print.sentence),
    ...(advice ? [`What would settle it: ${print.sentence(adviceSentence(advice, quantity))}`] : []),
  ];
  return (
    <TableRow sx={{ breakInside: 'avoid' }}>
      <TableCell sx={{ width: '40%' }}>
        {result.name}
        {more.map((line, i) => (
          <Box key={i} sx={{ color: 'text.secondary', fontSize: '0.92em' }}>
            {line}
          </Box>
        ))}
      </TableCell>
      <TableCell sx={{ overflowWrap: 'anywhere', whiteSpace: value === null ? undefined : 'nowrap' }}>
        {value === null ? short(seen) : print.value(value, quantity, { u_SI: u, withU: true })}
      </TableCell>
      <TableCell sx={{ whiteSpace: 'nowrap' }}>
        {expected === null ? '' : print.value(expected, quantity, { u_SI: u })}
      </TableCell>
      <TableCell>
        {limits && limitWords(limits, quantity, print.value)}
        {limits && <Box sx={{ color: 'text.secondary', fontSize: '0.85em' }}>{limitSource}</Box>}
      </TableCell>
      <TableCell>
        <VerdictMark verdict={result.verdict} />
        <Overdue tags={result.overdue} />
      </TableCell>
    </TableRow>
  );
}

const short = (seen: string | null) => (seen && seen.length > 200 ? `${seen.slice(0, 200)}…` : seen);

function limitWords(
  { low, high }: Limits,
  quantity: Quantity,
  show: (value: number, quantity: Quantity, options?: { bare?: boolean }) => string,
) {
  if (low !== undefined && high !== undefined)
    return `${show(low, quantity, { bare: true })} to ${show(high, quantity)}`;
  return low !== undefined ? `at least ${show(low, quantity)}` : `at most ${show(high!, quantity)}`;
}

/** Every reading as taken, struck ones too, with gauge and time. */
function Readings({ run }: { run: StoredRun }) {
  const print = usePrint();
  const { context } = run;
  const instruments = instrumentsOf(context.rig, context.shelf);
  const state = reduceRun(context.procedure, run.events, zeroGate(instruments));
  const ports = new Map(FAMILIES[run.kind].ports.map(({ id, name }) => [id, name]));
  return (
    <Box
      component="ol"
      sx={{ columns: { xs: 1, sm: 2 }, columnGap: 4, listStyle: 'none', p: 0, m: 0, fontSize: '0.88em' }}
    >
      {state.captures.map((capture) => {
        const found = findItem(context.procedure, capture.item);
        const gauge = instruments.get(capture.instrument);
        if (found?.item.kind !== 'reading' || !gauge) return null;
        const u_SI = readingUncertainty_Pa(measured([capture.value_SI], gauge));
        return (
          <Box
            component="li"
            key={capture.id}
            sx={{
              display: 'flex',
              gap: 1,
              breakInside: 'avoid',
              textDecoration: capture.struck ? 'line-through' : undefined,
            }}
          >
            <Box sx={{ color: 'text.secondary', width: 64 }}>{time(capture.at)}</Box>
            <Box sx={{ flex: 1 }}>
              {found.step.title}: {ports.get(found.item.port)}
            </Box>
            <Box sx={{ whiteSpace: 'nowrap' }}>
              {print.value(capture.value_SI, found.item.quantity, { u_SI, withU: true })} {capture.instrument}
            </Box>
          </Box>
        );
      })}
    </Box>
  );
}

const Heading = ({ children }: { children: React.ReactNode }) => (
  <Box
    component="h2"
    sx={{ fontSize: '1.1rem', mt: 3, mb: 0.75, borderBottom: 1, borderColor: 'divider', breakAfter: 'avoid' }}
  >
    {children}
  </Box>
);

function Facts({ facts }: { facts: readonly (readonly [string, string])[] }) {
  return (
    <Box component="dl" sx={{ display: 'grid', gridTemplateColumns: '190px minmax(0, 1fr)', gap: 0.5, m: 0 }}>
      {facts.map(([name, value]) => (
        <Box key={name} sx={{ display: 'contents' }}>
          <Box component="dt" sx={{ color: 'text.secondary' }}>
            {name}
          </Box>
          <Box component="dd" sx={{ m: 0, whiteSpace: 'pre-wrap', overflowWrap: 'anywhere' }}>
            {value}
          </Box>
        </Box>
      ))}
    </Box>
  );
}
