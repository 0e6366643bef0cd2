import type { TestedAt } from '../contract/family';
import type { Step } from '../contract/steps';
import { readingOn } from './bench-items';

/** A battery read at rest, before anything that it feeds. */
export const batteryStep = (at: Pick<TestedAt, 'ports' | 'on'>): Step => ({
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
});
