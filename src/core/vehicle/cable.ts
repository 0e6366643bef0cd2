/** A cable in its conduit. SI. */
export interface Cable {
  /** Pull at the end that is pulled, N. */
  readonly pull_N: number;
  /** Coefficient of friction of cable on conduit, zero or more. */
  readonly friction: number;
  /** All bends added, rad, zero or more. */
  readonly bends_rad: number;
}

/**
 * Pull that reaches the far end, N: e^(−μθ) of it. Handbook-models 10; the rope friction of Euler and Eytelwein.
 *
 * @example 600 N, 0.12, half a turn: 600·e^(−0.377) = 411.6 N
 */
export const cablePull_N = ({ pull_N, friction, bends_rad }: Cable): number =>
  pull_N * Math.exp(-friction * bends_rad);
