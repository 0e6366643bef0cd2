import { sentence, type Sentence } from '../quantities/sentence';
import { INHG_PA, type Quantity } from '../quantities/units';
import { blocksOf } from './blocks';
import { effectiveAreaOf, type SlaveCylinder } from './effective-area';
import { told, untold, type Estimate } from './estimate';
import { forceCurve, rodArea_m2, type ForceCurve, type Rod } from './force-curve';
import { fluidHold } from './fluid-hold';
import { pressureVolume } from './pressure-volume';
import { proportioning } from './proportioning';
import { hysteresisOf, ratioCurve, type RatioCurve } from './ratio-curve';
import { assistedOutput, reserveCount, type Useful } from './reserve-count';
import { segmentsOf, type Segment } from './segments';
import { channelAt, indexAt, wholeOf, type Channel, type Span, type Trace } from './trace';
import { vacuumDecay } from './vacuum-decay';

/** What is known beside the trace. SI. */
export interface About {
  readonly barometer_Pa: number;
  readonly temperature_K: number;
  /** Slave cylinder or rod, whichever the unit has, and vacuum volume; null where no profile was named. */
  readonly unit: {
    readonly slave: SlaveCylinder | null;
    readonly rod: Rod | null;
    readonly vacuumVolume_m3: number;
  } | null;
}

/** One number that the trace was made to yield, and where. */
export interface TraceResult {
  readonly id: string;
  readonly name: string;
  readonly quantity: Quantity;
  readonly estimate: Estimate;
}

/** A line of a fit, to be drawn over the readings. */
export interface FitLine {
  readonly on: 'input-output' | 'time';
  /** Port that it belongs to. */
  readonly port: string;
  /** Points in SI: input and output, or seconds and value. */
  readonly points: readonly (readonly [number, number])[];
}

/** A stretch of a trace in which something was tested, with what it tells. */
export interface Stretch {
  readonly kind:
    'bypass' | 'pull' | 'let down' | 'hold' | 'vacuum' | 'reserve' | 'split' | 'volume' | 'blocked';
  readonly name: string;
  readonly from_s: number;
  readonly to_s: number;
  readonly results: readonly TraceResult[];
  readonly lines: readonly FitLine[];
  /** Vacuum that the unit had at the end of a pull, Pa; null where it was not logged or does not matter. */
  readonly supply_Pa: number | null;
  /** Readings of output against input, thinned out, Pa. */
  readonly points: readonly (readonly [number, number])[];
  readonly notes: readonly Sentence[];
}

/** Everything that a trace was made to yield. Plain data: it is stored, sent and printed as it is. */
export interface Analysis {
  readonly segments: readonly Omit<Segment, 'from' | 'to'>[];
  readonly stretches: readonly Stretch[];
  readonly notes: readonly Sentence[];
}

/** A pull of less than this part of the greatest input is none to be fitted. */
const LEAST_PULL = 0.2;
/** Of what stands before and after a pull in steps, so much belongs to it. */
const STAND_S = 2;
const LEAST_HOLD_S = 10;
/** Less output than this is none that was held. */
const LEAST_HELD_PA = 1e5;
/** The output follows the handle by some tenths of a second: a hold is looked at once that is over. */
const FOLLOWED_S = 1;
const LET_GO_S = 0.5;
/** A pull or a let-down quicker than this shows lag that looks like hysteresis. */
const SLOW_S = 5;
const LEAST_WATCH_S = 15;
/** Smallest losses worth telling: a twentieth of the typical limits of handbook 8.1. */
const RESOLVE_PAPERS = { fluid: (0.05 * 2e5) / 60, vacuum: (0.05 * INHG_PA) / 60 };
/** Blocks in which a fall of the vacuum is looked for, and by how many of their standard errors it rises again. */
const WATCH_BLOCKS = 120;
const RISE = 8;
/** Vacuum at which a unit can be called supplied at all, Pa. */
const SOME_VACUUM_PA = INHG_PA;
const CURVE_POINTS = 24;
const LEAST_RESERVE = 3;
/** An application that the source does not make up for leaves less than this part of the vacuum. */
const SPENT = 0.985;

/** Works everything out of a trace that the ports it names allow. */
export function analyse(trace: Trace, about: About): Analysis {
  const input = channelAt(trace, 'input');
  const output = channelAt(trace, 'output');
  // A rod's force is no output pressure: it has no ratio to the input.
  const fluid = output?.quantity === 'pressure' ? output : null;
  const lead = input ?? output ?? channelAt(trace, 'front') ?? trace.channels[0];
  if (!lead || trace.time_s.length < 3)
    return {
      segments: [],
      stretches: [],
      notes: [sentence('There are too few readings to work anything out of.')],
    };
  const segments = segmentsOf(trace, lead);
  const stretches = [
    ...(input && fluid ? pulls(trace, input, fluid, segments, about) : []),
    ...(input && output?.quantity === 'force' ? forces(trace, input, output, segments, about) : []),
    ...(fluid ? holds(trace, fluid, segments) : []),
    ...watches(trace, segments, about),
    ...reserves(trace, segments, about),
    ...splits(trace, about),
  ].sort((a, b) => a.from_s - b.from_s);
  const notes: Sentence[] = [];
  if (!input || !output)
    notes.push(sentence('Input and output are not both named, so no ratio curve was drawn.'));
  if (!about.unit) notes.push(sentence('No profile is named, so areas and air leaks are not told.'));
  if (segments.length < 2 && stretches.length === 0)
    notes.push(sentence(`“${lead.name}” does not move: nothing was done in this trace.`));
  return { segments: segments.map(({ from: _f, to: _t, ...rest }) => rest), stretches, notes };
}

const at = (trace: Trace, { from, to }: Span) => ({
  from_s: trace.time_s[from]!,
  to_s: trace.time_s[Math.max(from, to - 1)]!,
});

const result = (id: string, name: string, quantity: Quantity, estimate: Estimate): TraceResult => ({
  id,
  name,
  quantity,
  estimate,
});

const TOO_FAST = untold(
  'The handle moved too fast: lag then looks like hysteresis.',
  'Take {slow} or more each way.',
  { slow: { value: SLOW_S, quantity: 'duration' } },
);

function pulls(
  trace: Trace,
  input: Channel,
  output: Channel,
  segments: readonly Segment[],
  about: About,
): Stretch[] {
  const moves = inOnePull(trace, segments);
  const top = Math.max(...segments.map(({ start, end }) => Math.max(start, end)));
  const stretches: Stretch[] = [];
  let apply: { readonly curve: RatioCurve; readonly seconds: number } | null = null;
  moves.forEach((segment, i) => {
    if (segment.kind !== 'apply' && segment.kind !== 'release') return;
    const large = Math.abs(segment.end - segment.start) > LEAST_PULL * top;
    if (!large) return;
    const curve = ratioCurve(trace, input, output, segment, segment.kind);
    if (curve.kind === 'unclear') return;
    const where = at(trace, segment);
    const seconds = where.to_s - where.from_s;
    const lines: FitLine[] = [{ on: 'input-output', port: 'output', points: curve.corners }];
    if (segment.kind === 'release') {
      if (apply && curve.kind === 'assisted')
        stretches.push({
          kind: 'let down',
          name: 'Let down',
          ...where,
          results: [
            result('release-ratio', 'Boost ratio B, coming down', 'ratio', curve.boostRatio),
            result(
              'hysteresis',
              'Hysteresis, part of output',
              'percent',
              Math.min(seconds, apply.seconds) < SLOW_S ? TOO_FAST : hysteresisOf(apply.curve, curve),
            ),
          ],
          lines,
          points: curve.points,
          supply_Pa: suppliedAt(trace, segment),
          notes: curve.notes,
        });
      apply = null;
      return;
    }
    apply = curve.kind === 'assisted' ? { curve, seconds } : null;
    if (curve.kind === 'blocked') {
      stretches.push({
        kind: 'blocked',
        name: 'Blocked passage',
        ...where,
        results: [],
        lines: [],
        points: curve.points,
        supply_Pa: suppliedAt(trace, segment),
        notes: curve.notes,
      });
    } else if (curve.kind === 'straight') {
      stretches.push({
        kind: 'bypass',
        name: 'Bypass, assist off',
        ...where,
        results: [
          result('pass-slope', 'Output against input, slope', 'ratio', curve.passSlope),
          result('pass-offset', 'Output against input, offset', 'pressure', curve.passOffset),
        ],
        lines,
        points: curve.points,
        supply_Pa: suppliedAt(trace, segment),
        notes: curve.notes,
      });
    } else {
      // What stands at the top belongs to the pull: there the diaphragm works with all of the supply.
      const after = moves[i + 1];
      const whole = { from: segment.from, to: after?.kind === 'hold' ? after.to : segment.to };
      stretches.push({
        kind: 'pull',
        name: 'Pull with assist',
        ...where,
        results: [...curveResults(curve), ...areaResult(trace, input, output, whole, about)],
        lines,
        points: curve.points,
        supply_Pa: suppliedAt(trace, segment),
        notes: curve.notes,
      });
    }
  });
  return stretches;
}

/**
 * Pulls made in steps: from a level up to the next and the next, with a stand for the eye at each, are one pull. It
 * begins and ends on a stand, where there is one.
 */
function inOnePull(trace: Trace, segments: readonly Segment[]): Segment[] {
  const moves: Segment[] = [];
  for (const segment of segments) {
    const [before, held] = [moves.at(-2), moves.at(-1)];
    if (segment.kind === 'apply' && held?.kind === 'hold' && before?.kind === 'apply')
      moves.splice(-2, 2, { ...before, to: segment.to, to_s: segment.to_s, end: segment.end });
    else moves.push(segment);
  }
  return moves.map((move, i) => {
    if (segments.includes(move)) return move;
    const [before, after] = [moves[i - 1], moves[i + 1]];
    const from =
      before?.kind === 'hold' ? Math.max(before.from, indexAt(trace, move.from_s - STAND_S)) : move.from;
    const to = after?.kind === 'hold' ? Math.min(after.to, indexAt(trace, move.to_s + STAND_S)) : move.to;
    return {
      ...move,
      from,
      to,
      start: Math.min(move.start, before?.start ?? Infinity),
      end: after?.kind === 'hold' ? after.end : move.end,
    };
  });
}

/** Slow applies of a servo that acts on a rod: a quick one shows the way of the air, not the valve's. */
function forces(
  trace: Trace,
  input: Channel,
  force: Channel,
  segments: readonly Segment[],
  about: About,
): Stretch[] {
  return segments.flatMap((segment, i): Stretch[] => {
    if (segment.kind !== 'apply' || segment.to_s - segment.from_s < SLOW_S) return [];
    const after = segments[i + 1];
    // The force follows the valve: what stands at the top belongs to the pull.
    const whole = { from: segment.from, to: after?.kind === 'hold' ? after.to : segment.to };
    const curve = forceCurve(trace, input, force, whole);
    if (!curve) return [];
    const supply_Pa = suppliedAt(trace, whole);
    return [
      {
        kind: 'pull',
        name: 'Slow application',
        ...at(trace, segment),
        results: [
          result('force-begins', 'Force begins', 'pressure', curve.begins),
          result('full-lift', 'Full lift of the valve', 'pressure', curve.fullLift),
          result('full-force', 'Full force', 'force', curve.fullForce),
          ...rodAreaResult(curve, supply_Pa, about),
        ],
        lines: [{ on: 'input-output', port: 'output', points: curve.corners }],
        points: curve.points,
        supply_Pa,
        notes: curve.notes,
      },
    ];
  });
}

function rodAreaResult(curve: ForceCurve, supply_Pa: number | null, about: About): TraceResult[] {
  const rod = about.unit?.rod;
  const { fullForce, fullLift } = curve;
  if (!rod || !supply_Pa || !fullForce.told || !fullLift.told) return [];
  const area = rodArea_m2(fullForce.value, fullLift.value, supply_Pa, rod);
  return [
    result(
      'effective-area',
      'Effective area',
      'area',
      told(area, (fullForce.u * rod.giving) / supply_Pa, 'area'),
    ),
  ];
}

/** Mean vacuum over the last fifth of a stretch. */
function suppliedAt(trace: Trace, { from, to }: Span): number | null {
  const supply = channelAt(trace, 'supply');
  if (!supply) return null;
  const mean = meanOf(trace, supply, { from: Math.floor(to - (to - from) / 5), to });
  return Number.isFinite(mean) ? mean : null;
}

const meanOf = (trace: Trace, channel: Channel, span: Span) =>
  blocksOf(trace, [channel], span, 1).means[0]![0]!;

const curveResults = (curve: RatioCurve): TraceResult[] => [
  result('crack', 'Crack', 'pressure', curve.crack),
  result('jump-in', 'Jump-in J', 'pressure', curve.jumpIn),
  result('boost-ratio', 'Boost ratio B, as a slope', 'ratio', curve.boostRatio),
  result('runout-input', 'Runout input', 'pressure', curve.runoutInput),
  result('runout-output', 'Runout output', 'pressure', curve.runoutOutput),
  result('slope-beyond', 'Slope beyond runout', 'ratio', curve.slopeBeyond),
];

function areaResult(trace: Trace, input: Channel, output: Channel, span: Span, about: About): TraceResult[] {
  const supply = channelAt(trace, 'supply');
  const activation = channelAt(trace, 'activation');
  const slave = about.unit?.slave;
  if (!supply || !activation || !slave) return [];
  const area = effectiveAreaOf(trace, { input, output, supply, activation }, span, slave);
  return [result('effective-area', 'Effective diaphragm area', 'area', area)];
}

function holds(trace: Trace, output: Channel, segments: readonly Segment[]): Stretch[] {
  return segments.flatMap((segment, i): Stretch[] => {
    if (segment.kind !== 'hold' || segment.to_s - segment.from_s < LEAST_HOLD_S) return [];
    // The last of it may be the first of what the hand did next.
    const last = i === segments.length - 1;
    const to = last ? segment.to : indexAt(trace, segment.to_s - LET_GO_S);
    const span = { from: indexAt(trace, segment.from_s + FOLLOWED_S), to };
    if (!(meanOf(trace, output, span) > LEAST_HELD_PA)) return [];
    const hold = fluidHold(trace, output, span, RESOLVE_PAPERS.fluid);
    const notes = hold.settling
      ? [
          sentence('Settling took off {drop} with a time constant of {tau}; it is not in the loss.', {
            drop: { value: hold.settling.drop_Pa, quantity: 'pressure' },
            tau: { value: hold.settling.tau_s, quantity: 'duration' },
          }),
        ]
      : [];
    return [
      {
        kind: 'hold',
        name: 'Hold under pressure',
        ...at(trace, span),
        results: [result('hold-loss', 'Output loss on hold', 'pressureRate', hold.loss)],
        lines: [timeLine('output', at(trace, span), hold.curve)],
        points: [],
        supply_Pa: null,
        notes,
      },
    ];
  });
}

function timeLine(
  port: string,
  { from_s, to_s }: { from_s: number; to_s: number },
  curve: (t_s: number) => number,
): FitLine {
  const points = Array.from({ length: CURVE_POINTS + 1 }, (_, i) => {
    const t = ((to_s - from_s) * i) / CURVE_POINTS;
    return [from_s + t, curve(t)] as const;
  });
  return { on: 'time', port, points: points.filter(([, y]) => Number.isFinite(y)) };
}

/** Falls of the vacuum while nobody touches the handle: the source was shut. A vacuum that stays tells nothing of it. */
function watches(trace: Trace, segments: readonly Segment[], about: About): Stretch[] {
  const supply = channelAt(trace, 'supply');
  if (!supply) return [];
  return segments.flatMap((segment): Stretch[] => {
    const applied = segment.kind === 'hold';
    if (!applied && segment.kind !== 'rest') return [];
    const span = fallIn(trace, supply, segment);
    if (!span) return [];
    const where = at(trace, span);
    const decay = vacuumDecay(
      trace,
      supply,
      span,
      { ...about, volume_m3: about.unit?.vacuumVolume_m3 ?? null },
      RESOLVE_PAPERS.vacuum,
    );
    const when = applied ? 'applied' : 'released';
    const leak = about.unit
      ? [
          result('air-leak', 'Air leak, sonic conductance', 'conductance', decay.conductance),
          result('orifice', 'Sharp orifice that would leak as much', 'length', decay.orifice),
        ]
      : [];
    return [
      {
        kind: 'vacuum',
        name: `Vacuum shut in, ${when}`,
        ...where,
        results: [
          result(`vacuum-loss-${when}`, `Vacuum loss, ${when}`, 'depressionRate', decay.loss),
          ...leak,
        ],
        lines: [timeLine('supply', where, decay.curve)],
        points: [],
        supply_Pa: null,
        notes: [],
      },
    ];
  });
}

/** The longest fall of a stretch: no rise in it that noise would not make; null where none is long or deep enough. */
function fallIn(trace: Trace, supply: Channel, segment: Segment): Span | null {
  if (segment.to_s - segment.from_s < LEAST_WATCH_S) return null;
  const { means, sigma, first } = blocksOf(trace, [supply], segment, WATCH_BLOCKS);
  const levels = means[0]!;
  const sure = RISE * sigma[0]!;
  // Behind its deepest point the valve was turned: what lies within a block of it is left out.
  const spanFrom = (top: number, end: number): Span => ({
    from: first[Math.min(top + 2, levels.length - 1)]!,
    to: end < levels.length ? first[end]! : segment.to,
  });
  const seconds = ({ from, to }: Span) => trace.time_s[Math.max(from, to - 1)]! - trace.time_s[from]!;
  let longest: Span | null = null;
  const close = (top: number, low: number, end: number) => {
    const span = spanFrom(top, end);
    const fell = levels[top]! > SOME_VACUUM_PA && levels[top]! - levels[low]! > sure;
    if (fell && seconds(span) >= LEAST_WATCH_S && seconds(span) > (longest ? seconds(longest) : 0))
      longest = span;
  };
  let [top, low] = [0, 0];
  for (let i = 1; i < levels.length; i += 1) {
    if (!(levels[i]! < levels[top]!) || levels[i]! > levels[low]! + sure) {
      close(top, low, low);
      [top, low] = [i, i];
    } else if (levels[i]! < levels[low]!) low = i;
  }
  close(top, low, levels.length);
  return longest;
}

/** A row of applications on a vacuum that falls from one to the next: the source had stopped. */
function reserves(trace: Trace, segments: readonly Segment[], about: About): Stretch[] {
  const [input, output, supply] = ['input', 'output', 'supply'].map((port) => channelAt(trace, port));
  if (!input || !output || !supply) return [];
  const useful = usefulOf(output, about);
  if (!useful) return [];
  const applies = segments.filter(({ kind }) => kind === 'apply');
  const level = (at: number) => {
    const near = Array.from(supply.values.subarray(Math.max(0, at - 5), at + 1)).filter(Number.isFinite);
    return near.length ? near.reduce((sum, v) => sum + v, 0) / near.length : NaN;
  };
  const before = applies.map(({ from }) => level(from));
  const after = applies.map((apply) => {
    const next = segments.slice(segments.indexOf(apply) + 1);
    return level((next.find(({ kind }) => kind === 'release') ?? next.at(-1) ?? apply).to);
  });
  // From a source that still draws, what an application takes comes back at once.
  const costs = (i: number) => after[i]! < SPENT * before[i]! || before[i]! < SOME_VACUUM_PA;
  const runs: { from: number; to: number }[] = [];
  for (let i = 1; i < applies.length; i += 1) {
    const last = runs.at(-1);
    const fell = before[i]! < SPENT * before[i - 1]! || (before[i]! < SOME_VACUUM_PA && last?.to === i - 1);
    if (!fell || !costs(i - 1)) continue;
    if (last && last.to === i - 1) last.to = i;
    else runs.push({ from: i - 1, to: i });
  }
  return runs
    .filter(({ from, to }) => to - from + 1 >= LEAST_RESERVE && before[from]! > SOME_VACUUM_PA)
    .map(({ from, to }): Stretch => {
      const end = segments[segments.indexOf(applies[to]!) + 1]?.to ?? applies[to]!.to;
      const span = { from: applies[from]!.from, to: end };
      const { count, applications } = reserveCount(trace, input, output, span, useful);
      return {
        kind: 'reserve',
        name: 'Reserve',
        ...at(trace, span),
        results: [result('reserve', 'Useful applications from the reserve', 'count', count)],
        lines: [],
        points: [],
        supply_Pa: null,
        notes: [
          sentence('{count} applications were made.', {
            count: { value: applications.length, quantity: 'count' },
          }),
        ],
      };
    });
}

/** What makes an application of use; null where that is not known. */
function usefulOf(output: Channel, about: About): Useful | null {
  if (output.quantity === 'pressure') return assistedOutput;
  const least_N = about.unit?.rod?.useful_N;
  return output.quantity === 'force' && least_N !== undefined ? (force_N) => force_N >= least_N : null;
}

function splits(trace: Trace, about: About): Stretch[] {
  const [front, rear, volume, output] = ['front', 'rear', 'volume', 'output'].map((port) =>
    channelAt(trace, port),
  );
  const stretches: Stretch[] = [];
  const risesOf = (channel: Channel) => {
    const all = segmentsOf(trace, channel, wholeOf(trace));
    const top = Math.max(...all.map(({ end }) => end));
    return all.filter(({ kind, start, end }) => kind === 'apply' && end - start > LEAST_PULL * top);
  };
  if (front && rear) {
    for (const rise of risesOf(front)) {
      const { split, slopeBefore, slopeBeyond } = proportioning(trace, front, rear, rise);
      stretches.push({
        kind: 'split',
        name: 'Rear against front',
        ...at(trace, rise),
        results: [
          result('split', 'Split point, front', 'pressure', split),
          result('split-before', 'Slope before the split', 'ratio', slopeBefore),
          result('split-beyond', 'Slope beyond the split', 'ratio', slopeBeyond),
        ],
        lines: [],
        points: [],
        supply_Pa: null,
        notes: [],
      });
    }
  }
  if (volume && output) {
    for (const rise of risesOf(output)) {
      const { air, seating, give } = pressureVolume(trace, output, volume, rise, about.barometer_Pa);
      stretches.push({
        kind: 'volume',
        name: 'Volume against pressure',
        ...at(trace, rise),
        results: [
          result('air', 'Air trapped', 'volume', air),
          result('seating', 'Volume to seat', 'volume', seating),
          result('give', 'Give of the line', 'volumePerPressure', give),
        ],
        lines: [],
        points: [],
        supply_Pa: null,
        notes: [],
      });
    }
  }
  return stretches;
}
