import { heardIn } from '../contract/complaints';
import type { RunEvent } from '../contract/events';
import type { RunContext } from '../contract/run-context';
import { HEALTHY, repairOf, type RepairClass } from '../diagnosis/causes';
import { Diagnostician } from '../diagnosis/diagnose';
import { chancePercent } from '../diagnosis/words';
import { FAMILIES, type FamilyKind } from '../families/registry';
import { gateRule, instrumentsOf } from '../procedure/measured-item';
import { contextWith } from '../procedure/exchange';
import { reduceRun } from '../procedure/run';
import type { Truth } from './draw';
import type { LevelId } from './levels';
import { isRight, lapsesIn, needless, scoreOf, type Score } from './score';
import { foundBy, toldBy, walk, type Told } from './walk';
import { wholeRun } from './whole-run';
import { minutesWords, repairWords } from './words';

/** A case that is over, as its debriefing is asked for. */
export interface ToDebrief {
  readonly kind: FamilyKind;
  readonly level: LevelId;
  readonly truth: Truth;
  readonly complaint: string;
  readonly context: RunContext<unknown>;
  readonly events: readonly RunEvent[];
  readonly finding: RepairClass;
  /** Parts that were changed or mended, by what is written on the job's sheet. */
  readonly changed: readonly string[];
}

/** What somebody did in a case, beside what the adviser would have done. */
export interface Debrief {
  readonly score: Score;
  readonly found: RepairClass;
  readonly really: RepairClass;
  /** What each test told at that moment, in the order in which they were made. */
  readonly tests: readonly Told[];
  readonly minutes: number;
  readonly changed: readonly string[];
  readonly needless: readonly string[];
  readonly lapses: readonly string[];
  readonly adviser: {
    readonly tests: readonly Told[];
    readonly minutes: number;
    readonly found: RepairClass;
  };
  /** The one thing to do better, in a sentence or two. */
  readonly better: string;
}

/** Steps in the order in which something was first done in them. */
export function orderOf(
  { procedure }: Pick<RunContext<unknown>, 'procedure'>,
  events: readonly RunEvent[],
): string[] {
  const steps = events.flatMap((event) =>
    event.type === 'captured' || event.type === 'observed'
      ? procedure.steps.flatMap(({ id, items }) => (items.some((one) => one.id === event.item) ? id : []))
      : [],
  );
  return [...new Set(steps)];
}

/** Works out what a case came to. It takes seconds: it belongs off the main thread. */
export function debriefOf(asked: ToDebrief): Debrief {
  const { kind, level, truth, complaint, finding, changed } = asked;
  const family = FAMILIES[kind];
  const context = contextWith(asked.context, asked.events);
  const gate = gateRule(instrumentsOf(context.rig, context.shelf));
  const run = reduceRun(context.procedure, asked.events, gate);
  const faults = truth.faults.map(([id]) => family.faults.find((one) => one.id === id)!);
  const beliefs = { complaint: true, heard: heardIn(complaint), weights: {} };
  const diagnostician = new Diagnostician(family, context.profile, beliefs);
  const way = walk(diagnostician, family, asked.context, wholeRun(family, asked.context, truth, level));
  const adviser = { tests: way.tests, minutes: way.minutes, found: foundBy(way) };
  const tests = toldBy(diagnostician, family, context, run, orderOf(context, asked.events));
  const minutes = tests.reduce((sum, one) => sum + one.minutes, 0);
  const lapses = lapsesIn(context.procedure, run, asked.events);
  const score = scoreOf({ finding, minutes, changed, lapses: lapses.length }, faults, way.minutes);
  const all = {
    score,
    found: finding,
    really: faults.length === 0 ? HEALTHY : repairOf(faults),
    tests,
    minutes,
    changed,
    needless: needless(changed, faults),
    lapses,
    adviser,
  };
  return { ...all, better: betterOf(kind, all, isRight(finding, faults)) };
}

/** A way that took this much longer than the adviser's is worth a word. */
const LONG = 1.3;
const DREW_FROM = 0.6;
/** A cause is as good as sure from here. Handbook-models 12. */
const SETTLED = 0.95;

/** The thing that cost the most, in a sentence or two. */
function betterOf(kind: FamilyKind, of: Omit<Debrief, 'better'>, right: 0 | 0.5 | 1): string {
  const { lapses, tests, adviser, needless: needlessly, minutes } = of;
  const shows = ({ likeliest, chance }: Told) => likeliest === of.really && chance >= DREW_FROM;
  const said = tests.findLast(shows);
  const telling = [...adviser.tests].sort((a, b) => b.bits - a.bits)[0];
  if (right < 1) {
    if (said)
      return `Your own readings said it: behind “${said.title}” they made “${repairWords(kind, of.really)}” ${chancePercent(said.chance)} likely. Read what they say before you name a cause.`;
    const missed = adviser.tests.find(({ step }) => !tests.some((one) => one.step === step));
    if (missed)
      return `Too little was measured to tell. “${missed.title}” was not done: the adviser does it, and it takes ${minutesWords(missed.minutes)}.`;
    return right > 0
      ? 'Half of it was found. Where one cause does not explain every reading, look for a second.'
      : `The readings pointed elsewhere${telling ? `, “${telling.title}” the most` : ''}. Repeat the one that surprises before a cause is named.`;
  }
  if (lapses.length > 0) return `${lapses[0]} Care comes before time.`;
  if (needlessly.length > 0)
    return `${repairWords(kind, needlessly.join(' + '))}: changed although nothing was wrong with it. A reading that points to it comes first.`;
  if (minutes > LONG * adviser.minutes) {
    // Behind the test that settled it, everything was for nothing.
    const settled = tests.findIndex(({ likeliest, chance }) => likeliest === of.really && chance >= SETTLED);
    const after = settled < 0 ? [] : tests.slice(settled + 1);
    const [idle] = [...(after.length > 0 ? after : tests)].sort((a, b) => b.minutes - a.minutes);
    const stop = tests[settled];
    if (stop && after.length > 0)
      return `It was as good as sure behind “${stop.title}”: ${after.length === 1 ? 'one more test was' : `${after.length} more tests were`} made, “${idle!.title}” the longest. The adviser was done in ${minutesWords(adviser.minutes)}.`;
    if (idle)
      return `“${idle.title}” took the longest, ${minutesWords(idle.minutes)}. The adviser was done in ${minutesWords(adviser.minutes)}: see what it began with.`;
  }
  if (!said && telling && adviser.tests.some(shows))
    return `Right, but no reading showed it. “${telling.title}” tells the most: the adviser does it.`;
  return 'Nothing: found as surely and as quickly as the adviser would have.';
}
