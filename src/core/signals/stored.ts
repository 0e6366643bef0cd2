import type { LoggedAccumulator } from '../contract/logged-unit';
import { sentence } from '../quantities/sentence';
import { accumulatorCharge } from './accumulator-charge';
import { at, result, type About, type Stretch } from './analysis';
import { gasHold } from './gas-hold';
import { untilPressed } from './metered';
import { pumpCycles, turnsOf, type Turn } from './pump-cycles';
import { channelAt, indexAt, type Channel, type Span, type Trace } from './trace';

/** Below this part of its greatest pressure an accumulator was empty as the log began. */
const EMPTY_PART = 0.05;
/** One that stands lower than this all the time holds nothing, Pa. */
const SOME_PA = 5e5;
/** From this part of the greatest on it is held there. */
const HELD_PART = 0.98;
/** That the pump has stopped shows in the readings of so long behind it, s. */
const SEEN_STOPPED_S = 5;
/** A hold that tells a leak from gas that cools takes this long at least, s. */
const LEAST_HOLD_S = 60;
/** The smallest leak worth telling, m³/s: a twentieth of a cubic centimetre in a minute. */
const RESOLVE_M3PERS = 0.05e-6 / 60;

/** What a log tells of the accumulators of a unit: how each was charged, how its pump keeps it, and what it loses standing. */
export function storedIn(trace: Trace, about: About): Stretch[] {
  const accumulators = about.unit?.accumulators ?? [];
  if (accumulators.length === 0) return [];
  const span = untilPressed(trace, about);
  return accumulators.flatMap((accumulator) => {
    const channel = channelAt(trace, accumulator.port);
    if (channel?.quantity !== 'pressure') return [];
    let greatest = 0;
    for (const value of channel.values.subarray(span.from, span.to)) if (value > greatest) greatest = value;
    if (greatest < SOME_PA) return [];
    const turns = turnsOf(trace, channel, span);
    const charge = charged(trace, channel, accumulator, about, turns, greatest);
    // What leaks is told by the gas that there is, not by the gas that there should be.
    const gas = charge?.results.find(({ id }) => id === preChargeId(accumulator))?.estimate;
    const found = gas?.told ? { ...accumulator, preCharge_Pa: gas.value } : accumulator;
    const notes = gas?.told ? [] : [BY_PROFILE];
    return [
      ...(charge ? [charge] : []),
      ...cycled(trace, channel, span, found, about, turns),
      ...stood(trace, channel, span, found, about, turns),
    ].map((stretch) => (stretch.kind === 'charge' ? stretch : { ...stretch, notes }));
  });
}

const preChargeId = ({ port }: LoggedAccumulator) => `${port}.pre-charge`;

const BY_PROFILE = sentence(
  'No flick-up is in this log, so the gas is taken as the profile has it. One that has lost gas leaks less than is told here: log it from empty.',
);

const PLAIN = { points: [], supply_Pa: null, notes: [] } as const;

/** From empty to where the pump first stopped. */
function charged(
  trace: Trace,
  channel: Channel,
  accumulator: LoggedAccumulator,
  about: About,
  turns: readonly Turn[],
  greatest: number,
): Stretch | null {
  const { port, name, shell_m3 } = accumulator;
  const first = channel.values.find((value) => Number.isFinite(value));
  if (first === undefined || first > EMPTY_PART * greatest) return null;
  const stop = turns.findIndex(({ is }) => is === 'stop');
  const started_s = turns[stop + 1]?.at_s ?? Infinity;
  const stopped_s = turns[stop]?.at_s ?? Infinity;
  // A pack that holds it where it charged it to does not stop: its charge is over as it comes there.
  const held = channel.values.findIndex((value) => value > HELD_PART * greatest);
  const to_s = stop < 0 ? trace.time_s[held]! : Math.min(started_s, stopped_s + SEEN_STOPPED_S);
  const span = { from: 0, to: indexAt(trace, to_s) };
  const found = accumulatorCharge(trace, channel, span, shell_m3, about);
  return {
    kind: 'charge',
    name: `Charge, ${name}`,
    ...at(trace, span),
    results: [
      result(`${port}.flick-up`, 'Flick-up', 'pressure', found.flickUp),
      result(preChargeId(accumulator), 'Pre-charge at 20 °C', 'pressure', found.preCharge),
      result(`${port}.charge-time`, 'From the flick-up to where it stopped', 'duration', found.chargeTime),
      result(`${port}.cut-out-first`, 'Stopped at', 'pressure', found.cutOut),
      result(`${port}.pump-flow`, 'Flow of the pump over the charge', 'pumpFlow', found.pumpFlow),
    ],
    lines: [],
    ...PLAIN,
  };
}

/** The pump left to its switch. */
function cycled(
  trace: Trace,
  channel: Channel,
  span: Span,
  { port, name, ...vessel }: LoggedAccumulator,
  about: About,
  turns: readonly Turn[],
): Stretch[] {
  if (!turns.some(({ is }) => is === 'start')) return [];
  const found = pumpCycles(trace, channel, span, vessel, about, turns);
  return [
    {
      kind: 'cycles',
      name: `Pump cycles, ${name}`,
      ...at(trace, span),
      results: [
        result(`${port}.cut-in`, 'Switched on at', 'pressure', found.cutIn),
        result(`${port}.cut-out`, 'Switched off at', 'pressure', found.cutOut),
        result(`${port}.on-time`, 'On-time', 'duration', found.onTime),
        result(`${port}.off-time`, 'Off-time once settled', 'duration', found.offTime),
        result(`${port}.duty`, 'Part of the time that the pump runs', 'percent', found.duty),
        result(`${port}.leak`, 'Leak at the mean of the two', 'leakRate', found.leak),
      ],
      lines: [],
      ...PLAIN,
    },
  ];
}

/** The longest time without a start of the pump, behind its last stop before that: cooling and leak told apart by the gas law. */
function stood(
  trace: Trace,
  channel: Channel,
  whole: Span,
  { port, name, ...vessel }: LoggedAccumulator,
  about: About,
  turns: readonly Turn[],
): Stretch[] {
  const end_s = trace.time_s[whole.to - 1]!;
  const pauses = turns.flatMap(({ is, at_s }, i) =>
    is === 'stop' ? [{ from_s: at_s, to_s: turns[i + 1]?.at_s ?? end_s }] : [],
  );
  const longest = pauses.reduce<(typeof pauses)[number] | null>(
    (most, one) => (!most || one.to_s - one.from_s > most.to_s - most.from_s ? one : most),
    null,
  );
  if (!longest || longest.to_s - longest.from_s < LEAST_HOLD_S) return [];
  const span: Span = { from: indexAt(trace, longest.from_s) + 1, to: indexAt(trace, longest.to_s) };
  const { from_s } = longest;
  const { leak, curve } = gasHold(trace, channel, span, vessel, about, RESOLVE_M3PERS);
  return [
    {
      kind: 'standing',
      name: `Standing, ${name}`,
      ...at(trace, span),
      results: [result(`${port}.standing-leak`, 'Leak, told from gas that cools', 'leakRate', leak)],
      lines: [{ on: 'time', port, points: curve.map(([t_s, pressure_Pa]) => [from_s + t_s, pressure_Pa]) }],
      ...PLAIN,
    },
  ];
}
