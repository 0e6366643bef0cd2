import { Moves, Tint, Turns } from './moving';

/** Way of the rods at the end of it, px, and what the pedal turns by, °. */
const WAY = 36;
const PEDAL = -22;

/** Pedal of a bench on its pivot, with its rod into what stands there. */
export function BenchPedal({ part }: { readonly part: string }) {
  return (
    <>
      <Turns part={part} by={PEDAL} about={[93, 90]}>
        <path d="M92 96 l-30 138" strokeWidth="4" />
        <path d="M44 232 l34 10 l4 -16" strokeWidth="3" />
        <path d="M84 90 a9 9 0 1 0 18 0 a9 9 0 1 0 -18 0" />
      </Turns>
      <Moves part={part} x={WAY}>
        <path d="M78 178 h74" strokeWidth="3" />
      </Moves>
    </>
  );
}

/** Master cylinder of a bench with two pistons, and the reservoir over it. */
export function BenchMaster() {
  return (
    <>
      <path d="M348 152 h136 v52 h-136 z" />
      <Tint part="caliper" ink="output" d="M378 154 H482 V202 H378 z" />
      <Moves part="master" x={WAY}>
        <path d="M364 156 h14 v44 h-14 z M426 156 h14 v44 h-14 z" />
      </Moves>
      <path d="M392 152 v-14 M456 152 v-14 M370 88 h108 v50 h-108 z M376 108 h96" />
    </>
  );
}
