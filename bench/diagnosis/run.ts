import { fork, type ChildProcess } from 'node:child_process';
import { writeFileSync } from 'node:fs';
import type { Rig } from '../../src/core/contract/run-context';
import { settingUp, supplied, withSource } from '../../src/core/contract/sources';
import { holdStart, setItem, type ReadingItem } from '../../src/core/contract/steps';
import type { Beliefs } from '../../src/core/diagnosis/causes';
import { Diagnostician } from '../../src/core/diagnosis/diagnose';
import { replyTo, type OfferedTest, type Question, type Reply } from '../../src/core/diagnosis/question';
import { FAMILIES, type FamilyKind } from '../../src/core/families/registry';
import { gaugeFor } from '../../src/core/metrology/instrument';
import { leftBy } from '../../src/core/procedure/run';
import { RIGS } from '../../src/core/scenarios/bench';
import { AT_ONCE, placeOf } from '../../src/core/model/vectors';
import { ROOM } from './hands';
import type { Ask, Drawn, Told, Truth } from './protocol';
import type { Outcome } from './score';

/**
 * The protocol of handbook-models 12: installations that nobody here knows are on a stand in another process, which is told names
 * of steps. What it tells goes to the diagnosis as any program would send it, and what the diagnosis advises is done next.
 *
 * node run.cjs stand.cjs KIND COUNT SEED OUT [draws…]: outcomes as lines of JSON, to be scored by score.ts. The draws are taken in
 * turn; `shuffled` gives each installation the readings of others, `usual` goes by the textbook's order.
 */
const [, , standFile, kindName, countText, seedText, out, ...draws] = process.argv;
const kind = kindName as FamilyKind;
const count = Number(countText);
const seed = Number(seedText);
const family = FAMILIES[kind];
const rig: Rig = RIGS[kind];
const procedure = family.procedure(family.typical, rig);
const stepBy = new Map(procedure.steps.map((step) => [step.id, step]));
const items = new Map(
  procedure.steps.flatMap((step) => step.items.map((item) => [item.id, { item, step }] as const)),
);
/** How well the moments of a hold are known, s: as in a run. */
const TIMING_U_S = Math.SQRT2;
/** Inputs where nothing else is said. */
const AT: Readonly<Record<string, number>> = { ...ROOM, ...AT_ONCE };
/** Steps that open a test and show nothing: they are done. */
const OPENED = procedure.steps.filter(({ id }) => id === 'zeros' || id === 'cautions').map(({ id }) => id);
/** Other installations that a control is mixed from. */
const OTHERS = 12;
/** Longer than any test has steps. */
const MOST_STEPS = 40;

const stand: ChildProcess = fork(standFile!, [kind]);
const waiting: ((told: Told) => void)[] = [];
stand.on('message', (told: Told) => waiting.shift()!(told));
const ask = <K extends Told['kind']>(asked: Ask): Promise<Extract<Told, { kind: K }>> =>
  new Promise((resolve) => {
    waiting.push(resolve as (told: Told) => void);
    stand.send(asked);
  });

/** Diagnosticians by what the library knows: laid out once. Few are kept, since each holds all that it predicted. */
const kept = new Map<string, Diagnostician>();
function diagnosticianOf(profile: unknown, beliefs: Beliefs): Diagnostician {
  const key = JSON.stringify(beliefs);
  const found = kept.get(key) ?? new Diagnostician(family, profile, beliefs);
  kept.delete(key);
  kept.set(key, found);
  if (kept.size > 2) kept.delete(kept.keys().next().value!);
  return found;
}

type Seen = Extract<Told, { kind: 'seen' }>;
type Step = OfferedTest['steps'][number];
type Read = NonNullable<Question['readings']>[number];

const everyInput = family.views.flatMap((view) => view.inputs);
/** Items at which what stands at a port is read of a source, while nothing is done: what leans on another of them is none. */
const restingAt = (port: string) =>
  [...items.values()].flatMap(({ item, step }) =>
    item.kind === 'reading' &&
    item.port === port &&
    !item.sourceFrom &&
    /^(supply|source[.].*)$/.test(item.measures)
      ? [{ item, step }]
      : [],
  );

/** What a source was read as at a port for a reading, by the item that says it: as a run does it. */
function sourceFor(
  item: ReadingItem,
  port: string,
  shown: Readonly<Record<string, number>>,
): number | undefined {
  const { step } = items.get(item.id)!;
  const resting = restingAt(port);
  // What the unit itself pulls down while its source draws is reckoned by the twin, and does not count as what the source makes.
  const named = [item.sourceFrom, holdStart(procedure, item)].find((id) => {
    const other = id ? items.get(id)!.item : undefined;
    if (other?.kind !== 'reading' || other.port !== port) return false;
    return !supplied(step.state) || resting.some(({ item: one }) => one === other);
  });
  // What the same step read before it; else where it stands at rest first, or as it was read last.
  const own = resting.findLast(
    ({ item: one, step: of }) => of === step && of.items.indexOf(one) < of.items.indexOf(item),
  );
  const last = Object.keys(shown).findLast((id) =>
    resting.some(({ item: one, step: of }) => one.id === id && of !== step),
  );
  return [named, own?.item.id, resting[0]?.item.id, last]
    .map((id) => shown[id ?? ''])
    .find((value) => value !== undefined);
}

/** Inputs of a reading: by the view of the model that takes the most from what was read, as a run does it. */
function inputsOf(
  item: ReadingItem,
  planned: Readonly<Record<string, number>>,
  shown: Readonly<Record<string, number>>,
): Readonly<Record<string, number>> {
  // What a source shows under a load leans on what it shows at rest.
  if (!item.inputFrom && restingAt(item.port).some(({ item: one }) => one === item)) return planned;
  const place = placeOf(family.readings, item.measures);
  const healthy = family.healthy(family.typical).values;
  for (const view of family.views) {
    const given = view.inputs.map(({ id, from }) => {
      if (from?.as === 'source')
        return planned[id] === 0 ? 0 : (sourceFor(item, from.port, shown) ?? planned[id]);
      if (from?.as !== 'set') return planned[id] ?? AT[id];
      const set = setItem(procedure, item, from.port);
      return set ? shown[set.id] : planned[id];
    });
    if (given.some((value) => value === undefined)) continue;
    if (!Number.isFinite(view.steady(healthy, given as number[])[place]!)) continue;
    return Object.fromEntries(view.inputs.map(({ id }, i) => [id, given[i]!]));
  }
  return planned;
}

/**
 * What was seen in a step, as evidence. A reading of the unit is taken at the vacuum that was read, wherever one was.
 *
 * @param shown everything that was read so far, by item
 */
function evidenceOf(
  { readings, looks }: Step,
  seen: Seen,
  shown: Readonly<Record<string, number>>,
): Required<Pick<Question, 'readings' | 'looks'>> {
  return {
    readings: readings.flatMap(({ item, reading, port, inputs }): Read[] => {
      const value = seen.readings[item];
      const gauge =
        value === undefined ? undefined : (gaugeFor(rig[port] ?? [], Math.abs(value)) ?? rig[port]?.at(-1));
      if (value === undefined || !gauge) return [];
      const at = items.get(item)!.item as ReadingItem;
      const given = inputsOf(at, inputs, shown);
      return [
        {
          id: item,
          reading,
          value,
          instrument: gauge,
          ...(value >= gauge.fullScale_Pa && { offScale: 'above' as const }),
          inputs: Object.fromEntries(
            Object.entries(given).map(([id, value]) => {
              const from = everyInput.find((input) => input.id === id)?.from;
              const on = from ? gaugeFor(rig[from.port] ?? [], value) : null;
              if (on && value !== 0) return [id, { value, instrument: on }];
              const held = id === 'elapsed_s' && holdStart(procedure, at) !== null;
              return [id, held ? { value, u: TIMING_U_S } : value];
            }),
          ),
        },
      ];
    }),
    looks: looks.flatMap(({ item }) => {
      const answer = seen.looks[item];
      return answer === undefined ? [] : [{ item, answer }];
    }),
  };
}

/** What some installations showed in one step, item by item in turn. */
function mixed(all: readonly Seen[], first: number): Seen {
  const take = <T>(of: (seen: Seen) => Readonly<Record<string, T>>) =>
    Object.fromEntries(
      Object.keys(of(all[0]!)).flatMap((item, i) => {
        const value = of(all[(first + i) % all.length]!)[item];
        return value === undefined ? [] : [[item, value] as const];
      }),
    );
  return { ...all[0]!, readings: take(({ readings }) => readings), looks: take(({ looks }) => looks) };
}

interface Line extends Outcome {
  readonly number: number;
  readonly drawn: string;
}

async function one(
  number: number,
  drawn: Drawn,
  order: 'advice' | 'usual',
  shuffled: boolean,
): Promise<Line> {
  const { leftOut } = await ask<'opened'>({ kind: 'open', number, seed: seed * 100_003 + number, drawn });
  // The control: every number and answer comes from another installation.
  const others = shuffled ? Array.from({ length: OTHERS }, (_, i) => 1_000_000 + number * 100 + i) : [];
  for (const other of others) await ask({ kind: 'open', number: other, seed: seed * 100_003 + other, drawn });
  const question: Question = {
    rig: rig as Question['rig'],
    weights: leftOut ? { [leftOut]: 0 } : {},
    readings: [],
    looks: [],
    done: [...OPENED],
  };
  const shown: Record<string, number> = {};
  let minutes = 0;
  let steps = 0;
  let reply: Reply;
  for (;;) {
    const replied = replyTo(family, question, diagnosticianOf);
    if (!replied.ok) throw new Error(JSON.stringify(replied.issues));
    reply = replied.reply;
    const { standing, next } = reply;
    if (standing.is !== 'open') break;
    const best =
      order === 'advice'
        ? next[0]!
        : procedure.steps.flatMap(({ id }) =>
            next.filter(({ step, steps: of }) => step === id && of.length > 0),
          )[0]!;
    minutes += best.minutes;
    for (const step of best.steps) {
      steps += 1;
      const all = [];
      for (const from of shuffled ? others : [number])
        all.push(await ask<'seen'>({ kind: 'step', number: from, step: step.step }));
      const seen = mixed(all, steps);
      Object.assign(shown, seen.readings);
      const evidence = evidenceOf(step, seen, shown);
      question.readings!.push(...evidence.readings);
      question.looks!.push(...evidence.looks);
      question.done!.push(step.step);
      // The next one is set up from how this one leaves the sources.
      const { sources = {} } = question;
      const done = stepBy.get(step.step)!;
      question.sources = leftBy(done, settingUp(sources, done.state).reduce(withSource, sources));
    }
    if (steps > MOST_STEPS) throw new Error(`${number}: it does not come to an end`);
  }
  for (const other of others) await ask({ kind: 'reveal', number: other });
  const { truth } = await ask<'revealed'>({ kind: 'reveal', number });
  return { number, drawn, ...outcomeOf(reply, truth, minutes, steps) };
}

function outcomeOf(
  { standing, repairs, unexplained, causes }: Reply,
  truth: Truth,
  minutes: number,
  steps: number,
): Outcome {
  const by = Object.entries(repairs).sort(([, a], [, b]) => b - a);
  return {
    truth,
    stood: standing.is,
    claimed: standing.is === 'claimed' ? standing.repair : null,
    group: standing.is === 'not-told-apart' ? standing.group : [],
    top: by[0]!,
    repairs: Object.fromEntries(by.slice(0, 8)),
    unexplained,
    likeliest: causes[0]!.id,
    minutes,
    steps,
  };
}

async function all(): Promise<void> {
  const lines: string[] = [];
  const plan = Array.from({ length: count }, (_, i) => ({ number: i, draw: draws[i % draws.length]! }));
  const started = performance.now();
  let at = 0;
  const worker = async () => {
    while (at < plan.length) {
      const { number, draw } = plan[at++]!;
      const usual = draw.startsWith('usual:');
      const shuffled = draw.startsWith('shuffled:');
      const drawn = draw.replace(/^.*:/, '') as Drawn;
      const line = await one(number, drawn, usual ? 'usual' : 'advice', shuffled);
      lines.push(JSON.stringify({ ...line, drawn: draw }));
      if (lines.length % 20 === 0) {
        writeFileSync(out!, `${lines.join('\n')}\n`);
        console.log(
          `${lines.length} of ${count}, ${((performance.now() - started) / lines.length).toFixed(0)} ms each`,
        );
      }
    }
  };
  await Promise.all([worker(), worker()]);
  writeFileSync(out!, `${lines.join('\n')}\n`);
  stand.kill();
}

await all();
