import { SEA_LEVEL_PA } from './atmosphere';

/**
 * What makes the vacuum. A naturally aspirated engine at idle holds its manifold at a nearly constant absolute
 * pressure; a vacuum pump reaches a nearly constant fraction of the barometer. Handbook 4.
 */
export const SUPPLY_KINDS = ['pump', 'manifold'] as const;
export type SupplyKind = (typeof SUPPLY_KINDS)[number];

/** The depression here of a supply that makes `seaLevel_Pa` of depression at sea level, in the same health. */
export function supplyHere_Pa(seaLevel_Pa: number, kind: SupplyKind, barometer_Pa: number): number {
  return kind === 'manifold'
    ? Math.max(0, barometer_Pa - (SEA_LEVEL_PA - seaLevel_Pa))
    : (seaLevel_Pa * barometer_Pa) / SEA_LEVEL_PA;
}

/**
 * The depression that the supply read here would make at sea level, in the same health. Only meaningful while
 * the supply runs.
 *
 * @returns null for a supply that makes nothing: it has no health to refer
 * @example a manifold at 12.7 inHg under a 24.66 inHg barometer is a sea-level 18 inHg
 */
export function seaLevelEquivalent_Pa(
  depression_Pa: number,
  kind: SupplyKind,
  barometer_Pa: number,
): number | null {
  if (depression_Pa <= 0) return null;
  return kind === 'manifold'
    ? SEA_LEVEL_PA - (barometer_Pa - depression_Pa)
    : (depression_Pa * SEA_LEVEL_PA) / barometer_Pa;
}

/** What a shop's vacuum pump of some 14 m³/h takes away at its inlet, m³/s: it holds its reach less what flows over this. */
export const BENCH_PUMP_M3_PER_S = 4e-3;
