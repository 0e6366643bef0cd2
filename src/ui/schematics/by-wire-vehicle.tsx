import { Drawing, type SchematicProps, type Spot } from './drawing';
import { Coil, Moves, Rotor, Through, Tint, Turns, useShares } from './moving';

/** Way of the rod at the end of it, px, and what the pedal turns by, °; what turns an isolation valve shut, °. */
const WAY = 16;
const PEDAL = -13;
const SHUT = 56;
/** How far the piston of the simulator goes down, px. */
const SIMULATOR = 26;

/** The simulator's piston and its two springs. */
function Simulator() {
  const [squeezed] = useShares('simulator');
  const at = 226 + SIMULATOR * squeezed;
  return (
    <>
      <Tint part="simulator" ink="input" d={`M120 214 H174 V${at} H120 z M131 178 h6 v34 h-6 z`} />
      <path d={`M120 ${at} h54`} strokeWidth="3" />
      <Coil upright from={at + 2} to={268} axis={134} half={6} turns={4} />
      <Coil upright from={Math.max(at + 2, 238)} to={268} axis={158} half={5} turns={3} />
    </>
  );
}

/** Height of each wheel of the drawing, and its part. */
const WHEELS_AT = [
  [60, 'front-left'],
  [132, 'front-right'],
  [204, 'rear-left'],
  [276, 'rear-right'],
] as const;

/** A wheel with the apply valve in its line, and the release valve beside it. */
function Wheel({ y, part }: { readonly y: number; readonly part: string }) {
  return (
    <g transform={`translate(0 ${y})`}>
      <path d="M330 0 h30 M360 -9 h26 v18 h-26 z M366 4 l14 -8 M386 0 h104" />
      <path d="M412 0 v16 M403 16 h18 v14 h-18 z M408 27 l8 -8" />
      <Tint
        part={part}
        ink="output"
        d="M490 0 a24 24 0 1 1 48 0 a24 24 0 1 1 -48 0 M386 -4 h104 v8 h-104 z"
      />
      <path d="M490 0 a24 24 0 1 1 48 0 a24 24 0 1 1 -48 0 M507 0 a7 7 0 1 0 14 0 a7 7 0 1 0 -14 0 M494 -16 q-9 16 0 32" />
    </g>
  );
}

/** The accumulator: its gas above, the fluid below. */
function Accumulator() {
  const [filled] = useShares('stored');
  const at = 268 - 30 * filled;
  return (
    <>
      <Tint part="stored" ink="supply" d={`M222 ${at} H262 V266 a20 14 0 1 1 -40 0 z`} />
      <path d={`M222 246 a20 24 0 1 1 40 0 v20 a20 14 0 1 1 -40 0 z M222 ${at} h40`} />
    </>
  );
}

/**
 * Line drawing of a vehicle with a decoupled brake, from the handbook: pedal and its sensor, master cylinder with two circuits, simulator
 * and isolation valves, accumulator with its pump, an apply and a release valve to each wheel, battery with its store, the drive.
 */
export function ByWireVehicleDrawing(props: SchematicProps) {
  return (
    <Drawing {...props} places={PLACES}>
      {/* pedal on its pivot, the rod into the master, the sensor beside it */}
      <Turns part="pedal" by={PEDAL} about={[42, 92]}>
        <path d="M36 92 a6 6 0 1 0 12 0 a6 6 0 1 0 -12 0" />
        <path d="M42 98 l10 110" strokeWidth="4" />
        <path d="M38 208 h30 v8 h-30 z" />
      </Turns>
      <Moves part="pedal" x={WAY}>
        <path d="M49 160 h63" strokeWidth="3" />
      </Moves>
      <path d="M64 134 h30 v10 h-30 z M78 144 v16 M68 134 v-18 M90 134 v-18" />
      {/* master cylinder with two pistons, reservoir */}
      <path d="M98 144 h112 v34 h-112 z" />
      <Moves part="pedal" x={WAY}>
        <path d="M112 146 v30 M158 146 v30" strokeWidth="3" />
      </Moves>
      <path d="M134 144 v-10 M184 144 v-10 M122 108 h74 v26 h-74 z M122 118 h74" />
      {/* simulator with its two springs */}
      <path d="M134 178 v34 M118 212 h58 v58 h-58 z" />
      <Simulator />
      {/* isolation valves from both circuits to the front wheels */}
      <path d="M188 178 v20 h36 M224 190 h22 v16 h-22 z M246 198 h62 v-138" />
      <path d="M210 160 h14 M224 152 h22 v16 h-22 z M246 160 h46 v-28 M292 132 h38" />
      <Turns part="isolation" by={-SHUT} about={[235, 198]}>
        <path d="M229 202 l12 -8" />
      </Turns>
      <Turns part="isolation" by={-SHUT} about={[235, 160]}>
        <path d="M229 164 l12 -8" />
      </Turns>
      {/* accumulator with its pump and motor */}
      <Accumulator />
      <path d="M242 282 v16 h88 M330 298 v-238" />
      <path d="M182 298 a13 13 0 1 0 26 0 a13 13 0 1 0 -26 0 M208 298 h34 M195 311 v8 h-34" />
      <Rotor part="pumpRuns" about={[195, 298]}>
        <path d="M195 288 l7 12 h-14 z" />
      </Rotor>
      <Tint part="isolation" ink="input" d="M214 16 h70 v40 h-70 z" />
      <Tint part="store" ink="supply" d="M306 18 h8 v24 h-8 z" />
      <Through part="drive" ink="output" d="M514 104 v-6 m-5 5 l5 -5 l5 5" />
      <Tint part="track1" ink="activation" d="M66 118 h4 v16 h-4 z" />
      <Tint part="track2" ink="activation" d="M88 118 h4 v16 h-4 z" />
      <Tint part="master1" ink="input" d="M128 186 a6 6 0 1 0 12 0 a6 6 0 1 0 -12 0" />
      <Tint part="master2" ink="input" d="M182 190 a6 6 0 1 0 12 0 a6 6 0 1 0 -12 0" />
      {/* each wheel: apply valve in its line, release valve beside it */}
      {WHEELS_AT.map(([y, part]) => (
        <Wheel key={part} y={y} part={part} />
      ))}
      {/* control unit with battery and store, the drive at the front axle */}
      <path d="M120 22 h60 v30 h-60 z M132 22 v-6 M168 22 v-6 M180 36 h34" />
      <path d="M214 16 h70 v40 h-70 z M224 26 h16 M224 34 h24" />
      <path d="M284 30 h22 M306 18 v24 M314 18 v24 M314 30 h14" />
      <path d="M514 110 v-8 M496 88 a18 14 0 1 0 36 0 a18 14 0 1 0 -36 0 M508 94 v-10 l6 7 l6 -7 v10" />
    </Drawing>
  );
}

export const PLACES: Record<string, Spot> = {
  pedal: { name: 'Pedal', x: 53, y: 230, tx: 53, ty: 258, anchor: 'middle', channel: 'input' },
  travel: { name: 'Travel', x: 22, y: 196, tx: 4, ty: 182, anchor: 'start', channel: 'input' },
  battery: { name: 'Battery', x: 150, y: 37, tx: 110, ty: 42, anchor: 'end', channel: 'supply' },
  store: { name: 'Store', x: 336, y: 30, tx: 348, ty: 24, anchor: 'start', channel: 'supply' },
  supply: { name: 'Acc', x: 262, y: 298, tx: 262, ty: 322, anchor: 'middle', channel: 'supply' },
  'accumulator-sensor': {
    name: 'Acc V',
    x: 288,
    y: 298,
    tx: 290,
    ty: 286,
    anchor: 'start',
    channel: 'supply',
  },
  'front-left': { name: 'FL', x: 456, y: 60, tx: 456, ty: 48, anchor: 'middle', channel: 'output' },
  'front-left-sensor': { name: 'FL V', x: 556, y: 60, tx: 568, ty: 65, anchor: 'start', channel: 'output' },
  'front-right': { name: 'FR', x: 456, y: 132, tx: 456, ty: 120, anchor: 'middle', channel: 'output' },
  'front-right-sensor': {
    name: 'FR V',
    x: 556,
    y: 132,
    tx: 568,
    ty: 137,
    anchor: 'start',
    channel: 'output',
  },
  'rear-left': { name: 'RL', x: 456, y: 204, tx: 456, ty: 192, anchor: 'middle', channel: 'output' },
  'rear-left-sensor': { name: 'RL V', x: 556, y: 204, tx: 568, ty: 209, anchor: 'start', channel: 'output' },
  'rear-right': { name: 'RR', x: 456, y: 276, tx: 456, ty: 264, anchor: 'middle', channel: 'output' },
  'rear-right-sensor': { name: 'RR V', x: 556, y: 276, tx: 568, ty: 281, anchor: 'start', channel: 'output' },
  'master-1': { name: 'Mast 1', x: 134, y: 196, tx: 112, ty: 201, anchor: 'end', channel: 'input' },
  'master-2': { name: 'Mast 2', x: 188, y: 198, tx: 192, ty: 220, anchor: 'start', channel: 'input' },
  sensor: { name: 'Sensor', x: 79, y: 106, tx: 79, ty: 86, anchor: 'middle', channel: 'activation' },
  'track-1': { name: 'T1', x: 60, y: 122, tx: 44, ty: 124, anchor: 'end', channel: 'activation' },
  'track-2': { name: 'T2', x: 98, y: 122, tx: 104, ty: 100, anchor: 'start', channel: 'activation' },
  valve: { name: 'Valve', x: 373, y: 84, tx: 366, ty: 100, anchor: 'middle', channel: 'activation' },
  requested: { name: 'Asked', x: 478, y: 92, tx: 466, ty: 97, anchor: 'end', channel: 'input' },
  granted: { name: 'Granted', x: 550, y: 92, tx: 562, ty: 97, anchor: 'start', channel: 'output' },
};
