import type { Working } from '../contract/working';
import { assistGain } from './assist-gain-working';
import { cross } from './cross-check-working';
import { effectiveAreaWorking } from './effective-area-working';
import { pedalTravel } from './pedal-travel-working';
import { runout } from './runout-working';

/** Named calculations that ask the twin of one family. */
export const FAMILY_WORKINGS: readonly Working[] = [
  runout,
  cross,
  assistGain,
  effectiveAreaWorking,
  pedalTravel,
];
