import { Drawing, type SchematicProps, type Spot } from './drawing';
import { Coil, Moves, Rotor, Through, Tint, useShares } from './moving';
import { Sac } from './sac';
import { MasterAndWheels, PedalAndBulkhead, WAY, WHEEL_PLACES } from './wheels';

/** The power piston with its rod and springs, and the chamber behind it. */
function Piston() {
  const [piston] = useShares('piston');
  const at = 200 + WAY * piston;
  return (
    <>
      <Tint part="chamber" ink="supply" d={`M190 176 H${at} V230 H190 z`} />
      <g data-part="piston">
        <path d={`M${at} 176 h16 v54 h-16 z`} />
        <path d={`M${at + 16} 203 H${292 + WAY * piston}`} strokeWidth="3" />
      </g>
      <Coil from={at + 18} to={270} axis={185} half={7} turns={3} />
      <Coil from={at + 18} to={270} axis={221} half={7} turns={3} />
    </>
  );
}

/** Line drawing of a vehicle with a motor-pump booster, from the handbook: pump and battery, accumulator, booster, master cylinder, both axles. */
export function MotorPumpVehicleDrawing(props: SchematicProps) {
  return (
    <Drawing {...props} places={PLACES}>
      <PedalAndBulkhead part="piston" />
      {/* booster: spool, power piston and spring */}
      <path d="M134 166 h138 v66 h-138 z" />
      <Moves part="spool" x={8}>
        <path d="M146 187 h14 v16 h-14 z M172 187 h14 v16 h-14 z M160 191 h12 M160 199 h12" />
      </Moves>
      <Piston />
      {/* pump with motor, check valve, accumulator; battery and feed */}
      <path d="M300 148 h-36 v-50" />
      <path d="M248 80 a17 17 0 1 0 34 0 a17 17 0 1 0 -34 0" />
      <Rotor part="pump" about={[265, 80]}>
        <path d="M258 86 l7 -13 l7 13" />
      </Rotor>
      <Through part="pump" ink="supply" d="M190 30 h-26 m7 -5 l-7 5 l7 5" />
      <path d="M282 80 h10 M292 66 h46 v30 h-46 z" />
      <path d="M264 63 v-33 h-130 v12 M214 24 l-10 6 l10 6 z M204 24 v12" />
      <Sac part="stored" x={94} y={66} wide={80} high={24} />
      <path d="M152 87 v33 h50 v46" />
      {/* pressure switch */}
      <path d="M176 120 v10 M166 130 h20 v12 h-20 z" />
      <Through part="switch" ink="activation" d="M170 136 h12" />
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
