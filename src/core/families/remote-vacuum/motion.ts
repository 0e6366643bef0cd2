import { inputPart } from '../../air/diaphragm';
import { airExchange_PaM3PerS, airFlow_PaM3PerS, meteredFlow_PaM3PerS } from '../../air/flow';
import { SEA_LEVEL_PA } from '../../air/atmosphere';
import type { Vector } from '../../model/descriptor';
import type { Instant, Motion, Moving, NodeNow, PartsNow, Place } from '../../model/motion';
import { HANDLE_COMMANDS, VALVE_COMMAND, type BenchHands } from '../bench-hands';
import {
  AIR,
  airPort_m3PerSPa,
  airWay_m3PerSPa,
  balance_Pa,
  calledFor_Pa,
  named,
  valveLine_Pa,
  type Parameters,
} from './member';

const BAR = 1e5;
import { parts, stages } from './works';

/** What changes with time in the unit. */
const states = [
  { id: 'vacuumSide_Pa', name: 'Vacuum side, absolute', quantity: 'barometer', scale: 1e3 },
  { id: 'workingSide_Pa', name: 'Working side, absolute', quantity: 'barometer', scale: 1e3 },
  { id: 'travel_m', name: 'Travel of the slave piston', quantity: 'length', scale: 1e-4 },
  { id: 'input_Pa', name: 'Input', quantity: 'pressure', scale: BAR },
  { id: 'output_Pa', name: 'Output', quantity: 'pressure', scale: BAR },
  { id: 'felt_Pa', name: 'Input as the control valve feels it', quantity: 'pressure', scale: BAR },
] as const;

/** Figures at the far end of a drawing; beyond them a part stands still there. */
const FAR = { travel_m: 0.008, fluid_Pa: 1.2e7 } as const;

/**
 * How quickly a unit of ordinary make answers. Profiles do not name these, and no verdict rests on them: they shape
 * only the way to the steady state, which they leave alone.
 */
const RESPONSE = {
  /** Rate at which the control valve closes the gap between the difference called for and the difference, 1/s. */
  valveGain_perS: 150,
  /** Lag of the slave piston in its fluid, s, and the most fluid that it moves for a pressure difference. */
  piston_s: 4e-3,
  piston_m3PerSPa: 1e-10,
  /** Rod force at which the rod is firmly against the piston, N. */
  contact_N: 10,
  /** Lag of the passage through the piston, s, and the most that it passes. */
  passage_s: 5e-3,
  passage_m3PerSPa: 6e-11,
  /** Travel after which the piston has closed its own passage, m. */
  gap_m: 2e-4,
  /** Lag of the input line behind the handle, and of the control valve behind the input, s. */
  line_s: 8e-3,
  /** Give of the shut-in input line, as a part of the output side's. */
  trapped: 0.25,
  /** Sonic conductance of the way between the two sides at rest: wide enough that arriving vacuum applies nothing. */
  atRest_m3PerSPa: 3e-7,
} as const;

/**
 * A remote vacuum unit over time: two air chambers, the control valve that lets air into one or joins them, the slave
 * piston with its passage, and a load. The valve closes at the pressure difference that the input calls for, the piston stands
 * where diaphragm, spring and fluid balance, so the steady end is `steady`. Handbook 4, 7 and 8.1.
 */
class RemoteVacuumMotion implements Moving {
  private readonly p: Parameters;
  private readonly vacuum: NodeNow;
  private readonly fluid: NodeNow;
  private readonly k: number;
  /** Error of the pressure difference at which the control valve is fully open, Pa. */
  private readonly band_Pa: number;
  /** Rise of the output with the input below runout. */
  private readonly boostRatio: number;
  private readonly valve_m3PerSPa: number;
  private readonly air_m3PerSPa: number;
  private readonly vacuumVolume_m3: number;
  private readonly workingVolume_m3: number;

  constructor(vector: Vector, { nodes }: Place) {
    const p = named(vector);
    this.p = p;
    [this.vacuum, this.fluid] = nodes as [NodeNow, NodeNow];
    this.k = inputPart(p);
    this.boostRatio = this.k + (p.valveGain * p.effectiveArea_m2) / p.slaveArea_m2;
    this.vacuumVolume_m3 = AIR.vacuumShare * p.vacuumVolume_m3;
    this.workingVolume_m3 = p.vacuumVolume_m3 - this.vacuumVolume_m3;
    this.band_Pa = SEA_LEVEL_PA / AIR.fill_s / RESPONSE.valveGain_perS;
    this.valve_m3PerSPa = airPort_m3PerSPa(p);
    this.air_m3PerSPa = airWay_m3PerSPa(p);
  }

  atRest({ barometer_Pa }: Instant): number[] {
    return [barometer_Pa, barometer_Pa, 0, 0, 0, 0];
  }

  efforts(y: Float64Array): void {
    this.fluid.effort = y[4]!;
  }

  rates(y: Float64Array, dy: Float64Array, at: Instant<BenchHands>): void {
    const { p, k } = this;
    const { barometer_Pa, temperature_K, hands } = at;
    const vacuum = y[0]!;
    const working = y[1]!;
    const travel = Math.max(0, y[2]!);
    const input = y[3]!;
    const output = y[4]!;
    const felt = y[5]!;
    const applied = Math.min(1, travel / RESPONSE.gap_m);

    // Slave piston: moved by its rod, towards the output at which diaphragm, spring and fluid balance.
    const give = this.fluid.give(output);
    const rod_N = (working - vacuum) * p.effectiveArea_m2 - p.spring_N;
    const off_Pa = rod_N / p.slaveArea_m2 + k * input - output;
    const pistonGain = Math.min(RESPONSE.piston_m3PerSPa, give / RESPONSE.piston_s);
    const held = off_Pa < 0 ? applied : Math.min(1, Math.max(0, rod_N / RESPONSE.contact_N));
    const pushed = off_Pa * pistonGain * held;
    const speed = pushed / p.slaveArea_m2;

    // Passage: forward through the piston's check, back only while the piston stands at its end.
    const passageGain = Math.min(RESPONSE.passage_m3PerSPa, give / RESPONSE.passage_s);
    const offered = input * p.passage - p.threshold_Pa;
    const returned = output - input - p.residual_Pa;
    const passed =
      offered > output
        ? (offered - output) * passageGain
        : returned > 0 && output > 0
          ? -returned * passageGain * (1 - applied)
          : 0;

    // What is lost is named by its effect on a hold with the input shut in, where the input follows the piston.
    const assisted = output > input + 1;
    const inputGive = RESPONSE.trapped * give;
    const lost =
      assisted || hands.shutIn
        ? p.fluidLoss_PaPerS * (give + inputGive / (k * this.boostRatio)) * Math.min(1, output / BAR)
        : 0;
    dy[4] = (pushed + passed - lost) / give;
    dy[3] = hands.shutIn ? -(k * pushed + passed) / inputGive : (hands.handle_Pa - input) / RESPONSE.line_s;
    dy[2] = speed;

    // Friction: the valve feels a rising input as it is, a falling one only once it has fallen far enough.
    const late = this.feltFalling_Pa(input);
    dy[5] = hands.shutIn
      ? dy[3]
      : (input > felt ? input - felt : late < felt ? late - felt : 0) / RESPONSE.line_s;

    // Control valve: air into the working side, or the two sides joined.
    const called = this.called_Pa(felt, barometer_Pa - vacuum);
    const lacking = this.lacking(called, y);
    const join_m3PerSPa =
      called > 0 ? this.valve_m3PerSPa * Math.min(1, Math.max(0, -lacking)) : RESPONSE.atRest_m3PerSPa;
    const workingVolume = this.workingVolume_m3 + p.effectiveArea_m2 * travel;
    const vacuumVolume = Math.max(
      0.2 * this.vacuumVolume_m3,
      this.vacuumVolume_m3 - p.effectiveArea_m2 * travel,
    );
    const across =
      p.tear_m3PerSPa > 0 ? airExchange_PaM3PerS(p.tear_m3PerSPa, working, vacuum, temperature_K) : 0;
    const letIn = called > 0 && (lacking > 0 || across > 0) ? this.letIn(lacking, across, y, at) : 0;
    const joined =
      across + (join_m3PerSPa > 0 ? airExchange_PaM3PerS(join_m3PerSPa, working, vacuum, temperature_K) : 0);
    const leak =
      p.leak_m3PerSPa +
      applied *
        (((p.leak_m3PerSPa + p.appliedMore_m3PerSPa) * vacuumVolume) / p.vacuumVolume_m3 - p.leak_m3PerSPa);
    const leaked = leak > 0 ? airFlow_PaM3PerS(leak, barometer_Pa, vacuum, temperature_K) : 0;
    const drawn = this.drawn(vacuum, applied, at);
    const sweep = p.effectiveArea_m2 * speed;
    dy[0] = (joined + leaked - drawn + vacuum * sweep) / vacuumVolume;
    dy[1] = (letIn - joined - working * sweep) / workingVolume;
    this.vacuum.passed = hands.valve === 'open' ? Math.max(0, drawn) : 0;
  }

  /** What the pressure difference lacks of the one called for, as a part of the error at which the valve is fully open. */
  private lacking(called_Pa: number, y: Float64Array): number {
    return (called_Pa - (y[1]! - y[0]!)) / this.band_Pa;
  }

  /** Air that the valve lets in: what is lacking, and what goes on through a passage between the sides. */
  private letIn(lacking: number, across: number, y: Float64Array, at: Instant): number {
    const { barometer_Pa, temperature_K } = at;
    const room_Pa = barometer_Pa - Math.min(this.p.activationFloor_Pa, barometer_Pa - y[0]!);
    const open = airExchange_PaM3PerS(this.air_m3PerSPa, room_Pa, y[1]!, temperature_K);
    return meteredFlow_PaM3PerS(open, lacking, across);
  }

  /** Pressure difference that the control valve regulates to; 0 where it stands at rest and joins the two sides. */
  private called_Pa(felt: number, supply: number): number {
    const { p } = this;
    if (felt >= p.crack_Pa) return calledFor_Pa(p, felt);
    return p.selfApply_Pa > 0 && supply > p.restDifference_Pa
      ? this.differenceFor_Pa(Math.max(felt, p.selfApply_Pa), felt)
      : 0;
  }

  /** Pressure difference at which the piston stands at an output. */
  private differenceFor_Pa(output: number, input: number): number {
    const { p, k } = this;
    return ((output - k * input) * p.slaveArea_m2 + p.spring_N) / p.effectiveArea_m2;
  }

  /** What the valve feels of an input that comes down: there the output is higher by the hysteresis. */
  private feltFalling_Pa(input: number): number {
    const { p } = this;
    const line = balance_Pa(p, input, valveLine_Pa(p, input));
    const held = this.differenceFor_Pa(Math.max(0, line) * (1 + p.hysteresis), input);
    const felt = p.crack_Pa + (held - p.valveJump_Pa) / p.valveGain;
    return Math.max(input, Math.min(felt, input * (1 + p.hysteresis) + p.crack_Pa));
  }

  /** Air drawn out through the hose; back through it only where the room or a collapsed hose lets it. */
  private drawn(vacuum: number, applied: number, at: Instant<BenchHands>): number {
    const { barometer_Pa, temperature_K } = at;
    const { valve } = at.hands;
    if (valve === 'shut') return 0;
    if (valve === 'vented')
      return airExchange_PaM3PerS(AIR.hose_m3PerSPa, vacuum, barometer_Pa, temperature_K);
    const lost = this.p.hoseDrop * applied;
    const reached = barometer_Pa - (barometer_Pa - this.vacuum.effort) * (1 - lost);
    if (vacuum >= reached) return airFlow_PaM3PerS(AIR.hose_m3PerSPa, vacuum, reached, temperature_K);
    return lost > 0 ? -airFlow_PaM3PerS(AIR.hose_m3PerSPa, reached, vacuum, temperature_K) : 0;
  }

  shown(y: Float64Array, { barometer_Pa }: Instant, shown: Float64Array): void {
    const supply = Math.max(0, barometer_Pa - y[0]!);
    shown[0] = Math.max(0, y[3]!);
    shown[1] = Math.max(0, y[4]!);
    shown[2] = supply;
    shown[3] = Math.max(
      0,
      Math.min(barometer_Pa - y[1]!, supply - Math.min(supply, this.p.restDifference_Pa)),
    );
  }

  parts(y: Float64Array, { barometer_Pa }: Instant, out: PartsNow): void {
    const [vacuum, working, travel, input, output, felt] = y as unknown as number[];
    const called = this.called_Pa(felt!, barometer_Pa - vacuum!);
    const lacking = this.lacking(called, y);
    out.vacuumSide = { at: barometer_Pa - vacuum!, of: barometer_Pa };
    out.workingSide = { at: barometer_Pa - working!, of: barometer_Pa };
    out.valve = { at: called > 0 ? 1 : Math.min(0.99, Math.max(0, felt!) / this.p.crack_Pa), of: 1 };
    out.vacuumPort = { at: called > 0 ? Math.min(1, Math.max(0, -lacking)) : 1, of: 1 };
    out.airPort = { at: called > 0 ? Math.min(1, Math.max(0, lacking)) : 0, of: 1 };
    out.diaphragm = { at: Math.max(0, travel!), of: FAR.travel_m };
    out.passage = { at: 1 - Math.min(1, Math.max(0, travel!) / RESPONSE.gap_m), of: 1 };
    out.inputFluid = { at: Math.max(0, input!), of: FAR.fluid_Pa };
    out.outputFluid = { at: Math.max(0, output!), of: FAR.fluid_Pa };
  }
}

export const motion: Motion = {
  states,
  parts,
  stages,
  commands: [...HANDLE_COMMANDS, VALVE_COMMAND],
  owns: ['fluid'],
  with: (parameters, place) => new RemoteVacuumMotion(parameters, place),
};
