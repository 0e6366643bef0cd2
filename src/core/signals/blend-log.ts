import { sentence, type Sentence } from '../quantities/sentence';
import { at, result, type Stretch } from './analysis';
import { blocksOf } from './blocks';
import { told, untold, type Estimate } from './estimate';
import { leastSquares } from './least-squares';
import { MAD_TO_SIGMA, median } from './noise';
import { channelAt, wholeOf, type Channel, type Trace } from './trace';

/** What a log of a stop says of how it was shared between what was taken back and friction. Handbook-models 8.9. */
export interface BlendLog {
  /** What friction of an axle comes to at ten bar, worked out of the pressures and of what was asked less what was granted, N·m. */
  readonly front: Estimate;
  readonly rear: Estimate;
  /** Part of the stop's work that was taken back; it needs the speed. */
  readonly share: Estimate;
  /** Most that was asked of the machine and not granted, N·m. */
  readonly refused: Estimate;
  /** What is furthest from accounted for: asked less granted less friction, N·m, and when. */
  readonly left: Estimate;
  readonly left_s: number | null;
  /** Where less was granted than asked, whether friction made it up; null where all was granted. */
  readonly madeUp: boolean | null;
}

/** The channels of such a log. */
export interface BlendChannels {
  readonly asked: Channel;
  readonly granted: Channel;
  readonly front: Channel;
  readonly rear: Channel;
  readonly requested?: Channel | undefined;
  readonly speed?: Channel | undefined;
}

const MOST_BLOCKS = 500;
/** Below this linings may not be at their discs yet, Pa. */
const PRESSES_PA = 1.5e5;
/** The pressure that an axle's friction is told at, Pa. */
const AT_PA = 10e5;
/** Further than so many standard deviations is no scatter: it is left out of the fit, and told. */
const OUT_SIGMA = 4.5;
const ROBUST = 12;
const ROUNDS = ROBUST + 4;
/** Less than this part of the greatest that was asked of the machine was as good as granted. */
const REFUSED_PART = 0.05;
/** A pressure that changes by less than so many times its noise tells nothing of its axle. */
const CHANGES_SIGMA = 12;
/** Friction made it up where so much of the time it is accounted for. */
const MADE_UP_PART = 0.9;
/** So much of a stop tells its sharing. */
const LEAST_BLOCKS = 12;

const UNTOLD: Estimate = untold(
  'Too little of it presses both axles while something is asked.',
  'Log a whole stop, from speed to standstill, with torque asked and granted and the pressure of each axle.',
);

const STILL: Estimate = untold(
  'Its pressure hardly changes in this log.',
  'Log a stop in which the pedal comes on and is eased.',
);

/**
 * What was asked, granted and pressed, held against each other: asked − granted = K_f·p_f + K_r·p_r + b, by least squares over where both
 * axles press. What lies far off is left out of the fit, and told. Friction here is worked out of pressures: nobody measured it.
 */
export function blendLog(trace: Trace, channels: BlendChannels): BlendLog {
  const { asked, granted, front, rear, requested = granted, speed } = channels;
  const { means, time_s, sigma } = blocksOf(
    trace,
    [asked, granted, front, rear, requested, speed ?? asked],
    wholeOf(trace),
    MOST_BLOCKS,
  );
  const [a, g, f, r, q, v] = means as Six;
  const all = Array.from(a.keys()).filter((i) => means.every((of) => Number.isFinite(of[i]!)));
  const nothing: BlendLog = {
    front: UNTOLD,
    rear: UNTOLD,
    share: UNTOLD,
    refused: UNTOLD,
    left: UNTOLD,
    left_s: null,
    madeUp: null,
  };
  const presses = (i: number) => f[i]! > PRESSES_PA && r[i]! > PRESSES_PA;
  const found = fitted(all.filter(presses), { a, g, f, r }, [sigma[2]!, sigma[3]!]);
  if (!found) return nothing;
  const { parameters, u, off, scatter } = found;
  // Where only one axle presses, linings of the other may not be at their discs yet: what that may come to is no fault.
  const some = all.filter((i) => f[i]! > PRESSES_PA || r[i]! > PRESSES_PA);
  const isOut = (i: number) =>
    Math.abs(off(i)) >
    OUT_SIGMA * scatter + (presses(i) ? 0 : PRESSES_PA * Math.max(...parameters.slice(0, 2)));
  const furthest = some.reduce((most, i) => (Math.abs(off(i)) > Math.abs(off(most)) ? i : most), some[0]!);
  const refusedAt = all.reduce((most, i) => (q[i]! - g[i]! > q[most]! - g[most]! ? i : most), all[0]!);
  const refused_Nm = q[refusedAt]! - g[refusedAt]!;
  const most_Nm = Math.max(...all.map((i) => q[i]!));
  const refusing = some.filter((i) => q[i]! - g[i]! > REFUSED_PART * most_Nm);
  const axle = (place: 0 | 1) =>
    u[place] === null ? STILL : told(AT_PA * parameters[place], AT_PA * u[place], 'torque');
  return {
    front: axle(0),
    rear: axle(1),
    share: speed
      ? shareOf(all, a, g, v, sigma)
      : untold('No speed was logged.', 'Log the speed of the vehicle.'),
    refused: told(
      refused_Nm > REFUSED_PART * most_Nm ? refused_Nm : 0,
      Math.hypot(sigma[1]!, sigma[4]!),
      'torque',
    ),
    left: told(off(furthest), scatter, 'torque'),
    left_s: isOut(furthest) ? time_s[furthest]! : null,
    madeUp:
      refusing.length === 0
        ? null
        : refusing.filter((i) => !isOut(i)).length >= MADE_UP_PART * refusing.length,
  };
}

type Six = readonly [Float64Array, Float64Array, Float64Array, Float64Array, Float64Array, Float64Array];

interface Fit {
  /** Of the front, the rear, and what they begin with. */
  readonly parameters: readonly [number, number, number];
  /** Standard uncertainty of each axle's; null of one that hardly changes: it stands in what they begin with. */
  readonly u: readonly [number | null, number | null];
  /** What is not accounted for at a block, N·m. */
  readonly off: (i: number) => number;
  readonly scatter: number;
}

/** Both axles and what they begin with, by what lies on one line; null where too little does. */
function fitted(
  pressed: readonly number[],
  { a, g, f, r }: Readonly<Record<'a' | 'g' | 'f' | 'r', Float64Array>>,
  sigma: readonly [number, number],
): Fit | null {
  if (pressed.length < LEAST_BLOCKS) return null;
  const y = (i: number) => a[i]! - g[i]!;
  const changes = [f, r].map((of, axle) => {
    const mean = pressed.reduce((sum, i) => sum + of[i]!, 0) / pressed.length;
    const spread = Math.sqrt(pressed.reduce((sum, i) => sum + (of[i]! - mean) ** 2, 0) / pressed.length);
    return spread > CHANGES_SIGMA * Math.max(sigma[axle]!, 1);
  }) as [boolean, boolean];
  const columnsAt = (i: number) => [...(changes[0] ? [f[i]!] : []), ...(changes[1] ? [r[i]!] : []), 1];
  let kept = [...pressed];
  let weights = kept.map(() => 1);
  let scatter = 1;
  for (let round = 0; ; round += 1) {
    const rows = kept.map(columnsAt);
    const fit = leastSquares(
      rows[0]!.map((_, column) => rows.map((row) => row[column]!)),
      kept.map(y),
      weights,
    );
    if (!fit) return null;
    const off = (i: number) =>
      y(i) - columnsAt(i).reduce((sum, x, column) => sum + x * fit.parameters[column]!, 0);
    if (round === ROUNDS) {
      const { parameters, covariance } = fit;
      const last = parameters.length - 1;
      const rear = changes[0] ? 1 : 0;
      const of = (place: number, is: boolean) => (is ? parameters[place]! : 0);
      const uOf = (place: number, is: boolean) => (is ? Math.sqrt(covariance[place]![place]!) : null);
      return {
        parameters: [of(0, changes[0]), of(rear, changes[1]), parameters[last]!],
        u: [uOf(0, changes[0]), uOf(rear, changes[1])],
        off,
        scatter,
      };
    }
    scatter = Math.max(1e-6, MAD_TO_SIGMA * median(kept.map((i) => Math.abs(off(i)))));
    // At first what lies far off counts the less the further it lies; then not at all.
    if (round < ROBUST) weights = kept.map((i) => 1 / (scatter * Math.max(scatter, Math.abs(off(i)))));
    else {
      const on = pressed.filter((i) => Math.abs(off(i)) <= OUT_SIGMA * scatter);
      if (on.length >= LEAST_BLOCKS) kept = on;
      weights = kept.map(() => 1 / scatter ** 2);
    }
  }
}

/** Part of the work that was taken back: ∫T_g·v dt over ∫T·v dt. The radius of the tyres goes out. */
function shareOf(
  all: readonly number[],
  asked: Float64Array,
  granted: Float64Array,
  speed: Float64Array,
  sigma: readonly number[],
): Estimate {
  const sum = (of: (i: number) => number) => all.reduce((whole, i) => whole + of(i), 0);
  const whole = sum((i) => asked[i]! * speed[i]!);
  if (!(whole > 0)) return UNTOLD;
  const part = sum((i) => granted[i]! * speed[i]!) / whole;
  const square = sum((i) => speed[i]! ** 2 * (sigma[1]! ** 2 + (part * sigma[0]!) ** 2));
  const bySpeed = sum((i) => ((granted[i]! - part * asked[i]!) * sigma[5]!) ** 2);
  return told(part, Math.sqrt(square + bySpeed) / whole, 'percent');
}

/** What it comes to, in sentences. */
export function blendSays({ left, left_s, madeUp }: BlendLog): Sentence[] {
  const says: Sentence[] = [];
  if (left_s !== null && left.told)
    says.push(
      sentence(
        'At {when} {left} of what was asked is accounted for neither by what was granted nor by the pressures.',
        {
          when: { value: left_s, quantity: 'duration' },
          left: { value: left.value, quantity: 'torque', u: left.u },
        },
      ),
    );
  if (madeUp !== null)
    says.push(
      sentence(
        madeUp
          ? 'What the machine was asked for and did not grant, friction made up.'
          : 'What the machine was asked for and did not grant, friction did not make up.',
      ),
    );
  return says;
}

/** The blend of a stop, where torque asked and granted and the pressure of each axle were logged. */
export function blendIn(trace: Trace): Stretch[] {
  const [asked, granted, front, rear] = ['asked', 'granted', 'front', 'rear'].map((port) =>
    channelAt(trace, port),
  );
  if (asked?.quantity !== 'torque' || granted?.quantity !== 'torque' || !front || !rear) return [];
  const [requested, speed] = ['requested', 'speed'].map((port) => channelAt(trace, port));
  const blend = blendLog(trace, { asked, granted, front, rear, requested, speed });
  return [
    {
      kind: 'blend',
      name: 'Blend of a stop',
      ...at(trace, wholeOf(trace)),
      results: [
        result('blend-share', 'Taken back, part of the stop’s work', 'percent', blend.share),
        result('blend-refused', 'Asked of the machine and not granted, at most', 'torque', blend.refused),
        result('blend-front', 'Friction of the front axle at 10 bar, worked out', 'torque', blend.front),
        result('blend-rear', 'Friction of the rear axle at 10 bar, worked out', 'torque', blend.rear),
        result('blend-left', 'Not accounted for, where it is most', 'torque', blend.left),
      ],
      lines: [],
      points: [],
      supply_Pa: null,
      notes: [
        ...blendSays(blend),
        sentence('Friction is worked out of the pressures and of what was asked: nobody measured it.'),
      ],
    },
  ];
}
