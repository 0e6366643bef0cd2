import type { LiveState } from '@/core/procedure/live';
import type { Quantity } from '@/core/quantities/units';

/** The vacuum as a technician needs to know it: on, shut in and still there, or off. */
export function vacuumWords(
  live: LiveState,
  print: (value_SI: number, quantity: Quantity) => string,
): string {
  const read = live.supply_Pa === null ? '' : `, ${print(live.supply_Pa, 'depression')}`;
  if (live.vacuum === 'on') return `Vacuum on${read}`;
  if (live.supply_Pa !== null) return `Vacuum shut in${read}`;
  return live.spent ? 'Vacuum off, used up' : 'Vacuum off';
}
