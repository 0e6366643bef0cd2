/** @jest-environment node */
import { benchOf, RIGS } from '../scenarios/bench';
import { answerDiagnosis } from '../workings/open-diagnosis';
import type { Reply } from './question';

const { family, profile } = benchOf('vacuum-vehicle');
const gauge = RIGS['vacuum-vehicle'].clock[0]!;
const values = family.healthy(profile).values;
const blocked = family.faults.find(({ id }) => id === 'hose-blocked')!.apply(values, 0.8);
const recovery = (parameters: readonly number[]) => {
  const view = family.views.at(-1)!;
  const known: Record<string, number> = { barometer_Pa: 101_325, temperature_K: 293.15 };
  const inputs = view.inputs.map(({ id }) => known[id] ?? 0);
  return view.steady(parameters, inputs)[family.readings.findIndex(({ id }) => id === 'recovery')]!;
};
const asked = (change: object = {}) => ({ kind: 'vacuum-vehicle', rig: RIGS['vacuum-vehicle'], ...change });
const reading = (change: object = {}) => ({
  id: 'first',
  reading: 'recovery',
  value: recovery(blocked),
  instrument: gauge,
  inputs: { pedal_N: 0 },
  ...change,
});

function answered(change: object): Reply {
  const found = answerDiagnosis(asked(change));
  if (!found.ok) throw new Error(JSON.stringify(found.issues));
  return found.reply;
}
const refusedFor = (change: object) => {
  const found = answerDiagnosis(asked(change));
  return found.ok ? [] : found.issues.map(({ message }) => message);
};

describe('a question from another program', () => {
  test('nothing seen yet: what was believed beforehand, and tests that can be carried out', () => {
    const { causes, next, standing } = answered({});
    expect(causes[0]).toMatchObject({ id: 'healthy', chance: expect.closeTo(0.1, 6) });
    expect(standing).toEqual({ is: 'open' });
    const first = next.find(({ step }) => step === 'recovery')!;
    expect(first.steps.map(({ step }) => step)).toEqual(['cautions', 'zeros', 'rest', 'recovery']);
    expect(first.steps.at(-2)).toMatchObject({ step: 'rest', sources: { engine: 'idle' } });
    expect(first.steps.at(-1)!.readings).toContainEqual({
      item: 'recovery.time',
      reading: 'recovery',
      port: 'clock',
      inputs: expect.objectContaining({ barometer_Pa: 101_325, pedal_N: 0 }),
    });
    expect(first.minutes).toBeGreaterThan(0);
  });
  test('a slow recovery by what it was read with, or by how far it may be out: the hose', () => {
    for (const by of [{}, { instrument: undefined, u: 0.3 }]) {
      const { repairs, causes } = answered({ readings: [reading(by)] });
      expect(Object.entries(repairs).sort(([, a], [, b]) => b - a)[0]![0]).toBe('hose');
      expect(causes[0]!.id).toBe('hose-blocked');
      expect(causes[0]!.weighs['first']).toBeGreaterThan(1);
    }
  });
  test('a gauge that was read in a step which is done stands there: it is not fitted again', () => {
    const minutes = (done: string[]) => answered({ done }).next.find(({ step }) => step === 'apply')!;
    const [before, after] = [minutes([]), minutes(['cautions', 'zeros'])];
    expect(before.setUp).toContain('Gauge on vacuum at the booster');
    expect(after.setUp).not.toContain('Gauge on vacuum at the booster');
    expect(after.minutes).toBeLessThan(before.minutes);
  });
  test('a gauge is one gauge, in what was read and in what would be', () => {
    // Read once, it has shown its error: with a gauge of great error the same reading again tells less than with another one.
    const poor = { ...gauge, accuracy: { kind: 'percent-of-span', percent: 10 } };
    const gain = (rig: object, by: object) =>
      answered({
        rig: { ...RIGS['vacuum-vehicle'], ...rig },
        readings: [reading({ instrument: by })],
        done: ['cautions', 'zeros', 'rest'],
      }).next.find(({ step }) => step === 'recovery')!.bits;
    expect(gain({ clock: [poor] }, poor)).toBeLessThan(gain({ clock: [{ ...poor, tag: 'SW-9' }] }, poor));
  });
  test('a test that is done is offered no more', () => {
    const { next } = answered({ done: ['recovery'] });
    expect(next.map(({ step }) => step)).not.toContain('recovery');
  });
  test('the same look twice counts once, and one that could not tell not at all', () => {
    const look = { item: 'hose', answer: 'flat' };
    const item = family
      .procedure(profile, RIGS['vacuum-vehicle'])
      .steps.flatMap(({ items }) => items)
      .find(({ id }) => id === 'hose')!;
    const answers = item.kind === 'observation' ? item.answers : [];
    const bad = { ...look, answer: answers.find(({ finds }) => finds === 'bad')!.id };
    const unknown = { ...look, answer: answers.find(({ finds }) => finds === 'unknown')!.id };
    const [once, twice, none] = [[bad], [bad, bad, bad], [unknown]].map((looks) => answered({ looks }));
    expect(twice!.causes).toEqual(once!.causes);
    expect(none!.causes).toEqual(answered({}).causes);
    expect(once!.repairs['hose']).toBeGreaterThan(none!.repairs['hose']!);
  });
  test('a repair: what was seen before it is held against what is seen behind it', () => {
    const before = { parts: ['hose'], readings: [reading(), reading({ id: 'again' })] };
    const sound = answered({ readings: [reading({ value: recovery(values) })], repaired: before });
    expect(sound.repaired).toMatchObject({ fault: 'hose-blocked' });
    expect(sound.repaired!.before).toBeGreaterThan(0.4);
    expect(sound.repaired!.after).toBeLessThan(0.05);
    const line = sound.repaired!.parameters.find(({ quantity }) => quantity === 'conductance')!;
    expect(line.after).toBeGreaterThan(line.before);
    // With nothing said of a repair the same reading leaves more doubt.
    const alone = answered({ readings: [reading({ value: recovery(values) })] });
    expect(sound.repairs['healthy']).toBeGreaterThan(alone.repairs['healthy']!);
    expect(alone.repaired).toBeUndefined();
    const worse = answered({ readings: [reading()], repaired: before });
    expect(worse.repaired!.is).toBe('not-healthy');
    expect(refusedFor({ repaired: { parts: ['gremlin'] } })).toEqual(['There is no part “gremlin”.']);
    expect(refusedFor({ repaired: { ...before, readings: [reading({ reading: 'colour' })] } })).toEqual([
      '“first”: the model has no reading “colour”.',
    ]);
  });
  test('a hundred readings of one thing are answered in time', () => {
    const many = Array.from({ length: 100 }, (_, i) => reading({ id: `r${i}` }));
    const { repairs } = answered({ readings: many });
    expect(repairs['hose']).toBeGreaterThan(0.6);
  });
  test('impossible evidence is refused by name', () => {
    expect(refusedFor({ readings: [reading({ reading: 'colour' })] })).toEqual([
      '“first”: the model has no reading “colour”.',
    ]);
    expect(refusedFor({ readings: [reading({ inputs: { colour: 1 } })] })).toEqual([
      '“first”: the model has no input “colour”.',
    ]);
    expect(refusedFor({ readings: [reading({ inputs: {} })] })).toEqual([
      '“first”: the inputs do not say in what state it was read.',
    ]);
    expect(refusedFor({ readings: [reading(), reading()] })).toEqual([
      '“first”: there is another reading of that name.',
    ]);
    expect(refusedFor({ readings: [reading({ instrument: undefined })] })).toEqual([
      'Say what it was read with, or how far it may be out: one of the two.',
    ]);
    expect(refusedFor({ looks: [{ item: 'colour', answer: 'red' }] })).toEqual([
      'There is no look “colour” whose error rates are known.',
    ]);
    expect(refusedFor({ weights: { gremlins: 1 } })).toEqual(['There is no fault “gremlins”.']);
    expect(refusedFor({ kind: 'steam' })[0]).toMatch(/^Kind: one of/);
    const unclassed = { ...gauge, accuracy: { kind: 'by-feel' } };
    expect(refusedFor({ readings: [reading({ instrument: unclassed })] })).not.toEqual([]);
  });
});
