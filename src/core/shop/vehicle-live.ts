import type { Heard } from '../contract/vehicle-interface';

/** Control is given back by itself after so long, s. Handbook-models 16. */
export const CONTROL_S = 30;
/** A vehicle is read so often, ms, and what was heard for a test is kept for half an hour. */
export const HEARD_EVERY_MS = 200;
export const MOST_HEARD = (30 * 60 * 1000) / HEARD_EVERY_MS;

/** Something of the vehicle that is under this program's control. */
export interface VehicleControl {
  /** Id of the value, the name of the identifier it stands in, and of the state asked for. */
  readonly value: string;
  readonly name: string;
  readonly state: string;
  readonly run: string;
  /** ISO time. */
  readonly since: string;
}

/** What a technician is told of a control that has ended, or was not taken. */
export interface ControlSaid {
  readonly says: string;
  /** It may be under control still. */
  readonly isGrave: boolean;
}

/** How it stands with the vehicle's interface. */
export interface VehicleStatus {
  readonly state: 'off' | 'connecting' | 'reading' | 'lost';
  readonly trouble: string | null;
  /** Name of the map by which it is read. */
  readonly map: string | null;
  readonly control: VehicleControl | null;
  /** What came of the last control. */
  readonly said: ControlSaid | null;
  /** Control that the application had as it was ended: nobody has seen yet what became of it. */
  readonly left: VehicleControl | null;
}

/** Where no interface is named. */
export const NO_VEHICLE: VehicleStatus = {
  state: 'off',
  trouble: null,
  map: null,
  control: null,
  said: null,
  left: null,
};

/** What is sent to the screen, one to an event. */
export type VehicleMessage =
  | { readonly type: 'status'; readonly status: VehicleStatus }
  /** All that was heard for this run before. */
  | { readonly type: 'log'; readonly log: readonly Heard[] }
  | { readonly type: 'heard'; readonly heard: Heard };
