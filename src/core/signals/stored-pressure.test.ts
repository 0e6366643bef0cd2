/** @jest-environment node */
import { printSentence } from '../quantities/sentence';
import { Vessel } from '../fluid/accumulator';
import { filledTo, leaked } from '../fluid/charging';
import { gaussian, seeded } from '../numeric/chance';
import { accumulatorCharge } from './accumulator-charge';
import type { Estimate } from './estimate';
import { gasHold } from './gas-hold';
import { wholeOf, type Trace } from './trace';

const BAR = 1e5;
const CC_PER_MIN = 1e-6 / 60;
const around = { barometer_Pa: 101_325, temperature_K: 293.15 };
const known = { shell_m3: 0.3e-3, preCharge_Pa: 65 * BAR };
const vessel = new Vessel({ ...known, settling_s: 20 }, around);
/** Handbook-models P.1: 6 cc/s to 150 bar. */
const full = filledTo(vessel, vessel.empty, 150 * BAR, () => 6e-6);

/** A gauge read 50 times a second with a noise of 0.1 bar. */
function logged(at: (t_s: number) => number, seconds: number, noise_Pa = 0.1 * BAR): Trace {
  const random = seeded(7);
  const time_s = Float64Array.from({ length: Math.round(seconds * 50) }, (_, i) => i / 50);
  const values = time_s.map((t) => at(t) + noise_Pa * gaussian(random));
  return { time_s, channels: [{ name: 'p', port: 'accumulator', quantity: 'pressure', values }] };
}
const why = (of: Estimate) => (of.told ? null : of.why.text);
const charged = (at: (t_s: number) => number, seconds: number, shell: number | null = known.shell_m3) => {
  const trace = logged(at, seconds);
  return accumulatorCharge(trace, trace.channels[0]!, wholeOf(trace), shell, around);
};
const held = (at: (t_s: number) => number, seconds: number, noise_Pa?: number) => {
  const trace = logged(at, seconds, noise_Pa);
  return gasHold(trace, trace.channels[0]!, wholeOf(trace), known, around, 0.05 * CC_PER_MIN);
};

/** Every pressure of the charge by its time. */
const rising = Array.from({ length: 400 }, (_, i) => {
  const pressure = (65.01 + ((150 - 65.01) * i) / 399) * BAR;
  return [filledTo(vessel, vessel.empty, pressure, () => 6e-6).time_s, pressure] as const;
});
const along = (t: number) => rising.find(([at]) => at >= t)?.[1] ?? 150 * BAR;
const charge = (t: number) =>
  t < 1
    ? 0
    : t < 1 + full.time_s
      ? along(t - 1)
      : vessel.gauge_Pa(vessel.stood(full.charge, t - 1 - full.time_s));

describe('a charge', () => {
  test('from empty: 65 bar flick-up, 22.3 s to 150 bar, 6 cc/s', () => {
    const { flickUp, preCharge, cutOut, chargeTime, pumpFlow } = charged(charge, 40);
    for (const [found, truth, part] of [
      [flickUp, 65 * BAR, 0.02],
      [preCharge, 65 * BAR, 0.02],
      [cutOut, 150 * BAR, 0.005],
      [chargeTime, 22.3, 0.02],
      [pumpFlow, 6e-6, 0.06],
    ] as const) {
      expect(found.told && Math.abs(found.value / truth - 1)).toBeLessThan(part);
    }
  });
  test('in the cold the same gas flicks up lower, and its pre-charge at 20 °C stays', () => {
    const cold = { ...around, temperature_K: 263.15 };
    const trace = logged(charge, 40);
    const found = accumulatorCharge(trace, trace.channels[0]!, wholeOf(trace), null, cold);
    expect(
      found.preCharge.told && found.flickUp.told && found.preCharge.value / found.flickUp.value,
    ).toBeGreaterThan(1.1);
    expect(why(found.pumpFlow)).toMatch(/shell is not known/);
  });
  test('started charged it has no flick-up, and says what would tell', () => {
    const { flickUp, pumpFlow, cutOut } = charged((t) => charge(t + 8), 30);
    expect(why(flickUp)).toMatch(/started charged/);
    expect(!flickUp.told && flickUp.wanted?.text).toMatch(/until the gauge reads zero/);
    expect(why(pumpFlow)).toMatch(/started charged/);
    expect(cutOut.told).toBe(true);
  });
  test('with the gas gone nothing jumps', () => {
    const { flickUp } = charged((t) => Math.min(150 * BAR, Math.max(0, t - 1) * 40 * BAR), 20);
    expect(why(flickUp)).toMatch(/No jump shows/);
  });
  test('a log that ends while the pump runs tells the flick-up, not the cut-out', () => {
    const { flickUp, cutOut, chargeTime } = charged(charge, 15);
    expect(flickUp.told).toBe(true);
    expect(why(cutOut)).toMatch(/not seen to stop/);
    expect(chargeTime.told).toBe(false);
  });
});

/** From the end of the charge on, with a leak of so many cc a minute at 100 bar. */
function holding(ccPerMin: number): (t_s: number) => number {
  const passage = (ccPerMin * CC_PER_MIN) / (100 * BAR);
  let at = full.charge;
  const shown = Array.from({ length: 400 * 5 }, (_, i) => {
    if (i > 0) at = leaked(vessel, at, 1 / 5, (pressure) => passage * pressure);
    return vessel.gauge_Pa(at);
  });
  return (t) => {
    const i = Math.min(shown.length - 2, Math.floor(t * 5));
    return shown[i]! + (shown[i + 1]! - shown[i]!) * (t * 5 - i);
  };
}

describe('a hold on gas', () => {
  test('gas that cools by 30 bar in 80 s with nothing lost is no leak', () => {
    const { leak, cooled_Pa, settled_Pa } = held(holding(0), 200, 0.03 * BAR);
    expect(leak.told && Math.abs(leak.value)).toBeLessThan(leak.told ? 3 * leak.u : 0);
    expect(cooled_Pa / BAR).toBeCloseTo(30.5, 0);
    expect(settled_Pa / BAR).toBeCloseTo(119.5, 0);
  });
  test('3 cc a minute at 100 bar are told as so much at the pressure at the end', () => {
    const { leak, at_Pa } = held(holding(3), 120, 0.03 * BAR);
    const truth = (3 * CC_PER_MIN * at_Pa) / (100 * BAR);
    expect(leak.told && Math.abs(leak.value / truth - 1)).toBeLessThan(0.02);
  });
  test('too short to tell one from the other it says how much longer, and that is enough', () => {
    const short = held(holding(0.3), 40);
    expect(why(short.leak)).toMatch(/too short/);
    // What it says so far it says with its doubt, which is as large as the leak itself.
    const said = short.leak.told ? '' : printSentence(short.leak.why, 'metric');
    const [, leak, doubt] = /so far (-?[\d.]+) ± ([\d.]+) /.exec(said)!.map(Number);
    expect(doubt).toBeGreaterThan(Math.abs(leak!) / 2);
    const longer = short.leak.told ? null : short.leak.wanted?.values?.longer;
    const seconds = longer && typeof longer === 'object' && 'value' in longer ? Number(longer.value) : NaN;
    expect(seconds).toBeGreaterThan(10);
    expect(held(holding(0.3), 40 + 1.3 * seconds).leak.told).toBe(true);
  });
  test.each([
    ['of one reading', () => 120 * BAR, 60, 0, /Every reading is the same/],
    ['of a moment', holding(0), 3, undefined, /too short/],
    ['down to the gas alone', (t: number) => (70 - t / 4) * BAR, 60, undefined, /ran empty/],
    [
      'in which somebody pressed',
      (t: number) => (t < 30 ? 140 : 110) * BAR,
      60,
      undefined,
      /do not go through/,
    ],
  ] as const)('a hold %s tells nothing, and why', (_name, at, seconds, noise, said) => {
    expect(why(held(at, seconds, noise).leak)).toMatch(said);
  });
});
