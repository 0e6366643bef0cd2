/** @jest-environment node */
import type { Family } from '../contract/family';
import { INHG, RIGS } from '../scenarios/bench';
import { FAMILIES, type FamilyKind } from './registry';

/** What a fault does to one of the unit's own numbers, from its least severity to its worst; the number of a sound unit comes in. */
type Move = (sound: number) => readonly [least: number, worst: number];
const times =
  (least: number, worst: number): Move =>
  (sound) => [sound * least, sound * worst];
const plus =
  (least: number, worst: number): Move =>
  (sound) => [sound + least, sound + worst];
const to =
  (value: number): Move =>
  () => [value, value];
/** Whatever it is, it moves: what it moves to is worked out from the unit. */
const moved = null;

type Row = readonly [prior: number, moves?: Readonly<Record<string, Move | null>>];
const BAR = 1e5;
const CC_PER_MIN = 1e-6 / 60;
/** Leak by `k` of 1e-16 or so through mineral oil of the handbook's table at 20 °C: not written down there as a flow. */
const byThickness = null;
const gone = { preCharge_Pa: times(0.6, 0.02) };
const bothSides = (name: string, row: (side: string) => Row): Record<string, Row> => ({
  [`${name}-front`]: row('front'),
  [`${name}-rear`]: row('rear'),
});
const atWheels = (name: string, row: (wheel: string) => Row): Record<string, Row> =>
  Object.fromEntries(
    ['frontLeft', 'frontRight', 'rearLeft', 'rearRight'].map((wheel) => [`${name}-${wheel}`, row(wheel)]),
  );
const driftOf = (side: string) => ({ [`${side}.in_Pa`]: 1, [`${side}.out_Pa`]: 1 });
const bothBy = (names: object, move: Move) =>
  Object.fromEntries(Object.keys(names).map((name) => [name, move]));

/** Handbook-models 8.3: unit, and 9 and 10: supply and load. */
const PEDAL: Record<string, Row> = {
  'torn-diaphragm': [12, { tear_m3PerSPa: plus(1e-10, 1e-8) }],
  'vacuum-seat': [6, { tear_m3PerSPa: plus(1e-10, 1e-8) }],
  'air-seat': [10, { seat_m3PerSPa: plus(5e-11, 2e-8) }],
  'shell-leak': [8, { shell_m3PerSPa: plus(2e-11, 5e-9) }],
  'valve-sticking': [4, { begin_N: times(1.5, 4), friction_N: times(2, 6) }],
  'rod-long': [3, { clearance_m: plus(-0.2e-3, -1.5e-3) }],
  'rod-short': [4, { clearance_m: plus(1e-3, 5e-3) }],
  // Reaction disc missing or swollen, 2 in all.
  'disc-missing': [1, { reaction: times(2, 5), jump_N: times(2, 5) }],
  'disc-swollen': [1, { reaction: times(0.9, 0.7) }],
  'filter-blocked': [4, { air_m3PerSPa: times(0.5, 0.02) }],
  'hardened-diaphragm': [3, { area_m2: times(0.95, 0.75), binding_N: plus(20, 100) }],
  'wrong-booster': [1, { area_m2: times(0.85, 0.6) }],
};
const LOAD: Record<string, Row> = {
  'master-bypass': [6, { 'load.bypass_m3PerSPa': plus(3e-16, 1e-14) }],
  air: [8, { 'load.air_m3': plus(2e-6, 20e-6) }],
  'tripped-shuttle': [
    3,
    { 'load.takeUp_m3': moved, 'load.stiffness_m3PerPa': moved, 'load.rearOpen': to(0) },
  ],
  proportioning: [2, { 'load.split_Pa': times(0.8, 0.5) }],
  'seized-front': [4, { 'load.takeUp_m3': moved, 'load.stiffness_m3PerPa': moved }],
  'seized-rear': [4, { 'load.takeUp_m3': moved, 'load.stiffness_m3PerPa': moved }],
  linings: [10],
  'hose-blocked-wheel': [4, { 'load.stiffness_m3PerPa': moved }],
  'stop-switch': [4],
  'level-switch': [4],
  'parking-cables': [4],
};
const worn = { 'source.floorShare': plus(0.1, 0.4), 'source.suction_m3PerS': times(0.8, 0.3) };
const SUPPLY: Record<string, Row> = {
  'rod-binding': [4, { binding_N: plus(20, 150) }],
  'manifold-leak': [8, { 'source.sourceLeak_m3PerSPa': plus(1e-9, 1.5e-8) }],
  timing: [5, { 'source.floor_Pa': plus(3e3, 12e3) }],
  'pump-worn': [6, worn],
  'electric-worn': [5, worn],
  'electric-dead': [6, { 'source.floorShare': to(1) }],
  'electric-switch': [4, { 'source.on_Pa': plus(-3e3, -15e3), 'source.off_Pa': plus(-3e3, -15e3) }],
  'hose-blocked': [8, { 'source.hose_m3PerSPa': times(0.3, 0.02) }],
  'hose-collapsing': [3, { 'source.collapse': times(0.3, 0.02) }],
  'hose-leak': [6, { 'source.hoseLeak_m3PerSPa': plus(1e-10, 5e-9) }],
  'check-leak': [12, { 'source.back_m3PerSPa': plus(1e-11, 1e-9) }],
  'check-open': [3, { 'source.back_m3PerSPa': moved }],
  'check-shut': [3, { 'source.crack_Pa': moved }],
  'tank-leak': [2, { 'source.hoseLeak_m3PerSPa': moved }],
};
const HYDRAULIC: Record<string, Row> = {
  'spool-leak': [8, { leak_m3PerS: times(5, 50) }],
  'input-seal': [14],
  'piston-leak': [8, { pistonLeak_m3PerS: byThickness }],
  'gas-loss': [13, { preCharge_Pa: times(0.7, 0.02) }],
  'check-leak': [7, { leak_m3PerS: byThickness }],
  // Diameters ×0.5…0.8 and ×0.15…0.5: areas by their squares.
  'return-restricted': [4, { return_m2: times(0.64, 0.25), exhaust_m2: times(0.25, 0.0225) }],
  'spool-sticking': [4, { friction_N: times(3, 10) }],
  // Thick fluid drags from a third more on; its viscosity is the fluid's own.
  'wrong-fluid': [5, { friction_N: moved, thicker: moved }],
  'pump-low': [12, { 'source.leak_m3PerS': times(3, 10) }],
  'belt-slips': [9, { 'source.belt_Nm': times(0.7, 0.3) }],
  'air-in-fluid': [12, { 'source.fluidPart': times(0.97, 0.8) }],
  'relief-open': [4, { 'source.relief_Pa': times(0.7, 0.2) }],
};
const MOTOR_PUMP: Record<string, Row> = {
  'gas-loss': [24, gone],
  // Drifted either way, 7 in all.
  'switch-high': [3.5, { in_Pa: plus(10 * BAR, 40 * BAR), out_Pa: plus(10 * BAR, 40 * BAR) }],
  'switch-low': [3.5, { in_Pa: plus(-10 * BAR, -40 * BAR), out_Pa: plus(-10 * BAR, -40 * BAR) }],
  'switch-stuck-on': [3, { in_Pa: moved, out_Pa: moved }],
  'switch-stuck-off': [6, { in_Pa: to(0), out_Pa: to(0) }],
  'internal-leak': [18, { leak_m3PerS: times(4, 50) }],
  'relief-weeps': [6, { weepsFrom_Pa: moved, weeps_m3PerSPa: plus(1e-13, 1e-11) }],
  'motor-worn': [12, { 'source.friction_Nm': times(1.5, 3), 'source.motor_Ohm': times(1.2, 1.8) }],
  'motor-wet': [5, { 'source.shunt_A': plus(3, 15) }],
  'vanes-worn': [10, { 'source.leak_m3PerS': times(2, 4) }],
  'feed-poor': [9, { 'source.wiring_Ohm': plus(0.06, 0.3) }],
};
const VALVE: Record<string, Row> = {
  'drilling-plugged': [8, { drilling_m: times(0.4, 0.1) }],
  'spool-sticking': [12, { friction_N: times(3, 8) }],
  'return-restricted': [8, { return_Pa: plus(0.6 * BAR, 4 * BAR) }],
  'spring-tired': [8, { spring_NPerM: times(0.85, 0.5) }],
  'circuits-leak': [14, { crossLeak_m3PerS: byThickness }],
  // One circuit or the other, 26 in all.
  'gas-loss-1': [13, gone],
  'gas-loss-2': [13, { preCharge2_Pa: times(0.6, 0.02) }],
  'discs-worn': [15, { slack_m3: times(1.5, 4) }],
  'stop-short': [4.5, { stop_m: plus(-0.5e-3, -3e-3) }],
  'stop-far': [4.5, { stop_m: plus(0.5e-3, 3e-3) }],
};
const STORED: Record<string, Row> = {
  ...bothSides('gas-loss', (side) => [11, { [`${side}.preCharge_Pa`]: times(0.8, 0.1) }]),
  ...bothSides('burst', (side) => [3.5, { [`${side}.shell_m3`]: moved, [`${side}.preCharge_Pa`]: to(0) }]),
  'block-front-high': [1.25, bothBy(driftOf('front'), plus(8 * BAR, 30 * BAR))],
  'block-rear-high': [1.25, bothBy(driftOf('rear'), plus(8 * BAR, 30 * BAR))],
  'block-front-low': [1.25, bothBy(driftOf('front'), plus(-8 * BAR, -30 * BAR))],
  'block-rear-low': [1.25, bothBy(driftOf('rear'), plus(-8 * BAR, -30 * BAR))],
  ...bothSides('check', (side) => [4, { [`${side}.check_m3PerS`]: byThickness }]),
  ...bothSides('valve-worn', (side) => [4.5, { [`${side}.clearance_m`]: times(1.3, 2.5) }]),
  ...bothSides('valve-sticks', (side) => [1.5, { [`${side}.friction_N`]: times(3, 10) }]),
  'lamp-front-high': [1.5, { 'front.lamp_Pa': plus(8 * BAR, 30 * BAR) }],
  'lamp-rear-high': [1.5, { 'rear.lamp_Pa': plus(8 * BAR, 30 * BAR) }],
  'lamp-front-low': [1.5, { 'front.lamp_Pa': plus(-8 * BAR, -30 * BAR) }],
  'lamp-rear-low': [1.5, { 'rear.lamp_Pa': plus(-8 * BAR, -30 * BAR) }],
  // Another's gas and shell: the handbook names no figures.
  ...bothSides('sphere', (side) => [2, { [`${side}.shell_m3`]: moved, [`${side}.preCharge_Pa`]: moved }]),
  ...bothSides('ring', (side) => [2.5, { [`${side}.outside_m3PerS`]: byThickness }]),
  'wrong-fluid': [3, { thickness: moved }],
  ...bothSides('pump-worn', (side) => [3, { [`source.${side}_m3`]: times(0.8, 0.3) }]),
  air: [5, { 'load.air_m3': plus(2e-6, 10e-6) }],
};
const LEVELLED: Record<string, Row> = {
  // Leaking or misset, 9 in all.
  'height-leaks': [4.5, { heightLeak_m3PerS: byThickness }],
  'height-high': [2.25, { trim_m: plus(15e-3, 60e-3) }],
  'height-low': [2.25, { trim_m: plus(-15e-3, -60e-3) }],
  // Flow through a hole goes with d⁴: 2⁴ = 16, 4⁴ = 256.
  'restrictor-open': [2, { restrictor_m: times(2, 4), gear_m3PerS: times(16, 256) }],
  'springs-tired': [3, { spring_NPerM: times(0.9, 0.6) }],
  'springs-sagged': [3, { free_m: plus(-15e-3, -50e-3) }],
};
const ELECTRIC: Record<string, Row> = {
  // Railed, drifted, swapped: 9 in all.
  'track-railed': [3, { drift_V: moved }],
  'track-drift': [3, { drift_V: plus(0.15, 1) }],
  'tracks-swapped': [3, { swapped: to(1) }],
  'magnet-displaced': [3, { magnet_m: plus(0.3e-3, 3e-3) }],
  'motor-weak': [4, { perAmpere_N: times(0.9, 0.5), stall_N: times(0.9, 0.5) }],
  'gear-binds': [5, { friction_N: times(3, 10) }],
  'spring-broken': [1, { spring_N: times(0.5, 0.02) }],
  limp: [8, { limit_N: times(0.5, 0.02) }],
  // In the feed or in the earth, 14 in all.
  'feed-poor': [7, { 'source.feed_Ohm': plus(0.02, 0.3) }],
  'earth-poor': [7, { 'source.earth_Ohm': plus(0.02, 0.3) }],
  'battery-low': [10, { 'source.battery_V': plus(-1, -3.5) }],
};
const BY_WIRE: Record<string, Row> = {
  'gas-lost': [10, { preCharge_Pa: times(0.8, 0.2) }],
  'pump-weak': [8, { pump_m3PerS: times(0.6, 0) }],
  'accumulator-sensor': [4, { accumulatorOff_Pa: plus(3 * BAR, 20 * BAR) }],
  // Off, out of scale or stuck, at four wheels: 8 in all.
  ...atWheels('sensor-off', (wheel) => [8 / 12, { [`sensorOff_Pa.${wheel}`]: plus(-2 * BAR, -10 * BAR) }]),
  ...atWheels('sensor-scale', (wheel) => [8 / 12, { [`sensorScale.${wheel}`]: plus(0.03, 0.15) }]),
  ...atWheels('sensor-stuck', (wheel) => [8 / 12, { [`sensorScale.${wheel}`]: to(0) }]),
  'masters-differ': [4, { master2Off_Pa: plus(2 * BAR, 10 * BAR) }],
  'track-drift': [6, { drift_V: plus(0.15, 1) }],
  // Leaks or stuck, 5 and 2 in all; the simulator 4 in all.
  'isolation-leaks': [2.5, { sinks_m3PerS: plus(0.05 * CC_PER_MIN, 5 * CC_PER_MIN) }],
  'simulator-air': [2, { simulatorAir_m3: plus(1e-6, 8e-6) }],
  'simulator-stuck': [2, { simulatorFree: moved }],
  'isolation-shut-1': [1, { opens1: to(0) }],
  'isolation-shut-2': [1, { opens2: to(0) }],
  // Leaking or sticking at four wheels: 6 in all. Both leak as the release valve does.
  ...atWheels('apply-leaks', (wheel) => [
    6 / 8,
    { [`applyLeak_m3PerS.${wheel}`]: plus(0.1 * CC_PER_MIN, 5 * CC_PER_MIN) },
  ]),
  ...atWheels('apply-sticks', (wheel) => [6 / 8, { [`applySticks_A.${wheel}`]: moved }]),
  ...atWheels('release-leaks', (wheel) => [
    6 / 4,
    { [`releaseLeak_m3PerS.${wheel}`]: plus(0.1 * CC_PER_MIN, 5 * CC_PER_MIN) },
  ]),
  'relief-weeps': [3, { weeps_m3PerSPa: moved }],
  'contact-stuck': [5],
  'shield-open': [3, { swing_V: times(5, 50) }],
  'not-granted': [6, { grants: moved }],
  'capacitor-weak': [3, { 'source.capacitance_F': times(0.8, 0.3) }],
  'capacitor-resists': [3, { 'source.esr_Ohm': times(2, 6) }],
  air: [8, { 'load.air_m3': moved }],
};
/**
 * 8.1. What it gives no figures for only has to move. A poppet that leaks by C leaves (C·101 325/4.8e-8)²/33 597.22 at rest:
 * 0.3315793 Pa at 5e-11, 13 263.172 at 1e-8. The cup loses 0.05 to 5 cc/min out of 5e-13 m³/Pa: 1 666.7 to 166 667 Pa/s.
 */
const REMOTE: Record<string, Row> = {
  'torn-diaphragm': [14, { tear_m3PerSPa: plus(1e-10, 1e-8) }],
  'undersized-diaphragm': [4, { effectiveArea_m2: times(0.9, 0.6) }],
  'hub-seal-leak': [8, { leak_m3PerSPa: plus(2e-11, 5e-9) }],
  'poppet-leak': [12, { leak_m3PerSPa: plus(5e-11, 1e-8), restDifference_Pa: plus(0.3315793, 13_263.172) }],
  'vacuum-seat-leak': [6, { tear_m3PerSPa: plus(1e-10, 1e-8) }],
  'valve-sticking': [12, { crack_Pa: times(1.5, 3), hysteresis: times(2, 5), residual_Pa: moved }],
  'spool-seal-leak': [6, { fluidLoss_PaPerS: moved }],
  'cup-bypass': [12, { fluidLoss_PaPerS: plus((0.05 * CC_PER_MIN) / 5e-13, (5 * CC_PER_MIN) / 5e-13) }],
  'slave-check-stuck': [5, { passage: moved, residual_Pa: moved }],
  'rod-seal-leak': [9, { fluidLoss_PaPerS: moved }],
  'breather-blocked': [5, { activationFloor_Pa: plus(0.5 * INHG, 6 * INHG) }],
  'passage-blocked': [2, { restDifference_Pa: moved, selfApply_Pa: moved }],
  'hose-collapsed': [4, { hoseDrop: moved }],
  'check-valve-leak': [8, { leak_m3PerSPa: plus(1e-11, 1e-9) }],
  // At one of four points: 10 in all.
  'seep-bleed-screw': [2.5],
  'seep-end-cap': [2.5],
  'seep-rod-hole': [2.5],
  'seep-switch': [2.5],
  'threads-damaged': [3],
  // It may close early as well: below a pressure that is none it is always closed, and looked at as such.
  'switch-out-of-range': [6, { switchCloses_Pa: plus(1 * BAR, 6 * BAR) }],
};
const SERVO: Record<string, Row> = {
  'torn-piston': [14, { tear_m3PerSPa: plus(1e-10, 1e-8) }],
  'undersized-piston': [4, { effectiveArea_m2: times(0.9, 0.6) }],
  'seat-leak-atmosphere': [14, { leak_m3PerSPa: plus(5e-11, 1e-8) }],
  'seat-leak-vacuum': [8, { tear_m3PerSPa: plus(1e-10, 1e-8) }],
  'valve-sticking': [12, { crack_Pa: times(1.5, 3), residual_N: plus(20, 180) }],
  'check-valve-leak': [16, { back_m3PerSPa: plus(1e-11, 1e-8) }],
  'tank-leak': [14, { leak_m3PerSPa: plus(1e-11, 1e-8) }],
  'restricted-line': [8, { air_m3PerSPa: times(0.4, 0.05), line_m3PerSPa: times(0.4, 0.05) }],
  'weak-spring': [6, { preload_N: times(0.8, 0.3), residual_N: moved }],
  'fluid-seal-leak': [8],
};
const FAULTS: Record<FamilyKind, Record<string, Row>> = {
  'remote-vacuum': REMOTE,
  'rod-servo': SERVO,
  'pedal-vacuum': PEDAL,
  'vacuum-vehicle': { ...PEDAL, ...SUPPLY, ...LOAD },
  'hydraulic-booster': HYDRAULIC,
  'hydraulic-vehicle': { ...HYDRAULIC, ...LOAD },
  'motor-pump-booster': MOTOR_PUMP,
  'motor-pump-vehicle': { ...MOTOR_PUMP, ...LOAD },
  'stored-pressure': STORED,
  'stored-pressure-vehicle': { ...STORED, ...LEVELLED },
  'pedal-valve': VALVE,
  'pedal-valve-vehicle': VALVE,
  electromechanical: ELECTRIC,
  'electromechanical-vehicle': { ...ELECTRIC, ...LOAD },
  'by-wire-vehicle': BY_WIRE,
};

describe.each(Object.entries(FAULTS))('faults of %s', (kind, rows) => {
  const family = FAMILIES[kind as FamilyKind] as Family;
  const { values } = family.healthy(family.typical);
  test('are those of the handbook, with their weights', () => {
    expect(Object.fromEntries(family.faults.map(({ id, prior }) => [id, prior]))).toEqual(
      Object.fromEntries(Object.entries(rows).map(([id, [prior]]) => [id, prior])),
    );
  });
  test.each(Object.entries(rows))('%s moves what it moves, as far as it goes there', (id, [, moves = {}]) => {
    const fault = family.faults.find((one) => one.id === id)!;
    const ends = [1e-12, 1].map((severity) => fault.apply(values, severity));
    const touched = family.parameters.flatMap((parameter, i) =>
      ends.some((end) => end[i] !== values[i]) ? [parameter.id] : [],
    );
    expect(touched.sort()).toEqual(Object.keys(moves).sort());
    for (const [name, move] of Object.entries(moves)) {
      if (!move) continue;
      const i = family.parameters.findIndex((parameter) => parameter.id === name);
      move(values[i]!).forEach((wanted, k) => expect([name, ends[k]![i]]).toEqual([name, near(wanted)]));
    }
  });
});
const near = (wanted: number) =>
  expect.closeTo(
    wanted,
    Math.min(60, Math.max(0, 6 - Math.floor(Math.log10(Math.abs(wanted) || 1)))),
  ) as number;

/** Minutes that a technician is at a step, where the handbook names them; a step that does two tests has both. */
const MINUTES: Partial<Record<FamilyKind, Readonly<Record<string, number>>>> = {
  'remote-vacuum': {
    ...{ cautions: 8, 'lamp-switch': 1, zeros: 2, bypass: 3, 'seep-low': 1, 'supply-on': 2, ratio: 4 },
    ...{ full: 2, hold: 1, release: 1, 'loss-released': 0.5, 'loss-applied': 0.5, after: 1, 'make-safe': 2 },
  },
  'rod-servo': {
    ...{ cautions: 6, 'pull-down': 2, static: 0.5, force: 4, full: 1, times: 2, release: 1, reserve: 4 },
    ...{ standing: 0.5, 'make-safe': 1 },
  },
  'vacuum-vehicle': {
    // Decay with and without the valve capped, 3; two forces, 3. A gauge on a wheel 5, off and bled 4.
    ...{
      source: 2,
      rest: 1,
      recovery: 2,
      check: 2,
      decay: 1.5,
      capped: 1.5,
      start: 3,
      with: 1.5,
      without: 1.5,
    },
    ...{ airtight: 2, apply: 2, reserve: 3, standing: 3, sink: 2, sweep: 5, axles: 20, lamps: 2, wheels: 10 },
    'made-good': 4,
  },
  // Cold again before the reserve and before the hour: two minutes more.
  'hydraulic-booster': { pump: 12, start: 3, assist: 8, seep: 4, reserve: 4 + 2, hour: 6 + 2 },
  'motor-pump-booster': {
    ...{
      level: 5,
      feed: 4,
      charge: 5,
      switch: 4,
      'off-times': 2,
      relief: 5,
      reserve: 4,
      assist: 8,
      unpowered: 5,
    },
  },
  'stored-pressure': {
    ...{ asked: 3, cycles: 6, standing: 3, 'stand-to-lamp': 2, applications: 5, metering: 10, seep: 5 },
  },
  'stored-pressure-vehicle': { bumps: 6 },
  // Maximum 2 and apply time 4 are one step.
  'pedal-valve': { charge: 5, sweep: 8, residual: 2, maximum: 2 + 4, reserve: 5, cross: 8, standing: 2 },
  electromechanical: { hold: 5, tracks: 3, unpowered: 4, assist: 8, step: 3, codes: 3 },
  'by-wire-vehicle': {
    ...{
      simulator: 4,
      targets: 6,
      currents: 6,
      blend: 12,
      charge: 4,
      store: 6,
      fallback: 5,
      lamps: 3,
      codes: 3,
    },
  },
};
test.each(Object.entries(MINUTES))('steps of %s take the minutes of the handbook', (kind, minutes) => {
  const family = FAMILIES[kind as FamilyKind] as Family;
  const { steps } = family.procedure(family.typical, RIGS[kind as FamilyKind]);
  const taken = Object.keys(minutes).map((id) => [
    id,
    steps.find((step) => step.id === id)!.attended_s! / 60,
  ]);
  expect(Object.fromEntries(taken)).toEqual(minutes);
});

/** How often a look misses what is there, and sees what is not: handbook-models, “Looks” and “Seen” (seen 0.85 is missed 0.15). */
const LOOKS: Partial<
  Record<FamilyKind, Readonly<Record<string, readonly [miss: number, falseAlarm: number]>>>
> = {
  'remote-vacuum': {
    'seep-low.end-cap': [0.1, 0.03],
    'seep-high.end-cap': [0.05, 0.03],
    'hiss-rest': [0.15, 0.05],
    'hiss-held': [0.15, 0.05],
    'vacuum-side-fluid': [0.1, 0.02],
    'slow-apply': [0.2, 0.05],
    threads: [0.1, 0.03],
    'switch-rest': [0.02, 0.02],
  },
  'rod-servo': {
    'intake-hiss': [0.15, 0.05],
    'tank-hiss': [0.15, 0.05],
    'line-clamped': [0.1, 0.05],
    'lever-back': [0.1, 0.05],
    'vacuum-side-fluid': [0.1, 0.02],
  },
  'vacuum-vehicle': {
    rush: [0.1, 0.05],
    'one-way': [0.1, 0.05],
    'start.how': [0.1, 0.05],
    'hiss-rest': [0.15, 0.05],
    'hiss-held': [0.15, 0.05],
    drag: [0.15, 0.05],
  },
  'hydraulic-booster': {
    squeal: [0.15, 0.03],
    foam: [0.2, 0.04],
    growl: [0.4, 0.08],
    seep: [0.15, 0.03],
    'push-back': [0.6, 0.03],
    'oil-master': [0.3, 0.02],
  },
  'motor-pump-booster': {
    labours: [0.4, 0.05],
    'wet-plug': [0.3, 0.02],
    'hiss-rest': [0.6, 0.03],
    'lamp-motion': [0.5, 0.03],
    'hot-connector': [0.5, 0.02],
  },
  'stored-pressure-vehicle': {
    seep: [0.15, 0.02],
    knock: [0.3, 0.05],
    ticks: [0.4, 0.05],
    drops: [0.3, 0.4],
  },
  'pedal-valve': {
    throbs: [0.2, 0.02],
    'drag-hot': [0.4, 0.04],
    'one-lamp': [0.4, 0.03],
    'metal-return': [0.6, 0.05],
  },
};
test.each(Object.entries(LOOKS))('looks at %s err as often as the handbook says', (kind, wanted) => {
  const { looks } = FAMILIES[kind as FamilyKind] as Family;
  for (const [item, [miss, falseAlarm]] of Object.entries(wanted)) {
    const found = looks.find((look) => look.item === item)!;
    expect([item, found.miss, found.falseAlarm]).toEqual([
      item,
      expect.closeTo(miss, 9) as number,
      expect.closeTo(falseAlarm, 9) as number,
    ]);
  }
});
