/** @jest-environment node */
import { withFault } from '../contract/family';
import type { PedalValveVehicleProfile } from '../families/pedal-valve-vehicle';
import { FAMILIES, type FamilyKind } from '../families/registry';
import type { Hands } from '../model/motion';
import { Running } from '../model/running';
import { readingOf } from '../model/vectors';
import { benchOf } from './bench';

/** What was made for one place and stands in another: a pedal valve on its machine, the circuits of a car on a bench. */

const BAR = 1e5;
const noise = { noise_steps: 0.3 };
const ROOM = { barometer_Pa: 101_325, temperature_K: 293.15 };
const failing = ({ results }: { readonly results: readonly { id: string; verdict: string }[] }) =>
  results.flatMap(({ id, verdict }) => (verdict === 'fails' ? [id] : []));
const stepsOf = (kind: FamilyKind) => {
  const { contextWith } = benchOf(kind);
  return contextWith().procedure.steps;
};
const ids = (kind: FamilyKind) => stepsOf(kind).map(({ id }) => id);

/** Gauges of a healthy one, or one with a fault, while something is done to it. */
function overTime(kind: FamilyKind, fault?: readonly [string, number]) {
  const family = FAMILIES[kind];
  const parameters = withFault(family, family.healthy(family.typical).values, fault);
  const running = new Running(family.motion!, parameters, { ...ROOM, supply_Pa: 0 }, family.ports.length);
  const places = Object.fromEntries(family.ports.map(({ id }, i) => [id, i]));
  let shown: number[] = [];
  const after = (change: Hands, seconds: number) => {
    running.set(change);
    expect(running.advance(seconds, 0.05, (_t, now) => (shown = [...now])).ok).toBe(true);
  };
  const steady = (reading: string, known: Record<string, number>) =>
    readingOf(
      family,
      parameters,
      { ...family.full(family.typical), ...ROOM, elapsed_s: 0, applications: 0, ...known },
      reading,
    );
  return { after, at: (port: string) => shown[places[port]!]!, steady };
}

describe('a dual pedal valve on its machine', () => {
  const kind = 'pedal-valve-vehicle';
  const { bench, truthWith, faultyTruth } = benchOf(kind);

  test('its test is that of the bench, but that no cock shuts a circuit off', () => {
    const own = ids(kind).filter((id) => id !== 'made-good');
    expect(own).toEqual(ids('pedal-valve').filter((id) => id !== 'cross'));
    expect(JSON.stringify(stepsOf(kind))).not.toMatch(/cock of circuit|pack|Pump off/);
  });
  test('nothing is connected before implements are down and both accumulators were bled', () => {
    const [first] = stepsOf(kind);
    const stops = first!.items.flatMap((item) =>
      item.kind === 'observation' && item.answers.every(({ finds, stops }) => finds === 'good' || stops)
        ? [item.id]
        : [],
    );
    expect(stops).toEqual(['emptied', 'lowered']);
  });
  test.each([1, 2, 3])('a healthy one meets every limit, seed %d', (seed) => {
    const found = bench(truthWith(noise), undefined, seed);
    expect(failing(found)).toEqual([]);
    expect(found.assessment.headline).toBe('Pump and pedal valve met every limit tested');
  });
  test.each([
    ['return-restricted', ['residual', 'drag-hot']],
    ['gas-loss-1', ['pre-charge-1', 'applications-1']],
    ['discs-worn', ['apply-time']],
    ['stop-short', ['maximum']],
  ])('%s fails as on the bench', (fault, wanted) => {
    const found = bench(faultyTruth(fault, 0.7, noise));
    expect(failing(found)).toEqual(expect.arrayContaining(wanted));
    expect(found.assessment).toMatchObject({ call: 'faulty', headline: 'The pedal valve fails' });
  });
  test('a charge that falls short is the pump’s, and not the valve’s', () => {
    const { parameters } = truthWith();
    const place = FAMILIES[kind].parameters.findIndex(({ id }) => id === 'source.charge_Pa');
    const { assessment } = bench(truthWith({ parameters: [...parameters].with(place, 125 * BAR) }));
    expect(assessment).toMatchObject({ call: 'weak-supply', headline: 'The pump fails' });
  });
  test('a pump that charges no further than the lamp contradicts the valve behind it, and is refused', () => {
    const { typical, profile } = FAMILIES[kind];
    const own = typical as PedalValveVehicleProfile;
    const lamp_Pa = own.unit.lamp_Pa;
    const refused = profile.safeParse({ ...own, source: { ...own.source, charge_Pa: lamp_Pa } });
    expect(refused.error?.issues).toEqual([
      expect.objectContaining({
        path: ['source', 'charge_Pa'],
        message: 'Charges to: above the low-pressure lamp of the valve, or it never goes out.',
      }),
    ]);
    expect(profile.safeParse(own).success).toBe(true);
  });
  test('its engine charges both as the pack does, and with the engine off nothing more comes', () => {
    const machine = overTime(kind);
    machine.after({ key: 'engine' }, 200);
    expect(machine.at('supply') / BAR).toBeCloseTo(150, 0);
    machine.after({ treadle_m: 6e-3, press_mPerS: 0.001 }, 8);
    const supply_Pa = machine.at('supply');
    expect(machine.at('output') / machine.steady('output', { travel_m: 6e-3, supply_Pa })).toBeCloseTo(1, 2);
    machine.after({ treadle_m: 0 }, 5);
    machine.after({ key: 'off' }, 1);
    const before = machine.at('supply');
    machine.after({}, 60);
    expect(machine.at('supply')).toBeLessThan(before);
  });
});

describe('two circuits of stored pressure on a bench', () => {
  const kind = 'stored-pressure';
  const { bench, truthWith, faultyTruth, family } = benchOf(kind);
  const onCar = FAMILIES['stored-pressure-vehicle'];

  test('nothing is asked for that takes a body, and no fault or part of one is spoken of', () => {
    const left = ['on-stands', 'rams', 'springs', 'heights', 'rise', 'bumps', 'made-good'];
    expect(ids(kind)).toEqual(ids('stored-pressure-vehicle').filter((id) => !left.includes(id)));
    const said = JSON.stringify([stepsOf(kind), family.parts.map(({ name }) => name)]);
    expect(said.match(/\bbody|engine|Engine|\brams?\b|[Ss]prings|height/g)).toBeNull();
    const missing = (of: (one: typeof onCar) => readonly { readonly id: string }[]) =>
      of(onCar)
        .map(({ id }) => id)
        .filter((id) => !of(family).some((one) => one.id === id));
    expect(missing(({ faults }) => faults)).toEqual([
      'height-leaks',
      'height-high',
      'height-low',
      'restrictor-open',
      'springs-tired',
      'springs-sagged',
    ]);
    expect(missing(({ parts }) => parts)).toEqual(['height-valve', 'restrictor', 'springs', 'ram-line']);
  });
  test.each([1, 2, 3])('of healthy ones nothing fails, seed %d', (seed) =>
    expect(failing(bench(truthWith(noise), undefined, seed))).toEqual([]),
  );
  test('with true gauges every limit is met', () => {
    const found = bench(truthWith());
    expect(found.assessment.headline).toBe('Pump, both circuits and brakes met every limit tested');
  });
  test.each([
    ['gas-loss-front', ['pre-charge', 'lamp-off']],
    ['burst-rear', ['pre-charge-2', 'applications-2']],
    ['block-rear-low', ['cut-in-2', 'cut-out-2']],
    ['valve-worn-front', ['to-lamp']],
    ['lamp-front-high', ['lamp']],
    ['sphere-rear', ['label', 'shell-2']],
  ])('%s fails as on the car', (fault, wanted) =>
    expect(failing(bench(faultyTruth(fault, 0.8, noise)))).toEqual(expect.arrayContaining(wanted)),
  );
  test('charged by the bench it comes to the cut-out when the closed form has it, and lifts nothing', () => {
    const circuits = overTime(kind);
    let full_s = 0;
    for (let t = 0; t < 80 && full_s === 0; t += 0.1) {
      circuits.after({ pump: true }, 0.1);
      if (circuits.at('supply') >= 164.5 * BAR) full_s = t + 0.1;
    }
    expect(Math.abs(full_s / circuits.steady('chargeTime', {}) - 1)).toBeLessThan(0.03);
    // With both charged the pump finds no way: what is stored only cools, and no height is shown.
    circuits.after({}, 60);
    expect(circuits.at('supply')).toBeLessThan(150 * BAR);
    expect(family.ports.map(({ id }) => id)).not.toEqual(expect.arrayContaining(['left']));
    expect(family.motion!.commands.map(({ id }) => id).sort()).toEqual(['pedal_N', 'pump']);
  });
});
