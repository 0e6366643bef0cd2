/** @jest-environment node */
import { gaussian, seeded } from '../numeric/chance';
import { printSentence } from '../quantities/sentence';
import { between } from '../scenarios/trial';
import { pairIn, pairSays, sensorPair, type SensorPair } from './sensor-pair';
import { channelAt, type Trace } from './trace';

interface Sensor {
  readonly supply_V?: number;
  /** Way of the magnet, as a part of the full one, that is there with nobody pressing. */
  readonly magnet?: number;
  readonly drift_V?: number;
  readonly swapped?: boolean;
  readonly stuck?: boolean;
  readonly noise_V?: number;
  readonly seed?: number;
}

/** Two presses of half the way, three hundred readings: V₁ = V_s·(0.1 + 0.8·x), V₂ = V_s·(0.9 − 0.8·x). */
function logged({
  supply_V = 5,
  magnet = 0,
  drift_V = 0,
  swapped = false,
  stuck = false,
  noise_V = 0.004,
  seed = 1,
}: Sensor = {}): Trace {
  const random = seeded(seed);
  const time_s = Float64Array.from({ length: 300 }, (_, i) => i / 20);
  const way = (t: number) => 0.5 * Math.max(0, Math.sin((2 * Math.PI * t) / 7.5));
  const noisy = (of: (t: number) => number) => time_s.map((t) => of(t) + noise_V * gaussian(random));
  const first = noisy((t) => supply_V * (0.1 + 0.8 * ((stuck ? 0 : way(t)) + magnet)) + drift_V);
  const second = noisy((t) => supply_V * (0.9 - 0.8 * (way(t) + magnet)));
  const channel = (port: string, values: Float64Array) => ({
    name: port,
    port,
    quantity: port === 'pedal' ? ('force' as const) : ('voltage' as const),
    values,
  });
  return {
    time_s,
    channels: [
      channel(
        'pedal',
        noisy((t) => 200 * way(t)),
      ),
      channel(
        'sensor',
        noisy(() => supply_V),
      ),
      channel('track-1', swapped ? second : first),
      channel('track-2', swapped ? first : second),
    ],
  };
}
function pairOf(trace: Trace): SensorPair {
  const [one, two, supply] = ['track-1', 'track-2', 'sensor'].map((port) => channelAt(trace, port)!);
  return sensorPair(trace, [one!, two!], supply!, channelAt(trace, 'pedal'));
}
const valueOf = (of: SensorPair['sum']) => (of.told ? of.value : NaN);
const said = (sensor: Sensor) => pairSays(pairOf(logged(sensor))).map((one) => printSentence(one, 'metric'));

test('a sound pair: 0.5 and 4.5 V at rest, 2 V each way, its sum at the supply, and nothing to say', () => {
  const { sum, rest, moves } = pairOf(logged());
  expect(valueOf(sum)).toBeCloseTo(0, 2);
  expect(rest.map(valueOf)).toEqual([expect.closeTo(0.5, 1), expect.closeTo(4.5, 1)]);
  expect(moves.map(valueOf)).toEqual([expect.closeTo(2, 1), expect.closeTo(-2, 1)]);
  expect(said({})).toEqual([]);
});

test('the sum is blind to a displaced magnet and to swapped tracks: the rest and the way tell them', () => {
  // 0.05 of the way: 0.2 V up and down.
  const displaced = pairOf(logged({ magnet: 0.05 }));
  expect(valueOf(displaced.sum)).toBeCloseTo(0, 2);
  expect(displaced.rest.map(valueOf)).toEqual([expect.closeTo(0.7, 1), expect.closeTo(4.3, 1)]);
  expect(valueOf(pairOf(logged({ swapped: true })).sum)).toBeCloseTo(0, 2);
  expect(said({ swapped: true })).toEqual([expect.stringMatching(/they are swapped/)]);
});

test('a track that drifts shows in the sum, one that is stuck in its way, and in the sum where the other moves', () => {
  expect(valueOf(pairOf(logged({ drift_V: 0.3 })).sum)).toBeCloseTo(0.3, 2);
  expect(said({ stuck: true })).toEqual([
    expect.stringMatching(/^Track 1 stands still while the other moves/),
  ]);
  expect(valueOf(pairOf(logged({ stuck: true })).worst)).toBeLessThan(-1.5);
});

test('the limits of the sum hold the truth in 92 to 99 of a hundred logs, whatever the supply', () => {
  const random = seeded(20_261_130);
  let held = 0;
  for (let seed = 1; seed <= 1000; seed += 1) {
    const drift_V = between(random, -0.5, 0.5);
    const { sum } = pairOf(
      logged({ supply_V: between(random, 4.7, 5.3), drift_V, noise_V: between(random, 0.001, 0.02), seed }),
    );
    if (!sum.told) throw new Error(sum.why.text);
    if (Math.abs(sum.value - drift_V) <= 2 * sum.u) held += 1;
  }
  expect(held / 1000).toBeGreaterThan(0.92);
  expect(held / 1000).toBeLessThan(0.99);
});

test('with no foot logged a log begins with the foot off: swapped tracks are told all the same', () => {
  const trace = logged({ swapped: true });
  const [one, two, supply] = ['track-1', 'track-2', 'sensor'].map((port) => channelAt(trace, port)!);
  const pair = sensorPair(trace, [one!, two!], supply!, undefined);
  expect(pairSays(pair).map((says) => printSentence(says, 'metric'))).toEqual([
    expect.stringMatching(/they are swapped/),
  ]);
  expect(pair.rest.map(valueOf)).toEqual([expect.closeTo(4.5, 1), expect.closeTo(0.5, 1)]);
});

test('with its supply not logged nothing is made up', () => {
  const trace = logged();
  expect(pairIn({ ...trace, channels: trace.channels.filter(({ port }) => port !== 'sensor') })).toEqual([]);
  expect(pairIn(trace)[0]!.results.map(({ id }) => id)).toContain('pair-sum');
});
