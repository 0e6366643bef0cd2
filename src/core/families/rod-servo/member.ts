import { APPLICATIONS, BAROMETER, ELAPSED, TEMPERATURE } from '../inputs';
import { airFlow_PaM3PerS, downstream_Pa, upstream_Pa } from '../../air/flow';
import { rodPush_N } from '../../air/diaphragm';
import { emptyTime_s, fillTime_s } from '../../air/fill';
import { CRITICAL_RATIO, depressionAfter_Pa } from '../../air/leak';
import { orificeConductance_m3PerSPa } from '../../air/orifice';
import { pressureBetween_Pa } from '../../air/series';
import { depressionAfterStroke_Pa, depressionAtStroke_Pa } from '../../air/reserve';
import type { LoggedUnit } from '../../contract/logged-unit';
import type { Room } from '../../contract/run-context';
import type { Member, Nodes, Standing } from '../../model/member';
import { healthyUnit, reader, type HealthyUnit, type InputDescriptor, type Named } from '../../model/vectors';
import { type Vector } from '../../model/descriptor';
import { GAUSS_8 } from '../../numeric/quadrature';
import { rootOfFalling } from '../../numeric/root';
import { healthyLeak_m3PerSPa } from '../healthy-leak';
import type { RodServoProfile } from './profile';

/** What makes one unit differ from another, and what faults move. */
export const parameters = [
  { id: 'effectiveArea_m2', name: 'Effective area', quantity: 'area' },
  { id: 'preload_N', name: 'Return spring preload', quantity: 'force' },
  { id: 'springRate_NPerM', name: 'Return spring rate', quantity: 'stiffness' },
  { id: 'stroke_m', name: 'Stroke', quantity: 'length' },
  { id: 'pushArea_m2', name: 'Piston area of the push-through', quantity: 'area' },
  { id: 'crack_Pa', name: 'Crack', quantity: 'pressure' },
  { id: 'liftRange_Pa', name: 'From crack to full lift', quantity: 'pressure' },
  { id: 'frontVolume_m3', name: 'Volume on the vacuum side', quantity: 'volume' },
  { id: 'rearVolume_m3', name: 'Volume on the working side', quantity: 'volume' },
  { id: 'tank_m3', name: 'Tank volume', quantity: 'volume' },
  { id: 'air_m3PerSPa', name: 'Air passage of the valve', quantity: 'conductance' },
  { id: 'line_m3PerSPa', name: 'Vacuum line', quantity: 'conductance' },
  { id: 'leak_m3PerSPa', name: 'Air leak into the tank, valve released', quantity: 'conductance' },
  { id: 'residual_N', name: 'Force left after release', quantity: 'force' },
  { id: 'pullDownTo_Pa', name: 'Mark to which the pull-down is timed', quantity: 'depression' },
  { id: 'tear_m3PerSPa', name: 'Passage between the sides', quantity: 'conductance' },
  {
    id: 'back_m3PerSPa',
    name: 'Air back through the non-return valve, source off',
    quantity: 'conductance',
  },
] as const;

/** What is set. */
const inputs = [
  { id: 'input_Pa', name: 'Fluid pressure', quantity: 'pressure', from: { port: 'input', as: 'set' } },
  BAROMETER,
  TEMPERATURE,
  ELAPSED,
  APPLICATIONS,
] as const satisfies readonly InputDescriptor[];

/** What a gauge can show. */
const readings = [
  { id: 'output', name: 'Rod force', quantity: 'force' },
  { id: 'outputWithout', name: 'Rod force without vacuum', quantity: 'force' },
  // Read as the pointer begins to move, by a hand that raises it some tenths of a bar in a second.
  {
    id: 'beginInput',
    name: 'Fluid pressure at which force begins',
    quantity: 'pressure',
    apart: { SI: 1e4 },
  },
  { id: 'fullInput', name: 'Fluid pressure of full force', quantity: 'pressure' },
  { id: 'residual', name: 'Force left after release', quantity: 'force' },
  // Neither the rhythm of the applications nor their length is kept to the tenth of a second.
  {
    id: 'reserveForce',
    name: 'Rod force from the reserve',
    quantity: 'force',
    apart: { SI: 15, part: 0.03 },
  },
  {
    id: 'tankUsed',
    name: 'Tank vacuum after applications',
    quantity: 'depression',
    apart: { SI: 500, part: 0.02 },
  },
  { id: 'tankLeft', name: 'Tank vacuum after a wait', quantity: 'depression' },
  // How quick a shop's pump and its tank are differs from bench to bench.
  { id: 'pullDown', name: 'Pull-down time', quantity: 'duration', apart: { SI: 0.2, part: 0.2 } },
  { id: 'applyTime', name: 'Apply time', quantity: 'duration' },
  { id: 'releaseTime', name: 'Release time', quantity: 'duration' },
  { id: 'supplyApplied', name: 'Tank vacuum, applied', quantity: 'depression' },
  { id: 'supplyAtRest', name: 'Tank vacuum at rest', quantity: 'depression' },
] as const;

export type Parameters = Named<typeof parameters>;

/** Parameters by name. */
export const named = reader(parameters);

export type ReadingId = (typeof readings)[number]['id'];

/** An application is timed to 90 % of the full force, a release to the last 10 %. */
export const TIMED = { low: 0.1, high: 0.9 } as const;

/** Force left from which a valve that sticks keeps all that the preload asks for: below it a fit finds its way from none. */
const STUCK_FROM_N = 10;

/** Pace of the reserve test, which its step names: one application in so many seconds. */
export const APPLICATION_S = 10;

const wholeVolume_m3 = ({
  tank_m3,
  frontVolume_m3,
  rearVolume_m3,
}: Pick<Parameters, 'tank_m3' | 'frontVolume_m3' | 'rearVolume_m3'>) =>
  tank_m3 + frontVolume_m3 + rearVolume_m3;

/** Parameters of a healthy unit of this profile. Half-widths come from the profile's own limits. */
function healthy(profile: RodServoProfile): HealthyUnit {
  const { limits } = profile;
  const values: Parameters = {
    effectiveArea_m2: profile.effectiveArea_m2,
    preload_N: profile.preload_N,
    springRate_NPerM: profile.springRate_NPerM,
    stroke_m: profile.stroke_m,
    pushArea_m2: profile.pushArea_m2 ?? 0,
    crack_Pa: profile.crack_Pa,
    liftRange_Pa: profile.fullLift_Pa - profile.crack_Pa,
    frontVolume_m3: profile.frontVolume_m3,
    rearVolume_m3: profile.rearVolume_m3,
    tank_m3: profile.tank_m3,
    air_m3PerSPa: orificeConductance_m3PerSPa(profile.airBore_m),
    line_m3PerSPa: orificeConductance_m3PerSPa(profile.lineBore_m),
    leak_m3PerSPa: healthyLeak_m3PerSPa(limits.tankLoss_PaPerS.value, wholeVolume_m3(profile)),
    residual_N: 0,
    pullDownTo_Pa: profile.pullDownTo_Pa,
    tear_m3PerSPa: 0,
    back_m3PerSPa: 0,
  };
  return healthyUnit(parameters, values, {
    effectiveArea_m2: limits.effectiveArea_fraction.value * profile.effectiveArea_m2,
    crack_Pa: limits.lift_Pa.value,
    liftRange_Pa: limits.lift_Pa.value,
  });
}

/** What a trace of such a unit is worked out with: its rod and its vacuum volume; there is no slave cylinder. */
export const logged = (profile: RodServoProfile) =>
  ({
    slave: null,
    rod: {
      preload_N: profile.preload_N,
      giving: 1 + profile.springRate_NPerM / profile.loadStiffness_NPerM,
      pushArea_m2: profile.pushArea_m2 ?? 0,
      useful_N: profile.limits.reserveForce_N.value,
    },
    vacuumVolume_m3: wholeVolume_m3(profile),
  }) satisfies LoggedUnit;

/** Part of the tank's vacuum that the valve brings to bear: none below crack, all of it from full lift on. */
export const liftShare = (p: Parameters, input_Pa: number): number =>
  Math.min(1, Math.max(0, (input_Pa - p.crack_Pa) / p.liftRange_Pa));

/** How far out the rod is while it pushes with a force: the return spring takes the rest; it stops at its stroke. */
const travel_m = (p: Parameters, pushed_N: number, force_N: number): number => {
  const left_N = pushed_N - force_N;
  if (left_N <= 0) return 0;
  return p.springRate_NPerM > 0 ? Math.min(p.stroke_m, left_N / p.springRate_NPerM) : p.stroke_m;
};

/**
 * Pressure difference across the piston, Pa: what the valve brings to bear, at most what its air way and a passage between
 * the sides in series leave on the working side.
 */
function difference_Pa(p: Parameters, share: number, tank_Pa: number, room: Room): number {
  const { barometer_Pa, temperature_K } = room;
  const brought_Pa = share * (barometer_Pa - tank_Pa);
  if (p.tear_m3PerSPa <= 0 || brought_Pa <= 0) return brought_Pa;
  const working_Pa = pressureBetween_Pa(
    p.air_m3PerSPa,
    p.tear_m3PerSPa,
    barometer_Pa,
    tank_Pa,
    temperature_K,
  );
  return Math.min(brought_Pa, working_Pa - tank_Pa);
}

/** How closely the tank's pressure is found, Pa. */
const CLOSE_PA = 0.01;
/** How long an application of the reserve test stands, s: so long a passage between the sides lets air through. */
const STANDS_S = 3;

/** The working side fills through this part of the air way at least, whatever passes on between the sides. */
const LEAST_FILL = 0.1;
/** Less vacuum than this is none: nothing is timed. */
const LEAST_DRAWN_PA = 1;
/** How closely the force of an application that is let go early is found, N. */
const CLOSE_N = 0.01;

/** The working side at some moment: its absolute pressure, and the space that it takes up. */
interface Side {
  readonly pressure_Pa: number;
  readonly volume_m3: number;
}

/** Places of the terminals. */
const VACUUM = 0;
const ROD = 1;

/**
 * A rod-acting servo. Handbook 8.2: the valve brings v = (p − crack)/(full − crack) of the tank's vacuum to bear, between
 * 0 and 1; F = v·Δp·A + p·A_push − F_s0 − k_s·x, never below 0, with x from the load. The reserve follows handbook 4 with
 * the tank. Times are those of one opening, from a valve that opens at once to 90 % of the full force, or to the last
 * 10 %; the pull-down is that of what feeds it, without a tank of its own.
 */
class RodServoUnit implements Standing {
  private readonly p: Parameters;
  private readonly share: number;
  private readonly input_Pa: number;
  private readonly elapsed_s: number;
  private readonly count: number;
  private readonly room: Room;
  private lastApplied = { node_Pa: NaN, tank_Pa: 0, pushed_N: 0 };

  constructor(
    parameters: Vector,
    [input_Pa = 0, barometer_Pa = 0, temperature_K = 0, elapsed_s = 0, applications = 0]: Vector,
  ) {
    this.p = named(parameters);
    this.input_Pa = input_Pa;
    this.share = liftShare(this.p, input_Pa);
    this.elapsed_s = elapsed_s;
    this.count = applications;
    this.room = { barometer_Pa, temperature_K };
  }

  /** Air that comes into the tank: leaks from the room, and what passes between the sides. */
  private comesIn_PaM3PerS(share: number, tank_Pa: number): number {
    const { p, room } = this;
    const { barometer_Pa, temperature_K } = room;
    const leaked = airFlow_PaM3PerS(p.leak_m3PerSPa, barometer_Pa, tank_Pa, temperature_K);
    if (p.tear_m3PerSPa <= 0 || share <= 0) return leaked;
    const working_Pa = tank_Pa + difference_Pa(p, share, tank_Pa, room);
    return leaked + airFlow_PaM3PerS(p.tear_m3PerSPa, working_Pa, tank_Pa, temperature_K);
  }

  /** The tank, Pa absolute, with so much at the far end of its line. */
  private tank_Pa(share: number, node_Pa: number): number {
    const { barometer_Pa, temperature_K } = this.room;
    const { line_m3PerSPa } = this.p;
    // Through a line that is shut nothing is drawn.
    if (line_m3PerSPa <= 0) return barometer_Pa;
    if (share <= 0 || this.p.tear_m3PerSPa <= 0) {
      // A choked leak lets in the same whatever the tank holds.
      const leaked = this.comesIn_PaM3PerS(0, node_Pa);
      const tank_Pa = upstream_Pa(line_m3PerSPa, leaked, node_Pa, temperature_K);
      if (tank_Pa <= CRITICAL_RATIO * barometer_Pa) return tank_Pa;
    }
    return rootOfFalling(
      (tank_Pa) =>
        this.comesIn_PaM3PerS(share, tank_Pa) -
        airFlow_PaM3PerS(line_m3PerSPa, tank_Pa, node_Pa, temperature_K),
      node_Pa,
      barometer_Pa,
      CLOSE_PA,
    );
  }

  through(terminal: number, effort: number, efforts: ArrayLike<number>): number {
    if (terminal === ROD) return travel_m(this.p, this.applied(efforts).pushed_N, effort);
    return this.comesIn_PaM3PerS(this.share, this.tank_Pa(this.share, effort));
  }

  /** The gauge is on the tank: the far end of its line lies lower by what the leak takes. */
  atRest(_terminal: number, gauge_Pa: number) {
    const passes = this.comesIn_PaM3PerS(0, gauge_Pa);
    return {
      effort: downstream_Pa(this.p.line_m3PerSPa, passes, gauge_Pa, this.room.temperature_K),
      passes,
    };
  }

  /** The tank and the push with the unit applied, kept as long as the effort at the node stays. */
  private applied(efforts: ArrayLike<number>) {
    const node_Pa = efforts[VACUUM]!;
    if (this.lastApplied.node_Pa !== node_Pa) {
      const tank_Pa = this.tank_Pa(this.share, node_Pa);
      const pushed_N = this.push_N(difference_Pa(this.p, this.share, tank_Pa, this.room));
      this.lastApplied = { node_Pa, tank_Pa, pushed_N };
    }
    return this.lastApplied;
  }

  /** Force that the pressures make before the return spring gives way, N. */
  private push_N(difference_Pa: number): number {
    return rodPush_N(this.p, this.input_Pa, difference_Pa, this.p.effectiveArea_m2);
  }

  span(_terminal: number, efforts: ArrayLike<number>): readonly [number, number] {
    return [0, Math.max(0, this.applied(efforts).pushed_N)];
  }

  /**
   * Rod force against its load, where the rod is as far out as the load gives way.
   *
   * @param pushed_N force that the pressures make while the rod pushes with a force
   */
  private rod_N(nodes: Nodes, pushed_N: (force_N: number) => number): number {
    const { p } = this;
    const most_N = pushed_N(0);
    if (most_N <= 0) return 0;
    const travelAt_m = (force_N: number) => travel_m(p, pushed_N(force_N), force_N);
    // The travel bends where the rod comes up to its stop: the balance lies on one side of that.
    const bend_N = Math.max(0, most_N - p.springRate_NPerM * p.stroke_m);
    const stopped = travelAt_m(bend_N) < nodes.taken(ROD, bend_N);
    return nodes.settle(ROD, travelAt_m, stopped ? [0, bend_N] : [bend_N, most_N]);
  }

  read(efforts: ArrayLike<number>, nodes: Nodes): number[] {
    const { p, room } = this;
    const { barometer_Pa } = room;
    const force_N = efforts[ROD]!;
    const restNode_Pa = nodes.settle(VACUUM, (node_Pa) => this.comesIn_PaM3PerS(0, this.tank_Pa(0, node_Pa)));
    const rest_Pa = Math.max(0, barometer_Pa - this.tank_Pa(0, restNode_Pa));
    const { tank_Pa } = this.applied(efforts);
    const begin = rest_Pa > 0 ? Math.min(1, p.preload_N / (p.effectiveArea_m2 * rest_Pa)) : 1;
    const reserve = this.reserve(nodes, rest_Pa);
    return [
      force_N,
      this.rod_N(nodes, () => this.push_N(0)),
      p.crack_Pa + begin * p.liftRange_Pa,
      p.crack_Pa + p.liftRange_Pa,
      p.residual_N,
      reserve.force_N,
      reserve.tank_Pa,
      this.leakedTo_Pa(rest_Pa, this.elapsed_s),
      this.pullDown_s(nodes, rest_Pa),
      ...this.times(nodes, force_N, barometer_Pa - tank_Pa),
      barometer_Pa - tank_Pa,
      rest_Pa,
    ];
  }

  /**
   * Force of the n-th application since the source stopped, and the tank at the end of its ten seconds: it leaks until the force is
   * read, and from then to the next.
   */
  private reserve(nodes: Nodes, full_Pa: number) {
    let [left_Pa, force_N] = [full_Pa, 0];
    for (let i = 0; i < this.count; i += 1) {
      const fills_s = Math.min(STANDS_S, this.applied_s(nodes, left_Pa));
      const made = this.stroke(nodes, this.leakedTo_Pa(left_Pa, fills_s), fills_s);
      force_N = made.force_N;
      left_Pa = this.leakedTo_Pa(made.left_Pa, APPLICATION_S - fills_s);
    }
    return { force_N, tank_Pa: left_Pa };
  }

  /** How long the valve takes to fill the working side for all the force that so much vacuum makes, s. */
  private applied_s(nodes: Nodes, left_Pa: number): number {
    const { force_N, stands_Pa } = this.standing(nodes, left_Pa);
    return force_N > 0 ? this.fills_s(nodes, stands_Pa, force_N) : 0;
  }

  /** An application that has had all the time it takes, on a tank that nothing fills again. @returns the tank under it too */
  private standing(nodes: Nodes, left_Pa: number) {
    const { p, share, room } = this;
    const stuck_m = this.stuck_m(nodes);
    const unit = this.asReserve(stuck_m);
    /** The stroke that a force takes presses the vacuum side together, and so leaves less to push with. */
    const standsAt_Pa = (force_N: number) => {
      unit.stroke_m = Math.max(0, Math.min(p.stroke_m, nodes.taken(ROD, force_N)) - stuck_m);
      return depressionAtStroke_Pa(left_Pa, unit, room.barometer_Pa);
    };
    const force_N = this.rod_N(nodes, (force_N) =>
      this.push_N(difference_Pa(p, share, room.barometer_Pa - standsAt_Pa(force_N), room)),
    );
    return { force_N, stands_Pa: standsAt_Pa(force_N) };
  }

  /** How far out a valve that sticks leaves the rod between two applications, m. */
  private stuck_m(nodes: Nodes): number {
    const { residual_N, stroke_m } = this.p;
    return residual_N > 0 ? Math.min(stroke_m, nodes.taken(ROD, residual_N)) : 0;
  }

  /** Depression that stays between the sides there, Pa: that air is not spread over the whole. */
  private stuck_Pa(at_m: number): number {
    const { residual_N, springRate_NPerM, preload_N, effectiveArea_m2 } = this.p;
    // Against the stop the difference may be anything up to the preload: it comes with the first force that is left.
    const preloaded_N = preload_N * Math.min(1, Math.max(0, residual_N) / STUCK_FROM_N);
    return (residual_N + springRate_NPerM * at_m + preloaded_N) / effectiveArea_m2;
  }

  /** The unit as it stands between two applications, the rod so far out. */
  private asReserve(at_m: number) {
    const { p } = this;
    return {
      front_m3: p.frontVolume_m3 - p.effectiveArea_m2 * at_m,
      rear_m3: p.rearVolume_m3 + p.effectiveArea_m2 * at_m,
      area_m2: p.effectiveArea_m2,
      stroke_m: 0,
      tank_m3: p.tank_m3,
    };
  }

  /**
   * Force of an application that is held for three seconds, and what it leaves: all that the vacuum makes, or where the air way is
   * too narrow for that, what it fills the working side for by then.
   *
   * @param fills_s how long it takes until the force is read
   */
  private stroke(nodes: Nodes, stored_Pa: number, fills_s: number) {
    const { p, room } = this;
    // While it fills, what passes between the sides grows from nothing.
    const filling_Pa = this.lostAcross_Pa(this.standing(nodes, stored_Pa).stands_Pa, fills_s / 2);
    const left_Pa = Math.max(0, stored_Pa - filling_Pa);
    const { force_N: most_N, stands_Pa } = this.standing(nodes, left_Pa);
    const fillsFor_s = (force_N: number) => this.fills_s(nodes, stands_Pa, force_N);
    const force_N =
      most_N > 0 && fillsFor_s(most_N) > STANDS_S
        ? rootOfFalling((force_N) => STANDS_S - fillsFor_s(force_N), 0, most_N, CLOSE_N)
        : most_N;
    const stuck_m = this.stuck_m(nodes);
    const out_m = Math.min(p.stroke_m, nodes.taken(ROD, force_N));
    const unit = { ...this.asReserve(stuck_m), stroke_m: Math.max(0, out_m - stuck_m) };
    const rear_Pa = force_N < most_N ? this.side(nodes, stands_Pa, force_N).pressure_Pa : room.barometer_Pa;
    const spread_Pa = depressionAfterStroke_Pa(left_Pa, unit, room.barometer_Pa, rear_Pa);
    const kept_Pa = Math.min(spread_Pa, this.stuck_Pa(stuck_m));
    const after_Pa = spread_Pa + (kept_Pa * unit.rear_m3) / wholeVolume_m3(p);
    return {
      force_N,
      left_Pa: Math.max(0, after_Pa - this.lostAcross_Pa(stands_Pa, STANDS_S - fills_s)),
    };
  }

  /** Depression that a passage between the sides costs the whole volume while an application stands for a time, Pa. */
  private lostAcross_Pa(depression_Pa: number, time_s: number): number {
    const { p, share, room } = this;
    if (p.tear_m3PerSPa <= 0 || share <= 0) return 0;
    const tank_Pa = room.barometer_Pa - depression_Pa;
    const working_Pa = tank_Pa + difference_Pa(p, share, tank_Pa, room);
    return (
      (airFlow_PaM3PerS(p.tear_m3PerSPa, working_Pa, tank_Pa, room.temperature_K) * time_s) /
      wholeVolume_m3(p)
    );
  }

  /** Tank vacuum after a time with nothing done, the source off. */
  private leakedTo_Pa(depression_Pa: number, time_s: number): number {
    return depressionAfter_Pa(Math.min(depression_Pa, this.room.barometer_Pa), time_s, {
      conductance_m3PerSPa: this.p.leak_m3PerSPa + this.p.back_m3PerSPa,
      volume_m3: wholeVolume_m3(this.p),
      ...this.room,
    });
  }

  /**
   * Time to the mark; where the source does not reach it, none can be said and the mark is taken as far as it does: V·∫ dp / (drawn −
   * leaked), where the source takes what the line brings. A source with a tank of its own is quicker at first.
   */
  private pullDown_s(nodes: Nodes, rest_Pa: number): number {
    if (rest_Pa < LEAST_DRAWN_PA) return 0;
    const { p, room } = this;
    const { barometer_Pa, temperature_K } = room;
    const mark_Pa = barometer_Pa - Math.min(p.pullDownTo_Pa, 0.99 * rest_Pa);
    const through = (tank_Pa: number) => (node_Pa: number) =>
      airFlow_PaM3PerS(p.line_m3PerSPa, tank_Pa, Math.min(node_Pa, tank_Pa), temperature_K);
    const drawn = (tank_Pa: number) => {
      const brings = through(tank_Pa);
      return brings(nodes.settle(VACUUM, brings)) - this.comesIn_PaM3PerS(0, tank_Pa);
    };
    // Evenly in the logarithm of the pressure: so it falls while the line is choked.
    const span = Math.log(barometer_Pa / mark_Pa);
    const taken_sPerM3 = GAUSS_8.reduce((sum, [node, weight]) => {
      const tank_Pa = mark_Pa * Math.exp(span * node);
      return sum + (weight * span * tank_Pa) / drawn(tank_Pa);
    }, 0);
    return wholeVolume_m3(p) * taken_sPerM3;
  }

  /** The working side while the rod pushes with a force: its pressure, and what air it then holds. */
  private side(nodes: Nodes, depression_Pa: number, force_N: number) {
    const { p, input_Pa } = this;
    const out_m = nodes.taken(ROD, force_N);
    const needed_Pa =
      (force_N + p.springRate_NPerM * out_m + p.preload_N - input_Pa * p.pushArea_m2) / p.effectiveArea_m2;
    const pressure_Pa =
      this.room.barometer_Pa - depression_Pa + Math.min(depression_Pa, Math.max(0, needed_Pa));
    return { pressure_Pa, volume_m3: p.rearVolume_m3 + p.effectiveArea_m2 * out_m };
  }

  /** Time in which the working side fills out of the room, from what is in the tank to what a force asks for, s. */
  private fills_s(nodes: Nodes, depression_Pa: number, force_N: number): number {
    const { barometer_Pa } = this.room;
    const empty = { pressure_Pa: barometer_Pa - depression_Pa, volume_m3: this.p.rearVolume_m3 };
    const filled = this.side(nodes, depression_Pa, force_N);
    if (filled.pressure_Pa <= empty.pressure_Pa) return 0;
    // What goes on into the tank meanwhile, at the mean of the two pressures, does not fill it.
    const { air_m3PerSPa, tear_m3PerSPa } = this.p;
    const onward = (empty.pressure_Pa + filled.pressure_Pa) / (2 * barometer_Pa);
    const fills_m3PerSPa = Math.max(LEAST_FILL * air_m3PerSPa, air_m3PerSPa - onward * tear_m3PerSPa);
    if (fills_m3PerSPa <= 0) return Infinity;
    const space = this.space(empty, filled, fills_m3PerSPa);
    return fillTime_s(empty.pressure_Pa, filled.pressure_Pa, barometer_Pa, space);
  }

  /** The space grows with the stroke: what it takes up from one end to the other, for the pressure between them. */
  private space(from: Side, to: Side, conductance_m3PerSPa: number) {
    return {
      volume_m3:
        (to.pressure_Pa * to.volume_m3 - from.pressure_Pa * from.volume_m3) /
        (to.pressure_Pa - from.pressure_Pa),
      conductance_m3PerSPa,
      temperature_K: this.room.temperature_K,
    };
  }

  /** Apply: the working side fills out of the room. Release: it empties through the line into the tank. */
  private times(nodes: Nodes, full_N: number, depression_Pa: number): [apply_s: number, release_s: number] {
    if (full_N <= 0) return [0, 0];
    const vacuum_Pa = this.room.barometer_Pa - depression_Pa;
    const [full, last] = [1, TIMED.low].map((part) => this.side(nodes, depression_Pa, part * full_N)) as [
      Side,
      Side,
    ];
    const line = this.space(full, last, this.p.line_m3PerSPa);
    return [
      this.fills_s(nodes, depression_Pa, TIMED.high * full_N),
      emptyTime_s(full.pressure_Pa, last.pressure_Pa, vacuum_Pa, line),
    ];
  }
}

/** The servo between the vacuum that feeds it and the lever that its rod pulls. */
export const member: Member<RodServoProfile> = {
  parameters,
  inputs,
  readings,
  fedBy: [{ id: 'vacuum', name: 'Vacuum line', coupling: 'vacuum' }],
  feeds: [{ id: 'rod', name: 'Rod', coupling: 'rod' }],
  healthy,
  with: (vector, at) => new RodServoUnit(vector, at),
};
