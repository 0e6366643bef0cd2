import { Vessel, USUAL_SETTLING_S, type Around, type Charge } from '../../fluid/accumulator';
import { stoodLeaking, type FlowAt } from '../../fluid/charging';
import { orificeDrop_Pa, orificeFlow_m3PerS } from '../../fluid/fluid-pump';
import { density_kgPerM3 } from '../../fluid/hydraulic-fluid';
import {
  appliedInARow,
  inItsGap,
  powerOutput_N,
  powerRunout_N,
  READ_RHYTHM,
  type PowerPiston,
} from '../../fluid/power-piston';
import { hotLeakOf_m3, STEERING, steering_PaS } from '../../fluid/steering-fluid';
import { rootOfFalling } from '../../numeric/root';
import type { Vector } from '../../model/descriptor';
import { BalancesNothing } from '../../model/balances-nothing';
import type { Member, Nodes, Standing, Wanted } from '../../model/member';
import { healthyUnit, reader, type InputDescriptor, type Named } from '../../model/vectors';
import { APPLICATIONS, BAROMETER, ELAPSED, FLUID, TEMPERATURE } from '../inputs';
import {
  inputOf_N,
  pistonOf,
  POWER_PARAMETERS,
  powerTolerances,
  powerValues,
  rodLoad,
} from '../power-booster';
import { circle_m2 } from '../profile-fields';
import type { HydraulicBoosterProfile } from './profile';

/** What makes one booster differ from another, and what faults move. */
export const parameters = [
  ...POWER_PARAMETERS,
  { id: 'gap_m', name: 'Gap of the spool', quantity: 'travel' },
  { id: 'shell_m3', name: 'Inside of the accumulator', quantity: 'volume' },
  { id: 'preCharge_Pa', name: 'Pre-charge', quantity: 'pressure' },
  { id: 'full_Pa', name: 'Accumulator, full', quantity: 'pressure' },
  { id: 'leak_m3PerS', name: 'Leak of the accumulator at 100 bar, fluid at 80 °C', quantity: 'leakRate' },
  { id: 'pistonLeak_m3PerS', name: 'Past the power piston at 100 bar, fluid at 80 °C', quantity: 'flow' },
  { id: 'exhaust_m2', name: 'Exhaust of the chamber', quantity: 'area' },
  { id: 'return_m2', name: 'Return line at its narrowest', quantity: 'area' },
  { id: 'thicker', name: 'Fluid thicker than it should be, times', quantity: 'ratio' },
  { id: 'test_N', name: 'Pedal force of start and reserve', quantity: 'force' },
] as const;

const inputs = [
  { id: 'pedal_N', name: 'Pedal force', quantity: 'force', from: { port: 'pedal', as: 'set' } },
  {
    id: 'supply_Pa',
    name: 'Shut-off pressure of the pump',
    quantity: 'pressure',
    from: { port: 'line', as: 'source', until: 'source.shut' },
  },
  FLUID,
  BAROMETER,
  TEMPERATURE,
  ELAPSED,
  APPLICATIONS,
] as const satisfies readonly InputDescriptor[];

const readings = [
  { id: 'output', name: 'Force of the pushrod', quantity: 'force' },
  { id: 'runoutPedal', name: 'Pedal force at runout', quantity: 'force' },
  { id: 'drop', name: 'Pedal falls as the pump starts', quantity: 'travel', apart: { SI: 1e-3 } },
  { id: 'back', name: 'Pedal pushes back then', quantity: 'travel', apart: { SI: 5e-4 } },
  { id: 'falls', name: 'Pedal force at which the pressure first falls', quantity: 'force', apart: { SI: 2 } },
  { id: 'release', name: 'Release', quantity: 'duration', apart: { SI: 0.05, part: 0.05 } },
  { id: 'left', name: 'Accumulator at the end of an application', quantity: 'pressure' },
] as const;

export type Parameters = Named<typeof parameters>;
export type ReadingId = (typeof readings)[number]['id'];
export const named = reader(parameters);
const PLACE = Object.fromEntries(readings.map(({ id }, i) => [id, i])) as Record<ReadingId, number>;

const [CHARGE, ROD] = [0, 1];

/** Pressure in an open line at which the flow through the return is taken, Pa. Handbook-models 8.4: 3 to 8 bar at rest. */
export const OPEN_PA = 5e5;
const CLOSE_PA = 500;
/** A pump that gives less than this charges nothing within the time of a firm brake, m³/s. */
const LEAST_M3PERS = 1e-7;
/** Steps in force by which a release is followed. */
const RELEASE_STEPS = 16;
/** Pressure that a gauge shows beside nothing, Pa. */
const SEEN_PA = 5e4;
/** A release that takes longer than this is no release, s. */
const NEVER_S = 60;

/**
 * A booster fed by the steering pump. Handbook-models 8.4: F_out = max(0, F_in − F_rs, min(M, F_in − F_rs + p_av·A_p)); p_av is what
 * the pump still makes beside what goes past the piston; with the pump at rest the accumulator gives one application after another, charged
 * as far as the pump goes.
 */
class HydraulicBooster extends BalancesNothing implements Standing {
  private readonly p: Parameters;
  private readonly piston: PowerPiston;
  private readonly viscosity_PaS: number;
  private readonly density_kgPerM3: number;
  private made_Pa: number | null = null;
  /** The gas before the first application: the same for every one that is asked for. */
  private charge: Charge | null = null;

  constructor(
    vector: Vector,
    private readonly pedal_N: number,
    private readonly supply_Pa: number,
    fluid_K: number,
    private readonly around: Around,
    private readonly elapsed_s: number,
    private readonly applications: number,
  ) {
    super();
    this.p = named(vector);
    this.piston = pistonOf(this.p);
    this.viscosity_PaS = this.p.thicker * steering_PaS(fluid_K);
    this.density_kgPerM3 = density_kgPerM3(STEERING, fluid_K);
  }

  /** Pressure that the pump still makes behind the spool, Pa: what goes past the piston it does not. Looked for once. */
  private available_Pa(nodes: Nodes): number {
    this.made_Pa ??= this.madeBy(nodes);
    return this.made_Pa;
  }

  private madeBy({ taken }: Nodes): number {
    const { pistonLeak_m3PerS } = this.p;
    if (this.supply_Pa <= 0) return 0;
    if (pistonLeak_m3PerS <= 0) return this.supply_Pa;
    return rootOfFalling((pressure_Pa) => this.left_m3PerS(taken, pressure_Pa), 0, this.supply_Pa, CLOSE_PA);
  }

  /** What the pump gives at a pressure beyond what goes past the piston, m³/s. */
  private left_m3PerS(taken: Nodes['taken'], pressure_Pa: number): number {
    const lost_m3PerSPa = hotLeakOf_m3(this.p.pistonLeak_m3PerS) / this.viscosity_PaS;
    return taken(CHARGE, pressure_Pa) - lost_m3PerSPa * pressure_Pa;
  }

  /** Pressure that the accumulator is charged to, Pa: full, or as far as the pump still gives anything. */
  private charged_Pa(taken: Nodes['taken']): number {
    const over = (pressure_Pa: number) => this.left_m3PerS(taken, pressure_Pa) - LEAST_M3PERS;
    return over(this.p.full_Pa) >= 0 ? this.p.full_Pa : rootOfFalling(over, 0, this.p.full_Pa, CLOSE_PA);
  }

  /** What stands before a narrow return pushes the piston by itself, N: p_ret = ρ/2·(q/0.62·a_r)². */
  private selfApplied_N({ taken }: Nodes): number {
    if (this.supply_Pa <= 0) return 0;
    const flow = Math.max(0, taken(CHARGE, OPEN_PA));
    const before_Pa = orificeDrop_Pa(this.p.return_m2, flow, this.density_kgPerM3);
    return Math.min(before_Pa, this.supply_Pa) * this.p.area_m2 - this.p.spring_N;
  }

  brings(_terminal: number, _efforts: ArrayLike<number>, nodes: Nodes): number {
    const input_N = inputOf_N(this.p, this.pedal_N);
    if (this.supply_Pa <= 0 && this.applications > 0) return this.stored(nodes, input_N).output_N;
    const output_N = powerOutput_N(this.piston, input_N, this.available_Pa(nodes));
    return Math.max(output_N, this.selfApplied_N(nodes), 0);
  }

  /** The last of some applications with the pump at rest, once the accumulator has stood for a time: its output, and what is left then. */
  private stored(nodes: Nodes, input_N: number): { readonly output_N: number; readonly left_Pa: number } {
    const { p } = this;
    const { taken } = nodes;
    const vessel = new Vessel(
      { shell_m3: p.shell_m3, preCharge_Pa: p.preCharge_Pa, settling_s: USUAL_SETTLING_S },
      this.around,
    );
    // It stands as warm as the room, and so does what leaks from it.
    const cold_PaS = p.thicker * steering_PaS(this.around.temperature_K);
    const leak_m3PerSPa = hotLeakOf_m3(p.leak_m3PerS) / cold_PaS;
    const leak = (pressure_Pa: number) => leak_m3PerSPa * pressure_Pa;
    this.charge ??= this.stoodFor(vessel, chargedByBraking(vessel, this.charged_Pa(taken), leak), leak);
    const count = Math.max(1, this.applications);
    const { output_N, stroke } = appliedInARow(
      vessel,
      this.charge,
      this.piston,
      rodLoad(nodes, ROD),
      input_N,
      p.spool_m3,
      count,
      READ_RHYTHM,
      leak,
    );
    return { output_N, left_Pa: vessel.gauge_Pa(stroke) };
  }

  private stoodFor(vessel: Vessel, charge: Charge, leak: FlowAt): Charge {
    return this.elapsed_s > 0 ? stoodLeaking(vessel, charge, this.elapsed_s, leak) : charge;
  }

  read(efforts: ArrayLike<number>, nodes: Nodes, wanted?: Wanted): number[] {
    const { p, piston } = this;
    const ifAsked = (id: ReadingId, tell: () => number) => (!wanted || wanted.has(PLACE[id]) ? tell() : NaN);
    const test_N = inputOf_N(p, p.test_N);
    return [
      efforts[ROD]!,
      (Math.max(p.opens_N, powerRunout_N(piston, this.supply_Pa)) + p.friction_N) / p.pedalRatio,
      ifAsked('drop', () => {
        const assisted_N = powerOutput_N(piston, test_N, this.available_Pa(nodes));
        const alone_N = powerOutput_N(piston, test_N, 0);
        return p.pedalRatio * (nodes.taken(ROD, assisted_N) - nodes.taken(ROD, alone_N));
      }),
      ifAsked('back', () => {
        const assisted_N = powerOutput_N(piston, test_N, this.available_Pa(nodes));
        const left = inItsGap(assisted_N, powerOutput_N(piston, test_N, Infinity));
        const sinks_m = nodes.goesOn(ROD, assisted_N) * READ_RHYTHM.held_s;
        return p.pedalRatio * Math.max(0, p.gap_m * (1 - left) - sinks_m);
      }),
      Math.max(0, this.pedal_N - (2 * p.friction_N) / p.pedalRatio),
      ifAsked('release', () => this.release_s(nodes)),
      ifAsked('left', () => this.stored(nodes, test_N).left_Pa),
    ];
  }

  /**
   * Time in which the chamber lets go through its exhaust what the piston displaced, s; never where the return keeps the brake on.
   * Handbook-models 8.4.
   */
  private release_s(nodes: Nodes): number {
    const { p } = this;
    if (this.selfApplied_N(nodes) > SEEN_PA * p.area_m2) return NEVER_S;
    const from_N = powerOutput_N(this.piston, inputOf_N(p, this.pedal_N), this.available_Pa(nodes));
    const at_N = (step: number) => from_N * (1 - step / RELEASE_STEPS);
    let time_s = 0;
    let way_m = nodes.taken(ROD, from_N);
    for (let step = 1; step <= RELEASE_STEPS; step += 1) {
      const [before_N, force_N] = [at_N(step - 1), at_N(step)];
      const next_m = nodes.taken(ROD, force_N);
      const chamber_Pa = ((before_N + force_N) / 2 + p.spring_N) / p.area_m2;
      const flow = orificeFlow_m3PerS(p.exhaust_m2, chamber_Pa, this.density_kgPerM3);
      time_s += (p.area_m2 * (way_m - next_m)) / Math.max(1e-12, flow);
      way_m = next_m;
    }
    return Math.min(NEVER_S, time_s);
  }
}

/**
 * Firm brakes that charge it while the pump runs: so many, each so hard that the line stands above any accumulator, and held, one so long
 * after another, and the foot off as the pump stops.
 */
export const FIRM = { times: 3, pedal_N: 500, held_s: 5, apart_s: 60, off_s: 1 } as const;
/** Held at one pressure gas gives off its heat more slowly than in one volume, by c_v/c_p: of nitrogen at 90 bar. */
const AT_ONE_PRESSURE = 0.6;

/**
 * The gas as firm brakes have charged it from empty: each presses it to its pressure at once and warms it, it cools while that is held,
 * and after all of them it is warmer than its shell yet.
 */
function chargedByBraking(vessel: Vessel, charged_Pa: number, leak: FlowAt): Charge {
  const shell_K = vessel.around.temperature_K;
  const left = Math.exp((-AT_ONE_PRESSURE * FIRM.held_s) / vessel.of.settling_s);
  let charge = vessel.empty;
  for (let n = 1; n <= FIRM.times; n += 1) {
    const { temperature_K } = vessel.fastTo(charge, charged_Pa);
    const held = vessel.at(charged_Pa, shell_K + (temperature_K - shell_K) * left);
    charge = stoodLeaking(vessel, held, n < FIRM.times ? FIRM.apart_s : FIRM.off_s, leak);
  }
  return charge;
}

/** A sound accumulator may leak so much more or less, as a part. */
const LEAK_PART = 0.5;

function healthy(profile: HydraulicBoosterProfile) {
  const { limits, preCharge_Pa, full_Pa, leak_m3PerS } = profile;
  return healthyUnit(
    parameters,
    {
      ...powerValues(profile),
      gap_m: profile.gap_m,
      shell_m3: profile.shell_m3,
      preCharge_Pa,
      full_Pa,
      leak_m3PerS,
      pistonLeak_m3PerS: 0,
      exhaust_m2: circle_m2(profile.exhaust_m),
      return_m2: circle_m2(profile.return_m),
      thicker: 1,
      test_N: profile.reserve_N,
    },
    {
      ...powerTolerances(profile, limits.output_fraction.value),
      preCharge_Pa: limits.preCharge_fraction.value * preCharge_Pa,
      full_Pa: limits.full_fraction.value * full_Pa,
      leak_m3PerS: LEAK_PART * leak_m3PerS,
    },
  );
}

/** A booster to be joined to the steering pump and to what its rod pushes. */
export const member: Member<HydraulicBoosterProfile> = {
  parameters,
  inputs,
  readings,
  fedBy: [{ id: 'charge', name: 'Pressure line', coupling: 'pumped' }],
  feeds: [{ id: 'rod', name: 'Rod', coupling: 'rod' }],
  healthy,
  with: (
    vector,
    [
      pedal_N = 0,
      supply_Pa = 0,
      fluid_K = 0,
      barometer_Pa = 0,
      temperature_K = 0,
      elapsed_s = 0,
      applications = 0,
    ],
  ) =>
    new HydraulicBooster(
      vector,
      Math.max(0, pedal_N),
      Math.max(0, supply_Pa),
      fluid_K,
      { barometer_Pa, temperature_K },
      elapsed_s,
      applications,
    ),
};
