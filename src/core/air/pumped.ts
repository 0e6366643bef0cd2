import { LINEAR_FROM } from './flow';
import { flowShare } from './leak';

/**
 * Absolute pressure of a tank from which a pump takes S·(p − p_reach) and which a hose fills: choked CK·p₁, else
 * 2·CK·√(p·(p₁ − p)), which is a quadratic in p. ISO 6358 with b = 0.5.
 *
 * @param choked_m3PerS CK of the hose
 * @param unit_Pa at the far end of the hose; at or below what the pump reaches nothing flows
 */
export function tankBehindHose_Pa(
  choked_m3PerS: number,
  speed_m3PerS: number,
  unit_Pa: number,
  reach_Pa: number,
) {
  if (unit_Pa <= reach_Pa) return unit_Pa;
  const chokedTank_Pa = reach_Pa + (choked_m3PerS * unit_Pa) / speed_m3PerS;
  if (chokedTank_Pa <= unit_Pa / 2) return chokedTank_Pa;
  const s = speed_m3PerS ** 2;
  const g = 4 * choked_m3PerS ** 2;
  const half = (s * reach_Pa + (g * unit_Pa) / 2) / (s + g);
  const tank_Pa = half + Math.sqrt(Math.max(0, half * half - (s * reach_Pa ** 2) / (s + g)));
  if (tank_Pa <= LINEAR_FROM * unit_Pa) return tank_Pa;
  // Nearly no difference: the flow is taken as proportional to it.
  const slope = flowShare(LINEAR_FROM) / (1 - LINEAR_FROM);
  return (speed_m3PerS * reach_Pa + slope * choked_m3PerS * unit_Pa) / (speed_m3PerS + slope * choked_m3PerS);
}
