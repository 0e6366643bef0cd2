import { rootOfFalling } from '../numeric/root';
import { axleForces_N, type Brakes } from './brake-force';

export const GRAVITY_M_PER_S2 = 9.80665;

/** Where a vehicle carries its mass. SI. */
export interface Body {
  readonly mass_kg: number;
  readonly wheelbase_m: number;
  /** From the front axle to the centre of mass, and its height. */
  readonly behindFront_m: number;
  readonly height_m: number;
}

/** Load of each axle at a deceleration, N: N_rear = m·(g·a_f − a·h)/L. Handbook 11. */
export function axleLoads_N(
  { mass_kg, wheelbase_m, behindFront_m, height_m }: Body,
  deceleration_mPerS2: number,
): { readonly front_N: number; readonly rear_N: number } {
  const rear_N =
    (mass_kg * (GRAVITY_M_PER_S2 * behindFront_m - deceleration_mPerS2 * height_m)) / wheelbase_m;
  return { front_N: mass_kg * GRAVITY_M_PER_S2 - rear_N, rear_N };
}

/** The axle whose wheels stop turning first as the pedal goes down, and the state in which they do. */
export interface Locking {
  readonly axle: 'front' | 'rear';
  readonly pressure_Pa: number;
  readonly deceleration_mPerS2: number;
}

/** How closely the pressure is found, Pa. */
const CLOSE_PA = 100;

/**
 * Which axle locks first on a road of a grip: where its brake force reaches grip times its load. Handbook 11.
 *
 * @returns null where neither does up to the pressure
 */
export function locksFirst(body: Body, brakes: Brakes, grip: number, most_Pa: number): Locking | null {
  const spare_N = (axle: Locking['axle'], pressure_Pa: number) => {
    const { front_N, rear_N } = axleForces_N(brakes, pressure_Pa);
    const loads = axleLoads_N(body, (front_N + rear_N) / body.mass_kg);
    return axle === 'front' ? grip * loads.front_N - front_N : grip * loads.rear_N - rear_N;
  };
  const found = (['front', 'rear'] as const).flatMap((axle): Locking[] => {
    if (spare_N(axle, most_Pa) > 0) return [];
    const pressure_Pa = rootOfFalling((at) => spare_N(axle, at), 0, most_Pa, CLOSE_PA);
    const { front_N, rear_N } = axleForces_N(brakes, pressure_Pa);
    return [{ axle, pressure_Pa, deceleration_mPerS2: (front_N + rear_N) / body.mass_kg }];
  });
  return found.sort((a, b) => a.pressure_Pa - b.pressure_Pa)[0] ?? null;
}
