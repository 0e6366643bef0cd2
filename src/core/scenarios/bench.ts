import { FAMILIES, type FamilyKind } from '../families/registry';
import type { RemoteVacuumProfile } from '../families/remote-vacuum/index';
import type { Instrument } from '../metrology/instrument';
import type { RunEvent } from '../contract/events';
import { instrumentsOf, gateRule } from '../procedure/measured-item';
import { seeded } from '../numeric/chance';
import { rehearse, type BenchTruth } from '../procedure/rehearse';
import { reduceRun } from '../procedure/run';
import { INHG_PA } from '../quantities/units';
import type { Conditions, Rig, RunContext } from '../contract/run-context';

/** Benches for scenarios across modules: a unit of each family with the handbook's typical figures, on its ports. */
export const BAR = 1e5;
export const INHG = INHG_PA;

const gauge = (
  tag: string,
  port: string,
  fullScale_Pa: number,
  step_Pa: number,
  more: Partial<Instrument> = {},
): Instrument => ({
  tag,
  name: '',
  quantity: port === 'supply' || port === 'activation' ? 'depression' : 'pressure',
  fullScale_Pa,
  accuracy: { kind: 'en-837-1', class: '0.6' },
  step_Pa,
  usualPort: port,
  tiedTo: null,
  correction: null,
  calibratedOn: '2026-03-01',
  calibrationDue: '2027-03-01',
  ...more,
});

/** A gauge of something else than pressure, known to a part of its span. */
const meter = (
  tag: string,
  port: string,
  quantity: Instrument['quantity'],
  fullScale_SI: number,
  step_SI: number,
  percent: number,
) => gauge(tag, port, fullScale_SI, step_SI, { quantity, accuracy: { kind: 'percent-of-span', percent } });

export const gauges = {
  inLow: gauge('IN-L', 'input', 10 * BAR, 0.05 * BAR, { tiedTo: 'IN-H' }),
  inHigh: gauge('IN-H', 'input', 160 * BAR, 0.2 * BAR),
  outLow: gauge('OUT-L', 'output', 10 * BAR, 0.05 * BAR, { tiedTo: 'OUT-H' }),
  outHigh: gauge('OUT-H', 'output', 160 * BAR, 0.2 * BAR),
  supply: gauge('VAC-S', 'supply', 30 * INHG, 0.1 * INHG),
  activation: gauge('VAC-A', 'activation', 30 * INHG, 0.1 * INHG),
};

const servoGauges = {
  fluid: gauge('FL-1', 'input', 25 * BAR, 0.05 * BAR),
  cell: meter('LC-1', 'output', 'force', 3000, 1, 0.25),
  tank: gauge('VAC-S', 'supply', 30 * INHG, 0.1 * INHG),
  watch: meter('SW-1', 'clock', 'duration', 60, 0.1, 0.25),
};

/** What a travelling technician carries. */
const carried = {
  pedal: meter('PF-1', 'pedal', 'force', 1000, 1, 0.5),
  front: gauge('P-F', 'front', 160 * BAR, 0.2 * BAR),
  rear: gauge('P-R', 'rear', 160 * BAR, 0.2 * BAR),
  vacuum: gauge('VAC-S', 'supply', 30 * INHG, 0.1 * INHG),
  source: gauge('VAC-M', 'source', 30 * INHG, 0.1 * INHG, { quantity: 'depression' }),
  rule: meter('R-1', 'travel', 'travel', 0.3, 5e-4, 0.2),
  depth: meter('D-1', 'gap', 'travel', 0.025, 2e-5, 0.1),
};

/** A bench with a pump pack. */
const pack = {
  rule: meter('R-2', 'treadle', 'travel', 0.03, 2e-5, 0.1),
  first: gauge('AC-1', 'supply', 250 * BAR, 0.2 * BAR, { quantity: 'pressure' }),
  second: gauge('AC-2', 'supply-2', 250 * BAR, 0.2 * BAR),
  circuitLow: gauge('C-1L', 'output', 10 * BAR, 0.05 * BAR, { tiedTo: 'C-1' }),
  circuit: gauge('C-1', 'output', 160 * BAR, 0.1 * BAR),
  other: gauge('C-2', 'output-2', 160 * BAR, 0.1 * BAR),
  oil: meter('T-1', 'oil', 'temperature', 393, 0.5, 0.3),
  timer: meter('RT-1', 'recorder', 'duration', 60, 0.01, 0.05),
};

/** A bench for motor-pump boosters: its meters, and a recorder for how long the pump is off. */
const pumped = {
  stored: gauge('AC-3', 'supply', 250 * BAR, 0.2 * BAR, { quantity: 'pressure' }),
  battery: meter('U-1', 'battery', 'voltage', 20, 0.01, 0.2),
  drop: meter('U-2', 'drop', 'voltage', 5, 0.01, 0.3),
  clamp: meter('I-1', 'current', 'current', 60, 0.1, 0.5),
  fluid: meter('T-2', 'fluid', 'temperature', 393, 0.5, 0.3),
  recorder: meter('RT-2', 'pump-clock', 'duration', 3600, 0.1, 0.005),
};

/** What reads a feed, a motor and a sensor. */
const electric = {
  battery: [pumped.battery],
  drop: [pumped.drop],
  plug: [meter('U-3', 'plug', 'voltage', 20, 0.01, 0.1)],
  earth: [meter('U-4', 'earth', 'voltage', 5, 0.001, 0.1)],
  current: [pumped.clamp],
  motor: [meter('I-2', 'motor', 'current', 100, 0.1, 0.5)],
  sensor: [meter('U-5', 'sensor', 'voltage', 20, 0.01, 0.05)],
  'track-1': [meter('U-6', 'track-1', 'voltage', 20, 0.01, 0.05)],
  'track-2': [meter('U-7', 'track-2', 'voltage', 20, 0.01, 0.05)],
  'step-clock': [meter('RT-5', 'step-clock', 'duration', 60, 0.001, 0.005)],
} as const;

const volts = (tag: string, port: string) => meter(tag, port, 'voltage', 20, 0.001, 0.02);

/** What is carried for a decoupled brake. */
const decoupled = {
  battery: [pumped.battery],
  store: [meter('U-8', 'store', 'voltage', 20, 0.01, 0.1)],
  supply: [gauge('AC-6', 'supply', 250 * BAR, 0.2 * BAR, { quantity: 'pressure' })],
  'front-left': [gauge('W-FL', 'front-left', 160 * BAR, 0.1 * BAR)],
  'front-right': [gauge('W-FR', 'front-right', 160 * BAR, 0.1 * BAR)],
  'rear-left': [gauge('W-RL', 'rear-left', 160 * BAR, 0.1 * BAR)],
  'rear-right': [gauge('W-RR', 'rear-right', 160 * BAR, 0.1 * BAR)],
  sensor: [volts('U-5', 'sensor')],
  'track-1': [volts('U-6', 'track-1')],
  'track-2': [volts('U-7', 'track-2')],
  'master-1': [volts('U-M1', 'master-1')],
  'master-2': [volts('U-M2', 'master-2')],
  'accumulator-sensor': [volts('U-AC', 'accumulator-sensor')],
  'front-left-sensor': [volts('U-FL', 'front-left-sensor')],
  'front-right-sensor': [volts('U-FR', 'front-right-sensor')],
  'rear-left-sensor': [volts('U-RL', 'rear-left-sensor')],
  'rear-right-sensor': [volts('U-RR', 'rear-right-sensor')],
  valve: [meter('I-3', 'valve', 'current', 10, 0.001, 0.1)],
  timer: [meter('RT-6', 'timer', 'duration', 3600, 0.1, 0.005)],
  requested: [meter('NM-1', 'requested', 'torque', 3000, 1, 0.2)],
  granted: [meter('NM-2', 'granted', 'torque', 3000, 1, 0.2)],
} as const;

/** What is carried for a steering system. */
const steered = {
  line: gauge('ST-1', 'line', 160 * BAR, 0.5 * BAR, { quantity: 'pressure' }),
  flow: meter('FM-1', 'flow', 'flow', 30e-3 / 60, 0.1e-3 / 60, 0.5),
};

/** What is carried for a car on stored pressure. */
const storedPressure = {
  front: gauge('AC-4', 'supply', 250 * BAR, 0.2 * BAR, { quantity: 'pressure' }),
  rear: gauge('AC-5', 'supply-2', 250 * BAR, 0.2 * BAR),
  ram: gauge('RM-1', 'ram', 250 * BAR, 0.2 * BAR, { quantity: 'pressure' }),
  left: meter('H-1', 'left', 'travel', 1, 5e-4, 0.1),
  right: meter('H-2', 'right', 'travel', 1, 5e-4, 0.1),
  engine: meter('N-1', 'speed', 'rotation', 100, 0.05, 0.2),
  first: meter('RT-3', 'timer', 'duration', 86_400, 0.1, 1e-4),
  second: meter('RT-4', 'timer-2', 'duration', 86_400, 0.1, 1e-4),
};

const valveRig = {
  treadle: [pack.rule],
  supply: [pack.first],
  'supply-2': [pack.second],
  output: [pack.circuitLow, pack.circuit],
  'output-2': [pack.other],
  oil: [pack.oil],
  recorder: [pack.timer],
} as const;

const storedPressureRig = {
  supply: [storedPressure.front],
  'supply-2': [storedPressure.rear],
  timer: [storedPressure.first],
  'timer-2': [storedPressure.second],
  speed: [storedPressure.engine],
  fluid: [pumped.fluid],
} as const;

/** Gauges on each port, by family. */
/** What makes a source of vacuum an electric pump, in place of a manifold: on below 55 kPa of vacuum, off above 70. */
export const ELECTRIC_PUMP = {
  makes: 'electric-pump',
  idle_Pa: null,
  spare_m3PerSPa: null,
  floorShare: 0.12,
  suction_m3PerS: 5e-4,
  on_Pa: 55e3,
  off_Pa: 70e3,
} as const;

export const RIGS = {
  'remote-vacuum': {
    input: [gauges.inLow, gauges.inHigh],
    output: [gauges.outLow, gauges.outHigh],
    supply: [gauges.supply],
    activation: [gauges.activation],
  },
  'rod-servo': {
    input: [servoGauges.fluid],
    output: [servoGauges.cell],
    supply: [servoGauges.tank],
    clock: [servoGauges.watch],
  },
  'pedal-vacuum': {
    pedal: [carried.pedal],
    output: [gauges.outLow, gauges.outHigh],
    supply: [carried.vacuum],
    gap: [carried.depth],
    clock: [servoGauges.watch],
  },
  'pedal-valve': valveRig,
  'pedal-valve-vehicle': valveRig,
  'hydraulic-booster': {
    pedal: [carried.pedal],
    output: [gauges.outLow, gauges.outHigh],
    travel: [carried.rule],
    clock: [servoGauges.watch],
    line: [steered.line],
    flow: [steered.flow],
    fluid: [pumped.fluid],
  },
  'motor-pump-booster': {
    pedal: [carried.pedal],
    supply: [pumped.stored],
    output: [gauges.outLow, gauges.outHigh],
    battery: [pumped.battery],
    current: [pumped.clamp],
    drop: [pumped.drop],
    fluid: [pumped.fluid],
    'pump-clock': [pumped.recorder],
  },
  'motor-pump-vehicle': {
    pedal: [carried.pedal],
    front: [carried.front],
    rear: [carried.rear],
    travel: [carried.rule],
    clock: [servoGauges.watch],
    supply: [pumped.stored],
    battery: [pumped.battery],
    current: [pumped.clamp],
    drop: [pumped.drop],
    fluid: [pumped.fluid],
    'pump-clock': [pumped.recorder],
  },
  'hydraulic-vehicle': {
    pedal: [carried.pedal],
    front: [carried.front],
    rear: [carried.rear],
    travel: [carried.rule],
    clock: [servoGauges.watch],
    line: [steered.line],
    flow: [steered.flow],
    fluid: [pumped.fluid],
  },
  'stored-pressure': {
    pedal: [carried.pedal],
    ...storedPressureRig,
    front: [carried.front],
    rear: [carried.rear],
    travel: [carried.rule],
  },
  'stored-pressure-vehicle': {
    pedal: [carried.pedal],
    ...storedPressureRig,
    front: [carried.front],
    rear: [carried.rear],
    travel: [carried.rule],
    ram: [storedPressure.ram],
    left: [storedPressure.left],
    right: [storedPressure.right],
  },
  electromechanical: {
    pedal: [carried.pedal],
    output: [gauges.outLow, gauges.outHigh],
    ...electric,
  },
  'electromechanical-vehicle': {
    pedal: [carried.pedal],
    front: [carried.front],
    rear: [carried.rear],
    travel: [carried.rule],
    clock: [servoGauges.watch],
    ...electric,
  },
  'by-wire-vehicle': {
    pedal: [carried.pedal],
    travel: [carried.rule],
    ...decoupled,
  },
  'vacuum-vehicle': {
    pedal: [carried.pedal],
    front: [carried.front],
    rear: [carried.rear],
    supply: [carried.vacuum],
    source: [carried.source],
    travel: [carried.rule],
    gap: [carried.depth],
    clock: [servoGauges.watch],
  },
} as const satisfies Record<FamilyKind, Rig>;

const conditions: Conditions = {
  barometer_Pa: 101_325,
  temperature_K: 293.15,
  supplyKind: 'pump',
  supplyHealth_Pa: 18 * INHG,
  technician: 'A. Technician',
  day: '2026-11-23',
  thresholds: { meets: 0.95, fails: 0.05 },
};

/** A bench with a unit of one family on it. */
export function benchOf(kind: FamilyKind) {
  const family = FAMILIES[kind];
  const usualRig: Rig = RIGS[kind];
  const profile = family.typical;

  function contextWith(change: Partial<RunContext<unknown>> = {}): RunContext<unknown> {
    const whole = { profile, rig: usualRig, shelf: Object.values(usualRig).flat(), conditions, ...change };
    return { ...whole, procedure: change.procedure ?? family.procedure(whole.profile, whole.rig) };
  }

  /** A healthy unit on a good supply with true gauges and no noise; change what the scenario is about. */
  const truthWith = (change: Partial<BenchTruth> = {}): BenchTruth => ({
    parameters: family.healthy(profile).values,
    supply_Pa: 20 * INHG,
    gauges: {},
    signs: {},
    noise_steps: 0,
    ...change,
  });

  /** The truth of a unit with one fault. */
  function faultyTruth(faultId: string, severity: number, change: Partial<BenchTruth> = {}): BenchTruth {
    const fault = family.faults.find(({ id }) => id === faultId);
    if (!fault) throw new RangeError(`faultId: no fault “${faultId}”`);
    return truthWith({
      parameters: fault.apply(family.healthy(profile).values, severity),
      signs: fault.signs,
      ...change,
    });
  }

  /** A whole run on the simulated bench, with its results. */
  function bench(truth: BenchTruth, context = contextWith(), seed = 1) {
    const events = rehearse(family, context, truth, {
      random: seeded(seed),
      startAt: '2026-11-23T08:00:00.000Z',
    });
    return { events, ...outcome(context, events) };
  }

  function outcome(context: RunContext<unknown>, events: readonly RunEvent[]) {
    const run = reduceRun(context.procedure, events, gateRule(instrumentsOf(context.rig, context.shelf)));
    const results = family.results(context, run);
    const byId = (id: string) => {
      const result = results.find((candidate) => candidate.id === id);
      if (!result) throw new RangeError(`id: no result “${id}” among ${results.map((r) => r.id).join(', ')}`);
      return result;
    };
    return { context, run, results, byId, assessment: family.assess(context, run, results) };
  }

  return { family, profile, contextWith, truthWith, faultyTruth, bench, outcome };
}

const remote = benchOf('remote-vacuum');
export const { family, contextWith, truthWith, faultyTruth, bench, outcome } = remote;
export const profile = remote.profile as RemoteVacuumProfile;
export const rig = RIGS['remote-vacuum'];
