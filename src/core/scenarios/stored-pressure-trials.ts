import { Vessel, type Charge } from '../fluid/accumulator';
import { filledTo, leaked, type Filled } from '../fluid/charging';
import { gaussian, seeded } from '../numeric/chance';
import { accumulatorCharge } from '../signals/accumulator-charge';
import { gasHold } from '../signals/gas-hold';
import { wholeOf, type Trace } from '../signals/trace';
import { BAR } from './traces';
import { between, type Trial } from './trial';

const CC = 1e-6;

/** One gauge on the fluid of an accumulator. */
function gauge(time_s: Float64Array, values: Float64Array): Trace {
  return { time_s, channels: [{ name: 'p', port: 'accumulator', quantity: 'pressure', values }] };
}

/** A vessel of a drawn size in a drawn room, and the noise of its gauge. */
function drawn(random: () => number) {
  const known = {
    shell_m3: between(random, 0.25, 0.4) * 1e-3,
    preCharge_Pa: between(random, 50, 75) * BAR,
  };
  const around = { barometer_Pa: 101_325, temperature_K: between(random, 273, 308) };
  const vessel = new Vessel({ ...known, settling_s: between(random, 10, 30) }, around);
  return { known, around, vessel, noise_Pa: between(random, 0.02, 0.3) * BAR };
}

/** An empty vessel that a pump of a steady flow fills at 50 Hz, and what is told of it. */
export function chargeTrials(seed: number): Trial[] {
  const random = seeded(seed + 110_000);
  const { known, around, vessel, noise_Pa } = drawn(random);
  const flow_m3PerS = between(random, 3.5, 8) * CC;
  const cutOut_Pa = between(random, 135, 170) * BAR;
  const starts_s = between(random, 0.5, 2);
  let filled: Filled = { charge: vessel.empty, time_s: 0 };
  const curve = Array.from({ length: 200 }, (_, i) => {
    const pressure = vessel.flickUp_Pa * 1.0001 + ((cutOut_Pa - vessel.flickUp_Pa) * i) / 199;
    const next = filledTo(vessel, filled.charge, pressure, () => flow_m3PerS);
    filled = { charge: next.charge, time_s: filled.time_s + next.time_s };
    return [filled.time_s, pressure] as const;
  });
  const full = filledTo(vessel, vessel.empty, cutOut_Pa, () => flow_m3PerS);
  const along = (t: number): number => {
    const next = curve.findIndex(([at]) => at >= t);
    if (next <= 0) return curve[Math.max(0, next)]![1];
    const [[t0, p0], [t1, p1]] = [curve[next - 1]!, curve[next]!];
    return p0 + ((p1 - p0) * (t - t0)) / (t1 - t0);
  };
  const at = (t: number): number => {
    const since = t - starts_s;
    if (since < 0) return 0;
    if (since < full.time_s) return along(since);
    return vessel.gauge_Pa(vessel.stood(full.charge, since - full.time_s));
  };
  const time_s = Float64Array.from(
    { length: Math.ceil((starts_s + full.time_s + 20) * 50) },
    (_, i) => i / 50,
  );
  const trace = gauge(
    time_s,
    time_s.map((t) => at(t) + noise_Pa * gaussian(random)),
  );
  const told = accumulatorCharge(trace, trace.channels[0]!, wholeOf(trace), known.shell_m3, around);
  return [
    { name: 'flick-up', truth: vessel.flickUp_Pa, found: told.flickUp },
    { name: 'pre-charge', truth: known.preCharge_Pa, found: told.preCharge },
    { name: 'charge time', truth: full.time_s, found: told.chargeTime },
    { name: 'pump flow', truth: flow_m3PerS, found: told.pumpFlow },
  ];
}

/** Gas that was just pressed and cools, with a leak or none, and the leak that is told. */
export function gasTrials(seed: number, leaks: boolean): Trial[] {
  const random = seeded(seed + 120_000);
  const { known, around, vessel, noise_Pa } = drawn(random);
  const flow_m3PerS = between(random, 4, 8) * CC;
  const { charge } = filledTo(vessel, vessel.empty, between(random, 130, 170) * BAR, () => flow_m3PerS);
  // Up to 10 cc a minute at 100 bar.
  const leak = leaks ? between(random, 0.3, 10) * (CC / 60 / (100 * BAR)) : 0;
  const time_s = Float64Array.from({ length: Math.round(between(random, 30, 240) * 20) }, (_, i) => i / 20);
  let at: Charge = charge;
  const values = time_s.map((_, i) => {
    if (i > 0) at = leaked(vessel, at, 1 / 20, (pressure) => leak * pressure);
    return vessel.gauge_Pa(at) + noise_Pa * gaussian(random);
  });
  const trace = gauge(time_s, values);
  const hold = gasHold(trace, trace.channels[0]!, wholeOf(trace), known, around, (0.05 * CC) / 60);
  return [{ name: leaks ? 'leak past gas' : 'tight past gas', truth: leak * hold.at_Pa, found: hold.leak }];
}
