import { accumulatorCharge } from './accumulator-charge';
import { altitude } from './altitude';
import { applicationsFromFull } from './applications-from-full';
import { assistGain } from './assist-gain';
import { axleLoads } from './axle-loads';
import { cross } from './cross-check';
import { effectiveAreaWorking } from './effective-area';
import { failedAssist } from './failed-assist';
import { faultyUnits } from './faulty-unit';
import { lampTime } from './lamp-time';
import { motorPump } from './motor-pump';
import { parkingCable } from './parking-cable';
import { meteringValve } from './metering-valve';
import { pedalTravel } from './pedal-travel';
import { hoseRecovery } from './hose-recovery';
import { pullDown } from './pull-down';
import { reserve } from './reserve';
import { runout } from './runout';
import { stopHeat } from './stop-heat';
import { stopsInReserve } from './stops-in-reserve';
import { conversion } from './unit-conversion';
import { vesselInPlace } from './vessel-in-place';
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
  hoseRecovery,
  pullDown,
  assistGain,
  effectiveAreaWorking,
  accumulatorCharge,
  vesselInPlace,
  applicationsFromFull,
  stopsInReserve,
  lampTime,
  motorPump,
  meteringValve,
  pedalTravel,
  failedAssist,
  axleLoads,
  stopHeat,
  parkingCable,
  conversion,
];

export const findWorking = (name: string): Working | null =>
  WORKINGS.find((working) => working.name === name) ?? null;
