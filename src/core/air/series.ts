import { rootOfFalling } from '../numeric/root';
import { airFlow_PaM3PerS } from './flow';

/** How closely the pressure is found, Pa: far below what any gauge shows. */
const CLOSE_PA = 0.01;

/**
 * Absolute pressure between two openings in series, through which the same air flows: from a room through the first, on
 * through the second into a lower pressure. ISO 6358 for each; handbook 4.
 *
 * @param first_m3PerSPa sonic conductance from the room, above zero
 * @param second_m3PerSPa sonic conductance into the lower pressure; zero leaves the room's pressure between them
 * @returns Pa absolute, between the two pressures
 * @example 3e-8 and 1e-8 m³/(s·Pa) from 100 kPa into 20 kPa: the second is choked, so 3·√(1 − (2r − 1)²) = r with
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
  return rootOfFalling(
    (between_Pa) =>
      airFlow_PaM3PerS(first_m3PerSPa, upstream_Pa, between_Pa, temperature_K) -
      airFlow_PaM3PerS(second_m3PerSPa, between_Pa, downstream_Pa, temperature_K),
    downstream_Pa,
    upstream_Pa,
    CLOSE_PA,
  );
}
