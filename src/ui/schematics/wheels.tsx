import type { Spot } from './drawing';
import { Moves, Tint, Turns } from './moving';

/** Way of the rods at the end of it, px, and what a pedal turns by, °. */
export const WAY = 36;
const PEDAL = -19.8;

interface PedalProps {
  /** The part that it moves with. */
  readonly part: string;
}

/** Pedal on its pivot with its rod, and the bulkhead that it goes through. */
export function PedalAndBulkhead(props: PedalProps) {
  return (
    <>
      <path d="M134 122 v36 M134 234 v62 M126 122 v36 M126 234 v62" />
      <PedalWithRod {...props} />
    </>
  );
}

/** The same without it. */
export function PedalWithRod({ part }: PedalProps) {
  return (
    <>
      <Turns part={part} by={PEDAL} about={[68, 94]}>
        <path d="M62 94 a6 6 0 1 0 12 0 a6 6 0 1 0 -12 0" />
        <path d="M68 100 l14 142" strokeWidth="4" />
        <path d="M68 242 h30 v9 h-30 z" />
      </Turns>
      <Moves part={part} x={WAY}>
        <path d="M78 194 h66" strokeWidth="3" />
      </Moves>
    </>
  );
}

/** Master cylinder and its reservoir, lines to both axles, the valve before the rear, and the wheels. */
export function MasterAndWheels() {
  return (
    <>
      <Master />
      <path d="M388 182 v-48 h110 M364 224 v46 h70 M470 270 h44" />
      <path d="M434 256 h36 v28 h-36 z M440 270 h24 M452 262 v16" />
      <Tint part="frontBrakes" ink="output" d="M498 134 a30 30 0 1 1 60 0 a30 30 0 1 1 -60 0" />
      <Tint part="rearBrakes" ink="output" d="M514 270 a26 26 0 1 1 52 0 a26 26 0 1 1 -52 0" />
      <path d="M498 134 a30 30 0 1 1 60 0 a30 30 0 1 1 -60 0 M520 134 a8 8 0 1 1 16 0 a8 8 0 1 1 -16 0 M502 114 q-10 20 0 40" />
      <path d="M514 270 a26 26 0 1 1 52 0 a26 26 0 1 1 -52 0 M524 270 a16 16 0 1 1 32 0 a16 16 0 1 1 -32 0" />
    </>
  );
}

/** Master cylinder with two pistons, and its reservoir. */
export function Master() {
  return (
    <>
      <path d="M272 182 h126 v42 h-126 z" />
      <Moves part="master" x={WAY}>
        <path d="M292 184 v38 M344 184 v38" strokeWidth="3" />
      </Moves>
      <path d="M312 182 v-12 M366 182 v-12 M300 140 h84 v30 h-84 z M300 152 h84" />
    </>
  );
}

/** Where both are read. */
export const WHEEL_PLACES = {
  pedal: { name: 'Pedal force', x: 82, y: 264, tx: 82, ty: 294, anchor: 'middle', channel: 'input' },
  travel: { name: 'Travel', x: 34, y: 232, tx: 34, ty: 214, anchor: 'middle', channel: 'input' },
  front: { name: 'Front', x: 460, y: 134, tx: 460, ty: 160, anchor: 'middle', channel: 'output' },
  rear: { name: 'Rear', x: 494, y: 270, tx: 494, ty: 252, anchor: 'middle', channel: 'output' },
  master: { name: 'Master', x: 398, y: 204, tx: 410, ty: 208, anchor: 'start' },
} as const satisfies Record<string, Spot>;
