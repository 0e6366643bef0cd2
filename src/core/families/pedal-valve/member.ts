import { TAKEN_UP_AT_PA } from '../../fluid/closed-line';
import { Vessel, USUAL_SETTLING_S, type Around, type Charge } from '../../fluid/accumulator';
import { leaked, stoodLeaking } from '../../fluid/charging';
import { density_kgPerM3, landLeak_m3, viscosity_PaS } from '../../fluid/hydraulic-fluid';
import {
  crossedPressure_Pa,
  drillingDamper_NSPerM,
  fillingTime_s,
  meteredPressure_Pa,
  pressedPeak_Pa,
  residualPressure_Pa,
  settlingOf,
  type FillingPassage,
  type MeteringValve,
  type Settling,
} from '../../fluid/metering-valve';
import type { Vector } from '../../model/descriptor';
import { BalancesNothing } from '../../model/balances-nothing';
import type { Member, Standing } from '../../model/member';
import { healthyUnit, reader, type InputDescriptor, type Named } from '../../model/vectors';
import { APPLICATIONS, BAROMETER, ELAPSED, TEMPERATURE } from '../inputs';
import { circle_m2 } from '../profile-fields';
import { OIL, STATED, type PedalValveProfile } from './profile';

/** What makes one valve differ from another, and what faults move. */
export const parameters = [
  { id: 'area_m2', name: 'Area of a spool', quantity: 'area' },
  { id: 'spring_NPerM', name: 'Metering spring', quantity: 'stiffness' },
  { id: 'starts_m', name: 'Travel at which the spools begin to move', quantity: 'travel' },
  { id: 'preload_N', name: 'Return spring preload', quantity: 'force' },
  { id: 'friction_N', name: 'Friction of a spool', quantity: 'force' },
  { id: 'lag_N', name: 'Force by which circuit 2 is behind', quantity: 'force' },
  { id: 'return_Pa', name: 'Pressure that stands in the return', quantity: 'pressure' },
  { id: 'stop_m', name: 'Travel at the pedal stop', quantity: 'travel' },
  { id: 'drilling_m', name: 'Feedback drilling', quantity: 'length' },
  { id: 'drillingLength_m', name: 'Length of the drilling', quantity: 'length' },
  { id: 'flowGain_m2PerS', name: 'Flow for each metre of opening', quantity: 'ratio' },
  { id: 'line_PaSPerM3', name: 'Resistance of a brake line', quantity: 'ratio' },
  { id: 'orifice_m2', name: 'Narrowest opening into a circuit', quantity: 'area' },
  { id: 'give_m3PerPa', name: 'Give of a circuit', quantity: 'volumePerPressure' },
  { id: 'slack_m3', name: 'Fluid that a circuit takes up slack', quantity: 'fluidVolume' },
  { id: 'clearance_m', name: 'Clearance of a spool', quantity: 'clearance' },
  { id: 'landDiameter_m', name: 'Diameter of a spool', quantity: 'length' },
  { id: 'landLength_m', name: 'Length of a land', quantity: 'length' },
  {
    id: 'crossLeak_m3PerS',
    name: 'Leak between the circuits at 100 bar, oil at 40 °C',
    quantity: 'leakRate',
  },
  { id: 'shell_m3', name: 'Inside of an accumulator', quantity: 'volume' },
  { id: 'preCharge_Pa', name: 'Pre-charge, circuit 1', quantity: 'pressure' },
  { id: 'preCharge2_Pa', name: 'Pre-charge, circuit 2', quantity: 'pressure' },
] as const;

const inputs = [
  {
    id: 'travel_m',
    name: 'Pedal travel',
    quantity: 'travel',
    from: { port: 'treadle', as: 'set' },
  },
  {
    id: 'supply_Pa',
    name: 'Accumulator, circuit 1',
    quantity: 'pressure',
    from: { port: 'supply', as: 'source', until: 'source.charged' },
  },
  {
    id: 'supply2_Pa',
    name: 'Accumulator, circuit 2',
    quantity: 'pressure',
    from: { port: 'supply-2', as: 'source', until: 'source.charged' },
  },
  {
    id: 'oil_K',
    name: 'Oil',
    quantity: 'temperature',
    from: { port: 'oil', as: 'source', until: 'source.oil', stays: true },
  },
  BAROMETER,
  TEMPERATURE,
  ELAPSED,
  APPLICATIONS,
] as const satisfies readonly InputDescriptor[];

const readings = [
  { id: 'flickUp', name: 'Flick-up, circuit 1', quantity: 'pressure' },
  { id: 'flickUp2', name: 'Flick-up, circuit 2', quantity: 'pressure' },
  { id: 'begins', name: 'Travel at which pressure begins', quantity: 'travel', apart: { SI: 2e-4 } },
  { id: 'output', name: 'Circuit 1', quantity: 'pressure' },
  { id: 'output2', name: 'Circuit 2', quantity: 'pressure' },
  { id: 'releasing', name: 'Circuit 1, coming down', quantity: 'pressure' },
  { id: 'residual', name: 'Left in circuit 1, pedal released', quantity: 'pressure' },
  { id: 'maximum', name: 'Circuit 1 at the stop', quantity: 'pressure' },
  { id: 'peak', name: 'Highest of circuit 1, pressed at once', quantity: 'pressure', apart: { part: 0.02 } },
  { id: 'applyTime', name: 'Apply time', quantity: 'duration', apart: { SI: 0.05 } },
  { id: 'kept', name: 'Accumulator 1 after applications', quantity: 'pressure', apart: { part: 0.02 } },
  { id: 'kept2', name: 'Accumulator 2 after applications', quantity: 'pressure', apart: { part: 0.02 } },
  { id: 'left', name: 'Accumulator 1 after standing', quantity: 'pressure' },
  { id: 'left2', name: 'Accumulator 2 after standing', quantity: 'pressure' },
  { id: 'crossed', name: 'Come across into circuit 2', quantity: 'pressure' },
] as const;

export type Parameters = Named<typeof parameters>;
export type ReadingId = (typeof readings)[number]['id'];
export const named = reader(parameters);
const READING = Object.fromEntries(readings.map(({ id }, i) => [id, i])) as Record<ReadingId, number>;

/** How far a spool lies out of the middle of its bore, as a part of the clearance. Handbook-models P.2. */
const LIES_OUT = 0.5;

/** Leak of the lands of one circuit by design, m³: by viscosity and pressure it is a flow. */
export const landsOf_m3 = ({ clearance_m, landDiameter_m, landLength_m }: Parameters): number =>
  landLeak_m3({
    diameter_m: landDiameter_m,
    length_m: landLength_m,
    clearance_m,
    eccentricity: LIES_OUT,
  });

/** Leak between the circuits, m³. */
export const crossLeakOf_m3 = ({ crossLeak_m3PerS }: Parameters): number =>
  (crossLeak_m3PerS * STATED.viscosity_PaS) / STATED.across_Pa;

/** Accumulator of one circuit, in a room. */
export const vesselOf = ({ shell_m3 }: Parameters, preCharge_Pa: number, around: Around): Vessel =>
  new Vessel({ shell_m3, preCharge_Pa, settling_s: USUAL_SETTLING_S }, around);

/** Apply time is taken to this part of what comes at the stop. */
const APPLIED = 0.9;
/** A watch that never stops, s: nothing is stored. */
const NEVER_S = 60;
/** Less than this is no pressure, Pa. */
const NOTHING_PA = 1e3;
/** A full application of the reserve: the pedal is held, the gauge read, and let go; and how long it is from one to the next, s. */
export const APPLICATION = { held_s: 3, every_s: 10 } as const;
/** Fluid is taken out of an accumulator by parts of its gas, and no more of them than so many. */
const PART = 0.04;
const MOST_PARTS = 24;
/** Less than this part is no overshoot. */
const NO_OVERSHOOT = 1e-3;
/** No valve swings on for ever. */
const MOST_OVERSHOOT = 0.95;
/** Oil is known from −40 to 120 °C. */
const OIL_K = { least: 233, most: 393 } as const;

/**
 * A dual pedal valve with its accumulators, at rest. Handbook-models 8.7: p = clip((k_s·(x − x₀) − F₀ ∓ F_f)/A, p_return, p_acc),
 * circuit 2 with F_d more; its drilling is a damper; a circuit fills through an opening and a line; an application takes what is
 * slack and C·p out of the accumulator; a land leaks k·p/μ by design.
 */
class PedalValve extends BalancesNothing implements Standing {
  private readonly p: Parameters;
  private readonly viscosity_PaS: number;

  constructor(
    vector: Vector,
    private readonly travel_m: number,
    private readonly supply_Pa: number,
    private readonly supply2_Pa: number,
    private readonly oil_K: number,
    private readonly around: Around,
    private readonly elapsed_s: number,
    private readonly applications: number,
  ) {
    super();
    this.p = named(vector);
    this.oil_K = Math.min(OIL_K.most, Math.max(OIL_K.least, oil_K));
    this.viscosity_PaS = viscosity_PaS(OIL, this.oil_K);
  }

  private circuit(behind_N: number): MeteringValve {
    const { spring_NPerM, starts_m, preload_N, friction_N, area_m2 } = this.p;
    return { spring_NPerM, starts_m, preload_N: preload_N + behind_N, friction_N, area_m2 };
  }

  /** What comes through at a travel no further than the stop, Pa. */
  private metered_Pa(travel_m: number, way: 'up' | 'down', behind_N: number, stored_Pa: number): number {
    const { stop_m, return_Pa } = this.p;
    const from_Pa = Math.min(return_Pa, stored_Pa);
    return meteredPressure_Pa(this.circuit(behind_N), Math.min(travel_m, stop_m), way, from_Pa, stored_Pa);
  }

  private vessel(preCharge_Pa: number): Vessel {
    return vesselOf(this.p, preCharge_Pa, this.around);
  }

  /** Slack that a circuit takes up anew where so much is left in it, m³. */
  private slackFrom_m3(left_Pa: number): number {
    return this.p.slack_m3 * (1 - Math.min(1, left_Pa / TAKEN_UP_AT_PA));
  }

  /** What is left in circuit 1 with the pedal released while the pump runs, Pa. */
  private residual_Pa(): number {
    return Math.max(0, Math.min(this.supply_Pa, residualPressure_Pa(this.circuit(0), this.p.return_Pa)));
  }

  private applyTime_s(): number {
    const { give_m3PerPa, stop_m } = this.p;
    const to_Pa = APPLIED * this.metered_Pa(stop_m, 'up', 0, this.supply_Pa);
    if (to_Pa < NOTHING_PA) return NEVER_S;
    const slack_m3 = this.slackFrom_m3(this.residual_Pa());
    return Math.min(NEVER_S, fillingTime_s(this.passage, { slack_m3, give_m3PerPa }, this.supply_Pa, to_Pa));
  }

  /** What an accumulator stands at after full applications with no pump, the pedal still down, Pa. */
  private kept_Pa(preCharge_Pa: number, behind_N: number, stored_Pa: number): number {
    const vessel = this.vessel(preCharge_Pa);
    let charge: Charge = vessel.settledAt(stored_Pa);
    // With the pump off nothing stands in the return: only friction holds something.
    const left_Pa = Math.max(0, residualPressure_Pa(this.circuit(behind_N), 0));
    for (let n = 0; n < this.applications; n += 1) {
      const held = vessel.stood(this.applied(vessel, charge, behind_N, left_Pa), APPLICATION.held_s);
      if (n + 1 >= this.applications) return vessel.gauge_Pa(held);
      charge = vessel.stood(held, APPLICATION.every_s - APPLICATION.held_s);
    }
    return stored_Pa;
  }

  /**
   * An accumulator after one application to the stop: what is slack, then C·p until the circuit stands at what the valve lets through
   * or at what is left. What goes beyond as it is pressed at once is gone to the return.
   */
  private applied(vessel: Vessel, from: Charge, behind_N: number, left_Pa: number): Charge {
    const { give_m3PerPa, stop_m } = this.p;
    const stored_Pa = vessel.gauge_Pa(from);
    const settles_Pa = this.metered_Pa(stop_m, 'up', behind_N, stored_Pa);
    // A sound drilling lets nothing go beyond: only where it does is that worked out.
    const { overshoot } = this.settling;
    const beyond =
      overshoot > NO_OVERSHOOT && settles_Pa > NOTHING_PA
        ? this.peak_Pa(stop_m, behind_N, stored_Pa)
        : settles_Pa;
    const slack_m3 = this.slackFrom_m3(left_Pa);
    const rises_Pa = Math.max(0, beyond - left_Pa) + settles_Pa * this.swings();
    const taken_m3 = slack_m3 + give_m3PerPa * rises_Pa;
    const parts = Math.max(1, Math.min(MOST_PARTS, Math.ceil(taken_m3 / (PART * from.gas_m3))));
    let charge = from;
    for (let part = 1; part <= parts; part += 1) {
      charge = leaked(vessel, charge, 1 / parts, () => taken_m3);
      const filled_Pa = left_Pa + ((part / parts) * taken_m3 - slack_m3) / give_m3PerPa;
      if (filled_Pa >= vessel.gauge_Pa(charge)) return charge;
    }
    return charge;
  }

  /** What an accumulator stands at after a time with no pump, by the leak of the lands, Pa. */
  private left_Pa(preCharge_Pa: number, stored_Pa: number): number {
    const vessel = this.vessel(preCharge_Pa);
    const from = vessel.settledAt(stored_Pa);
    if (this.elapsed_s <= 0) return stored_Pa;
    const leak_m3PerSPa = landsOf_m3(this.p) / this.viscosity_PaS;
    return vessel.gauge_Pa(
      stoodLeaking(vessel, from, this.elapsed_s, (pressure_Pa) => leak_m3PerSPa * pressure_Pa),
    );
  }

  private get settling(): Settling {
    const { p } = this;
    const drilling = { diameter_m: p.drilling_m, length_m: p.drillingLength_m };
    return settlingOf(this.circuit(0), p, drilling, this.viscosity_PaS);
  }

  /**
   * Rises behind the first as it swings in while it is held, as a part of what it settles at: each swing is as much smaller than the
   * one before as the first goes beyond, and every second one draws from the accumulator: o² + o³ + o⁴ + …
   */
  private swings(): number {
    const { overshoot, frequency_Hz } = this.settling;
    const o = Math.min(MOST_OVERSHOOT, overshoot);
    return (o ** 2 * (1 - o ** (2 * frequency_Hz * APPLICATION.held_s))) / (1 - o);
  }

  /** Highest pressure of a circuit as it is pressed at once to a travel, Pa. */
  private peak_Pa(travel_m: number, behind_N: number, supply_Pa: number): number {
    const { p } = this;
    const valve = this.circuit(behind_N);
    const drilling = { diameter_m: p.drilling_m, length_m: p.drillingLength_m };
    return pressedPeak_Pa({
      valve,
      circuit: p,
      passage: this.passage,
      damper_NSPerM: drillingDamper_NSPerM(p.area_m2, drilling, this.viscosity_PaS),
      slack: { slack_m3: p.slack_m3, over_Pa: TAKEN_UP_AT_PA },
      push_N:
        p.spring_NPerM * Math.max(0, Math.min(travel_m, p.stop_m) - p.starts_m) -
        valve.preload_N -
        p.friction_N,
      released_N: valve.preload_N,
      supply_Pa,
    });
  }

  private get passage(): FillingPassage {
    const { orifice_m2, line_PaSPerM3 } = this.p;
    return { orifice_m2, line_PaSPerM3, density_kgPerM3: density_kgPerM3(OIL, this.oil_K) };
  }

  read(_efforts: ArrayLike<number>, _nodes: unknown, wanted?: Pick<ReadonlySet<number>, 'has'>): number[] {
    const { travel_m, supply_Pa, supply2_Pa, p } = this;
    const output_Pa = this.metered_Pa(travel_m, 'up', 0, supply_Pa);
    const ifWanted = (id: ReadingId, tell: () => number) =>
      !wanted || wanted.has(READING[id]) ? tell() : NaN;
    return [
      ifWanted('flickUp', () => this.vessel(p.preCharge_Pa).flickUp_Pa),
      ifWanted('flickUp2', () => this.vessel(p.preCharge2_Pa).flickUp_Pa),
      p.starts_m + Math.max(0, p.preload_N + p.friction_N + p.area_m2 * p.return_Pa) / p.spring_NPerM,
      output_Pa,
      this.metered_Pa(travel_m, 'up', p.lag_N, supply2_Pa),
      this.metered_Pa(travel_m, 'down', 0, supply_Pa),
      this.residual_Pa(),
      this.metered_Pa(p.stop_m, 'up', 0, supply_Pa),
      ifWanted('peak', () => this.peak_Pa(travel_m, 0, supply_Pa)),
      ifWanted('applyTime', () => this.applyTime_s()),
      ifWanted('kept', () => this.kept_Pa(p.preCharge_Pa, 0, supply_Pa)),
      ifWanted('kept2', () => this.kept_Pa(p.preCharge2_Pa, p.lag_N, supply2_Pa)),
      ifWanted('left', () => this.left_Pa(p.preCharge_Pa, supply_Pa)),
      ifWanted('left2', () => this.left_Pa(p.preCharge2_Pa, supply2_Pa)),
      crossedPressure_Pa(crossLeakOf_m3(p), this.viscosity_PaS, p.give_m3PerPa, output_Pa, this.elapsed_s),
    ];
  }
}

const MM = 1e-3;
const L_PER_MIN = 1e-3 / 60;

function healthy(profile: PedalValveProfile) {
  const { limits, area_m2, friction_N, lag_N, spring_NPerM, preCharge_Pa, clearance_m } = profile;
  const gas_Pa = limits.preCharge_fraction.value * preCharge_Pa;
  return healthyUnit(
    parameters,
    {
      area_m2,
      spring_NPerM,
      starts_m: profile.starts_m,
      preload_N: profile.preload_N,
      friction_N,
      lag_N,
      return_Pa: 0,
      stop_m: profile.stop_m,
      drilling_m: profile.drilling_m,
      drillingLength_m: profile.drillingLength_m,
      flowGain_m2PerS: profile.openFlow_m3PerS / MM,
      line_PaSPerM3: profile.lineLoss_Pa / L_PER_MIN,
      orifice_m2: circle_m2(profile.orifice_m),
      give_m3PerPa: profile.give_m3PerPa,
      slack_m3: profile.slack_m3,
      clearance_m,
      landDiameter_m: profile.landDiameter_m,
      landLength_m: profile.landLength_m,
      crossLeak_m3PerS: 0,
      shell_m3: profile.shell_m3,
      preCharge_Pa,
      preCharge2_Pa: preCharge_Pa,
    },
    {
      spring_NPerM: limits.output_fraction.value * spring_NPerM,
      // What is left to the limits: hysteresis is 2·F_f/A, match F_d/A.
      friction_N: (limits.hysteresis_Pa.value * area_m2) / 2 - friction_N,
      lag_N: limits.match_Pa.value * area_m2 - lag_N,
      stop_m: limits.maximum_fraction.value * (profile.stop_m - profile.starts_m),
      clearance_m: limits.clearance_fraction.value * clearance_m,
      preCharge_Pa: gas_Pa,
      preCharge2_Pa: gas_Pa,
    },
  );
}

/** A dual pedal valve with its accumulators. */
export const member: Member<PedalValveProfile> = {
  parameters,
  inputs,
  readings,
  fedBy: [{ id: 'charge', name: 'Charge', coupling: 'pumped' }],
  feeds: [],
  healthy,
  with: (
    vector,
    [
      travel_m = 0,
      supply_Pa = 0,
      supply2_Pa = 0,
      oil_K = 0,
      barometer_Pa = 0,
      temperature_K = 0,
      elapsed_s = 0,
      applications = 0,
    ],
  ) =>
    new PedalValve(
      vector,
      travel_m,
      supply_Pa,
      supply2_Pa,
      oil_K,
      { barometer_Pa, temperature_K },
      elapsed_s,
      applications,
    ),
};
