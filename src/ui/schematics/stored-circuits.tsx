import type { Spot } from './drawing';
import { Moves, Rotor, Through, useShares } from './moving';

/** Paler than any line. */
const TINT = 0.3;

/** A sphere fed from its left: the fluid before its membrane, the gas behind it. */
function Sphere({ part, x }: { readonly part: string; readonly x: number }) {
  const [filled] = useShares(part);
  const bulge = -14 + 46 * filled;
  return (
    <>
      {filled > 0 && (
        <path
          data-part={part}
          d={`M${x} 19 q${bulge} 21 0 42 a21 21 0 0 1 0 -42 z`}
          stroke="none"
          fill="var(--hp-supply)"
          opacity={TINT}
        />
      )}
      <path d={`M${x - 21} 40 a21 21 0 1 1 42 0 a21 21 0 1 1 -42 0 M${x} 19 q${bulge} 21 0 42`} />
    </>
  );
}

/** Pump, reservoir, two blocks with their spheres, the distribution valves under the pedal and the small master. */
export function StoredCircuits() {
  return (
    <>
      {/* what drives the pump, the pump, and its reservoir */}
      <path d="M12 66 a13 13 0 1 0 26 0 a13 13 0 1 0 -26 0 M20 54 l58 -24 M30 78 l58 -16" />
      <path d="M68 46 a16 16 0 1 0 32 0 a16 16 0 1 0 -32 0" />
      <Rotor part="pump" about={[84, 46]}>
        <path d="M76 50 l8 -13 l8 13" />
      </Rotor>
      <path d="M14 6 h50 v24 h-50 z M20 14 h38 M64 18 h20 v12" />
      {/* each outlet through its block to a sphere, and on to a distribution valve */}
      <path d="M100 46 h76 M176 30 h36 v32 h-36 z M188 40 l8 6 l-8 6 z M198 40 v12" />
      <path d="M212 40 h20" />
      <Sphere part="stored" x={253} />
      <Through part="charging" ink="supply" d="M140 46 h26 m-7 -5 l7 5 l-7 5" />
      <path d="M98 38 h12 v-32 h208 v24 M300 30 h36 v32 h-36 z M312 40 l8 6 l-8 6 z M322 40 v12" />
      <path d="M336 40 h20" />
      <Sphere part="stored2" x={377} />
      <Through part="charging2" ink="supply" d="M286 6 h20 m-7 -5 l7 5 l-7 5" />
      <path d="M194 62 v98 M318 62 v54 h-82 v44" />
      {/* the two distribution valves under the pedal, and the small master behind them */}
      <path d="M134 160 h136 v66 h-136 z M148 168 h108 v20 h-108 z M148 198 h108 v20 h-108 z" />
      <Moves part="spool" x={22}>
        <path d="M166 170 h14 v16 h-14 z M206 170 h14 v16 h-14 z M180 178 h26" />
        <path d="M190 200 h14 v16 h-14 z M230 200 h14 v16 h-14 z M204 208 h26" />
      </Moves>
      <path d="M270 180 h54 v26 h-54 z M324 193 h14" />
      <Moves part="spool" x={22}>
        <path d="M286 182 v22" />
      </Moves>
    </>
  );
}

/** Where those are read. */
export const CIRCUIT_PLACES = {
  supply: { name: 'Acc front', x: 194, y: 92, tx: 206, ty: 97, anchor: 'start', channel: 'supply' },
  'supply-2': { name: 'Acc rear', x: 318, y: 92, tx: 330, ty: 97, anchor: 'start', channel: 'activation' },
  fluid: { name: 'Fluid', x: 40, y: 20, tx: 68, ty: 12, anchor: 'start', channel: 'supply' },
  seat: { name: 'Seat', x: 232, y: 40, tx: 238, ty: 74, anchor: 'start' },
} as const satisfies Record<string, Spot>;
