/** Brake fluids that must not meet. Handbook 2. */
export const FLUIDS = {
  dot3: 'DOT 3 (glycol)',
  dot4: 'DOT 4 (glycol)',
  'dot5.1': 'DOT 5.1 (glycol)',
  dot5: 'DOT 5 (silicone)',
  mineral: 'Mineral oil',
} as const;

/** What a fluid is made on: those of one base mix, those of two destroy seals where they meet. Handbook 2. */
const BASES: Readonly<Record<FluidKind, 'glycol' | 'silicone' | 'mineral'>> = {
  dot3: 'glycol',
  dot4: 'glycol',
  'dot5.1': 'glycol',
  dot5: 'silicone',
  mineral: 'mineral',
};

/** Whether two fluids may meet. */
export const mixes = (one: FluidKind, other: FluidKind): boolean => BASES[one] === BASES[other];

export type FluidKind = keyof typeof FLUIDS;

export const FLUID_KINDS = Object.keys(FLUIDS) as [FluidKind, ...FluidKind[]];
