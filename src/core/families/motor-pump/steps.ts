import type { PhasedStep, TestedAt } from '../../contract/family';
import type { Rig } from '../../contract/run-context';
import type { ReadingItem } from '../../contract/steps';
import { look, readingOn } from '../bench-items';
import type { MotorPumpProfile } from './profile';

/** The accumulator as the meters were read. */
const READ_AT = { sourceFrom: 'feed.supply' } as const;

/** Tests of a motor pump and its feed. Handbook-models 8.5: volt drop four minutes. */
export function steps(_profile: MotorPumpProfile, _rig: Rig, at: TestedAt): PhasedStep[] {
  const read = (
    id: string,
    port: string,
    measures: string,
    prompt: string,
    more: Partial<ReadingItem> = {},
  ) => readingOn(at.ports, id, port, measures, prompt, more);
  return [
    {
      phase: 'look',
      step: {
        id: 'outside',
        title: 'Motor, plug and fluid',
        instruction:
          'Power isolated. Look at the motor and its plug, and measure the fluid in the reservoir.',
        cautions: ['starts-by-itself'],
        state: at.off,
        needs: ['cautions'],
        attended_s: 120,
        items: [
          look('wet-plug', 'Plug of the motor', 'Motor and plug dry, inside the plug too?', 'Dry', [
            'wet',
            'Fluid in it',
          ]),
          read('fluid.warm', 'fluid', 'source.fluid', 'Read the fluid in the reservoir.'),
        ],
      },
    },
    {
      phase: 'supply',
      step: {
        id: 'feed',
        title: 'Current and volts while it runs',
        instruction:
          'Clamp on the feed, meters on hold. Press until the pump starts, and just before it stops read everything; then feel plug and relay.',
        cautions: ['starts-by-itself'],
        state: at.on,
        needs: ['charge'],
        leaves: { input: 'released' },
        attended_s: 240,
        items: [
          read('battery.volts', 'battery', 'source.battery', 'Pump running: read the battery at its posts.'),
          read('feed.supply', 'supply', 'supply', 'Just before it stops: read the accumulator.', {
            moment: 'by-hand',
          }),
          read('feed.current', 'current', 'source.current', 'Read the current at that moment.', {
            ...READ_AT,
            moment: 'by-hand',
          }),
          read('feed.drop', 'drop', 'source.drop', 'Read the volts lost between battery and motor.', {
            ...READ_AT,
            moment: 'by-hand',
          }),
          look('labours', 'Sound of the pump', 'Does it run evenly up to where it stops?', 'Evenly', [
            'labours',
            'It labours',
          ]),
          look('hot-connector', 'Plug and relay', 'Plug, fuse and relay cool to the hand?', 'Cool', [
            'hot',
            'One is hot',
          ]),
        ],
      },
    },
  ];
}
