import type { Terminal } from '../model/member';

/** The four wheels, with the places at which each is read. */
export const WHEELS = [
  { id: 'frontLeft', port: 'front-left', name: 'front left', short: 'FL', axle: 'front' },
  { id: 'frontRight', port: 'front-right', name: 'front right', short: 'FR', axle: 'front' },
  { id: 'rearLeft', port: 'rear-left', name: 'rear left', short: 'RL', axle: 'rear' },
  { id: 'rearRight', port: 'rear-right', name: 'rear right', short: 'RR', axle: 'rear' },
] as const;
export type WheelId = (typeof WHEELS)[number]['id'];

/** Lines from the valves of four wheels to their brakes. */
export const WHEEL_LINES: readonly Terminal[] = WHEELS.map(({ id, name }) => ({
  id,
  name: `Brake ${name}`,
  coupling: 'fluid',
  circuit: id,
}));
