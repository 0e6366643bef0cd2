import { BoosterWorkings, Pushrod } from './booster-workings';
import { Drawing, type SchematicProps, type Spot } from './drawing';
import { Moves, Tint, Turns } from './moving';

/** Way of the rods at the end of it, px, and what the lever turns by, °. */
const WAY = 36;
const LEVER = -17.5;

/** Line drawing of a pedal booster by itself on a bench: bracket, lever, booster, bench master with a caliper, vacuum cock. */
export function PedalVacuumDrawing(props: SchematicProps) {
  return (
    <Drawing {...props} places={PLACES}>
      {/* bench with its bracket, lever on its pivot, rod into the booster */}
      <path d="M40 290 h520 M172 290 v-56 M180 290 v-56 M164 234 h24" />
      <path d="M104 62 a7 7 0 1 0 14 0 a7 7 0 1 0 -14 0 M96 40 h30 M100 40 l-5 -8 M112 40 l-5 -8 M124 40 l-5 -8 M111 40 v15" />
      <Turns part="rod" by={LEVER} about={[111, 62]}>
        <path d="M111 69 v176" strokeWidth="4" />
        <path d="M96 245 h30 v9 h-30 z" />
      </Turns>
      <Moves part="rod" x={WAY}>
        <path d="M111 176 h97" strokeWidth="3" />
      </Moves>
      {/* booster: two shells, diaphragm with its spring, control valve and air intake */}
      <path d="M206 116 q-16 0 -16 16 v88 q0 16 16 16 h112 l24 -28 v-64 l-24 -28 z" />
      <BoosterWorkings left={190} diaphragm={252} right={342} middle={176} half={60} way={WAY} />
      <path d="M180 150 h-18 v12 h18 M168 150 v12" />
      {/* pushrod, bench master with its reservoir, line to the gauge and one caliper */}
      <path d="M342 158 h104 v36 h-104 z" />
      <Tint
        part="caliper"
        ink="output"
        d="M446 172 h84 v8 h-84 z M480 176 h8 v52 h-8 z M458 228 h52 v30 h-52 z"
      />
      <Moves part="master" x={WAY}>
        <Pushrod from={326} to={366} y={176} />
        <path d="M366 160 v32" />
      </Moves>
      <path d="M374 158 v-10 h44 v10 M366 120 h60 v28 h-60 z M366 132 h60" />
      <path d="M446 176 h84 M484 176 v52" />
      <path d="M458 228 h52 v30 h-52 z M470 258 v10 M498 258 v10 M464 268 h40" />
      {/* vacuum: hose from the pump with its cock */}
      <path d="M276 116 v-50 h118 M286 116 v-40 h108" />
      <path d="M394 58 h26 v28 h-26 z M407 58 v-12 M399 46 h16" />
      <path d="M420 66 h52 M420 76 h52 M472 54 h60 v34 h-60 z" />
    </Drawing>
  );
}

export const PLACES: Record<string, Spot> = {
  pedal: { name: 'Lever', x: 111, y: 268, tx: 84, ty: 274, anchor: 'end', channel: 'input' },
  output: { name: 'Output', x: 546, y: 176, tx: 546, ty: 206, anchor: 'middle', channel: 'output' },
  supply: { name: 'Vacuum', x: 332, y: 52, tx: 332, ty: 36, anchor: 'middle', channel: 'supply' },
  gap: { name: 'Clearance', x: 352, y: 214, tx: 366, ty: 240, anchor: 'middle', channel: 'activation' },
  'air-seat': { name: 'Intake', x: 152, y: 156, tx: 150, ty: 138, anchor: 'middle' },
  shell: { name: 'Shell', x: 266, y: 240, tx: 266, ty: 264, anchor: 'middle' },
};
