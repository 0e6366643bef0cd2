import { FAMILIES } from '../families/registry';
import { FLUIDS } from '../fluid/kinds';
import { NOT_CLAIMED, NOT_CLAIMED_OF_VEHICLE } from '../contract/cautions';
import { findItem } from '../contract/steps';
import { printQuantity } from '../quantities/print';
import { printSentence } from '../quantities/sentence';
import { verdictWord, type Result } from '../contract/result';
import { heightOf } from './document-height';
import type { Block, Photo } from './document';
import { DECISIONS, FINDING_KINDS, PROVENANCES, WORK_DONE } from '../records/entries';
import { codeLine } from '../records/trouble-codes';
import { partName } from '../records/part-name';
import { byWhom, type JobRecord } from '../records/job-record';
import { judgedRun, judgedWords, type JudgedRun } from '../records/judged-run';
import { letterhead, reportNumber, shortened, type Printing } from './printing';
import { onVacuum, type ReportContent } from './report';
import type { StoredRun } from '../records/views';

/** What a report is of. */
export interface ReportSubject {
  readonly record: JobRecord;
  readonly run: StoredRun;
  readonly judged: JudgedRun;
  readonly content: ReportContent;
  readonly printing: Printing;
}

interface Listed {
  readonly heading: string;
  readonly items: readonly { readonly lead: string; readonly text: string }[];
}

/** The page for the customer, and what did not go on it: that belongs into the appendix. */
export interface CustomerPage {
  readonly blocks: readonly Block[];
  readonly left: readonly Block[];
}

/** How much goes on the page, from much to little: the first that fits is taken. */
const LEVELS = [
  { items: 8, words: 300, photos: 4 },
  { items: 4, words: 160, photos: 4 },
  { items: 3, words: 100, photos: 4 },
  { items: 2, words: 90, photos: 3 },
  { items: 1, words: 80, photos: 2 },
  { items: 0, words: 80, photos: 0 },
] as const;
type Level = (typeof LEVELS)[number];

/** Room on the shorter of the two papers, Letter, less a line that an estimate may be wrong by, pt. */
const PAGE_PT = 680;
/** Words of the customer's that the page takes, characters. */
const COMPLAINT = 240;
/** Names of what was not tested that the page takes. */
const NAMES = 5;

/** The report in plain words on one page: what was wrong, what was found and done, what it came to, what to know. */
export function customerPage(subject: ReportSubject): CustomerPage {
  const lists = [
    failedBefore(subject),
    found(subject),
    claimed(subject),
    stored(subject),
    done(subject),
    inSpiteOf(subject),
    corrections(subject),
  ].filter(({ items }) => items.length > 0);
  const photos = subject.record.photos
    .filter(({ withdrawn }) => !withdrawn)
    .map(({ what: { sha256, caption, width, height } }): Photo => ({ sha256, caption, width, height }));
  const pages = LEVELS.map((level) => pageAt(subject, lists, photos, level));
  return pages.find(({ blocks }) => heightOf(blocks) <= PAGE_PT) ?? pages.at(-1)!;
}

function pageAt(
  subject: ReportSubject,
  lists: readonly Listed[],
  photos: readonly Photo[],
  level: Level,
): CustomerPage {
  const cut = ({ items }: Listed) =>
    items.length > level.items || items.some(({ text }) => text.length > level.words);
  const later = lists.filter(cut);
  const shown = photos.slice(0, level.photos);
  const rest = photos.slice(level.photos);
  const elsewhere = [
    ...(level.items === 0 ? lists.map(({ heading }) => heading) : []),
    ...(rest.length > 0 ? [shown.length > 0 ? 'Further photos' : 'Photos'] : []),
  ];
  return {
    blocks: [
      ...head(subject),
      ...verdict(subject),
      ...(level.items === 0 ? [] : lists.flatMap((list) => listBlocks(list, level))),
      ...(shown.length > 0 ? [{ kind: 'photos', photos: shown, few: true } as const] : []),
      ...(elsewhere.length > 0
        ? [{ kind: 'paragraph', text: `In the appendix: ${elsewhere.join('; ')}.` } as const]
        : []),
      ...untested(subject),
      ...toKnow(subject),
    ],
    left: [
      ...later.flatMap((list) => listBlocks(list, { items: Infinity, words: Infinity })),
      ...(rest.length > 0
        ? [{ kind: 'heading', text: 'Further photos' } as const, { kind: 'photos', photos: rest } as const]
        : []),
    ],
  };
}

function listBlocks({ heading, items }: Listed, most: { items: number; words: number }): Block[] {
  const shown = items
    .slice(0, most.items)
    .map(({ lead, text }) => ({ lead, text: shortened(text, most.words) }));
  const more = items.length - shown.length;
  return [
    { kind: 'heading', text: heading },
    { kind: 'list', items: more > 0 ? [...shown, { text: `${more} more in the appendix.` }] : shown },
  ];
}

function head({ record, run, printing }: ReportSubject): Block[] {
  const { job, signatures } = record;
  const { name } = run.context.profile as { name: string };
  const last = signatures.at(-1);
  return [
    ...letterhead(printing.shop),
    {
      kind: 'title',
      text: onVehicle(run) ? 'Brake test report' : 'Bench test report',
      aside: [`Report ${reportNumber(record, run)}`, printing.day(run.startedAt)],
    },
    ...(run.finishedAt
      ? []
      : [
          {
            kind: 'paragraph',
            strong: true,
            text: 'This run is not finished. What follows is what is known so far.',
          } as const,
        ]),
    {
      kind: 'facts',
      facts: [
        [
          onVehicle(run) ? 'Vehicle' : 'Unit',
          [
            name,
            job.serial && (onVehicle(run) ? job.serial : `serial no. ${job.serial}`),
            job.odometer && `odometer ${job.odometer}`,
          ]
            .filter(Boolean)
            .join(', '),
        ],
        ...(job.customer ? [['Customer', job.customer] as const] : []),
        ['From', job.from || 'not given'],
        ['You told us', job.complaint ? `“${shortened(job.complaint, COMPLAINT)}”` : 'nothing written down'],
        ['Technician', run.context.conditions.technician || 'not given'],
        [
          'Signed',
          last
            ? `${byWhom(record, last)}, ${printing.day(last.at)}; seal ${last.head.slice(0, 16)}`
            : 'not signed yet',
        ],
      ],
    },
  ];
}

function verdict({ run, judged: { assessment }, content, printing }: ReportSubject): Block[] {
  const telling = assessment.call === 'weak-supply' || assessment.call === 'open';
  return [
    { kind: 'headline', text: assessment.headline },
    ...(run.judged?.how === 'imported'
      ? [{ kind: 'paragraph', strong: true, text: `${judgedWords(run.judged)}.` } as const]
      : []),
    ...content.plain.map((text): Block => ({ kind: 'lead', text })),
    ...(telling
      ? [
          {
            kind: 'list',
            items: assessment.reasons.map((reason) => ({ text: printSentence(reason, printing.set) })),
          } as const,
        ]
      : []),
  ];
}

/** What failed in an earlier test of the unit, and what it came to in this one. */
function failedBefore({ record, run, judged, printing }: ReportSubject): Listed {
  // On a bench the supply is the bench's; of a vehicle it is a part, as the brakes are.
  const own = onVehicle(run) ? ['unit', 'supply', 'load'] : ['unit'];
  const failing = (results: readonly Result[]) =>
    results.filter(({ verdict, about }) => verdict === 'fails' && own.includes(about));
  const earlier = record.runs
    .slice(
      0,
      record.runs.findIndex(({ id }) => id === run.id),
    )
    .filter(({ finishedAt }) => finishedAt)
    .map((one) => ({ at: one.startedAt, failed: failing(judgedRun(one).results) }))
    .findLast(({ failed }) => failed.length > 0);
  const said = ({ value, quantity, u, seen, verdict }: Result) =>
    value === null
      ? (seen ?? verdictWord(verdict)).toLowerCase()
      : printQuantity(value, quantity, printing.set, { u_SI: u, withU: true });
  const items = (earlier?.failed ?? []).map((before) => {
    const now = judged.results.find(({ id }) => id === before.id);
    const after =
      !now || now.verdict === 'not-taken'
        ? 'not taken again'
        : `now ${said(now)}: ${verdictWord(now.verdict).toLowerCase()}`;
    return { lead: `${before.name}:`, text: `${said(before)} then, ${after}.` };
  });
  const repaired = record.work.some(({ withdrawn }) => !withdrawn);
  const what = repaired ? 'What failed before the repair' : 'What failed in the test before';
  return { heading: earlier ? `${what}, ${printing.day(earlier.at)}` : what, items };
}

function found({ record }: ReportSubject): Listed {
  const family = FAMILIES[record.profile.kind];
  const place = (id: string | null) =>
    [...family.leakPoints, ...family.ports].find((one) => one.id === id)?.name.toLowerCase();
  const items = record.findings
    .filter(({ withdrawn }) => !withdrawn)
    .map(({ what }) => ({
      lead: `${[FINDING_KINDS[what.kind], place(what.point)].filter(Boolean).join(', ')}:`,
      text: what.words,
    }));
  return { heading: 'What we found', items };
}

/** Words as a sentence. */
const ended = (text: string) => (/[.!?…]$/.test(text) ? text : `${text}.`);

/** What was said against what was found, with what came of it and by whom. Handbook 14. */
function claimed({ record }: ReportSubject): Listed {
  const items = record.identities
    .filter(({ withdrawn }) => !withdrawn)
    .map(({ what }) => ({
      lead: `${partName(record.profile.kind, what.part)}, ${DECISIONS[what.decision].toLowerCase()} by ${what.decidedBy}:`,
      text: `Said to be: ${ended(what.claimed)} Found to be: ${ended(what.found)}`,
    }));
  return { heading: 'What it was said to be, and what it is', items };
}

/** Trouble codes as they were read, and what was left once they were cleared. */
function stored({ record, printing }: ReportSubject): Listed {
  const items = record.codes.map(({ what, at }) => ({
    lead: `${what.clears ? 'Cleared' : 'Read'} ${printing.day(at)}:`,
    text: what.found.length > 0 ? `${what.found.map(codeLine).join('; ')}.` : 'None stored.',
  }));
  return { heading: 'What the vehicle had stored', items };
}

function done({ record }: ReportSubject): Listed {
  const items = record.work
    .filter(({ withdrawn }) => !withdrawn)
    .map(({ what }) => ({
      lead: `${partName(record.profile.kind, what.part)}: ${WORK_DONE[what.did].toLowerCase()}.`,
      text: [what.provenance && PROVENANCES[what.provenance], what.serial, what.reason]
        .filter(Boolean)
        .join('. '),
    }));
  return { heading: 'Parts and lines', items };
}

/** Answers that would have stopped the test, and the reason for going on. */
function inSpiteOf({ run, judged }: ReportSubject): Listed {
  const items = Object.entries(judged.state.goneOn).map(([id, text]) => {
    const item = findItem(run.context.procedure, id)?.item;
    return { lead: `${item?.kind === 'observation' ? item.name : id}:`, text };
  });
  return { heading: 'What the test went on in spite of', items };
}

function corrections({ record, printing }: ReportSubject): Listed {
  const items = record.corrections.map(({ what, at, place }) => ({
    lead: `Correction ${byWhom(record, { ...what, place })}, ${printing.day(at)}:`,
    text: what.words,
  }));
  return { heading: 'Corrections added after signing', items };
}

const onVehicle = ({ context }: Pick<StoredRun, 'context'>) => context.procedure.setting === 'vehicle';

function untested({ content, run }: ReportSubject): Block[] {
  const names = content.untested.map(({ what }) => what);
  const more = names.length - NAMES;
  const listed = [...names.slice(0, NAMES), ...(more > 0 ? [`${more} more`] : [])].join('; ');
  return [
    { kind: 'heading', text: 'What was not tested' },
    {
      kind: 'paragraph',
      text: `${
        names.length === 0
          ? `Everything that this ${onVehicle(run) ? '' : 'bench '}test has was done.`
          : `${listed}. The appendix says why.`
      } ${onVehicle(run) ? 'It was not driven.' : 'Nothing on the vehicle itself was tested.'}`,
    },
  ];
}

/** What braking feels like once nothing assists it, where that can be told. */
function withoutPower({ kind, context }: StoredRun, { set }: Printing): Block[] {
  const told = FAMILIES[kind].withoutPower?.(context.profile);
  if (!told) return [];
  return [
    { kind: 'heading', text: 'Without power' },
    {
      kind: 'paragraph',
      text: [
        'By its profile, with everything sound.',
        ...told.plain.map((one) => printSentence(one, set)),
      ].join(' '),
    },
  ];
}

/** Of what is fed with a fluid that is none of a brake. */
const STEERED =
  'It was tested on fluid, and some is left in it: expect some drops. Fill it only with the fluid that its reservoir names.';
const DRAINED = 'Drain the old fluid from the vehicle first, and do not mix kinds.';

function toKnow({ record, run, printing }: ReportSubject): Block[] {
  const fluid = FAMILIES[run.kind].fluid(run.context.profile);
  if (onVehicle(run))
    return [
      ...withoutPower(run, printing),
      { kind: 'heading', text: 'What to know before it is driven' },
      {
        kind: 'paragraph',
        text: `${fluid ? `Its brake takes ${FLUIDS[fluid]}. ` : ''}What was opened for the test was closed, bled and looked at. A road test comes only after a firm pedal, lamps out and a low-speed check on private ground.`,
      },
      { kind: 'paragraph', text: NOT_CLAIMED_OF_VEHICLE },
    ];
  return [
    { kind: 'heading', text: 'What to know before it goes back on' },
    {
      kind: 'paragraph',
      text: `${
        record.fitting
          ? `The unit holds ${FLUIDS[record.fitting.fluid]}. ${DRAINED}`
          : fluid
            ? `Which fluid is in the unit is not confirmed; its kind takes ${FLUIDS[fluid]}. Ask us before filling. ${DRAINED}`
            : `${onVacuum(run.context.procedure) ? 'No fluid was in it.' : STEERED} Set its pushrod to the vehicle before it goes on.`
      } Fit it by the vehicle maker’s procedure.`,
    },
    { kind: 'paragraph', text: NOT_CLAIMED },
  ];
}
