import type { Spot } from './drawing';

/** Booster with its accumulator, the steering pump on its belt, its reservoir, and the pressure line between them. */
export function SteeredBooster() {
  return (
    <>
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
      {/* pump on its belt, reservoir of the steering, pressure line */}
      <path d="M372 60 a22 22 0 1 0 44 0 a22 22 0 1 0 -44 0 M384 66 l10 -16 l10 16" />
      <path d="M394 38 h70 M394 82 h70 M456 60 a22 22 0 1 0 44 0 a22 22 0 1 0 -44 0 M470 60 a8 8 0 1 0 16 0 a8 8 0 1 0 -16 0" />
      <path d="M340 14 h44 v30 h-44 z M346 26 h32 M366 44 l8 8" />
      <path d="M372 60 h-214 v100" />
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
