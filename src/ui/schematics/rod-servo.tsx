import { Drawing, type SchematicProps, type Spot } from './drawing';
import { Coil, Moves, Through, Tint, useShares } from './moving';

/** Way of the piston at the end of its stroke, px. */
const WAY = 88;

/** What moves in the cylinder: the two sides, the piston between them, its spring, and the rod. */
function Workings() {
  const [travel] = useShares('piston');
  const piston = 288 + WAY * travel;
  return (
    <>
      <Tint part="vacuumSide" ink="supply" d={`M${piston} 154 H396 q8 0 8 8 v100 q0 8 -8 8 H${piston} z`} />
      <Tint
        part="workingSide"
        ink="activation"
        d={`M${piston} 154 H232 q-8 0 -8 8 v100 q0 8 8 8 H${piston} z`}
      />
      <path d={`M${piston} 156 v112`} strokeWidth="4" data-part="piston" />
      <path d={`M${piston} 158 q-8 4 -12 0 M${piston} 266 q-8 -4 -12 0`} />
      <Coil from={piston + 4} to={404} axis={212} half={22} turns={4} />
      <path d={`M${piston} 212 H${112 + WAY * travel}`} strokeWidth="3" />
      {/* the cam lever, which the rod turns */}
      <path d={`M92 116 L${112 + WAY * travel} 212`} strokeWidth="4" />
    </>
  );
}

/** Line drawing of a rod-acting servo, from the handbook: tank with non-return valve, three-land valve, cylinder, cam lever. */
export function RodServoDrawing(props: SchematicProps) {
  return (
    <Drawing {...props} places={PLACES}>
      {/* servo cylinder, its piston with cup, the return spring on the vacuum side */}
      <path d="M232 152 h164 q10 0 10 10 v100 q0 10 -10 10 h-164 q-10 0 -10 -10 v-100 q0 -10 10 -10 z" />
      <Workings />
      {/* gland of the rod, pivot of the cam lever, stop */}
      <path d="M222 204 v16 M214 204 v16" />
      <path d="M80 106 a10 10 0 1 0 20 0 a10 10 0 1 0 -20 0" />
      <path d="M62 92 h56 M66 92 l-6 -8 M80 92 l-6 -8 M94 92 l-6 -8 M108 92 l-6 -8" />
      <path d="M132 236 h-22 v16 h22 z M121 236 v-18" />
      {/* three-land valve, lifted by the fluid from above */}
      <path d="M238 74 h66 v60 h-66 z" />
      <Moves part="valve" y={8}>
        <path d="M246 84 h50 M246 102 h50 M246 120 h50" strokeWidth="3" />
      </Moves>
      <Tint part="inputFluid" ink="input" d="M264 46 h14 v28 h-14 z" />
      <Through
        part="airPort"
        ink="activation"
        d="M206 96 h26 m-7 -5 l7 5 l-7 5 M257 136 v12 m-5 -6 l5 6 l5 -6"
      />
      <Through
        part="vacuumPort"
        ink="supply"
        d="M257 150 v-12 m-5 6 l5 -6 l5 6 M316 104 h26 m-7 -5 l7 5 l-7 5"
      />
      <Tint
        part="vacuumSide"
        ink="supply"
        d="M452 72 h112 q16 0 16 16 v32 q0 16 -16 16 h-112 q-14 0 -14 -16 v-32 q0 -16 14 -16 z"
      />
      <Through part="checkValve" ink="supply" d="M554 158 v20 m-5 -7 l5 7 l5 -7" />
      <path d="M264 74 v-28 M278 74 v-28" />
      <path d="M250 134 v18 M264 134 v18" />
      {/* air intake with its filter */}
      <path d="M238 90 h-22 M238 102 h-22 M216 84 v24 h-18 v-24 z M204 84 v24 M210 84 v24" />
      {/* vacuum line from the tank to the valve and to the vacuum side */}
      <path d="M304 98 h132 M304 110 h64 v42 M382 152 v-42 h54" />
      {/* tank with its drain, and the line to the source with the non-return valve */}
      <path d="M452 70 h112 q18 0 18 18 v32 q0 18 -18 18 h-112 q-16 0 -16 -18 v-32 q0 -18 16 -18 z" />
      <path d="M470 138 v12 M464 150 h12 v8 h-12 z" />
      <path d="M548 138 v44 M560 138 v44" />
      <path d="M540 182 h28 v34 h-28 z M546 208 l8 -18 l8 18 z M545 189 h18" />
      <path d="M548 216 v52 M560 216 v52" />
      <path d="M504 70 v-14" />
    </Drawing>
  );
}

export const PLACES: Record<string, Spot> = {
  input: {
    name: 'Fluid to the valve',
    x: 271,
    y: 38,
    tx: 288,
    ty: 30,
    anchor: 'start',
    channel: 'input',
  },
  output: { name: 'Rod force', x: 168, y: 212, tx: 168, ty: 244, anchor: 'middle', channel: 'output' },
  supply: { name: 'Tank vacuum', x: 504, y: 48, tx: 504, ty: 28, anchor: 'middle', channel: 'supply' },
  'valve-seal': { name: 'Valve fluid seal', x: 296, y: 80, tx: 312, ty: 74, anchor: 'start' },
  intake: { name: 'Air intake', x: 198, y: 96, tx: 186, ty: 78, anchor: 'middle' },
  tank: { name: 'Tank and line', x: 436, y: 104, tx: 508, ty: 109, anchor: 'middle' },
  'check-valve': { name: 'Non-return valve', x: 568, y: 200, tx: 552, ty: 290, anchor: 'middle' },
};
