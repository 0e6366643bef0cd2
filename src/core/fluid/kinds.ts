/** Brake fluids that must not meet. Handbook 2. */
export const FLUIDS = {
  dot3: 'DOT 3 (glycol)',
  dot4: 'DOT 4 (glycol)',
  'dot5.1': 'DOT 5.1 (glycol)',
  dot5: 'DOT 5 (silicone)',
  mineral: 'Mineral oil',
} as const;

export type FluidKind = keyof typeof FLUIDS;

export const FLUID_KINDS = Object.keys(FLUIDS) as [FluidKind, ...FluidKind[]];
