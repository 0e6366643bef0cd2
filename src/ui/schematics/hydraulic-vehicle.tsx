import { Drawing, type SchematicProps, type Spot } from './drawing';

/** Line drawing of a vehicle of which the steering pump works the brake, from the handbook: pump and reservoir, booster, steering gear, master cylinder, both axles. */
export function HydraulicVehicleDrawing(props: SchematicProps) {
  return (
    <Drawing {...props} places={PLACES}>
      {/* bulkhead, pedal on its pivot, rod into the booster */}
      <path d="M134 124 v36 M134 230 v66 M126 124 v36 M126 230 v66" />
      <g id="pedal">
        <path d="M62 94 a6 6 0 1 0 12 0 a6 6 0 1 0 -12 0" />
        <path d="M68 100 l14 142" strokeWidth="4" />
        <path d="M68 242 h30 v9 h-30 z" />
      </g>
      <path d="M78 194 h66" strokeWidth="3" />
      {/* booster: spool above, power piston and spring below it */}
      <path d="M134 160 h138 v66 h-138 z" />
      <g id="spool">
        <path d="M150 168 h12 v12 h-12 z M176 168 h12 v12 h-12 z M162 171 h14 M162 177 h14" />
      </g>
      <g id="piston">
        <path d="M200 184 h16 v38 h-16 z" />
        <path d="M216 203 h76" strokeWidth="3" />
      </g>
      <path d="M218 214 l8 -6 l8 12 l8 -12 l8 12 l8 -12 l8 6" />
      {/* accumulator on the booster */}
      <path d="M240 160 v-10 M218 126 a22 13 0 0 1 44 0 v12 a22 12 0 0 1 -44 0 z M218 132 h44" />
      {/* master cylinder and its own reservoir */}
      <path d="M272 182 h126 v42 h-126 z" />
      <g id="master">
        <path d="M292 184 v38 M344 184 v38" strokeWidth="3" />
      </g>
      <path d="M312 182 v-12 M366 182 v-12 M300 140 h84 v30 h-84 z M300 152 h84" />
      {/* pump on its belt, reservoir of the steering, pressure line, steering gear, return */}
      <path d="M372 60 a22 22 0 1 0 44 0 a22 22 0 1 0 -44 0 M384 66 l10 -16 l10 16" />
      <path d="M394 38 h70 M394 82 h70 M456 60 a22 22 0 1 0 44 0 a22 22 0 1 0 -44 0 M470 60 a8 8 0 1 0 16 0 a8 8 0 1 0 -16 0" />
      <path d="M340 14 h44 v30 h-44 z M346 26 h32 M366 44 l8 8" />
      <path d="M372 60 h-214 v100" />
      <path d="M182 160 v-72 h-96 v-44 h60 v-24 h-88 v24 h28" />
      <path d="M340 24 h-194" />
      {/* lines to the front, and past the valve to the rear */}
      <path d="M388 182 v-48 h110 M364 224 v46 h70 M470 270 h44" />
      <path d="M434 256 h36 v28 h-36 z M440 270 h24 M452 262 v16" />
      <path d="M498 134 a30 30 0 1 1 60 0 a30 30 0 1 1 -60 0 M520 134 a8 8 0 1 1 16 0 a8 8 0 1 1 -16 0 M502 114 q-10 20 0 40" />
      <path d="M514 270 a26 26 0 1 1 52 0 a26 26 0 1 1 -52 0 M524 270 a16 16 0 1 1 32 0 a16 16 0 1 1 -32 0" />
    </Drawing>
  );
}

export const PLACES: Record<string, Spot> = {
  pedal: { name: 'Pedal force', x: 82, y: 264, tx: 82, ty: 294, anchor: 'middle', channel: 'input' },
  travel: { name: 'Travel', x: 34, y: 232, tx: 34, ty: 214, anchor: 'middle', channel: 'input' },
  line: { name: 'Pressure', x: 230, y: 60, tx: 230, ty: 84, anchor: 'middle', channel: 'supply' },
  flow: { name: 'Flow', x: 300, y: 60, tx: 300, ty: 84, anchor: 'middle', channel: 'supply' },
  fluid: { name: 'Fluid', x: 362, y: 30, tx: 394, ty: 22, anchor: 'start', channel: 'supply' },
  accumulator: { name: 'Accumulator', x: 240, y: 120, tx: 254, ty: 112, anchor: 'start', channel: 'supply' },
  front: { name: 'Front', x: 460, y: 134, tx: 460, ty: 160, anchor: 'middle', channel: 'output' },
  rear: { name: 'Rear', x: 494, y: 270, tx: 494, ty: 252, anchor: 'middle', channel: 'output' },
  input: { name: 'Input', x: 146, y: 208, tx: 150, ty: 244, anchor: 'start' },
  return: { name: 'Return', x: 110, y: 88, tx: 110, ty: 106, anchor: 'middle' },
  master: { name: 'Master', x: 398, y: 204, tx: 410, ty: 208, anchor: 'start' },
};
