import { sentence, type Sentence } from '../quantities/sentence';
import { scatterOf } from './blocks';
import {
  clippedNotes,
  cloudOf,
  pointsOf,
  TOO_FAST,
  unhurried,
  type Point,
  type Points,
} from './branch-points';
import { told, untold, type Estimate } from './estimate';
import { kinkedLine, plainLine, type KinkedLine } from './kinked-line';
import type { Channel, Span, Trace } from './trace';

/** What output against input tells over one apply or one release. */
export interface RatioCurve {
  /** 'assisted' follows B; 'straight' passes the input through; 'blocked' lets too little through to be fitted. */
  readonly kind: 'assisted' | 'straight' | 'blocked' | 'unclear';
  readonly branch: 'apply' | 'release';
  /** The handle moved so fast that nothing was fitted. */
  readonly tooFast: boolean;
  readonly crack: Estimate;
  readonly jumpIn: Estimate;
  readonly boostRatio: Estimate;
  readonly runoutInput: Estimate;
  readonly runoutOutput: Estimate;
  readonly slopeBeyond: Estimate;
  /** Assist off: output = offset + slope·input. */
  readonly passSlope: Estimate;
  readonly passOffset: Estimate;
  /** The lines drawn, as corners in input and output. */
  readonly corners: readonly (readonly [input_Pa: number, output_Pa: number])[];
  /** Output on the fitted line at an input below the knee, and its variance; null where there is none. */
  readonly line: {
    readonly at: (input_Pa: number) => number;
    readonly varianceAt: (input_Pa: number) => number;
  } | null;
  /** Means of the readings, as fitted: to be drawn. */
  readonly points: readonly (readonly [input_Pa: number, output_Pa: number])[];
  /** Inputs over which the line was fitted. */
  readonly covered: readonly [low: number, high: number];
  readonly notes: readonly Sentence[];
}

/**
 * Blocks that lines are fitted to. Noise on the input flattens a fitted line by its variance over that of the inputs:
 * means over larger blocks have less of it, and lose nothing else.
 */
const LINE_BLOCKS = 250;
/** Blocks in which the crack is looked for: its place is known no better than their width. */
const EDGE_BLOCKS = 600;
/** Points that are drawn. */
const DRAWN_BLOCKS = 160;
const LEAST_POINTS = 6;
/** Less output than this part of the input: something stands in the way. */
const BLOCKED = 0.6;
/** Lines no steeper than this pass the input through; gauges may disagree by as much. */
const THROUGH = 1.15;
/** Beyond the knee the line must lie at least this much flatter for the knee to be runout. */
const FLATTER = 0.6;
/** … by so many standard uncertainties. */
const CERTAIN = 3;
/** Below the knee, a line over less than this part of the inputs up to it is too short to tell a slope. */
const SHORT = 0.3;
/** Inputs just above crack, as a part of the range, at which the output is still on its way up. */
const JUMPING = 0.04;

/**
 * Fits output against input over one branch. Points at a gauge's end stop and in the jump at crack are left out; the
 * knee is free; a line without a knee says so. Handbook 6, ratio curve.
 */
export function ratioCurve(
  trace: Trace,
  input: Channel,
  output: Channel,
  span: Span,
  branch: RatioCurve['branch'],
): RatioCurve {
  const scatter = scatterOf([input, output], span);
  const points = (most: number) => pointsOf(trace, [input, output], span, most, scatter);
  const all = points(LINE_BLOCKS);
  const slow = unhurried(all);
  const curve = fitted([input, output], points(EDGE_BLOCKS), slow ?? all, branch);
  return {
    ...(slow ? curve : hurried(curve)),
    points: points(DRAWN_BLOCKS).points.map(({ x, y }) => [Math.round(x), Math.round(y)] as const),
  };
}

function fitted(
  [input, output]: readonly [Channel, Channel],
  edges: Points,
  lines: Points,
  branch: RatioCurve['branch'],
): RatioCurve {
  const notes = clippedNotes([input, output], lines.clip);
  const { points, u_x, u_y } = edges;
  const ordered = branch === 'release' ? points.toReversed() : points;
  if (points.length < LEAST_POINTS) return nothing(branch, notes);
  const top = points.reduce((most, p) => (p.x > most.x ? p : most));
  const bottom = points.reduce((least, p) => (p.x < least.x ? p : least));
  const range = top.x - bottom.x;
  if (top.y < BLOCKED * top.x && range > 10 * u_x) {
    notes.push(
      sentence('Blocked passage: at {input} in only {output} came through. Nothing was fitted.', {
        input: { value: top.x, quantity: 'pressure' },
        output: { value: top.y, quantity: 'pressure' },
      }),
    );
    return { ...nothing(branch, notes), kind: 'blocked' };
  }
  const from = departure(ordered, range, Math.hypot(u_x, u_y));
  const above = from.high + JUMPING * range;
  const after = lines.points.filter((p) => p.x > above);
  if (from.index >= points.length - LEAST_POINTS || after.length < LEAST_POINTS)
    return straight(lines, branch, notes);
  return assisted({ lines: { ...lines, points: after }, lowest: bottom.x, from, range, branch, u_x, notes });
}

interface Departure {
  /** First point that has left out = in. */
  readonly index: number;
  readonly low: number;
  readonly high: number;
  readonly allowance: number;
}

/** Where the output leaves the input for good. Gauges may disagree by some per cent before it counts. */
function departure(points: readonly Point[], range: number, sigma: number): Departure {
  const allowed = (x: number) => Math.max(6 * sigma, (THROUGH - 1) * x, 0.01 * range);
  let index = 0;
  for (let i = points.length - 1; i >= 0; i -= 1) {
    if (points[i]!.y - points[i]!.x <= allowed(points[i]!.x)) {
      index = i + 1;
      break;
    }
  }
  const low = points[index - 1]?.x ?? -Infinity;
  const high = points[index]?.x ?? Infinity;
  return { index, low: Math.min(low, high), high: Math.max(low, high), allowance: allowed(high) };
}

/** What is left of a curve whose pull was a hurry throughout: that it was one, and of which kind. */
const hurried = (curve: RatioCurve): RatioCurve => {
  const none = (estimate: Estimate) => (estimate.told ? TOO_FAST : estimate);
  return {
    ...curve,
    tooFast: true,
    crack: none(curve.crack),
    jumpIn: none(curve.jumpIn),
    boostRatio: none(curve.boostRatio),
    runoutInput: none(curve.runoutInput),
    runoutOutput: none(curve.runoutOutput),
    slopeBeyond: none(curve.slopeBeyond),
    passSlope: none(curve.passSlope),
    passOffset: none(curve.passOffset),
    corners: [],
    line: null,
  };
};

const NO_CURVE = untold(
  'Too few points at rising input.',
  'Pull the handle slowly from zero to beyond runout.',
);

function nothing(branch: RatioCurve['branch'], notes: readonly Sentence[]): RatioCurve {
  return {
    kind: 'unclear',
    branch,
    tooFast: false,
    crack: NO_CURVE,
    jumpIn: NO_CURVE,
    boostRatio: NO_CURVE,
    runoutInput: NO_CURVE,
    runoutOutput: NO_CURVE,
    slopeBeyond: NO_CURVE,
    passSlope: NO_CURVE,
    passOffset: NO_CURVE,
    corners: [],
    points: [],
    line: null,
    covered: [0, 0],
    notes,
  };
}

function straight(lines: Points, branch: RatioCurve['branch'], notes: readonly Sentence[]): RatioCurve {
  const line = plainLine(cloudOf(lines));
  if (!line) return nothing(branch, notes);
  const ends = endsOf(lines);
  const unassisted = untold(
    'The output only follows the input here: the assist was off, or never came in.',
    'Turn the vacuum on and pull again.',
  );
  return {
    ...nothing(branch, notes),
    kind: 'straight',
    crack: unassisted,
    jumpIn: unassisted,
    boostRatio: unassisted,
    runoutInput: unassisted,
    runoutOutput: unassisted,
    slopeBeyond: unassisted,
    passSlope: told(line.slope, line.u.slope, 'ratio'),
    passOffset: told(line.intercept, line.u.intercept, 'pressure'),
    corners: ends.map((x) => [x, line.intercept + line.slope * x] as const),
    line: { at: (x) => line.intercept + line.slope * x, varianceAt: line.varianceAt },
    covered: ends,
  };
}

const endsOf = ({ points }: Points) =>
  [Math.min(...points.map((p) => p.x)), Math.max(...points.map((p) => p.x))] as const;

interface Assisted {
  /** Points above the jump. */
  readonly lines: Points;
  /** Lowest input of the branch. */
  readonly lowest: number;
  readonly from: Departure;
  readonly range: number;
  readonly branch: RatioCurve['branch'];
  /** Noise of the input where the crack is looked for. */
  readonly u_x: number;
  readonly notes: readonly Sentence[];
}

function assisted({ lines, lowest, from, range, branch, u_x, notes }: Assisted): RatioCurve {
  const cloud = cloudOf(lines);
  const kinked = kinkedLine(cloud);
  const knee = kinked && isRunout(kinked) ? kinked : null;
  const line = knee ?? plainLine(cloud);
  if (!line) return nothing(branch, notes);
  const ends = endsOf(lines);
  const at = (x: number) => line.intercept + line.slope * x;
  const beyondOnly = !knee && line.slope < THROUGH;
  const usedUp = untold(
    'The assist was used up from the beginning: no part of this pull follows B.',
    'Pull on a better supply.',
  );
  const covered = [ends[0], knee ? knee.knee : ends[1]] as const;
  const short = covered[1] - covered[0] < SHORT * covered[1];
  const tooShort = untold(
    'Too little of the pull lies below the knee to tell a slope.',
    'Pull from below the crack.',
  );
  const ratio = told(line.slope, line.u.slope, 'ratio');
  const notReached = untold(
    'Runout was not reached: the output follows B to the end of this pull.',
    'Pull on to more than {input} in.',
    { input: { value: ends[1], quantity: 'pressure' } },
  );
  const crack = crackOf(line, from, range, branch, u_x);
  const jump = crack.told
    ? told(
        at(crack.value) - crack.value,
        Math.hypot(Math.sqrt(line.varianceAt(crack.value)), (line.slope - 1) * crack.u),
        'pressure',
      )
    : crack;
  const last: readonly [number, number] = knee
    ? [ends[1], at(knee.knee) + knee.beyond * (ends[1] - knee.knee)]
    : [ends[1], at(ends[1])];
  const low = crack.told ? crack.value : ends[0];
  const rise: (readonly [number, number])[] =
    crack.told && branch === 'apply'
      ? [
          [lowest, lowest],
          [crack.value, crack.value],
        ]
      : [];
  return {
    ...nothing(branch, notes),
    kind: 'assisted',
    crack,
    jumpIn: jump,
    boostRatio: beyondOnly ? usedUp : short ? tooShort : ratio,
    runoutInput: knee ? told(knee.knee, knee.u.knee, 'pressure') : beyondOnly ? usedUp : notReached,
    runoutOutput: knee ? told(at(knee.knee), knee.u.kneeY, 'pressure') : beyondOnly ? usedUp : notReached,
    slopeBeyond: knee ? told(knee.beyond, knee.u.beyond, 'ratio') : beyondOnly ? usedUp : notReached,
    passSlope: untold('The assist was on.', 'Pull with the vacuum off.'),
    passOffset: untold('The assist was on.', 'Pull with the vacuum off.'),
    corners: [...rise, [low, at(low)], ...(knee ? [[knee.knee, at(knee.knee)] as const] : []), last],
    line: beyondOnly ? null : { at, varianceAt: line.varianceAt },
    covered,
  };
}

/** A knee is runout where what lies beyond is flatter for certain. */
const isRunout = ({ slope, beyond, u }: KinkedLine) =>
  slope > THROUGH && beyond + CERTAIN * u.beyond < FLATTER * slope;

interface Line {
  readonly intercept: number;
  readonly slope: number;
  readonly varianceAt: (x: number) => number;
}

/** Crack: with a jump, in the first block off out = in; without, where the fitted line crosses out = in. */
function crackOf(
  line: Line,
  from: Departure,
  range: number,
  branch: RatioCurve['branch'],
  u_x: number,
): Estimate {
  if (branch === 'release')
    return untold('Crack is read while the input rises.', 'Look at the apply before this release.');
  if (from.low === -Infinity)
    return untold('The pull begins above the crack.', 'Let go fully and wait, then pull slowly from zero.');
  // The block that first departs holds the crack, somewhere.
  const middle = from.high;
  const jump = line.intercept + (line.slope - 1) * middle;
  const u_jump = Math.sqrt(line.varianceAt(middle));
  if (jump > from.allowance) {
    const gap = from.high - from.low;
    return gap > 0.1 * range
      ? untold('The points near the crack lie too far apart.', 'Pull more slowly through the first part.')
      : told(middle, Math.hypot(gap / Math.sqrt(12), u_x), 'pressure');
  }
  if (Math.abs(jump) > 3 * u_jump)
    return untold(
      'The jump at crack is lost in the noise.',
      'A steadier gauge, or a slower pull through the first part.',
    );
  if (line.slope <= THROUGH) return untold('No jump and no boost were seen.');
  const crossing = -line.intercept / (line.slope - 1);
  return told(crossing, Math.sqrt(line.varianceAt(crossing)) / (line.slope - 1), 'pressure');
}

/**
 * Gap between release and apply at the middle of what both were fitted over, as a part of the output. The branches
 * are fitted apart and never averaged. Handbook 5 and 6.
 */
export function hysteresisOf(apply: RatioCurve, release: RatioCurve): Estimate {
  if (apply.tooFast || release.tooFast) return TOO_FAST;
  if (!apply.line || !release.line || apply.kind !== 'assisted' || release.kind !== 'assisted')
    return untold(
      'It takes an apply and a release with the assist on.',
      'Pull slowly up, then let down slowly.',
    );
  const low = Math.max(apply.covered[0], release.covered[0]);
  const high = Math.min(apply.covered[1], release.covered[1]);
  if (!(high > low))
    return untold('Apply and release have no range in common below runout.', 'Let down from below runout.');
  const x = (low + high) / 2;
  const [up, down] = [apply.line.at(x), release.line.at(x)];
  const variance = release.line.varianceAt(x) / up ** 2 + (apply.line.varianceAt(x) * down ** 2) / up ** 4;
  return told(down / up - 1, Math.sqrt(variance), 'percent');
}
