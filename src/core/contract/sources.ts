import { z } from 'zod';

/** States of some sources of energy, by name. */
export const sourcesSchema = z.strictObject({
  power: z.enum(['isolated', 'on']).optional(),
  ignition: z.enum(['off', 'on']).optional(),
  engine: z.enum(['off', 'idle', 'raised']).optional(),
  vacuum: z.enum(['off', 'on']).optional(),
  pump: z.enum(['off', 'on']).optional(),
  charge: z.enum(['spent', 'full']).optional(),
});
export type Sources = Readonly<z.infer<typeof sourcesSchema>>;
export type SourceId = keyof Sources;

const idSchema = sourcesSchema.keyof();

/** One source in one of its states. */
export const sourceSetSchema = z
  .strictObject({ source: idSchema, to: z.string().max(20) })
  .refine(
    ({ source, to }) => sourcesSchema.safeParse({ [source]: to }).success,
    'That source has no such state.',
  );
export type SourceSet = Readonly<z.infer<typeof sourceSetSchema>>;

/** A state of a source: how it is asked for, what is said once it is so, and what may come of it. */
interface SourceState {
  /** What to do to get there, in a sentence. */
  readonly ask: string;
  /** What the technician answers with once it is so. */
  readonly said: string;
  /** The same for a narrow place. */
  readonly words: string;
  /** Something may come from it: nothing is opened while it stands so. */
  readonly live: boolean;
  /** It keeps the unit supplied. */
  readonly supplies: boolean;
  /** Ports that it may put something on: those that hold no fluid, or every one. */
  readonly reaches: 'dry' | 'all' | null;
  /** Time that a technician needs to get there, s. Handbook-models 8: a recharge is half a minute. */
  readonly takes_s: number;
}

const AT_REST = { live: false, supplies: false, reaches: null } as const;
/** It supplies nothing by itself, and may move something: a motor pump wakes with the ignition. */
const AWAKE = { live: true, supplies: false, reaches: 'all' } as const;
const SUPPLYING = { live: true, supplies: true, reaches: 'all' } as const;

type Named = { readonly [S in SourceId]-?: Readonly<Record<NonNullable<Sources[S]>, SourceState>> };

/** Every state of every source, the one at rest first. Sources are turned on in this order, and off in the reverse one. */
export const SOURCES: Named = {
  power: {
    isolated: {
      ...AT_REST,
      ask: 'Isolate the power as the maker says, and secure it against coming back.',
      takes_s: 60,
      said: 'Power is isolated',
      words: 'Power isolated',
    },
    on: { ...SUPPLYING, ask: 'Connect the power.', takes_s: 60, said: 'Power is on', words: 'Power on' },
  },
  ignition: {
    off: {
      ...AT_REST,
      ask: 'Turn the ignition off.',
      takes_s: 5,
      said: 'Ignition is off',
      words: 'Ignition off',
    },
    on: { ...AWAKE, ask: 'Turn the ignition on.', takes_s: 5, said: 'Ignition is on', words: 'Ignition on' },
  },
  engine: {
    off: { ...AT_REST, ask: 'Stop the engine.', takes_s: 5, said: 'Engine is off', words: 'Engine off' },
    idle: {
      ...SUPPLYING,
      ask: 'Start the engine and let it idle.',
      takes_s: 20,
      said: 'Engine idles',
      words: 'Engine idling',
    },
    raised: {
      ...SUPPLYING,
      ask: 'Bring the engine to the speed named.',
      takes_s: 20,
      said: 'Engine is at that speed',
      words: 'Engine at speed',
    },
  },
  vacuum: {
    off: {
      ...AT_REST,
      ask: 'Shut the vacuum off at the bench valve.',
      takes_s: 5,
      said: 'Vacuum is off',
      words: 'Vacuum off',
    },
    on: {
      ...SUPPLYING,
      reaches: 'dry',
      ask: 'Open the vacuum.',
      takes_s: 20,
      said: 'Vacuum is on',
      words: 'Vacuum on',
    },
  },
  pump: {
    off: { ...AT_REST, ask: 'Stop the pump.', takes_s: 5, said: 'Pump is off', words: 'Pump off' },
    on: { ...SUPPLYING, ask: 'Start the pump.', takes_s: 20, said: 'Pump is on', words: 'Pump on' },
  },
  charge: {
    spent: {
      ...AT_REST,
      ask: 'Use up what is stored: apply until the gauge falls no more.',
      takes_s: 20,
      said: 'It is used up',
      words: 'Charge used up',
    },
    full: {
      ...AWAKE,
      ask: 'Charge it until the gauge rises no more.',
      takes_s: 30,
      said: 'It is charged',
      words: 'Fully charged',
    },
  },
};

const IDS = Object.keys(SOURCES) as SourceId[];

/** What a run begins with: a bench valve is shut as a unit is connected. Of anything else the technician is asked. */
export const AT_START: Sources = { vacuum: 'off' };

/** A state of a source. @throws RangeError where the source has none of that name */
export function sourceState({ source, to }: SourceSet): SourceState {
  const found = (SOURCES[source] as Readonly<Record<string, SourceState>>)[to];
  if (!found) throw new RangeError(`${source}: no state “${to}”`);
  return found;
}

/** The sources named, each with its state, in the order in which they are turned on. */
export const sourcesIn = (sources: Sources): (SourceSet & SourceState)[] =>
  IDS.flatMap((source) => {
    const to = sources[source];
    return to === undefined ? [] : [{ source, to, ...sourceState({ source, to }) }];
  });

/** Whether anything that these states name keeps the unit supplied. */
export const supplied = (sources: Sources): boolean => sourcesIn(sources).some(({ supplies }) => supplies);

/** Those from which something may come, in words. */
export const liveWords = (sources: Sources): string[] =>
  sourcesIn(sources).flatMap(({ live, said }) => (live ? [said] : []));

/** The state of a source in which nothing comes of it. */
const atRest = (source: SourceId): string => Object.keys(SOURCES[source])[0]!;

/** Every source that some states name, at rest. */
export const allAtRest = (states: readonly Sources[]): Sources =>
  Object.fromEntries(
    IDS.flatMap((source) =>
      states.some((one) => one[source] !== undefined) ? [[source, atRest(source)]] : [],
    ),
  );

/** Sources after lines were off: nothing comes from any of them, and what is stored is not known. */
export const afterOpening = ({ charge: _charge, ...sources }: Sources): Sources => ({
  ...sources,
  ...Object.fromEntries(
    sourcesIn(sources).flatMap(({ source, live }) => (live ? [[source, atRest(source)]] : [])),
  ),
});

/** Sources after one was set. One that supplies the unit may have charged it: what was spent is not known any more. */
export function withSource(sources: Sources, { source, to }: SourceSet): Sources {
  const { charge, ...rest } = sources;
  const kept =
    source !== 'charge' && sourceState({ source, to }).supplies
      ? rest
      : { ...rest, ...(charge && { charge }) };
  return { ...kept, [source]: to };
}

/**
 * The next source to be set before a step can be done: those to be put to rest come first, the last turned on of them
 * before the others, then those to be turned on. Null where all stand as the step needs them.
 */
export function nextSource(now: Sources, needed: Sources): SourceSet | null {
  const differing = sourcesIn(needed).filter(({ source, to }) => now[source] !== to);
  const next = differing.findLast(({ live }) => !live) ?? differing[0];
  return next ? { source: next.source, to: next.to } : null;
}

/** What has to be set, in order, from some states to those that a step needs. */
export function settingUp(now: Sources, needed: Sources): SourceSet[] {
  const sets: SourceSet[] = [];
  let at = now;
  for (let next = nextSource(at, needed); next && sets.length < MOST_SETS; next = nextSource(at, needed)) {
    sets.push(next);
    at = withSource(at, next);
  }
  return sets;
}

/** Every source once there and back. */
const MOST_SETS = 2 * IDS.length;
