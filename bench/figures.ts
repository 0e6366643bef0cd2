/** Least, median, 95th percentile and greatest of a list of times. */
export function quantiles(values: readonly number[]) {
  const sorted = [...values].sort((a, b) => a - b);
  const at = (p: number) => sorted[Math.min(sorted.length - 1, Math.floor(p * sorted.length))]!;
  return { least: sorted[0]!, median: at(0.5), p95: at(0.95), greatest: sorted.at(-1)! };
}

export function table(unit: string, rows: Record<string, ReturnType<typeof quantiles>>): void {
  for (const [name, { least, median, p95, greatest }] of Object.entries(rows)) {
    const figures = [least, median, p95, greatest].map((value) => value.toPrecision(3));
    console.log(
      `${name.padEnd(44)} least ${figures[0]}  median ${figures[1]}  p95 ${figures[2]}  greatest ${figures[3]} ${unit}`,
    );
  }
}

export const medianOf = (values: readonly number[]): number => quantiles(values).median;
