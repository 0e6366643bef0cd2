import { FAMILIES } from '../src/core/families/registry';
import { gasVolume_m3 } from '../src/core/fluid/nitrogen';
import { AT_ONCE, inputVector } from '../src/core/model/vectors';
import { quantiles, table } from './figures';

/**
 * All steady readings of a state of each kind with an accumulator, beside one inversion of the gas law, alternated. To be run bundled, as
 * bench/steady.ts is.
 */
const BATCH = 200;
const ROUNDS = 40;
const ROOM = { barometer_Pa: 101_325, temperature_K: 293.15 };
const KINDS = [
  'pedal-valve',
  'pedal-valve-vehicle',
  'stored-pressure',
  'motor-pump-booster',
  'motor-pump-vehicle',
  'hydraulic-vehicle',
  'stored-pressure-vehicle',
] as const;

/** A healthy one, each time a little off in another way: nothing that was worked out for one state is right for the next. */
const work = (kind: (typeof KINDS)[number]) => {
  const family = FAMILIES[kind];
  const { values, tolerances } = family.healthy(family.typical);
  const inputs = inputVector(family.inputs, {
    ...AT_ONCE,
    supply_Pa: 150e5,
    front_Pa: 50e5,
    ...ROOM,
    ...family.full(family.typical),
    elapsed_s: 600,
  });
  let made = 0;
  return () => {
    made += 1;
    const unit = values.map((value, i) => value + tolerances[i]! * Math.sin(made * 0.7 + i));
    return family.steady(unit, inputs)[0]!;
  };
};

const WORK: Record<string, (i: number) => number> = {
  'one inversion of the gas law': (i) => gasVolume_m3(280 + (i % 40), 150e5),
  ...Object.fromEntries(KINDS.map((kind) => [`all readings, ${kind}`, work(kind)])),
};

const spent = new Map<string, number[]>(Object.keys(WORK).map((name) => [name, []]));
for (let round = 0; round < ROUNDS; round += 1)
  for (const [name, one] of Object.entries(WORK)) {
    let sum = 0;
    const from = performance.now();
    for (let i = 0; i < BATCH; i += 1) sum += one(i);
    if (Number.isNaN(sum)) throw new Error(`${name}: not a number`);
    spent.get(name)!.push((1000 * (performance.now() - from)) / BATCH);
  }
table('µs', Object.fromEntries([...spent].map(([name, times]) => [name, quantiles(times)])));
