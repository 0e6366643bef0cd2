/** The place that only a system with a remote unit has. */
const REMOTE_UNIT = 'The remote unit, at its bleed screw.';

/** In which order a system is bled: two schools (handbook 15). The first is the default; which was used is recorded. */
export const BLEEDING_ORDERS = {
  'wheels-first': {
    title: 'Farthest wheel first, then nearer ones, the unit, the master',
    steps: [
      'The wheel farthest from the master cylinder.',
      'The other wheels, each nearer than the last.',
      REMOTE_UNIT,
      'The master cylinder.',
      'Once more round. Pressure-bleed if the pedal stays soft.',
    ],
  },
  'master-first': {
    title: 'Master and unit first, then the wheels',
    steps: [
      'The master cylinder.',
      REMOTE_UNIT,
      'The wheel farthest from the master cylinder.',
      'The other wheels, each nearer than the last.',
      'Once more round. Pressure-bleed if the pedal stays soft.',
    ],
  },
} as const;
export type BleedingOrder = keyof typeof BLEEDING_ORDERS;

/** The same as one system is bled: a vehicle with a booster at its pedal has no unit in its lines. */
export function bleedingOf(order: BleedingOrder, unitInLines: boolean): { title: string; steps: string[] } {
  const { title, steps } = BLEEDING_ORDERS[order];
  if (unitInLines) return { title, steps: [...steps] };
  return {
    title: title
      .replace(', the unit, the master', ', the master')
      .replace('Master and unit first', 'Master first'),
    steps: steps.filter((step) => step !== REMOTE_UNIT),
  };
}
