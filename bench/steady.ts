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

const perState_us = (work: (input: number) => number) => {
  let sum = 0;
  const from = performance.now();
  for (let i = 0; i < BATCH; i++) sum += work(1e5 * (4 + (i % 30)));
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
const pushed = (model: Pick<typeof vehicle, 'inputs'>, pedal_N: number) =>
  inputVector(model.inputs, { ...ROOM, pedal_N, supply_Pa: 64_000, elapsed_s: 60, applications: 0 });

/** Air passes between the sides: two balances are solved for. */
const torn = family.faults.find(({ id }) => id === 'torn-diaphragm')!.apply(values, 0.7);

const at = ({ inputs }: typeof family, input_Pa: number, applications = 0) =>
  inputVector(inputs, { ...ROOM, input_Pa, supply_Pa: 67_728, elapsed_s: 60, applications });

const all: number[] = [];
const ofTorn: number[] = [];
const one: number[] = [];
const ofServo: number[] = [];
const ofReserve: number[] = [];
const ofJoined: number[] = [];
const ofVehicle: number[] = [];
for (let round = 0; round < ROUNDS; round++) {
  all.push(perState_us((input) => family.steady(values, at(family, input))[0]!));
  ofTorn.push(perState_us((input) => family.steady(torn, at(family, input))[0]!));
  one.push(perState_us((input) => bare(input, 67_728)));
  ofServo.push(perState_us((input) => servo.steady(servoValues, at(servo, input / 3))[0]!));
  ofReserve.push(perState_us((input) => servo.steady(servoValues, at(servo, input / 3, 6))[0]!));
  ofJoined.push(perState_us((input) => joined.steady(vehicleValues, pushed(joined, input / 1e4))[0]!));
  ofVehicle.push(perState_us((input) => vehicle.steady(vehicleValues, pushed(vehicle, input / 1e4))[0]!));
}
table('µs', {
  'all 16 steady readings of a state': quantiles(all),
  'the same of a unit with a torn diaphragm': quantiles(ofTorn),
  'bare closed form, output only': quantiles(one),
  'all 13 steady readings of a servo': quantiles(ofServo),
  'the same with six applications from the reserve': quantiles(ofReserve),
  'all 21 steady readings of a supply, a booster and wheel brakes joined': quantiles(ofJoined),
  'the same of the vehicle, joined as it is and as the gauge tells it': quantiles(ofVehicle),
});
