/** @jest-environment node */
import fc from 'fast-check';
import { FAMILIES, FAMILY_KINDS } from '../families/registry';
import { installationReadings, modelList, steadyReadings } from './open-models';

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
    const { models: list, installation } = modelList();
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
    // Every unit that is listed finds a source and a load among those listed.
    for (const { feeds, fedBy } of installation.units) {
      const offered = [
        installation.sources.flatMap((one) => one.feeds),
        installation.loads.flatMap((one) => one.fedBy),
      ].map((terminals) => terminals.map(({ coupling }) => coupling));
      expect(offered[0]).toEqual(expect.arrayContaining(fedBy.map(({ coupling }) => coupling)));
      expect(offered[1]).toEqual(expect.arrayContaining(feeds.map(({ coupling }) => coupling)));
    }
  });
  test('handbook 8.1: 72 bar out of 20 in, and with a diaphragm 32.5 % too small 53.5 bar and 6.5 inHg', () => {
    expect(valueOf({ inputs: AT }, 'output')).toMatchObject({ unit: 'Pa', quantity: 'pressure' });
    expect(valueOf({ inputs: AT }, 'output').value / BAR).toBeCloseTo(72, 6);
    // 0.675 of π/4·0.230² m²
    const small = { inputs: AT, parameters: { effectiveArea_m2: 0.675 * 0.04154756 } };
    expect(valueOf(small, 'output').value / BAR).toBeCloseTo(53.5, 1);
    expect(valueOf(small, 'activation').value / INHG).toBeCloseTo(6.5, 1);
    // The same as a fault: 0.9 to 0.6 of it is left, on a scale of logarithms.
    const severity = Math.log(0.675 / 0.9) / Math.log(0.6 / 0.9);
    const fault = { inputs: AT, faults: [{ id: 'undersized-diaphragm', severity }] };
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

describe('an installation asked', () => {
  const BENCH = { source: 'bench-vacuum', unit: 'remote-vacuum', load: 'plugged-port' };
  const profiles = { source: { hose_m3PerSPa: 1e-7 } };
  const torn = [{ id: 'torn-diaphragm', severity: 0.9 }];
  const readings = (asked: object) => {
    const outcome = installationReadings(asked);
    if (!outcome.ok) throw new Error(JSON.stringify(outcome.issues));
    return (id: string) => outcome.answer.readings.find((reading) => reading.id === id)!.value;
  };
  const refused = (asked: object) => {
    const outcome = installationReadings(asked);
    return outcome.ok ? [] : outcome.issues.map(({ path, message }) => [path.join('.'), message]);
  };

  test('joined as on its bench it says what the unit’s own model says, torn too', () => {
    for (const faults of [[], torn]) {
      const whole = readings({ ...BENCH, profiles, inputs: AT, faults });
      for (const id of ['output', 'activation', 'supplyApplied', 'fullActivation'])
        expect(whole(id)).toBe(valueOf({ inputs: AT, faults }, id).value);
    }
  });
  test('cut where the supply was read, the source is not asked: what was read is what the unit has', () => {
    const { supply_Pa: _left, ...without } = AT;
    const inputs = { ...without, 'cut.vacuum': 101_325 - 15 * INHG };
    const cut = readings({ ...BENCH, cut: ['vacuum'], inputs, faults: torn });
    expect(cut('supplyApplied')).toBeCloseTo(15 * INHG, 6);
    expect(refused({ ...BENCH, cut: ['vacuum'], inputs: { ...inputs, supply_Pa: 1 } })[0]).toEqual([
      'inputs.supply_Pa',
      expect.stringMatching(/no input of this model: .*cut\.vacuum/),
    ]);
    // The same unit uncut sags below that by what its pump cannot carry away.
    expect(
      readings({ ...BENCH, inputs: { ...AT, supply_Pa: 15 * INHG }, faults: torn })('supplyApplied'),
    ).toBeLessThan(14 * INHG);
  });
  test('members that do not fit are refused with the terminal that finds nothing', () => {
    expect(refused({ ...BENCH, load: 'load-cell', inputs: AT })).toEqual([
      ['unit', 'The unit’s fluid out (fluid) finds nothing to be joined to: the load has rod.'],
    ]);
    expect(refused({ ...BENCH, cut: ['exhaust'], inputs: AT })).toEqual([
      ['cut', 'The unit has no terminal “exhaust”: vacuum, fluid.'],
    ]);
    expect(refused({ ...BENCH, source: 'engine', inputs: AT })[0]![0]).toBe('source');
    expect(refused({ ...BENCH, profiles: { source: { hose_m3PerSPa: -1 } }, inputs: AT })[0]).toEqual([
      'profiles.source.hose_m3PerSPa',
      'Hose: none is below zero.',
    ]);
  });
  test('whatever is asked, it answers or says why', () => {
    fc.assert(
      fc.property(fc.jsonValue(), (asked) => {
        const outcome = installationReadings(asked);
        expect(outcome.ok || outcome.issues.length > 0).toBe(true);
      }),
    );
  });
});
