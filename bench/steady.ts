import { member as booster } from '../src/core/families/pedal-vacuum/index';
import { FAMILIES } from '../src/core/families/registry';
import type { RemoteVacuumProfile } from '../src/core/families/remote-vacuum/index';
import { member as supply } from '../src/core/families/vacuum-supply/index';
import { member as brakes } from '../src/core/families/wheel-brakes/index';
import { installation } from '../src/core/model/installation';
import { inputVector } from '../src/core/model/vectors';
import { quantiles, table } from './figures';

/**
 * All steady readings of one state, beside the bare closed form of the output alone, alternated. To be run bundled, as the
 * product is: npx esbuild bench/steady.ts --bundle --platform=node | node
 */
const BATCH = 20_000;
const ROUNDS = 60;
const ROOM = { barometer_Pa: 101_325, temperature_K: 293.15 };

const family = FAMILIES['remote-vacuum'];
const profile = family.typical as RemoteVacuumProfile;
const { values } = family.healthy(profile);
const area = (d: number) => (Math.PI / 4) * d * d;
const A_d = area(profile.effectiveDiameter_m);
const A_s = area(profile.slaveBore_m);
const k = 1 - area(profile.rodDiameter_m) / A_s;
const bare = (input: number, supply: number) =>
  Math.max(input, Math.min(profile.boostRatio * input, k * input + (supply * A_d - profile.spring_N) / A_s));

/** Inputs in declared order, made ready before the clock starts: what is timed is the model, not the names. */
const STATES = Array.from({ length: 30 }, (_, i) => 1e5 * (4 + i));
const asked =
  <T>(model: { readonly steady: (values: T, given: number[]) => number[] }, values: T, given: number[][]) =>
  (i: number) =>
    model.steady(values, given[i]!)[0]!;

const perState_us = (work: (state: number) => number) => {
  let sum = 0;
  const from = performance.now();
  for (let i = 0; i < BATCH; i++) sum += work(i % STATES.length);
  const spent_us = (1000 * (performance.now() - from)) / BATCH;
  if (!Number.isFinite(sum)) throw new Error('not finite');
  return spent_us;
};

const servo = FAMILIES['rod-servo'];
const servoValues = servo.healthy(servo.typical).values;

const vehicle = FAMILIES['vacuum-vehicle'];
const vehicleValues = vehicle.healthy(vehicle.typical).values;
/** The three joined once, as a diagnosis or a simulated vehicle asks them; the family asks them joined both ways. */
const joined = installation({ source: supply, unit: booster, load: brakes });
const pushed = ({ inputs }: Pick<typeof vehicle, 'inputs'>) =>
  STATES.map((input_Pa) =>
    inputVector(inputs, {
      ...ROOM,
      pedal_N: input_Pa / 1e4,
      supply_Pa: 64_000,
      elapsed_s: 60,
      applications: 0,
    }),
  );

/** Air passes between the sides: two balances are solved for. */
const torn = family.faults.find(({ id }) => id === 'torn-diaphragm')!.apply(values, 0.7);

const at = ({ inputs }: typeof family, parts: number, applications = 0) =>
  STATES.map((input_Pa) =>
    inputVector(inputs, {
      ...ROOM,
      input_Pa: input_Pa / parts,
      supply_Pa: 67_728,
      elapsed_s: 60,
      applications,
    }),
  );

const WORK = {
  all: asked(family, values, at(family, 1)),
  torn: asked(family, torn, at(family, 1)),
  bare: (i: number) => bare(STATES[i]!, 67_728),
  servo: asked(servo, servoValues, at(servo, 3)),
  reserve: asked(servo, servoValues, at(servo, 3, 6)),
  joined: asked(joined, vehicleValues, pushed(joined)),
  vehicle: asked(vehicle, vehicleValues, pushed(vehicle)),
};

const spent = Object.fromEntries(Object.keys(WORK).map((name) => [name, []])) as unknown as Record<
  keyof typeof WORK,
  number[]
>;
for (let round = 0; round < ROUNDS; round++)
  for (const name of Object.keys(WORK) as (keyof typeof WORK)[]) spent[name].push(perState_us(WORK[name]));
table('µs', {
  'all 16 steady readings of a state': quantiles(spent.all),
  'the same of a unit with a torn diaphragm': quantiles(spent.torn),
  'bare closed form, output only': quantiles(spent.bare),
  'all 13 steady readings of a servo': quantiles(spent.servo),
  'the same with six applications from the reserve': quantiles(spent.reserve),
  'all 21 steady readings of a supply, a booster and wheel brakes joined': quantiles(spent.joined),
  'the same of the vehicle, joined as it is and as the gauge tells it': quantiles(spent.vehicle),
});
