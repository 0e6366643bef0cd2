import { AIR_GAS_CONSTANT, CRITICAL_RATIO, REFERENCE_DENSITY_KG_M3, REFERENCE_TEMPERATURE_K } from './leak';

/** A space that fills or empties through an opening, isothermal. */
export interface Space {
  /** Sonic conductance of the opening, m³/(s·Pa) (ISO 6358). */
  readonly conductance_m3PerSPa: number;
  readonly volume_m3: number;
  readonly temperature_K: number;
}

/** Time in which the choked flow at the space's own pressure would take all of it, s. */
const turnover_s = ({ conductance_m3PerSPa, volume_m3, temperature_K }: Space) =>
  volume_m3 /
  (conductance_m3PerSPa *
    REFERENCE_DENSITY_KG_M3 *
    AIR_GAS_CONSTANT *
    Math.sqrt(REFERENCE_TEMPERATURE_K * temperature_K));

const overOf = (ratio: number) => Math.min(1, Math.max(0, (ratio - CRITICAL_RATIO) / (1 - CRITICAL_RATIO)));

/**
 * Time in which a space fills from one absolute pressure to another out of a room, s: a straight line while the flow
 * is choked, then dr/dt = √(1 − ((r − b)/(1 − b))²)/T of r = p/p_room, which integrates to an arcsine. Handbook 4.
 *
 * @param to_Pa above `from_Pa`, at most the room's
 * @returns Infinity where the opening is shut
 */
export function fillTime_s(from_Pa: number, to_Pa: number, room_Pa: number, space: Space): number {
  const b = CRITICAL_RATIO;
  const [from, to] = [from_Pa / room_Pa, to_Pa / room_Pa];
  const choked = Math.max(0, Math.min(b, to) - from);
  const bent = (1 - b) * (Math.asin(overOf(to)) - Math.asin(overOf(from)));
  return turnover_s(space) * (choked + bent);
}

/**
 * Time in which a space empties from one absolute pressure to another into a lower one that stays as it is, s. While
 * choked the pressure falls as e^(−t/T); with r = p_sink/p beyond b, T·dr/dt = r·√(1 − ((r − b)/(1 − b))²). With
 * r = b + (1 − b)·sin θ and b = 0.5 that is T·dθ/dt = 1 + sin θ, so t = T·[tan(θ/2 − π/4)]. Handbook 4.
 *
 * @param to_Pa below `from_Pa`, at least the sink's
 * @returns Infinity where the opening is shut
 */
export function emptyTime_s(from_Pa: number, to_Pa: number, sink_Pa: number, space: Space): number {
  const bend_Pa = sink_Pa / CRITICAL_RATIO;
  const choked = Math.log(Math.max(1, from_Pa / Math.max(to_Pa, bend_Pa)));
  const angle = (pressure_Pa: number) => Math.tan(Math.asin(overOf(sink_Pa / pressure_Pa)) / 2 - Math.PI / 4);
  return turnover_s(space) * (choked + Math.max(0, angle(to_Pa) - angle(Math.min(from_Pa, bend_Pa))));
}
