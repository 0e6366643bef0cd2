import { FAMILIES, type FamilyKind } from '@/core/families/registry';
import { mixes } from '@/core/fluid/kinds';
import type { Instrument } from '@/core/metrology/instrument';
import { SIMULATED_GAUGE } from '@/core/practice/simulated-gauges';
import { instruments } from './demo/shelf';

/** What every practice job is called, with a number. */
export const PRACTICE_TAG = 'Practice';

/** Gauges of the simulated bench: they belong to the practice run and never come on the Shelf, nor into a real test. */
export function practiceGauges(kind: FamilyKind): Instrument[] {
  const { ports, fluid, typical } = FAMILIES[kind];
  const works = fluid(typical);
  const fitting = instruments.filter(
    (gauge) =>
      ports.some(({ id, quantity }) => id === gauge.usualPort && quantity === gauge.quantity) &&
      (!works || !gauge.fluid || mixes(gauge.fluid, works)),
  );
  const tags = new Set(fitting.map(({ tag }) => tag));
  return fitting.map((gauge) => ({
    ...gauge,
    name: SIMULATED_GAUGE,
    tiedTo: gauge.tiedTo && tags.has(gauge.tiedTo) ? gauge.tiedTo : null,
    fluid: null,
    correction: null,
    calibratedOn: null,
    calibrationDue: null,
  }));
}
