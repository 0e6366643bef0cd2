import { Drawing, type SchematicProps, type Spot } from './drawing';

/** Line drawing of a dual pedal valve, from the handbook: pedal and metering spring, two spools in line, two accumulators, the return. */
export function PedalValveDrawing(props: SchematicProps) {
  return (
    <Drawing {...props} places={PLACES}>
      {/* pedal on its pivot, its stop, and the push rod */}
      <g id="pedal">
        <path d="M64 236 l52 -152" strokeWidth="4" />
        <path d="M44 240 l34 12 l6 -16" strokeWidth="3" />
        <path d="M108 80 a9 9 0 1 0 18 0 a9 9 0 1 0 -18 0" />
        <path d="M88 166 h52" strokeWidth="3" />
      </g>
      <path d="M100 62 h36 M104 62 l-6 -8 M116 62 l-6 -8 M128 62 l-6 -8" />
      <path d="M38 196 h20 v14 h-20 z M30 190 v26" />
      {/* body, with the metering spring and the two spools in one bore */}
      <path d="M140 128 h356 v76 h-356 z" />
      <path d="M152 146 h332 v40 h-332 z" />
      <g id="spring">
        <path d="M160 148 v36 M162 152 l10 28 l10 -28 l10 28 l10 -28 l10 28 l10 -28" />
        <path d="M228 148 v36" strokeWidth="3" />
      </g>
      <g id="spool-1">
        <path d="M236 148 h26 v36 h-26 z M290 148 h26 v36 h-26 z M262 160 h28 M262 172 h28" />
        {/* the drilling behind the spool through which the outlet pushes back */}
        <path d="M276 172 v6 h44" strokeDasharray="3 3" />
      </g>
      <path d="M324 148 v36" strokeWidth="3" />
      <g id="spool-2">
        <path d="M340 148 h26 v36 h-26 z M394 148 h26 v36 h-26 z M366 160 h28 M366 172 h28" />
        <path d="M380 172 v6 h44" strokeDasharray="3 3" />
      </g>
      <path d="M430 166 l8 -16 l8 32 l8 -32 l8 32 l8 -32 l8 16" />
      {/* feeds from the accumulators, with their check valves */}
      <path d="M262 128 v-30 h-20 v-14 M366 128 v-30 h20 v-14" />
      <path d="M200 54 a42 26 0 0 1 84 0 a42 26 0 0 1 -84 0 M200 54 q42 18 84 0" />
      <path d="M344 54 a42 26 0 0 1 84 0 a42 26 0 0 1 -84 0 M344 54 q42 18 84 0" />
      <path d="M262 110 h52 M366 110 h-52 M314 110 v-30" />
      <path d="M278 104 l10 6 l-10 6 z M288 104 v12 M350 104 l-10 6 l10 6 z M340 104 v12" />
      {/* the pump of the pack, and its tank with oil */}
      <path d="M300 66 a14 14 0 1 0 28 0 a14 14 0 1 0 -28 0 M308 70 l6 -12 l6 12" />
      <path d="M314 52 v-46 h226 v264" />
      <path d="M500 270 h86 v40 h-86 z M506 290 h74" />
      {/* outlets to the two brake circuits, and the return */}
      <path d="M276 204 v54 M380 204 v54" />
      <path d="M328 204 v40 h196 v26" />
    </Drawing>
  );
}

export const PLACES: Record<string, Spot> = {
  treadle: { name: 'Pedal travel', x: 102, y: 126, tx: 4, ty: 100, anchor: 'start', channel: 'input' },
  supply: { name: 'Accumulator 1', x: 242, y: 62, tx: 232, ty: 24, anchor: 'middle', channel: 'supply' },
  'supply-2': {
    name: 'Accumulator 2',
    x: 386,
    y: 62,
    tx: 396,
    ty: 24,
    anchor: 'middle',
    channel: 'activation',
  },
  output: { name: 'Circuit 1', x: 276, y: 266, tx: 276, ty: 298, anchor: 'middle', channel: 'output' },
  'output-2': { name: 'Circuit 2', x: 380, y: 266, tx: 380, ty: 298, anchor: 'middle', channel: 'output' },
  oil: { name: 'Oil', x: 560, y: 290, tx: 560, ty: 326, anchor: 'middle', channel: 'supply' },
  valve: { name: 'Valve body', x: 484, y: 138, tx: 476, ty: 122, anchor: 'end' },
  return: { name: 'Return line', x: 452, y: 244, tx: 452, ty: 262, anchor: 'middle' },
};
