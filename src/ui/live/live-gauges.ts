import { gaugeFor, type Instrument } from '@/core/metrology/instrument';
import { ventedZero_SI } from '@/core/procedure/measured-item';
import type { LivePorts } from '@/core/procedure/live';
import type { Port } from '@/core/contract/family';
import type { RunState } from '@/core/contract/run-state';
import type { Quantity } from '@/core/quantities/units';
import { isRead, type LiveMoment, type LoggerChannel } from '@/core/shop/live';
import type { Rig } from '@/core/contract/run-context';

/** The gauge of a port that reads now: of a tied pair the low one until its end, then the high one. */
export function gaugeNow(gauges: readonly Instrument[], { shown }: LiveMoment): Instrument | null {
  const heard = gauges.filter(({ tag }) => shown[tag] !== undefined);
  const reach = Math.max(0, ...heard.map(({ tag }) => shown[tag]!));
  return (
    gaugeFor(heard, 1.02 * reach) ?? [...heard].sort((a, b) => b.fullScale_Pa - a.fullScale_Pa)[0] ?? null
  );
}

/**
 * What is read by eye at the simulated bench, a rule at a pedal: channels that are no instrument of the run, each called as the
 * place is that it reads. A bench has more of them than any one unit or vehicle has places.
 */
export function seenByEye(
  channels: readonly Pick<LoggerChannel, 'tag'>[],
  own: Pick<ReadonlyMap<string, unknown>, 'has'>,
  { shown }: LiveMoment,
  ports: readonly Pick<Port, 'id' | 'name' | 'quantity'>[],
): { readonly name: string; readonly value_SI: number; readonly quantity: Quantity }[] {
  return channels.flatMap(({ tag }) => {
    const value_SI = shown[tag];
    const place = own.has(tag) ? undefined : ports.find(({ id }) => id === tag);
    return !place?.quantity || value_SI === undefined
      ? []
      : [{ name: place.name, value_SI, quantity: place.quantity }];
  });
}

/** What a logger's moment says of these gauges: a channel in a unit of something else is not the gauge of its name. */
export function momentOf(
  moment: LiveMoment,
  channels: readonly LoggerChannel[],
  gauges: readonly Pick<Instrument, 'tag' | 'quantity'>[],
): LiveMoment {
  const others = gauges.flatMap((gauge) => {
    const channel = channels.find(({ tag }) => tag === gauge.tag);
    return channel && !isRead(channel, gauge) ? [gauge.tag] : [];
  });
  if (others.length === 0) return moment;
  const shown = Object.entries(moment.shown).filter(([tag]) => !others.includes(tag));
  return { ...moment, shown: Object.fromEntries(shown) };
}

/** Which of these gauges the logger has and cannot read now, in a sentence; null where it reads them all. */
export function unreadNow(
  { shown }: LiveMoment,
  channels: readonly LoggerChannel[],
  gauges: readonly Pick<Instrument, 'tag'>[],
): string | null {
  const tags = gauges.map(({ tag }) => tag);
  const unread = channels.flatMap(({ tag }) => (tags.includes(tag) && shown[tag] === undefined ? [tag] : []));
  return unread.length > 0 ? `The logger cannot read ${unread.join(', ')}.` : null;
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
