/** An entry of a job as version 0.1.0 wrote it. */
export interface EntryOf010 {
  readonly id: string;
  readonly place: number;
  readonly at: string;
  readonly entry: unknown;
}

/** Finished runs of a job, as version 0.1.0 judged them. */
export function judgedBy010(
  jobId: string,
  entries: readonly EntryOf010[],
): { run: string; results: unknown[]; assessment: unknown }[];
