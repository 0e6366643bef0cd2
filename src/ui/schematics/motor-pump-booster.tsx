import { BenchMaster, BenchPedal } from './bench-master';
import { Drawing, type SchematicProps, type Spot } from './drawing';
import { Coil, Moves, Rotor, Through, Tint, useShares } from './moving';
import { Sac } from './sac';

/** Way of the rods at the end of it, px. */
const WAY = 36;

/** The power piston with its rod and springs, and the chamber behind it. */
function Piston() {
  const [piston] = useShares('piston');
  const at = 244 + WAY * piston;
  return (
    <>
      <Tint part="chamber" ink="supply" d={`M228 148 H${at} V208 H228 z`} />
      <g data-part="piston">
        <path d={`M${at} 148 h22 v60 h-22 z`} />
        <path d={`M${at + 22} 178 H${364 + WAY * piston}`} strokeWidth="3" />
      </g>
      <Coil from={at + 24} to={346} axis={160} half={8} turns={4} />
      <Coil from={at + 24} to={346} axis={196} half={8} turns={4} />
    </>
  );
}

/** Line drawing of a motor-pump booster, from the handbook: pedal, spool and power piston, master cylinder, accumulator, pump and its feed. */
export function MotorPumpBoosterDrawing(props: SchematicProps) {
  return (
    <Drawing {...props} places={PLACES}>
      {/* pedal on its pivot, and the rod into the booster */}
      <BenchPedal part="piston" />
      {/* body: spool in the middle, power piston around the rod, its spring */}
      <path d="M152 140 h196 v76 h-196 z" />
      <Moves part="spool" x={9}>
        <path d="M166 168 h20 v20 h-20 z M204 168 h20 v20 h-20 z M186 174 h18 M186 182 h18" />
      </Moves>
      <Piston />
      {/* master cylinder with two pistons, and the reservoir over it */}
      <BenchMaster />
      <path d="M410 204 v52 M458 204 v40" />
      {/* from the reservoir to the pump, and on through the check valve to the accumulator and the spool */}
      <path d="M478 120 h46 v24" />
      <path d="M506 162 a18 18 0 1 0 36 0 a18 18 0 1 0 -36 0" />
      <Rotor part="pump" about={[524, 162]}>
        <path d="M516 168 l8 -14 l8 14" />
      </Rotor>
      <Through part="pump" ink="supply" d="M486 32 h-26 m7 -5 l-7 5 l7 5" />
      <Through part="switch" ink="activation" d="M371 64 h18" />
      <path d="M548 146 h48 v32 h-48 z M542 162 h6" />
      <path d="M524 144 v-112 h-226" />
      <path d="M440 26 l-10 6 l10 6 z M430 26 v12" />
      <Sac part="stored" x={180} y={58} wide={88} high={28} />
      <path d="M224 86 v54 M298 32 v74 h-74" />
      {/* relief back to the reservoir, and the pressure switch */}
      <path d="M340 32 v22 M330 54 h20 v16 h-20 z M340 70 v24 h30 M334 66 l12 -8" />
      <path d="M380 32 v14 M368 46 h24 v14 h-24 z" />
      {/* battery, fuse, and the motor's feed */}
      <path d="M506 262 h70 v34 h-70 z M520 262 v-8 M562 262 v-8" />
      <path d="M562 254 v-76 M520 254 v-32 h34 v-44" />
    </Drawing>
  );
}

export const PLACES: Record<string, Spot> = {
  pedal: { name: 'Pedal force', x: 64, y: 226, tx: 12, ty: 268, anchor: 'start', channel: 'input' },
  supply: { name: 'Accumulator', x: 224, y: 110, tx: 208, ty: 114, anchor: 'end', channel: 'supply' },
  output: { name: 'Master', x: 410, y: 264, tx: 410, ty: 294, anchor: 'middle', channel: 'output' },
  battery: { name: 'Battery', x: 541, y: 279, tx: 541, ty: 316, anchor: 'middle', channel: 'supply' },
  current: { name: 'Current', x: 562, y: 238, tx: 618, ty: 226, anchor: 'end', channel: 'activation' },
  drop: { name: 'Feed', x: 520, y: 226, tx: 506, ty: 231, anchor: 'end', channel: 'activation' },
  fluid: { name: 'Fluid', x: 424, y: 114, tx: 424, ty: 82, anchor: 'middle', channel: 'supply' },
  body: { name: 'Body', x: 300, y: 216, tx: 300, ty: 236, anchor: 'middle' },
};
