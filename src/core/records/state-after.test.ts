import fc from 'fast-check';
import { FAMILY_KINDS } from '../families/registry';
import type { RunEvent } from '../contract/events';
import { seeded, uuidFrom } from '../numeric/chance';
import { contextWith } from '../procedure/exchange';
import { takeBackLast } from '../procedure/taking-back';
import { benchOf } from '../scenarios/bench';
import { stateAfter, stateOf } from './judged-run';

test('a state that is kept and added to is the one that all its events give anew, whatever is taken back', () => {
  fc.assert(
    fc.property(
      fc.constantFrom(...FAMILY_KINDS),
      fc.array(fc.double({ min: 0, max: 0.999, noNaN: true }), { minLength: 1, maxLength: 12 }),
      fc.integer({ min: 1, max: 1000 }),
      (kind, moments, seed) => {
        const { context, events: whole } = benchOf(kind).bench(benchOf(kind).truthWith(), undefined, seed);
        const random = seeded(seed);
        let events: RunEvent[] = [];
        let now = { ...context };
        let state = stateOf({ context: now, events });
        const add = (event: RunEvent) => {
          state = stateAfter({ context: now, events }, state, event);
          events = [...events, event];
          now = contextWith(now, events);
        };
        const back = new Set(moments.map((moment) => Math.floor(moment * whole.length)));
        whole.forEach((event, i) => {
          add(event);
          if (!back.has(i)) return;
          for (const deed of takeBackLast(events))
            add({ ...deed, id: uuidFrom(random), at: event.at } as RunEvent);
        });
        expect(state).toEqual(stateOf({ context: now, events }));
      },
    ),
    { numRuns: 20, seed: 33 },
  );
});
