import fc from 'fast-check';
import { FAMILIES, FAMILY_KINDS } from '@/core/families/registry';
import type { RemoteVacuumProfile } from '@/core/families/remote-vacuum/index';
import { jobSchema } from '@/core/records/job';
import { INITIAL_SETTINGS, settingsSchema } from '@/core/shop/settings';
import { UNIT_SETS } from '@/core/quantities/units';
import { bodyFrom, fieldsOf, literalsOf, textOf } from './schema-fields';

const { profile: schema, typical } = FAMILIES['remote-vacuum'];
const fields = fieldsOf(schema);
const read = (text: Record<string, string>, set: (typeof UNIT_SETS)[number] = 'mixed') =>
  bodyFrom(fields, text, set, { kind: 'remote-vacuum' });
const typed = (set: (typeof UNIT_SETS)[number] = 'mixed') => textOf(fields, typical, set);
const errorOf = (change: Record<string, string>) => {
  const found = read({ ...typed(), ...change });
  return found.ok ? {} : found.errors;
};

/** Deep equality within one part in ten million: units are converted there and back. */
function close(a: unknown, b: unknown): boolean {
  if (typeof a === 'number' && typeof b === 'number')
    return Math.abs(a - b) <= 1e-7 * Math.max(1e-9, Math.abs(a), Math.abs(b));
  if (a && b && typeof a === 'object' && typeof b === 'object') {
    const keys = new Set([...Object.keys(a), ...Object.keys(b)]);
    return [...keys].every((key) =>
      close((a as Record<string, unknown>)[key], (b as Record<string, unknown>)[key]),
    );
  }
  return a === b;
}

describe('a form made from a schema', () => {
  test('has a field with a title for everything that can be edited', () => {
    for (const each of [schema, jobSchema, settingsSchema]) {
      for (const field of fieldsOf(each)) {
        expect(field.title).not.toBe('');
        expect(field.title).not.toMatch(/_/);
        if (field.kind === 'quantity' || field.kind === 'quantities') expect(field.quantity).toBeDefined();
      }
    }
    expect(fields.map(({ path }) => path)).toContain('limits.hysteresis_fraction.value');
    expect(fields.find(({ path }) => path === 'limits.hysteresis_fraction.source')?.title).toBe(
      'Hysteresis, part of output: source',
    );
  });

  test.each(UNIT_SETS)('shows a profile and reads it back unchanged, %s', (set) => {
    const back = read(typed(set), set);
    expect(back.ok && close(back.body, typical)).toBe(true);
    expect(back.ok && schema.safeParse(back.body).success).toBe(true);
  });

  test.each(FAMILY_KINDS)('every kind of profile comes back from its form, %s', (kind) => {
    const { profile, typical: one } = FAMILIES[kind];
    const own = fieldsOf(profile);
    for (const set of UNIT_SETS) {
      const back = bodyFrom(own, textOf(own, one, set), set, literalsOf(profile));
      if (!back.ok) throw new Error(JSON.stringify(back.errors));
      expect(close(back.body, one)).toBe(true);
      expect(profile.safeParse(back.body).error?.issues).toBeUndefined();
    }
  });

  test('any pressures come back as they were, in any unit set', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...UNIT_SETS),
        fc.double({ min: 1e4, max: 1e7, noNaN: true }),
        fc.double({ min: 0.01, max: 0.5, noNaN: true }),
        (set, crack_Pa, bore_m) => {
          const changed = { ...(typical as RemoteVacuumProfile), crack_Pa, slaveBore_m: bore_m };
          const back = read(textOf(fields, changed, set), set);
          return back.ok && close(back.body, changed);
        },
      ),
    );
  });

  test('a unit typed in a field is understood', () => {
    const back = read({
      ...typed(),
      slaveBore_m: '0.75 in',
      crack_Pa: '43,5 psi',
      'limits.supplyNeed_Pa.value': '0,54 bar',
    });
    if (!back.ok) throw new Error(JSON.stringify(back.errors));
    expect(back.body.slaveBore_m).toBeCloseTo(0.01905, 9);
    expect(back.body.crack_Pa).toBeCloseTo(43.5 * 6894.757, 3);
    expect((back.body.limits as RemoteVacuumProfile['limits']).supplyNeed_Pa.value).toBeCloseTo(54_000, 6);
  });

  test('empty means none where that is allowed, and is asked for elsewhere', () => {
    expect(read({ ...typed(), jumpIn_Pa: '' })).toMatchObject({ ok: true, body: { jumpIn_Pa: null } });
    expect(errorOf({ slaveBore_m: '' })).toEqual({ slaveBore_m: 'Slave bore: type the value first.' });
  });

  test('every field that is not understood gets a sentence of its own, and nothing else is touched', () => {
    const errors = errorOf({
      slaveBore_m: 'about an inch',
      crack_Pa: '3 N',
      proof_Pa: '1,400',
      ratioInputs_Pa: '12; many; 20',
    });
    expect(Object.keys(errors).sort()).toEqual(['crack_Pa', 'proof_Pa', 'ratioInputs_Pa', 'slaveBore_m']);
    expect(errors.slaveBore_m).toMatch(/“about an inch” is not a number/);
    expect(errors.crack_Pa).toMatch(/N does not fit\. This field takes a fluid pressure/);
    expect(errors.proof_Pa).toMatch(/can be read as .*1\.4.* or 1400\.0 bar/);
    expect(errors.ratioInputs_Pa).toMatch(/“many” is not a number/);
  });

  test('something not fitted is left out whole, and its fields ask for nothing', () => {
    const back = read({ ...typed(), lampSwitch: '', 'lampSwitch.closesFrom_Pa': 'nonsense' });
    expect(back).toMatchObject({ ok: true, body: { lampSwitch: null } });
    expect(textOf(fields, { ...(typical as object), lampSwitch: null }, 'mixed').lampSwitch).toBe('');
  });

  test('settings: a flag, a taught key and a choice read back as they were', () => {
    const own = fieldsOf(settingsSchema);
    const kinds = Object.fromEntries(own.map(({ path, kind }) => [path, kind]));
    expect(kinds).toMatchObject({
      sound: 'flag',
      captureKey: 'key',
      unitSet: 'choice',
      barometer_Pa: 'quantity',
    });
    for (const sound of [true, false]) {
      const settings = { ...INITIAL_SETTINGS, sound, altitude_m: 1600 };
      const back = bodyFrom(own, textOf(own, settings, 'imperial'), 'imperial', {});
      expect(back.ok && close(back.body, settings)).toBe(true);
    }
  });

  test('choices carry the words people read', () => {
    const fluid = fields.find(({ path }) => path === 'fluid')!;
    expect(fluid.choices).toContainEqual({ value: 'dot5', label: 'DOT 5 (silicone)' });
  });
});
