import { limitFrom } from '../profile-fields';
import type { VacuumSupplyProfile } from './profile';

const typicalLimit = limitFrom(
  'Typical for vacuum supplies of vehicles; the maker’s own figure where it is known',
);

/** A naturally aspirated engine's manifold with the handbook's typical figures (9). */
export const typical: VacuumSupplyProfile = {
  kind: 'vacuum-supply',
  name: 'Engine manifold, typical figures',
  maker: '',
  makes: 'manifold',
  suction_m3PerS: 0.0101,
  idle_Pa: 35e3,
  spare_m3PerSPa: 4e-9,
  floorShare: null,
  on_Pa: null,
  off_Pa: null,
  hose_m3PerSPa: 2.5e-8,
  crack_Pa: 1.5e3,
  tank_m3: 1e-4,
  limits: {
    idle_Pa: typicalLimit(3e3),
    switch_Pa: typicalLimit(2e3),
    hose_fraction: typicalLimit(0.4),
    recovery_s: typicalLimit(1.5),
  },
};
