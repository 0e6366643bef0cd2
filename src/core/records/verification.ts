/** Something in the database that is not as it was written. */
export interface Alteration {
  /** What it was found in: a job's tag, an instrument, the settings. */
  readonly where: string;
  /** Number of the entry in that record; null where it is not one entry. */
  readonly entry: number | null;
  /** Line of the journal that holds it. */
  readonly line?: number;
  readonly what: string;
}

/** What reading the whole database found. */
export interface Verification {
  readonly entries: number;
  readonly records: number;
  readonly photos: number;
  readonly alterations: readonly Alteration[];
}

/** A signature whose seal was typed in from paper. */
export interface SealFound {
  readonly job: string;
  readonly tag: string;
  readonly technician: string;
  readonly at: string;
  /** Why nothing of that record is to be believed; null where it is as it was written. */
  readonly why: string | null;
}
