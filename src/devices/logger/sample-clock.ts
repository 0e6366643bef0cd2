import { LONGEST_GAP_S } from '@/core/shop/live';

/** Samples in a row of one time before the clock is said to stand still. */
const MOST_STILL = 20;
/** Times in so many ms that a clock may begin anew before it is said to run back: a logger that was switched off and on does it once. */
const NEW_STARTS = { most: 3, within_ms: 10_000 } as const;

const STILL = 'The clock of the logger stands still: its readings are left out.';
const JUMPS = 'The clock of the logger runs back or leaps again and again: its readings are left out.';

/** What a sample's time is worth. */
export interface SampleTime {
  /** The sample stands behind those before it, or begins anew, and can be taken. */
  readonly isLater: boolean;
  /** What is wrong with the clock, in a sentence; null where nothing is. */
  readonly trouble: string | null;
}

/** The clock of a logger, by the times on its samples. */
export class SampleClock {
  private last_s: number | null = null;
  private still = 0;
  private starts_ms: number[] = [];

  /** @param now_ms of a clock here, that goes on */
  read(t_s: number, now_ms: number): SampleTime {
    const { last_s } = this;
    this.last_s = t_s;
    if (t_s === last_s) {
      this.still += 1;
      return { isLater: false, trouble: this.still >= MOST_STILL ? STILL : null };
    }
    this.still = 0;
    this.starts_ms = this.starts_ms.filter((start_ms) => now_ms - start_ms < NEW_STARTS.within_ms);
    if (last_s !== null && (t_s < last_s || t_s - last_s > LONGEST_GAP_S)) this.starts_ms.push(now_ms);
    return this.starts_ms.length > NEW_STARTS.most
      ? { isLater: false, trouble: JUMPS }
      : { isLater: true, trouble: null };
  }
}
