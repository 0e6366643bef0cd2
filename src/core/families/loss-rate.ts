import type { Term } from '../metrology/uncertainty';
import { SHORTEST_HOLD_S } from '../contract/steps';
import { judged } from '../procedure/judged';
import { captureIds, type ItemReading } from '../procedure/measured-item';
import { sentence } from '../quantities/sentence';
import type { RunContext } from '../contract/run-context';
import { notTaken, type Result, type ResultHead } from '../contract/result';

/** The value of an item, by id. */
export type Read = (id: string) => ItemReading | null;

/** How well the moment of a reading at the end of a hold is known, s: the time it takes to look and key it in. */
const TIMING_U_S = 1;

/** Loss per second over a hold, start less end; one gauge's own error leaves the difference. */
export function lossRate(
  context: RunContext<unknown>,
  start: ItemReading | null,
  end: ItemReading | null,
  head: ResultHead,
  limit: { value: number; source: string },
  planned_s: number,
): Result {
  if (!start || !end) return notTaken(head, limit.source);
  const duration_s = (Date.parse(end.captures.at(-1)!.at) - Date.parse(start.captures.at(-1)!.at)) / 1000;
  if (!(duration_s > SHORTEST_HOLD_S)) {
    return {
      ...notTaken(head, limit.source),
      notes: [sentence('The two readings are too close together in time to tell a loss.')],
    };
  }
  const value = (start.value_SI - end.value_SI) / duration_s;
  const terms: Term[] = [
    { sensitivity: 1 / duration_s, measured: { ...start, zeroed: false } },
    { sensitivity: -1 / duration_s, measured: { ...end, zeroed: false } },
  ];
  const notes =
    duration_s < 0.9 * planned_s
      ? [
          sentence('Held {held} instead of {planned}: the shorter the hold, the wider the doubt.', {
            held: { value: duration_s, quantity: 'duration' },
            planned: { value: planned_s, quantity: 'duration' },
          }),
        ]
      : [];
  const otherU = (Math.abs(value) * Math.SQRT2 * TIMING_U_S) / duration_s;
  return judged(
    head,
    {
      value,
      limits: { high: limit.value },
      limitSource: limit.source,
      terms,
      otherU,
      notes,
      captures: captureIds(start, end),
    },
    context,
  );
}
