/** A valve that holds the rear back: from where, and how steeply it goes on. SI. */
export interface HeldBack {
  readonly split_Pa: number;
  /** Rear pressure for each front one beyond the split. */
  readonly slope: number;
}

/** Rear pressure at a front one, Pa: the same up to the split, beyond it at the slope. Handbook 10. */
export const heldBack_Pa = ({ split_Pa, slope }: HeldBack, front_Pa: number): number =>
  // Where no valve holds it back the split lies beyond every pressure.
  front_Pa <= split_Pa ? front_Pa : Math.min(front_Pa, split_Pa + slope * (front_Pa - split_Pa));
