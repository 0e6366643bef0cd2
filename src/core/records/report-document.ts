import { FAMILIES } from '../families/registry';
import { FLUIDS, type FluidKind } from '../fluid/kinds';
import { adviceSentence } from '../metrology/advice';
import { accuracyLabel } from '../metrology/instrument';
import { measured, readingUncertainty_SI } from '../metrology/uncertainty';
import type { Limits } from '../metrology/verdict';
import { NOT_CLAIMED } from '../procedure/cautions';
import { CAPTURED_WORDS } from '../procedure/events';
import { instrumentsOf } from '../procedure/measured-item';
import { findItem } from '../procedure/procedure';
import { printQuantity } from '../quantities/print';
import { printSentence } from '../quantities/sentence';
import type { Quantity, UnitSet } from '../quantities/units';
import { verdictWord, type Result } from '../twin/result';
import { cell, type Block, type Cell, type Document } from './document';
import { FINDING_KINDS, PROVENANCES, WORK_DONE } from './entries';
import type { JobRecord } from './job-record';
import { judgedWords, otherwiseSentences, saidOtherwise, type JudgedRun } from './judged-run';
import { loggedBlocks, type LoggedTrace } from './logged-traces';
import { ratioChart } from './ratio-svg';
import { reportContent, type ReportContent } from './report';
import type { Settings } from './settings';
import type { StoredRun } from './views';

/** How numbers and times are written: the reader's units and the bench's own clock. */
export interface Printing {
  readonly set: UnitSet;
  /** Who prints it; without a name there is no letterhead. */
  readonly shop: Pick<Settings, 'shopName' | 'shopAddress' | 'shopTelephone'>;
  /** "2026-11-23" of an ISO time. */
  readonly day: (iso: string) => string;
  /** "14:05:09" of an ISO time. */
  readonly time: (iso: string) => string;
}

/** Readings said by one key in place of typing them: the report says so. */
const SAID: readonly string[] = ['at-aim', 'at-zero', 'as-last-supply'];

/** Longest free text that a report prints in one place; all of it stays in the record. */
const MOST_WORDS = 300;
const short = (words: string, most = MOST_WORDS) =>
  words.length > most ? `${words.slice(0, most)}…` : words;

/** The report of a run: a page for the customer in plain words, then the numbers behind it. */
export function reportDocument(
  record: JobRecord,
  run: StoredRun,
  judged: JudgedRun,
  printing: Printing,
  logged: readonly LoggedTrace[] = [],
): Document {
  const content = reportContent(run.context, judged.state, judged.results, judged.assessment);
  const report = new Report(record, run, judged, content, printing, logged);
  return {
    name: `${record.job.tag} bench test`,
    blocks: [...report.forTheCustomer(), { kind: 'page-break' }, ...report.numbers()],
  };
}

/** The number of a report: the job's tag, and which of its tests it is of. */
export const reportNumber = (
  { job, runs }: Pick<JobRecord, 'job' | 'runs'>,
  run: Pick<StoredRun, 'id'>,
): string => `${job.tag}/${runs.findIndex(({ id }) => id === run.id) + 1}`;

/** Name, address and telephone of the shop at the head of what it hands out; nothing where it has no name. */
export const letterhead = ({ shopName, shopAddress, shopTelephone }: Printing['shop']): Block[] =>
  shopName === ''
    ? []
    : [{ kind: 'letterhead', name: shopName, lines: [shopAddress, shopTelephone].filter(Boolean) }];

class Report {
  constructor(
    private readonly record: JobRecord,
    private readonly run: StoredRun,
    private readonly judged: JudgedRun,
    private readonly content: ReportContent,
    private readonly printing: Printing,
    private readonly logged: readonly LoggedTrace[],
  ) {}

  private value(
    value: number,
    quantity: Quantity,
    options: { u_SI?: number | null; withU?: boolean; bare?: boolean } = {},
  ) {
    return printQuantity(value, quantity, this.printing.set, options);
  }

  private sentence(of: Parameters<typeof printSentence>[0]) {
    return printSentence(of, this.printing.set);
  }

  forTheCustomer(): Block[] {
    const { record, run, content, judged } = this;
    const { assessment } = judged;
    const profile = run.context.profile as { name: string; fluid: FluidKind };
    const telling = assessment.call === 'weak-supply' || assessment.call === 'open';
    return [
      ...letterhead(this.printing.shop),
      {
        kind: 'title',
        text: 'Bench test report',
        aside: [`Report ${reportNumber(record, run)}`, this.printing.day(run.startedAt)],
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
            'Unit',
            [profile.name, record.job.serial && `serial no. ${record.job.serial}`].filter(Boolean).join(', '),
          ],
          ...(record.job.customer ? [['Customer', record.job.customer] as const] : []),
          ['From', record.job.from || 'not given'],
          ['You told us', record.job.complaint ? `“${record.job.complaint}”` : 'nothing written down'],
          ['Technician', run.context.conditions.technician || 'not given'],
          ...this.signature(),
        ],
      },
      { kind: 'headline', text: assessment.headline },
      ...(run.judged?.how === 'imported'
        ? [{ kind: 'paragraph', strong: true, text: `${judgedWords(run.judged)}.` } as const]
        : []),
      ...content.plain.map((text): Block => ({ kind: 'lead', text })),
      ...(telling
        ? [
            {
              kind: 'list',
              items: assessment.reasons.map((reason) => ({ text: this.sentence(reason) })),
            } as const,
          ]
        : []),
      ...this.story(),
      { kind: 'heading', text: 'What was not tested' },
      ...(content.untested.length === 0
        ? [
            {
              kind: 'paragraph',
              text: 'Everything that this bench test has was done. Nothing on the vehicle itself was tested.',
            } as const,
          ]
        : [
            {
              kind: 'list',
              items: content.untested.map(({ what, why }) => ({ text: `${what}: ${short(why)}` })),
            } as const,
            { kind: 'paragraph', text: 'Nothing on the vehicle itself was tested.' } as const,
          ]),
      ...this.inSpiteOf(),
      { kind: 'heading', text: 'What to know before it goes back on' },
      {
        kind: 'paragraph',
        text: `${
          record.fitting
            ? `The unit holds ${FLUIDS[record.fitting.fluid]}.`
            : `Which fluid is in the unit is not confirmed; its kind takes ${FLUIDS[profile.fluid]}. Ask us before filling.`
        } Drain the old fluid from the vehicle first, and do not mix kinds. The vehicle maker’s procedure, local regulation and a licensed technician decide how it is fitted and whether the vehicle may be used.`,
      },
      { kind: 'paragraph', text: NOT_CLAIMED },
    ];
  }

  /** Answers that would have stopped the test, and the reason for going on. */
  private inSpiteOf(): Block[] {
    const { procedure } = this.run.context;
    const items = Object.entries(this.judged.state.goneOn).map(([id, reason]) => {
      const item = findItem(procedure, id)?.item;
      return { lead: `${item?.kind === 'observation' ? item.name : id}:`, text: short(reason) };
    });
    return items.length === 0
      ? []
      : [
          { kind: 'heading', text: 'What the test went on in spite of' },
          { kind: 'list', items },
        ];
  }

  private signature(): [string, string][] {
    const last = this.record.signatures.at(-1);
    if (!last) return [['Signed', 'not signed yet']];
    return [['Signed', `${last.technician}, ${this.printing.day(last.at)}; seal ${last.head.slice(0, 16)}`]];
  }

  /** What was found on the unit and done to it, as far as it goes with this visit. */
  private story(): Block[] {
    const { findings, work, corrections, profile } = this.record;
    const family = FAMILIES[profile.kind];
    const place = (id: string | null) =>
      [...family.leakPoints, ...family.ports].find((one) => one.id === id)?.name.toLowerCase();
    const found = findings
      .filter(({ withdrawn }) => !withdrawn)
      .map(({ what }) => ({
        lead: `${[FINDING_KINDS[what.kind], place(what.point)].filter(Boolean).join(', ')}:`,
        text: short(what.words),
      }));
    const did = work
      .filter(({ withdrawn }) => !withdrawn)
      .map(({ what }) => ({
        lead: `${family.parts.find(({ id }) => id === what.part)?.name ?? what.part}: ${WORK_DONE[what.did].toLowerCase()}.`,
        text: [what.provenance && PROVENANCES[what.provenance], what.serial, short(what.reason)]
          .filter(Boolean)
          .join('. '),
      }));
    const list = (heading: string, items: { lead?: string; text: string }[]): Block[] =>
      items.length === 0
        ? []
        : [
            { kind: 'heading', text: heading },
            { kind: 'list', items },
          ];
    return [
      ...list('What we found', found),
      ...list('Parts and lines', did),
      ...list(
        'Corrections added after signing',
        corrections.map(({ what, at }) => ({
          lead: `${what.technician}, ${this.printing.day(at)}:`,
          text: short(what.words),
        })),
      ),
    ];
  }

  numbers(): Block[] {
    const { run, judged, content } = this;
    const { conditions, procedure } = run.context;
    const { meets, fails } = conditions.thresholds;
    const taken = judged.results.filter(({ verdict }) => verdict !== 'not-taken');
    const seeps = taken.filter(({ id }) => id.startsWith('seep'));
    const chart = ratioChart(run, this.printing.set);
    return [
      { kind: 'heading', text: 'Results' },
      {
        kind: 'paragraph',
        text: `U is the expanded uncertainty (k = 2). A verdict is given where the probability of keeping to the limit is above ${Math.round(meets * 100)} % or below ${Math.round(fails * 100)} %; between them it is too close to call.`,
      },
      {
        kind: 'table',
        name: 'Results',
        columns: ['Result', 'Value ± U', 'Expected', 'Limits', 'Verdict'],
        widths: [38, 17, 12, 18, 15],
        rows: taken.filter((result) => !seeps.includes(result)).map((result) => this.resultRow(result)),
      },
      ...this.judgedBy(),
      { kind: 'heading', text: 'Expected against measured' },
      chart
        ? { kind: 'chart', ...chart }
        : { kind: 'paragraph', text: 'Nothing was measured under vacuum, so there is nothing to compare.' },
      ...loggedBlocks(this.logged, this.printing.set),
      { kind: 'heading', text: 'Seep findings' },
      {
        kind: 'paragraph',
        text:
          seeps.length === 0
            ? 'No seep look was made.'
            : `${seeps.map(({ name, seen, verdict }) => `${name}: ${seen ?? verdictWord(verdict)}`).join('. ')}.`,
      },
      { kind: 'heading', text: 'Every reading' },
      this.readings(),
      { kind: 'heading', text: 'Instruments' },
      {
        kind: 'table',
        name: 'Instruments',
        columns: ['Tag', 'Full scale', 'Accuracy', 'Step', 'Calibration'],
        widths: [12, 15, 30, 13, 30],
        rows: content.instruments.map(({ gauge, calibration }) => [
          cell(gauge.tag),
          cell(this.value(gauge.fullScale_Pa, gauge.quantity)),
          cell(
            accuracyLabel(gauge.accuracy),
            gauge.correction ? { small: [`corrected by table ${gauge.correction.certificate}`] } : {},
          ),
          cell(this.value(gauge.step_Pa, gauge.quantity, { u_SI: gauge.step_Pa / 4 })),
          cell(
            calibration === 'no date' ? 'no date on record' : `${calibration}, due ${gauge.calibrationDue}`,
            { strong: calibration === 'overdue' },
          ),
        ]),
      },
      ...(content.leansOnOverdue.length > 0
        ? [
            {
              kind: 'paragraph',
              strong: true,
              text: `These lean on a gauge past its calibration date: ${content.leansOnOverdue.join('; ')}.`,
            } as const,
          ]
        : []),
      { kind: 'heading', text: 'Conditions' },
      {
        kind: 'facts',
        facts: [
          ['Barometer, station pressure', this.value(conditions.barometer_Pa, 'barometer')],
          ['Room temperature', this.value(conditions.temperature_K, 'temperature')],
          ['Supply', conditions.supplyKind === 'pump' ? 'vacuum pump' : 'engine manifold'],
          ['Procedure', `${procedure.id}, version ${procedure.version}`],
        ],
      },
      { kind: 'heading', text: 'Cautions shown' },
      { kind: 'list', items: content.cautions.map(({ hazard, action }) => ({ lead: hazard, text: action })) },
      { kind: 'heading', text: 'Not claimed' },
      { kind: 'paragraph', text: NOT_CLAIMED },
    ];
  }

  /** Who gave these verdicts and when; and what today's program would say, where that is something else. */
  private judgedBy(): Block[] {
    const { run } = this;
    if (!run.judged) return [];
    const otherwise = saidOtherwise(run);
    return [
      { kind: 'paragraph', text: `${judgedWords(run.judged)}.` },
      ...(otherwise
        ? [
            {
              kind: 'paragraph',
              strong: true,
              text: 'Today’s program would judge these readings otherwise. What was written stands.',
            } as const,
            { kind: 'list', items: otherwiseSentences(otherwise).map((text) => ({ text })) } as const,
          ]
        : []),
    ];
  }

  private resultRow(result: Result): Cell[] {
    const { value, u, quantity, expected, limits, limitSource, notes, seen, advice, overdue } = result;
    const small = [
      ...notes.map((note) => this.sentence(note)),
      ...(advice ? [`What would settle it: ${this.sentence(adviceSentence(advice, quantity))}`] : []),
    ];
    return [
      cell(result.name, { small }),
      cell(value === null ? short(seen ?? '', 200) : this.value(value, quantity, { u_SI: u, withU: true })),
      cell(expected === null ? '' : this.value(expected, quantity, { u_SI: u })),
      limits ? cell(this.limits(limits, quantity), { small: [limitSource] }) : cell(''),
      cell(verdictWord(result.verdict), {
        verdict: result.verdict,
        small: overdue.length > 0 ? [`${overdue.join(', ')} past calibration`] : [],
      }),
    ];
  }

  private limits({ low, high }: Limits, quantity: Quantity): string {
    if (low !== undefined && high !== undefined)
      return `${this.value(low, quantity, { bare: true })} to ${this.value(high, quantity)}`;
    return low !== undefined
      ? `at least ${this.value(low, quantity)}`
      : `at most ${this.value(high!, quantity)}`;
  }

  /** Every reading as taken, struck and stale ones too, with gauge and time. */
  private readings(): Block {
    const { context } = this.run;
    const instruments = instrumentsOf(context.rig, context.shelf);
    const ports = new Map(FAMILIES[this.run.kind].ports.map(({ id, name }) => [id, name]));
    const rows = this.judged.state.captures.flatMap((capture): Cell[][] => {
      const found = findItem(context.procedure, capture.item);
      const gauge = instruments.get(capture.instrument);
      if (found?.item.kind !== 'reading' || !gauge) return [];
      const u_SI = readingUncertainty_SI(measured([capture.value_SI], gauge));
      const marks = [
        capture.struck && 'struck',
        capture.stale && 'stale',
        capture.gateShut && 'not at zero',
        capture.confirmedUnlikely && 'confirmed',
        SAID.includes(capture.by) && CAPTURED_WORDS[capture.by],
      ].filter((mark) => mark !== false);
      const struck = capture.struck || capture.stale;
      return [
        [
          cell(this.printing.time(capture.at)),
          cell(found.step.title, { struck }),
          cell(ports.get(found.item.port) ?? found.item.port, { struck }),
          cell(this.value(capture.value_SI, found.item.quantity, { u_SI, withU: true }), { struck }),
          cell([capture.instrument, ...marks].join(', ')),
        ],
      ];
    });
    return {
      kind: 'table',
      name: 'Readings',
      columns: ['Time', 'Step', 'Port', 'Reading ± U', 'Gauge'],
      widths: [13, 33, 18, 20, 16],
      rows,
    };
  }
}
