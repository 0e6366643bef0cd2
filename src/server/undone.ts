import type { Outcome } from './outcome';

/** Ends a transaction without keeping anything of it. */
export class Undone extends Error {
  constructor(readonly outcome: Outcome<unknown>) {
    super('undone');
  }
}
