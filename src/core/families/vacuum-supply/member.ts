import { BAROMETER, TEMPERATURE } from '../inputs';
import { SEA_LEVEL_PA } from '../../air/atmosphere';
import { airFlow_PaM3PerS, chokedPerPa_m3PerS, downstream_Pa } from '../../air/flow';
import { CRITICAL_RATIO } from '../../air/leak';
import { tankBehindHose_Pa } from '../../air/pumped';
import { rootOfFalling } from '../../numeric/root';
import type { Member, Standing, Stopped } from '../../model/member';
import { healthyUnit, reader, type InputDescriptor, type Named } from '../../model/vectors';
import type { Vector } from '../../model/descriptor';
import type { VacuumSupplyProfile } from './profile';

/**
 * What makes one supply differ from another, and what faults move. The engine's k_e of handbook-models 9 is a suction too:
 * S = k_e·R·T. What the idle control takes back it had let in itself, so it is a conductance to the room.
 */
export const parameters = [
  { id: 'floor_Pa', name: 'Manifold pressure at idle, absolute', quantity: 'barometer' },
  { id: 'floorShare', name: 'Part of the barometer that the pump leaves', quantity: 'ratio' },
  { id: 'suction_m3PerS', name: 'Suction of pump or engine', quantity: 'flow' },
  { id: 'spare_m3PerSPa', name: 'Leak that the idle control takes back', quantity: 'conductance' },
  { id: 'sourceLeak_m3PerSPa', name: 'Leak at the source', quantity: 'conductance' },
  { id: 'hose_m3PerSPa', name: 'Hose', quantity: 'conductance' },
  { id: 'collapse', name: 'Part of the hose left open where it collapses', quantity: 'ratio' },
  { id: 'collapseFrom_Pa', name: 'Depression at which it collapses', quantity: 'depression' },
  { id: 'crack_Pa', name: 'Check valve opens at', quantity: 'pressure' },
  { id: 'hoseLeak_m3PerSPa', name: 'Leak of hose and tank behind the check valve', quantity: 'conductance' },
  { id: 'back_m3PerSPa', name: 'Air back through the check valve', quantity: 'conductance' },
  { id: 'electric', name: 'Runs by itself: 1 for an electric pump, else 0', quantity: 'ratio' },
  { id: 'on_Pa', name: 'Vacuum at which an electric pump starts', quantity: 'depression' },
  { id: 'off_Pa', name: 'Vacuum at which it stops', quantity: 'depression' },
  { id: 'tank_m3', name: 'Tank and hose up to the check valve', quantity: 'volume' },
] as const;

const room = [BAROMETER, TEMPERATURE] as const satisfies readonly InputDescriptor[];

const readings = [
  { id: 'idle', name: 'Vacuum at the source', quantity: 'depression' },
  { id: 'atUnit', name: 'Vacuum at the unit', quantity: 'depression' },
  { id: 'stopsAt', name: 'Vacuum at which the pump stops', quantity: 'depression' },
  { id: 'startsAt', name: 'Vacuum at which the pump starts', quantity: 'depression' },
] as const;

export type Parameters = Named<typeof parameters>;
export const named = reader(parameters);
export type ReadingId = (typeof readings)[number]['id'];

/** So many rounds bring the floor behind a reading to rest. */
const FLOOR_ROUNDS = 3;

/** How closely the pressure at the source is found, Pa. */
const CLOSE_PA = 0.01;

/**
 * A vacuum supply: what makes the vacuum, a hose, a check valve and a tank. Handbook-models 9: a manifold holds
 * p_s = p_m0 + (q − q_spare)⁺·R·T/S, a pump ε·p_atm + q·R·T/S; the hose follows ISO 6358 with b = 0.5, which is
 * p_u = p_s·(1 + κ²/4); the check valve opens at its crack. A hose that collapses is narrower once it is deeply evacuated.
 */
export class VacuumSupply implements Standing {
  private readonly p: Parameters;
  private readonly floor_Pa: number;
  /** What an idle control takes back. */
  private readonly spare_PaM3PerS: number;

  constructor(
    protected readonly parameters: Vector,
    protected readonly barometer_Pa: number,
    protected readonly temperature_K: number,
    /** How deep it reaches, where that is told by a gauge. */
    told_Pa?: number,
  ) {
    this.p = named(parameters);
    this.floor_Pa = Math.min(barometer_Pa, told_Pa ?? this.p.floor_Pa + this.p.floorShare * barometer_Pa);
    this.spare_PaM3PerS = this.flow(this.p.spare_m3PerSPa, barometer_Pa, this.floor_Pa);
  }

  get stopped(): Stopped {
    const { tank_m3, hoseLeak_m3PerSPa, back_m3PerSPa, crack_Pa } = this.p;
    return { volume_m3: tank_m3, leak_m3PerSPa: hoseLeak_m3PerSPa, back_m3PerSPa, crack_Pa };
  }

  private flow(conductance_m3PerSPa: number, from_Pa: number, to_Pa: number): number {
    return airFlow_PaM3PerS(conductance_m3PerSPa, from_Pa, to_Pa, this.temperature_K);
  }

  /** The hose as wide as it is with the unit at a pressure. */
  private hoseAt_m3PerSPa(unit_Pa: number): number {
    const { hose_m3PerSPa, collapse, collapseFrom_Pa } = this.p;
    return this.barometer_Pa - unit_Pa > collapseFrom_Pa ? hose_m3PerSPa * collapse : hose_m3PerSPa;
  }

  /** Air through the hose from a unit at one pressure to the source at another. */
  private hose_PaM3PerS(unit_Pa: number, source_Pa: number): number {
    return this.flow(this.hoseAt_m3PerSPa(unit_Pa), unit_Pa - this.p.crack_Pa, source_Pa);
  }

  /** What the source takes away at a pressure of its own, besides what an idle control takes back. */
  private suction_PaM3PerS(source_Pa: number): number {
    return this.p.suction_m3PerS * (source_Pa - this.floor_Pa);
  }

  /**
   * Pressure at the source while the unit stands at one. A leak into it that is choked takes as much at any pressure, so that
   * the source is a pump with another reach, and the balance is a quadratic; else the balance is struck.
   */
  private source_Pa(unit_Pa: number): number {
    const { floor_Pa, barometer_Pa } = this;
    const { sourceLeak_m3PerSPa, suction_m3PerS, crack_Pa } = this.p;
    const leak = sourceLeak_m3PerSPa > 0 ? this.flow(sourceLeak_m3PerSPa, barometer_Pa, floor_Pa) : 0;
    const reach_Pa = floor_Pa + (leak - this.spare_PaM3PerS) / suction_m3PerS;
    const alone_Pa = Math.max(floor_Pa, reach_Pa);
    const inner_Pa = unit_Pa - crack_Pa;
    const hose_m3PerS = chokedPerPa_m3PerS(this.hoseAt_m3PerSPa(unit_Pa), this.temperature_K);
    const found_Pa =
      inner_Pa <= alone_Pa
        ? alone_Pa
        : Math.max(floor_Pa, tankBehindHose_Pa(hose_m3PerS, suction_m3PerS, inner_Pa, reach_Pa));
    if (sourceLeak_m3PerSPa <= 0 || found_Pa <= CRITICAL_RATIO * barometer_Pa) return found_Pa;
    return rootOfFalling((source_Pa) => this.lacks(unit_Pa, source_Pa), floor_Pa, barometer_Pa, CLOSE_PA);
  }

  /** What comes in at the source beyond what is taken away there. */
  private lacks(unit_Pa: number, source_Pa: number): number {
    return (
      this.hose_PaM3PerS(unit_Pa, source_Pa) +
      this.flow(this.p.sourceLeak_m3PerSPa, this.barometer_Pa, source_Pa) -
      this.spare_PaM3PerS -
      this.suction_PaM3PerS(source_Pa)
    );
  }

  span(): readonly [number, number] {
    return [this.floor_Pa + Math.min(this.p.crack_Pa, this.barometer_Pa - this.floor_Pa), this.barometer_Pa];
  }

  through(_terminal: number, unit_Pa: number): number {
    const leaks = this.flow(this.p.hoseLeak_m3PerSPa, this.barometer_Pa, unit_Pa);
    return this.hose_PaM3PerS(unit_Pa, this.source_Pa(unit_Pa)) - leaks;
  }

  atRest() {
    return { effort: 0, passes: 0 };
  }

  /**
   * How deep a source must reach for so much to pass with the unit at a pressure: down the hose to the source, and below that by
   * what comes in there beyond what an idle control takes back, over its suction.
   */
  floorFor_Pa(unit_Pa: number, passes: number): number {
    const { sourceLeak_m3PerSPa, spare_m3PerSPa, suction_m3PerS, crack_Pa, hoseLeak_m3PerSPa } = this.p;
    const { barometer_Pa } = this;
    const hose = passes + this.flow(hoseLeak_m3PerSPa, barometer_Pa, unit_Pa);
    const inner_Pa = Math.max(0, unit_Pa - crack_Pa);
    const source_Pa =
      hose > 0 ? downstream_Pa(this.hoseAt_m3PerSPa(unit_Pa), hose, inner_Pa, this.temperature_K) : inner_Pa;
    const comes = hose + this.flow(sourceLeak_m3PerSPa, barometer_Pa, source_Pa);
    // What an idle control takes back hangs on the floor itself, where that is not below half the room's pressure.
    let floor_Pa = source_Pa;
    for (let round = 0; round < FLOOR_ROUNDS; round += 1) {
      const beyond = Math.max(0, comes - this.flow(spare_m3PerSPa, barometer_Pa, floor_Pa));
      floor_Pa = Math.max(0, source_Pa - beyond / suction_m3PerS);
    }
    return floor_Pa;
  }

  read(efforts: ArrayLike<number>): number[] {
    const unit_Pa = efforts[0]!;
    const { on_Pa, off_Pa, crack_Pa } = this.p;
    const source = this.barometer_Pa - this.source_Pa(unit_Pa);
    const unit = this.barometer_Pa - unit_Pa;
    // A pump that reaches its mark stops there; one that does not runs on.
    const stops = Math.min(unit, off_Pa);
    return [Math.min(source, off_Pa + crack_Pa), stops, stops, Math.min(unit, on_Pa)];
  }
}

/** One that reaches as deep as a gauge at the unit says at rest. */
class ReadAtRest extends VacuumSupply {
  drawnAtRest(unit_Pa: number, passes: number): VacuumSupply {
    return new VacuumSupply(
      this.parameters,
      this.barometer_Pa,
      this.temperature_K,
      this.floorFor_Pa(unit_Pa, passes),
    );
  }
}

/** Numbers of a healthy supply: what a profile of its kind has no figure for plays no part in it. */
function healthy(profile: VacuumSupplyProfile) {
  const { makes, idle_Pa, floorShare, spare_m3PerSPa, limits } = profile;
  const manifold = makes === 'manifold';
  return healthyUnit(
    parameters,
    {
      floor_Pa: idle_Pa ?? 0,
      floorShare: floorShare ?? 0,
      suction_m3PerS: profile.suction_m3PerS,
      spare_m3PerSPa: spare_m3PerSPa ?? 0,
      sourceLeak_m3PerSPa: 0,
      hose_m3PerSPa: profile.hose_m3PerSPa,
      collapse: 1,
      collapseFrom_Pa: COLLAPSES_FROM_PA,
      crack_Pa: profile.crack_Pa,
      hoseLeak_m3PerSPa: 0,
      back_m3PerSPa: 0,
      electric: makes === 'electric-pump' ? 1 : 0,
      on_Pa: profile.on_Pa ?? NEVER_STOPS.on_Pa,
      off_Pa: profile.off_Pa ?? NEVER_STOPS.off_Pa,
      tank_m3: profile.tank_m3,
    },
    {
      ...(manifold
        ? { floor_Pa: limits.idle_Pa.value }
        : { floorShare: Math.min(floorShare ?? 0, limits.idle_Pa.value / SEA_LEVEL_PA) }),
      hose_m3PerSPa: limits.hose_fraction.value * profile.hose_m3PerSPa,
      ...(makes === 'electric-pump' && { on_Pa: limits.switch_Pa.value, off_Pa: limits.switch_Pa.value }),
    },
  );
}

/** A pump without a switch, Pa: it would stop at more than there is anywhere. */
const NEVER_STOPS = { on_Pa: 1e6, off_Pa: 1.1e6 } as const;

/** Depression at which a soft hose closes up, Pa: the middle of 40 to 60 kPa. Handbook-models 9. */
const COLLAPSES_FROM_PA = 5e4;

const ends = { fedBy: [], feeds: [{ id: 'vacuum', name: 'Vacuum', coupling: 'vacuum' }] } as const;

/** A vacuum supply as it is, to be joined to what it feeds. */
export const member: Member<VacuumSupplyProfile> = {
  parameters,
  inputs: room,
  readings,
  ...ends,
  healthy,
  with: (vector, [barometer_Pa = 0, temperature_K = 0]) =>
    new VacuumSupply(vector, barometer_Pa, temperature_K),
};

const CRACK = parameters.findIndex(({ id }) => id === 'crack_Pa');

/**
 * The same as a gauge at the unit tells it while the unit stands at rest: whatever makes the vacuum, its line goes through
 * what was read.
 */
export const asRead: Member<VacuumSupplyProfile> = {
  ...member,
  inputs: [
    {
      id: 'supply_Pa',
      name: 'Vacuum at the unit, at rest',
      quantity: 'depression',
      from: { port: 'supply', as: 'source', until: 'source.atUnit' },
    },
    ...room,
  ],
  with: (vector, [supply_Pa = 0, barometer_Pa = 0, temperature_K = 0]) =>
    new ReadAtRest(
      vector,
      barometer_Pa,
      temperature_K,
      Math.max(0, barometer_Pa - Math.max(0, supply_Pa) - vector[CRACK]!),
    ),
};
