/** @jest-environment node */
import type { Knex } from 'knex';
import type { RunEvent } from '@/core/contract/events';
import { gauged } from '@/core/families/bench-items';
import { FAMILIES, FAMILY_KINDS, type FamilyKind } from '@/core/families/registry';
import { seeded, uuidFrom } from '@/core/numeric/chance';
import { nextAction } from '@/core/procedure/next-action';
import { stateOf } from '@/core/records/judged-run';
import type { StoredRun } from '@/core/records/views';
import { Desk, taken } from './demo/desk';
import { FIXTURE_NOW as NOW } from './demo/fixture';
import { addJob } from './jobs';
import { addNote } from './notes';
import { appendEvent, findRun, startRun } from './runs';
import { listProfiles } from './shelf';

let desk: Desk;
let db: Knex;
beforeAll(async () => {
  desk = await Desk.open();
  db = desk.db;
});
afterAll(() => desk.close());

const WALKS = 4;
const TRIES = 120;
const random = seeded(90);
const oneOf = <T>(all: readonly T[]): T => all[Math.floor(random() * all.length)]!;
const id = () => uuidFrom(random);

async function freshRun(kind: FamilyKind, walk: number): Promise<StoredRun> {
  // The demo's gauges are wetted: those of the pump pack with mineral oil, all others with DOT 4.
  const ofKind = (await listProfiles(db)).filter((one) => one.kind === kind);
  const fluidOf = ({ body }: (typeof ofKind)[number]) => FAMILIES[kind].fluid(body);
  const profile = ofKind.find((one) => ['dot4', null].includes(fluidOf(one))) ?? ofKind[0]!;
  const fluid = fluidOf(profile) ?? 'dot4';
  const body = {
    tag: `WALK-${kind}-${walk}`,
    kind,
    profileId: profile.id,
    from: 'x',
    complaint: 'x',
    fluid,
    promisedOn: null,
  };
  return taken(await startRun(db, taken(await addJob(db, body, NOW)).id, NOW));
}

/** An event that does what is asked for next; null where that is no single event. */
function asked(run: StoredRun): object | null {
  const action = nextAction(run.context.procedure, stateOf(run));
  if (action.kind === 'acknowledge') return { type: 'acknowledged', step: action.step.id };
  if (action.kind === 'source') return { type: 'source-set', step: action.step.id, set: action.set };
  if (action.kind === 'finish') return { type: 'finished' };
  if (action.kind !== 'item') return null;
  const { item, step } = action;
  if (item.kind === 'wait') return { type: 'skipped', step: step.id, item: item.id, reason: 'short' };
  if (item.kind === 'observation')
    return { type: 'observed', item: item.id, answer: item.answers[0].id, note: '' };
  const gauge = run.context.rig[item.port]!.find(({ tiedTo }) => tiedTo === null)!;
  const value_SI = item.measures === 'zero' ? 0 : 0.4 * gauge.fullScale_Pa;
  const instrument = item.gauge ?? gauge.tag;
  return {
    type: 'captured',
    item: item.id,
    value_SI,
    typed: '1',
    by: 'typed',
    instrument,
    confirmedUnlikely: true,
  };
}

const VACUUM = [
  { source: 'vacuum', to: 'on' },
  { source: 'vacuum', to: 'off' },
];
const ENGINE = [
  { source: 'engine', to: 'idle' },
  { source: 'engine', to: 'off' },
];

/** Something that a program may send, asked for or not. */
function anything(run: StoredRun): object | null {
  const { steps } = run.context.procedure;
  const step = oneOf(steps);
  const item = oneOf(steps.flatMap(({ items }) => items));
  return oneOf<() => object | null>([
    () => ({ type: 'chosen', step: step.id }),
    () => ({
      type: 'source-set',
      step: step.id,
      set: oneOf(run.kind === 'vacuum-vehicle' ? ENGINE : VACUUM),
    }),
    () => ({ type: 'acknowledged', step: step.id }),
    () => ({ type: 'skipped', step: step.id, item: null, reason: 'x' }),
    () => ({ type: 'disturbed', steps: ['zeros'], rezero: true, opens: ['supply'], why: 'x' }),
    () =>
      item.kind === 'reading'
        ? {
            type: 'captured',
            item: item.id,
            value_SI: 0,
            typed: '0',
            by: 'typed',
            instrument: run.context.rig[item.port]![0]!.tag,
            confirmedUnlikely: true,
          }
        : null,
    () => ({ type: 'ended', reason: 'x' }),
    () => ({ type: 'finished' }),
  ])();
}

/** Ports that may hold something, counted from the events alone: what was put on since they were last read at zero, or opened. */
function mayHold(run: StoredRun): Set<string> {
  const { ports } = FAMILIES[run.kind];
  const items = new Map(
    run.context.procedure.steps.flatMap((step) => step.items.map((item) => [item.id, item])),
  );
  const held = new Set<string>();
  for (const event of run.events) {
    if (event.type === 'source-set' && ['on', 'idle'].includes(event.set.to))
      for (const { id: port, quantity } of gauged(ports)) if (quantity !== 'pressure') held.add(port);
    if (event.type === 'disturbed') for (const port of event.opens ?? []) held.delete(port);
    const item = event.type === 'captured' ? items.get(event.item) : undefined;
    if (event.type !== 'captured' || item?.kind !== 'reading') continue;
    if (item.measures === 'zero') {
      if (item.gate === 'zero' && event.value_SI === 0) held.delete(item.port);
    } else if (item.quantity === 'pressure')
      for (const { id: port, quantity } of ports) if (quantity === 'pressure') held.add(port);
  }
  return held;
}

test.each(FAMILY_KINDS)(
  '%s: whatever is sent in whatever order, no part is opened that may hold something',
  async (kind) => {
    let [opened, refused] = [0, 0];
    for (let walk = 0; walk < WALKS; walk += 1) {
      const { id: runId, jobId } = await freshRun(kind, walk);
      for (let i = 0; i < TRIES; i += 1) {
        const run = (await findRun(db, runId))!;
        if (run.finishedAt) break;
        if (random() < 0.15) {
          const part = oneOf(FAMILIES[kind].parts.filter(({ opens }) => opens.length > 0));
          const work = { part: part.id, did: 'replaced', reason: '', provenance: 'new', serial: '' };
          const before = mayHold(run);
          const answer = await addNote(db, jobId, { id: id(), entry: { type: 'work', work } }, NOW);
          if (!answer.ok) refused += 1;
          else {
            opened += 1;
            expect([part.id, part.opens.filter((port) => before.has(port))]).toEqual([part.id, []]);
            expect((await findRun(db, runId))!.events.at(-1)).toMatchObject({
              type: 'added',
              step: { closing: true },
            });
          }
          continue;
        }
        const made = random() < 0.7 ? asked(run) : anything(run);
        if (!made) continue;
        const events = [{ id: id(), at: NOW, ...made } as RunEvent];
        await appendEvent(db, runId, { expectedVersion: run.events.length, events }, NOW);
      }
    }
    // Both happened, or nothing was tried.
    expect(Math.min(opened, refused)).toBeGreaterThan(2);
  },
);
