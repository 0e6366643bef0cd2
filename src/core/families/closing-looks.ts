import { FLUIDS, type FluidKind } from '../fluid/kinds';
import type { ObservationItem } from '../contract/steps';
import { mustBe, untilMended, WEEPS } from './bench-items';

/** What was off is back on. */
export const closedLook = (id: string, prompt: string): ObservationItem =>
  mustBe(`${id}.closed`, 'Closed again', prompt, 'Closed', [
    'open',
    'Not yet',
    untilMended('Close it, then look again. No pressure and no vacuum before that.'),
  ]);

/** Dry where it was open. */
export const dryLook = (id: string, prompt: string): ObservationItem =>
  mustBe(`${id}.dry`, 'Looked at for leaks', prompt, 'Dry', ['weeps', 'Weeps', WEEPS]);

/** The last word on a vehicle's hydraulics. */
export const pedalLook = (id: string, prompt: string): ObservationItem =>
  mustBe(`${id}.pedal`, 'Pedal firm', prompt, 'Firm, and stays', [
    'soft',
    'Soft, or it sinks',
    untilMended('Bleed it and look for leaks again. The vehicle does not move before the pedal is firm.'),
  ]);

const AGAIN = 'Bleed it again until it runs clear, then look again.';

/** Bleeding of one place, or of a unit as a whole. */
export const bledLook = (id: string, fluid: FluidKind | null): ObservationItem =>
  mustBe(`${id}.bled`, 'Bled', `Bled${fluid ? ` with ${FLUIDS[fluid]}` : ''} until no air comes?`, 'Bled', [
    'air',
    'Air still comes',
    untilMended(AGAIN),
  ]);

/** Places of a vehicle that are bled, in their usual order. Handbook 10. */
const PLACES = [
  ['far-rear', 'Rear wheel, farther from the master'],
  ['near-rear', 'Other rear wheel'],
  ['far-front', 'Front wheel, farther from the master'],
  ['near-front', 'Other front wheel'],
  ['master', 'Master cylinder'],
] as const;

/**
 * Bleeding a vehicle: the fluid confirmed, each place in order and again until it runs clear, the shuttle back in its
 * middle. Handbook 10 and 15.
 */
export const bleedingLooks = (id: string, fluid: FluidKind): ObservationItem[] => [
  mustBe(
    `${id}.fill`,
    'Fluid filled',
    `Fresh ${FLUIDS[fluid]} in the reservoir, and kept above its lower mark while you bleed?`,
    'That fluid, and kept up',
    [
      'other',
      'Another fluid, or run dry',
      untilMended('Drain and flush, fill with the right fluid, and begin again.'),
    ],
  ),
  {
    kind: 'observation',
    id: `${id}.order`,
    name: 'Order of bleeding',
    prompt: 'In which order is it bled?',
    answers: [
      { id: 'good', label: 'Farthest wheel first', finds: 'good' },
      { id: 'maker', label: 'As this maker says', finds: 'good' },
      { id: 'none', label: 'Nothing with fluid was open', finds: 'good' },
    ],
  },
  ...PLACES.map(([place, name]) =>
    mustBe(
      `${id}.${place}`,
      name,
      `${name}: fluid runs clear, no bubble in ten slow strokes, screw tight again?`,
      'Runs clear',
      ['air', 'Air still comes', untilMended(AGAIN)],
      ['shut', 'Was not opened'],
    ),
  ),
  mustBe(
    `${id}.shuttle`,
    'Shuttle in its middle',
    'Ignition on, engine off, pedal pressed hard once: pressure-loss lamp out? Bleeding one side can push the shuttle over.',
    'Out',
    [
      'lit',
      'Lit',
      untilMended(
        'Open a bleed screw of the side that still holds, press the pedal gently until the lamp goes out, close the screw, then look again.',
      ),
    ],
    ['no-lamp', 'There is no such lamp'],
  ),
];
