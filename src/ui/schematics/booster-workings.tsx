import { Coil, Moves, Through, Tint, useShares } from './moving';

interface BoosterWorkingsProps {
  /** Where its shell begins and ends, and its diaphragm rests, along; its axis, and half of it, across: px. */
  readonly left: number;
  readonly diaphragm: number;
  readonly right: number;
  readonly middle: number;
  readonly half: number;
  /** How far the diaphragm goes, px. */
  readonly way: number;
}

/** What moves in a pedal booster: the two sides of its diaphragm, that with its spring, the control valve. */
export function BoosterWorkings({ left, diaphragm, right, middle, half, way }: BoosterWorkingsProps) {
  const [travel] = useShares('rod');
  const at = diaphragm + way * travel;
  const [top, bottom] = [middle - half + 4, middle + half - 4];
  return (
    <>
      <Tint part="workingSide" ink="activation" d={`M${left + 4} ${top} H${at} V${bottom} H${left + 4} z`} />
      <Tint
        part="vacuumSide"
        ink="supply"
        d={`M${at} ${top} H${right - 24} L${right} ${middle - half / 2} V${middle + half / 2} L${right - 24} ${bottom} H${at} z`}
      />
      <path d={`M${at} ${top} q-9 11 0 22 v${2 * half - 52} q-9 11 0 22`} strokeWidth="3" data-part="rod" />
      <Coil from={at + 6} to={right - 8} axis={middle} half={22} turns={3} />
      {/* control valve: its plunger goes with the rod, and its ports open beside it */}
      <Moves part="rod" x={way}>
        <path d={`M${left - 10} ${middle - 14} h46 v28 h-46`} />
        <Moves part="plunger" x={6}>
          <path d={`M${left + 36} ${middle - 8} h14 v16 h-14`} />
        </Moves>
        <Through
          part="airPort"
          ink="activation"
          d={`M${left - 4} ${middle - 7} h32 m-7 -5 l7 5 l-7 5 M${left + 22} ${middle + 22} v14 m-5 -6 l5 6 l5 -6`}
        />
        <Through
          part="vacuumPort"
          ink="supply"
          d={`M${left + 22} ${middle + 36} v-14 m-5 6 l5 -6 l5 6 M${left + 52} ${middle - 20} h14 m-6 -5 l6 5 l-6 5`}
        />
      </Moves>
    </>
  );
}

/** How far a wide clearance draws the tip of the pushrod back, px. */
const GAP = 12;

/** The pushrod: as much shorter as there is clearance before the master. */
export function Pushrod({ from, to, y }: { readonly from: number; readonly to: number; readonly y: number }) {
  const [gap] = useShares('gap');
  return <path d={`M${from} ${y} H${to - GAP * gap}`} strokeWidth="3" data-part="gap" />;
}
