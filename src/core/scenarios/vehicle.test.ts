/** @jest-environment node */
import { standardPressure_Pa } from '../air/atmosphere';
import type { VacuumVehicleProfile } from '../families/vacuum-vehicle';
import type { RunContext } from '../contract/run-context';
import { printSentence } from '../quantities/sentence';
import { benchOf, ELECTRIC_PUMP } from './bench';

const vehicle = benchOf('vacuum-vehicle');
const { bench, contextWith, truthWith, faultyTruth } = vehicle;
const typical = vehicle.profile as VacuumVehicleProfile;
const madeWith = (change: Partial<VacuumVehicleProfile>) =>
  contextWith({ profile: { ...typical, ...change } });
type Made = ReturnType<typeof bench>;

const failing = ({ results }: Made) =>
  results.flatMap(({ id, verdict }) => (verdict === 'fails' ? [id] : [])).sort();
const said = ({ assessment }: Made) => [
  assessment.headline,
  ...assessment.reasons.map((reason) => printSentence(reason, 'mixed')),
];
const at = (altitude_m: number): RunContext<unknown> => {
  const plain = contextWith();
  return contextWith({
    conditions: {
      ...plain.conditions,
      barometer_Pa: standardPressure_Pa(altitude_m),
      supplyKind: 'manifold',
    },
  });
};

describe('a vehicle tested where it stands', () => {
  test('healthy: every part met every limit', () => {
    const made = bench(truthWith());
    expect(failing(made)).toEqual([]);
    expect(said(made)).toEqual(['Supply, booster and brakes met every limit tested']);
  });
  test('a hose with 5 % of its conductance passes every gauge that stands still, and recovery finds it', () => {
    // 0.3·(0.02/0.3)^s is 5 % at s = 0.66.
    const made = bench(faultyTruth('hose-blocked', Math.log(0.05 / 0.3) / Math.log(0.02 / 0.3)));
    expect(failing(made)).toEqual(['recovery']);
    expect(made.byId('recovery').value).toBeGreaterThan(3);
    expect(said(made)[0]).toBe('The vacuum supply fails');
    expect(made.assessment.call).toBe('weak-supply');
  });
  test('a healthy booster on an engine that makes too little: the supply fails, the booster does not', () => {
    const made = bench(faultyTruth('timing', 1));
    expect(failing(made)).toEqual(['supply-at-unit', 'supply-idle', 'supply-need']);
    expect(said(made)[0]).toBe('The vacuum supply fails');
    expect(said(made)).toContain('Within its limits so far: the booster, what it drives.');
  });
  test('the same healthy engine at 1 800 m: as healthy as at the sea, and yet less than the booster needs', () => {
    // 101.3 − 35 = 66.3 kPa at the sea; 81.5 − 35 = 46.5 kPa at 1 800 m, where the need stays 61 kPa.
    const [sea, high] = [bench(truthWith(), at(0)), bench(truthWith(), at(1800))];
    expect(failing(sea)).toEqual([]);
    expect(high.byId('supply-idle').verdict).toBe('meets');
    expect(high.byId('supply-idle').value! / 1e3).toBeCloseTo((standardPressure_Pa(1800) - 35e3) / 1e3, 0);
    expect(failing(high)).toContain('supply-need');
    expect(high.results.filter(({ about, verdict }) => about === 'unit' && verdict === 'fails')).toEqual([]);
    expect(said(high)[0]).toBe('Less vacuum here than the booster needs, from a healthy source');
    expect(said(high).join(' ')).toMatch(/healthy engine at this altitude/);
  });
  test('a tripped shuttle: the booster is cleared, the brakes behind it fail', () => {
    const made = bench(faultyTruth('tripped-shuttle', 1));
    // The pedal drops less, since there is less to fill: that is said of the load, and pressure decides.
    expect(
      made.results
        .filter(({ about, verdict }) => about === 'unit' && verdict === 'fails')
        .map(({ id }) => id),
    ).toEqual(['drop']);
    expect(made.byId('with.2').verdict).toBe('meets');
    expect(failing(made)).toEqual(expect.arrayContaining(['lamp', 'pedal-high', 'rear.4', 'travel']));
    expect(said(made)[0]).toBe('What it drives fails');
  });
  test.each(['seized-front', 'seized-rear'])(
    '%s: pressure at a force is right, so the booster is cleared',
    (id) => {
      const made = bench(faultyTruth(id, 0.5));
      expect(['with.1', 'with.2', 'without.1', 'without.2'].map((one) => made.byId(one).verdict)).toEqual(
        Array<string>(4).fill('meets'),
      );
      expect(failing(made)).toEqual(expect.arrayContaining(['pedal-high', 'travel']));
      expect(said(made)[0]).toBe('What it drives fails');
    },
  );
  test('a torn diaphragm loses nothing at rest and rises under a held foot', () => {
    const made = bench(faultyTruth('torn-diaphragm', 0.5));
    expect(failing(made)).toEqual(['airtight', 'hiss-held']);
    expect(made.byId('decay.loss').verdict).toBe('meets');
    expect(said(made)[0]).toBe('The booster fails');
  });
  test('a check valve that leaks fails uncapped and meets its limit capped', () => {
    const made = bench(faultyTruth('check-leak', 1));
    expect(made.byId('decay.loss').verdict).toBe('fails');
    expect(made.byId('capped.loss').verdict).toBe('meets');
  });
  test('a booster not known: what is far from typical figures is too close to call, and nothing fails by them', () => {
    const typical = vehicle.profile as VacuumVehicleProfile;
    const profile = { ...typical, known: { ...typical.known, unit: false } };
    const made = bench(faultyTruth('wrong-booster', 1), contextWith({ profile }));
    expect(made.byId('effective-area').verdict).toBe('close');
    expect(
      made
        .byId('effective-area')
        .notes.map((note) => printSentence(note, 'mixed'))
        .join(' '),
    ).toMatch(/own are not known, so nothing fails by them/);
    expect(failing(made)).toEqual([]);
  });
  test('split and slope of the rear come from the sweep, whatever pushes it; a valve that opens early is found by it', () => {
    const sound = bench(truthWith());
    expect(sound.byId('split').value! / 1e5).toBeCloseTo(30, 0);
    expect(sound.byId('slope').value).toBeCloseTo(0.4, 1);
    // Half the assist gone moves neither.
    const weak = bench(faultyTruth('wrong-booster', 1));
    expect(weak.byId('split').verdict).not.toBe('fails');
    const early = bench(faultyTruth('proportioning', 1));
    expect(early.byId('split').value! / 1e5).toBeCloseTo(15, 0);
    expect(early.byId('split').verdict).toBe('fails');
    expect(said(early)[0]).toBe('What it drives fails');
  });
  test('a booster whose vacuum is away for a while after a stroke is judged by what it has while it is held', () => {
    // Behind a narrow hose: 19 inHg at rest, 16 inHg while held, and the pressure that a sound booster makes of these.
    const held_Pa = 16 * 3386.389;
    const asHeld = bench(truthWith()).events.map((event) =>
      event.type === 'captured' && event.item === 'with.2.supply' ? { ...event, value_SI: held_Pa } : event,
    );
    const made = vehicle.outcome(contextWith(), asHeld);
    // Beyond runout a newton of assist is worth the same at any vacuum: (Δp − Δp′)·A/A_mc less.
    const full_Pa = bench(truthWith()).byId('with.2').expected!;
    const rest_Pa = bench(truthWith()).byId('supply-at-unit').value!;
    expect((full_Pa - made.byId('with.2').expected!) / 1e5).toBeCloseTo(
      ((rest_Pa - held_Pa) * 0.032) / 3.8708e-4 / 1e5,
      0,
    );
  });
  test('where each rear side has a valve of its own, both are read and compared', () => {
    const context = madeWith({ load: { ...typical.load, valves: 'two' } });
    const sound = bench(truthWith(), context);
    expect(failing(sound)).toEqual([]);
    expect(sound.byId('sides').value).toBeCloseTo(1, 1);
    // 0.5 to 0.8 of the split on one side: at 86 bar in front 24 instead of 52 bar behind.
    const early = bench(faultyTruth('proportioning', 1), context);
    expect(early.byId('sides').verdict).toBe('fails');
    expect(early.byId('other.4').verdict).toBe('meets');
    expect(said(early)[0]).toBe('What it drives fails');
    // With one valve for both there is nothing to compare.
    expect(bench(truthWith()).results.some(({ id }) => id === 'sides')).toBe(false);
  });
  test('an electric pump: read as it stops and starts; one that is told to stop too early is found by it', () => {
    const electric: VacuumVehicleProfile['source'] = {
      ...typical.source,
      ...ELECTRIC_PUMP,
      off_Pa: 72e3,
      // A small pump takes its time: 4 L at half a litre a second.
      limits: { ...typical.source.limits, recovery_s: { value: 20, source: 'Made for a test' } },
    };
    const context = madeWith({ source: electric });
    const parameters = vehicle.family.healthy(context.profile).values;
    const sound = bench(truthWith({ parameters }), context);
    expect(failing(sound)).toEqual([]);
    expect(sound.byId('switch.off').value! / 1e3).toBeCloseTo(72, -1);
    const early = vehicle.family.faults.find(({ id }) => id === 'electric-switch')!.apply(parameters, 1);
    const found = bench(truthWith({ parameters: early }), context);
    expect(failing(found)).toEqual(expect.arrayContaining(['switch.off', 'switch.on']));
    expect(said(found)[0]).toBe('The vacuum supply fails');
    // At 1 800 m it cannot reach its mark: less is expected there, and nothing fails by it.
    const high = bench(truthWith({ parameters }), { ...context, conditions: at(1800).conditions });
    expect(failing(high).filter((id) => id.startsWith('switch'))).toEqual([]);
    expect(high.byId('switch.off').value! / 1e3).toBeLessThan(72);
  });
  test('assist felt where the gauge shows no vacuum is kept, called contradictory, and names what to read again', () => {
    const made = bench(faultyTruth('check-shut', 1, { signs: {} }));
    const felt = made.byId('start.how');
    expect([felt.verdict, felt.seen]).toEqual(['close', 'Dropped and stood']);
    expect(felt.notes.map((note) => printSentence(note, 'mixed')).join(' ')).toMatch(
      /^Contradictory: .*Read the vacuum at the booster again/,
    );
  });
  test('without a pressure gauge its tests are left out, and the rest goes on', () => {
    const { rig } = contextWith();
    const { front: _front, rear: _rear, ...bag } = rig;
    const context = contextWith({ rig: bag, shelf: Object.values(bag).flat() });
    const steps = context.procedure.steps.map(({ id }) => id);
    expect(steps).not.toContain('with');
    expect(steps).toEqual(
      expect.arrayContaining(['rest', 'recovery', 'decay', 'start', 'make-safe', 'made-good']),
    );
    const made = bench(truthWith(), context);
    expect(failing(made)).toEqual([]);
    expect(made.results.map(({ id }) => id)).not.toContain('effective-area');
  });
});
