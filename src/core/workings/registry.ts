import { FAMILY_WORKINGS } from '../families/workings';
import { boltIn } from './bolt-in';
import { accumulatorCharge } from './accumulator-charge';
import { altitude } from './altitude';
import { blendedStop } from './blended-stop';
import { applicationsFromFull } from './applications-from-full';
import { axleLoads } from './axle-loads';
import { capacitorStore } from './capacitor-store';
import { failedAssist } from './failed-assist';
import { footAlone } from './foot-alone';
import { fallbackReach } from './fallback-reach';
import { faultyUnits } from './faulty-unit';
import { lampTime } from './lamp-time';
import { motorBooster } from './motor-booster';
import { motorPump } from './motor-pump';
import { parkingCable } from './parking-cable';
import { meteringValve } from './metering-valve';
import { feedDrop } from './feed-drop';
import { hoseRecovery } from './hose-recovery';
import { pressureRise } from './pressure-rise';
import { pullDown } from './pull-down';
import { reserve } from './reserve';
import { sensorTable } from './sensor-table';
import { stopHeat } from './stop-heat';
import { stopsInReserve } from './stops-in-reserve';
import { conversion } from './unit-conversion';
import { vesselInPlace } from './vessel-in-place';
import { verdict } from './verdict-probability';
import type { Working } from '../contract/working';

/** Every named calculation, by name. */
export const WORKINGS: readonly Working[] = [
  ...FAMILY_WORKINGS,
  ...faultyUnits,
  verdict,
  altitude,
  reserve,
  hoseRecovery,
  pullDown,
  accumulatorCharge,
  vesselInPlace,
  applicationsFromFull,
  stopsInReserve,
  lampTime,
  motorPump,
  feedDrop,
  motorBooster,
  sensorTable,
  capacitorStore,
  blendedStop,
  pressureRise,
  fallbackReach,
  meteringValve,
  failedAssist,
  footAlone,
  boltIn,
  axleLoads,
  stopHeat,
  parkingCable,
  conversion,
];

export const findWorking = (name: string): Working | null =>
  WORKINGS.find((working) => working.name === name) ?? null;
