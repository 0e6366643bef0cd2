import type { ObservationItem } from '../../contract/steps';
import { look, mustBe, untilMended } from '../bench-items';

/**
 * No gauge is connected before both accumulators were emptied: by a look, since none stands there yet.
 *
 * @param off how it is said that nothing charges them
 */
export const emptied = (off: string): ObservationItem =>
  mustBe(
    'emptied',
    'Both accumulators emptied',
    `${off}, the pedal pressed again and again until nothing comes, and the bleed screw of each accumulator opened slowly into a closed hose until its flow has stopped?`,
    'Emptied, nothing comes',
    [
      'charged',
      'Not yet, or it still comes',
      untilMended(
        'Press until the pedal moves nothing, then bleed each accumulator into a closed hose until nothing comes. No gauge is connected before that: check valves keep what is stored.',
      ),
    ],
  );

/** What whoever runs the machine can tell. */
export const asked: readonly ObservationItem[] = [
  look('drag-hot', 'Brakes dragged hot', 'Came in with brakes that drag once they are hot?', 'No', [
    'drags',
    'They drag',
  ]),
  look(
    'one-lamp',
    'One low-pressure lamp',
    'Did one low-pressure lamp come on well before the other?',
    'No',
    ['one', 'One of them'],
  ),
];
