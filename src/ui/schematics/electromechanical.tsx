import { BenchMaster, BenchPedal } from './bench-master';
import { Drawing, type SchematicProps, type Spot } from './drawing';
import { Coil, Moves, Through, Tint, Turns, useShares } from './moving';

/** Way of the rod at the end of it, px, and what the pinion turns by, °. */
const WAY = 36;
const PINION = 230;

/** The return spring before and behind the rack. */
function Springs() {
  const [rod] = useShares('rod');
  return (
    <>
      <Coil from={306 + WAY * rod} to={346} axis={165} half={7} turns={3} />
      <Coil from={306 + WAY * rod} to={346} axis={193} half={7} turns={3} />
    </>
  );
}

/** Line drawing of an electromechanical booster, from the handbook: pedal, rod with its sensor, motor and gear, master cylinder, battery with feed and earth. */
export function ElectromechanicalDrawing(props: SchematicProps) {
  return (
    <Drawing {...props} places={PLACES}>
      {/* pedal on its pivot, and the rod into the booster */}
      <BenchPedal part="rod" />
      {/* body: the rod in the middle, the rack beside it that the motor drives, the return spring */}
      <path d="M152 140 h196 v76 h-196 z" />
      <Moves part="rod" x={WAY}>
        <Moves part="foot" x={5}>
          <path d="M152 178 h54 M206 170 h16 v16 h-16 z" strokeWidth="3" />
        </Moves>
        <path d="M222 178 h142" strokeWidth="3" />
        <path d="M228 160 h74 v10 h-74 z M234 160 v-5 M244 160 v-5 M254 160 v-5 M264 160 v-5 M274 160 v-5 M284 160 v-5 M294 160 v-5" />
        <path d="M192 186 h8 v8 h-8 z" strokeWidth="3" />
      </Moves>
      <Springs />
      {/* motor with its pinion over the rack */}
      <Tint part="motor" ink="activation" d="M229 108 a26 22 0 1 0 52 0 a26 22 0 1 0 -52 0" />
      <Turns part="rod" by={PINION} about={[255, 146]}>
        <path d="M246 146 a9 9 0 1 0 18 0 a9 9 0 1 0 -18 0 M255 146 v-9" />
      </Turns>
      <path d="M229 108 a26 22 0 1 0 52 0 a26 22 0 1 0 -52 0 M255 130 v8 M246 112 l5 -9 l5 9 l5 -9" />
      {/* sensor beside the rod: a magnet that goes with it, two tracks against each other */}
      <path d="M172 196 h44 v12 h-44 z M180 202 h28" />
      <Tint part="track1" ink="activation" d="M174 208 h4 v36 h-4 z" />
      <Tint part="track2" ink="activation" d="M192 208 h4 v36 h-4 z" />
      <path d="M176 208 v36 M194 208 v36 M212 208 v36" />
      {/* control unit, its leads to sensor and motor */}
      <Tint part="awake" ink="input" d="M160 244 h128 v34 h-128 z" />
      <Through part="feed" ink="supply" d="M470 258 h-22 m7 -5 l-7 5 l7 5" />
      <path d="M160 244 h128 v34 h-128 z M174 256 h20 M174 266 h32" />
      <path d="M268 244 v-22 M268 222 h86 v-114 h-73" />
      {/* master cylinder with two pistons, and the reservoir over it */}
      <BenchMaster />
      <path d="M410 204 v30 M458 204 v22" />
      {/* battery, fuse in the feed, earth */}
      <path d="M524 240 h76 v38 h-76 z M540 240 v-8 M584 240 v-8" />
      <path d="M540 232 v-14 h-58 v40 h-38 M444 252 h-30 v12 h30 z M414 258 h-126" />
      <path d="M584 232 v-18 h34 v88 h-246 M288 270 h84 v44 M362 314 h20 M366 320 h12 M370 326 h4" />
    </Drawing>
  );
}

export const PLACES: Record<string, Spot> = {
  pedal: { name: 'Pedal force', x: 64, y: 226, tx: 12, ty: 268, anchor: 'start', channel: 'input' },
  output: { name: 'Master', x: 410, y: 238, tx: 422, ty: 232, anchor: 'start', channel: 'output' },
  battery: { name: 'Battery', x: 562, y: 259, tx: 562, ty: 296, anchor: 'middle', channel: 'supply' },
  drop: { name: 'Feed', x: 388, y: 258, tx: 388, ty: 246, anchor: 'middle', channel: 'supply' },
  current: { name: 'In feed', x: 482, y: 234, tx: 494, ty: 212, anchor: 'start', channel: 'supply' },
  plug: { name: 'Plug', x: 300, y: 258, tx: 304, ty: 242, anchor: 'start', channel: 'activation' },
  earth: { name: 'Earth', x: 334, y: 270, tx: 334, ty: 290, anchor: 'middle', channel: 'supply' },
  motor: { name: 'Motor', x: 318, y: 108, tx: 318, ty: 98, anchor: 'middle', channel: 'activation' },
  sensor: { name: 'Sensor', x: 212, y: 228, tx: 222, ty: 232, anchor: 'start', channel: 'activation' },
  'track-1': { name: 'Track 1', x: 176, y: 228, tx: 164, ty: 224, anchor: 'end', channel: 'activation' },
  'track-2': { name: 'Track 2', x: 194, y: 220, tx: 164, ty: 240, anchor: 'end', channel: 'activation' },
};
