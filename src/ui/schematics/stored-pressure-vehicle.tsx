import { Drawing, type SchematicProps, type Spot } from './drawing';
import { CIRCUIT_PLACES, StoredCircuits } from './stored-circuits';
import { Coil, Moves, Through, Tint, Turns, useShares } from './moving';
import { PedalAndBulkhead, WHEEL_PLACES } from './wheels';

/** How far the body rises, px, and what the link turns the height valve by, °. */
const BODY = -16;
const LINK = 32;

/** A spring at each rear corner, between the wheel and the body. */
function Springs() {
  const [body] = useShares('body');
  return (
    <>
      <Coil upright from={170 + BODY * body} to={250} axis={510} half={6} turns={4} />
      <Coil upright from={170 + BODY * body} to={250} axis={600} half={6} turns={4} />
    </>
  );
}

/** Line drawing of a car on stored pressure, from the handbook: pump, two blocks with their spheres, distribution valves, levelling. */
export function StoredPressureVehicleDrawing(props: SchematicProps) {
  return (
    <Drawing {...props} places={PLACES}>
      <PedalAndBulkhead part="spool" />
      <StoredCircuits />
      {/* to the front and the rear brakes */}
      <path d="M180 226 v58 h92 M272 284 a24 24 0 1 1 48 0 a24 24 0 1 1 -48 0 M288 284 a8 8 0 1 1 16 0 a8 8 0 1 1 -16 0" />
      <path d="M236 226 v14 h190 v34 h40" />
      {/* levelling: height valve, restrictor, a ram and a spring at each rear corner */}
      <path d="M318 116 h104 M422 102 h40 v28 h-40 z M442 130 v20 l-14 12" />
      <Turns part="heightValve" by={LINK} about={[442, 116]}>
        <path d="M432 124 l20 -16" />
      </Turns>
      <Through part="heightValve" ink="activation" d="M510 116 h16 m-7 -5 l7 5 l-7 5" />
      <path d="M462 116 h20 M482 106 q10 10 0 20 M496 106 q-10 10 0 20 M496 116 h36 v38 M490 154 h90 M490 154 v16 M580 154 v16" />
      <Moves part="body" y={BODY}>
        <path d="M452 170 h162" strokeWidth="3" />
        <path d="M482 170 v36 h16 v-36 M572 170 v36 h16 v-36" />
      </Moves>
      <path d="M484 190 h12 M490 190 v62 M574 190 h12 M580 190 v62" />
      <Springs />
      <Tint part="frontBrakes" ink="output" d="M272 284 a24 24 0 1 1 48 0 a24 24 0 1 1 -48 0" />
      <Tint
        part="rearBrakes"
        ink="output"
        d="M466 276 a24 24 0 1 1 48 0 a24 24 0 1 1 -48 0 M556 276 a24 24 0 1 1 48 0 a24 24 0 1 1 -48 0"
      />
      <path d="M466 276 a24 24 0 1 1 48 0 a24 24 0 1 1 -48 0 M482 276 a8 8 0 1 1 16 0 a8 8 0 1 1 -16 0" />
      <path d="M556 276 a24 24 0 1 1 48 0 a24 24 0 1 1 -48 0 M572 276 a8 8 0 1 1 16 0 a8 8 0 1 1 -16 0" />
    </Drawing>
  );
}

const { pedal, travel } = WHEEL_PLACES;

export const PLACES: Record<string, Spot> = {
  pedal,
  travel,
  ...CIRCUIT_PLACES,
  front: { name: 'Front brakes', x: 216, y: 284, tx: 216, ty: 310, anchor: 'middle', channel: 'output' },
  rear: { name: 'Rear brakes', x: 372, y: 240, tx: 372, ty: 262, anchor: 'middle', channel: 'output' },
  ram: { name: 'Ram line', x: 532, y: 138, tx: 546, ty: 142, anchor: 'start', channel: 'activation' },
  left: { name: 'Height, left', x: 446, y: 206, tx: 436, ty: 211, anchor: 'end', channel: 'supply' },
  right: { name: 'Right', x: 540, y: 222, tx: 540, ty: 246, anchor: 'middle', channel: 'supply' },
  speed: { name: 'Engine', x: 25, y: 66, tx: 8, ty: 98, anchor: 'start', channel: 'supply' },
};
