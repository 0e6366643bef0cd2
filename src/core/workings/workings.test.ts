/** @jest-environment node */
import { depressionAfterStroke_Pa, reserveSeries_Pa } from '../air/reserve';
import { findWorking, WORKINGS } from './registry';
import { runWorking } from '../contract/working';

const BAR = 1e5;
const INHG = 3386.389;
const answersOf = (name: string, change: object = {}) => {
  const working = findWorking(name)!;
  const outcome = runWorking(working, { ...(working.example as object), ...change });
  if (!outcome.ok) throw new Error(JSON.stringify(outcome.fields));
  return Object.fromEntries(outcome.answers.map((one) => [one.id, 'value' in one ? one.value : one.text]));
};
const refusals = (name: string, change: object) => {
  const working = findWorking(name)!;
  const outcome = runWorking(working, { ...(working.example as object), ...change });
  return outcome.ok ? {} : outcome.fields;
};

describe('reserve of a suspended unit', () => {
  const unit = { front_m3: 4e-3, rear_m3: 0.3e-3, area_m2: 0.04, stroke_m: 0.015, tank_m3: 0 };
  // Handbook 4: 20 inHg, 4.0 L, 0.3 L, 0.04 m², 15 mm → 14.4, 9.2, 4.4, 0; with a 3 L tank 16.7, 13.6, 10.6, 7.7, 4.9, 2.2.
  test('gives the handbook’s figures, without a tank and with one', () => {
    const inHg = (tank_m3: number) =>
      reserveSeries_Pa(20 * INHG, { ...unit, tank_m3 }, 101_325).map((p) => Math.round((p / INHG) * 10) / 10);
    expect(inHg(0)).toEqual([14.4, 9.2, 4.4, 0]);
    expect(inHg(3e-3).slice(0, 6)).toEqual([16.7, 13.6, 10.6, 7.7, 4.9, 2.2]);
  });
  test('refuses a vacuum deeper than the barometer', () => {
    expect(() => depressionAfterStroke_Pa(120_000, unit, 101_325)).toThrow(RangeError);
  });
});

describe('limits and supplies that cannot be', () => {
  test('an upper limit below the lower one is refused, never a probability below zero', () => {
    expect(refusals('verdict-probability', { low: 4, high: 3 })).toHaveProperty('high');
    expect(answersOf('verdict-probability', { low: 3, high: 3 }).pConform).toBe(0);
  });
  test('a supply that makes nothing at altitude is worth nothing at sea level', () => {
    // 3 inHg at the sea is a manifold at 91 166 Pa; at 3 000 m the air itself has 70 109 Pa.
    expect(answersOf('altitude', { altitude_m: 3000, supply_Pa: 3 * INHG }).seaLevel_Pa).toMatch(/nothing/);
    expect(answersOf('altitude', {}).seaLevel_Pa).toBeCloseTo(18 * INHG, 3);
  });
});

describe('does another assist fit', () => {
  test('its example does; a vehicle at 3 000 m, where a manifold makes less, does not', () => {
    expect(answersOf('bolt-in').verdict).toBe('It fits, by these figures');
    expect(answersOf('bolt-in', { altitude_m: 3000 }).verdict).toMatch(
      /^It does not fit\. Vacuum at the owner’s altitude: missed\.$/,
    );
    expect(answersOf('bolt-in', { altitude_m: 3000 })).not.toHaveProperty('score');
  });
  test('a figure that is left empty is not known yet, and nothing is ranked', () => {
    const answers = answersOf('bolt-in', { masterBore_m: null });
    expect(answers.verdict).toBe('Not known yet. Not known yet: master bore of the candidate.');
    expect(answers.effort).toMatch(/^not known yet: master bore/);
    expect(answers).not.toHaveProperty('score');
  });
  test('its least margin is the least that it tells', () => {
    const { least, ...rest } = answersOf('bolt-in');
    const margins = Object.values(rest).filter((one) => typeof one === 'number');
    expect(Math.min(...margins)).toBe(least);
  });
});

describe('the workings', () => {
  test.each(WORKINGS.map((working) => [working.name, working] as const))(
    '%s answers its own example and draws it in every unit set',
    (_name, working) => {
      const outcome = runWorking(working, working.example);
      expect(outcome.ok && outcome.answers.length).toBeGreaterThan(0);
      for (const set of ['mixed', 'metric', 'imperial'] as const) {
        const svg = working.picture(working.example, set);
        expect(svg).toMatch(/^<svg .*<\/svg>$/);
        expect(svg).not.toMatch(/NaN|Infinity|undefined/);
      }
    },
  );
  test('pedal travel: 4.3·(1.2 mm + (2.5 + 4.5) cc/4.52 cm²) = 71.8 mm at 60 bar; 4 cc of air make it 109.2', () => {
    const { travel_m, airless_m } = answersOf('pedal-travel');
    expect(Number(airless_m) * 1e3).toBeCloseTo(71.8, 1);
    expect(Number(travel_m) * 1e3).toBeCloseTo(109.2, 0);
  });
  test('assist gain: 58.6 bar over 10.6 bar is 5.53 at 150 N and 65 kPa; below the spring there is none', () => {
    expect(Number(answersOf('assist-gain', { pedal_N: 150, supply_Pa: 65e3 }).gain)).toBeCloseTo(5.53, 2);
    // What is taken up and stored of 130 N of spring at 3.6: nothing is made below 36 N.
    expect(answersOf('assist-gain', { pedal_N: 40, supply_Pa: 65e3 }).gain).toBeGreaterThan(1);
  });
  test('effective area: 78.3 and 24.5 bar on 22.2 mm at 65 kPa are 0.0320 m²; without vacuum it is refused', () => {
    // (78.3 − 24.5)·1e5 · π/4·0.0222² / 65 000 = 5.38e6 · 3.871e-4 / 65 000.
    expect(Number(answersOf('effective-area', { vacuum_Pa: 65e3 }).area_m2)).toBeCloseTo(0.03204, 4);
    expect(refusals('effective-area', { vacuum_Pa: 0 })).toHaveProperty('vacuum_Pa');
    expect(refusals('effective-area', { without_Pa: 80 * BAR })).toHaveProperty('without_Pa');
  });
  test('recovery: V·(√(p₀ − p_s) − √(p₁ − p_s))/(C_h·K_T·√p_s) up to 2p_s, ln above it, and inverse in the hose', () => {
    // p_s 36 325, p₀ 49 325, p₁ 42 825 Pa, all below 2p_s: 4e-3·(√13 000 − √6 500)/(2.5e-8·100 046·√36 325).
    const below_s = (4e-3 * (Math.sqrt(13_000) - Math.sqrt(6_500))) / (2.5e-8 * 100_046 * Math.sqrt(36_325));
    const { time_s, narrowed_s } = answersOf('hose-recovery', { source_Pa: 65e3, after_Pa: 52e3 });
    expect(Number(time_s)).toBeCloseTo(below_s, 3);
    expect(Number(narrowed_s) / Number(time_s)).toBeCloseTo(5, 6);
    // From 90 000 to 80 000 Pa into 20 000 it is choked: V·ln(p₀/p₁)/(C_h·K_T).
    const choked = { source_Pa: 81_325, after_Pa: 11_325, part: 21_325 / 81_325 };
    expect(Number(answersOf('hose-recovery', choked).time_s)).toBeCloseTo(
      (4e-3 * Math.log(9 / 8)) / (2.5e-8 * 100_046),
      4,
    );
    expect(refusals('hose-recovery', { after_Pa: 70e3 })).toHaveProperty('after_Pa');
  });
  test('pull-down: ε 0.15 cannot reach 75 kPa above 1 150 m; a leak takes its part', () => {
    // 0.85·p_atm = 75 000: p_atm = 88 235 Pa, which stands at (1 − (88 235/101 325)^(1/5.25588))/2.25577e-5 = 1 151 m.
    const at75 = (change: object = {}) => answersOf('pull-down', { depression_Pa: 75e3, ...change });
    const { reaches_m, deepest_Pa, time_s } = at75();
    expect(Number(reaches_m)).toBeCloseTo((1 - (75 / 0.85 / 101.325) ** (1 / 5.25588)) / 2.25577e-5, -1);
    expect(Number(reaches_m)).toBeCloseTo(1150, -1);
    expect(Number(deepest_Pa)).toBeCloseTo(0.85 * 101_325, 0);
    // (4 L / 0.5 L/s)·ln((101 325 − 15 199)/(26 325 − 15 199)) = 8·ln 7.741.
    expect(Number(time_s)).toBeCloseTo(8 * Math.log(86_126.25 / 11_126.25), 2);
    expect(at75({ altitude_m: 1200 }).time_s).toMatch(/for ever/);
    // C·K_T/S = 5e-10·100 046/5e-4 = 0.100046: (0.85 − 0.100046)·101 325 = 75 989 Pa, so just there; with twice the leak nowhere.
    expect(Number(at75({ leak_m3PerSPa: 5e-10 }).deepest_Pa)).toBeCloseTo(75_989, 0);
    expect(at75({ leak_m3PerSPa: 1.2e-9 }).reaches_m).toMatch(/nowhere/);
  });
  test('parking cable: half of 1 200 N through half a turn at 0.12 is 600·e^(−0.377) = 411.6 N; a seized one loses most', () => {
    const { left_N, right_N, weaker } = answersOf('parking-cable');
    expect(Number(left_N)).toBeCloseTo(411.6, 1);
    expect(Number(weaker)).toBeCloseTo(Number(right_N) / Number(left_N), 9);
    // Three times the friction on the right only would be e^(−0.36·4.712) = 0.183 of the pull.
    expect(Number(answersOf('parking-cable', { friction: 0.36 }).right_N)).toBeCloseTo(600 * 0.18335, 1);
  });
  test('failed assist: 2.44 m/s² from 100 km/h with a rise of 0.4 s, 158.1 + 5.6 m, within the 168 that are asked for', () => {
    const { distance_m, limit_m, pedal_N } = answersOf('failed-assist');
    expect(Number(distance_m)).toBeCloseTo(163.7, 1);
    expect(Number(limit_m)).toBeCloseTo(168, 6);
    // 1 400·2.44/(150 + 57) + 0.4 = 16.9 bar on 3.871 cm² and 130 N, over 3.6.
    expect(Number(pedal_N)).toBeCloseTo((16.9e5 * 3.871e-4 + 130) / 3.6, 0);
  });
  test('axle loads and heat: the front locks first; twice the speed is four times the heat', () => {
    expect(answersOf('axle-loads').axle).toBe('front');
    expect(answersOf('axle-loads', { grip: 1.3, front_NPerBar: 10, rear_NPerBar: 1 }).axle).toMatch(
      /neither/,
    );
    const at = (speed_mPerS: number) => Number(answersOf('stop-heat', { speed_mPerS }).energy_J);
    expect(at(20) / at(10)).toBeCloseTo(4, 9);
  });
  test('runout: the handbook’s unit at 28 bar gives 100.8 bar on 20 inHg and 85.7 on 15', () => {
    expect(Number(answersOf('runout-against-supply', { supply_Pa: 20 * INHG }).output_Pa) / BAR).toBeCloseTo(
      100.8,
      1,
    );
    const weak = answersOf('runout-against-supply');
    expect(Number(weak.output_Pa) / BAR).toBeCloseTo(85.65, 1);
    expect(Number(weak.runoutInput_Pa) / BAR).toBeCloseTo(22.4, 1);
  });
  test('a booster with a motor is asked by its battery: at 12.6 V it gives 2 970 N at 600, with none what the foot leaves', () => {
    // 120 + 5·(600 − 30); without power 600 − 150 − 60.
    const at = { fault: 'none', pedal_N: 600 / 3.5 };
    expect(answersOf('fault-electromechanical', { ...at, volts_V: 12.6 }).output).toBeCloseTo(2970, 3);
    expect(answersOf('fault-electromechanical', { ...at, volts_V: 0 }).output).toBeCloseTo(390, 3);
  });
  /** A diaphragm that is 32.5 % too small: 0.9 to 0.6 of it is left, on a scale of logarithms. */
  const SMALL = Math.log(0.675 / 0.9) / Math.log(0.6 / 0.9);
  test('a fault in a unit: what a smaller diaphragm does to the handbook’s unit, beside the healthy one', () => {
    const asked = { fault: 'undersized-diaphragm', severity: SMALL, input_Pa: 20 * BAR };
    const answers = answersOf('fault-remote-vacuum', { ...asked, supply_Pa: 20 * INHG, elapsed_s: 0 });
    // Handbook 8.1: 53.5 bar out of 20 in, where a healthy unit gives 72; the activation port stays where it was.
    expect((answers.output as number) / BAR).toBeCloseTo(53.5, 1);
    expect((answers['output.healthy'] as number) / BAR).toBeCloseTo(72, 1);
    // What prints the same is not laid side by side.
    expect(answers['activation.healthy']).toBeUndefined();
    const sound = answersOf('fault-rod-servo', { fault: 'none' });
    expect(Object.keys(sound).filter((id) => id.endsWith('.healthy'))).toEqual([]);
  });
  test('cross-check: 8 % of scale, a threshold of 1.5 bar, a blocked passage', () => {
    expect(answersOf('cross-check').slope).toBeCloseTo(1.08, 3);
    const held = [18.5, 43.5, 68.5, 93.5].map((x) => x * BAR);
    expect(answersOf('cross-check', { outputs_Pa: held })).toMatchObject({
      kind: expect.stringMatching(/threshold in the unit/) as string,
      offset_Pa: expect.closeTo(-1.5 * BAR, 0) as number,
    });
    expect(answersOf('cross-check', { outputs_Pa: [5, 5.2, 5.1, 5.3].map((x) => x * BAR) }).kind).toMatch(
      /passage fault/,
    );
  });
  test('verdict: one standard uncertainty inside one limit is Φ(1) = 0.8413; both sides count', () => {
    expect(answersOf('verdict-probability', { value: 1.8, U: 0.4, low: null, high: 2 }).pConform).toBeCloseTo(
      0.8413,
      4,
    );
    // Φ(1) − Φ(−2) = 0.8413 − 0.0228
    expect(answersOf('verdict-probability', { value: 1.8, U: 0.4, low: 1.4, high: 2 }).pConform).toBeCloseTo(
      0.8186,
      4,
    );
  });
  test('altitude: a manifold’s 18 inHg is 12.7 at 1 600 m, a pump’s 14.8; back at sea level it is 18 again', () => {
    const manifold = answersOf('altitude');
    expect(Number(manifold.supply_Pa) / INHG).toBeCloseTo(12.7, 1);
    expect(Number(manifold.seaLevel_Pa) / INHG).toBeCloseTo(18, 6);
    expect(Number(answersOf('altitude', { kind: 'pump' }).supply_Pa) / INHG).toBeCloseTo(14.8, 1);
  });
  test('units: 18 inHg is 60.955 kPa, 0.60955 bar and 8.84 psi', () => {
    // 18 · 3 386.389 Pa = 60 955.0 Pa; ÷ 6 894.757 = 8.84078
    const out = answersOf('unit-conversion');
    expect([Number(out.kPa), Number(out.bar), Number(out.psi)]).toEqual([
      expect.closeTo(60.955, 3),
      expect.closeTo(0.60955, 5),
      expect.closeTo(8.84078, 5),
    ]);
  });
  test('what cannot be is refused at its field with a sentence', () => {
    expect(refusals('reserve', { supply_Pa: 101_000, barometer_Pa: 90_000 })).toHaveProperty('supply_Pa');
    expect(refusals('cross-check', { outputs_Pa: [1e5, 2e5, 3e5] }).outputs_Pa).toMatch(/as many readings/);
    expect(refusals('verdict-probability', { low: null, high: null })).toEqual({
      low: 'Give at least one limit.',
    });
    expect(refusals('unit-conversion', { unit: 'mm' }).unit).toMatch(/not measured in it/);
    expect(refusals('altitude', { altitude_m: 'high' }).altitude_m).toMatch(/number is needed/);
  });
  test('an accumulator at 6 cc/s: 22.3 s, 133.6 cc, 120.1 bar after 80 s with nothing lost; ideal 126.7 settled', () => {
    const { time_s, fluid_m3, held_Pa, settled_Pa, ideal_Pa, range } = answersOf('accumulator-charge');
    expect(Number(time_s)).toBeCloseTo(22.3, 1);
    expect(Number(fluid_m3) * 1e6).toBeCloseTo(133.6, 1);
    expect([held_Pa, settled_Pa, ideal_Pa].map((p) => Number((Number(p) / BAR).toFixed(1)))).toEqual([
      120.1, 119.5, 126.7,
    ]);
    expect(range).toBe('within its range');
    expect(answersOf('accumulator-charge', { preCharge_Pa: 2 * BAR, cutOut_Pa: 200 * BAR }).range).toMatch(
      /extrapolated/,
    );
    expect(refusals('accumulator-charge', { preCharge_Pa: 160 * BAR })).toHaveProperty('cutOut_Pa');
  });
  test('a vessel that fits the thread: what it takes up by Z of the handbook, and solid where its gas stands above', () => {
    // 293.15 K, absolute: Z 0.9940 at 50 bar, 1.0205 at 150, 1.0924 at 250. 0.4 L of 50 bar has at 250 bar
    // 0.4·(50/250)·(1.0924/0.9940) = 87.92 cc of gas, so 312.08 cc of fluid; 0.4 L of 150 bar 256.91 and 143.09 cc.
    const gauge = (abs_bar: number) => (abs_bar - 1.01325) * BAR;
    const place = { belongs_Pa: gauge(50), found_Pa: gauge(150), least_Pa: gauge(50), most_Pa: gauge(250) };
    const { belongs_m3, found_m3, part, from_Pa, gives } = answersOf('vessel-in-place', place);
    expect(Math.abs(Number(belongs_m3) / 312.08e-6 - 1)).toBeLessThan(0.005);
    expect(Math.abs(Number(found_m3) / 143.09e-6 - 1)).toBeLessThan(0.01);
    expect(Number(part)).toBeCloseTo(143.09 / 312.08, 2);
    expect(Number(from_Pa) / BAR).toBeCloseTo(148.99, 1);
    expect(gives).toBe('solid up to its flick-up');
    const solid = answersOf('vessel-in-place', { ...place, most_Pa: gauge(140) });
    expect(Number(solid.found_m3)).toBe(0);
    expect(solid.gives).toBe('solid everywhere');
    expect(answersOf('vessel-in-place', { ...place, found_Pa: gauge(40) }).gives).toBe(
      'giving way everywhere',
    );
    expect(refusals('vessel-in-place', { least_Pa: 170 * BAR })).toHaveProperty('least_Pa');
    expect(refusals('vessel-in-place', { belongs_Pa: 180 * BAR })).toHaveProperty('belongs_Pa');
  });
  test('from 165 bar settled to the lamp at 85: 57 applications of 2.5 cc far apart, 30 at once; of 40 bar gas 35', () => {
    const { slow, fast } = answersOf('applications-from-full');
    expect([slow, fast]).toEqual([57, 30]);
    expect(answersOf('applications-from-full', { preCharge_Pa: 40 * BAR }).slow).toBe(35);
    // A sentence as it stands at the field.
    expect(refusals('applications-from-full', { lamp_Pa: 170 * BAR })).toEqual({
      lamp_Pa: 'The lamp has to light below the pressure of a full vessel.',
    });
    expect(refusals('applications-from-full', { preCharge_Pa: 170 * BAR })).toHaveProperty('preCharge_Pa');
  });
  test('stops in a reserve: by the ideal gas where nitrogen is nearly one, and until the pressure is too little', () => {
    // 1.0133 bar of air. Gas of 5 bar fills 1 L; at 15 bar it has 6.0133/16.0133 = 0.37552 L. 2 000 kg at 2 m/s² take
    // 4 000 N: at 500 N to the bar 8 bar and none to touch. There it has 6.0133/9.0133 = 0.66716 L, 291.6 cc more;
    // at once (16.0133/9.0133)^(1/1.4) · 0.37552 = 0.56632 L, 190.8 cc. A stop takes 10 cc + 8 · 0.5 cc = 14 cc.
    const thin = {
      shell_m3: 1e-3,
      preCharge_Pa: 5 * BAR,
      full_Pa: 15 * BAR,
      mass_kg: 2000,
      deceleration_mPerS2: 2,
      brake_NPerBar: 500,
      contact_Pa: 0,
      fill_m3: 10e-6,
      give_m3PerBar: 0.5e-6,
    };
    const { slow, fast, needed_Pa, stop_m3, left_Pa } = answersOf('stops-in-reserve', thin);
    expect([slow, fast]).toEqual([Math.floor(291.6 / 14), Math.floor(190.8 / 14)]);
    expect(needed_Pa).toBeCloseTo(8 * BAR, 3);
    expect(stop_m3).toBeCloseTo(14e-6, 12);
    // 13 stops are 182 cc: (0.37552/0.55752)^1.4 · 16.0133 − 1.0133 = 8.20 bar; with 1.42, nitrogen's own at 15 bar, 8.12.
    expect(Number(left_Pa) / BAR).toBeCloseTo(8.12, 1);
    // Where the gas alone presses enough, all the fluid is used: 624.5 cc.
    expect(answersOf('stops-in-reserve', { ...thin, mass_kg: 1000 }).slow).toBe(Math.floor(624.5 / 12));
    expect(refusals('stops-in-reserve', { ...thin, mass_kg: 4000 })).toEqual({
      full_Pa: 'That deceleration needs more pressure than is stored.',
    });
    expect(refusals('stops-in-reserve', { ...thin, fill_m3: 0, give_m3PerBar: 0 })).toHaveProperty('fill_m3');
  });
  test('time to lamp: 1.7 h at 18 °C, 2.8 at 0, 1.0 at 40; half as much clearance again is 3.4 times as fast', () => {
    // Two lands of 2.30e−17 m³ are the 4.6e−17 of handbook-models 8.6.
    const hours = (change: object = {}) => Number(answersOf('lamp-time', change).time_s) / 3600;
    expect(Math.abs(hours() - 1.7)).toBeLessThan(0.06);
    expect(Math.abs(hours({ oil_K: 273.15 }) - 2.8)).toBeLessThan(0.06);
    expect(Math.abs(hours({ oil_K: 313.15 }) - 1)).toBeLessThan(0.06);
    expect(hours() / hours({ clearance_m: 6e-6 })).toBeCloseTo(1.5 ** 3, 6);
    expect(refusals('lamp-time', { lamp_Pa: 140 * BAR })).toHaveProperty('lamp_Pa');
    expect(refusals('lamp-time', { preCharge_Pa: 140 * BAR })).toHaveProperty('preCharge_Pa');
  });
  test('a motor pump at 150 bar: 6.18 cc/s and 15.9 A; worn and warm it gives out at 128 bar', () => {
    const { flow_m3PerS, current_A } = answersOf('motor-pump');
    expect(Math.abs(Number(flow_m3PerS) * 1e6 - 6.18)).toBeLessThan(0.06);
    expect(Math.abs(Number(current_A) - 15.9)).toBeLessThan(0.16);
    const worn = answersOf('motor-pump', { leak_m3PerS: 3 * 5.4e-7, fluid_K: 333.15 });
    expect(Math.abs(Number(worn.ceiling_Pa) / BAR - 128)).toBeLessThan(1.3);
  });
  test('a motor’s feed of 20 mΩ at 12.6 V: 50 A held are 12.22 V and 19.1 A in the feed; of 120 mΩ at 12 V no more than 45.9 A', () => {
    // The wire is 2·2.8·1.724e-8/12e-6 = 8.05 mΩ; with 12 mΩ of the rest, 20.05.
    const { feed_Ohm, terminals_V, drop_V, feed_A, most_A } = answersOf('feed-drop');
    expect(Number(feed_Ohm)).toBeCloseTo(0.02005, 5);
    expect(Number(terminals_V)).toBeCloseTo(12.22, 2);
    expect(Number(terminals_V) + Number(drop_V)).toBeCloseTo(12.6, 9);
    expect(Number(feed_A)).toBeCloseTo(19.1, 1);
    expect(most_A).toBe(60);
    const poor = { battery_V: 12, rest_Ohm: 0.12 - 0.00805 };
    expect(Number(answersOf('feed-drop', poor).most_A)).toBeCloseTo(45.9, 1);
    expect(answersOf('feed-drop', poor).holds).toMatch(/switches off/);
    expect(refusals('feed-drop', { cutOff_V: 6 })).toHaveProperty('cutOff_V');
    expect(refusals('feed-drop', { current_A: 61 })).toHaveProperty('current_A');
  });
  test('a store of 20 F: two stops from 13.5 to 9.6 V; no wait stated, 15 minutes or its own 993 s', () => {
    // 50 Ω · 20 F · ln(13.5/5) = 1 000 s · 0.9933.
    const { wait_s, stops, worn_stops } = answersOf('capacitor-store');
    expect(Number(wait_s)).toBeCloseTo(993.3, 1);
    expect([stops, worn_stops]).toEqual([2, 1]);
    expect(answersOf('capacitor-store', { bleed_Ohm: 10 }).wait_s).toBe(900);
    expect(answersOf('capacitor-store', { bleed_Ohm: 10, stated_s: 1200 }).wait_s).toBe(1200);
    // 30 mΩ of its own at 40 A: 1.2 V, so that it is used up at 10.8.
    expect(answersOf('capacitor-store', { own_Ohm: 0.03 }).stops).toBe(1);
    expect(refusals('capacitor-store', { capacitance_F: 0 })).toHaveProperty('capacitance_F');
    expect(refusals('capacitor-store', { least_V: 14 })).toHaveProperty('least_V');
  });
  test('a pedal valve at 6 mm: 32.6 bar pressed, 35.6 let go; ζ 0.97 at 40 °C, and in the cold it is not judged', () => {
    const { up_Pa, down_Pa, damping, verdict } = answersOf('metering-valve');
    expect([up_Pa, down_Pa].map((p) => Number((Number(p) / BAR).toFixed(1)))).toEqual([32.6, 35.6]);
    expect(Number(damping)).toBeCloseTo(0.97, 2);
    expect(verdict).toBe('it settles');
    expect(answersOf('metering-valve', { drilling_m: 0.25e-3 }).verdict).toMatch(/passes too little/);
    expect(answersOf('metering-valve', { oil_K: 253.15 }).verdict).toMatch(/judge it from 30/);
    expect(refusals('metering-valve', { tank_Pa: 10 * BAR, most_Pa: 5 * BAR })).toHaveProperty('tank_Pa');
  });
});

describe('brakes with a motor, and by wire', () => {
  test('a booster with a motor: 2 970 N held by 40.8 A, 11.9 bar with the power off', () => {
    const { output_N, current_A, runout_N, unpowered_Pa } = answersOf('motor-booster') as Record<
      string,
      number
    >;
    expect(output_N).toBe(2970);
    expect(current_A).toBeCloseTo(40.83, 2);
    expect(runout_N).toBeCloseTo(887.5, 6);
    // (600 − 80 − 60) N on 3.88 cm².
    expect(unpowered_Pa! / BAR).toBeCloseTo(11.86, 2);
    expect(refusals('motor-booster', { cutOff_V: 5 })).toHaveProperty('cutOff_V');
  });
  test('a pedal sensor: the example is displaced, which the sum does not show; more than its supply is refused', () => {
    const { speaks, rest1_V_m } = answersOf('sensor-table');
    expect(speaks).toMatch(/^At rest they do not read zero/);
    // 0.62 V of 4.96: (0.125 − 0.1)/0.8 of 40 mm.
    expect(rest1_V_m).toBeCloseTo(1.25e-3, 9);
    expect(answersOf('sensor-table', { rest1_V: 0.496, rest2_V: 4.464 }).speaks).toBe('Nothing.');
    expect(refusals('sensor-table', { pressed1_V: 5.2 })).toEqual({
      pressed1_V: '5.2 V cannot stand on a supply of 4.96 V.',
    });
  });
  test('a blended stop: 1 240 N·m, 620 regenerated, 5.7 and 21.5 bar', () => {
    const { total_Nm, granted_Nm, front_Pa, rear_Pa } = answersOf('blended-stop') as Record<string, number>;
    expect([total_Nm, granted_Nm]).toEqual([1240, 620]);
    expect([front_Pa! / BAR, rear_Pa! / BAR].map((bar) => bar.toFixed(1))).toEqual(['5.7', '21.5']);
    expect(answersOf('blended-stop', { most_Pa: 15 * BAR })).toHaveProperty('short_Nm');
    expect(refusals('blended-stop', { fadesTo_mPerS: 4 })).toHaveProperty('fadesTo_mPerS');
  });
  test('power gone: 58.9 bar by force on 20 mm, on 16 mm the pedal goes to its stop', () => {
    expect((answersOf('fallback-reach').at_Pa as number) / BAR).toBeCloseTo(58.9, 1);
    expect(answersOf('fallback-reach', { bore_m: 0.016 }).ends).toMatch(/stroke/);
  });
  test('a wheel has its pressure in 30 ms; 50 ms of delay and 38 of rise are some 1.9 m at 100 km/h', () => {
    const { rise, added_m } = answersOf('pressure-rise');
    expect(rise).toBe('30 ms');
    // 27.78·(0.05 + 0.038/2), less 8·0.038²/24.
    expect(added_m).toBeCloseTo(1.91, 1);
    expect(refusals('pressure-rise', { accumulator_Pa: 70 * BAR })).toHaveProperty('accumulator_Pa');
  });
});
