import { LEVEL_IDS, type LevelId } from './levels';

/** A case that is over, as a technician's history has it. */
export interface PastCase {
  readonly technician: string;
  readonly level: LevelId;
  readonly points: number;
  /** It was opened before, or altered: it stands in the history and counts for nothing. */
  readonly counts: boolean;
}

/** So many of the last cases of a level say whether somebody is ready, with so many points on average. Judgement. */
export const READY_CASES = 5;
export const READY_POINTS = 80;

/** How somebody stands at one level. */
export interface AtLevel {
  readonly level: LevelId;
  readonly cases: number;
  /** Of the last five; null where there is none. */
  readonly average: number | null;
  readonly ready: boolean;
}

/** How somebody stands, level by level. @param cases the oldest first */
export function standsAt(cases: readonly PastCase[], technician: string): AtLevel[] {
  return LEVEL_IDS.map((level) => {
    const own = cases.filter((one) => one.counts && one.technician === technician && one.level === level);
    const last = own.slice(-READY_CASES);
    const average = last.length > 0 ? last.reduce((sum, { points }) => sum + points, 0) / last.length : null;
    return {
      level,
      cases: own.length,
      average,
      ready: last.length === READY_CASES && average! >= READY_POINTS,
    };
  });
}
