import { Drawing, type SchematicProps, type Spot } from './drawing';
import { Coil, Moves, Through, Tint, Turns, useShares } from './moving';
import { MasterAndWheels, PedalAndBulkhead, WAY, WHEEL_PLACES } from './wheels';

/** What the pinion turns by at the end of the rod's way, °. */
const PINION = 290;

/** The return spring before and behind the rod. */
function Springs() {
  const [rod] = useShares('rod');
  return (
    <>
      <Coil from={246 + (WAY / 2) * rod} to={270} axis={188} half={6} turns={2} />
      <Coil from={246 + (WAY / 2) * rod} to={270} axis={218} half={6} turns={2} />
    </>
  );
}

/** Line drawing of a vehicle with an electromechanical booster, from the handbook: battery with feed and earth, booster with motor and sensor, master cylinder, both axles. */
export function ElectromechanicalVehicleDrawing(props: SchematicProps) {
  return (
    <Drawing {...props} places={PLACES}>
      <PedalAndBulkhead part="rod" />
      {/* booster: the rod, the rack beside it, its spring */}
      <path d="M134 166 h138 v66 h-138 z" />
      <Moves part="rod" x={WAY}>
        <Moves part="foot" x={4}>
          <path d="M144 194 h40 M184 187 h13 v14 h-13 z" strokeWidth="3" />
        </Moves>
        <path d="M197 203 h95" strokeWidth="3" />
        <path d="M190 178 h52 v8 h-52 z M196 178 v-4 M206 178 v-4 M216 178 v-4 M226 178 v-4 M236 178 v-4" />
        <path d="M158 204 h8 v8 h-8 z" />
      </Moves>
      <Springs />
      {/* motor with its pinion, control unit over it */}
      <Tint part="motor" ink="activation" d="M192 134 a23 19 0 1 0 46 0 a23 19 0 1 0 -46 0" />
      <Tint part="awake" ink="input" d="M176 58 h104 v32 h-104 z" />
      <Through part="feed" ink="supply" d="M330 78 h-24 m7 -5 l-7 5 l7 5" />
      <Turns part="rod" by={PINION} about={[215, 167]}>
        <path d="M208 167 a7 7 0 1 0 14 0 a7 7 0 1 0 -14 0 M215 167 v-7" />
      </Turns>
      <path d="M192 134 a23 19 0 1 0 46 0 a23 19 0 1 0 -46 0 M215 153 v7 M206 138 l5 -8 l5 8 l5 -8" />
      <path d="M176 58 h104 v32 h-104 z M188 70 h18 M188 80 h28 M215 90 v25" />
      <Tint part="track1" ink="activation" d="M146 116 h4 v96 h-4 z" />
      <Tint part="track2" ink="activation" d="M162 138 h4 v66 h-4 z" />
      {/* sensor beside the rod, its leads to the control unit */}
      <path d="M144 212 h38 v11 h-38 z" />
      <path d="M148 212 v-96 h32 v-26 M164 204 v-66 M180 212 v-40" />
      {/* battery, fuse in the feed, earth */}
      <path d="M386 18 h82 v34 h-82 z M400 18 v-6 M454 18 v-6" />
      <path d="M386 66 h-24 v12 h24 z M362 72 h-82 M386 72 h14 v-20" />
      <path d="M280 84 h20 v20 M290 104 h20 M294 110 h12 M298 116 h4 M454 52 v20 h30 v10 M474 82 h20 M478 88 h12 M482 94 h4" />
      <MasterAndWheels />
    </Drawing>
  );
}

export const PLACES: Record<string, Spot> = {
  ...WHEEL_PLACES,
  battery: { name: 'Battery', x: 427, y: 35, tx: 478, ty: 40, anchor: 'start', channel: 'supply' },
  drop: { name: 'Feed', x: 336, y: 72, tx: 336, ty: 62, anchor: 'middle', channel: 'supply' },
  current: { name: 'In feed', x: 400, y: 66, tx: 410, ty: 72, anchor: 'start', channel: 'supply' },
  plug: { name: 'Plug', x: 290, y: 72, tx: 294, ty: 50, anchor: 'middle', channel: 'activation' },
  earth: { name: 'Earth', x: 300, y: 96, tx: 314, ty: 100, anchor: 'start', channel: 'supply' },
  motor: { name: 'Motor', x: 215, y: 102, tx: 226, ty: 106, anchor: 'start', channel: 'activation' },
  sensor: { name: 'Sensor', x: 180, y: 178, tx: 180, ty: 250, anchor: 'middle', channel: 'activation' },
  'track-1': { name: 'Track 1', x: 148, y: 122, tx: 124, ty: 114, anchor: 'end', channel: 'activation' },
  'track-2': { name: 'Track 2', x: 164, y: 142, tx: 124, ty: 74, anchor: 'end', channel: 'activation' },
};
