import type { Step } from '../../src/core/contract/steps';
import { FAMILIES, type FamilyKind } from '../../src/core/families/registry';
import type { VacuumVehicleProfile } from '../../src/core/families/vacuum-vehicle';
import { RIGS } from '../../src/core/scenarios/bench';
import { perform, type SetTo } from './vehicle';

/** Carries out a step on a unit of some parameters: what a gauge that is not out would show, by item. */
export type Hands = (parameters: readonly number[], step: Step, set: SetTo) => Record<string, number>;

export const ROOM = { barometer_Pa: 101_325, temperature_K: 293.15 };

/** Who carries out the steps of a kind through time. */
export const HANDS: Partial<Record<FamilyKind, Hands>> = {
  'vacuum-vehicle': (parameters, step, set) => {
    const { typical, procedure } = FAMILIES['vacuum-vehicle'];
    return perform(
      parameters,
      ROOM,
      typical as VacuumVehicleProfile,
      procedure(typical, RIGS['vacuum-vehicle']),
      step,
      set,
    );
  },
};
