import { Drawing, type SchematicProps, type Spot } from './drawing';

/** Line drawing of a vehicle with a motor-pump booster, from the handbook: pump and battery, accumulator, booster, master cylinder, both axles. */
export function MotorPumpVehicleDrawing(props: SchematicProps) {
  return (
    <Drawing {...props} places={PLACES}>
      {/* bulkhead, pedal on its pivot, rod into the booster */}
      <path d="M134 120 v34 M134 236 v60 M126 120 v34 M126 236 v60" />
      <g id="pedal">
        <path d="M62 94 a6 6 0 1 0 12 0 a6 6 0 1 0 -12 0" />
        <path d="M68 100 l14 142" strokeWidth="4" />
        <path d="M68 242 h30 v9 h-30 z" />
      </g>
      <path d="M78 194 h66" strokeWidth="3" />
      {/* booster: spool, power piston and spring */}
      <path d="M134 160 h138 v66 h-138 z" />
      <g id="spool">
        <path d="M146 186 h14 v16 h-14 z M172 186 h14 v16 h-14 z M160 190 h12 M160 198 h12" />
      </g>
      <g id="piston">
        <path d="M200 166 h16 v54 h-16 z" />
        <path d="M216 194 h76" strokeWidth="3" />
      </g>
      <path d="M218 176 l8 -6 l8 12 l8 -12 l8 12 l8 -12 l8 6 M218 212 l8 6 l8 -12 l8 12 l8 -12 l8 12 l8 -6" />
      {/* master cylinder and reservoir */}
      <path d="M272 172 h126 v44 h-126 z" />
      <g id="master">
        <path d="M292 174 v40 M344 174 v40" strokeWidth="3" />
      </g>
      <path d="M312 172 v-12 M366 172 v-12 M300 122 h84 v38 h-84 z M300 136 h84" />
      {/* pump with motor, check valve, accumulator; battery and feed */}
      <path d="M300 130 h-36 v-32" />
      <path d="M248 80 a17 17 0 1 0 34 0 a17 17 0 1 0 -34 0 M258 86 l7 -13 l7 13" />
      <path d="M282 80 h10 M292 66 h46 v30 h-46 z" />
      <path d="M264 63 v-33 h-130 v12 M214 24 l-10 6 l10 6 z M204 24 v12" />
      <path d="M94 66 a40 24 0 0 1 80 0 a40 24 0 0 1 -80 0 M94 66 q40 16 80 0" />
      <path d="M134 90 v30 h68 v40" />
      <path d="M338 72 h62 v-20 M338 90 h116 v-38" />
      <path d="M386 20 h82 v32 h-82 z M400 20 v-6 M454 20 v-6" />
      {/* lines to the front, and past the valve to the rear */}
      <path d="M388 172 v-58 h110 M364 216 v54 h70 M470 270 h44" />
      <path d="M434 256 h36 v28 h-36 z M440 270 h24 M452 262 v16" />
      <path d="M498 114 a30 30 0 1 1 60 0 a30 30 0 1 1 -60 0 M520 114 a8 8 0 1 1 16 0 a8 8 0 1 1 -16 0 M502 94 q-10 20 0 40" />
      <path d="M514 270 a26 26 0 1 1 52 0 a26 26 0 1 1 -52 0 M524 270 a16 16 0 1 1 32 0 a16 16 0 1 1 -32 0" />
    </Drawing>
  );
}

export const PLACES: Record<string, Spot> = {
  pedal: { name: 'Pedal force', x: 82, y: 264, tx: 82, ty: 294, anchor: 'middle', channel: 'input' },
  travel: { name: 'Travel', x: 34, y: 232, tx: 34, ty: 214, anchor: 'middle', channel: 'input' },
  supply: { name: 'Accumulator', x: 134, y: 112, tx: 146, ty: 108, anchor: 'start', channel: 'supply' },
  front: { name: 'Front', x: 460, y: 114, tx: 460, ty: 140, anchor: 'middle', channel: 'output' },
  rear: { name: 'Rear', x: 494, y: 270, tx: 494, ty: 252, anchor: 'middle', channel: 'output' },
  battery: { name: 'Battery', x: 427, y: 36, tx: 478, ty: 40, anchor: 'start', channel: 'supply' },
  drop: { name: 'Feed', x: 372, y: 72, tx: 360, ty: 62, anchor: 'end', channel: 'activation' },
  current: { name: 'Current', x: 454, y: 74, tx: 468, ty: 79, anchor: 'start', channel: 'activation' },
  fluid: { name: 'Fluid', x: 342, y: 144, tx: 342, ty: 116, anchor: 'middle', channel: 'supply' },
  body: { name: 'Body', x: 190, y: 226, tx: 190, ty: 246, anchor: 'middle' },
  master: { name: 'Master', x: 398, y: 198, tx: 410, ty: 202, anchor: 'start' },
};
