/** @jest-environment node */
import fc from 'fast-check';
import { FAMILIES, FAMILY_KINDS } from '../families/registry';
import { modelList, steadyReadings } from './open-models';

const BAR = 1e5;
const INHG = 3386.389;
const ROOM = { barometer_Pa: 101_325, temperature_K: 293.15, elapsed_s: 0 };
const AT = { input_Pa: 20 * BAR, supply_Pa: 20 * INHG, ...ROOM };

/** Longest first: m3PerSPa ends in Pa too. */
const SUFFIX: Record<string, string> = {
  _m3PerSPa: 'm³/(s·Pa)',
  _PaPerS: 'Pa/s',
  _NPerM: 'N/m',
  _Pa: 'Pa',
  _m3: 'm³',
  _m2: 'm²',
  _m: 'm',
  _N: 'N',
  _K: 'K',
  _s: 's',
};

const ask = (asked: object) => steadyReadings('remote-vacuum', asked);
const valueOf = (asked: object, reading: string) => {
  const outcome = ask(asked);
  if (!outcome.ok) throw new Error(JSON.stringify(outcome.issues));
  return outcome.answer.readings.find(({ id }) => id === reading)!;
};
const issuesOf = (asked: object) => {
  const outcome = ask(asked);
  return outcome.ok ? [] : outcome.issues.map(({ path, message }) => [path.join('.'), message]);
};

describe('the open calculator', () => {
  test('lists every model with ids, names and SI units of all that goes in and comes out', () => {
    const list = modelList();
    expect(list.map(({ kind }) => kind)).toEqual([...FAMILY_KINDS]);
    for (const { parameters, inputs, readings, faults } of list) {
      for (const { id, name, unit } of [...parameters, ...inputs, ...readings]) {
        expect(name).not.toBe('');
        // An id that ends in its unit is in that unit.
        const suffix = Object.keys(SUFFIX).find((end) => id.endsWith(end));
        if (suffix) expect([id, unit]).toEqual([id, SUFFIX[suffix]]);
      }
      expect(faults.length).toBeGreaterThan(0);
    }
  });
  test('handbook 8.1: 72 bar out of 20 in, and with a diaphragm 32.5 % too small 53.5 bar and 6.5 inHg', () => {
    expect(valueOf({ inputs: AT }, 'output')).toMatchObject({ unit: 'Pa', quantity: 'pressure' });
    expect(valueOf({ inputs: AT }, 'output').value / BAR).toBeCloseTo(72, 6);
    // 0.675 of π/4·0.230² m²
    const small = { inputs: AT, parameters: { effectiveArea_m2: 0.675 * 0.04154756 } };
    expect(valueOf(small, 'output').value / BAR).toBeCloseTo(53.5, 1);
    expect(valueOf(small, 'activation').value / INHG).toBeCloseTo(6.5, 1);
    // The same as a fault: 40 % at its most severe, so 0.325/0.4.
    const fault = { inputs: AT, faults: [{ id: 'undersized-diaphragm', severity: 0.325 / 0.4 }] };
    expect(valueOf(fault, 'output').value).toBeCloseTo(valueOf(small, 'output').value, 0);
  });
  test('what is left out or not known is named, never taken as zero', () => {
    const { supply_Pa: _left, ...without } = AT;
    expect(issuesOf({ inputs: without })).toEqual([
      ['inputs.supply_Pa', 'Supply depression at the unit, at rest (supply_Pa) is left out.'],
    ]);
    expect(issuesOf({ inputs: { ...AT, vacuum: 1 } })[0]![0]).toBe('inputs.vacuum');
    expect(issuesOf({ inputs: AT, parameters: { area: 1 } })[0]![1]).toMatch(/“area” is no parameter/);
    expect(issuesOf({ inputs: AT, faults: [{ id: 'gremlin', severity: 0.5 }] })).toEqual([
      ['faults.0.id', 'There is no fault “gremlin”.'],
    ]);
    expect(issuesOf({ inputs: AT, faults: [{ id: 'cup-bypass', severity: 2 }] })[0]![1]).toMatch(
      /1 at the most/,
    );
    expect(issuesOf({ inputs: { ...AT, input_Pa: '20' } })[0]![0]).toBe('inputs.input_Pa');
    expect(issuesOf({ inputs: AT, profile: { kind: 'remote-vacuum' } })[0]![0]).toMatch(/^profile\./);
    expect(issuesOf({ inputs: AT, guess: true })).toHaveLength(1);
  });
  test('whatever is asked, it answers or says why', () => {
    fc.assert(
      fc.property(fc.constantFrom(...FAMILY_KINDS), fc.jsonValue(), (kind, asked) => {
        const outcome = steadyReadings(kind, asked);
        expect(outcome.ok || outcome.issues.length > 0).toBe(true);
      }),
    );
  });
  test('a model asked with its own typical profile says what the family says', () => {
    for (const kind of FAMILY_KINDS) {
      const family = FAMILIES[kind];
      const inputs = Object.fromEntries(family.inputs.map(({ id }, i) => [id, 1000 * (i + 1)]));
      const outcome = steadyReadings(kind, { inputs, profile: family.typical });
      if (!outcome.ok) throw new Error(JSON.stringify(outcome.issues));
      expect(outcome.answer.readings.map(({ value }) => value)).toEqual(
        family.steady(family.healthy(family.typical).values, Object.values(inputs)),
      );
    }
  });
});
