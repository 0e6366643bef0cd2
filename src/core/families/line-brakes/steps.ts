import type { PhasedStep, TestedAt } from '../../contract/family';
import type { Rig } from '../../contract/run-context';
import { readingOn, whileFed } from '../bench-items';
import type { LineBrakesProfile } from './profile';

/** What is read of brakes on stored pressure by themselves: how far the pedal goes. */
export function steps({ travel_N }: LineBrakesProfile, _rig: Rig, at: TestedAt): PhasedStep[] {
  return [
    {
      // Before anything is bled: afterwards no engine is started again.
      phase: 'supply',
      step: {
        id: 'travel',
        title: 'Pedal travel',
        instruction: `${at.says.on}, both circuits charged. Bring the pedal to the force named, always onward, and read its travel from where it stands free.`,
        cautions: whileFed(at),
        state: at.on,
        needs: ['charge'],
        leaves: { input: 'released', charge: 'full' },
        attended_s: 180,
        items: [
          readingOn(
            at.ports,
            'travel.input',
            'pedal',
            'input',
            'Bring the pedal to this force and read it.',
            {
              target_Pa: travel_N,
            },
          ),
          readingOn(at.ports, 'travel.travel', 'travel', 'load.travel', 'Read the travel of the pedal.', {
            target_Pa: travel_N,
            inputFrom: 'travel.input',
          }),
        ],
      },
    },
  ];
}
