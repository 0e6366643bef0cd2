import { FAMILIES } from '../families/registry';
import { FLUIDS } from '../fluid/kinds';
import type { JobRecord } from './job-record';
import { partName } from './part-name';
import { retestOf } from './staleness';

/**
 * What a signature would leave open, each in a sentence: it can be signed all the same, knowingly.
 *
 * @param day ISO date on which it would be signed
 */
export function unconfirmed(record: JobRecord, day: string): string[] {
  const last = record.runs.at(-1);
  const stale = retestOf(record, day);
  const profileFluid = FAMILIES[record.profile.kind].fluid(record.profile.body);
  const { fluid: found } = record.job;
  return [
    ...(last ? [] : ['No test was made.']),
    ...(last && !last.finishedAt ? ['The last test is not finished.'] : []),
    ...(stale ? [`Since the last test: ${stale.why}. What this can have moved was not tested again.`] : []),
    ...record.identities.flatMap(({ withdrawn, what }) => {
      const shown = record.photos.some((photo) => photo.id === what.photo && !photo.withdrawn);
      return withdrawn || shown
        ? []
        : [`No photo shows what was found: ${partName(record.profile.kind, what.part).toLowerCase()}.`];
    }),
    ...(record.fitting
      ? record.fitting.fluid !== profileFluid && profileFluid
        ? [
            `The unit is said to hold ${FLUIDS[record.fitting.fluid]}; its profile names ${FLUIDS[profileFluid]}.`,
          ]
        : []
      : ['Which fluid the unit holds, and how it is bled, is not confirmed on the installation sheet.']),
    ...(found !== 'unknown' && profileFluid && found !== profileFluid
      ? [`It came in with ${FLUIDS[found]}; its profile names ${FLUIDS[profileFluid]}.`]
      : []),
  ];
}
