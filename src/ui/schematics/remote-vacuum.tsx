import { Drawing, type SchematicProps, type Spot } from './drawing';
import { Coil, Moves, Through, Tint, useShares } from './moving';

/** Way of diaphragm, rod and slave piston at the end of it, px. */
const WAY = -44;

/** What moves with the air: the two sides, the diaphragm between them, its spring, the rod with the slave piston. */
function Workings() {
  const [travel] = useShares('diaphragm');
  const dx = WAY * travel;
  const plate = 426 + dx;
  const piston = 190 + dx;
  return (
    <>
      <Tint
        part="vacuumSide"
        ink="supply"
        d={`M392 64 h-46 q-22 0 -22 22 v164 q0 22 22 22 h46 L${plate - 10} 252 V88 z`}
      />
      <Tint
        part="workingSide"
        ink="activation"
        d={`M408 64 h92 q28 0 28 28 v152 q0 28 -28 28 h-92 L${plate - 10} 252 V88 z`}
      />
      <Tint part="inputFluid" ink="input" d={`M${piston} 148 H312 V188 H300 V242 H286 V188 H${piston} z`} />
      <Tint part="outputFluid" ink="output" d={`M94 148 H${piston - 16} V188 H126 V242 H112 V188 H94 z`} />
      {/* diaphragm and plate */}
      <path
        d={`M400 66 q-6 14 ${16 + dx} 22 q10 6 10 18 v128 q0 12 -10 18 q${-22 - dx / 2} 8 ${-16 - dx} 22`}
        strokeWidth="2.6"
        data-part="diaphragm"
      />
      <path d={`M${plate} 118 v104`} strokeWidth="4" />
      <Coil from={326} to={plate - 4} axis={120} half={12} turns={4} />
      <Coil from={326} to={plate - 4} axis={216} half={12} turns={4} />
      {/* push rod and slave piston with its passage */}
      <path d={`M${plate} 168 H${piston}`} strokeWidth="3" />
      <path d={`M${piston} 148 v40 h-16 v-40 z M${piston - 12} 168 h8`} />
      <Moves part="diaphragm" x={WAY}>
        <Through part="passage" ink="input" d="M196 168 h-32 m7 -5 l-7 5 l7 5" />
      </Moves>
    </>
  );
}

/** Line drawing of a remote vacuum unit, from the handbook: slave cylinder, control valve, can with diaphragm and spring. */
export function RemoteVacuumDrawing(props: SchematicProps) {
  return (
    <Drawing {...props} places={PLACES}>
      {/* can, two pressed halves with a clamp ring */}
      <path d="M392 62 h-46 q-22 0 -22 24 v164 q0 24 22 24 h46" />
      <path d="M408 62 h92 q30 0 30 30 v152 q0 30 -30 30 h-92" />
      <path d="M392 54 v228 h16 v-228 z" />
      <Workings />
      {/* slave cylinder */}
      <path d="M324 146 h-232 v44 h232" />
      <path d="M92 152 h-18 v32 h18" />
      <path d="M312 146 v44 M318 146 v44" />
      {/* fluid in, fluid out */}
      <path d="M286 190 v52 M300 190 v52" />
      <path d="M112 190 v52 M126 190 v52" />
      {/* control valve, fed from the input side, its air passage to the working side */}
      <path d="M226 60 h78 v54 h-78 z" />
      <path d="M242 114 v32 M254 114 v32" />
      <Moves part="valve" y={-9}>
        <path d="M240 78 h44 M240 92 h44 M240 106 h44" />
      </Moves>
      <path d="M304 72 h10 v-38 h172 v28" />
      <Through
        part="airPort"
        ink="activation"
        d="M265 18 v30 m-5 -7 l5 7 l5 -7 M470 34 h16 v20 m-5 -7 l5 7 l5 -7"
      />
      <Through part="vacuumPort" ink="supply" d="M420 34 h-24 m7 -5 l-7 5 l7 5" />
      <path d="M226 88 h-14" />
      {/* breather */}
      <path d="M254 60 v-22 h22 v22 M250 38 h30 M254 30 h22" />
      {/* vacuum supply and activation */}
      <path d="M352 62 v-22 M366 62 v-22" />
      <path d="M470 274 v28 M484 274 v28" />
      {/* bleed screw, switch */}
      <path d="M138 146 v-16 h14 v16 M145 130 v-12" />
      <path d="M74 158 h-16 v20 h16 M58 168 h-16" />
    </Drawing>
  );
}

export const PLACES: Record<string, Spot> = {
  input: { name: 'Fluid in', x: 293, y: 250, tx: 293, ty: 278, anchor: 'middle', channel: 'input' },
  output: { name: 'Fluid out', x: 119, y: 250, tx: 119, ty: 278, anchor: 'middle', channel: 'output' },
  supply: { name: 'Vacuum supply', x: 359, y: 30, tx: 372, ty: 20, anchor: 'start', channel: 'supply' },
  activation: {
    name: 'Activation',
    x: 477,
    y: 310,
    tx: 494,
    ty: 315,
    anchor: 'start',
    channel: 'activation',
  },
  'bleed-screw': { name: 'Bleed screw', x: 145, y: 112, tx: 145, ty: 98, anchor: 'middle' },
  'end-cap': { name: 'End cap', x: 74, y: 190, tx: 66, ty: 212, anchor: 'middle' },
  'rod-hole': { name: 'Rod hole', x: 318, y: 198, tx: 331, ty: 262, anchor: 'start' },
  switch: { name: 'Switch', x: 36, y: 168, tx: 36, ty: 150, anchor: 'middle' },
};
