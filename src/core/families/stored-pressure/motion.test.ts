/** @jest-environment node */
import { withFault } from '../../contract/family';
import type { Hands } from '../../model/motion';
import { Running } from '../../model/running';
import { readingOf } from '../../model/vectors';
import {
  storedPressureVehicle as family,
  type StoredPressureVehicleProfile,
} from '../stored-pressure-vehicle';

const BAR = 1e5;
const profile = family.typical as StoredPressureVehicleProfile;
const healthy = family.healthy(profile).values;
const ROOM = { barometer_Pa: 101_325, temperature_K: 293.15 };
const PORT = Object.fromEntries(family.ports.map(({ id }, i) => [id, i]));
const EVERY_S = 0.05;

/** A car in the shop: what its gauges show while something is done. */
function inShop(parameters = healthy) {
  const car = new Running(family.motion!, parameters, { ...ROOM, supply_Pa: 0 }, family.ports.length);
  let shown: number[] = [];
  let now_s = 0;
  const after = (change: Hands, seconds: number, each: (t_s: number) => void = () => {}) => {
    car.set(change);
    const solved = car.advance(seconds, EVERY_S, (t_s, now) => {
      shown = [...now];
      now_s = t_s;
      each(t_s);
    });
    expect(solved.ok).toBe(true);
  };
  const at = (port: string) => shown[PORT[port]!]!;
  return { after, at, bar: (port: string) => at(port) / BAR, now: () => now_s };
}

const full = { ...family.full(profile), elapsed_s: 0 };
const steady = (reading: string, known: Record<string, number> = {}, parameters = healthy) =>
  readingOf(family, parameters, { ...ROOM, ...full, ...known }, reading);
const off = (value: number, closed: number) => Math.abs(value / closed - 1);

describe('charged from empty, and left', () => {
  const car = inShop();
  const reached: Record<string, number> = {};
  const first = (name: string, t_s: number, so: boolean) => {
    if (so && !(name in reached)) reached[name] = t_s;
  };
  let jumped = 0;
  let most = 0;
  test('the gauges jump to the pre-charge; lamp and cut-out come when the closed form has them', () => {
    car.after({ key: 'engine' }, 60, (t_s) => {
      if (t_s < 0.3) jumped = car.bar('supply');
      most = Math.max(most, car.bar('supply'));
      first('lamp', t_s, car.bar('supply') >= 85);
      first('full', t_s, car.bar('supply') >= 164.9);
    });
    expect(jumped / 65).toBeCloseTo(1, 1);
    expect(off(reached.lamp!, steady('lampOff'))).toBeLessThan(0.02);
    expect(off(reached.full!, steady('chargeTime'))).toBeLessThan(0.02);
    expect(most).toBeCloseTo(165, 0);
  });
  test('once both are charged, what the pump has left lifts the body to where the valve keeps it', () => {
    car.after({}, 120);
    expect(car.at('left')).toBeCloseTo(steady('trimmed'), 3);
    expect(off(car.bar('ram'), steady('ram') / BAR)).toBeLessThan(0.03);
  });
  test('engine off it settles, and stands as long to a pressure as the closed form has it', () => {
    car.after({ key: 'off' }, 120);
    const from_Pa = car.at('supply');
    const closed = steady('left', { supply_Pa: from_Pa, elapsed_s: 600 });
    car.after({}, 600);
    expect((from_Pa - car.at('supply')) / (from_Pa - closed)).toBeCloseTo(1, 1);
  });
});

describe('charged', () => {
  const car = inShop();
  test('pedal: front and rear come to what the valves let in, come down to what they let go, and are empty released', () => {
    car.after({ key: 'engine' }, 150);
    for (const force of [80, 110, 140]) {
      car.after({ pedal_N: force }, 3);
      expect(off(car.at('front'), steady('output', { pedal_N: force }))).toBeLessThan(0.01);
      expect(off(car.at('rear'), steady('output2', { pedal_N: force }))).toBeLessThan(0.01);
      expect(off(car.at('travel'), steady('load.travel', { pedal_N: force }))).toBeLessThan(0.01);
    }
    car.after({ pedal_N: 110 }, 3);
    expect(off(car.at('front'), steady('releasing', { pedal_N: 110 }))).toBeLessThan(0.02);
    car.after({ pedal_N: 0 }, 3);
    expect(car.bar('front')).toBeLessThan(0.1);
  });
  test('light applications with the engine off leave what the gas law leaves', () => {
    car.after({ key: 'off' }, 120);
    const supply_Pa = car.at('supply');
    for (let made = 0; made < 20; made += 1) {
      car.after({ pedal_N: 30, press_NPerS: 400 }, 2);
      car.after({ pedal_N: 0, press_NPerS: 2000 }, 3);
    }
    expect(off(car.at('supply'), steady('kept', { supply_Pa, applications: 20 }))).toBeLessThan(0.01);
  });
});

describe('levelling', () => {
  const car = inShop();
  const lift = (mode: 'gear' | 'parked') => {
    car.after({ heightLever: 'down', mode }, 90);
    const low = car.at('left');
    let took = 0;
    car.after({ heightLever: 'linked' }, 90, () => {
      if (car.at('left') < low + 0.019) took += EVERY_S;
    });
    // It has gone down no further than onto its springs: the way that it came up.
    return { took, way: car.at('left') - low };
  };
  test('it lifts as fast as the mode lets it, and faster parked', () => {
    car.after({ key: 'engine' }, 200);
    const [gear, parked] = [lift('gear'), lift('parked')];
    const perMetre = (id: string) => steady(id) / profile.unit.lift_m;
    expect(gear.way).toBeGreaterThan(0.019);
    expect(off(gear.took, 0.019 * perMetre('rise'))).toBeLessThan(0.05);
    expect(off(parked.took, 0.019 * perMetre('riseParked'))).toBeLessThan(0.05);
  });
  test('its rams bled it stands on its springs; a bounce nudges the brakes only past a restrictor that is open', () => {
    car.after({ heightLever: 'bled' }, 60);
    expect(car.at('left')).toBeCloseTo(steady('onSprings'), 4);
    expect(car.at('ram')).toBeCloseTo(0, 0);
    car.after({ bounced: true }, 1);
    expect(car.bar('rear')).toBeLessThan(0.1);
    const open = inShop(withFault(family, healthy, ['restrictor-open', 1]));
    open.after({ bounced: true }, 1);
    expect(open.bar('rear')).toBeGreaterThan(5);
  });
});

test('while a circuit that has lost gas is still charged the other cools, is charged again, and settles higher than by itself', () => {
  const lost = withFault(family, healthy, ['gas-loss-rear', 0.5]);
  const car = inShop(lost);
  car.after({ key: 'engine' }, steady('chargeTime2', {}, lost) + 0.5);
  car.after({ key: 'off' }, 120);
  const closed = steady('settled', {}, lost);
  expect(closed - steady('settled')).toBeGreaterThan(3 * BAR);
  expect(off(car.at('supply'), closed)).toBeLessThan(0.01);
  expect(off(car.at('supply-2'), steady('settled2', {}, lost))).toBeLessThan(0.01);
});

test('a burst diaphragm is full at once and ticks; its other circuit charges as ever', () => {
  const car = inShop(withFault(family, healthy, ['burst-front', 0.5]));
  let turns = 0;
  let [before, rising] = [0, true];
  car.after({ key: 'engine' }, 20, () => {
    const now = car.bar('supply');
    if (now < before - 1 && rising) turns += 1;
    rising = now >= before - 1;
    before = now;
  });
  expect(car.bar('supply')).toBeGreaterThan(130);
  expect(turns).toBeGreaterThan(1);
  expect(off(car.bar('supply-2'), 89)).toBeLessThan(0.15);
});
