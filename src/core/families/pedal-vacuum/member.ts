import { APPLICATIONS, BAROMETER, ELAPSED, TEMPERATURE } from '../inputs';
import { airFlow_PaM3PerS } from '../../air/flow';
import { fillTime_s } from '../../air/fill';
import { depressionAfter_Pa } from '../../air/leak';
import { depressionAfterStroke_Pa, depressionAtStroke_Pa } from '../../air/reserve';
import { pressureBetween_Pa } from '../../air/series';
import type { Member, Nodes, Standing, Wanted } from '../../model/member';
import { healthyUnit, reader, type InputDescriptor, type Named } from '../../model/vectors';
import type { Vector } from '../../model/descriptor';
import { GAUSS_8 } from '../../numeric/quadrature';
import { settled } from '../../numeric/root';
import { HEALTHY_LEAK_M3_PER_S_PA, RECOVERED, RHYTHM, type PedalVacuumProfile } from './profile';

/** What makes one booster differ from another, and what faults move. */
export const parameters = [
  { id: 'pedalRatio', name: 'Pedal ratio', quantity: 'ratio' },
  { id: 'area_m2', name: 'Effective area', quantity: 'area' },
  { id: 'spring_N', name: 'Return spring', quantity: 'force' },
  { id: 'reaction', name: 'Reaction ratio R', quantity: 'ratio' },
  { id: 'begin_N', name: 'Input at which output begins', quantity: 'force' },
  { id: 'jump_N', name: 'Jump-in', quantity: 'force' },
  { id: 'friction_N', name: 'Friction of the valve', quantity: 'force' },
  { id: 'valve_N', name: 'Input that opens the air valve wide', quantity: 'force' },
  { id: 'binding_N', name: 'Pedal rod binding', quantity: 'force' },
  { id: 'front_m3', name: 'Volume on the vacuum side', quantity: 'volume' },
  { id: 'rear_m3', name: 'Volume on the working side', quantity: 'volume' },
  { id: 'air_m3PerSPa', name: 'Air passage of the valve', quantity: 'conductance' },
  { id: 'vacuumPort_m3PerSPa', name: 'Vacuum passage of the valve', quantity: 'conductance' },
  { id: 'shell_m3PerSPa', name: 'Leak into the vacuum side', quantity: 'conductance' },
  { id: 'seat_m3PerSPa', name: 'Leak of the air seat', quantity: 'conductance' },
  { id: 'tear_m3PerSPa', name: 'Passage between the sides', quantity: 'conductance' },
  { id: 'clearance_m', name: 'Clearance of the pushrod', quantity: 'travel' },
  { id: 'test_N', name: 'Moderate pedal force', quantity: 'force' },
] as const;

const inputs = [
  { id: 'pedal_N', name: 'Pedal force', quantity: 'force', from: { port: 'pedal', as: 'set' } },
  BAROMETER,
  TEMPERATURE,
  ELAPSED,
  APPLICATIONS,
] as const satisfies readonly InputDescriptor[];

const readings = [
  { id: 'output', name: 'Force of the pushrod', quantity: 'force' },
  { id: 'supplyApplied', name: 'Vacuum at the unit, applied', quantity: 'depression' },
  { id: 'supplyAtRest', name: 'Vacuum at the unit, at rest', quantity: 'depression' },
  { id: 'runoutPedal', name: 'Pedal force at runout', quantity: 'force' },
  { id: 'drop', name: 'Pedal drop as the engine starts', quantity: 'travel', apart: { SI: 1.5e-3 } },
  {
    id: 'recovery',
    name: 'Recovery of the vacuum after a release',
    quantity: 'duration',
    apart: { SI: 0.2, part: 0.03 },
  },
  { id: 'left', name: 'Vacuum left after a wait, at rest', quantity: 'depression' },
  { id: 'leftCapped', name: 'Vacuum left after a wait, source side capped', quantity: 'depression' },
  { id: 'used', name: 'Vacuum left after applications', quantity: 'depression' },
  { id: 'reserve', name: 'Assisted applications', quantity: 'count' },
  { id: 'heldLeft', name: 'Vacuum left after a hold', quantity: 'depression' },
  {
    id: 'rise',
    name: 'Pedal rise over a hold, engine off',
    quantity: 'travel',
    apart: { SI: 1e-3, part: 0.05 },
  },
  { id: 'applyTime', name: 'Apply time', quantity: 'duration', apart: { SI: 0.05, part: 0.03 } },
  { id: 'dragForce', name: 'Force left on the pushrod at rest', quantity: 'force' },
  { id: 'clearance', name: 'Clearance of the pushrod', quantity: 'travel' },
] as const;

export type Parameters = Named<typeof parameters>;
export const named = reader(parameters);
export type ReadingId = (typeof readings)[number]['id'];

const PLACE = Object.fromEntries(readings.map(({ id }, place) => [id, place])) as Record<ReadingId, number>;
const NOT_ASKED = { left_Pa: NaN, force_N: NaN };

const VACUUM = 0;
const ROD = 1;
/** How closely an output is found that the stroke itself takes vacuum from, N: far less than any gauge shows. */
const CLOSE_N = 0.05;
/** An application is of use while its output is this much above the unassisted one. Handbook 4. */
const WORTH = 1.1;
/** Longer than this nobody waits for a vacuum that does not come, s. */
const NEVER_S = 3600;
/** More applications than this are counted by nobody. */
const MOST_APPLICATIONS = 12;

/** Force of the pushrod that the driver's own foot makes through the unit, N. */
export const unassisted_N = (p: Parameters, in_N: number): number => Math.max(0, in_N - p.spring_N);

/**
 * A pedal-mounted vacuum booster. Handbook-models 8.3: F_o = 0 below F_p, else min(J + R·(F_in − F_p), F_in + Δp·A − F_s)⁺
 * with F_in = i·F_pedal − friction; Δp between the sides is what the valve and a passage between them in series leave.
 */
class PedalVacuum implements Standing {
  private readonly p: Parameters;
  /** Force into the unit, and what its valve calls for, N. */
  private readonly in_N: number;
  private readonly called_N: number;
  /** The vacuum side that an output was last asked for beside, and that output. */
  private lastNode_Pa = NaN;
  private lastOutput_N = NaN;

  constructor(
    parameters: Vector,
    private readonly pedal_N: number,
    private readonly barometer_Pa: number,
    private readonly temperature_K: number,
    private readonly elapsed_s: number,
    private readonly applications: number,
  ) {
    this.p = named(parameters);
    this.in_N = this.inputAt(pedal_N);
    this.called_N = this.calledAt(this.in_N);
  }

  private inputAt(pedal_N: number): number {
    return Math.max(0, this.p.pedalRatio * pedal_N - this.p.binding_N);
  }

  /** What the valve calls for. A seat that leaks goes on lifting it until the vacuum port opens: it stands as on the way back. */
  private calledAt(in_N: number): number {
    const { begin_N, jump_N, reaction, seat_m3PerSPa } = this.p;
    if (in_N < begin_N) return 0;
    return jump_N + reaction * (in_N - begin_N) + (seat_m3PerSPa > 0 ? this.back_N : 0);
  }

  /** How much more output stands at an input on the way back: 2h of input. */
  private get back_N(): number {
    return 2 * this.p.friction_N * this.p.reaction;
  }

  private flow(conductance_m3PerSPa: number, from_Pa: number, to_Pa: number): number {
    return airFlow_PaM3PerS(conductance_m3PerSPa, from_Pa, to_Pa, this.temperature_K);
  }

  /** The working side with the valve wide open, beside a vacuum side, Pa absolute. */
  private fullyOpen_Pa(front_Pa: number): number {
    const { air_m3PerSPa, tear_m3PerSPa } = this.p;
    return pressureBetween_Pa(air_m3PerSPa, tear_m3PerSPa, this.barometer_Pa, front_Pa, this.temperature_K);
  }

  /** The working side at rest: an air seat that leaks lifts it against the open vacuum port. */
  private resting_Pa(front_Pa: number): number {
    const { seat_m3PerSPa, vacuumPort_m3PerSPa, tear_m3PerSPa } = this.p;
    if (seat_m3PerSPa <= 0) return front_Pa;
    const out = vacuumPort_m3PerSPa + tear_m3PerSPa;
    return pressureBetween_Pa(seat_m3PerSPa, out, this.barometer_Pa, front_Pa, this.temperature_K);
  }

  /** Force of the pushrod at rest: the difference that a leaking air seat leaves, beyond the spring. */
  private drag_N(front_Pa: number): number {
    const difference_Pa = Math.max(0, this.resting_Pa(front_Pa) - front_Pa);
    return Math.max(0, difference_Pa * this.p.area_m2 - this.p.spring_N);
  }

  /** Force of the pushrod beside a vacuum side, by an input. */
  private outputAt(front_Pa: number, in_N: number, called_N: number): number {
    const { barometer_Pa } = this;
    const { begin_N, area_m2, spring_N } = this.p;
    if (in_N < begin_N) return this.drag_N(front_Pa);
    const most_N = in_N + (this.fullyOpen_Pa(front_Pa) - front_Pa) * area_m2 - spring_N;
    // What stands above the room on the vacuum side is against the foot.
    const against_N = Math.max(0, front_Pa - barometer_Pa) * area_m2;
    return Math.max(0, unassisted_N(this.p, in_N - against_N), Math.min(called_N, most_N));
  }

  /** The same at the input set, kept as long as the vacuum stays. */
  private output_N(front_Pa: number): number {
    if (this.lastNode_Pa !== front_Pa) {
      this.lastNode_Pa = front_Pa;
      this.lastOutput_N = this.outputAt(front_Pa, this.in_N, this.called_N);
    }
    return this.lastOutput_N;
  }

  /** Air that comes into the vacuum side at rest. */
  private restLeak_PaM3PerS(front_Pa: number): number {
    const { shell_m3PerSPa, seat_m3PerSPa } = this.p;
    const shell = this.flow(shell_m3PerSPa, this.barometer_Pa, front_Pa);
    return seat_m3PerSPa > 0
      ? shell + this.flow(seat_m3PerSPa, this.barometer_Pa, this.resting_Pa(front_Pa))
      : shell;
  }

  /** The same while it is applied: what passes between the sides too. */
  private appliedLeak_PaM3PerS(front_Pa: number): number {
    const { shell_m3PerSPa, tear_m3PerSPa, area_m2, spring_N } = this.p;
    const shell = this.flow(shell_m3PerSPa, this.barometer_Pa, front_Pa);
    if (tear_m3PerSPa <= 0) return shell;
    const difference_Pa = Math.max(0, this.output_N(front_Pa) - this.in_N + spring_N) / area_m2;
    return shell + this.flow(tear_m3PerSPa, front_Pa + difference_Pa, front_Pa);
  }

  span(): readonly [number, number] {
    return [0, 0];
  }

  through(_vacuum: number, effort_Pa: number): number {
    return this.in_N < this.p.begin_N
      ? this.restLeak_PaM3PerS(effort_Pa)
      : this.appliedLeak_PaM3PerS(effort_Pa);
  }

  /**
   * The n-th application since the engine stopped has what the others have left; with the engine running none is counted. Where no
   * vacuum comes each is an application on nothing.
   */
  brings(_rod: number, efforts: ArrayLike<number>, nodes: Nodes): number {
    const front_Pa = efforts[VACUUM]!;
    if (front_Pa >= this.barometer_Pa) return this.onNothing_N(nodes);
    if (this.applications < 1) return this.output_N(front_Pa);
    const waited = this.leftAtRest_Pa(nodes, this.rest_Pa(nodes, front_Pa), true);
    const before = this.used(nodes, waited, this.applications - 1);
    return this.stroke(nodes, before.left_Pa, before.force_N).force_N;
  }

  /** Vacuum at rest, beside a vacuum side that the node settles at while it is applied. */
  private rest_Pa(nodes: Nodes, front_Pa: number): number {
    const { tear_m3PerSPa, seat_m3PerSPa } = this.p;
    // Where nothing leaks at the seats it draws the same, applied or not.
    const rest_Pa =
      tear_m3PerSPa === 0 && seat_m3PerSPa === 0
        ? front_Pa
        : nodes.settle(VACUUM, (node_Pa) => this.restLeak_PaM3PerS(node_Pa));
    return Math.max(0, this.barometer_Pa - rest_Pa);
  }

  /** The gauge is on the vacuum side itself. */
  atRest(_terminal: number, gauge_Pa: number) {
    return { effort: gauge_Pa, passes: this.restLeak_PaM3PerS(gauge_Pa) };
  }

  read(efforts: ArrayLike<number>, nodes: Nodes, wanted?: Wanted): number[] {
    const { p, barometer_Pa } = this;
    const front_Pa = efforts[VACUUM]!;
    const force_N = efforts[ROD]!;
    const rest = this.rest_Pa(nodes, front_Pa);
    const way_m = (at_N: number) => this.way_m(nodes, at_N);
    const asked = (...ids: readonly ReadingId[]) => !wanted || ids.some((id) => wanted.has(PLACE[id]));
    const held = asked('heldLeft', 'rise') ? this.held(nodes, front_Pa, force_N) : NOT_ASKED;
    const waited = this.leftAtRest_Pa(nodes, rest, true);
    const used = (most: number) => this.used(nodes, waited, most);
    const started_N = () => this.outputAt(front_Pa, this.in_N, this.called_N + this.back_N);
    return [
      force_N,
      Math.max(0, barometer_Pa - front_Pa),
      rest,
      this.runout_N(front_Pa),
      asked('drop') ? way_m(started_N()) - way_m(this.onNothing_N(nodes)) : NaN,
      asked('recovery') ? this.recovery_s(nodes, rest) : NaN,
      waited,
      this.leftAtRest_Pa(nodes, rest, false),
      asked('used') ? used(this.applications).left_Pa : NaN,
      asked('reserve') ? used(MOST_APPLICATIONS).useful : NaN,
      held.left_Pa,
      way_m(force_N) - way_m(held.force_N) - p.pedalRatio * this.elapsed_s * nodes.goesOn(ROD, force_N),
      asked('applyTime') ? this.apply_s(nodes, front_Pa, force_N) : NaN,
      this.drag_N(barometer_Pa - rest),
      p.clearance_m,
    ];
  }

  /** Way of the pedal at a force of the pushrod, m. */
  private way_m(nodes: Nodes, force_N: number): number {
    return this.p.pedalRatio * nodes.taken(ROD, force_N);
  }

  /** Force into the unit at which all of the vacuum works, N. Handbook-models 8.3. */
  private runoutIn_N(front_Pa: number): number {
    const { area_m2, spring_N, jump_N, reaction, begin_N } = this.p;
    const assist_N = (this.fullyOpen_Pa(front_Pa) - front_Pa) * area_m2;
    return (assist_N - spring_N - jump_N + reaction * begin_N) / (reaction - 1);
  }

  /** The same at the pedal. */
  private runout_N(front_Pa: number): number {
    return Math.max(0, this.runoutIn_N(front_Pa) + this.p.binding_N) / this.p.pedalRatio;
  }

  /** Force of the pushrod at runout, where the air valve shuts on the way back, N. */
  private lap_N(front_Pa: number): number {
    return Math.max(0, this.calledAt(this.runoutIn_N(front_Pa)));
  }

  /** Volumes that empty together with the unit at rest, and its diaphragm. */
  private bodies(nodes: Nodes, stroke_m: number) {
    const { front_m3, rear_m3, area_m2 } = this.p;
    return { front_m3, rear_m3, area_m2, stroke_m, tank_m3: nodes.stopped(VACUUM).volume_m3 };
  }

  /** Vacuum after a time, engine off and pedal up. @param check with what the check valve lets back */
  private leftAtRest_Pa(nodes: Nodes, from_Pa: number, check: boolean, time_s = this.elapsed_s): number {
    const { p } = this;
    const { volume_m3, leak_m3PerSPa, back_m3PerSPa } = nodes.stopped(VACUUM);
    // The two that share one path let through as much as they do in series: the port is far wider than the seat.
    const conductance_m3PerSPa =
      p.shell_m3PerSPa + p.seat_m3PerSPa + leak_m3PerSPa + (check ? back_m3PerSPa : 0);
    return this.leakedTo_Pa(from_Pa, conductance_m3PerSPa, p.front_m3 + p.rear_m3 + volume_m3, time_s);
  }

  private leakedTo_Pa(
    from_Pa: number,
    conductance_m3PerSPa: number,
    volume_m3: number,
    time_s = this.elapsed_s,
  ): number {
    return depressionAfter_Pa(Math.min(from_Pa, this.barometer_Pa), time_s, {
      conductance_m3PerSPa,
      volume_m3,
      barometer_Pa: this.barometer_Pa,
      temperature_K: this.temperature_K,
    });
  }

  /** What lets air into the vacuum side while it is applied with the engine off, m³/(s·Pa). */
  private heldLeak_m3PerSPa(nodes: Nodes, front_Pa: number): number {
    const { p } = this;
    const { leak_m3PerSPa, back_m3PerSPa } = nodes.stopped(VACUUM);
    const passes =
      p.tear_m3PerSPa > 0 ? (p.tear_m3PerSPa * this.fullyOpen_Pa(front_Pa)) / this.barometer_Pa : 0;
    return p.shell_m3PerSPa + leak_m3PerSPa + back_m3PerSPa + passes;
  }

  /**
   * A hold with the engine off, at or beyond runout: the vacuum that is left, and the force that it makes. As the pedal rises the
   * vacuum side grows by A·x, which is worked out at the end: what came in meanwhile is that of a stroke that stands.
   */
  private held(nodes: Nodes, front_Pa: number, force_N: number) {
    const { p, barometer_Pa } = this;
    const whole_m3 = p.front_m3 + nodes.stopped(VACUUM).volume_m3;
    const volume_m3 = (at_N: number) => whole_m3 - p.area_m2 * nodes.taken(ROD, at_N);
    const start_m3 = volume_m3(force_N);
    const still_Pa = this.leakedTo_Pa(
      Math.max(0, barometer_Pa - front_Pa),
      this.heldLeak_m3PerSPa(nodes, front_Pa),
      start_m3,
    );
    const air_PaM3 = (barometer_Pa - still_Pa) * start_m3;
    let left_Pa = still_Pa;
    const end_N = settled(
      (at_N) => {
        left_Pa = Math.max(0, barometer_Pa - air_PaM3 / volume_m3(at_N));
        return this.outputAt(barometer_Pa - left_Pa, this.in_N, this.called_N);
      },
      force_N,
      CLOSE_N,
      () => [unassisted_N(p, this.in_N), force_N],
    );
    return { left_Pa, force_N: end_N };
  }

  /** Applications at the input set since the engine stopped, on what is stored: how many helped, and what they leave. */
  private used(nodes: Nodes, from_Pa: number, most: number) {
    const least_N = WORTH * unassisted_N(this.p, this.in_N);
    let left_Pa = from_Pa;
    let useful = 0;
    let force_N = this.called_N;
    for (let i = 0; i < most; i += 1) {
      const made = this.stroke(nodes, left_Pa, force_N);
      force_N = made.force_N;
      if (force_N <= least_N) return { left_Pa, useful, force_N };
      useful += 1;
      left_Pa = made.left_Pa;
    }
    return { left_Pa, useful, force_N };
  }

  /**
   * One application on what is stored, in the rhythm that the test asks for: the force that it makes at the end of its hold, and the
   * vacuum that it leaves. What leaks in during the pause before it and during the hold is spread over it as over the rest.
   */
  private stroke(nodes: Nodes, stored_Pa: number, guess_N: number) {
    const { p, barometer_Pa } = this;
    const from_Pa = this.leftAtRest_Pa(nodes, stored_Pa, true, RHYTHM.every_s - RHYTHM.held_s);
    const unit = this.bodies(nodes, 0);
    // What passes between the sides lets out whatever stands above the room.
    const crack_Pa = p.tear_m3PerSPa > 0 ? 0 : nodes.stopped(VACUUM).crack_Pa;
    const whole_m3 = unit.front_m3 + unit.tank_m3;
    const leak_m3PerSPa = this.heldLeak_m3PerSPa(nodes, barometer_Pa - from_Pa);
    let lost_Pa = 0;
    let lap_N = 0;
    const at = (force_N: number) => {
      unit.stroke_m = nodes.taken(ROD, force_N);
      const full_Pa = depressionAtStroke_Pa(from_Pa, unit, barometer_Pa, crack_Pa);
      const pressed_m3 = whole_m3 - p.area_m2 * unit.stroke_m;
      const held_Pa =
        full_Pa > 0 ? this.leakedTo_Pa(full_Pa, leak_m3PerSPa, pressed_m3, RHYTHM.held_s) : full_Pa;
      // Air that came in while it was held, as it will be spread over all of it after the release.
      lost_Pa = ((full_Pa - held_Pa) * pressed_m3) / (whole_m3 + unit.rear_m3);
      lap_N = this.lap_N(barometer_Pa - held_Pa);
      return this.outputAt(barometer_Pa - held_Pa, this.in_N, this.called_N);
    };
    // It presses the vacuum side together, and so takes from what makes it: less than with no stroke.
    const force_N = settled(at, guess_N, CLOSE_N, () => [
      unassisted_N(p, this.in_N - crack_Pa * p.area_m2),
      this.outputAt(barometer_Pa - from_Pa, this.in_N, this.called_N),
    ]);
    // On the way back the air valve shuts at runout: what the rod comes back before that goes out again.
    unit.stroke_m = nodes.taken(ROD, Math.min(force_N, lap_N));
    const left_Pa = depressionAfterStroke_Pa(from_Pa, unit, barometer_Pa);
    return { force_N, left_Pa: Math.max(0, left_Pa - lost_Pa) };
  }

  /** The force that an application makes with nothing stored, N. */
  private onNothing_N(nodes: Nodes): number {
    return this.in_N < this.p.begin_N ? 0 : this.stroke(nodes, 0, unassisted_N(this.p, this.in_N)).force_N;
  }

  /** Time in which the source brings the vacuum back after one release from the moderate force, s. */
  private recovery_s(nodes: Nodes, rest: number): number {
    const in_N = this.inputAt(this.p.test_N);
    const called_N = this.calledAt(in_N);
    const stroke = this.bodies(
      nodes,
      nodes.taken(ROD, this.outputAt(this.barometer_Pa - rest, in_N, called_N)),
    );
    const from_Pa = this.barometer_Pa - depressionAfterStroke_Pa(rest, stroke, this.barometer_Pa);
    const to_Pa = this.barometer_Pa - RECOVERED * rest;
    if (from_Pa <= to_Pa) return 0;
    const volume_m3 = stroke.front_m3 + stroke.rear_m3 + stroke.tank_m3;
    // dt = V·dp/Q with p = p₁ + (p₀ − p₁)·s².
    let sum = 0;
    for (let i = 0; i < GAUSS_8.length; i += 1) {
      const [s, weight] = GAUSS_8[i]!;
      const at_Pa = to_Pa + (from_Pa - to_Pa) * s * s;
      const taken = nodes.taken(VACUUM, at_Pa) - this.restLeak_PaM3PerS(at_Pa);
      if (taken <= 0) return NEVER_S;
      sum += (weight * 2 * s * (from_Pa - to_Pa)) / taken;
    }
    return Math.min(NEVER_S, volume_m3 * sum);
  }

  /** Time in which the open air valve fills the working side for this output, s. Handbook-models 8.3. */
  private apply_s(nodes: Nodes, front_Pa: number, force_N: number): number {
    const { p, barometer_Pa, temperature_K } = this;
    if (force_N <= 0) return 0;
    const volume_m3 = p.rear_m3 + p.area_m2 * nodes.taken(ROD, force_N);
    const space = { conductance_m3PerSPa: p.air_m3PerSPa, volume_m3, temperature_K };
    // The air that stood there before it moved is spread over all of it.
    const from_Pa = (front_Pa * p.rear_m3) / volume_m3;
    return fillTime_s(from_Pa, barometer_Pa, barometer_Pa, space);
  }
}

function healthy(profile: PedalVacuumProfile) {
  const { limits } = profile;
  return healthyUnit(
    parameters,
    {
      pedalRatio: profile.pedalRatio,
      area_m2: profile.area_m2,
      spring_N: profile.spring_N,
      reaction: profile.reaction,
      begin_N: profile.begin_N,
      jump_N: profile.jump_N,
      friction_N: profile.friction_N,
      valve_N: profile.valve_N,
      binding_N: 0,
      front_m3: profile.front_m3,
      rear_m3: profile.rear_m3,
      air_m3PerSPa: profile.air_m3PerSPa,
      vacuumPort_m3PerSPa: profile.vacuumPort_m3PerSPa,
      shell_m3PerSPa: HEALTHY_LEAK_M3_PER_S_PA,
      seat_m3PerSPa: 0,
      tear_m3PerSPa: 0,
      clearance_m: profile.clearance_m,
      test_N: profile.moderate_N,
    },
    {
      area_m2: limits.area_fraction.value * profile.area_m2,
      reaction: limits.reaction_fraction.value * profile.reaction,
      spring_N: Math.min(profile.spring_N, limits.without_N.value),
    },
  );
}

/** A pedal-mounted vacuum booster, to be joined to a vacuum supply and to the master cylinder that it pushes. */
export const member: Member<PedalVacuumProfile> = {
  parameters,
  inputs,
  readings,
  fedBy: [{ id: 'vacuum', name: 'Vacuum', coupling: 'vacuum' }],
  feeds: [{ id: 'rod', name: 'Pushrod', coupling: 'rod' }],
  healthy,
  with: (vector, [pedal_N = 0, barometer_Pa = 0, temperature_K = 0, elapsed_s = 0, applications = 0]) =>
    new PedalVacuum(vector, pedal_N, barometer_Pa, temperature_K, elapsed_s, applications),
};
