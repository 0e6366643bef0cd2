/** @jest-environment node */
import { Vessel } from '../fluid/accumulator';
import { motorPumpFlow_m3PerS } from '../fluid/fluid-pump';
import { HYDRAULIC_FLUIDS, viscosity_PaS } from '../fluid/hydraulic-fluid';
import { gaussian, seeded } from '../numeric/chance';
import type { Estimate } from './estimate';
import { pumpCycles } from './pump-cycles';
import { wholeOf, type Trace } from './trace';

const BAR = 1e5;
const around = { barometer_Pa: 101_325, temperature_K: 293.15 };
/** Handbook-models P.4 and 8.5: 0.30 L, 65 bar, on at 125, off at 160 bar; k/μ 3e−15. */
const known = { shell_m3: 0.3e-3, preCharge_Pa: 65 * BAR };
const vessel = new Vessel({ ...known, settling_s: 20 }, around);
const motor = {
  displacement_m3: 0.13e-6,
  leak_m3: 9e-16,
  efficiency: 0.78,
  friction_Nm: 0.08,
  constant_NmPerA: 0.03,
  motor_Ohm: 0.16,
  wiring_Ohm: 0.02,
};
const cool = viscosity_PaS(HYDRAULIC_FLUIDS.glycol, 293.15);

interface Bench {
  readonly seconds: number;
  readonly leak?: number;
  readonly on_bar?: number;
  readonly off_bar?: number;
  readonly noise_bar?: number;
  /** The log begins so many seconds into it. */
  readonly from_s?: number;
}

/** A pump left to its switch, by steps of a twentieth of a second, logged ten times a second. */
function logged({
  seconds,
  leak = 3e-15,
  on_bar = 125,
  off_bar = 160,
  noise_bar = 0.1,
  from_s = 0,
}: Bench): Trace {
  const random = seeded(11);
  const step_s = 0.05;
  let { gas_m3, temperature_K } = vessel.empty;
  let on = true;
  const [times, values]: [number[], number[]] = [[], []];
  for (let i = 0; i * step_s < seconds; i += 1) {
    const pressure = vessel.gauge_Pa({ gas_m3, temperature_K });
    if (on && pressure >= off_bar * BAR) on = false;
    else if (!on && pressure <= on_bar * BAR) on = true;
    const into = (on ? motorPumpFlow_m3PerS(motor, 13, cool, pressure) : 0) - leak * pressure;
    temperature_K += vessel.warming_KPerS({ gas_m3, temperature_K }, into) * step_s;
    gas_m3 -= into * step_s;
    if (i % 2 === 0 && i * step_s >= from_s) {
      times.push(i * step_s - from_s);
      values.push(pressure + noise_bar * BAR * gaussian(random));
    }
  }
  const channel = {
    name: 'p',
    port: 'accumulator',
    quantity: 'pressure' as const,
    values: Float64Array.from(values),
  };
  return { time_s: Float64Array.from(times), channels: [channel] };
}
const cyclesOf = (bench: Bench, of: typeof known | null = known) => {
  const trace = logged(bench);
  return pumpCycles(trace, trace.channels[0]!, wholeOf(trace), of, around);
};
const why = (of: Estimate) => (of.told ? null : of.why.text);
const near = (of: Estimate, truth: number, part: number) =>
  expect(of.told && Math.abs(of.value / truth - 1)).toBeLessThan(part);

test('left to its switch for an hour: on at 125, off at 160 bar, off 535 s once settled, on 3.4 s; 2.6 cc a minute', () => {
  const { count, cutIn, cutOut, offTime, onTime, duty, leak } = cyclesOf({ seconds: 3600 });
  expect(count).toBeGreaterThanOrEqual(6);
  near(cutIn, 125 * BAR, 0.01);
  near(cutOut, 160 * BAR, 0.01);
  // Worked out by steps of a hundredth of a second: 52, 480, then 535 s; handbook-models 8.5 has about 50, 460, 530.
  near(offTime, 535, 0.02);
  // Ten readings a second and noise of 0.1 bar: each end is known to some tenths.
  near(onTime, 3.45, 0.1);
  expect(onTime.told && Math.abs(onTime.value - 3.45) < 2 * onTime.u).toBe(true);
  near(duty, 3.45 / 538.5, 0.1);
  // k/μ·p at the mean of 142.5 bar.
  near(leak, 3e-15 * 142.5 * BAR, 0.06);
  expect(leak.told && Math.abs(leak.value - 3e-15 * 142.5 * BAR) < 2 * leak.u).toBe(true);
});

test('the first pauses are gas that cools: with fewer than three nothing is told of the leak, and how many there were', () => {
  const { cutIn, cutOut, offTime, leak } = cyclesOf({ seconds: 600 });
  expect([cutIn.told, cutOut.told]).toEqual([true, true]);
  expect(why(offTime)).toMatch(/Only \{count\} pauses/);
  expect(leak.told).toBe(false);
});

test('a log that begins in the middle of a charge tells the same', () => {
  const { cutOut, offTime } = cyclesOf({ seconds: 3600, from_s: 8 });
  near(cutOut, 160 * BAR, 0.01);
  near(offTime, 535, 0.02);
});

test('without a vessel all but the leak is told', () => {
  const { offTime, leak } = cyclesOf({ seconds: 3600 }, null);
  expect(offTime.told).toBe(true);
  expect(why(leak)).toMatch(/vessel is not known/);
});

test('a pump that never stops, one that never ran, and a switch that chatters are said, not guessed', () => {
  expect(why(cyclesOf({ seconds: 300, leak: 6e-13 }).offTime)).toMatch(/does not stop/);
  expect(why(cyclesOf({ seconds: 200, from_s: 90, on_bar: 60, leak: 0 }).offTime)).toMatch(/does not run/);
  expect(why(cyclesOf({ seconds: 120, on_bar: 157, leak: 3e-14, noise_bar: 0.02 }).offTime)).toMatch(
    /chatters/,
  );
});
