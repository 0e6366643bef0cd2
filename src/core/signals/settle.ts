import { median } from './noise';

/** How a reading is watched for having settled. */
export interface SettleRule {
  /** Time over which it has to stand still, s. */
  readonly over_s: number;
  /** Smallest readable step of the gauge, SI. */
  readonly step: number;
}

/** The last readings of one gauge, for telling whether its pointer stands still. */
export class Settling {
  private readonly times: number[] = [];
  private readonly values: number[] = [];

  constructor(private readonly rule: SettleRule) {}

  /** Takes in a reading; older ones than are needed are forgotten. A jump back in time begins anew. */
  add(t_s: number, value: number): void {
    if (this.times.length > 0 && t_s < this.times.at(-1)!) this.clear();
    if (!Number.isFinite(value)) return;
    this.times.push(t_s);
    this.values.push(value);
    while (this.times.length > 2 && this.times[1]! <= t_s - this.rule.over_s) {
      this.times.shift();
      this.values.shift();
    }
  }

  clear(): void {
    this.times.length = 0;
    this.values.length = 0;
  }

  /** Mean of what was taken in over the last part of the time. */
  mean(): number {
    return this.values.reduce((sum, v) => sum + v, 0) / this.values.length;
  }

  /**
   * Whether it has stood still: the time is full, the means of both halves of it differ by no more than a step or than
   * noise would make them differ, and the last reading is where the others are. Noise is told from reading to reading,
   * so that a jump at the very end is a jump and not noise.
   */
  settled(): boolean {
    const n = this.values.length;
    if (n < 6 || this.times.at(-1)! - this.times[0]! < 0.9 * this.rule.over_s) return false;
    const half = n >> 1;
    const mean = (from: number, to: number) =>
      this.values.slice(from, to).reduce((sum, v) => sum + v, 0) / (to - from);
    const changes = this.values.slice(1).map((v, i) => Math.abs(v - this.values[i]!));
    const noise = (1.4826 * median(changes)) / Math.SQRT2;
    const drift = Math.abs(mean(half, n) - mean(0, half));
    const last = Math.abs(this.values.at(-1)! - mean(0, n));
    const { step } = this.rule;
    return drift <= Math.max(step, 3 * noise * Math.sqrt(4 / n)) && last <= Math.max(2 * step, 5 * noise);
  }
}
