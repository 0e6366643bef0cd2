import { seaLevelEquivalent_Pa } from '../air/supply';
import { readingUncertainty_SI } from '../metrology/uncertainty';
import { judged } from '../procedure/judged';
import { captureIds, type ItemReading } from '../procedure/measured-item';
import { roomOf } from '../procedure/room';
import type { RunState } from '../contract/run-state';
import { sentence } from '../quantities/sentence';
import type { RunContext } from '../contract/run-context';
import { notTaken, type Result, type ResultHead } from '../contract/result';

/** The supply as it would be at sea level, against what a healthy supply of its kind makes there. */
export function supplyHealth(
  context: RunContext<unknown>,
  run: RunState,
  supply: ItemReading | null,
  { step, item }: { step: string; item: string },
): Result {
  const head: ResultHead = {
    id: 'supply-health',
    name: 'Supply health, referred to sea level',
    step,
    item: null,
    about: 'supply',
    quantity: 'depression',
  };
  const { supplyKind, supplyHealth_Pa } = context.conditions;
  const { barometer_Pa } = roomOf(context, run, item);
  const source =
    supplyKind === 'pump'
      ? 'Bench setting; pump reaches a fraction of the barometer'
      : 'Bench setting; engine holds manifold absolute pressure';
  if (!supply) return notTaken(head, source);
  const dead = supply.value_SI <= 2 * readingUncertainty_SI(supply);
  const value = dead ? null : seaLevelEquivalent_Pa(supply.value_SI, supplyKind, barometer_Pa);
  if (value === null)
    return {
      ...notTaken(head, source),
      notes: [
        sentence(
          'The supply makes nothing that the gauge can tell from zero: there is no health to refer to sea level.',
        ),
      ],
      captures: captureIds(supply),
    };
  const slope = supplyKind === 'pump' ? value / supply.value_SI : 1;
  return judged(
    head,
    {
      value,
      limits: { low: supplyHealth_Pa },
      limitSource: source,
      terms: [{ sensitivity: slope, measured: supply }],
      captures: captureIds(supply),
    },
    context,
  );
}
