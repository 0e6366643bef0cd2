import type { PhasedStep, TestedAt } from '../../contract/family';
import type { Rig } from '../../contract/run-context';
import { readingOn, whileFed } from '../bench-items';
import type { EnginePumpProfile } from './profile';

/** What is read of an engine-driven pump: how fast it turns, and how warm its fluid is. */
export function steps(_profile: EnginePumpProfile, _rig: Rig, at: TestedAt): PhasedStep[] {
  const onVehicle = at.setting === 'vehicle';
  return [
    {
      phase: 'supply',
      step: {
        id: 'idle',
        title: onVehicle ? 'Idle and fluid' : 'Drive and fluid',
        instruction: `${at.says.on}${onVehicle ? ', nobody near the body: it rises as it is charged' : ''}. Read how fast the pump is driven, and the fluid in its reservoir.`,
        cautions: whileFed(at, ...(onVehicle ? (['body-moves'] as const) : [])),
        state: at.on,
        needs: ['charge'],
        leaves: { input: 'released', charge: 'full' },
        attended_s: 60,
        items: [
          readingOn(
            at.ports,
            'idle.speed',
            'speed',
            'source.idle',
            onVehicle ? 'Read the engine at idle.' : 'Read the drive of the pump.',
          ),
          readingOn(at.ports, 'fluid.warm', 'fluid', 'source.fluid', 'Read the fluid in the reservoir.'),
        ],
      },
    },
  ];
}
