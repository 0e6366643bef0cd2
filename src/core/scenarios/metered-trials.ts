import { meteredPressure_Pa } from '../fluid/metering-valve';
import { gaussian, seeded } from '../numeric/chance';
import { sweep } from '../signals/sweep';
import { swing } from '../signals/swing';
import { wholeOf, type Trace } from '../signals/trace';
import { BAR } from './traces';
import { between, type Trial } from './trial';

const RATE_HZ = 100;

const channel = (port: string, quantity: 'travel' | 'pressure', values: Float64Array) => ({
  name: port,
  port,
  quantity,
  values,
});

/** A drawn valve with two circuits, pressed slowly and let go, by what it lets through at each travel. */
export function sweepTrials(seed: number): Trial[] {
  const random = seeded(seed + 130_000);
  const valve = {
    spring_NPerM: between(random, 100e3, 240e3),
    starts_m: between(random, 1e-3, 2e-3),
    preload_N: between(random, 20, 50),
    friction_N: between(random, 10, 60),
    area_m2: 2.01e-4,
  };
  const lag_N = between(random, 0, 60);
  const [noise_Pa, noise_m] = [between(random, 0.02, 0.3) * BAR, between(random, 0, 3e-5)];
  const press_s = between(random, 8, 20);
  const time_s = Float64Array.from({ length: Math.round(2 * press_s * RATE_HZ) }, (_, i) => i / RATE_HZ);
  const travel = time_s.map((t) => (t < press_s ? t : 2 * press_s - t) * (14e-3 / press_s));
  const of = (behind_N: number) =>
    travel.map((x, i) => {
      const way = time_s[i]! < press_s ? 'up' : 'down';
      const one = { ...valve, preload_N: valve.preload_N + behind_N };
      return meteredPressure_Pa(one, x, way, 0, 150 * BAR) + noise_Pa * gaussian(random);
    });
  const trace: Trace = {
    time_s,
    channels: [
      channel(
        'treadle',
        'travel',
        travel.map((x) => x + noise_m * gaussian(random)),
      ),
      channel('output', 'pressure', of(0)),
      channel('output-2', 'pressure', of(lag_N)),
    ],
  };
  const [treadle, ...circuits] = trace.channels;
  const found = sweep(trace, treadle!, circuits, wholeOf(trace));
  return [
    { name: 'sweep slope', truth: valve.spring_NPerM / valve.area_m2, found: found.slopes[0]! },
    { name: 'sweep hysteresis', truth: (2 * valve.friction_N) / valve.area_m2, found: found.hysteresis[0]! },
    { name: 'circuit match', truth: -lag_N / valve.area_m2, found: found.match },
  ];
}

/** A level that was set at once and swings, drawn: 1 − e^(−ζω₀t)·(cos ω_d t + ζ/√(1 − ζ²)·sin ω_d t). */
export function swingTrials(seed: number): Trial[] {
  const random = seeded(seed + 140_000);
  const [ratio, natural_Hz] = [between(random, 0.02, 0.12), between(random, 1, 4)];
  const noise_bar = between(random, 0.05, 0.35);
  const turns = 2 * Math.PI * natural_Hz;
  const kept = Math.sqrt(1 - ratio ** 2);
  const time_s = Float64Array.from({ length: 6 * 200 }, (_, i) => i / 200);
  const values = time_s.map((t) => {
    const wave = Math.cos(turns * kept * t) + (ratio / kept) * Math.sin(turns * kept * t);
    return (40 - 40 * Math.exp(-ratio * turns * t) * wave + noise_bar * gaussian(random)) * BAR;
  });
  const trace: Trace = { time_s, channels: [channel('output', 'pressure', values)] };
  const { frequency, damping } = swing(trace, trace.channels[0]!, wholeOf(trace));
  return [
    { name: 'swing frequency', truth: natural_Hz * kept, found: frequency },
    { name: 'swing damping', truth: ratio, found: damping },
  ];
}
