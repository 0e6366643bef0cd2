'use client';

import type { Heard } from '@/core/contract/vehicle-interface';
import { MOST_HEARD, NO_VEHICLE, type VehicleMessage, type VehicleStatus } from '@/core/shop/vehicle-live';
import { useStream, type AfterMessage } from './use-stream';

/** What a vehicle tells of itself, as the server passes it on. */
export interface VehicleNow {
  readonly status: VehicleStatus | null;
  /** All that was heard for this run, the newest last. */
  readonly log: readonly Heard[];
}

const NOTHING: VehicleNow = { status: null, log: [] };
const UNREACHED: VehicleStatus = {
  ...NO_VEHICLE,
  state: 'lost',
  trouble: 'The server does not answer. Trying again. What was under control is given back without it.',
};

const after: AfterMessage<VehicleNow, VehicleMessage> = ({ status, log }, message) => {
  if (!message) return { status: UNREACHED, log };
  if (message.type === 'status') return { status: message.status, log };
  return {
    status,
    log: message.type === 'log' ? message.log : [...log.slice(1 - MOST_HEARD), message.heard],
  };
};

/**
 * Listens to the vehicle's interface for a run while a step has a use for it. A page that is hidden is looked at by nobody: what was
 * under control for it is given back.
 */
export function useVehicle(run: string, reads: readonly string[] | null): VehicleNow {
  const asked = reads && new URLSearchParams({ run, reads: reads.join(',') }).toString();
  return useStream(asked === null ? null : `/api/v1/vehicle?${asked}`, NOTHING, after);
}
