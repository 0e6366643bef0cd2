import { sentence } from '../quantities/sentence';
import { INHG_PA } from '../quantities/units';
import { at, meanOf, result, type About, type FitLine, type Stretch } from './analysis';
import { blocksOf } from './blocks';
import { unlessCooling } from './cooling';
import { fluidHold } from './fluid-hold';
import { REMAINS_PA, type Segment } from './segments';
import { vacuumAt, indexAt, wholeOf, type Channel, type Span, type Trace } from './trace';
import { vacuumDecay } from './vacuum-decay';

const LEAST_HOLD_S = 10;
/** The output follows the handle by some tenths of a second: a hold is looked at once that is over. */
const FOLLOWED_S = 1;
/** The last of a hold may be the first of what the hand did next. */
const LET_GO_S = 0.5;
const LEAST_WATCH_S = 15;
/** Smallest losses worth telling: a twentieth of the typical limits of handbook 8.1. */
const RESOLVE_PAPERS = { fluid: (0.05 * 2e5) / 60, vacuum: (0.05 * INHG_PA) / 60 };
/** Blocks in which a fall of the vacuum is looked for, and by how many of their standard errors it rises again. */
const WATCH_BLOCKS = 120;
const RISE = 8;
/** Vacuum at which a unit can be called supplied at all, Pa. */
export const SOME_VACUUM_PA = INHG_PA;
const CURVE_POINTS = 24;

/** Pressure that was held: what of it was lost. */
export function holds(trace: Trace, output: Channel, segments: readonly Segment[], about: About): Stretch[] {
  return segments.flatMap((segment): Stretch[] => {
    if (segment.kind !== 'hold' || segment.to_s - segment.from_s < LEAST_HOLD_S) return [];
    const span = {
      from: indexAt(trace, segment.from_s + FOLLOWED_S),
      to: indexAt(trace, segment.to_s - LET_GO_S),
    };
    if (!(meanOf(trace, output, span) > REMAINS_PA)) return [];
    const hold = fluidHold(trace, output, span, RESOLVE_PAPERS.fluid);
    // No unit of which a profile can be named stores gas.
    const loss = about.unit ? hold.loss : unlessCooling(trace, output, span, hold, RESOLVE_PAPERS.fluid);
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
        results: [result('hold-loss', 'Output loss on hold', 'pressureRate', loss)],
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

interface Times {
  readonly from_s: number;
  readonly to_s: number;
}

/** A whole trace of which nothing says that the handle was touched: the supply alone was logged. */
export interface Untouched extends Span, Times {
  readonly kind: 'untouched';
}

export const untouched = (trace: Trace): Untouched => ({
  kind: 'untouched',
  ...wholeOf(trace),
  ...at(trace, wholeOf(trace)),
});

/** Falls of the vacuum while nobody touches the handle: the source was shut. A vacuum that stays tells nothing of it. */
export function watches(trace: Trace, segments: readonly (Segment | Untouched)[], about: About): Stretch[] {
  const supply = vacuumAt(trace);
  if (!supply) return [];
  return segments.flatMap((segment): Stretch[] => {
    if (segment.kind !== 'hold' && segment.kind !== 'rest' && segment.kind !== 'untouched') return [];
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
    const when = { hold: 'applied', rest: 'released', untouched: null }[segment.kind];
    const leak = about.unit
      ? [
          result('air-leak', 'Air leak, sonic conductance', 'conductance', decay.conductance),
          result('orifice', 'Sharp orifice that would leak as much', 'length', decay.orifice),
        ]
      : [];
    return [
      {
        kind: 'vacuum',
        name: when ? `Vacuum shut in, ${when}` : 'Vacuum shut in',
        ...where,
        results: [
          result(
            when ? `vacuum-loss-${when}` : 'vacuum-loss',
            when ? `Vacuum loss, ${when}` : 'Vacuum loss',
            'depressionRate',
            decay.loss,
          ),
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
function fallIn(trace: Trace, supply: Channel, segment: Span & Times): Span | null {
  if (segment.to_s - segment.from_s < LEAST_WATCH_S) return null;
  const { means, sigma, first } = blocksOf(trace, [supply], segment, WATCH_BLOCKS);
  const levels = means[0]!;
  const sure = RISE * sigma[0]!;
  // The vacuum stands at its deepest until the valve is turned: what lies within a block of that is left out.
  const spanFrom = (top: number, end: number): Span => {
    let turned = top;
    for (let i = top; i < end; i += 1) if (levels[i]! > levels[top]! - sure / 2) turned = i;
    return {
      from: first[Math.min(turned + 2, levels.length - 1)]!,
      to: end < levels.length ? first[end]! : segment.to,
    };
  };
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
