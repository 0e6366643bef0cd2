import { altitude } from './altitude';
import { cross } from './cross-check';
import { faultyUnits } from './faulty-unit';
import { reserve } from './reserve';
import { runout } from './runout';
import { conversion } from './unit-conversion';
import { verdict } from './verdict-probability';
import type { Working } from './working';

/** Every named calculation, by name. */
export const WORKINGS: readonly Working[] = [
  runout,
  ...faultyUnits,
  cross,
  verdict,
  altitude,
  reserve,
  conversion,
];

export const findWorking = (name: string): Working | null =>
  WORKINGS.find((working) => working.name === name) ?? null;
