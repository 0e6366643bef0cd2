import { BoosterWorkings, Pushrod } from './booster-workings';
import { Drawing, type SchematicProps, type Spot } from './drawing';
import { Moves, Rotor, Through, Tint, Turns } from './moving';

/** Way of the rods at the end of it, px, and what the pedal turns by, °. */
const WAY = 36;
const PEDAL = -20;

/** Line drawing of a vehicle's vacuum brake, from the handbook: pedal, booster, master cylinder, both axles, vacuum supply. */
export function VacuumVehicleDrawing(props: SchematicProps) {
  return (
    <Drawing {...props} places={PLACES}>
      {/* bulkhead, pedal on its pivot, rod into the booster */}
      <path d="M150 70 v60 M150 236 v60 M142 70 v60 M142 236 v60" />
      <Turns part="rod" by={PEDAL} about={[80, 84]}>
        <path d="M74 84 a6 6 0 1 0 12 0 a6 6 0 1 0 -12 0" />
        <path d="M80 90 l14 150" strokeWidth="4" />
        <path d="M80 240 h30 v9 h-30 z" />
      </Turns>
      <Moves part="rod" x={WAY}>
        <path d="M90 184 h84" strokeWidth="3" />
      </Moves>
      {/* booster: two shells, diaphragm with its spring, control valve and air intake */}
      <path d="M174 128 q-14 0 -14 14 v84 q0 14 14 14 h112 l22 -24 v-64 l-22 -24 z" />
      <BoosterWorkings left={160} diaphragm={218} right={308} middle={184} half={56} way={WAY} />
      <path d="M150 158 h-18 v12 h18 M138 158 v12" />
      {/* pushrod, tandem master cylinder with its reservoir */}
      <path d="M308 166 h126 v36 h-126 z" />
      <Moves part="master" x={WAY}>
        <Pushrod from={292} to={332} y={184} />
        <path d="M332 168 v32 M384 168 v32" strokeWidth="3" />
      </Moves>
      <path d="M344 166 v-10 h62 v10 M336 126 h78 v30 h-78 z M336 138 h78" />
      {/* lines to the front, and past the combination valve to the rear */}
      <path d="M424 166 v-72 h84 M400 202 v62 h50 M486 264 h40" />
      <path d="M450 250 h36 v28 h-36 z M456 264 h24 M468 256 v16" />
      <Tint part="frontBrakes" ink="output" d="M508 94 a30 30 0 1 1 60 0 a30 30 0 1 1 -60 0" />
      <Tint part="rearBrakes" ink="output" d="M526 264 a26 26 0 1 1 52 0 a26 26 0 1 1 -52 0" />
      <path d="M508 94 a30 30 0 1 1 60 0 a30 30 0 1 1 -60 0 M530 94 a8 8 0 1 1 16 0 a8 8 0 1 1 -16 0 M512 74 q-10 20 0 40" />
      <path d="M526 264 a26 26 0 1 1 52 0 a26 26 0 1 1 -52 0 M536 264 a16 16 0 1 1 32 0 a16 16 0 1 1 -32 0" />
      {/* source of the vacuum, hose, check valve at the shell */}
      <path d="M222 26 h150 q10 0 10 10 v14 q0 10 -10 10 h-150 q-10 0 -10 -10 v-14 q0 -10 10 -10 z M240 60 v10 M276 60 v10 M312 60 v10" />
      <path d="M348 60 v30 h-82 v20 M356 60 v38 h-82 v12" />
      <Rotor part="pump" about={[297, 43]}>
        <path d="M289 49 l8 -14 l8 14 z" />
      </Rotor>
      <Through part="checkValve" ink="supply" d="M270 92 v-14 m-5 6 l5 -6 l5 6" />
      <path d="M258 110 h24 v20 h-24 z M264 126 l6 -12 l6 12 z M263 113 h14" />
    </Drawing>
  );
}

export const PLACES: Record<string, Spot> = {
  pedal: { name: 'Pedal force', x: 94, y: 262, tx: 94, ty: 292, anchor: 'middle', channel: 'input' },
  travel: { name: 'Travel', x: 40, y: 226, tx: 40, ty: 208, anchor: 'middle', channel: 'input' },
  supply: { name: 'Vacuum', x: 232, y: 108, tx: 218, ty: 112, anchor: 'end', channel: 'supply' },
  source: { name: 'Source', x: 396, y: 43, tx: 412, ty: 48, anchor: 'start', channel: 'supply' },
  front: { name: 'Front', x: 466, y: 94, tx: 466, ty: 76, anchor: 'middle', channel: 'output' },
  rear: { name: 'Rear', x: 506, y: 264, tx: 506, ty: 246, anchor: 'middle', channel: 'output' },
  gap: { name: 'Clearance', x: 330, y: 222, tx: 344, ty: 250, anchor: 'middle', channel: 'activation' },
  'air-seat': { name: 'Intake', x: 126, y: 164, tx: 128, ty: 148, anchor: 'middle' },
  shell: { name: 'Shell', x: 234, y: 240, tx: 234, ty: 262, anchor: 'middle' },
  'check-valve': { name: 'Check valve', x: 288, y: 120, tx: 300, ty: 118, anchor: 'start' },
  hose: { name: 'Hose', x: 352, y: 78, tx: 366, ty: 82, anchor: 'start' },
  master: { name: 'Master', x: 434, y: 184, tx: 446, ty: 188, anchor: 'start' },
};
