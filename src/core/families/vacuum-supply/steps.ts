import type { PhasedStep } from '../../contract/family';
import { look } from '../bench-items';
import { readingAt } from '../vehicle-items';
import type { VacuumSupplyProfile } from './profile';

/** What only an ear tells is not captured by itself. */
const BY_EAR = { moment: 'by-hand' } as const;

const IDLE = { ignition: 'on', engine: 'idle' } as const;

/** When an electric pump stops and starts, and whether it stands still between. Handbook-models 9: six minutes. */
const thresholds: PhasedStep = {
  phase: 'supply',
  step: {
    id: 'switch',
    title: 'Thresholds of the electric pump',
    instruction:
      'Ignition on, foot off the pedal, gauge at the booster. Listen: read as the pump stops. Then press the pedal lightly again and again, and read as it starts. A pump that never stops leaks, is worn, or stands too high above the sea for its mark.',
    cautions: ['vacuum'],
    state: { ignition: 'on' },
    needs: ['zeros'],
    leaves: { input: 'released' },
    attended_s: 360,
    items: [
      readingAt('switch.off', 'supply', 'source.stopsAt', 'Read the vacuum as the pump stops.', BY_EAR),
      readingAt('switch.on', 'supply', 'source.startsAt', 'Read the vacuum as the pump starts.', BY_EAR),
      look(
        'pump-rest',
        'Pump between two starts',
        'Foot off the pedal: does the pump stand still for two minutes?',
        'Stands still',
        ['runs', 'Runs again, or never stops'],
      ),
    ],
  },
};

/** Tests of a vacuum supply on its vehicle. Handbook 8.3 and 9; minutes: handbook-models 8.3. */
export function steps({ makes }: VacuumSupplyProfile): PhasedStep[] {
  const where = makes === 'manifold' ? 'manifold' : 'pump';
  return [
    {
      phase: 'supply',
      step: {
        id: 'rest',
        title: 'Vacuum at the booster',
        instruction:
          'Warm engine idling, foot off the pedal. Let the vacuum gauge at the booster stand, then read.',
        cautions: ['running-engine'],
        state: IDLE,
        needs: ['zeros'],
        leaves: { input: 'released' },
        attended_s: 60,
        items: [
          look(
            'idle-speed',
            'Idle speed',
            'Engine warm and idling evenly at its named speed?',
            'Even, at its speed',
            ['off', 'Uneven, or off its speed'],
          ),
          readingAt('rest.supply', 'supply', 'source.atUnit', 'Read the vacuum at the booster.'),
        ],
      },
    },
    {
      phase: 'supply',
      step: {
        id: 'source',
        title: 'Vacuum at its source',
        instruction: `Engine idling, the gauge at the ${where}. A healthy engine holds its absolute pressure at any altitude, so less vacuum is expected the higher the place.`,
        cautions: ['running-engine'],
        state: IDLE,
        needs: ['zeros'],
        leaves: { input: 'released' },
        attended_s: 120,
        items: [readingAt('source.idle', 'source', 'source.idle', `Read the vacuum at the ${where}.`)],
      },
    },
    ...(makes === 'electric-pump' ? [thresholds] : []),
    {
      phase: 'supply',
      step: {
        id: 'recovery',
        title: 'Hose: recovery after a release',
        instruction:
          'Engine idling. Press to the moderate force and let go again at once, and from there time the gauge at the booster back to nine tenths of what it stood at. Do not hold it: the source takes away meanwhile what is to be timed. A blocked hose passes every gauge that stands still.',
        cautions: ['running-engine'],
        state: IDLE,
        needs: ['rest'],
        leaves: { input: 'released' },
        attended_s: 120,
        items: [
          readingAt('recovery.time', 'clock', 'recovery', 'Read the time back to nine tenths.'),
          look(
            'hose',
            'Vacuum hose',
            'Hose the kind for vacuum, right bore, not flattened or soft while the pedal is pressed?',
            'Sound',
            ['poor', 'Soft, kinked or the wrong kind'],
          ),
        ],
      },
    },
    {
      phase: 'supply',
      step: {
        id: 'check',
        title: 'Check valve',
        instruction:
          'Engine off after a minute of idling. Pull the check valve from the booster: air must rush in. Then try it with a bulb, one way and the other; never by mouth.',
        cautions: ['vacuum'],
        state: { engine: 'off', charge: 'full' },
        needs: ['rest'],
        leaves: { input: 'released', charge: 'spent' },
        attended_s: 120,
        items: [
          look(
            'rush',
            'Rush of air',
            'Valve pulled after a minute: did air rush in?',
            'It rushed',
            ['none', 'Nothing, or hardly any'],
            'check-valve',
          ),
          look(
            'one-way',
            'One way only',
            'With a bulb: open toward the engine and shut the other way?',
            'One way only',
            ['both', 'Both ways, or neither'],
            'check-valve',
          ),
        ],
      },
    },
  ];
}
