import { Drawing, type SchematicProps, type Spot } from './drawing';
import { Coil, Moves, Rotor, Through, Tint, Turns, useShares } from './moving';
import { Sac } from './sac';

/** Way of the push rod and of a spool at the end of it, px, and what the pedal turns by, °. */
const ROD = 30;
const SPOOL = 9;
const PEDAL = -19;

/** The metering spring between push rod and first spool, and the one behind the second. */
function Springs() {
  const [pedal, spool1, spool2] = useShares('pedal', 'spool1', 'spool2');
  const [from, to] = [160 + ROD * pedal, 228 + SPOOL * spool1];
  return (
    <>
      <path d={`M${from} 148 v36`} />
      <Coil from={from + 2} to={to} axis={166} half={14} turns={4} />
      <path d={`M${to} 148 v36`} strokeWidth="3" />
      <Coil from={428 + SPOOL * spool2} to={482} axis={166} half={16} turns={3} />
    </>
  );
}

/** Line drawing of a dual pedal valve, from the handbook: pedal and metering spring, two spools in line, two accumulators, the return. */
export function PedalValveDrawing(props: SchematicProps) {
  return (
    <Drawing {...props} places={PLACES}>
      {/* pedal on its pivot, its stop, and the push rod */}
      <Turns part="pedal" by={PEDAL} about={[117, 80]}>
        <path d="M64 236 l52 -152" strokeWidth="4" />
        <path d="M44 240 l34 12 l6 -16" strokeWidth="3" />
        <path d="M108 80 a9 9 0 1 0 18 0 a9 9 0 1 0 -18 0" />
      </Turns>
      <Moves part="pedal" x={ROD}>
        <path d="M88 166 h72" strokeWidth="3" />
      </Moves>
      <path d="M100 62 h36 M104 62 l-6 -8 M116 62 l-6 -8 M128 62 l-6 -8" />
      <path d="M38 196 h20 v14 h-20 z M30 190 v26" />
      {/* body, with the metering spring and the two spools in one bore */}
      <path d="M140 128 h356 v76 h-356 z" />
      <path d="M152 146 h332 v40 h-332 z" />
      <Tint part="brake1" ink="output" d="M262 148 h28 v36 h-28 z M271 184 h10 v74 h-10 z" />
      <Tint part="brake2" ink="output" d="M366 148 h28 v36 h-28 z M375 184 h10 v74 h-10 z" />
      <Springs />
      <Moves part="spool1" x={SPOOL}>
        <path d="M236 148 h26 v36 h-26 z M290 148 h26 v36 h-26 z M262 160 h28 M262 172 h28" />
        {/* the drilling behind the spool through which the outlet pushes back */}
        <path d="M276 172 v6 h44" strokeDasharray="3 3" />
      </Moves>
      <path d="M324 148 v36" strokeWidth="3" />
      <Moves part="spool2" x={SPOOL}>
        <path d="M340 148 h26 v36 h-26 z M394 148 h26 v36 h-26 z M366 160 h28 M366 172 h28" />
        <path d="M380 172 v6 h44" strokeDasharray="3 3" />
      </Moves>
      {/* feeds from the accumulators, with their check valves */}
      <path d="M262 128 v-30 h-20 v-14 M366 128 v-30 h20 v-14" />
      <Sac part="stored1" x={200} y={54} wide={84} high={26} />
      <Sac part="stored2" x={344} y={54} wide={84} high={26} />
      <path d="M262 110 h52 M366 110 h-52 M314 110 v-30" />
      <path d="M278 104 l10 6 l-10 6 z M288 104 v12 M350 104 l-10 6 l10 6 z M340 104 v12" />
      {/* the pump of the pack, and its tank with oil */}
      <path d="M300 66 a14 14 0 1 0 28 0 a14 14 0 1 0 -28 0" />
      <Rotor part="pump" about={[314, 66]}>
        <path d="M308 70 l6 -12 l6 12" />
      </Rotor>
      <Through part="pump" ink="supply" d="M314 84 v18 m-5 -7 l5 7 l5 -7" />
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
