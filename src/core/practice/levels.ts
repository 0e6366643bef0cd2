/** How hard a case is. Its figures are judgements. */
export interface Level {
  readonly name: string;
  /** What is hidden, in a sentence. */
  readonly says: string;
  /** Chances of a sound unit and of two faults; otherwise there is one. */
  readonly sound: number;
  readonly two: number;
  /** How far a fault has gone: from here to 1. */
  readonly severityFrom: number;
  /** Part of the tolerances of manufacture that a unit is out by, at the most. */
  readonly tolerance: number;
  /** Part of its permissible error that a gauge is out by, at the most; and the chance that one is far out of its class. */
  readonly gauges: number;
  readonly gaugeOut: number;
  /** Looks are as unsure as they are in a workshop. */
  readonly unsureLooks: boolean;
  /** Chance that a bench's source is weak where the unit is sound. */
  readonly weakSource: number;
}

export const LEVELS = {
  1: {
    name: 'One fault, far on',
    says: 'One thing is wrong, and it shows. Gauges and looks do not deceive.',
    sound: 0,
    two: 0,
    severityFrom: 0.75,
    tolerance: 0,
    gauges: 0,
    gaugeOut: 0,
    unsureLooks: false,
    weakSource: 0,
  },
  2: {
    name: 'One fault, at any stage',
    says: 'One thing is wrong, perhaps only just. Units differ as they do in manufacture, and gauges within their class.',
    sound: 0,
    two: 0,
    severityFrom: 0.35,
    tolerance: 0.7,
    gauges: 0.7,
    gaugeOut: 0,
    unsureLooks: true,
    weakSource: 0,
  },
  3: {
    name: 'Sound ones among them',
    says: 'Perhaps nothing is wrong with the unit: the complaint may have another cause, and the source may be weak.',
    sound: 0.35,
    two: 0,
    severityFrom: 0.35,
    tolerance: 1,
    gauges: 1,
    gaugeOut: 0,
    unsureLooks: true,
    weakSource: 0.6,
  },
  4: {
    name: 'Two faults, and gauges that deceive',
    says: 'None, one or two things are wrong, and one gauge may be far out of its class.',
    sound: 0.15,
    two: 0.45,
    severityFrom: 0.35,
    tolerance: 1,
    gauges: 1,
    gaugeOut: 0.3,
    unsureLooks: true,
    weakSource: 0.6,
  },
} as const satisfies Record<number, Level>;

export const LEVEL_IDS = [1, 2, 3, 4] as const;
export type LevelId = (typeof LEVEL_IDS)[number];
