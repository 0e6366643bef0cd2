import type { PhasedStep, TestedAt } from '../../contract/family';
import type { Rig } from '../../contract/run-context';
import { readingOn } from '../bench-items';
import type { EnginePumpProfile } from './profile';

/** What is read of an engine-driven pump: how fast it turns, and how warm its fluid is. */
export function steps(_profile: EnginePumpProfile, _rig: Rig, at: TestedAt): PhasedStep[] {
  return [
    {
      phase: 'supply',
      step: {
        id: 'idle',
        title: 'Idle and fluid',
        instruction: `${at.says.on}, nobody near the body: it rises as it is charged. Read the engine, and the fluid in its reservoir.`,
        cautions: ['running-engine', 'body-moves'],
        state: at.on,
        needs: ['charge'],
        leaves: { input: 'released', charge: 'full' },
        attended_s: 60,
        items: [
          readingOn(at.ports, 'idle.speed', 'speed', 'source.idle', 'Read the engine at idle.'),
          readingOn(at.ports, 'fluid.warm', 'fluid', 'source.fluid', 'Read the fluid in the reservoir.'),
        ],
      },
    },
  ];
}
