/** In which order a system is bled: two schools (handbook 15). The first is the default; which was used is recorded. */
export const BLEEDING_ORDERS = {
  'wheels-first': {
    title: 'Farthest wheel first, then nearer ones, the unit, the master',
    steps: [
      'The wheel farthest from the master cylinder.',
      'The other wheels, each nearer than the last.',
      'The remote unit, at its bleed screw.',
      'The master cylinder.',
      'Once more round. Pressure-bleed if the pedal stays soft.',
    ],
  },
  'master-first': {
    title: 'Master and unit first, then the wheels',
    steps: [
      'The master cylinder.',
      'The remote unit, at its bleed screw.',
      'The wheel farthest from the master cylinder.',
      'The other wheels, each nearer than the last.',
      'Once more round. Pressure-bleed if the pedal stays soft.',
    ],
  },
} as const;
export type BleedingOrder = keyof typeof BLEEDING_ORDERS;
