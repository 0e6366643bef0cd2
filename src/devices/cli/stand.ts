import { USUAL_MAP } from '@/core/shop/identifier-map';
import type { SimUnit } from '../logger/sim-bench';
import { StandIn, type HandMessage } from '../logger/stand-in';
import { VehicleStandIn } from '../vehicle/stand-in';
import { TwinVehicle } from '../vehicle/twin-vehicle';

/** Where the stand-ins listen; the hands are on the port above the logger's. No vehicle interface where its port is left out. */
export interface StandPorts {
  readonly logger: number;
  readonly vehicle: number | null;
}

/** Ports as the environment names them. */
export const portsFrom = (usual: {
  readonly logger: number;
  readonly vehicle: number | null;
}): StandPorts => ({
  logger: Number(process.env.HARD_PEDAL_LOGGER_PORT ?? usual.logger),
  vehicle: process.env.HARD_PEDAL_VEHICLE_PORT ? Number(process.env.HARD_PEDAL_VEHICLE_PORT) : usual.vehicle,
});

/**
 * One unit or vehicle with a bench logger on its gauges and, where it is asked for, a vehicle interface: both tell of the same one.
 *
 * @param first what its hands have done before
 */
export function standUp(unit: SimUnit, ports: StandPorts, first: readonly HandMessage[] = []): void {
  const stand = new StandIn(
    unit,
    () => performance.now() / 1000,
    (message) => {
      if (!('vehicle' in message)) return;
      if (message.vehicle.around) twin.be(message.vehicle.around);
      if (message.vehicle.mischief) vehicle.mischief = message.vehicle.mischief;
    },
  );
  const twin = new TwinVehicle(() => stand.stands, USUAL_MAP);
  const { tester, unit: own } = USUAL_MAP;
  const vehicle = new VehicleStandIn({ tester: parseInt(tester, 16), unit: parseInt(own, 16) }, twin);
  for (const one of first) stand.obeyed(one);
  const began = async () => {
    const { logger, hands } = await stand.start(ports.logger, ports.logger + 1);
    console.log(`Bench logger: 127.0.0.1:${logger}; hands at the bench: ${hands}`);
    if (ports.vehicle === null) return;
    console.log(`Vehicle interface: 127.0.0.1:${await vehicle.start(ports.vehicle)}`);
  };
  began().catch((error: NodeJS.ErrnoException & { port?: number }) => {
    console.error(
      error.code === 'EADDRINUSE'
        ? `Port ${error.port} is taken: does a stand-in run already? Choose others by HARD_PEDAL_LOGGER_PORT and HARD_PEDAL_VEHICLE_PORT.`
        : error.message,
    );
    process.exit(1);
  });
}
