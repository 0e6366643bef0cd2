import type { CautionId } from './cautions';

/** What a customer can try without tools, and what it tells. Handbook 14. */
export interface HomeCheck {
  readonly id: string;
  readonly name: string;
  /** What to do. */
  readonly try: string;
  /** What to see or feel then; {value} stands for what a sound one shows. */
  readonly expect: string;
  readonly otherwise: string;
  readonly cautions: readonly CautionId[];
  /** The reading of the twin that it is of, at a full application but for these inputs; SI. */
  readonly reading: string;
  readonly at: Readonly<Record<string, number>>;
  /** Where something is wrong: below or above such a part of what a sound one shows, or above so much, SI. */
  readonly wrong: { readonly below: number } | { readonly above: number } | { readonly aboveSI: number };
  /** How often somebody without tools finds what is not there, and misses what is. Judgements, typical. */
  readonly falseAlarm: number;
  readonly miss: number;
}

/** What a customer can answer. */
export const HOME_ANSWERS = {
  'as-described': 'As described',
  otherwise: 'Otherwise',
  'not-tried': 'Not tried',
} as const;
export type HomeAnswer = keyof typeof HOME_ANSWERS;
