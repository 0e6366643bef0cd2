import type { FamilyKind } from '../families/registry';
import type { JobEntry } from '../records/entries';
import { jobRecord, type JobRecord, type Written } from '../records/job-record';
import type { Printing } from '../documents/printing';
import { benchOf, contextWith, truthWith } from './bench';

export const PRINTING: Printing = {
  set: 'mixed',
  shop: { shopName: '', shopAddress: '', shopTelephone: '', logo: '' },
  day: (iso) => iso.slice(0, 10),
  time: (iso) => iso.slice(11, 19),
};
export const uuid = (n: number) => `00000000-0000-4000-8000-${String(n).padStart(12, '0')}`;

/** A part that is not what it was said to be. @param photo entry of the photo that shows it */
export const identityOf = (photo: string | null): JobEntry => ({
  type: 'identity',
  identity: {
    part: 'diaphragm',
    claimed: 'New, the maker’s own',
    found: 'Used, marks ground off',
    decision: 'refused',
    decidedBy: 'Pell Tarn',
    photo,
  },
});

/** A record with one run of a unit on the bench. */
export function recordOf(
  truth = truthWith(),
  context = contextWith(),
  more: Written['entry'][] = [],
  kind: FamilyKind = 'remote-vacuum',
): JobRecord {
  const { events } = benchOf(kind).bench(truth, context);
  const job = {
    tag: 'GF-7',
    kind,
    profileId: uuid(1),
    from: 'Ferry <b>No. 2</b>',
    complaint: 'Slow & hard',
    fluid: 'unknown' as const,
    promisedOn: null,
  };
  const shelf = { id: uuid(1), kind, revision: 1, body: context.profile };
  const entries: Written['entry'][] = [
    { type: 'taken-in', job, profile: shelf },
    {
      type: 'run-started',
      run: uuid(2),
      kind,
      revision: 1,
      context: JSON.parse(JSON.stringify(context)) as never,
      continues: null,
    },
    ...events.map((event) => ({ type: 'run-event' as const, run: uuid(2), event })),
    ...more,
  ];
  return jobRecord(
    'job',
    entries.map((entry, i) => ({ id: uuid(100 + i), place: i + 1, at: '2026-11-23T15:00:00.000Z', entry })),
  )!;
}
