/** @jest-environment node */
import { findItem, type ReadingItem } from '../contract/steps';
import { Diagnostician } from '../diagnosis/diagnose';
import { evidenceOf } from '../diagnosis/of-run';
import { FAMILIES, FAMILY_KINDS } from '../families/registry';
import { checkCapture } from '../procedure/check-capture';
import { gateRule, instrumentsOf } from '../procedure/measured-item';
import { reduceRun } from '../procedure/run';
import { benchOf, INHG } from './bench';

/** What a vented vacuum gauge of class 1.6 may show, and a pointer without a stop does. */
const SHOWN_PA = -0.4 * INHG;

/** Every family with a vacuum in it, as it is read on a healthy one. */
const BENCHES = FAMILY_KINDS.filter((kind) =>
  FAMILIES[kind].ports.some(({ quantity }) => quantity === 'depression'),
).map((kind) => {
  const bench = benchOf(kind);
  const context = bench.contextWith();
  const { events } = bench.bench(bench.truthWith(), context);
  const itemOf = (id: string) => findItem(context.procedure, id)?.item as ReadingItem;
  const vacuums = events.flatMap((event, at) =>
    event.type === 'captured' && itemOf(event.item).quantity === 'depression' ? [{ event, at }] : [],
  );
  const instruments = instrumentsOf(context.rig, context.shelf);
  return { ...bench, kind, context, events, itemOf, vacuums, instruments, gate: gateRule(instruments) };
});

describe.each(BENCHES)(
  '$kind: a vacuum gauge that stands a little below its zero',
  ({ family, profile, context, events, itemOf, vacuums, instruments, gate, outcome }) => {
    const shownAt = (...places: readonly number[]) =>
      events.map((event, i) => (places.includes(i) ? { ...event, value_SI: SHOWN_PA } : event));

    test('is refused nowhere: it is asked about where it is far from what can be', () => {
      expect(vacuums.length).toBeGreaterThan(3);
      const refused = vacuums.flatMap(({ event, at }) => {
        const before = reduceRun(context.procedure, events.slice(0, at), gate);
        const gauge = instruments.get(event.instrument)!;
        const candidate = { item: itemOf(event.item), gauge, value_SI: SHOWN_PA, by: 'gauge' as const };
        const problem = checkCapture(family, context, before, candidate);
        return problem && !problem.asks ? [problem.say('mixed')] : [];
      });
      expect(refused).toEqual([]);
    });
    test('makes no number that is none, wherever it stands', () => {
      for (const { event, at } of vacuums) {
        const { results, run } = outcome(context, shownAt(at));
        const numbers = results.flatMap(({ id, value, u, expected, margin, pConform }) =>
          [value, u, expected, margin, pConform].map((number) => ({ by: event.item, id, number })),
        );
        expect(
          numbers.filter(({ number }) => typeof number === 'number' && !Number.isFinite(number)),
        ).toEqual([]);
        // The judgement of a run is printed from these: JSON has no word for a number that is none.
        const evidence = evidenceOf(family, context, run);
        expect(JSON.parse(JSON.stringify(evidence))).toEqual(evidence);
      }
    });
    test('leaves the diagnosis with chances that add up', () => {
      const { run } = outcome(context, shownAt(...vacuums.map(({ at }) => at)));
      const diagnostician = new Diagnostician(family, profile, { complaint: true, weights: {} });
      const { ranked, unknown } = diagnostician.posterior(evidenceOf(family, context, run));
      expect(ranked.reduce((sum, { chance }) => sum + chance, 0)).toBeCloseTo(1, 6);
      expect(unknown).toBeGreaterThanOrEqual(0);
      expect(unknown).toBeLessThanOrEqual(1);
    });
  },
);
