import { FAMILIES } from '@/core/families/registry';
import { PLACES as BY_WIRE } from './by-wire-vehicle';
import { PLACES as MOTOR } from './electromechanical';
import { PLACES as MOTOR_VEHICLE } from './electromechanical-vehicle';
import { PLACES as PUMPED } from './motor-pump-booster';
import { PLACES as PUMPED_VEHICLE } from './motor-pump-vehicle';
import { PLACES as STEERED_BENCH } from './hydraulic-booster';
import { PLACES as STEERED } from './hydraulic-vehicle';
import { PLACES as BOOSTER } from './pedal-vacuum';
import { PLACES as VALVE } from './pedal-valve';
import { PLACES as REMOTE } from './remote-vacuum';
import { PLACES as SERVO } from './rod-servo';
import { SCHEMATICS } from './registry';
import { PLACES as STORED_BENCH } from './stored-pressure';
import { PLACES as STORED } from './stored-pressure-vehicle';
import { PLACES as VEHICLE } from './vacuum-vehicle';

test('every family has a drawing', () =>
  expect(Object.keys(SCHEMATICS).sort()).toEqual(Object.keys(FAMILIES).sort()));

describe.each([
  ['remote-vacuum', REMOTE],
  ['rod-servo', SERVO],
  ['pedal-vacuum', BOOSTER],
  ['pedal-valve', VALVE],
  ['hydraulic-booster', STEERED_BENCH],
  ['motor-pump-booster', PUMPED],
  ['motor-pump-vehicle', PUMPED_VEHICLE],
  ['hydraulic-vehicle', STEERED],
  ['stored-pressure', STORED_BENCH],
  ['stored-pressure-vehicle', STORED],
  ['pedal-valve-vehicle', VALVE],
  ['electromechanical', MOTOR],
  ['electromechanical-vehicle', MOTOR_VEHICLE],
  ['by-wire-vehicle', BY_WIRE],
  ['vacuum-vehicle', VEHICLE],
] as const)('the drawing of %s', (kind, places) => {
  test('shows every port with a gauge and every leak point, and no other', () => {
    const { ports, leakPoints } = FAMILIES[kind];
    const drawn = [...ports.filter(({ quantity }) => quantity !== 'duration'), ...leakPoints];
    expect(Object.keys(places).sort()).toEqual(drawn.map(({ id }) => id).sort());
  });
  test('has no two places on each other', () => {
    const all = Object.values(places);
    all.forEach((a, i) =>
      all.slice(i + 1).forEach((b) => expect(Math.hypot(a.x - b.x, a.y - b.y)).toBeGreaterThan(14)),
    );
  });
});
