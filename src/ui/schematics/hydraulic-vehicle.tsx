import { Drawing, type SchematicProps, type Spot } from './drawing';
import { STEERING_PLACES, SteeredBooster } from './steering';
import { MasterAndWheels, PedalAndBulkhead, WHEEL_PLACES } from './wheels';

/** Line drawing of a vehicle of which the steering pump works the brake, from the handbook: pump and reservoir, booster, steering gear, master cylinder, both axles. */
export function HydraulicVehicleDrawing(props: SchematicProps) {
  return (
    <Drawing {...props} places={PLACES}>
      <PedalAndBulkhead part="piston" />
      <SteeredBooster />
      {/* steering gear, and the return behind it */}
      <path d="M182 160 v-72 h-96 v-44 h60 v-24 h-88 v24 h28" />
      <path d="M340 24 h-194" />
      <MasterAndWheels />
    </Drawing>
  );
}

export const PLACES: Record<string, Spot> = { ...WHEEL_PLACES, ...STEERING_PLACES };
