import type { Spot } from './drawing';
import { Coil, Moves, Rotor, Through, Tint, useShares } from './moving';
import { WAY } from './wheels';

/** The power piston's spring, and the chamber behind it. */
function Piston() {
  const [piston] = useShares('piston');
  const at = 200 + WAY * piston;
  return (
    <>
      <Tint part="chamber" ink="supply" d={`M190 184 H${at} V222 H190 z`} />
      <g data-part="piston">
        <path d={`M${at} 184 h16 v38 h-16 z`} />
        <path d={`M${at + 16} 203 H${292 + WAY * piston}`} strokeWidth="3" />
      </g>
      <Coil from={at + 18} to={270} axis={213} half={7} turns={3} />
    </>
  );
}

/** Booster with its accumulator, the steering pump on its belt, its reservoir, and the pressure line between them. */
export function SteeredBooster() {
  return (
    <>
      {/* booster: spool above, power piston and spring below it */}
      <path d="M134 160 h138 v66 h-138 z" />
      <Moves part="spool" x={9}>
        <path d="M150 168 h12 v12 h-12 z M176 168 h12 v12 h-12 z M162 171 h14 M162 177 h14" />
      </Moves>
      <Piston />
      {/* accumulator on the booster */}
      <path d="M240 160 v-10 M218 126 a22 13 0 0 1 44 0 v12 a22 12 0 0 1 -44 0 z" />
      <Moves part="stored" y={-22}>
        <path d="M218 136 h44" />
      </Moves>
      {/* pump on its belt, reservoir of the steering, pressure line */}
      <path d="M372 60 a22 22 0 1 0 44 0 a22 22 0 1 0 -44 0" />
      <Rotor part="pump" about={[394, 60]}>
        <path d="M384 66 l10 -16 l10 16" />
      </Rotor>
      <path d="M394 38 h70 M394 82 h70 M456 60 a22 22 0 1 0 44 0 a22 22 0 1 0 -44 0 M470 60 a8 8 0 1 0 16 0 a8 8 0 1 0 -16 0" />
      <path d="M340 14 h44 v30 h-44 z M346 26 h32 M366 44 l8 8" />
      <path d="M372 60 h-214 v100" />
      <Tint part="line" ink="supply" d="M372 57 h-217 v103 h6 v-97 h211 z" />
      <Through part="pump" ink="supply" d="M280 60 h-22 m7 -5 l-7 5 l7 5" />
    </>
  );
}

/** Where they are read and looked at. */
export const STEERING_PLACES = {
  line: { name: 'Pressure', x: 230, y: 60, tx: 230, ty: 84, anchor: 'middle', channel: 'supply' },
  flow: { name: 'Flow', x: 300, y: 60, tx: 300, ty: 84, anchor: 'middle', channel: 'supply' },
  fluid: { name: 'Fluid', x: 362, y: 30, tx: 394, ty: 22, anchor: 'start', channel: 'supply' },
  accumulator: { name: 'Accumulator', x: 240, y: 120, tx: 254, ty: 112, anchor: 'start', channel: 'supply' },
  input: { name: 'Input', x: 146, y: 208, tx: 150, ty: 244, anchor: 'start' },
  return: { name: 'Return', x: 110, y: 88, tx: 110, ty: 106, anchor: 'middle' },
} as const satisfies Record<string, Spot>;
