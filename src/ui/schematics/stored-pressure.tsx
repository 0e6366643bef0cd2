import { Drawing, type SchematicProps, type Spot } from './drawing';
import { CIRCUIT_PLACES, StoredCircuits } from './stored-circuits';
import { Tint } from './moving';
import { PedalWithRod, WHEEL_PLACES } from './wheels';

/** Line drawing of two circuits of stored pressure on a bench, from the handbook: what feeds them, and two calipers that they press. */
export function StoredPressureDrawing(props: SchematicProps) {
  return (
    <Drawing {...props} places={PLACES}>
      {/* the bed of the bench, with the clamps */}
      <path d="M126 306 h390 M126 314 h390" />
      <path d="M146 226 v80 M258 226 v80 M304 206 v100" />
      <PedalWithRod part="spool" />
      <StoredCircuits />
      {/* to a caliper of each circuit */}
      <Tint part="frontBrakes" ink="output" d="M360 262 h60 v44 h-60 z" />
      <Tint part="rearBrakes" ink="output" d="M440 164 h60 v44 h-60 z" />
      <path d="M180 226 v58 h180 M360 262 h60 v44 h-60 z M374 262 v44 M406 262 v44" />
      <path d="M236 226 v14 h190 v-54 h14 M440 164 h60 v44 h-60 z M454 164 v44 M486 164 v44" />
    </Drawing>
  );
}

const { pedal, travel } = WHEEL_PLACES;

export const PLACES: Record<string, Spot> = {
  pedal,
  travel,
  ...CIRCUIT_PLACES,
  front: { name: 'Front', x: 282, y: 284, tx: 282, ty: 276, anchor: 'middle', channel: 'output' },
  rear: { name: 'Rear', x: 372, y: 240, tx: 372, ty: 232, anchor: 'middle', channel: 'output' },
  speed: { name: 'Drive', x: 25, y: 66, tx: 8, ty: 98, anchor: 'start', channel: 'supply' },
};
