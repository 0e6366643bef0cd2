import { TAKEN_UP_AT_PA } from '../../fluid/closed-line';
import { density_kgPerM3, viscosity_PaS } from '../../fluid/hydraulic-fluid';
import { drillingDamper_NSPerM, fillingFlow_m3PerS, type FillingPassage } from '../../fluid/metering-valve';
import { VesselMotion, vesselStates } from '../../fluid/vessel-motion';
import type { Vector } from '../../model/descriptor';
import {
  inputAt,
  type Instant,
  type Motion,
  type Moving,
  type NodeNow,
  type PartsNow,
  type Place,
} from '../../model/motion';
import { COCKS_COMMAND, TREADLE_COMMAND, type TreadleHands } from '../bench-hands';
import { WARM_OIL_K } from '../bench-members';
import { crossLeakOf_m3, landsOf_m3, named, vesselOf, type Parameters } from './member';
import { ports } from './places';
import { OIL } from './profile';
import type { Cocks } from './steps';
import { parts, stages } from './works';

/** What changes with time in one circuit. */
const statesOf = (n: 1 | 2) =>
  [
    ...vesselStates(`${n}`, `circuit ${n}`),
    { id: `brake${n}_Pa`, name: `Brake circuit ${n}`, quantity: 'pressure', scale: 1e4 },
    { id: `pushed${n}_N`, name: `Push on spool ${n}`, quantity: 'force', scale: 0.1 },
    { id: `spool${n}_m`, name: `Spool ${n}`, quantity: 'travel', scale: 1e-6 },
  ] as const;
const OF_ONE = 5;

/** How a bench of ordinary make answers; no verdict rests on these, and the steady end does not know them. */
const RESPONSE = {
  /** What the pack gives each accumulator, m³/s, until its gauge is so near to where it is charged to, Pa. */
  pumped_m3PerS: 1e-5,
  band_Pa: 5e4,
  /** Friction lets go within this time, s. */
  friction_s: 2e-3,
} as const;

/** Figures at the far end of a drawing. */
const FAR = { spool_m: 1e-3, brake_Pa: 1e7 } as const;

/** What acts on both circuits at an instant. */
interface Acting {
  /** Travel of the pedal, no further than its stop, m. */
  readonly travel_m: number;
  /** What the pack stands at, Pa: nothing while it stands still. */
  readonly pack_Pa: number;
  /** Shut off from its accumulator and its brake. */
  readonly plugged: boolean;
  /** What comes across from the other circuit, m³/s. */
  readonly across_m3PerS: number;
}

/**
 * One circuit over time: its accumulator, the spool that the pedal pushes by its spring, and the brake behind it. The push follows the
 * spring but for what friction keeps of it; the drilling is the damper: b·ẋ = push − k_s·x − A·(p + R_l·q). Handbook-models P.1, 8.7.
 */
class Circuit {
  private readonly vessel: VesselMotion;
  private readonly damper_NSPerM: number;
  private readonly passage: FillingPassage;
  private readonly leak_m3PerSPa: number;

  constructor(
    private readonly p: Parameters,
    preCharge_Pa: number,
    private readonly behind_N: number,
    around: { readonly barometer_Pa: number; readonly temperature_K: number },
    oil_PaS: number,
    /** Place of its first state. */
    private readonly from: number,
  ) {
    this.vessel = new VesselMotion(vesselOf(p, preCharge_Pa, around), from);
    const drilling = { diameter_m: p.drilling_m, length_m: p.drillingLength_m };
    this.damper_NSPerM = drillingDamper_NSPerM(p.area_m2, drilling, oil_PaS);
    this.passage = {
      orifice_m2: p.orifice_m2,
      line_PaSPerM3: p.line_PaSPerM3,
      density_kgPerM3: density_kgPerM3(OIL, WARM_OIL_K),
    };
    this.leak_m3PerSPa = landsOf_m3(p) / oil_PaS;
  }

  atRest(): number[] {
    const push_N = -this.p.preload_N - this.behind_N;
    return [...this.vessel.atRest(), 0, push_N, push_N / this.p.spring_NPerM];
  }

  brake_Pa(y: Float64Array): number {
    return Math.max(0, y[this.from + 2]!);
  }

  stored_Pa(y: Float64Array): number {
    return this.vessel.gauge_Pa(y);
  }

  /** Writes where its parts are, by their names with its number. */
  parts(y: Float64Array, out: PartsNow, n: 1 | 2): void {
    out[`stored${n}`] = { at: this.vessel.filled(y), of: 1 };
    out[`spool${n}`] = { at: y[this.from + 4]!, of: FAR.spool_m };
    out[`brake${n}`] = { at: this.brake_Pa(y), of: FAR.brake_Pa };
  }

  rates(y: Float64Array, dy: Float64Array, acting: Acting): void {
    const { p, from } = this;
    const { travel_m, pack_Pa, plugged, across_m3PerS } = acting;
    const stored_Pa = this.stored_Pa(y);
    const brake_Pa = this.brake_Pa(y);
    const push_N = y[from + 3]!;
    const opened_m = y[from + 4]!;

    // Open to the accumulator, or to the return: by the opening, and no more than the passage lets through.
    const return_Pa = pack_Pa > 0 ? p.return_Pa : 0;
    const feed_Pa = opened_m > 0 ? stored_Pa : return_Pa;
    const difference_Pa = feed_Pa - brake_Pa;
    const most = fillingFlow_m3PerS(this.passage, Math.abs(difference_Pa));
    const through = plugged
      ? 0
      : Math.sign(difference_Pa) * Math.min(p.flowGain_m2PerS * Math.abs(opened_m), most);
    const slack_m3PerPa = brake_Pa < TAKEN_UP_AT_PA && !plugged ? p.slack_m3 / TAKEN_UP_AT_PA : 0;
    const inflow = through + across_m3PerS;
    dy[from + 2] = (y[from + 2]! <= 0 ? Math.max(0, inflow) : inflow) / (p.give_m3PerPa + slack_m3PerPa);

    // The push follows the pedal’s spring beyond what friction holds.
    const spring_N = p.spring_NPerM * Math.max(0, travel_m - p.starts_m) - p.preload_N - this.behind_N;
    const lags_N = spring_N - push_N;
    const beyond_N = Math.sign(lags_N) * Math.max(0, Math.abs(lags_N) - p.friction_N);
    dy[from + 3] = beyond_N / RESPONSE.friction_s;
    dy[from + 4] =
      (push_N - p.spring_NPerM * opened_m - p.area_m2 * (brake_Pa + p.line_PaSPerM3 * through)) /
      this.damper_NSPerM;

    const nearing = Math.min(1, Math.max(0, (pack_Pa - stored_Pa) / RESPONSE.band_Pa));
    const pumped = plugged ? 0 : RESPONSE.pumped_m3PerS * nearing;
    const into = pumped - (opened_m > 0 ? through : 0) - this.leak_m3PerSPa * stored_Pa;
    this.vessel.rates(y, dy, into);
  }
}

const PORT = Object.fromEntries(ports.map(({ id }, i) => [id, i])) as Readonly<Record<string, number>>;

/** A dual pedal valve with its accumulators over time, on oil as warm as a pack keeps it. */
class PedalValveMotion implements Moving {
  private readonly p: Parameters;
  private readonly charge: NodeNow;
  private readonly first: Circuit;
  private readonly second: Circuit;
  private readonly across_m3PerSPa: number;

  constructor(vector: Vector, place: Place) {
    this.p = named(vector);
    this.charge = place.nodes[0]!;
    const around = {
      barometer_Pa: inputAt(place, 'barometer_Pa'),
      temperature_K: inputAt(place, 'temperature_K'),
    };
    const oil_PaS = viscosity_PaS(OIL, WARM_OIL_K);
    const { preCharge_Pa, preCharge2_Pa, lag_N } = this.p;
    this.first = new Circuit(this.p, preCharge_Pa, 0, around, oil_PaS, place.from);
    this.second = new Circuit(this.p, preCharge2_Pa, lag_N, around, oil_PaS, place.from + OF_ONE);
    this.across_m3PerSPa = crossLeakOf_m3(this.p) / oil_PaS;
  }

  atRest(): number[] {
    return [...this.first.atRest(), ...this.second.atRest()];
  }

  rates(y: Float64Array, dy: Float64Array, { hands }: Instant<TreadleHands>): void {
    const travel_m = Math.min(hands.treadle_m, this.p.stop_m);
    const pack_Pa = this.charge.effort;
    const across = this.across_m3PerSPa * (this.first.brake_Pa(y) - this.second.brake_Pa(y));
    this.first.rates(y, dy, { travel_m, pack_Pa, plugged: false, across_m3PerS: -across });
    const plugged = hands.second === 'plugged';
    this.second.rates(y, dy, { travel_m, pack_Pa, plugged, across_m3PerS: across });
    this.charge.passed = 0;
  }

  parts(y: Float64Array, { hands }: Instant<TreadleHands>, out: PartsNow): void {
    out.pedal = { at: Math.min(hands.treadle_m, this.p.stop_m), of: this.p.stop_m };
    this.first.parts(y, out, 1);
    this.second.parts(y, out, 2);
  }

  shown(y: Float64Array, { hands }: Instant<TreadleHands>, shown: Float64Array): void {
    shown[PORT.treadle!] = Math.min(hands.treadle_m, this.p.stop_m);
    shown[PORT.supply!] = this.first.stored_Pa(y);
    shown[PORT['supply-2']!] = this.second.stored_Pa(y);
    shown[PORT.output!] = this.first.brake_Pa(y);
    shown[PORT['output-2']!] = this.second.brake_Pa(y);
    shown[PORT.oil!] = WARM_OIL_K;
    shown[PORT.recorder!] = 0;
  }
}

/** The valve over time. */
export const motionWith = ({ cocks }: Cocks): Motion => ({
  states: [...statesOf(1), ...statesOf(2)],
  parts,
  stages,
  commands: cocks ? [TREADLE_COMMAND, COCKS_COMMAND] : [TREADLE_COMMAND],
  owns: [],
  with: (parameters, place) => new PedalValveMotion(parameters, place),
});
