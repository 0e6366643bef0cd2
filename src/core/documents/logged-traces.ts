import type { TapedTrace } from '../procedure/tape';
import { printQuantity } from '../quantities/print';
import { printSentence } from '../quantities/sentence';
import type { UnitSet } from '../quantities/units';
import type { TraceResult } from '../signals/analysis';
import { cell, type Block, type Cell } from './document';
import type { TraceRecord, Yielded } from '../records/trace-record';

/** A trace of a run and what it was made to yield, without what is only drawn of it. */
export interface LoggedTrace {
  readonly id: string;
  readonly record: TraceRecord;
  readonly stretches: readonly Yielded[];
  /** What it was made to yield is not as it was written: nothing of it is told. */
  readonly altered?: true;
}

/** What one trace tells, and how many of its results it could not tell. */
export function toldBy({ stretches }: LoggedTrace) {
  const all = stretches.flatMap(({ results }) => results);
  const told = all.flatMap((result) => (result.estimate.told ? [{ result, estimate: result.estimate }] : []));
  return { told, silent: all.length - told.length };
}

/** Those of a run that have a place on its tape. */
export const tapedOf = (traces: readonly LoggedTrace[]): TapedTrace[] =>
  traces.flatMap(({ id, record }) => (record.tape ? [{ id, ...record.tape }] : []));

/** What the traces of a run tell, beside the readings that the verdicts rest on. Nothing where nothing was logged. */
export function loggedBlocks(traces: readonly LoggedTrace[], set: UnitSet): Block[] {
  if (traces.length === 0) return [];
  const telling = traces.filter(({ stretches }) => stretches.some(({ results }) => results.length > 0));
  const silent = traces.filter((trace) => !telling.includes(trace) && !trace.altered);
  const rows = telling.flatMap(({ record, stretches }) =>
    stretches.flatMap(({ name, from_s, to_s, results, notes }) =>
      results.map((result, i): Cell[] => [
        cell(i === 0 ? `${record.name}, ${name.toLowerCase()}` : '', {
          small:
            i === 0
              ? [
                  `${from_s.toFixed(1)} to ${to_s.toFixed(1)} s`,
                  ...notes.map((note) => printSentence(note, set)),
                ]
              : [],
        }),
        cell(result.name),
        estimateCell(result, set),
      ]),
    ),
  );
  const altered = traces.flatMap((trace) => (trace.altered ? trace.record.name : []));
  const seals = traces.map(({ record }) => `${record.name}: ${record.sha256.slice(0, 16)}`);
  const marks = traces.flatMap(({ record }) =>
    record.notes.map(({ at_s, to_s, words }) => ({
      lead: `${record.name}, ${at_s.toFixed(1)}${to_s === undefined ? '' : ` to ${to_s.toFixed(1)}`} s:`,
      text: words,
    })),
  );
  return [
    { kind: 'heading', text: 'Logged traces' },
    ...altered.map((name): Block => ({
      kind: 'paragraph',
      strong: true,
      text: `${name}: altered since it was written. Nothing of it is printed.`,
    })),
    {
      kind: 'paragraph',
      text: 'What the logger recorded while the steps were done. Limits here are for noise only, k = 2; a gauge’s own error is not in them, and no verdict above rests on them.',
    },
    ...(rows.length > 0
      ? [
          {
            kind: 'table',
            name: 'Logged traces',
            columns: ['Trace', 'Result', 'Value ± U'],
            widths: [36, 34, 30],
            rows,
          } as const,
        ]
      : []),
    ...(silent.length > 0
      ? [
          {
            kind: 'paragraph',
            text: `Nothing was worked out of: ${silent.map(({ record }) => record.name).join('; ')}.`,
          } as const,
        ]
      : []),
    ...(marks.length > 0 ? [{ kind: 'list', items: marks } as const] : []),
    { kind: 'paragraph', text: `Seals of the readings: ${seals.join('; ')}.` },
  ];
}

function estimateCell({ estimate, quantity }: TraceResult, set: UnitSet): Cell {
  if (estimate.told)
    return cell(printQuantity(estimate.value, quantity, set, { u_SI: estimate.u, withU: true }));
  const words = [estimate.why, estimate.wanted].flatMap((one) => (one ? [printSentence(one, set)] : []));
  return cell('could not tell', { small: words });
}
