import type { Limits } from '../metrology/verdict';
import type { ReadingItem } from './steps';

/** A limit and where it comes from: the profile's own words. */
export interface Limit {
  readonly value: number;
  readonly source: string;
}

/** What a profile says of a limit at an item; null where it says nothing there. */
export type Of<Profile> = (profile: Profile, item: ReadingItem) => Limit | null;

/** What a healthy unit shows, and the inputs that this rests on, by name. SI. */
export interface Shown {
  readonly expected: number;
  readonly band: Required<Limits>;
  readonly inputs: Readonly<Record<string, number>>;
}

/**
 * What a reading must keep to.
 *
 * - `band`: what healthy units show; `wider` lets the upper end go up by this part of it.
 * - `at-most`, `at-least`, `range`: a limit of the profile, whatever a healthy unit shows.
 * - `about`: what a healthy unit shows, more or less by `least`, or by `part` of an input where that is more; `floor` is the
 *   least that can be read.
 * - `below`: no further below what a healthy unit shows than this.
 * - `start`: the reading that a hold began with, less what may be lost in a second.
 * - `noted`: looked at for what it shows, judged against nothing.
 */
export type Keep<Profile> =
  | {
      readonly to: 'band';
      readonly says: (profile: Profile) => readonly Limit[];
      readonly wider?: Of<Profile>;
    }
  | { readonly to: 'at-most' | 'at-least'; readonly limit: Of<Profile> }
  | { readonly to: 'range'; readonly low: Of<Profile>; readonly high: Of<Profile> }
  | {
      readonly to: 'about';
      readonly least: Of<Profile>;
      readonly part?: { readonly of: string; readonly limit: Of<Profile> };
      readonly floor?: number;
    }
  | { readonly to: 'below'; readonly by: Of<Profile> }
  | { readonly to: 'start'; readonly lossPerS: Of<Profile> }
  | { readonly to: 'noted' };

/** What each reading of a family must keep to, by its name; `otherwise` for those that are not named. */
export interface Keeps<Profile> {
  readonly readings: Readonly<Record<string, Keep<Profile>>>;
  readonly otherwise: Keep<Profile>;
  /** What the source must make, where it is read while it is on. */
  readonly supply: Of<Profile>;
}
