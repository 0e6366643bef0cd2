import type { Fitted } from '@/core/vehicle/fitting';

/** What a comparison comes to, in words. */
export const VERDICT_WORDS: Readonly<Record<Fitted['verdict'], string>> = {
  fits: 'Fits, by these figures',
  'not-known': 'Not known yet',
  'does-not-fit': 'Does not fit',
};
