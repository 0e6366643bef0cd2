import type { Estimate } from '../signals/estimate';

/** One number that a drawn trace should tell, and what was told of it. */
export interface Trial {
  readonly name: string;
  readonly truth: number;
  readonly found: Estimate;
}

export const between = (random: () => number, low: number, high: number) => low + (high - low) * random();
