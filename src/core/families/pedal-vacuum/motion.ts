import { airExchange_PaM3PerS, airFlow_PaM3PerS, meteredFlow_PaM3PerS } from '../../air/flow';
import type { Port } from '../../contract/family';
import type { Vector } from '../../model/descriptor';
import type { Instant, Motion, Moving, NodeNow, PartsNow, Place } from '../../model/motion';
import { PEDAL_COMMAND, type VehicleHands } from '../vehicle-hands';
import { named, type Parameters } from './member';
import { parts, stages } from './works';

/** What changes with time in the unit. */
const states = [
  { id: 'front_Pa', name: 'Vacuum side, absolute', quantity: 'barometer', scale: 1e3 },
  { id: 'rear_Pa', name: 'Working side, absolute', quantity: 'barometer', scale: 1e3 },
  { id: 'travel_m', name: 'Travel of the pushrod', quantity: 'length', scale: 1e-4 },
] as const;

/** Figures at the far end of a drawing. */
const FAR = { rod_m: 0.016, in_N: 2000, gap_m: 3e-3 } as const;

/** How quickly the rod of a unit of ordinary make follows; the steady end does not know it. */
const RESPONSE = {
  rod_s: 0.01,
  /** Most that a rod with hardly any load moves for a newton, m. */
  most_mPerN: 2e-5,
} as const;

/** Pressure above the room's at which a light spring holds the poppet on its seat no more, Pa. */
const LIFTS_PA = 2e3;

/**
 * A pedal-mounted booster over time: the air on either side of its diaphragm, and its rod. Handbook-models 8.3: the valve's
 * error e = F_in − F_p − (F_o − J)⁺/R opens the air valve by e/w and the vacuum port by (−e − 2h)/w. What a passage between
 * the sides carries on, the air valve lets in besides, so that the steady end on the apply branch is `steady`.
 */
class PedalVacuumMotion implements Moving {
  private readonly p: Parameters;
  private readonly vacuum: NodeNow;
  private readonly rod: NodeNow;
  private readonly at: Readonly<Record<string, number>>;

  constructor(
    vector: Vector,
    private readonly place: Place,
    ports: readonly Port[],
  ) {
    this.p = named(vector);
    this.at = Object.fromEntries(ports.map(({ id }, i) => [id, i]));
    [this.vacuum, this.rod] = place.nodes as [NodeNow, NodeNow];
  }

  atRest({ barometer_Pa }: Instant): number[] {
    return [barometer_Pa, barometer_Pa, 0];
  }

  efforts(y: Float64Array): void {
    const { from } = this.place;
    this.vacuum.effort = y[from]!;
    this.rod.passed = Math.max(0, y[from + 2]!);
  }

  rates(y: Float64Array, dy: Float64Array, at: Instant): void {
    const { p, place, rod } = this;
    const { from } = place;
    const { barometer_Pa, temperature_K } = at;
    const front = y[from]!;
    const rear = y[from + 1]!;
    const travel = rod.passed;
    const in_N = this.in_N(at);

    const push_N = this.push_N(in_N, front, rear);
    const net_N = push_N - rod.effort;
    const free = net_N > 0 || travel > 0;
    const give = Math.min(RESPONSE.most_mPerN, rod.give(rod.effort));
    const speed = free ? (net_N * give) / RESPONSE.rod_s : 0;

    const off_N = this.off_N(in_N, push_N);
    const across =
      p.tear_m3PerSPa > 0 ? airExchange_PaM3PerS(p.tear_m3PerSPa, rear, front, temperature_K) : 0;
    const joining = Math.min(1, Math.max(0, (-off_N - 2 * p.friction_N) / p.valve_N));
    const joined =
      joining > 0
        ? across + airExchange_PaM3PerS(p.vacuumPort_m3PerSPa * joining, rear, front, temperature_K)
        : across;
    const outside = airExchange_PaM3PerS(p.air_m3PerSPa, barometer_Pa, rear, temperature_K);
    const valve =
      in_N >= p.begin_N ? meteredFlow_PaM3PerS(outside, off_N / p.valve_N, joining > 0 ? 0 : across) : 0;
    // The poppet opens outwards: what stands above the room's pressure behind a seat that is shut leaves past it.
    const lifted = off_N > 0 ? 0 : Math.min(1, Math.max(0, rear - barometer_Pa) / LIFTS_PA);
    const letIn = valve + Math.min(0, outside) * lifted;
    const seat =
      p.seat_m3PerSPa > 0 ? airExchange_PaM3PerS(p.seat_m3PerSPa, barometer_Pa, rear, temperature_K) : 0;
    const shell = airFlow_PaM3PerS(p.shell_m3PerSPa, barometer_Pa, front, temperature_K);
    const sweep = p.area_m2 * speed;
    const front_m3 = p.front_m3 + this.vacuum.volume_m3 - p.area_m2 * travel;
    const rear_m3 = p.rear_m3 + p.area_m2 * travel;
    dy[from] = (joined + shell - this.vacuum.passed + front * sweep) / front_m3;
    dy[from + 1] = (letIn + seat - joined - rear * sweep) / rear_m3;
    dy[from + 2] = speed;
  }

  /** Force of the rod behind the pedal, N. */
  private in_N({ hands }: Instant): number {
    return Math.max(0, this.p.pedalRatio * (hands as VehicleHands).pedal_N - this.p.binding_N);
  }

  /** What rod and diaphragm push with against the spring, N. */
  private push_N(in_N: number, front: number, rear: number): number {
    return in_N + (rear - front) * this.p.area_m2 - this.p.spring_N;
  }

  /** How far the plunger is off its balance, as a force: air comes in above zero. */
  private off_N(in_N: number, push_N: number): number {
    const { p } = this;
    return in_N - p.begin_N - Math.max(0, Math.max(0, push_N) - p.jump_N) / p.reaction;
  }

  parts(y: Float64Array, at: Instant, out: PartsNow): void {
    const { p, place } = this;
    const { barometer_Pa } = at;
    const [front, rear] = [y[place.from]!, y[place.from + 1]!];
    const in_N = this.in_N(at);
    const off_N = this.off_N(in_N, this.push_N(in_N, front, rear));
    out.vacuumSide = { at: barometer_Pa - front, of: barometer_Pa };
    out.workingSide = { at: barometer_Pa - rear, of: barometer_Pa };
    out.plunger = { at: in_N, of: FAR.in_N };
    out.vacuumPort = { at: Math.min(1, Math.max(0, (-off_N - 2 * p.friction_N) / p.valve_N)), of: 1 };
    out.airPort = { at: in_N >= p.begin_N ? Math.min(1, Math.max(0, off_N / p.valve_N)) : 0, of: 1 };
    out.gap = { at: p.clearance_m, of: FAR.gap_m };
    out.rod = { at: this.rod.passed, of: FAR.rod_m };
  }

  shown(y: Float64Array, { barometer_Pa, hands }: Instant, shown: Float64Array): void {
    shown[this.at.pedal!] = (hands as VehicleHands).pedal_N;
    shown[this.at.supply!] = Math.max(0, barometer_Pa - y[this.place.from]!);
    shown[this.at.gap!] = this.p.clearance_m;
    // On a bench nobody reads how far the lever goes.
    if (this.at.travel !== undefined) shown[this.at.travel] = this.p.pedalRatio * this.rod.passed;
  }
}

/** Over time, with what true gauges on some ports show. */
export const motionOn = (ports: readonly Port[]): Motion => ({
  states,
  parts,
  stages,
  commands: [PEDAL_COMMAND],
  owns: ['vacuum'],
  with: (parameters, place) => new PedalVacuumMotion(parameters, place, ports),
});
