import type { Family } from '../contract/family';
import { member as booster, pedalVacuum, type PedalVacuumProfile } from './pedal-vacuum/index';
import { asRead, member as supply, vacuumSupply, type VacuumSupplyProfile } from './vacuum-supply/index';
import { assemblyOf, type AssemblyProfile } from './assembly';
import { knowingNoStop } from './stop-figures';
import { byFoot } from './without-power';
import { ON_VEHICLE } from './vehicle-steps';
import { behindFront, member as brakes, wheelBrakes, type WheelBrakesProfile } from './wheel-brakes/index';

/** What is fitted to a vehicle with a vacuum booster. */
export interface VacuumVehicleProfile extends AssemblyProfile<
  VacuumSupplyProfile,
  PedalVacuumProfile,
  WheelBrakesProfile
> {
  readonly kind: 'vacuum-vehicle';
}

/** A vehicle with a pedal-mounted vacuum booster. Handbook 8.3, 9, 10. */
export const vacuumVehicle: Family = assemblyOf({
  kind: 'vacuum-vehicle',
  name: 'Vehicle with vacuum booster',
  at: {
    ...ON_VEHICLE,
    names: {
      supply: 'the vacuum supply',
      unit: 'the booster',
      load: 'what it drives',
      all: 'Supply, booster and brakes',
    },
  },
  source: vacuumSupply,
  unit: pedalVacuum,
  load: wheelBrakes,
  members: { source: supply, asRead, unit: booster, load: brakes },
  behind: behindFront,
  loadOf: ({ load, unit }) => ({ ...load, pedalRatio: unit.pedalRatio }),
  curve: {
    input: 'pedal_N',
    output: 'load.pressure',
    sources: ['with.2.supply', 'with.1.supply', 'rest.supply'],
    releasing: null,
    knee: { reading: 'runoutPedal', word: 'runout' },
  },
  fluid: ({ load }) => load.fluid,
  // With the engine running: a later one on what is stored is no full application.
  full: ({ unit }) => ({ pedal_N: unit.heavy_N, applications: 0 }),
  logged: ({ unit, source }) => ({ vacuumVolume_m3: unit.front_m3 + unit.rear_m3 + source.tank_m3 }),
  upcasts: [knowingNoStop],
  withoutPower: ({ load }, whole, full, alone) =>
    byFoot({
      stop: load.stop,
      valve: load,
      whole,
      powered: { ...full, supply_Pa: whole.shows('source.atUnit', full) },
      alone,
    }),
  excused: { supply: ['reserve', 'standing-reserve'], load: ['drop'] },
});
