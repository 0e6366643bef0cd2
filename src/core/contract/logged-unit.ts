import type { RodPush, SlaveCylinder } from '../air/diaphragm';

/** What is known of a servo that acts on a rod, to tell its area from its force. SI. */
export interface Rod extends RodPush {
  /** 1 + spring rate ÷ stiffness of the load: what of the push the spring keeps. */
  readonly giving: number;
  /** Least force of an application that is of use, N. */
  readonly useful_N: number;
}

/** What the traces of a unit are worked out with. SI. */
export interface LoggedUnit {
  readonly slave: SlaveCylinder | null;
  readonly rod: Rod | null;
  readonly vacuumVolume_m3: number;
}
