import { sentence, type Sentence } from '../quantities/sentence';
import { at, LEAST_PULL, result, type About, type Stretch, type TraceResult } from './analysis';
import { SLOW_S } from './branch-points';
import { inSteps } from './in-steps';
import { segmentsOf, type Segment } from './segments';
import { sweep } from './sweep';
import { swing } from './swing';
import { channelAt, type Channel, type Span, type Trace } from './trace';

/** A valve that hunts shows it in this time, s. */
const LEAST_HELD_S = 2;

interface Circuit {
  readonly port: string;
  readonly name: string;
  readonly channel: Channel;
}

const PLAIN = { lines: [], points: [], supply_Pa: null } as const;

/** The travel of a unit's valve, where it is logged. */
function travelOf(trace: Trace, about: About): Channel | null {
  const metered = about.unit?.metered;
  const travel = metered && channelAt(trace, metered.travel);
  return travel?.quantity === 'travel' ? travel : null;
}

/** Until a valve is first pressed: from then on it draws from what is stored. All of a log where there is none. */
export function untilPressed(trace: Trace, about: About): Span {
  const travel = travelOf(trace, about);
  const first = travel && segmentsOf(trace, travel).find(({ kind }) => kind !== 'rest');
  return { from: 0, to: first ? first.from : trace.time_s.length };
}

/** What a log tells of a valve that is pressed by a travel and meters the pressure of its circuits: its sweeps, and whether it hunts. */
export function meteredIn(trace: Trace, about: About): Stretch[] {
  const travel = travelOf(trace, about);
  if (!travel) return [];
  const circuits = about.unit!.metered!.circuits.flatMap(({ port, name }): Circuit[] => {
    const channel = channelAt(trace, port);
    return channel?.quantity === 'pressure' ? [{ port, name, channel }] : [];
  });
  if (circuits.length === 0) return [];
  const segments = segmentsOf(trace, travel);
  return [...sweeps(trace, travel, circuits, segments), ...held(trace, circuits, segments)];
}

/** Pressed slowly over most of its travel, in one go or in steps, and let go as slowly where it was. */
function sweeps(
  trace: Trace,
  travel: Channel,
  circuits: readonly Circuit[],
  segments: readonly Segment[],
): Stretch[] {
  const moves = inSteps(trace, segments);
  const top = Math.max(...moves.map(({ start, end }) => Math.max(start, end)));
  const slow = (move: Segment | undefined, kind: Segment['kind']) =>
    move?.kind === kind &&
    move.to_s - move.from_s >= SLOW_S &&
    Math.abs(move.end - move.start) > LEAST_PULL * top;
  return moves.flatMap((move, i): Stretch[] => {
    if (!slow(move, 'apply')) return [];
    const back = [moves[i + 1], moves[i + 2]].find((next) => next && next.kind !== 'hold');
    const span: Span = { from: move.from, to: slow(back, 'release') ? back!.to : move.to };
    return [
      {
        kind: 'sweep',
        name: 'Sweep of the pedal',
        ...at(trace, span),
        results: sweepResults(trace, travel, circuits, span),
        ...PLAIN,
        notes: [
          sentence('Pressed in {press}: by how much the pressure lags behind stands in the hysteresis.', {
            press: { value: move.to_s - move.from_s, quantity: 'duration' },
          }),
        ],
      },
    ];
  });
}

function sweepResults(
  trace: Trace,
  travel: Channel,
  circuits: readonly Circuit[],
  span: Span,
): TraceResult[] {
  const found = sweep(
    trace,
    travel,
    circuits.map(({ channel }) => channel),
    span,
  );
  return [
    ...circuits.flatMap(({ port, name }, i) => [
      result(`${port}.slope`, `Rise with travel, ${name}`, 'pressurePerTravel', found.slopes[i]!),
      result(`${port}.hysteresis`, `Hysteresis, ${name}`, 'pressure', found.hysteresis[i]!),
      result(`${port}.greatest`, `Greatest pressure, ${name}`, 'pressure', found.greatest[i]!),
    ]),
    ...(circuits.length > 1
      ? [result('match', `${raised(circuits[1]!.name)} above ${circuits[0]!.name}`, 'pressure', found.match)]
      : []),
  ];
}

/** Held at a travel: every hold in which a circuit swings; where none does, the longest one says so. */
function held(trace: Trace, circuits: readonly Circuit[], segments: readonly Segment[]): Stretch[] {
  const holds = segments
    .filter(({ kind, from_s, to_s }) => kind === 'hold' && to_s - from_s >= LEAST_HELD_S)
    .map((hold) => ({ hold, found: circuits.map(({ channel }) => swing(trace, channel, hold)) }));
  const swinging = holds.filter(({ found }) => found.some(({ frequency }) => frequency.told));
  const longest = [...holds].sort((a, b) => lasts(b.hold) - lasts(a.hold)).slice(0, 1);
  return (swinging.length > 0 ? swinging : longest).map(({ hold, found }): Stretch => ({
    kind: 'held',
    name: 'Held at a travel',
    ...at(trace, hold),
    results: circuits.flatMap(({ port, name }, i) => {
      const { frequency, damping, amplitude } = found[i]!;
      return frequency.told
        ? [
            result(`${port}.swing-frequency`, `Swings, ${name}`, 'rotation', frequency),
            result(`${port}.swing-damping`, `Damping of the swing, ${name}`, 'ratio', damping),
            result(`${port}.swing-first`, `First swing, ${name}`, 'pressure', amplitude),
          ]
        : [];
    }),
    ...PLAIN,
    notes: circuits.flatMap(({ name }, i): Sentence[] => {
      const { frequency } = found[i]!;
      if (frequency.told) return [];
      const { why, wanted } = frequency;
      return [sentence(`${raised(name)}: ${lower(why.text)}`, why.values), ...(wanted ? [wanted] : [])];
    }),
  }));
}

const lasts = ({ from_s, to_s }: Segment) => to_s - from_s;
const raised = (text: string) => text.charAt(0).toUpperCase() + text.slice(1);
const lower = (text: string) => text.charAt(0).toLowerCase() + text.slice(1);
