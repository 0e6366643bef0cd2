import { Drawing, type SchematicProps, type Spot } from './drawing';
import { Tint } from './moving';
import { STEERING_PLACES, SteeredBooster } from './steering';
import { Master, PedalWithRod, WHEEL_PLACES } from './wheels';

/** Line drawing of a hydraulic booster on a bench, from the handbook: pump and reservoir, load valve, booster, master cylinder and what it presses. */
export function HydraulicBoosterDrawing(props: SchematicProps) {
  return (
    <Drawing {...props} places={PLACES}>
      {/* the bed of the bench, with the clamps */}
      <path d="M134 296 h376 M134 304 h376" />
      <path d="M146 226 v70 M258 226 v70 M286 224 v72 M384 224 v72" />
      <PedalWithRod part="piston" />
      <SteeredBooster />
      {/* load valve in the pressure line, and the return to the reservoir */}
      <path d="M176 52 v16 l24 -16 v16 z M188 60 v-14 M180 46 h16" />
      <path d="M182 160 v-72 h-96 v-64 h254" />
      <Master />
      {/* line of the master cylinder to the calipers of the bench */}
      <path d="M388 182 v-34 h130 v32 M364 224 v30 h154 v-32" />
      <Tint part="caliper" ink="output" d="M488 180 h60 v42 h-60 z" />
      <path d="M488 180 h60 v42 h-60 z M502 180 v42 M534 180 v42" />
    </Drawing>
  );
}

const { pedal, travel } = WHEEL_PLACES;
export const PLACES: Record<string, Spot> = {
  pedal,
  travel,
  output: { name: 'Master', x: 456, y: 148, tx: 456, ty: 174, anchor: 'middle', channel: 'output' },
  ...STEERING_PLACES,
};
