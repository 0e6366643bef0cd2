import { SEA_LEVEL_PA } from '../../air/atmosphere';
import { BAROMETER, ELAPSED, TEMPERATURE } from '../inputs';
import { inputPart, slaveOutput_Pa } from '../../air/diaphragm';
import { airFlow_PaM3PerS } from '../../air/flow';
import {
  AIR_GAS_CONSTANT,
  depressionAfter_Pa,
  REFERENCE_DENSITY_KG_M3,
  REFERENCE_TEMPERATURE_K,
} from '../../air/leak';
import { pressureBetween_Pa } from '../../air/series';
import { INHG_PA } from '../../quantities/units';
import type { Room } from '../../contract/run-context';
import type { LoggedUnit } from '../../contract/logged-unit';
import type { Member, Nodes, Standing } from '../../model/member';
import {
  healthyUnit,
  reader,
  toVector,
  type HealthyUnit,
  type InputDescriptor,
  type Named,
} from '../../model/vectors';
import { type Vector } from '../../model/descriptor';
import { healthyLeak_m3PerSPa, HEALTHY_SHARE_OF_LIMIT } from '../healthy-leak';
import { circle_m2 } from '../profile-fields';
import type { RemoteVacuumProfile } from './profile';

/** What makes one unit differ from another, and what faults move. */
export const parameters = [
  { id: 'effectiveArea_m2', name: 'Effective diaphragm area', quantity: 'area' },
  { id: 'slaveArea_m2', name: 'Slave piston area', quantity: 'area' },
  { id: 'rodArea_m2', name: 'Push rod area', quantity: 'area' },
  { id: 'spring_N', name: 'Spring force', quantity: 'force' },
  {
    id: 'valveGain',
    name: 'Pressure difference that the valve sets, of input above crack',
    quantity: 'ratio',
  },
  { id: 'crack_Pa', name: 'Crack', quantity: 'pressure' },
  { id: 'valveJump_Pa', name: 'Pressure difference that the valve sets at crack', quantity: 'depression' },
  { id: 'hysteresis', name: 'Hysteresis, part of output', quantity: 'percent' },
  { id: 'passage', name: 'Part of the input passed, assist off', quantity: 'percent' },
  { id: 'threshold_Pa', name: 'Threshold, assist off', quantity: 'pressure' },
  { id: 'residual_Pa', name: 'Residual', quantity: 'pressure' },
  { id: 'fluidLoss_PaPerS', name: 'Output loss on hold', quantity: 'pressureRate' },
  { id: 'leak_m3PerSPa', name: 'Air leak', quantity: 'conductance' },
  { id: 'appliedMore_m3PerSPa', name: 'Further air leak, applied', quantity: 'conductance' },
  { id: 'vacuumVolume_m3', name: 'Vacuum volume', quantity: 'volume' },
  { id: 'restDifference_Pa', name: 'Supply less activation at rest', quantity: 'depression' },
  { id: 'activationFloor_Pa', name: 'Activation left at full activation', quantity: 'depression' },
  { id: 'selfApply_Pa', name: 'Output as vacuum arrives', quantity: 'pressure' },
  { id: 'hoseDrop', name: 'Supply lost in the hose on applying', quantity: 'percent' },
  { id: 'switchCloses_Pa', name: 'Stop-lamp switch closes', quantity: 'pressure' },
  { id: 'tear_m3PerSPa', name: 'Passage between the sides', quantity: 'conductance' },
] as const;

/** What is set. */
const inputs = [
  { id: 'input_Pa', name: 'Input', quantity: 'pressure', from: { port: 'input', as: 'set' } },
  BAROMETER,
  TEMPERATURE,
  ELAPSED,
] as const satisfies readonly InputDescriptor[];

/** What a gauge can show. */
const readings = [
  { id: 'output', name: 'Output', quantity: 'pressure' },
  { id: 'activation', name: 'Activation', quantity: 'depression' },
  // No hand stops on the way back at exactly what the gauge is to show.
  { id: 'outputReleasing', name: 'Output, coming down', quantity: 'pressure', apart: { part: 0.004 } },
  { id: 'outputHeld', name: 'Output after a hold', quantity: 'pressure' },
  { id: 'outputPassed', name: 'Output, assist off', quantity: 'pressure' },
  { id: 'outputAtRest', name: 'Output as vacuum arrives', quantity: 'pressure' },
  { id: 'residual', name: 'Residual output', quantity: 'pressure' },
  { id: 'supplyApplied', name: 'Supply at the unit, applied', quantity: 'depression' },
  { id: 'supplyLeftReleased', name: 'Supply left, released', quantity: 'depression' },
  { id: 'supplyLeftApplied', name: 'Supply left, applied', quantity: 'depression' },
  // Read as something else begins to move, by a hand that raises it some tenths of a bar in a second.
  { id: 'crackInput', name: 'Crack input', quantity: 'pressure', apart: { SI: 1e4 } },
  // Read as the activation gauge falls no more: the same hand has gone on by then.
  { id: 'runoutInput', name: 'Runout input', quantity: 'pressure', apart: { part: 0.025 } },
  { id: 'runoutOutput', name: 'Runout output', quantity: 'pressure', apart: { part: 0.01 } },
  { id: 'fullActivation', name: 'Activation at full activation', quantity: 'depression' },
  { id: 'switchCloses', name: 'Stop-lamp switch closes', quantity: 'pressure' },
  { id: 'supplyAtRest', name: 'Supply at the unit, at rest', quantity: 'depression' },
] as const;

export type Parameters = Named<typeof parameters>;

/** Parameters by name. */
export const named = reader(parameters);

export type ReadingId = (typeof readings)[number]['id'];

/** What a technician knows of the line: its slope B, its start J at crack. With the diaphragm's area they set the valve. */
interface Line {
  readonly area_m2: number;
  readonly boostRatio: number;
  readonly jumpIn_Pa: number;
}

/**
 * Parameters of a healthy unit of this profile. Half-widths come from the profile's own limits. What the profile bounds
 * is B and the diaphragm's area, not the valve: the extreme healthy units are those with both at their limits.
 */
function healthy(profile: RemoteVacuumProfile): HealthyUnit {
  const { limits, boostRatio, crack_Pa } = profile;
  const area_m2 = circle_m2(profile.effectiveDiameter_m);
  const jumpIn_Pa = profile.jumpIn_Pa ?? (boostRatio - 1) * crack_Pa;
  const leak = (limit_PaPerS: number) => healthyLeak_m3PerSPa(limit_PaPerS, profile.vacuumVolume_m3);
  const slave = {
    slaveArea_m2: circle_m2(profile.slaveBore_m),
    rodArea_m2: circle_m2(profile.rodDiameter_m),
    spring_N: profile.spring_N,
    crack_Pa,
  };
  const unitWith = (line: Line): Parameters => ({
    ...slave,
    effectiveArea_m2: line.area_m2,
    ...valveFor(slave, line),
    hysteresis: HEALTHY_SHARE_OF_LIMIT * limits.hysteresis_fraction.value,
    passage: 1,
    threshold_Pa: 0,
    residual_Pa: 0,
    fluidLoss_PaPerS: HEALTHY_SHARE_OF_LIMIT * limits.holdLoss_PaPerS.value,
    leak_m3PerSPa: leak(limits.vacuumLossReleased_PaPerS.value),
    appliedMore_m3PerSPa: Math.max(
      0,
      leak(limits.vacuumLossApplied_PaPerS.value) - leak(limits.vacuumLossReleased_PaPerS.value),
    ),
    vacuumVolume_m3: profile.vacuumVolume_m3,
    restDifference_Pa: 0,
    activationFloor_Pa: 0,
    selfApply_Pa: 0,
    hoseDrop: 0,
    switchCloses_Pa: profile.lampSwitch
      ? (profile.lampSwitch.closesFrom_Pa + profile.lampSwitch.closesTo_Pa) / 2
      : 0,
    tear_m3PerSPa: 0,
  });
  const values = unitWith({ area_m2, boostRatio, jumpIn_Pa });
  const spread_B = limits.boostRatio_fraction.value * boostRatio;
  const spread_m2 = limits.effectiveArea_fraction.value * area_m2;
  // J moves with B, so that the band is B ± its limit along the whole line where the line runs through the origin.
  const extremes = [-1, 1].flatMap((wide) =>
    [-1, 1].map((steep) =>
      unitWith({
        area_m2: area_m2 + wide * spread_m2,
        boostRatio: boostRatio + steep * spread_B,
        jumpIn_Pa: jumpIn_Pa + steep * spread_B * crack_Pa,
      }),
    ),
  );
  const halfWidth = (id: 'valveGain' | 'valveJump_Pa') =>
    Math.max(...extremes.map((unit) => Math.abs(unit[id] - values[id])));
  return {
    ...healthyUnit(parameters, values, {
      effectiveArea_m2: spread_m2,
      valveGain: halfWidth('valveGain'),
      valveJump_Pa: halfWidth('valveJump_Pa'),
    }),
    extremes: extremes.map((unit) => toVector(parameters, unit)),
  };
}

/**
 * The control valve that gives a line of output against input with a diaphragm: r = (B − k)·A_slave/A_d and
 * Δp_J = (A_slave·(crack·(1 − k) + J) + F_s)/A_d. Both belong to the valve: a smaller diaphragm leaves them. Handbook 8.1.
 */
function valveFor(
  {
    slaveArea_m2,
    rodArea_m2,
    spring_N,
    crack_Pa,
  }: Pick<Parameters, 'slaveArea_m2' | 'rodArea_m2' | 'spring_N' | 'crack_Pa'>,
  { area_m2, boostRatio, jumpIn_Pa }: Line,
): Pick<Parameters, 'valveGain' | 'valveJump_Pa'> {
  const k = inputPart({ rodArea_m2, slaveArea_m2 });
  return {
    valveGain: ((boostRatio - k) * slaveArea_m2) / area_m2,
    valveJump_Pa: (slaveArea_m2 * (crack_Pa * (1 - k) + jumpIn_Pa) + spring_N) / area_m2,
  };
}

/** Slave cylinder and vacuum volume: what a trace of such a unit is worked out with. */
export const logged = (profile: RemoteVacuumProfile) =>
  ({
    slave: {
      slaveArea_m2: circle_m2(profile.slaveBore_m),
      rodArea_m2: circle_m2(profile.rodDiameter_m),
      spring_N: profile.spring_N,
    },
    rod: null,
    vacuumVolume_m3: profile.vacuumVolume_m3,
  }) satisfies LoggedUnit;

/** How a unit of ordinary make passes air. Profiles do not name these; nothing rests on them while the sides are tight. */
export const AIR = {
  /** The vacuum side's part of the vacuum volume at rest. */
  vacuumShare: 0.65,
  /** Time in which the open air valve would fill the working side from empty, s. */
  fill_s: 0.25,
  /** Sonic conductance of the vacuum hose (some 8 mm bore), m³/(s·Pa). */
  hose_m3PerSPa: 1e-7,
  /** Sonic conductance of the way between the sides at rest, valve and crossover pipe (some 4 mm bore), m³/(s·Pa). */
  crossover_m3PerSPa: 2.4e-8,
  /** A breather that leaves the first depression at full activation passes half of the air, at the last 2 %. Handbook-models 8.1. */
  breather: { half_Pa: 0.5 * INHG_PA, last_Pa: 6 * INHG_PA, half: 0.5, last: 0.02 },
} as const;

/** Depression of the vacuum side at which a poppet that leaks is reckoned, Pa. */
const ORDINARY_SUPPLY_PA = 20 * INHG_PA;

/**
 * How far the working side stands above the vacuum side at rest where the air valve leaks, Pa: (C·p_atm/2C_x)²/p_f, at
 * sea level on an ordinary supply. Handbook-models 8.3, the same valve.
 */
export const restDifference_Pa = (leak_m3PerSPa: number): number =>
  ((leak_m3PerSPa * SEA_LEVEL_PA) / (2 * AIR.crossover_m3PerSPa)) ** 2 / (SEA_LEVEL_PA - ORDINARY_SUPPLY_PA);

/** Sonic conductance of the control valve's air port, wide open, m³/(s·Pa). */
export const airPort_m3PerSPa = ({ vacuumVolume_m3 }: Pick<Parameters, 'vacuumVolume_m3'>): number =>
  ((1 - AIR.vacuumShare) * vacuumVolume_m3) /
  (AIR.fill_s * REFERENCE_DENSITY_KG_M3 * AIR_GAS_CONSTANT * REFERENCE_TEMPERATURE_K);

/** The part of the air that a breather lets through, by the depression that it leaves: even on scales of logarithms. */
function breatherPasses({ activationFloor_Pa }: Parameters): number {
  const { half_Pa, last_Pa, half, last } = AIR.breather;
  if (activationFloor_Pa <= 0) return 1;
  const slope = Math.log(last / half) / Math.log(last_Pa / half_Pa);
  return Math.min(1, half * (activationFloor_Pa / half_Pa) ** slope);
}

/** The same with the breather as it is. */
export const airWay_m3PerSPa = (p: Parameters): number => airPort_m3PerSPa(p) * breatherPasses(p);

/** The line of pressure difference against input that the valve is made for, carried on below crack. Handbook 8.1. */
export const valveLine_Pa = (p: Parameters, input_Pa: number): number =>
  p.valveJump_Pa + p.valveGain * (input_Pa - p.crack_Pa);

/** Pressure difference across the diaphragm that the valve calls for: none below crack. Handbook 8.1. */
export const calledFor_Pa = (p: Parameters, input_Pa: number): number =>
  input_Pa < p.crack_Pa ? 0 : valveLine_Pa(p, input_Pa);

/** Output at which the piston stands on an input and a pressure difference, were nothing to hold it up. Handbook 8.1. */
export const balance_Pa = (p: Parameters, input_Pa: number, difference_Pa: number): number =>
  slaveOutput_Pa(p, input_Pa, difference_Pa, p.effectiveArea_m2);

/** What the diaphragm adds to the output at a pressure difference, Pa. */
const lift_Pa = (p: Parameters, difference_Pa: number): number =>
  Math.max(0, difference_Pa * p.effectiveArea_m2 - p.spring_N) / p.slaveArea_m2;

/** Depression that a blocked breather leaves on the working side, at most the supply's, Pa. */
const floor_Pa = (p: Parameters, supply_Pa: number): number => Math.min(p.activationFloor_Pa, supply_Pa);

/**
 * Absolute pressure of the working side beside a vacuum side: as far above it as the valve calls for, at most the room's,
 * or with a passage between the sides what that and the valve's air way in series leave there.
 */
const workingSide_Pa = (p: Parameters, called_Pa: number, vacuum_Pa: number, room: Room): number =>
  Math.min(
    vacuum_Pa + called_Pa,
    pressureBetween_Pa(
      airWay_m3PerSPa(p),
      p.tear_m3PerSPa,
      room.barometer_Pa - floor_Pa(p, room.barometer_Pa - vacuum_Pa),
      vacuum_Pa,
      room.temperature_K,
    ),
  );

/** The valve wide open: it calls for all that there is. */
const WIDE_OPEN_PA = Infinity;

/**
 * A remote vacuum unit. Handbook 8.1: the valve weighs the input against the working side's air,
 * Δp_w = min(Δp, Δp_J + r·(in − crack)), none below crack; the diaphragm pushes,
 * out = max(in, k·in + (Δp_w·A_d − F_s)/A_slave) with k = 1 − A_rod/A_slave; the activation port reads Δp − Δp_w. Air that
 * passes it, from the room through the valve and a passage between the sides, is taken away by what feeds it.
 */
class RemoteVacuumUnit implements Standing {
  private readonly p: Parameters;
  private readonly k: number;
  private readonly input_Pa: number;
  private readonly through_Pa: number;
  private readonly called_Pa: number;
  private readonly elapsed_s: number;
  private readonly room: Room;

  constructor(
    parameters: Vector,
    [input_Pa = 0, barometer_Pa = 0, temperature_K = 0, elapsed_s = 0]: Vector,
  ) {
    this.p = named(parameters);
    this.k = inputPart(this.p);
    this.input_Pa = input_Pa;
    this.through_Pa = Math.max(0, input_Pa);
    this.called_Pa = calledFor_Pa(this.p, input_Pa);
    this.elapsed_s = elapsed_s;
    this.room = { barometer_Pa, temperature_K };
  }

  /** The vacuum side, Pa absolute: a hose that closes up on applying loses part of the depression at its end. */
  private vacuumSide_Pa(node_Pa: number): number {
    const { barometer_Pa } = this.room;
    return barometer_Pa - (barometer_Pa - node_Pa) * (1 - this.p.hoseDrop);
  }

  /** Air given to the source while the valve calls for so much. */
  private given_PaM3PerS(called_Pa: number, node_Pa: number): number {
    const { p, room } = this;
    if (called_Pa <= 0) return this.leaked_PaM3PerS(p.leak_m3PerSPa, node_Pa);
    const vacuum_Pa = this.vacuumSide_Pa(node_Pa);
    const across =
      p.tear_m3PerSPa > 0
        ? airFlow_PaM3PerS(
            p.tear_m3PerSPa,
            workingSide_Pa(p, called_Pa, vacuum_Pa, room),
            vacuum_Pa,
            room.temperature_K,
          )
        : 0;
    const leak_m3PerSPa = AIR.vacuumShare * (p.leak_m3PerSPa + p.appliedMore_m3PerSPa);
    return across + this.leaked_PaM3PerS(leak_m3PerSPa, node_Pa);
  }

  private leaked_PaM3PerS(leak_m3PerSPa: number, node_Pa: number): number {
    const { barometer_Pa, temperature_K } = this.room;
    return node_Pa < barometer_Pa && leak_m3PerSPa > 0
      ? airFlow_PaM3PerS(leak_m3PerSPa, barometer_Pa, node_Pa, temperature_K)
      : 0;
  }

  through(terminal: number, effort: number): number {
    return terminal === VACUUM ? this.given_PaM3PerS(this.called_Pa, effort) : 0;
  }

  atRest(_terminal: number, gauge_Pa: number) {
    return { effort: gauge_Pa, passes: this.given_PaM3PerS(0, gauge_Pa) };
  }

  /** The output is what the piston's balance makes it, whatever it fills. */
  span(_terminal: number, efforts: ArrayLike<number>): readonly [number, number] {
    const output_Pa = this.output_Pa(efforts[VACUUM]!);
    return [output_Pa, output_Pa];
  }

  /** Pressure difference across the diaphragm, Pa. */
  private difference_Pa(called_Pa: number, node_Pa: number): number {
    const vacuum_Pa = this.vacuumSide_Pa(node_Pa);
    return called_Pa > 0 ? workingSide_Pa(this.p, called_Pa, vacuum_Pa, this.room) - vacuum_Pa : 0;
  }

  private output_Pa(node_Pa: number): number {
    const { p, k, called_Pa, through_Pa } = this;
    if (called_Pa <= 0 || node_Pa >= this.room.barometer_Pa) return through_Pa;
    return Math.max(through_Pa, k * this.input_Pa + lift_Pa(p, this.difference_Pa(called_Pa, node_Pa)));
  }

  read(efforts: ArrayLike<number>, nodes: Nodes): number[] {
    const { p, k, room, through_Pa, called_Pa } = this;
    const { barometer_Pa } = room;
    const atRest_Pa = nodes.settle(VACUUM, (node_Pa) => this.given_PaM3PerS(0, node_Pa));
    const open_Pa = nodes.settle(VACUUM, (node_Pa) => this.given_PaM3PerS(WIDE_OPEN_PA, node_Pa));
    const supplyAtRest_Pa = barometer_Pa - atRest_Pa;
    const applied_Pa = efforts[VACUUM]!;
    const assisted = applied_Pa < barometer_Pa;
    const output_Pa = this.output_Pa(applied_Pa);
    const fullDifference_Pa = this.difference_Pa(WIDE_OPEN_PA, open_Pa);
    const ceiling_Pa = k * this.input_Pa + lift_Pa(p, fullDifference_Pa);
    // Below crack the valve has closed: nothing holds the output above the input.
    const released_Pa =
      called_Pa > 0
        ? Math.min(balance_Pa(p, this.input_Pa, called_Pa) * (1 + p.hysteresis), ceiling_Pa)
        : through_Pa;
    const runoutInput_Pa = p.crack_Pa + Math.max(0, fullDifference_Pa - p.valveJump_Pa) / p.valveGain;
    const supplyApplied_Pa = barometer_Pa - this.vacuumSide_Pa(applied_Pa);
    const rest_Pa = Math.max(0, supplyAtRest_Pa - p.restDifference_Pa);
    const activation_Pa = Math.max(0, supplyApplied_Pa - this.difference_Pa(called_Pa, applied_Pa));
    return [
      output_Pa,
      called_Pa > 0 ? Math.min(rest_Pa, activation_Pa) : rest_Pa,
      assisted ? Math.max(through_Pa, released_Pa) : through_Pa,
      Math.max(0, output_Pa - p.fluidLoss_PaPerS * this.elapsed_s),
      Math.max(0, through_Pa * p.passage - p.threshold_Pa),
      assisted ? p.selfApply_Pa : 0,
      assisted ? Math.max(p.residual_Pa, p.selfApply_Pa) : p.residual_Pa,
      supplyApplied_Pa,
      this.leftAfter_Pa(supplyAtRest_Pa, p.leak_m3PerSPa),
      this.leftAfter_Pa(
        supplyAtRest_Pa,
        p.leak_m3PerSPa + p.appliedMore_m3PerSPa + this.acrossWhileApplied_m3PerSPa(atRest_Pa),
      ),
      p.crack_Pa,
      runoutInput_Pa,
      k * runoutInput_Pa + lift_Pa(p, fullDifference_Pa),
      Math.max(0, barometer_Pa - this.vacuumSide_Pa(open_Pa) - fullDifference_Pa),
      p.switchCloses_Pa,
      supplyAtRest_Pa,
    ];
  }

  /** Depression left in the unit, the source shut off, after the time given. */
  private leftAfter_Pa(supply_Pa: number, conductance_m3PerSPa: number): number {
    return depressionAfter_Pa(Math.max(0, supply_Pa), this.elapsed_s, {
      conductance_m3PerSPa,
      volume_m3: this.p.vacuumVolume_m3,
      ...this.room,
    });
  }

  /**
   * What a passage between the sides lets into the vacuum side while the unit is applied and the source is shut, as a
   * leak from the room into the whole volume: choked, it passes in proportion to the pressure of the working side, and
   * only the vacuum side fills.
   */
  private acrossWhileApplied_m3PerSPa(vacuum_Pa: number): number {
    const { p, room, called_Pa } = this;
    if (p.tear_m3PerSPa <= 0 || called_Pa <= 0) return 0;
    const working_Pa = workingSide_Pa(p, called_Pa, vacuum_Pa, room);
    return (p.tear_m3PerSPa * working_Pa) / (room.barometer_Pa * AIR.vacuumShare);
  }
}

/** Places of the terminals. */
const VACUUM = 0;

/** The unit between the vacuum that feeds it and the brakes that it fills. */
export const member: Member<RemoteVacuumProfile> = {
  parameters,
  inputs,
  readings,
  fedBy: [{ id: 'vacuum', name: 'Vacuum supply', coupling: 'vacuum' }],
  feeds: [{ id: 'fluid', name: 'Fluid out', coupling: 'fluid' }],
  healthy,
  with: (vector, at) => new RemoteVacuumUnit(vector, at),
};
