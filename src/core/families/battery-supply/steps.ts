import type { PhasedStep, TestedAt } from '../../contract/family';
import type { Rig } from '../../contract/run-context';
import { look, readingOn } from '../bench-items';
import type { BatterySupplyProfile } from './profile';

/** Tests of a battery, a feed and an earth that need nobody at the pedal. Handbook-models 8.8, 11. */
export function steps(_profile: BatterySupplyProfile, _rig: Rig, at: TestedAt): PhasedStep[] {
  return [
    {
      phase: 'look',
      step: {
        id: 'feeds',
        title: 'Feeds, fuses and plugs',
        instruction:
          'Power isolated. Look at each feed from its fuse to the plug: the fuse as the maker names it, the wire as thick as its run and its current ask for. Plugs apart: look at the pins.',
        cautions: ['high-current', 'pierced-lead'],
        state: at.off,
        needs: ['cautions'],
        attended_s: 180,
        items: [
          look('fuse', 'Fuses', 'Every fuse whole, of the rating that the maker names?', 'As named', [
            'wrong',
            'Blown, or another rating',
          ]),
          look(
            'pins',
            'Pins',
            'Pins of the plugs clean, dry, straight and none pushed back?',
            'Clean and straight',
            ['bad', 'Not all of them'],
          ),
        ],
      },
    },
    {
      phase: 'supply',
      step: {
        id: 'volts',
        title: 'Battery',
        instruction: 'Power on, foot off, the battery rested. Read it at its posts.',
        cautions: [],
        state: at.on,
        needs: ['zeros'],
        leaves: { input: 'released' },
        attended_s: 60,
        items: [
          readingOn(
            at.ports,
            'volts.battery',
            'battery',
            'source.battery',
            'Nothing drawn: read the battery at its posts.',
          ),
        ],
      },
    },
  ];
}
