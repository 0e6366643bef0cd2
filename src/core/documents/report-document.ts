import { notThrough } from '../procedure/opening';
import { FAMILIES } from '../families/registry';
import { adviceSentence } from '../metrology/advice';
import { accuracyLabel } from '../metrology/accuracy';
import { measured, readingUncertainty_SI } from '../metrology/uncertainty';
import type { Limits } from '../metrology/verdict';
import { NOT_CLAIMED } from '../contract/cautions';
import { CAPTURED_WORDS } from '../contract/events';
import { instrumentsOf } from '../procedure/measured-item';
import { findItem } from '../contract/steps';
import { printQuantity } from '../quantities/print';
import { printSentence } from '../quantities/sentence';
import type { Quantity } from '../quantities/units';
import { verdictWord, type Result } from '../contract/result';
import { atHomePage } from './at-home';
import { customerPage } from './customer-page';
import { cell, type Block, type Cell, type Document } from './document';
import type { JobRecord } from '../records/job-record';
import { judgedWords, otherwiseSentences, saidOtherwise, type JudgedRun } from '../records/judged-run';
import { clockSetBack, setBackOnPaper } from '../procedure/clock';
import { loggedBlocks, type LoggedTrace } from './logged-traces';
import { ratioChart } from './ratio-svg';
import { reportContent, type ReportContent, onVacuum } from './report';
import { reportNumber, shortened, type Printing } from './printing';
import type { StoredRun } from '../records/views';

/** Readings said by one key in place of typing them: the report says so. */
const SAID: readonly string[] = ['at-aim', 'at-zero', 'as-last-supply'];

/**
 * The report of a run: a page for the customer in plain words, then the numbers behind it.
 *
 * @param doubts what is not known of the record: said before all else
 */
export function reportDocument(
  record: JobRecord,
  run: StoredRun,
  judged: JudgedRun,
  printing: Printing,
  logged: readonly LoggedTrace[] = [],
  doubts: readonly string[] = [],
): Document {
  const content = reportContent(run.context, judged.state, judged.results, judged.assessment);
  const page = customerPage({ record, run, judged, content, printing });
  const appendix = new Appendix(record, run, judged, content, printing, logged);
  const warnings = [
    ...doubts,
    ...clockSetBack(run.events).map((one) => setBackOnPaper(one, printing.time(one.at))),
  ];
  const gone = warnings.map((text): Block => ({ kind: 'paragraph', strong: true, text }));
  return {
    name: `${record.job.tag} bench test`,
    blocks: [
      ...gone,
      ...page.blocks,
      { kind: 'page-break' },
      ...atHomePage(run, printing),
      { kind: 'page-break' },
      ...appendix.blocks(page.left),
    ],
  };
}

/** The numbers behind the page for the customer, and what had no room on it. */
class Appendix {
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

  blocks(left: readonly Block[]): Block[] {
    const { record, run, judged, content, printing } = this;
    const { conditions, procedure } = run.context;
    const { meets, fails } = conditions.thresholds;
    const taken = judged.results.filter(({ verdict }) => verdict !== 'not-taken');
    const seeps = taken.filter(({ id }) => id.startsWith('seep'));
    const chart = ratioChart(run, printing.set);
    return [
      {
        kind: 'title',
        text: 'Appendix',
        aside: [`Report ${reportNumber(record, run)}`, printing.day(run.startedAt)],
      },
      ...left,
      ...(content.untested.length > 0
        ? [
            { kind: 'heading', text: 'What was not tested, and why' } as const,
            {
              kind: 'list',
              items: content.untested.map(({ what, why }) => ({ text: `${what}: ${shortened(why)}` })),
            } as const,
          ]
        : []),
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
        : {
            kind: 'paragraph',
            text: 'Nothing was measured with its supply on, so there is nothing to compare.',
          },
      ...loggedBlocks(this.logged, this.printing.set),
      ...this.withoutPower(),
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
          ...(onVacuum(procedure)
            ? [['Supply', conditions.supplyKind === 'pump' ? 'vacuum pump' : 'engine manifold'] as const]
            : []),
          ['Procedure', `${procedure.id}, version ${procedure.version}`],
        ],
      },
      { kind: 'heading', text: 'Cautions shown' },
      { kind: 'list', items: content.cautions.map(({ hazard, action }) => ({ lead: hazard, text: action })) },
      { kind: 'heading', text: 'Not claimed' },
      { kind: 'paragraph', text: NOT_CLAIMED },
    ];
  }

  /** Figures of braking without power; of a vehicle whose profile does not say what a stop follows from, that. */
  private withoutPower(): Block[] {
    const { kind, context } = this.run;
    const { withoutPower } = FAMILIES[kind];
    if (!withoutPower) return [];
    const told = withoutPower(context.profile);
    return [
      { kind: 'heading', text: 'Braking without power' },
      told
        ? {
            kind: 'facts',
            facts: told.figures.map(
              ({ name, value, quantity, u = null }) =>
                [name, this.value(value, quantity, { u_SI: u })] as const,
            ),
          }
        : {
            kind: 'paragraph',
            text: 'Not told: of booster, mass and brake forces the profile does not know all of this vehicle’s own.',
          },
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
      cell(
        value === null ? shortened(seen ?? '', 200) : this.value(value, quantity, { u_SI: u, withU: true }),
      ),
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
        capture.gateShut && this.sentence(notThrough(found.item)),
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
