import { rootOfFalling } from '../numeric/root';
import { airFlow_PaM3PerS, LINEAR_FROM } from './flow';

/** How closely the pressure is found where the flow law was made straight, Pa: far below what any gauge shows. */
const CLOSE_PA = 0.01;

/**
 * Absolute pressure between two openings in series, through which the same air flows: from a room through the first, on
 * through the second into a lower pressure. ISO 6358 with b = 0.5 for each, in closed form: not choked, a flow is
 * 2·C·K·√(p₂·(p₁ − p₂)), choked C·K·p₁, and K drops out. Handbook 4.
 *
 * @param first_m3PerSPa sonic conductance from the room; zero leaves the lower pressure between them
 * @param second_m3PerSPa sonic conductance into the lower pressure; zero leaves the room's pressure between them
 * @returns Pa absolute, between the two pressures
 * @example 3e-8 and 1e-8 m³/(s·Pa) from 100 kPa into 20 kPa: the second is choked, so 3·2·√(r·(1 − r)) = r with
 *   r = p/100 kPa, 36·(1 − r) = r, p = 97.3 kPa
 */
export function pressureBetween_Pa(
  first_m3PerSPa: number,
  second_m3PerSPa: number,
  upstream_Pa: number,
  downstream_Pa: number,
  temperature_K: number,
): number {
  if (second_m3PerSPa <= 0 || downstream_Pa >= upstream_Pa) return upstream_Pa;
  if (first_m3PerSPa <= 0) return downstream_Pa;
  const between_Pa = bentBetween_Pa(second_m3PerSPa / first_m3PerSPa, upstream_Pa, downstream_Pa);
  const straight = between_Pa > LINEAR_FROM * upstream_Pa || downstream_Pa > LINEAR_FROM * between_Pa;
  if (!straight) return between_Pa;
  return rootOfFalling(
    (pressure_Pa) =>
      airFlow_PaM3PerS(first_m3PerSPa, upstream_Pa, pressure_Pa, temperature_K) -
      airFlow_PaM3PerS(second_m3PerSPa, pressure_Pa, downstream_Pa, temperature_K),
    downstream_Pa,
    upstream_Pa,
    CLOSE_PA,
  );
}

/** The same by the law itself, undercut nowhere. @param c the second conductance as a part of the first */
function bentBetween_Pa(c: number, upstream_Pa: number, downstream_Pa: number): number {
  // Second choked, first not: c·p = 2·√(p·(p₀ − p)). Both choked: c·p = p₀.
  const choked_Pa = c <= 2 ? (4 * upstream_Pa) / (c * c + 4) : upstream_Pa / c;
  if (downstream_Pa <= choked_Pa / 2) return choked_Pa;
  // First choked, second not: p₀ = 2c·√(p₂·(p − p₂)).
  const firstChoked_Pa = downstream_Pa + (upstream_Pa / c) ** 2 / (4 * downstream_Pa);
  if (firstChoked_Pa <= upstream_Pa / 2) return firstChoked_Pa;
  // Neither: p·(p₀ − p) = c²·p₂·(p − p₂).
  const half = (upstream_Pa - c * c * downstream_Pa) / 2;
  return half + Math.sqrt(half * half + (c * downstream_Pa) ** 2);
}
