import type { Accumulator } from '../fluid/accumulator';
import type { RodPush, SlaveCylinder } from '../air/diaphragm';

/** What is known of a servo that acts on a rod, to tell its area from its force. SI. */
export interface Rod extends RodPush {
  /** 1 + spring rate ÷ stiffness of the load: what of the push the spring keeps. */
  readonly giving: number;
  /** Least force of an application that is of use, N. */
  readonly useful_N: number;
}

/** An accumulator of a unit, by the port that its gauge stands on. */
export interface LoggedAccumulator extends Pick<Accumulator, 'shell_m3' | 'preCharge_Pa'> {
  readonly port: string;
  /** As it is named among others; of one by itself, the accumulator. */
  readonly name: string;
}

/** A valve whose pedal is pressed by a travel and that meters the pressure of one circuit or more. */
export interface LoggedValve {
  /** Port at which the travel is read. */
  readonly travel: string;
  /** Ports of the circuits, each as it is named among others. */
  readonly circuits: readonly { readonly port: string; readonly name: string }[];
}

/** What the traces of a unit are worked out with. SI. */
export interface LoggedUnit {
  readonly slave: SlaveCylinder | null;
  readonly rod: Rod | null;
  readonly vacuumVolume_m3: number;
  /** What it has stored under pressure; nothing where it is left out. */
  readonly accumulators?: readonly LoggedAccumulator[];
  readonly metered?: LoggedValve;
}
