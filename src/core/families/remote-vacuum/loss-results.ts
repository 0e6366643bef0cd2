import type { Term } from '../../metrology/uncertainty';
import { judged } from '../../procedure/judged';
import { captureIds, type ItemReading } from '../../procedure/measured-item';
import { sentence } from '../../quantities/sentence';
import type { RunContext } from '../../twin/family';
import { notTaken, type Result, type ResultHead } from '../../twin/result';
import type { RemoteVacuumProfile } from './profile';

type Context = RunContext<RemoteVacuumProfile>;

/** The value of an item, by id. */
export type Read = (id: string) => ItemReading | null;

/** How well the moment of a reading at the end of a hold is known, s: the time it takes to look and key it in. */
const TIMING_U_S = 1;

/** Loss per second over a hold, start less end; one gauge's own error leaves the difference. */
function lossRate(
  context: Context,
  start: ItemReading | null,
  end: ItemReading | null,
  head: ResultHead,
  limit: { value: number; source: string },
  planned_s: number,
): Result {
  if (!start || !end) return notTaken(head, limit.source);
  const duration_s = (Date.parse(end.captures.at(-1)!.at) - Date.parse(start.captures.at(-1)!.at)) / 1000;
  if (!(duration_s > 2 * TIMING_U_S)) {
    return {
      ...notTaken(head, limit.source),
      notes: [sentence('The two readings are too close together in time to tell a loss.')],
    };
  }
  const value = (start.value_Pa - end.value_Pa) / duration_s;
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

/** Output lost while the input is held. */
export const holdLoss = (context: Context, read: Read) =>
  lossRate(
    context,
    read('hold.start'),
    read('hold.end'),
    {
      id: 'hold',
      name: 'Output loss on hold',
      step: 'hold',
      item: 'hold.end',
      about: 'unit',
      quantity: 'pressureRate',
    },
    context.profile.limits.holdLoss_PaPerS,
    context.profile.hold_s,
  );

/** Vacuum lost with the supply shut off. */
export const vacuumLoss = (context: Context, read: Read, when: 'released' | 'applied') =>
  lossRate(
    context,
    read(`loss-${when}.start`),
    read(`loss-${when}.end`),
    {
      id: `vacuum-loss-${when}`,
      name: `Vacuum loss, ${when}`,
      step: `loss-${when}`,
      item: `loss-${when}.end`,
      about: 'unit',
      quantity: 'depressionRate',
    },
    when === 'released'
      ? context.profile.limits.vacuumLossReleased_PaPerS
      : context.profile.limits.vacuumLossApplied_PaPerS,
    context.profile.hold_s,
  );
