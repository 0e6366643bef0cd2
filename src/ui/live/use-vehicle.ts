'use client';

import { useEffect, useState } from 'react';
import type { Heard } from '@/core/contract/vehicle-interface';
import { MOST_HEARD, NO_VEHICLE, type VehicleMessage, type VehicleStatus } from '@/core/shop/vehicle-live';

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

/** Listens to the vehicle's interface for a run while a step has a use for it. */
export function useVehicle(run: string, reads: readonly string[] | null): VehicleNow {
  const [now, setNow] = useState<VehicleNow>(NOTHING);
  const asked = reads?.join(',') ?? null;
  useEffect(() => {
    if (asked === null) return;
    const source = new EventSource(
      `/api/v1/vehicle?${new URLSearchParams({ run, reads: asked }).toString()}`,
    );
    source.onmessage = ({ data }) => {
      const message = JSON.parse(data as string) as VehicleMessage;
      setNow(({ status, log }) =>
        message.type === 'status'
          ? { status: message.status, log }
          : {
              status,
              log: message.type === 'log' ? message.log : [...log.slice(1 - MOST_HEARD), message.heard],
            },
      );
    };
    source.onerror = () => setNow(({ log }) => ({ status: UNREACHED, log }));
    return () => source.close();
  }, [run, asked]);
  return asked === null ? NOTHING : now;
}
