import type { ReadingItem } from '../contract/steps';
import { readingOn } from './bench-items';
import { VEHICLE_PORTS, type VehiclePort } from './vehicle-ports';

/** A reading at a place of a vehicle, its quantity the place's own. */
export const readingAt = (
  id: string,
  port: VehiclePort,
  measures: string,
  prompt: string,
  more: Partial<ReadingItem> = {},
): ReadingItem => readingOn(VEHICLE_PORTS, id, port, measures, prompt, more);

/** The pedal brought to a force and held there. */
export const pedalAt = (id: string, force_N: number, prompt = 'Bring the pedal to this force and hold it.') =>
  readingAt(id, 'pedal', 'input', prompt, { target_Pa: force_N });
