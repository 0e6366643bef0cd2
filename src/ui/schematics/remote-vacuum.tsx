import { Drawing, type SchematicProps, type Spot } from './drawing';

/** Line drawing of a remote vacuum unit, from the handbook: slave cylinder, control valve, can with diaphragm and spring. */
export function RemoteVacuumDrawing(props: SchematicProps) {
  return (
    <Drawing {...props} places={PLACES}>
      {/* can, two pressed halves with a clamp ring */}
      <path d="M392 62 h-46 q-22 0 -22 24 v164 q0 24 22 24 h46" />
      <path d="M408 62 h92 q30 0 30 30 v152 q0 30 -30 30 h-92" />
      <path d="M392 54 v228 h16 v-228 z" />
      {/* diaphragm and plate */}
      <path d="M400 66 q-6 14 16 22 q10 6 10 18 v128 q0 12 -10 18 q-22 8 -16 22" strokeWidth="2.6" />
      <path d="M426 118 v104" strokeWidth="4" />
      {/* return spring */}
      <path d="M326 120 l12 -10 l14 24 l14 -24 l14 24 l14 -24 l14 24 l14 -18" />
      <path d="M326 214 l12 10 l14 -24 l14 24 l14 -24 l14 24 l14 -24 l14 18" />
      {/* push rod and slave cylinder */}
      <path d="M426 168 h-236" strokeWidth="3" />
      <path d="M324 146 h-232 v44 h232" />
      <path d="M190 148 v40 h-16 v-40 z" />
      <path d="M182 148 v-0 M178 168 h8" />
      <path d="M92 152 h-18 v32 h18" />
      <path d="M312 146 v44 M318 146 v44" />
      {/* fluid in, fluid out */}
      <path d="M286 190 v52 M300 190 v52" />
      <path d="M112 190 v52 M126 190 v52" />
      {/* control valve, fed from the input side, its air passage to the working side */}
      <path d="M226 60 h78 v54 h-78 z" />
      <path d="M242 114 v32 M254 114 v32" />
      <path d="M240 74 h44 M240 88 h44 M240 102 h44" />
      <path d="M304 72 h10 v-38 h172 v28 M304 86 h0" />
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
