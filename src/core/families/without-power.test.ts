import fc from 'fast-check';
import { byWireVehicle, type ByWireVehicleProfile } from './by-wire-vehicle';
import { printSentence } from '../quantities/sentence';
import { hydraulicVehicle, type HydraulicVehicleProfile } from './hydraulic-vehicle';
import { motorBoosterVehicle, type MotorBoosterVehicleProfile } from './motor-booster-vehicle';
import { pedalValveVehicle, type PedalValveVehicleProfile } from './pedal-valve-vehicle';
import { FAMILIES, type FamilyKind } from './registry';
import { storedPressureVehicle, type StoredPressureVehicleProfile } from './stored-pressure-vehicle';
import type { StopFigures } from './stop-figures';

const BAR = 1e5;
const STOP: StopFigures = { mass_kg: 1750, front_NPerBar: 110, rear_NPerBar: 75, contact_Pa: 0.4 * BAR };

const truck = hydraulicVehicle.typical as HydraulicVehicleProfile;
const truckWith = (stop: StopFigures, bore_m = 0.0286) => ({
  ...truck,
  load: { ...truck.load, stop, masterBore_m: bore_m },
});
const car = storedPressureVehicle.typical as StoredPressureVehicleProfile;
const carWith = (unit: Partial<StoredPressureVehicleProfile['unit']> = {}) => ({
  ...car,
  unit: { ...car.unit, ...unit },
  load: { ...car.load, stop: STOP },
});
const figures = (kind: FamilyKind, profile: unknown): Record<string, number> =>
  Object.fromEntries(FAMILIES[kind].withoutPower!(profile)!.figures.map(({ name, value }) => [name, value]));
const said = (kind: FamilyKind, profile: unknown) =>
  FAMILIES[kind].withoutPower!(profile)!
    .plain.map((one) => printSentence(one, 'metric'))
    .join(' ');

const VEHICLES = (Object.keys(FAMILIES) as FamilyKind[]).filter(
  (kind) => FAMILIES[kind].setting === 'vehicle',
);

test.each(VEHICLES)('%s: without its mass nothing is told of a stop, and nothing made up', (kind) => {
  expect(FAMILIES[kind].withoutPower!(FAMILIES[kind].typical)).toBeNull();
});

test.each(['unit', 'load'] as const)('by typical figures of its %s nothing is told of a stop', (part) => {
  const own = carWith();
  const standsIn = { ...own, known: { ...own.known, [part]: false } };
  expect(storedPressureVehicle.withoutPower!(own)).not.toBeNull();
  expect(storedPressureVehicle.withoutPower!(standsIn)).toBeNull();
});

test('by the foot alone, a cart whose booster has no power: its spring and its friction against the foot', () => {
  const [mass_kg, front_NPerBar, rear_NPerBar] = [2100, 240, 120];
  const typical = motorBoosterVehicle.typical as MotorBoosterVehicleProfile;
  const stop = { mass_kg, front_NPerBar, rear_NPerBar, contact_Pa: 0.4 * BAR };
  const profile = { ...typical, load: { ...typical.load, masterBore_m: 0.0238, stop } };
  // 2 100 kg · 2.4418 m/s² = 5 127.8 N over 360 N/bar, and 0.4 bar: 14.64 bar on π/4 · 23.8² mm² = 4.4488 cm², 44.488 N/bar.
  const needed_bar = 5127.8 / 360 + 0.4;
  const alone_N = (needed_bar * 44.488 + 150 + 60) / 3.5;
  const told = figures('electromechanical-vehicle', profile);
  expect(told['Pedal force for it, without power']).toBeCloseTo(alone_N, 0);
  // With power: J + g·(F_in − F_c) = 120 + 5·(3.5·F − 30).
  expect(told['Pedal force for it, with power']).toBeCloseTo(((needed_bar * 44.488 - 120) / 5 + 30) / 3.5, 0);
});

test('by the foot alone, a shuttle whose pedal works the front wheels only once its power has gone', () => {
  const typical = byWireVehicle.typical as ByWireVehicleProfile;
  const stop = { mass_kg: 1600, front_NPerBar: 150, rear_NPerBar: 57, contact_Pa: 0.4 * BAR };
  const told = figures('by-wire-vehicle', { ...typical, load: { ...typical.load, stop } });
  // 1 600 kg · 2.4418 m/s² = 3 906.9 N by the front alone: 26.05 bar and 0.4 on 2.85 cm², and 20 N of spring.
  const front_bar = 3906.9 / 150 + 0.4;
  expect(told['Pedal force for it, without power']).toBeCloseTo((front_bar * 28.5 + 20) / 3.2, 0);
  // Its two front brakes take 0.7 cc and 0.2 cc for 10 bar each.
  const stroke_m = (2 * (0.7e-6 + 2e-13 * front_bar * BAR)) / 2.85e-4;
  expect(told['Pedal travel for it, without power']! / 3.2).toBeCloseTo(stroke_m, 4);
  // With power all four share it, and the pedal asks for it: 0.1 m/s² for each bar of the simulator, near enough.
  const asked_N = told['Pedal force for it, with power']!;
  expect(((3.2 * asked_N - 20) / 28.5) * 0.1).toBeCloseTo(2.44, 0);
  expect(asked_N).toBeLessThan(0.98 * told['Pedal force for it, without power']!);
});

test('by the foot alone, a truck: the stop of the rule, and the metres that 500 N come to', () => {
  const [mass_kg, front_NPerBar, rear_NPerBar] = [3400, 260, 150];
  const profile = truckWith({ mass_kg, front_NPerBar, rear_NPerBar, contact_Pa: 0.4 * BAR });
  const { pedalRatio, spring_N, friction_N } = profile.unit;
  // 3 400 kg · 2.4418 m/s² = 8 302 N over 410 N/bar, and 0.4 bar: 20.65 bar, below the split at 30.
  const needed_bar = 8302.1 / 410 + 0.4;
  // On π/4 · 28.6² mm² = 6.4242 cm²: 64.242 N for a bar, and what spring and friction of the booster take.
  const alone_N = (needed_bar * 64.242 + spring_N + friction_N) / pedalRatio;
  // 500 N: 4 · 500 less spring and friction over 64.242 N/bar; (p − 0.4) · 410/3 400; 10 m and v²/2a.
  const rule_bar = (500 * pedalRatio - spring_N - friction_N) / 64.242;
  const slows_mPerS2 = ((rule_bar - 0.4) * 410) / mass_kg;
  const told = figures('hydraulic-vehicle', profile);
  expect(told['Deceleration that the rule of a failed assist comes to']).toBeCloseTo(2.4418, 4);
  expect(told['Pedal force for it, without power']).toBeCloseTo(alone_N, 0);
  expect(told['Stopping distance with it, from the speed of the rule']).toBeCloseTo(
    10 + (100 / 3.6) ** 2 / (2 * slows_mPerS2),
    0,
  );
  // Rod at 20.65 bar: free travel and (V₀ + c·p)/A, the pedal so many times as far.
  const { freeTravel_m, takeUp_m3, stiffness_m3PerPa } = profile.load;
  expect(told['Pedal travel for it, without power']).toBeCloseTo(
    pedalRatio * (freeTravel_m + (takeUp_m3 + stiffness_m3PerPa * needed_bar * BAR) / 6.4242e-4),
    5,
  );
  expect(told['Pedal force for it, with power']!).toBeLessThan(alone_N / 3);
});

test('the smaller master presses more for the same foot, and its pedal goes further', () => {
  const bores = fc.tuple(
    fc.double({ min: 0.02, max: 0.04, noNaN: true }),
    fc.double({ min: 0.7, max: 0.95, noNaN: true }),
  );
  fc.assert(
    fc.property(bores, ([bore_m, part]) => {
      const [large, small] = [bore_m, part * bore_m].map((bore) =>
        figures('hydraulic-vehicle', truckWith(STOP, bore)),
      );
      const [force, travel] = ['Pedal force for it, without power', 'Pedal travel for it, without power'];
      expect(small![force!]!).toBeLessThan(large![force!]!);
      expect(small![travel!]!).toBeGreaterThan(large![travel!]!);
    }),
    { numRuns: 20 },
  );
});

test('where the rule is missed that is said; where no foot is enough, that, with no metres', () => {
  const heavy = truckWith({ ...STOP, mass_kg: 6000 });
  expect(said('hydraulic-vehicle', heavy)).toMatch(/168 m at most, which is less\.$/);
  const lorry = truckWith({ ...STOP, mass_kg: 60_000 }, 0.05);
  expect(said('hydraulic-vehicle', lorry)).toBe(
    'Without power no foot presses hard enough for a moderate stop (2.44 m/s²).',
  );
});

test('on what is stored, a car: usual effort, and so many stops in each circuit until its lamp', () => {
  const profile = carWith();
  const told = figures('stored-pressure-vehicle', profile);
  // u = 4·F − 40 − 12 N on 0.7 and 1.0 cm²: u/7 and u/10 bar. 110·(u/7 − 0.4) + 75·(u/10 − 0.4) = 1 750 · 2.4418 N: u = 187.3.
  expect(told['Pedal force for it']).toBeCloseTo((187.27 + 52) / 4, 1);
  // Gas from 145 bar down to 85 with no heat on the way: index 1.5 at 60 bar and 1.75 at 150, so 1.65 between; Z 1.02 for 0.994
  // (handbook-models P.1). Brakes: 1.2 cc and 0.4 cc for 10 bar.
  const filled_m3 = (4e-4 * (65 + 1.013) * (1.02 / 0.994)) / (145 + 1.013);
  const given_m3 = filled_m3 * (((145 + 1.013) / (85 + 1.013)) ** (1 / 1.65) - 1);
  const stops = (bar: number) => given_m3 / (1.2e-6 + 4e-13 * bar * BAR);
  const front = told['Such stops until the lamp, front circuit']!;
  expect(Math.abs(front / stops(187.27 / 7) - 1)).toBeLessThan(0.06);
  expect(told['Such stops until the lamp, rear circuit']!).toBeGreaterThan(front);
  expect(said('stored-pressure-vehicle', profile)).toMatch(
    new RegExp(`enough for ${front} such stops, until a lamp lights\\. With nothing stored`),
  );
});

test('a car too heavy for what is stored is told so, with no count of stops', () => {
  const own = carWith();
  const heavy = { ...own, load: { ...own.load, stop: { ...STOP, mass_kg: 60_000 } } };
  expect(said('stored-pressure-vehicle', heavy)).toMatch(
    /^What is stored presses too little for a moderate stop \(2\.44 m\/s²\)\. With nothing stored/,
  );
  expect(figures('stored-pressure-vehicle', heavy)).toEqual({
    'Deceleration of the stop': expect.closeTo(2.44, 2),
  });
});

test('on what is stored, a machine: the travel of its pedal, and so many stops until a lamp', () => {
  const typical = pedalValveVehicle.typical as PedalValveVehicleProfile;
  const stop = { mass_kg: 11_500, front_NPerBar: 900, rear_NPerBar: 700, contact_Pa: 0.4 * BAR };
  const profile = { ...typical, load: { ...typical.load, stop } };
  const told = figures('pedal-valve-vehicle', profile);
  // 11 500 kg · 2.4418 m/s² = 28 081 N; circuit 2 is 25 N/2.01 cm² = 1.244 bar behind: 900·u + 700·(u − 1.244) = 28 081.
  const beyondContact_bar = (28_081 + 700 * 1.2438) / 1600;
  const first_bar = beyondContact_bar + 0.4;
  // x = 1.5 mm + (p·A + 35 + 30)/160 N/mm.
  expect(told['Pedal travel for it']! * 1e3).toBeCloseTo(1.5 + (first_bar * 20.1 + 65) / 160, 3);
  expect(told).not.toHaveProperty('Pedal force for it');
  // Gas from 150 bar down to 100 with no heat on the way, index 1.7 (handbook-models P.1): 85 bar in 0.75 L. 8 cc and 1.5 cc for 10 bar.
  const filled_m3 = (0.75e-3 * (85 + 1.013) * (1.035 / 0.998)) / (150 + 1.013);
  const given_m3 = filled_m3 * (((150 + 1.013) / (100 + 1.013)) ** (1 / 1.7) - 1);
  const stops = given_m3 / (8e-6 + 1.5e-12 * first_bar * BAR);
  expect(Math.abs(told['Such stops until the lamp, circuit 1']! - stops)).toBeLessThanOrEqual(1);
  expect(said('pedal-valve-vehicle', profile)).toMatch(
    /takes 4\.2 mm of the pedal’s travel\. From the least/,
  );
});

test('twice the accumulator has twice the stops, one more or less', () => {
  const of = (shell_m3: number) =>
    figures('stored-pressure-vehicle', carWith({ shell_m3 }))['Such stops until the lamp, front circuit']!;
  expect(Math.abs(of(8e-4) - 2 * of(4e-4))).toBeLessThanOrEqual(1);
});
