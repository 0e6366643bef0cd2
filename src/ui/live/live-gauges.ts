import { gaugeFor, type Instrument } from '@/core/metrology/instrument';
import { ventedZero_SI } from '@/core/procedure/measured-item';
import type { LivePorts } from '@/core/procedure/hands-free';
import type { RunState } from '@/core/contract/run-state';
import type { LiveMoment } from '@/core/shop/live';
import type { Rig } from '@/core/contract/run-context';

/** The gauge of a port that reads now: of a tied pair the low one until its end, then the high one. */
export function gaugeNow(gauges: readonly Instrument[], { shown }: LiveMoment): Instrument | null {
  const heard = gauges.filter(({ tag }) => shown[tag] !== undefined);
  const reach = Math.max(0, ...heard.map(({ tag }) => shown[tag]!));
  return (
    gaugeFor(heard, 1.02 * reach) ?? [...heard].sort((a, b) => b.fullScale_Pa - a.fullScale_Pa)[0] ?? null
  );
}

/** What every port of the bench shows now, vented zeros taken off. */
export function portsNow(rig: Rig, state: RunState, moment: LiveMoment): LivePorts {
  return Object.fromEntries(
    Object.entries(rig).map(([port, gauges]) => {
      const gauge = gaugeNow(gauges, moment);
      if (!gauge) return [port, undefined];
      const value = moment.shown[gauge.tag]! - (ventedZero_SI(state, gauge.tag) ?? 0);
      return [port, { value, settled: moment.settled.includes(gauge.tag), step: gauge.step_Pa }];
    }),
  );
}
