import fc from 'fast-check';
import { sourceState, supplied } from '../contract/sources';
import { findItem, type Step } from '../contract/steps';
import { gauged } from '../families/bench-items';
import { FAMILIES, FAMILY_KINDS, type FamilyKind } from '../families/registry';
import { nextAction } from '../procedure/next-action';
import { RIGS } from './bench';
import { runOf, type Made } from './run-of';

/** Kinds of which fluid under pressure outlives the source, and the ports behind their check valves. */
const STORING = FAMILY_KINDS.flatMap((kind) => {
  const family = FAMILIES[kind];
  const stored = gauged(family.ports)
    .filter(({ id, quantity }) => quantity === 'pressure' && id in RIGS[kind])
    .map(({ id }) => id)
    .filter((id) => family.inputs.some(({ from }) => from?.as === 'source' && from.port === id));
  return stored.length > 0 ? [[kind, stored] as const] : [];
});

const isOpening = ({ id, cautions, mandatory }: Step) =>
  cautions.includes('open-line') && !mandatory && id !== 'zeros';
const openingSteps = (kind: FamilyKind) =>
  runOf(kind)
    .procedure()
    .steps.filter(isOpening)
    .map(({ id }) => id);

test('those are the kinds with accumulators behind gauges, and the steps in which a line is opened before the test ends', () =>
  expect(STORING.map(([kind, stored]) => [kind, stored, openingSteps(kind)])).toEqual([
    ['pedal-valve', ['supply', 'supply-2'], []],
    ['hydraulic-booster', ['line'], []],
    ['motor-pump-booster', ['supply'], []],
    ['stored-pressure', ['supply', 'supply-2'], []],
    ['motor-pump-vehicle', ['supply'], []],
    ['hydraulic-vehicle', ['line'], []],
    ['stored-pressure-vehicle', ['supply', 'supply-2'], ['rams']],
    ['pedal-valve-vehicle', ['supply', 'supply-2'], []],
    ['by-wire-vehicle', ['supply'], []],
  ]));

test('a body that stands on what was bled is not lifted again: behind those steps no source is asked for', () => {
  for (const [kind] of STORING) {
    const { steps } = runOf(kind).procedure();
    const first = steps.findIndex(isOpening);
    if (first < 0) continue;
    expect(
      steps
        .slice(first)
        .filter(({ state }) => supplied(state))
        .map(({ id }) => id),
    ).toEqual([]);
  }
});

/** What somebody may try at any moment: what is asked for, done well or badly, put off, or something else. */
const tries = fc.record({
  way: fc.constantFrom('do', 'do', 'do', 'do', 'badly', 'skip', 'skip-step', 'choose', 'reason', 'end-wait'),
  which: fc.nat(1000),
});

/**
 * Walks through a test in any order and with any answers, and looks at every step in which a line is opened: by what was taken in, each
 * stored port was read at zero, or looked at where no gauge stands, since it was last fed. The world is kept apart from the run.
 */
describe.each(STORING.filter(([kind]) => openingSteps(kind).length > 0))(
  '%s: no path leads round the gates',
  (kind, stored) => {
    const openings = openingSteps(kind);
    test('a line is opened only with every stored port at zero', () => {
      let opened = 0;
      fc.assert(
        fc.property(fc.array(tries, { minLength: 60, maxLength: 90 }), (walk) => {
          const run = runOf(kind);
          run.upTo('flick.supply');
          const live = new Map(stored.map((port) => [port, true]));
          for (const { way, which } of walk) {
            const procedure = run.procedure();
            const action = nextAction(procedure, run.state());
            if (action.kind === 'done') return;
            const step = 'step' in action ? action.step : null;
            const item = action.kind === 'item' || action.kind === 'stopped' ? action.item : null;
            const made = ((): Made | null => {
              if (way === 'choose')
                return {
                  type: 'chosen',
                  step:
                    which % 2 === 0
                      ? openings[which % openings.length]!
                      : procedure.steps[which % procedure.steps.length]!.id,
                };
              if (way === 'skip' && step && item)
                return { type: 'skipped', step: step.id, item: item.id, reason: 'No time' };
              if (way === 'skip-step' && step)
                return { type: 'skipped', step: step.id, item: null, reason: 'No time' };
              if (way === 'reason' && item) return { type: 'gone-on', item: item.id, reason: 'In a hurry' };
              if (action.kind === 'acknowledge') return { type: 'acknowledged', step: action.step.id };
              if (action.kind === 'source')
                return { type: 'source-set', step: action.step.id, set: action.set };
              if (!item) return null;
              if (item.kind === 'observation') {
                const answer = item.answers[way === 'badly' ? which % item.answers.length : 0]!;
                return { type: 'observed', item: item.id, answer: answer.id, note: '' };
              }
              if (item.kind === 'wait')
                return {
                  type: 'wait-ended',
                  item: item.id,
                  ...(way === 'end-wait' && { early: true as const }),
                };
              // A gauge at a gate shows what stands there: nothing, once it was really used up.
              const value = item.gate ? (way === 'badly' ? 5e6 : 0) : item.measures === 'zero' ? 0 : 1e5;
              return {
                type: 'captured',
                item: item.id,
                value_SI: value,
                typed: '1',
                by: 'typed',
                instrument: (item.gauge ?? RIGS_OF(kind)[item.port]!.at(-1)!.tag)!,
                confirmedUnlikely: true,
              };
            })();
            if (!made || run.take(made)) continue;
            if (made.type === 'source-set' && sourceState(made.set).supplies)
              for (const port of stored) live.set(port, true);
            if (made.type !== 'captured' && made.type !== 'observed') continue;
            const found = findItem(procedure, made.item)!;
            if (found.item.kind === 'reading' && found.item.gate === 'zero' && made.type === 'captured')
              if (live.has(found.item.port)) live.set(found.item.port, made.value_SI !== 0);
            if (!isOpening(found.step)) continue;
            opened += 1;
            expect([...live].filter(([, holds]) => holds)).toEqual([]);
          }
        }),
        { numRuns: 40, seed: 12, endOnFailure: true },
      );
      // A walk that never gets there would show nothing.
      expect(opened).toBeGreaterThan(0);
    });
  },
);

const RIGS_OF = (kind: keyof typeof RIGS) =>
  RIGS[kind] as Readonly<Record<string, readonly { tag: string }[]>>;
