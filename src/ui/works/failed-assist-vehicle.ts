import type { StoredProfile } from '@/core/records/views';
import { FOOT_ALONE_EXAMPLE, type FootAloneFields } from '@/core/workings/foot-alone';

const BAR = 1e5;

interface Load {
  readonly stop?: {
    readonly mass_kg: number;
    readonly front_NPerBar: number;
    readonly rear_NPerBar: number;
    readonly contact_Pa: number;
  } | null;
  readonly masterBore_m?: number;
  readonly freeTravel_m?: number;
  readonly stiffness_m3PerPa?: number;
  readonly takeUp_m3?: number;
  readonly split_Pa?: number;
  readonly slope?: number;
}
interface Whole {
  readonly load?: Load;
  readonly unit?: { readonly pedalRatio?: number; readonly spring_N?: number };
}

/** A vehicle whose foot pushes a master, of which is known what a stop follows from. */
export const hasStop = ({ body }: StoredProfile): boolean => {
  const { load } = body as Whole;
  return Boolean(load?.stop) && load?.masterBore_m !== undefined;
};

/**
 * The figures of a vehicle’s profile; what it does not say is that of the made-up van. Piston areas follow from its brake force for each bar
 * by those friction and radii.
 */
export function filledFrom(profile: StoredProfile['body']): FootAloneFields {
  const { load, unit } = profile as Whole;
  const from = FOOT_ALONE_EXAMPLE;
  const { stop } = load!;
  const area = (perBar_N: number, friction: number, radius_m: number) =>
    (perBar_N / BAR / (4 * friction * radius_m)) * from.tyreRadius_m;
  const frontArea_m2 = area(stop!.front_NPerBar, from.friction_front, from.radius_front_m);
  const rearArea_m2 = area(stop!.rear_NPerBar, from.friction_rear, from.radius_rear_m);
  return {
    ...from,
    mass_kg: stop!.mass_kg,
    contact_Pa: stop!.contact_Pa,
    frontArea_m2,
    rearArea_m2,
    masterBore_m: load!.masterBore_m!,
    freeTravel_m: load!.freeTravel_m ?? from.freeTravel_m,
    give_m3PerPa: load!.stiffness_m3PerPa ?? from.give_m3PerPa,
    clearance_m: load!.takeUp_m3 ? load!.takeUp_m3 / (4 * (frontArea_m2 + rearArea_m2)) : from.clearance_m,
    split_Pa: load!.split_Pa ?? from.split_Pa,
    slope: load!.slope ?? from.slope,
    pedalRatio: unit?.pedalRatio ?? from.pedalRatio,
    spring_N: unit?.spring_N ?? from.spring_N,
  };
}
