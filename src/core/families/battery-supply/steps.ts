import type { PhasedStep, TestedAt } from '../../contract/family';
import type { Rig } from '../../contract/run-context';
import { batteryStep } from '../battery-step';
import { look, readingOn } from '../bench-items';
import type { BatterySupplyProfile } from './profile';

/** Tests of a battery, a feed and an earth. Handbook-models 8.8: five minutes for the volts under load. */
export function steps({ hold_N }: BatterySupplyProfile, _rig: Rig, at: TestedAt): PhasedStep[] {
  const during = (name: string, port: string, measures: string, prompt: string) =>
    readingOn(at.ports, `hold.${name}`, port, measures, prompt, {
      target_Pa: hold_N,
      inputFrom: 'hold.input',
    });
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
    { phase: 'supply', step: batteryStep(at) },
    {
      phase: 'supply',
      step: {
        id: 'hold',
        title: 'Volts under load',
        instruction:
          'Meters on hold, one across the feed, one across the earth. Bring the pedal to the force, read within five seconds, and let go at once; then feel plug, fuse and earth.',
        cautions: ['held-motor', 'bench-pressure'],
        state: at.on,
        needs: ['volts'],
        leaves: { input: 'released' },
        attended_s: 300,
        items: [
          readingOn(
            at.ports,
            'hold.input',
            'pedal',
            'input',
            'Bring the pedal to this force, always upward, and read it.',
            {
              target_Pa: hold_N,
            },
          ),
          during('plug', 'plug', 'terminals', 'Held: read the volts at the plug of the booster.'),
          during('feed', 'drop', 'source.feed', 'Read the volts lost between battery and booster.'),
          during('earth', 'earth', 'source.earth', 'Read the volts lost between booster and earth.'),
          during('current', 'current', 'source.current', 'Read the current in the feed.'),
          look('hot-connector', 'Plug, fuse and earth', 'Plug, fuse and earth cool to the hand?', 'Cool', [
            'hot',
            'One is hot',
          ]),
        ],
      },
    },
  ];
}
