import { z } from 'zod';
import { SEA_LEVEL_PA } from '../air/atmosphere';
import { REFERENCE_TEMPERATURE_K } from '../air/leak';
import { COMPLAINT_IDS } from '../contract/complaints';
import type { Family } from '../contract/family';
import type { Rig, RunContext } from '../contract/run-context';
import { runContextSchema } from '../contract/run-context';
import type { RunState } from '../contract/run-state';
import { sourcesSchema } from '../contract/sources';
import type { Item } from '../contract/steps';
import { instrumentSchema } from '../metrology/instrument';
import { stepUncertainty_SI } from '../metrology/uncertainty';
import { placeOf } from '../model/vectors';
import { INHG_PA } from '../quantities/units';
import { sharedBy } from '../procedure/as-seen';
import { EMPTY_RUN } from '../procedure/run';
import type { InputDoubt } from '../twin/fit';
import { nameOf } from './advice';
import type { Beliefs } from './causes';
import { Diagnostician, type Standing } from './diagnose';
import type { Evidence, ReadingEvidence } from './evidence';
import { waitCounts } from './next-test';
import { apart, lookEvidence, plannedLook, scaleOf } from './of-run';
import { portsOf, possibleSteps, type PossibleStep } from './possible';
import { chancesAfter, repairedBy, type Repaired } from './repaired';

const name = z.string().min(1).max(80);
const finite = z.number('A number is needed.');

/** How a number was read: by an instrument, whose class says how far it may be out, or with a standard uncertainty. */
const readBy = {
  instrument: instrumentSchema.optional(),
  u: z.number().positive('u: above zero.').optional(),
};

const inputSchema = z.union([finite, z.strictObject({ value: finite, ...readBy })]);

const readingSchema = z
  .strictObject({
    /** A name of its own among the readings. */
    id: name,
    /** The model's reading that was read, and its value, SI. */
    reading: name,
    value: finite,
    ...readBy,
    /** The pointer stood at the end of its scale. */
    offScale: z.enum(['above', 'below']).optional(),
    /** Inputs of the model that were set or read, SI. What is left out is the room of the question, no time, no application. */
    inputs: z.record(name, inputSchema),
  })
  .refine(({ instrument, u }) => (instrument === undefined) !== (u === undefined), {
    path: ['instrument'],
    message: 'Say what it was read with, or how far it may be out: one of the two.',
  });

/** What was seen. */
const seen = {
  readings: z.array(readingSchema).max(200, 'Readings: 200 at the most.').optional(),
  looks: z
    .array(z.strictObject({ item: name, answer: name }))
    .max(200)
    .optional(),
};
type Seen = z.infer<z.ZodObject<typeof seen>>;

/** What is asked: what is fitted, what was seen, and what could be done next. Stateless. */
export const questionSchema = z.strictObject({
  /** A profile of the kind; without one its typical figures. */
  profile: z.unknown().optional(),
  room: z
    .strictObject({ barometer_Pa: z.number().positive(), temperature_K: z.number().positive() })
    .optional(),
  /** Gauges on the ports: tests that need another are not offered. */
  rig: runContextSchema.shape.rig.optional(),
  complaint: z.boolean().optional(),
  /** What is complained of: faults that bring it count three times. */
  heard: z.array(z.enum(COMPLAINT_IDS)).max(20).optional(),
  /** Weights of faults in place of the family's own; 0 leaves one out. */
  weights: z.record(name, z.number().min(0, 'Weights: zero or above.')).optional(),
  ...seen,
  /** Parts that were changed or mended before all of this, and what had been seen until then. */
  repaired: z.strictObject({ parts: z.array(name).min(1).max(50), ...seen }).optional(),
  /** Steps that were done, and how the sources stand. */
  done: z.array(name).max(200).optional(),
  sources: sourcesSchema.optional(),
  /** Other work fills the waits. */
  otherWork: z.boolean().optional(),
});
export type Question = z.infer<typeof questionSchema>;

export interface Issue {
  readonly path: PropertyKey[];
  readonly message: string;
}

/** A test as another program can carry it out, and send back what it found. */
export interface OfferedTest {
  readonly step: string;
  readonly title: string;
  readonly bits: number;
  readonly minutes: number;
  readonly bitsPerMinute: number;
  /** What has to be done first. */
  readonly setUp: readonly string[];
  /** Steps to be carried out, in their order: those that it needs and are still to be done, and itself. */
  readonly steps: readonly {
    readonly step: string;
    readonly title: string;
    /** How the sources have to stand. */
    readonly sources: Readonly<Record<string, string>>;
    readonly readings: readonly {
      readonly item: string;
      readonly reading: string;
      readonly port: string;
      /** Inputs of the model at which it is taken, SI. */
      readonly inputs: Readonly<Record<string, number>>;
    }[];
    readonly looks: readonly { readonly item: string; readonly answers: readonly string[] }[];
  }[];
}

/** What it probably is, and what to do next. */
export interface Reply {
  readonly causes: readonly {
    readonly id: string;
    readonly name: string;
    readonly faults: readonly string[];
    readonly repair: string;
    readonly chance: number;
    /** How much each piece of evidence multiplies its odds, as a natural logarithm. */
    readonly weighs: Readonly<Record<string, number>>;
  }[];
  readonly repairs: Readonly<Record<string, number>>;
  /** Chance that nothing known explains it. */
  readonly unexplained: number;
  /** Evidence that does the most for that: to be taken again where nothing known explains it all; null where none does. */
  readonly clash: string | null;
  readonly atOdds: readonly {
    readonly evidence: string;
    readonly with: string | null;
    readonly chance: number;
  }[];
  readonly next: readonly OfferedTest[];
  readonly standing: Standing;
  /** What the repair came to, where one was named; null where nothing that it mends was suspected. */
  readonly repaired?: Repaired | null;
}

export type Replied =
  { readonly ok: true; readonly reply: Reply } | { readonly ok: false; readonly issues: Issue[] };

const SEA_LEVEL = { barometer_Pa: SEA_LEVEL_PA, temperature_K: REFERENCE_TEMPERATURE_K };
/** Vacuum that a bench's source is supposed to hold until it was read, Pa: 20 inHg. */
const SUPPOSED_SUPPLY_PA = 20 * INHG_PA;
/** Causes less likely than this are left out of a reply. */
const TOLD_FROM = 1e-4;

/** What a question says beforehand of what may be the cause. */
const beliefsOf = ({ complaint = true, heard = [], weights = {} }: Question): Beliefs => ({
  complaint,
  heard,
  weights,
});

/**
 * Answers a question about one installation. Impossible evidence is refused by name; unlikely evidence is kept.
 *
 * @param diagnostician for its beliefs: one that asks much of the same installation keeps it
 */
export function replyTo(
  family: Family,
  question: Question,
  diagnostician = (profile: unknown, beliefs: Beliefs) => new Diagnostician(family, profile, beliefs),
): Replied {
  const profile = family.profile.safeParse(question.profile ?? family.typical);
  if (!profile.success)
    return {
      ok: false,
      issues: profile.error.issues.map(({ path, message }) => ({ path: ['profile', ...path], message })),
    };
  const issues: Issue[] = [];
  const context = contextOf(family, profile.data, question);
  const evidence = evidenceIn(family, context, question, issues);
  const { repaired } = question;
  const earlier = repaired && evidenceIn(family, context, repaired, issues, ['repaired']);
  for (const part of repaired?.parts ?? [])
    if (!family.parts.some(({ id }) => id === part))
      issues.push({ path: ['repaired', 'parts'], message: `There is no part “${part}”.` });
  const faults = new Set(family.faults.map(({ id }) => id));
  for (const fault of Object.keys(question.weights ?? {}))
    if (!faults.has(fault))
      issues.push({ path: ['weights', fault], message: `There is no fault “${fault}”.` });
  if (issues.length > 0) return { ok: false, issues };
  const beliefs = beliefsOf(question);
  // One that is kept may be asked anew, and then its particles are others: what is held against a later test is its own.
  const before = earlier && new Diagnostician(family, profile.data, beliefs);
  const believed = before && { posterior: before.posterior(earlier), set: before.set };
  const asked = diagnostician(
    profile.data,
    believed ? { ...beliefs, after: chancesAfter(believed.posterior.ranked, repaired!.parts) } : beliefs,
  );
  const over = doneIn(context, question);
  // What was read in a step that is done was read on a gauge that stands there.
  const possible = possibleSteps(family, context, overRun(over, question), portsOf(over));
  const { posterior, tests, standing } = asked.diagnose(
    evidence,
    possible,
    waitCounts(question.otherWork ?? false),
  );
  return {
    ok: true,
    reply: {
      causes: posterior.ranked
        .filter(({ chance }) => chance >= TOLD_FROM)
        .map(({ cause, chance, weighs }) => ({
          id: cause.id,
          name: nameOf(cause),
          faults: cause.faults.map(({ id }) => id),
          repair: cause.repair,
          chance,
          weighs: Object.fromEntries(weighs.map((weighing, i) => [evidence[i]!.id, weighing])),
        })),
      repairs: Object.fromEntries(posterior.classes),
      unexplained: posterior.unknown,
      clash: evidence[posterior.clash]?.id ?? null,
      atOdds: posterior.atOdds.map(({ piece, partner, chance }) => ({
        evidence: evidence[piece]!.id,
        with: partner < 0 ? null : evidence[partner]!.id,
        chance,
      })),
      next: tests.map(({ test, gain_bits, cost_min, bitsPerMinute }) => ({
        ...offered(
          family,
          possible.find(({ step }) => step === test.step)!,
        ),
        bits: gain_bits,
        minutes: cost_min,
        bitsPerMinute,
      })),
      standing,
      ...(believed && {
        repaired: repairedBy(
          family.parameters,
          family.healthy(profile.data).values,
          repaired!.parts,
          believed,
          { posterior, set: asked.set },
        ),
      }),
    },
  };
}

/** Everything that was seen, each piece refused by name where it cannot be. @param at where it stands in the question */
const evidenceIn = (
  family: Family,
  context: RunContext<unknown>,
  all: Seen,
  issues: Issue[],
  at: readonly PropertyKey[] = [],
): Evidence[] => {
  const found: Issue[] = [];
  const evidence = [...readingsIn(family, context, all, found), ...looksIn(family, context, all, found)];
  issues.push(...found.map(({ path, message }) => ({ path: [...at, ...path], message })));
  return evidence;
};

function contextOf(
  family: Family,
  profile: unknown,
  { rig = {}, room = SEA_LEVEL }: Question,
): RunContext<unknown> {
  return {
    procedure: family.procedure(profile, rig as Rig),
    profile,
    rig: rig as Rig,
    shelf: Object.values(rig as Rig).flat(),
    // Only the room has a part in what the twin shows.
    conditions: {
      ...room,
      supplyKind: 'pump',
      supplyHealth_Pa: SUPPOSED_SUPPLY_PA,
      technician: '',
      day: '2000-01-01',
      thresholds: { meets: 0.95, fails: 0.05 },
    },
  };
}

/** Items of the steps that were done. */
const doneIn = ({ procedure }: RunContext<unknown>, { done = [] }: Question): Item[] =>
  procedure.steps.filter(({ id }) => done.includes(id)).flatMap(({ items }) => items);

/** A run in which some steps are over: nothing else of it is known. */
export function overRun(
  over: readonly Item[],
  { done = [], sources }: { readonly done?: readonly string[]; readonly sources?: RunState['sources'] },
): RunState {
  return {
    ...EMPTY_RUN,
    sources: sources ?? EMPTY_RUN.sources,
    skipped: Object.fromEntries(over.map(({ id }) => [id, 'done'])),
    acknowledged: done,
  };
}

function readingsIn(
  family: Family,
  { profile, conditions }: RunContext<unknown>,
  { readings = [] }: Seen,
  issues: Issue[],
): ReadingEvidence[] {
  const room = { barometer_Pa: conditions.barometer_Pa, temperature_K: conditions.temperature_K };
  const healthy = family.healthy(profile).values;
  return readings.flatMap(
    ({ id, reading, value, instrument, u = 0, offScale, inputs }, i): ReadingEvidence[] => {
      const refuse = (message: string): [] => {
        issues.push({ path: ['readings', i], message: `“${id}”: ${message}` });
        return [];
      };
      if (readings.findIndex((one) => one.id === id) < i)
        return refuse('there is another reading of that name.');
      if (!family.readings.some((one) => one.id === reading))
        return refuse(`the model has no reading “${reading}”.`);
      const place = placeOf(family.readings, reading);
      const numbers: Record<string, number> = { elapsed_s: 0, applications: 0, ...room };
      for (const [input, given] of Object.entries(inputs))
        numbers[input] = typeof given === 'number' ? given : given.value;
      const known = family.views.flatMap(({ inputs: of }) => of.map((input) => input.id));
      const foreign = Object.keys(inputs).find((input) => !known.includes(input));
      if (foreign !== undefined) return refuse(`the model has no input “${foreign}”.`);
      const view = family.views.findIndex(
        ({ inputs: of, steady }) =>
          of.every((input) => numbers[input.id] !== undefined) &&
          Number.isFinite(
            steady(
              healthy,
              of.map((input) => numbers[input.id]!),
            )[place]!,
          ),
      );
      if (view < 0) return refuse('the inputs do not say in what state it was read.');
      const used = family.views[view]!.inputs;
      const vector = used.map((input) => numbers[input.id]!);
      const doubts = used.flatMap(({ id: input }, at): InputDoubt[] => {
        const given = inputs[input];
        if (given === undefined || typeof given === 'number') return [];
        return given.instrument
          ? [
              {
                input: at,
                of: `${input} ${given.value}`,
                random: stepUncertainty_SI(given.instrument),
                shared: sharedBy(given.instrument, given.value),
              },
            ]
          : given.u === undefined
            ? []
            : [{ input: at, of: `${id} ${input}`, random: given.u, shared: { gauge: '', u: 0 } }];
      });
      const scale = instrument
        ? scaleOf(instrument)
        : spanAbout(value, family.views[view]!.steady(healthy, vector)[place]!, u);
      const random = instrument ? stepUncertainty_SI(instrument) : u;
      const state = { view, inputs: vector };
      return [
        {
          kind: 'reading',
          id,
          of: id,
          state,
          place,
          value,
          off: offScale ?? null,
          random: apart(family, state, place, value, random),
          shared: instrument ? sharedBy(instrument, value) : null,
          doubts,
          scale,
        },
      ];
    },
  );
}

/** Where a gauge is not named, a gross error may stand anywhere up to twice what is expected or was read. */
function spanAbout(value: number, expected: number, u: number) {
  const most = 2 * Math.max(Math.abs(value), Math.abs(expected)) + 20 * u;
  return { low: Math.min(0, -most * Number(value < 0)), high: most };
}

function looksIn(
  family: Family,
  { procedure }: RunContext<unknown>,
  { looks = [] }: Seen,
  issues: Issue[],
): Evidence[] {
  const seen = new Set<string>();
  return looks.flatMap(({ item: id, answer }, i): Evidence[] => {
    const refuse = (message: string): [] => {
      issues.push({ path: ['looks', i], message });
      return [];
    };
    const item = procedure.steps.flatMap(({ items }) => items).find((one) => one.id === id);
    if (item?.kind !== 'observation' || !plannedLook(family, item))
      return refuse(`There is no look “${id}” whose error rates are known.`);
    if (!item.answers.some((one) => one.id === answer))
      return refuse(`“${id}” has no answer “${answer}”: ${item.answers.map((one) => one.id).join(', ')}.`);
    const found = seen.has(id) ? [] : lookEvidence(family, item, answer);
    // The same look twice counts once.
    if (found.length > 0) seen.add(id);
    return found;
  });
}

function offered(
  family: Family,
  { step, title, setUp, planned, chain }: PossibleStep,
): Omit<OfferedTest, 'bits' | 'minutes' | 'bitsPerMinute'> {
  return {
    step,
    title,
    setUp,
    steps: chain.map(({ id, title: named, state, items }) => ({
      step: id,
      title: named,
      sources: { ...state },
      readings: items.flatMap((item) => {
        const plan = planned.find((one) => one.id === item.id);
        if (item.kind !== 'reading' || plan?.kind !== 'reading') return [];
        const { inputs } = family.views[plan.state.view]!;
        return [
          {
            item: item.id,
            reading: item.measures,
            port: item.port,
            inputs: Object.fromEntries(inputs.map((input, i) => [input.id, plan.state.inputs[i]!])),
          },
        ];
      }),
      looks: items.flatMap((item) =>
        item.kind === 'observation' && planned.some((one) => one.id === item.id)
          ? [{ item: item.id, answers: item.answers.map((answer) => answer.id) }]
          : [],
      ),
    })),
  };
}
