import { PLAUSIBLE_SCALE } from '../metrology/cross-check';
import { at, LEAST_PULL, result, suppliedAt, type About, type Stretch, type TraceResult } from './analysis';
import { SLOW_S } from './branch-points';
import { effectiveAreaOf } from './effective-area';
import { told } from './estimate';
import { forceCurve, pistonArea_m2, type ForceCurve } from './force-curve';
import { inSteps } from './in-steps';
import { hysteresisOf, ratioCurve, type RatioCurve } from './ratio-curve';
import type { Segment } from './segments';
import { channelAt, type Channel, type Span, type Trace } from './trace';

/** Two gauges are apart where their scales differ by so many standard uncertainties, and by so much. */
const CERTAIN = 3;
const LEAST_APART = 0.005;

/** Pulls and let-downs of a unit that gives fluid pressure: what each tells of output against input. */
export function pulls(
  trace: Trace,
  input: Channel,
  output: Channel,
  segments: readonly Segment[],
  about: About,
): Stretch[] {
  const moves = inSteps(trace, segments);
  const top = Math.max(...segments.map(({ start, end }) => Math.max(start, end)));
  const stretches: Stretch[] = [];
  let apply: RatioCurve | null = null;
  let bypass: RatioCurve | null = null;
  moves.forEach((segment, i) => {
    if (segment.kind !== 'apply' && segment.kind !== 'release') return;
    const large = Math.abs(segment.end - segment.start) > LEAST_PULL * top;
    if (!large) return;
    const curve = ratioCurve(trace, input, output, segment, segment.kind);
    if (curve.kind === 'unclear') return;
    const base = {
      ...at(trace, segment),
      lines: [{ on: 'input-output', port: 'output', points: curve.corners } as const],
      points: curve.points,
      supply_Pa: suppliedAt(trace, segment),
      notes: curve.notes,
    };
    if (segment.kind === 'release') {
      if (apply && curve.kind === 'assisted')
        stretches.push({
          kind: 'let down',
          name: 'Let down',
          ...base,
          results: [
            result('release-ratio', 'Boost ratio B, coming down', 'ratio', curve.boostRatio),
            result('hysteresis', 'Hysteresis, part of output', 'percent', hysteresisOf(apply, curve)),
          ],
        });
      apply = null;
      return;
    }
    apply = curve.kind === 'assisted' ? curve : null;
    if (curve.kind === 'blocked') {
      stretches.push({ kind: 'blocked', name: 'Blocked passage', ...base, results: [], lines: [] });
    } else if (curve.kind === 'straight') {
      bypass = curve;
      stretches.push({
        kind: 'bypass',
        name: 'Bypass, assist off',
        ...base,
        results: [
          result('pass-slope', 'Output against input, slope', 'ratio', curve.passSlope),
          result('pass-offset', 'Output against input, offset', 'pressure', curve.passOffset),
        ],
      });
    } else {
      // What stands at the top belongs to the pull: there the diaphragm works with all of the supply.
      const after = moves[i + 1];
      const stand = after?.kind === 'hold' ? after.to : segment.to;
      const whole = { from: curve.tooFast ? segment.to : segment.from, to: stand };
      stretches.push({
        kind: 'pull',
        name: 'Pull with assist',
        ...base,
        results: [
          ...curveResults(curve),
          ...(bypass ? correctedRatio(curve, bypass) : []),
          ...areaResult(trace, input, output, whole, about),
        ],
      });
    }
  });
  return stretches;
}

/** Slow applies of a servo that acts on a rod: a quick one shows the way of the air, not the valve's. */
export function forces(
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
  const area = pistonArea_m2(fullForce.value, fullLift.value, supply_Pa, rod);
  return [
    result(
      'effective-area',
      'Effective area',
      'area',
      told(area, (fullForce.u * rod.giving) / supply_Pa, 'area'),
    ),
  ];
}

const curveResults = (curve: RatioCurve): TraceResult[] => [
  result('crack', 'Crack', 'pressure', curve.crack),
  result('jump-in', 'Jump-in J', 'pressure', curve.jumpIn),
  result('boost-ratio', 'Boost ratio B, as a slope', 'ratio', curve.boostRatio),
  result('runout-input', 'Runout input', 'pressure', curve.runoutInput),
  result('runout-output', 'Runout output', 'pressure', curve.runoutOutput),
  result('slope-beyond', 'Slope beyond runout', 'ratio', curve.slopeBeyond),
];

/**
 * B with the scale of the output gauge against the input gauge taken out, where a bypass before it in the same trace
 * shows the two gauges apart: B ÷ slope. Beyond the output that the bypass reached, the scale is taken to go on. Handbook 5.
 */
function correctedRatio({ boostRatio }: RatioCurve, { passSlope }: RatioCurve): TraceResult[] {
  if (!boostRatio.told || !passSlope.told) return [];
  const apart = Math.abs(passSlope.value - 1);
  if (apart <= CERTAIN * passSlope.u || apart < LEAST_APART || apart > PLAUSIBLE_SCALE) return [];
  const ratio = boostRatio.value / passSlope.value;
  const u = ratio * Math.hypot(boostRatio.u / boostRatio.value, passSlope.u / passSlope.value);
  return [
    result(
      'boost-ratio-corrected',
      'Boost ratio B, gauges set by the bypass',
      'ratio',
      told(ratio, u, 'ratio'),
    ),
  ];
}

function areaResult(trace: Trace, input: Channel, output: Channel, span: Span, about: About): TraceResult[] {
  const supply = channelAt(trace, 'supply');
  const activation = channelAt(trace, 'activation');
  const slave = about.unit?.slave;
  if (!supply || !activation || !slave) return [];
  const area = effectiveAreaOf(trace, { input, output, supply, activation }, span, slave);
  return [result('effective-area', 'Effective diaphragm area', 'area', area)];
}
