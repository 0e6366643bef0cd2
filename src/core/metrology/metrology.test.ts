import fc from 'fast-check';
import { adviceFor } from './advice';
import { crossCheck } from './cross-check';
import { accuracyLabel, permissibleError_SI } from './accuracy';
import { calibrationState } from './calibration';
import { gaugeFor, instrumentSchema, type Instrument } from './instrument';
import { normalCdf, normalQuantile } from '../numeric/normal';
import { combinedUncertainty, measured, readingUncertainty_SI, type Measured } from './uncertainty';
import { decisionDistance, judge } from './verdict';
import { slopeSensitivities, yorkFit } from './york';

const BAR = 1e5;
const gauge = (change: Partial<Instrument> = {}): Instrument => ({
  tag: 'G',
  name: '',
  quantity: 'pressure',
  fullScale_Pa: 100 * BAR,
  accuracy: { kind: 'en-837-1', class: '1' },
  step_Pa: 0.5 * BAR,
  usualPort: null,
  tiedTo: null,
  correction: null,
  calibratedOn: null,
  calibrationDue: null,
  ...change,
});
const thresholds = { meets: 0.95, fails: 0.05 };

describe('instruments', () => {
  test('EN 837-1 class 1 of 100 bar is ± 1 bar everywhere', () => {
    expect(permissibleError_SI(gauge(), 5 * BAR)).toBe(1 * BAR);
  });
  test('ASME grade B is 3-2-3 over first quarter, middle half, last quarter', () => {
    const b = gauge({ accuracy: { kind: 'asme-b40.100', grade: 'B' } });
    expect([10, 50, 90].map((p) => permissibleError_SI(b, p * BAR) / BAR)).toEqual([3, 2, 3]);
  });
  test('the middle half of an ASME scale begins at its quarter and ends at its three quarters, both within', () => {
    const b = gauge({ accuracy: { kind: 'asme-b40.100', grade: 'B' } });
    const at = (parts: readonly number[]) => parts.map((p) => permissibleError_SI(b, p * BAR) / BAR);
    expect(at([0, 24.99, 25, 75, 75.01, 100])).toEqual([3, 3, 2, 2, 3, 3]);
  });
  test('percent of reading follows the reading', () => {
    expect(
      permissibleError_SI(gauge({ accuracy: { kind: 'percent-of-reading', percent: 2 } }), 30 * BAR),
    ).toBeCloseTo(0.6 * BAR);
  });
  test('a tied pair: the low gauge until its full scale, then the high one, and none beyond', () => {
    const low = gauge({ tag: 'L', fullScale_Pa: 10 * BAR });
    const pair = [gauge({ tag: 'H' }), low];
    expect([4, 10, 10.5, 120].map((p) => gaugeFor(pair, p * BAR)?.tag)).toEqual(['L', 'L', 'H', undefined]);
  });
  test('a compound gauge’s class is a percentage from its lower end', () => {
    // −1 to 1.5 bar, class 1.6: 1.6 % of 2.5 bar is 0.04 bar, not 0.024.
    const compound = { lowEnd_Pa: -1 * BAR, fullScale_Pa: 1.5 * BAR, step_Pa: 0.02 * BAR };
    const classed = gauge({ ...compound, accuracy: { kind: 'en-837-1', class: '1.6' } });
    expect(permissibleError_SI(classed, 0.5 * BAR) / BAR).toBeCloseTo(0.04, 12);
    // Grade B is 3 % in the outer quarters of the scale and 2 % between: −0.5 bar lies in the first, 0.2 in the middle.
    const graded = gauge({ ...compound, accuracy: { kind: 'asme-b40.100', grade: 'B' } });
    expect([-0.5, 0.2, 1.2].map((p) => permissibleError_SI(graded, p * BAR) / BAR)).toEqual([
      expect.closeTo(0.075, 12),
      expect.closeTo(0.05, 12),
      expect.closeTo(0.075, 12),
    ]);
  });
  test('calibration state and labels', () => {
    expect(calibrationState(gauge({ calibrationDue: '2026-11-22' }), '2026-11-23')).toBe('overdue');
    expect(calibrationState(gauge({ calibrationDue: '2026-11-23' }), '2026-11-23')).toBe('in date');
    expect(calibrationState(gauge(), '2026-11-23')).toBe('no date');
    expect(accuracyLabel({ kind: 'asme-b40.100', grade: '2A' })).toBe('ASME B40.100 grade 2A');
  });
  test('a gauge whose step is its whole scale is refused', () => {
    const result = instrumentSchema.safeParse(gauge({ step_Pa: 100 * BAR }));
    expect(result.error?.issues[0]?.path).toEqual(['step_Pa']);
  });
});

describe('uncertainty', () => {
  test('u² = (MPE/√3)² + (step/√12)² + (s/√n)², by hand', () => {
    // Readings 49, 50, 51 bar: mean 50, s 1. (1/√3)² + (0.5/√12)² + (1/√3)² = 0.33333 + 0.02083 + 0.33333.
    const reading = measured(
      [49, 50, 51].map((p) => p * BAR),
      gauge(),
    );
    expect(reading.value_SI).toBeCloseTo(50 * BAR, 6);
    expect(readingUncertainty_SI(reading) / BAR).toBeCloseTo(Math.sqrt(0.6875), 6);
  });
  test('repeats shrink scatter and never the gauge’s own error', () => {
    const many: Measured = { ...measured([50 * BAR], gauge()), count: 1e6, scatter_SI: BAR };
    expect(readingUncertainty_SI(many) / BAR).toBeCloseTo(Math.sqrt(1 / 3 + 0.25 / 12), 3);
  });
  test('one gauge read twice: its error leaves a difference and doubles a sum', () => {
    const exact = gauge({ step_Pa: 1e-9 });
    const a = measured([50 * BAR], exact);
    const terms = (sign: number) => [
      { sensitivity: 1, measured: a },
      { sensitivity: sign, measured: a },
    ];
    expect(combinedUncertainty(terms(-1))).toBeCloseTo(0, 6);
    expect(combinedUncertainty(terms(1)) / BAR).toBeCloseTo(2 / Math.sqrt(3), 6);
    const other = { sensitivity: 1, measured: { ...a, instrument: { ...exact, tag: 'H' } } };
    expect(combinedUncertainty([terms(1)[0]!, other]) / BAR).toBeCloseTo(Math.sqrt(2 / 3), 6);
  });
});

describe('normal distribution', () => {
  // Abramowitz & Stegun table 26.1.
  test.each([
    [0, 0.5],
    [1, 0.841344746068543],
    [1.96, 0.97500210485178],
    [-3, 0.00134989803163],
    [5, 0.999999713348428],
  ])('Φ(%d)', (z, p) => expect(normalCdf(z)).toBeCloseTo(p, 12));
  test('the quantile undoes it', () => {
    expect(normalQuantile(0.95)).toBeCloseTo(1.644853626951, 9);
    expect(() => normalQuantile(1)).toThrow(RangeError);
  });
});

describe('York fit', () => {
  // Pearson's ten points with York's weights; York et al. 2004, table II.
  const x = [0, 0.9, 1.8, 2.6, 3.3, 4.4, 5.2, 6.1, 6.5, 7.4];
  const y = [5.9, 5.4, 4.4, 4.6, 3.5, 3.7, 2.8, 2.8, 2.4, 1.5];
  const wx = [1000, 1000, 500, 800, 200, 80, 60, 20, 1.8, 1];
  const wy = [1, 1.8, 4, 8, 20, 20, 70, 70, 100, 500];
  const pearson = x.map((xi, i) => ({ x: xi, y: y[i]!, u_x: wx[i]! ** -0.5, u_y: wy[i]! ** -0.5 }));

  test('gives the published figures', () => {
    const fit = yorkFit(pearson)!;
    expect(fit.intercept).toBeCloseTo(5.47991, 5);
    expect(fit.slope).toBeCloseTo(-0.480533, 6);
    expect(fit.u_intercept).toBeCloseTo(0.29497, 5);
    expect(fit.u_slope).toBeCloseTo(0.05799, 4);
    expect(fit.chiSquare).toBeCloseTo(11.8664, 3);
  });
  test('refuses a line through one input', () => {
    expect(yorkFit([pearson[0]!])).toBeNull();
    expect(yorkFit([pearson[0]!, { ...pearson[0]!, y: 3 }])).toBeNull();
  });
  test('slope sensitivities agree with nudged points', () => {
    const even = [1, 2, 4, 7].map((v) => ({ x: v, y: 3.6 * v, u_x: 0.05, u_y: 0.1 }));
    const weights = slopeSensitivities(even, 3.6);
    even.forEach((point, i) => {
      const nudged = even.with(i, { ...point, y: point.y + 1e-4 });
      expect((yorkFit(nudged)!.slope - 3.6) / 1e-4).toBeCloseTo(weights[i]!, 3);
    });
  });
});

describe('cross-check', () => {
  const points = (out: (x: number) => number) =>
    [20, 45, 70, 95, 115].map((x) => ({
      input_Pa: x * BAR,
      output_Pa: out(x) * BAR,
      u_input_Pa: 6e3,
      u_output_Pa: 6e3,
    }));
  const zeros = { input_Pa: 0, output_Pa: 0, u_input_Pa: 6e3, u_output_Pa: 6e3 };
  const allowed = (input_Pa: number) => Math.max(BAR, 0.05 * input_Pa);
  const check = (out: (x: number) => number) => crossCheck(points(out), zeros, allowed);

  test('a slope is the two gauges; an offset is a threshold; both are told apart', () => {
    expect(check((x) => 1.08 * x)).toMatchObject({ kind: 'through', scaleDiffers: true, threshold: false });
    expect(check((x) => x - 1.5)).toMatchObject({ kind: 'through', scaleDiffers: false, threshold: true });
    const both = check((x) => 1.08 * x - 1.5);
    expect(both.kind === 'through' && both.slope).toBeCloseTo(1.08, 9);
    expect(both.kind === 'through' && both.offset_Pa / BAR).toBeCloseTo(-1.5, 9);
  });
  test('output stuck low, or points on no line, are a passage fault', () => {
    expect(check(() => 0.4).kind).toBe('passage-fault');
    expect(check((x) => 0.5 * x).kind).toBe('passage-fault');
    expect(check((x) => Math.min(x, 60)).kind).toBe('passage-fault');
  });
  test('nothing is concluded without vented zeros or with two points', () => {
    expect(
      crossCheck(
        points((x) => x),
        null,
        allowed,
      ),
    ).toEqual({ kind: 'undetermined', why: 'no-zero' });
    expect(crossCheck(points((x) => x).slice(0, 2), zeros, allowed)).toEqual({
      kind: 'undetermined',
      why: 'too-few-points',
    });
  });
});

describe('verdict', () => {
  test('one u inside a limit is too close to call: P = Φ(1)', () => {
    const verdict = judge(1.8, 0.2, { high: 2 }, thresholds);
    expect(verdict.word).toBe('close');
    expect(verdict.pConform).toBeCloseTo(0.8413447, 6);
    expect(verdict.margin).toBeCloseTo(0.2, 12);
  });
  test('decided from 1.645 u on either side', () => {
    expect(judge(2 - 1.65, 1, { high: 2 }, thresholds).word).toBe('meets');
    expect(judge(2 - 1.64, 1, { high: 2 }, thresholds).word).toBe('close');
    expect(judge(2 + 1.65, 1, { high: 2 }, thresholds).word).toBe('fails');
  });
  test('a band narrower than the doubt can never be met', () => {
    fc.assert(
      fc.property(
        fc.double({ min: -5, max: 5, noNaN: true }),
        (value) => judge(value, 1, { low: -0.5, high: 0.5 }, thresholds).word !== 'meets',
      ),
    );
  });
  test('refuses to judge without doubt or without limits', () => {
    expect(() => judge(1, 0, { high: 2 }, thresholds)).toThrow(RangeError);
    expect(() => judge(1, 1, {}, thresholds)).toThrow(RangeError);
  });
});

describe('what would settle it', () => {
  const coarse = gauge({ tag: 'COARSE', accuracy: { kind: 'en-837-1', class: '2.5' } });
  const fine = gauge({ tag: 'FINE', accuracy: { kind: 'en-837-1', class: '0.25' }, step_Pa: 0.1 * BAR });
  const limits = { high: 50 * BAR };
  const callWith = (value_SI: number, inUse: Instrument, shelf: Instrument[]) => ({
    value: value_SI,
    limits,
    terms: [{ sensitivity: 1, measured: measured([value_SI], inUse) }],
    otherU: 0,
    shelf,
    thresholds,
  });

  test('names a better gauge on the shelf', () => {
    expect(adviceFor(callWith(49.5 * BAR, coarse, [coarse, fine]))).toMatchObject({
      kind: 'gauge',
      instrument: 'FINE',
      inPlaceOf: 'COARSE',
    });
  });
  test('says that nothing on this shelf can where the best gauge is in use', () => {
    expect(adviceFor(callWith(49.95 * BAR, fine, [coarse, fine]))).toEqual({ kind: 'nothing' });
  });
  test('counts repeats where scatter is what hides the answer', () => {
    const sharp = gauge({ tag: 'SHARP', accuracy: { kind: 'en-837-1', class: '0.1' }, step_Pa: 0.05 * BAR });
    const scattered = measured(
      [48.2, 49.8, 48.4].map((p) => p * BAR),
      sharp,
    );
    const advice = adviceFor({
      ...callWith(48.8 * BAR, sharp, [sharp]),
      terms: [{ sensitivity: 1, measured: scattered }],
    });
    expect(advice.kind).toBe('repeat');
    expect(advice.kind === 'repeat' && advice.count).toBeGreaterThan(3);
  });
  test('a limit band narrower than any gauge resolves is called that', () => {
    const narrow = {
      ...callWith(50 * BAR, coarse, [coarse, fine]),
      limits: { low: 49.9 * BAR, high: 50.1 * BAR },
    };
    expect(adviceFor(narrow).kind).toBe('band-too-narrow');
  });

  test('as many repeats are advised as it takes with the mean where it is, and not one fewer', () => {
    const sharp = gauge({ tag: 'SHARP', accuracy: { kind: 'en-837-1', class: '0.1' }, step_Pa: 0.05 * BAR });
    const scatter_SI = 0.8 * BAR;
    const taken = { ...measured([0], sharp), count: 3, scatter_SI };
    let advised = 0;
    fc.assert(
      fc.property(fc.double({ min: 47, max: 53, noNaN: true }), (read_bar) => {
        const value = read_bar * BAR;
        const first = { ...taken, value_SI: value };
        const terms = [{ sensitivity: 1, measured: first }];
        const wordAfter = (count: number) =>
          judge(value, readingUncertainty_SI({ ...first, count }), limits, thresholds).word;
        if (wordAfter(3) !== 'close') return true;
        const advice = adviceFor({ value, limits, terms, otherU: 0, shelf: [sharp], thresholds });
        // Ten readings are the most that are worth asking for.
        if (advice.kind !== 'repeat') return wordAfter(10) === 'close';
        advised++;
        return wordAfter(advice.count) !== 'close' && wordAfter(advice.count - 1) === 'close';
      }),
      { numRuns: 500 },
    );
    expect(advised).toBeGreaterThan(20);
  });

  test('followed, it settles every truth at least 2U of the advised method from the limit; else it says so', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 46, max: 54, noNaN: true }),
        fc.double({ min: -2, max: 2, noNaN: true }),
        fc.double({ min: -2, max: 2, noNaN: true }),
        (truth_bar, firstError, secondError) => {
          const u_coarse = readingUncertainty_SI(measured([50 * BAR], coarse));
          const first_Pa = truth_bar * BAR + firstError * u_coarse;
          if (judge(first_Pa, u_coarse, limits, thresholds).word !== 'close') return true;
          const advice = adviceFor(callWith(first_Pa, coarse, [coarse, fine]));
          if (advice.kind !== 'gauge') return advice.kind === 'nothing';
          const second_Pa = truth_bar * BAR + secondError * advice.u;
          const word = judge(second_Pa, advice.u, limits, thresholds).word;
          const farEnough = Math.abs(truth_bar - 50) * BAR >= 4 * advice.u;
          if (farEnough) return word === (truth_bar < 50 ? 'meets' : 'fails');
          return word !== 'close' || adviceFor(callWith(second_Pa, fine, [coarse, fine])).kind === 'nothing';
        },
      ),
      { numRuns: 500 },
    );
    expect(decisionDistance(thresholds)).toBeLessThan(2);
  });
});
