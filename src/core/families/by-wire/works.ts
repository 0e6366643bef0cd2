import type { Descriptor } from '../../model/descriptor';
import type { Stage } from '../../model/motion';
import { WHEELS } from '../wheel-lines';

/** Parts that a drawing of it shows. */
export const parts: readonly Descriptor[] = [
  { id: 'pedal', name: 'Piston of the master', quantity: 'travel' },
  { id: 'simulator', name: 'Simulator, squeezed', quantity: 'travel' },
  { id: 'isolation', name: 'Isolation valves, shut', quantity: 'percent' },
  { id: 'stored', name: 'Accumulator, filled', quantity: 'percent' },
  { id: 'pumpRuns', name: 'Pump, running', quantity: 'percent' },
  { id: 'track1', name: 'Track 1 of the sensor', quantity: 'voltage' },
  { id: 'track2', name: 'Track 2 of the sensor', quantity: 'voltage' },
  { id: 'master1', name: 'Sensor of the first circuit', quantity: 'voltage' },
  { id: 'master2', name: 'Sensor of the second circuit', quantity: 'voltage' },
  { id: 'drive', name: 'Torque asked of the drive', quantity: 'torque' },
  ...WHEELS.map(({ port, name }) => ({ id: port, name: `Brake ${name}`, quantity: 'pressure' as const })),
];

const pressed = (share: (part: string) => number) => Math.max(...WHEELS.map(({ port }) => share(port)));

/** How it works, in the order of events. Handbook 18. */
export const stages: readonly Stage[] = [
  {
    id: 'off',
    says: 'The power is gone: the valves stand open, and join the pedal to the wheels.',
    holds: () => true,
  },
  {
    id: 'foot',
    says: 'The power is gone: the foot alone presses the wheels that are joined, by its own master. It goes further and harder for less.',
    holds: (share) => share('isolation') <= 0 && share('pedal') > 0.02,
  },
  {
    id: 'ready',
    says: 'The control unit is on: it has shut the isolation valves, so the pedal is cut off from the wheels, and its pump keeps the accumulator charged.',
    holds: (share) => share('isolation') > 0,
  },
  {
    id: 'charges',
    says: 'The pump runs: it charges the accumulator between two marks of its own sensor.',
    holds: (share) => share('isolation') > 0 && share('pumpRuns') > 0,
  },
  {
    id: 'feels',
    says: 'The foot squeezes the simulator, which is all that it feels. Sensors of travel and pressure tell the control unit what is asked.',
    holds: (share) => share('isolation') > 0 && share('simulator') > 0.02,
  },
  {
    id: 'presses',
    says: 'The control unit opens the apply valve of each wheel until its sensor tells the pressure that was asked: the fluid comes from the accumulator.',
    holds: (share) => share('isolation') > 0 && share('simulator') > 0.02 && pressed(share) > 0.02,
  },
  {
    id: 'regenerates',
    says: 'The drive gives a part of what was asked: the wheels are pressed for the rest only, and the foot feels no difference.',
    holds: (share) => share('isolation') > 0 && share('drive') > 0.02,
  },
  {
    id: 'releases',
    says: 'The foot is off: the release valves let the wheels out to the reservoir.',
    holds: (share) => share('isolation') > 0 && share('simulator') <= 0.02 && pressed(share) > 0.05,
  },
];
