import { Drawing, type SchematicProps, type Spot } from './drawing';
import { MasterAndWheels, PedalAndBulkhead, WHEEL_PLACES } from './wheels';

/** Line drawing of a vehicle with a motor-pump booster, from the handbook: pump and battery, accumulator, booster, master cylinder, both axles. */
export function MotorPumpVehicleDrawing(props: SchematicProps) {
  return (
    <Drawing {...props} places={PLACES}>
      <PedalAndBulkhead />
      {/* booster: spool, power piston and spring */}
      <path d="M134 166 h138 v66 h-138 z" />
      <g id="spool">
        <path d="M146 187 h14 v16 h-14 z M172 187 h14 v16 h-14 z M160 191 h12 M160 199 h12" />
      </g>
      <g id="piston">
        <path d="M200 176 h16 v54 h-16 z" />
        <path d="M216 203 h76" strokeWidth="3" />
      </g>
      <path d="M218 184 l8 -6 l8 12 l8 -12 l8 12 l8 -12 l8 6 M218 220 l8 6 l8 -12 l8 12 l8 -12 l8 12 l8 -6" />
      {/* pump with motor, check valve, accumulator; battery and feed */}
      <path d="M300 148 h-36 v-50" />
      <path d="M248 80 a17 17 0 1 0 34 0 a17 17 0 1 0 -34 0 M258 86 l7 -13 l7 13" />
      <path d="M282 80 h10 M292 66 h46 v30 h-46 z" />
      <path d="M264 63 v-33 h-130 v12 M214 24 l-10 6 l10 6 z M204 24 v12" />
      <path d="M94 66 a40 24 0 0 1 80 0 a40 24 0 0 1 -80 0 M94 66 q40 16 80 0" />
      <path d="M152 87 v33 h50 v46" />
      <path d="M338 72 h62 v-20 M338 90 h116 v-38" />
      <path d="M386 20 h82 v32 h-82 z M400 20 v-6 M454 20 v-6" />
      <MasterAndWheels />
    </Drawing>
  );
}

export const PLACES: Record<string, Spot> = {
  ...WHEEL_PLACES,
  supply: { name: 'Accumulator', x: 152, y: 110, tx: 164, ty: 106, anchor: 'start', channel: 'supply' },
  battery: { name: 'Battery', x: 427, y: 36, tx: 478, ty: 40, anchor: 'start', channel: 'supply' },
  drop: { name: 'Feed', x: 372, y: 72, tx: 360, ty: 62, anchor: 'end', channel: 'activation' },
  current: { name: 'Current', x: 454, y: 74, tx: 468, ty: 79, anchor: 'start', channel: 'activation' },
  fluid: { name: 'Fluid', x: 342, y: 158, tx: 342, ty: 130, anchor: 'middle', channel: 'supply' },
  body: { name: 'Body', x: 190, y: 232, tx: 190, ty: 252, anchor: 'middle' },
};
