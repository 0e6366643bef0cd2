import fc from 'fast-check';
import { brakeLamps, NO_CAUSE, singleCauses, type LampCauses } from './brake-lamps';

const causes = fc.record(
  Object.fromEntries(Object.keys(NO_CAUSE).map((cause) => [cause, fc.boolean()])) as Record<
    keyof LampCauses,
    fc.Arbitrary<boolean>
  >,
);

test.each([
  ['accumulatorLow', 'red antiLock stability'],
  ['fallback', 'red antiLock stability'],
  ['parking', 'red'],
  ['level', 'red'],
  ['redundantSensor', 'yellow'],
  ['capacitor', 'yellow'],
  ['regeneration', 'yellow'],
  ['wheelSpeed', 'antiLock stability'],
  ['yaw', 'stability'],
  ['slipActive', 'slip'],
  ['moving', ''],
] as const)('the truth table of handbook-models 8.9, standing: %s lights “%s”', (cause, lit) => {
  const lamps = Object.entries(brakeLamps({ ...NO_CAUSE, [cause]: true })).filter(([, on]) => on);
  expect(lamps.map(([lamp]) => lamp).join(' ')).toBe(lit);
});

test('the buzzer sounds where braking is lost while it moves, and for nothing else', () => {
  expect(brakeLamps({ ...NO_CAUSE, fallback: true, moving: true }).buzzer).toBe(true);
  fc.assert(
    fc.property(causes, (of) =>
      expect(brakeLamps(of).buzzer).toBe(of.moving && (of.accumulatorLow || of.fallback)),
    ),
  );
});

test('more causes never put a lamp out, and a fault without loss of braking lights no red one', () => {
  fc.assert(
    fc.property(causes, fc.constantFrom(...(Object.keys(NO_CAUSE) as (keyof LampCauses)[])), (of, one) => {
      const [before, after] = [brakeLamps(of), brakeLamps({ ...of, [one]: true })];
      for (const [lamp, on] of Object.entries(before))
        if (on) expect(after[lamp as keyof typeof after]).toBe(true);
      if (['redundantSensor', 'capacitor', 'regeneration'].includes(one)) expect(after.red).toBe(before.red);
    }),
  );
});

test('what is isolated next: the single causes that explain every lamp, none that would light another', () => {
  const shown = (cause: keyof LampCauses, moving = false) =>
    singleCauses(brakeLamps({ ...NO_CAUSE, moving, [cause]: true }), moving);
  expect(shown('parking')).toEqual(['parking', 'level']);
  expect(shown('fallback')).toEqual(['accumulatorLow', 'fallback']);
  expect(shown('capacitor')).toEqual(['redundantSensor', 'capacitor', 'regeneration']);
  expect(shown('yaw')).toEqual(['yaw']);
  expect(shown('fallback', true)).toEqual(['accumulatorLow', 'fallback']);
  expect(singleCauses(brakeLamps(NO_CAUSE), false)).toEqual([]);
  // Red and yellow together have no single cause.
  expect(singleCauses(brakeLamps({ ...NO_CAUSE, parking: true, capacitor: true }), false)).toEqual([]);
});
