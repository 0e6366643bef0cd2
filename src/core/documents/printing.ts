import type { UnitSet } from '../quantities/units';
import type { Block } from './document';
import type { JobRecord } from '../records/job-record';
import type { Settings } from '../shop/settings';
import type { StoredRun } from '../records/views';

/** How numbers and times are written: the reader's units and the bench's own clock. */
export interface Printing {
  readonly set: UnitSet;
  /** Who prints it; without a name there is no letterhead. */
  readonly shop: Pick<Settings, 'shopName' | 'shopAddress' | 'shopTelephone' | 'logo'>;
  /** "2026-11-23" of an ISO time. */
  readonly day: (iso: string) => string;
  /** "14:05:09" of an ISO time. */
  readonly time: (iso: string) => string;
}

/** Longest free text that a report prints in one place, characters; all of it stays in the record. */
export const MOST_WORDS = 300;

export const shortened = (words: string, most = MOST_WORDS) =>
  words.length > most ? `${words.slice(0, most)}…` : words;

/** The number of a report: the job's tag, and which of its tests it is of. */
export const reportNumber = (
  { job, runs }: Pick<JobRecord, 'job' | 'runs'>,
  run: Pick<StoredRun, 'id'>,
): string => `${job.tag}/${runs.findIndex(({ id }) => id === run.id) + 1}`;

/** Logo, name, address and telephone of the shop at the head of what it hands out; nothing where it has no name. */
export const letterhead = ({ shopName, shopAddress, shopTelephone, logo }: Printing['shop']): Block[] =>
  shopName === ''
    ? []
    : [
        {
          kind: 'letterhead',
          name: shopName,
          lines: [shopAddress, shopTelephone].filter(Boolean),
          logo: logo || null,
        },
      ];
