import type { RepairStanding } from './repaired';

/** A chance in a word, from 0 to 1. */
export const chanceWord = (chance: number): string =>
  chance >= 0.95
    ? 'as good as sure'
    : chance >= 0.6
      ? 'probable'
      : chance >= 0.2
        ? 'possible'
        : chance >= 0.05
          ? 'less likely'
          : 'unlikely';

/** What a test is expected to take from the doubt, as a part of it: "it …". */
export const gainWords = (part: number): string =>
  part < 0.005
    ? 'tells nothing of the cause'
    : part >= 0.6
      ? 'is likely to settle it'
      : part >= 0.3
        ? 'takes away much of the doubt'
        : part >= 0.1
          ? 'takes away some of the doubt'
          : 'tells a little';

/** How strongly evidence speaks: by what it multiplies the odds, as a natural logarithm. */
export const weighsWord = (weighs: number): string =>
  Math.abs(weighs) >= Math.log(10) ? 'strongly' : Math.abs(weighs) >= Math.log(3) ? 'clearly' : 'a little';

/** A chance as a number, never as certainty. */
export const chancePercent = (chance: number): string =>
  chance > 0.995 ? 'over 99 %' : chance < 0.01 ? 'under 1 %' : `${Math.round(100 * chance)} %`;

/** What a repair came to, by what was read behind it. */
export const repairedWords = (is: RepairStanding): string =>
  ({
    mended: 'What was read behind the repair is what a healthy one shows.',
    'still-there': 'By what was read behind the repair it is still there.',
    'not-healthy': 'What was read behind the repair is still not what a healthy one shows.',
    gone: 'It is gone. Too little was read behind the repair to say whether anything else is wrong.',
    open: 'Not proved yet by what was read behind the repair.',
  })[is];
