import type { Port } from '../contract/family';

/** A pressure gauge on a bleed screw, five minutes on and four off with bleeding; a tee in the hose. Handbook-models 8.3. */
export const GAUGE_S = 540;
const HOSE_TEE_S = 120;
/** A gauge with a tee behind a check valve: with everything at zero, and bled. */
export const TEE_S = 300;

/** Where a travelling technician reads on any vehicle. A test that needs a gauge which nobody carries is left out. */
export const BRAKE_PORTS = [
  { id: 'pedal', name: 'Pedal force', short: 'Pedal', quantity: 'force', ink: 'input', optional: true },
  {
    id: 'front',
    name: 'Front line pressure',
    short: 'Front',
    quantity: 'pressure',
    ink: 'output',
    optional: true,
    fit_s: GAUGE_S,
  },
  {
    id: 'rear',
    name: 'Rear line pressure',
    short: 'Rear',
    quantity: 'pressure',
    ink: 'output',
    optional: true,
    fit_s: GAUGE_S,
  },
  { id: 'travel', name: 'Pedal travel', short: 'Travel', quantity: 'travel', ink: 'input', optional: true },
  { id: 'clock', name: 'Stopwatch', short: 'Time', quantity: 'duration', optional: true },
] as const satisfies readonly Port[];

/** The same where a vacuum works the booster: only the vacuum gauge is always at hand. */
export const VEHICLE_PORTS = [
  ...BRAKE_PORTS,
  { id: 'supply', name: 'Vacuum at the booster', short: 'Vacuum', quantity: 'depression', fit_s: HOSE_TEE_S },
  {
    id: 'source',
    name: 'Vacuum at its source',
    short: 'Source',
    quantity: 'depression',
    ink: 'supply',
    optional: true,
    fit_s: HOSE_TEE_S,
  },
  {
    id: 'gap',
    name: 'Pushrod clearance',
    short: 'Gap',
    quantity: 'travel',
    ink: 'activation',
    optional: true,
  },
] as const satisfies readonly Port[];

export type VehiclePort = (typeof VEHICLE_PORTS)[number]['id'];

/** Fluid that stands in a reservoir, where a thermometer is at hand. */
export const RESERVOIR = {
  id: 'fluid',
  name: 'Fluid in the reservoir',
  short: 'Fluid',
  quantity: 'temperature',
  ink: 'supply',
  optional: true,
} as const satisfies Port;

/** Places of ports among those of a vehicle, by name. */
export const portPlaces = <Id extends VehiclePort>(...ids: readonly Id[]): Readonly<Record<Id, number>> =>
  Object.fromEntries(ids.map((id) => [id, VEHICLE_PORTS.findIndex((port) => port.id === id)])) as Record<
    Id,
    number
  >;
