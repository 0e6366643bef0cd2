/** What goes between the process that diagnoses and the one that has the installation on its stand. */
export type Ask =
  | { readonly kind: 'open'; readonly number: number; readonly seed: number; readonly drawn: Drawn }
  | { readonly kind: 'step'; readonly number: number; readonly step: string }
  | { readonly kind: 'reveal'; readonly number: number };

/**
 * How an installation is drawn: by the chances that the library gives beforehand, or evenly among the faults; one fault, two,
 * none, or one that the library is to know nothing of; or a sound unit on a weak source.
 */
export type Drawn = 'by-library' | 'single' | 'pair' | 'healthy' | 'left-out' | 'weak-supply';

/** What is true of an installation. It is told when all is over. */
export interface Truth {
  readonly faults: readonly string[];
  readonly severities: readonly number[];
  /** Healthy parameters beneath them. */
  readonly made: readonly number[];
  /** Fault that the library is to know nothing of; told beforehand, as a gap in the library is. */
  readonly leftOut: string | null;
}

export type Told =
  | { readonly kind: 'opened'; readonly number: number; readonly leftOut: string | null }
  | {
      readonly kind: 'seen';
      readonly number: number;
      /** What the gauges show, SI, by item. */
      readonly readings: Readonly<Record<string, number>>;
      readonly looks: Readonly<Record<string, string>>;
    }
  | { readonly kind: 'revealed'; readonly number: number; readonly truth: Truth };
