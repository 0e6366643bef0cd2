import { useShares } from './moving';

interface SacProps {
  readonly part: string;
  /** Its left end, how wide it is, and half of how high, px. */
  readonly x: number;
  readonly y: number;
  readonly wide: number;
  readonly high: number;
}

/** Paler than any line. */
const TINT = 0.3;

/** An accumulator lying over its port: the gas above its membrane, the fluid below. */
export function Sac({ part, x, y, wide, high }: SacProps) {
  const [filled] = useShares(part);
  const sag = 0.75 * high * (1 - 2.4 * filled);
  const arc = `a${wide / 2} ${high} 0 0 1`;
  return (
    <>
      {filled > 0 && (
        <path
          data-part={part}
          d={`M${x} ${y} q${wide / 2} ${sag} ${wide} 0 ${arc} ${-wide} 0 z`}
          stroke="none"
          fill="var(--hp-supply)"
          opacity={TINT}
        />
      )}
      <path d={`M${x} ${y} ${arc} ${wide} 0 ${arc} ${-wide} 0 M${x} ${y} q${wide / 2} ${sag} ${wide} 0`} />
    </>
  );
}
