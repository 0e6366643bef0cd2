import { GAUSS_8 } from '../numeric/quadrature';
import { rootOfFalling } from '../numeric/root';
import type { Charge, Vessel } from './accumulator';

/** Flow at a pressure of the fluid, m³/s. Where it falls below nothing it is taken for none. */
export type FlowAt = (pressure_Pa: number) => number;

/** A vessel that was filled. */
export interface Filled {
  readonly charge: Charge;
  /** How long it took, s; Infinity where the pressure is never reached: the charge then is where the pump gave out. */
  readonly time_s: number;
}

/** The same, and when it passed a pressure on the way. */
export interface FilledPast extends Filled {
  /** s; Infinity where it did not. */
  readonly passed_s: number;
}

/** Longest step: this part of the gas that is left, and this part of the time in which the gas cools; and the shortest. */
const STEP_PART = 0.02;
const STEP_COOLING = 0.25;
const SHORT_PART = 0.003;
/** A pump that gives less than this part of what it gave at first gives nothing. */
const GIVES_NOTHING = 1e-6;
/** After so many times the time in which it cools, gas has settled. */
const SETTLED = 8;
/** Gas within this part of the temperature of its shell has settled. */
const SETTLED_PART = 1e-3;
/** Steps of a leak: the more of the gas’s own volume comes in meanwhile, the more of them. */
const LEAK_STEPS = { least: 6, most: 32, whole: 160 } as const;

interface Moment extends Charge {
  readonly time_s: number;
}

/**
 * One step of fluid into the vessel: pressed with no heat given off, T·(∂p/∂T)_v/(n·c_v) for each volume by the middle of the step,
 * between two halves of what the shell does to the gas meanwhile; dt/dV = 1/q by Simpson's rule. However slow the pump, it stays
 * stable. Handbook-models P.1.
 *
 * @param first what flows in as it begins, m³/s
 */
function filledBy(vessel: Vessel, from: Moment, first: number, fluid_m3: number, flow: FlowAt): Moment {
  const before = vessel.stood(from, fluid_m3 / first / 2);
  const half_m3 = fluid_m3 / 2;
  const middle = pressed(before, half_m3, vessel.warmingByVolume_KPerM3(before));
  const after = pressed(before, fluid_m3, vessel.warmingByVolume_KPerM3(middle));
  const halfway = flow(vessel.gauge_Pa(middle));
  const last = flow(vessel.gauge_Pa(after));
  // Where the pump gives out on the way the step is never over, and the gas settles meanwhile.
  const givesOut = !(halfway > 0 && last > 0);
  const takes_s = givesOut ? Infinity : (fluid_m3 * (1 / first + 4 / halfway + 1 / last)) / 6;
  const { gas_m3, temperature_K } = vessel.stood(after, takes_s / 2);
  return { gas_m3, temperature_K, time_s: from.time_s + takes_s };
}

const pressed = ({ gas_m3, temperature_K }: Charge, by_m3: number, warming_KPerM3: number): Charge => ({
  gas_m3: gas_m3 - by_m3,
  temperature_K: temperature_K + by_m3 * warming_KPerM3,
});

/**
 * Fills a vessel up to a pressure, the gas giving off heat on the way.
 *
 * @param from where it begins; an empty one jumps to its flick-up with the first of the fluid
 * @param flow what comes in at a pressure, m³/s
 * @param passing_Pa a pressure on the way: the filling itself is the same with or without it
 */
export function filledTo(
  vessel: Vessel,
  from: Charge,
  until_Pa: number,
  flow: FlowAt,
  passing_Pa = Infinity,
): FilledPast {
  let at: Moment = { ...from, time_s: 0 };
  let at_Pa = vessel.gauge_Pa(from);
  let passed_s = Infinity;
  const first = flow(at_Pa);
  // Where the gas alone stands as high, no fluid gets in.
  if (at_Pa >= until_Pa || vessel.flickUp_Pa >= until_Pa) return { charge: from, time_s: 0, passed_s };
  for (;;) {
    const q = flow(at_Pa);
    if (!(q > GIVES_NOTHING * first)) return { charge: at, time_s: Infinity, passed_s };
    const cooling_m3 = STEP_COOLING * q * vessel.of.settling_s;
    const step = Math.min(STEP_PART * at.gas_m3, Math.max(SHORT_PART * at.gas_m3, cooling_m3));
    const next = filledBy(vessel, at, q, step, flow);
    if (!Number.isFinite(next.time_s) || next.time_s < at.time_s)
      return { charge: at, time_s: Infinity, passed_s };
    const next_Pa = vessel.gauge_Pa(next);
    const before = at;
    const stoppedAt = (stop_Pa: number): Moment => {
      const short = (part: number) =>
        stop_Pa - vessel.gauge_Pa(filledBy(vessel, before, q, Math.max(part, 1e-6) * step, flow));
      return filledBy(vessel, before, q, rootOfFalling(short, 0, 1, 1e-6) * step, flow);
    };
    if (passed_s === Infinity && next_Pa >= passing_Pa && passing_Pa < until_Pa)
      passed_s = vessel.flickUp_Pa >= passing_Pa ? 0 : stoppedAt(passing_Pa).time_s;
    if (next_Pa < until_Pa) {
      [at, at_Pa] = [next, next_Pa];
      continue;
    }
    const charge = stoppedAt(until_Pa);
    return Number.isFinite(charge.time_s)
      ? { charge, time_s: charge.time_s, passed_s }
      : { charge: before, time_s: Infinity, passed_s };
  }
}

/**
 * A vessel that fluid leaves for a time, the gas coming to the temperature of the shell meanwhile: with both while it does, and as
 * gas that has settled from then on.
 *
 * @param leak what leaves at a pressure, m³/s
 */
export function stoodLeaking(vessel: Vessel, from: Charge, time_s: number, leak: FlowAt): Charge {
  const { shell_m3, settling_s } = vessel.of;
  const cooling_s = Math.min(time_s, SETTLED * settling_s);
  // Gas that still cools, or is still warming, needs the fine steps whatever leaks.
  const settled = Math.abs(from.temperature_K / vessel.around.temperature_K - 1) < SETTLED_PART;
  const part = (leak(vessel.gauge_Pa(from)) * time_s) / from.gas_m3;
  const { least, most, whole } = LEAK_STEPS;
  const steps = settled ? Math.min(most, Math.max(least, Math.ceil(whole * part))) : most;
  let at = from;
  for (let step = 0; step < steps; step += 1) at = leaked(vessel, at, cooling_s / steps, leak);
  const rest_s = time_s - cooling_s;
  for (let step = 0; rest_s > 0 && step < steps && at.gas_m3 < shell_m3; step += 1) {
    const { gas_m3 } = leaked(vessel, at, rest_s / steps, leak);
    // By now the gas is colder than the shell only by what it loses as it expands within τ.
    const cold = { gas_m3, temperature_K: vessel.around.temperature_K };
    const expands_m3 = settling_s * leak(vessel.gauge_Pa(cold));
    at = {
      gas_m3,
      temperature_K: cold.temperature_K - expands_m3 * vessel.warmingByVolume_KPerM3(cold),
    };
  }
  return at;
}

/** One step of a leak by Heun's method, between the two halves of what the shell does to the gas meanwhile. */
export function leaked(vessel: Vessel, from: Charge, step_s: number, leak: FlowAt): Charge {
  const before = vessel.stood(from, step_s / 2);
  const out = (charge: Charge, lost_m3: number): Charge => ({
    gas_m3: Math.min(vessel.of.shell_m3, charge.gas_m3 + lost_m3),
    temperature_K: charge.temperature_K - lost_m3 * vessel.warmingByVolume_KPerM3(charge),
  });
  const q = leak(vessel.gauge_Pa(before));
  const then = leak(vessel.gauge_Pa(out(before, q * step_s)));
  return vessel.stood(out(before, ((q + then) / 2) * step_s), step_s / 2);
}

/**
 * Time in which settled gas falls from one pressure to another while fluid leaks out, s: ∫dV/q. Handbook-models P.2 takes it by
 * three points.
 *
 * @param from_Pa settled, never the cut-out, from which it still cools
 */
export function timeToFall_s(vessel: Vessel, from_Pa: number, to_Pa: number, leak: FlowAt): number {
  const [from, to] = [vessel.settledAt(from_Pa), vessel.settledAt(to_Pa)];
  const lost_m3 = to.gas_m3 - from.gas_m3;
  return GAUSS_8.reduce((sum, [node, weight]) => {
    const at = { gas_m3: from.gas_m3 + node * lost_m3, temperature_K: from.temperature_K };
    return sum + (weight * lost_m3) / leak(vessel.gauge_Pa(at));
  }, 0);
}

/** Steps in which gas that still cools is followed, for each time in which it cools. */
const STEPS_IN_COOLING = 10;

/**
 * Time in which a vessel falls to a pressure while fluid leaks out, s, from gas that may still be hot. The fluid that is lost by then
 * is the same on any way there, if the gas has settled by then: ∫dV/q along settled gas. Where it is over before that, step by step.
 *
 * @param leak what leaves at a pressure, m³/s
 * @param most_s no longer than this
 */
export function timeUntilFallen_s(
  vessel: Vessel,
  from: Charge,
  to_Pa: number,
  leak: FlowAt,
  most_s: number,
): number {
  if (vessel.gauge_Pa(from) <= to_Pa) return 0;
  const { settling_s } = vessel.of;
  const settled = { gas_m3: from.gas_m3, temperature_K: vessel.around.temperature_K };
  const settled_Pa = vessel.gauge_Pa(settled);
  if (settled_Pa > to_Pa) {
    const time_s = timeToFall_s(vessel, settled_Pa, to_Pa, leak);
    if (!(time_s < SETTLED * settling_s)) return Math.min(most_s, time_s);
  }
  const step_s = settling_s / STEPS_IN_COOLING;
  let at = from;
  for (let time_s = 0; time_s < most_s; time_s += step_s) {
    const next = leaked(vessel, at, step_s, leak);
    const [before_Pa, after_Pa] = [vessel.gauge_Pa(at), vessel.gauge_Pa(next)];
    if (after_Pa <= to_Pa)
      return Math.min(most_s, time_s + (step_s * (before_Pa - to_Pa)) / (before_Pa - after_Pa));
    at = next;
  }
  return most_s;
}
