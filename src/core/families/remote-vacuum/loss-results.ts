import type { RunContext } from '../../contract/run-context';
import { lossRate, type Read } from '../loss-rate';
import type { RemoteVacuumProfile } from './profile';

type Context = RunContext<RemoteVacuumProfile>;

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
