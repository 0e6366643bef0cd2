import { rodPush_N } from '../../air/diaphragm';
import { airExchange_PaM3PerS, airFlow_PaM3PerS, meteredFlow_PaM3PerS } from '../../air/flow';
import type { Vector } from '../../model/descriptor';
import type { Instant, Motion, Moving, NodeNow, PartsNow, Place } from '../../model/motion';
import { HANDLE_COMMANDS, VALVE_COMMAND, type BenchHands } from '../bench-hands';
import { VENT_M3PERSPA } from '../bench-motion';
import { liftShare, named, type Parameters } from './member';
import { parts, stages } from './works';

/** What changes with time in the unit. */
const states = [
  { id: 'tank_Pa', name: 'Tank and vacuum side, absolute', quantity: 'barometer', scale: 1e3 },
  { id: 'workingSide_Pa', name: 'Working side, absolute', quantity: 'barometer', scale: 1e3 },
  { id: 'travel_m', name: 'Travel of the rod', quantity: 'length', scale: 1e-4 },
  { id: 'input_Pa', name: 'Fluid pressure at the valve', quantity: 'pressure', scale: 1e5 },
] as const;

/** Pressure at the far end of a drawing. */
const FAR_PA = 1e7;

/** How quickly a servo of ordinary make answers; no verdict rests on these, and the steady end does not know them. */
const RESPONSE = {
  /** Pressure difference short of the one asked for at which the valve is wide open, Pa. */
  band_Pa: 1500,
  /** Lag of the rod, and of the fluid line behind the handle, s. */
  rod_s: 0.01,
  line_s: 8e-3,
} as const;

/** A valve that sticks on release holds while the rod is out by more than this part of what it then leaves. */
const STUCK_PART = 0.5;

/**
 * A rod-acting servo over time: the tank with the vacuum side, the working side, the rod against its spring and load.
 * The valve lets air in or joins the working side to the tank until the difference is the part of the tank's vacuum
 * that the fluid pressure asks for, so the steady end is `steady`. Handbook 4, 7 and 8.2.
 */
class RodServoMotion implements Moving {
  private readonly p: Parameters;
  private readonly vacuum: NodeNow;
  private readonly rod: NodeNow;

  constructor(vector: Vector, { nodes }: Place) {
    this.p = named(vector);
    [this.vacuum, this.rod] = nodes as [NodeNow, NodeNow];
  }

  atRest({ barometer_Pa }: Instant): number[] {
    return [barometer_Pa, barometer_Pa, 0, 0];
  }

  efforts(y: Float64Array): void {
    this.rod.passed = Math.max(0, y[2]!);
  }

  rates(y: Float64Array, dy: Float64Array, at: Instant<BenchHands>): void {
    const { p } = this;
    const { barometer_Pa, temperature_K, hands } = at;
    const tank = y[0]!;
    const working = y[1]!;
    const travel = Math.max(0, y[2]!);
    const input = y[3]!;

    // Rod: where the push, its spring and the load balance; it stops at either end.
    const { effort } = this.rod;
    const pushed_N = rodPush_N(p, input, working - tank, p.effectiveArea_m2);
    const net_N = pushed_N - p.springRate_NPerM * travel - effort;
    const stiffness_NPerM = p.springRate_NPerM + 1 / this.rod.give(effort);
    const free = net_N > 0 ? y[2]! < p.stroke_m : y[2]! > 0;
    const speed = free ? net_N / stiffness_NPerM / RESPONSE.rod_s : 0;
    dy[2] = speed;
    dy[3] = hands.shutIn ? 0 : (hands.handle_Pa - input) / RESPONSE.line_s;

    const asked = this.asked_Pa(input, barometer_Pa - tank, travel, hands.handle_Pa);
    const lacking = (asked - (working - tank)) / RESPONSE.band_Pa;
    const across =
      p.tear_m3PerSPa > 0 ? airExchange_PaM3PerS(p.tear_m3PerSPa, working, tank, temperature_K) : 0;
    const letIn =
      asked > 0 && (lacking > 0 || across > 0)
        ? meteredFlow_PaM3PerS(
            airExchange_PaM3PerS(p.air_m3PerSPa, barometer_Pa, working, temperature_K),
            lacking,
            across,
          )
        : 0;
    const joined =
      across +
      (lacking < 0
        ? airExchange_PaM3PerS(p.line_m3PerSPa * Math.min(1, -lacking), working, tank, temperature_K)
        : 0);
    const leak_m3PerSPa = p.leak_m3PerSPa + (hands.valve === 'open' ? 0 : p.back_m3PerSPa);
    const leaked =
      tank < barometer_Pa ? airFlow_PaM3PerS(leak_m3PerSPa, barometer_Pa, tank, temperature_K) : 0;
    const drawn = this.drawn(tank, at);
    const sweep = p.effectiveArea_m2 * speed;
    const front_m3 = p.tank_m3 + p.frontVolume_m3 - p.effectiveArea_m2 * travel;
    const rear_m3 = p.rearVolume_m3 + p.effectiveArea_m2 * travel;
    dy[0] = (joined + leaked - drawn + tank * sweep) / front_m3;
    dy[1] = (letIn - joined - working * sweep) / rear_m3;
    this.vacuum.passed = hands.valve === 'open' ? drawn : 0;
  }

  /** Pressure difference that the valve brings to bear. One that sticks keeps some of it as the fluid lets go. */
  private asked_Pa(input: number, vacuum: number, travel: number, handle: number): number {
    const { p } = this;
    const lifted_Pa = liftShare(p, input) * vacuum;
    if (handle > input || p.residual_N === 0) return lifted_Pa;
    const left_m = p.residual_N * this.rod.give(p.residual_N);
    if (travel < STUCK_PART * left_m) return lifted_Pa;
    const left_Pa = (p.residual_N + p.springRate_NPerM * left_m + p.preload_N) / p.effectiveArea_m2;
    return Math.max(lifted_Pa, Math.min(vacuum, left_Pa));
  }

  /** Air drawn out through the line; the non-return valve lets none back. The vent opens the tank itself. */
  private drawn(tank: number, at: Instant<BenchHands>): number {
    const { barometer_Pa, temperature_K } = at;
    const { valve } = at.hands;
    const source_Pa = this.vacuum.effort;
    if (valve === 'vented') return airExchange_PaM3PerS(VENT_M3PERSPA, tank, barometer_Pa, temperature_K);
    if (valve === 'shut' || source_Pa >= tank) return 0;
    return airFlow_PaM3PerS(this.p.line_m3PerSPa, tank, source_Pa, temperature_K);
  }

  parts(y: Float64Array, at: Instant<BenchHands>, out: PartsNow): void {
    const { p } = this;
    const { barometer_Pa, hands } = at;
    const [tank, working, travel, input] = y as unknown as number[];
    const asked = this.asked_Pa(input!, barometer_Pa - tank!, Math.max(0, travel!), hands.handle_Pa);
    const lacking = (asked - (working! - tank!)) / RESPONSE.band_Pa;
    out.vacuumSide = { at: barometer_Pa - tank!, of: barometer_Pa };
    out.workingSide = { at: barometer_Pa - working!, of: barometer_Pa };
    out.valve = { at: liftShare(p, input!), of: 1 };
    out.vacuumPort = { at: Math.min(1, Math.max(0, asked > 0 ? -lacking : 1)), of: 1 };
    out.airPort = { at: asked > 0 ? Math.min(1, Math.max(0, lacking)) : 0, of: 1 };
    out.piston = { at: Math.max(0, travel!), of: p.stroke_m };
    out.checkValve = { at: hands.valve === 'open' && this.drawn(tank!, at) > 0 ? 1 : 0, of: 1 };
    out.inputFluid = { at: Math.max(0, input!), of: FAR_PA };
  }

  shown(y: Float64Array, { barometer_Pa }: Instant, shown: Float64Array): void {
    shown[0] = Math.max(0, y[3]!);
    shown[1] = this.rod.effort;
    shown[2] = Math.max(0, barometer_Pa - y[0]!);
    shown[3] = 0;
  }
}

export const motion: Motion = {
  states,
  parts,
  stages,
  commands: [...HANDLE_COMMANDS, VALVE_COMMAND],
  owns: [],
  with: (parameters, place) => new RodServoMotion(parameters, place),
};
