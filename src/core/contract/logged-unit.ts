/** What has to be known of the slave cylinder. SI. */
export interface SlaveCylinder {
  readonly slaveArea_m2: number;
  readonly rodArea_m2: number;
  readonly spring_N: number;
}

/** What is known of a servo that acts on a rod, to tell its area from its force. SI. */
export interface Rod {
  readonly preload_N: number;
  /** 1 + spring rate ÷ stiffness of the load: what of the push the spring keeps. */
  readonly giving: number;
  readonly pushArea_m2: number;
  /** Least force of an application that is of use, N. */
  readonly useful_N: number;
}

/** What the traces of a unit are worked out with. SI. */
export interface LoggedUnit {
  readonly slave: SlaveCylinder | null;
  readonly rod: Rod | null;
  readonly vacuumVolume_m3: number;
}
