import { Drawing, type SchematicProps, type Spot } from './drawing';
import { PedalAndBulkhead, WHEEL_PLACES } from './wheels';

/** Line drawing of a car on stored pressure, from the handbook: pump, two blocks with their spheres, distribution valves, levelling. */
export function StoredPressureVehicleDrawing(props: SchematicProps) {
  return (
    <Drawing {...props} places={PLACES}>
      <PedalAndBulkhead />
      {/* engine pulley, pump and reservoir */}
      <path d="M12 66 a13 13 0 1 0 26 0 a13 13 0 1 0 -26 0 M20 54 l58 -24 M30 78 l58 -16" />
      <path d="M68 46 a16 16 0 1 0 32 0 a16 16 0 1 0 -32 0 M76 50 l8 -13 l8 13" />
      <path d="M14 6 h50 v24 h-50 z M20 14 h38 M64 18 h20 v12" />
      {/* each outlet through its block to a sphere, and on to a distribution valve */}
      <path d="M100 46 h76 M176 30 h36 v32 h-36 z M188 40 l8 6 l-8 6 z M198 40 v12" />
      <path d="M212 40 h20 M232 40 a21 21 0 1 1 42 0 a21 21 0 1 1 -42 0 M253 19 q-12 21 0 42" />
      <path d="M98 38 h12 v-32 h208 v24 M300 30 h36 v32 h-36 z M312 40 l8 6 l-8 6 z M322 40 v12" />
      <path d="M336 40 h20 M356 40 a21 21 0 1 1 42 0 a21 21 0 1 1 -42 0 M377 19 q-12 21 0 42" />
      <path d="M194 62 v98 M318 62 v54 h-82 v44" />
      {/* the two distribution valves under the pedal, and the small master behind them */}
      <path d="M134 160 h136 v66 h-136 z M148 168 h108 v20 h-108 z M148 198 h108 v20 h-108 z" />
      <g id="spool">
        <path d="M166 170 h14 v16 h-14 z M206 170 h14 v16 h-14 z M180 178 h26" />
        <path d="M190 200 h14 v16 h-14 z M230 200 h14 v16 h-14 z M204 208 h26" />
      </g>
      <path d="M270 180 h54 v26 h-54 z M286 182 v22 M324 193 h14" />
      {/* to the front and the rear brakes */}
      <path d="M180 226 v58 h92 M272 284 a24 24 0 1 1 48 0 a24 24 0 1 1 -48 0 M288 284 a8 8 0 1 1 16 0 a8 8 0 1 1 -16 0" />
      <path d="M236 226 v14 h190 v34 h40" />
      {/* levelling: height valve, restrictor, a ram and a spring at each rear corner */}
      <path d="M318 116 h104 M422 102 h40 v28 h-40 z M432 124 l20 -16 M442 130 v20 l-14 12" />
      <path d="M462 116 h20 M482 106 q10 10 0 20 M496 106 q-10 10 0 20 M496 116 h36 v38 M490 154 h90 M490 154 v16 M580 154 v16" />
      <path d="M452 170 h162" strokeWidth="3" />
      <path d="M482 170 v36 h16 v-36 M484 190 h12 M490 190 v62 M572 170 v36 h16 v-36 M574 190 h12 M580 190 v62" />
      <path d="M510 170 l-6 8 l12 8 l-12 8 l12 8 l-12 8 l12 8 l-6 8 v24 M600 170 l-6 8 l12 8 l-12 8 l12 8 l-12 8 l12 8 l-6 8 v24" />
      <path d="M466 276 a24 24 0 1 1 48 0 a24 24 0 1 1 -48 0 M482 276 a8 8 0 1 1 16 0 a8 8 0 1 1 -16 0" />
      <path d="M556 276 a24 24 0 1 1 48 0 a24 24 0 1 1 -48 0 M572 276 a8 8 0 1 1 16 0 a8 8 0 1 1 -16 0" />
    </Drawing>
  );
}

const { pedal, travel } = WHEEL_PLACES;

export const PLACES: Record<string, Spot> = {
  pedal,
  travel,
  supply: { name: 'Acc front', x: 194, y: 92, tx: 206, ty: 97, anchor: 'start', channel: 'supply' },
  'supply-2': { name: 'Acc rear', x: 318, y: 92, tx: 330, ty: 97, anchor: 'start', channel: 'activation' },
  front: { name: 'Front brakes', x: 216, y: 284, tx: 216, ty: 310, anchor: 'middle', channel: 'output' },
  rear: { name: 'Rear brakes', x: 372, y: 240, tx: 372, ty: 262, anchor: 'middle', channel: 'output' },
  ram: { name: 'Ram line', x: 532, y: 138, tx: 546, ty: 142, anchor: 'start', channel: 'activation' },
  left: { name: 'Height, left', x: 446, y: 206, tx: 436, ty: 211, anchor: 'end', channel: 'supply' },
  right: { name: 'Right', x: 540, y: 222, tx: 540, ty: 246, anchor: 'middle', channel: 'supply' },
  speed: { name: 'Engine', x: 25, y: 66, tx: 8, ty: 98, anchor: 'start', channel: 'supply' },
  fluid: { name: 'Fluid', x: 40, y: 20, tx: 68, ty: 12, anchor: 'start', channel: 'supply' },
  seat: { name: 'Seat', x: 232, y: 40, tx: 238, ty: 74, anchor: 'start' },
};
