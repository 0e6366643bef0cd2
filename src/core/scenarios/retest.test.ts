/** @jest-environment node */
import { stepsToRepeat, workload } from '../procedure/retest';
import { seeded } from '../numeric/chance';
import { rehearse } from '../procedure/rehearse';
import type { RunEvent } from '../contract/events';
import { disturbance, retestOf } from '../records/staleness';
import type { Noted } from '../records/job-record';
import type { Work } from '../records/entries';
import type { StoredRun } from '../records/views';
import { bench, contextWith, family, gauges, outcome, truthWith } from './bench';

const context = contextWith();
const { procedure } = context;
const first = bench(truthWith());
const carried = first.events.filter(({ type }) => type !== 'finished');
const stepIds = procedure.steps.map(({ id }) => id);
const disturbed = (steps: readonly string[], rezero = false): RunEvent => ({
  id: '00000000-0000-4000-8000-00000000d15f',
  at: '2026-11-23T12:00:00.000Z',
  type: 'disturbed',
  steps: [...steps],
  rezero,
  why: 'Test',
});
const again = (from: readonly RunEvent[], truth = truthWith()) => [
  ...from,
  ...rehearse(family, context, truth, { random: seeded(5), startAt: '2026-11-23T12:01:00.000Z', from }),
];
const verdicts = (events: readonly RunEvent[]) =>
  Object.fromEntries(outcome(context, events).results.map(({ id, verdict }) => [id, verdict]));
const whole = verdicts(first.events);

const run = (change: Partial<StoredRun> = {}): StoredRun => ({
  id: 'r',
  jobId: 'j',
  kind: 'remote-vacuum',
  context,
  events: first.events,
  continues: null,
  startedAt: '2026-11-23T08:00:00.000Z',
  finishedAt: first.events.at(-1)!.at,
  judged: null,
  ...change,
});
/** Work written after the run was closed, which was the 20th entry, unless said. */
const TESTED_TO = 20;
const work = (part: string, did: Work['did'] = 'replaced', place = TESTED_TO + 1): Noted<Work> => ({
  id: part,
  place,
  at: '2026-11-23T11:00:00.000Z',
  withdrawn: false,
  what: { part, did, reason: 'r', provenance: 'new', serial: '' },
});

describe('a part changed', () => {
  test.each(family.parts.map((part) => [part.name, part] as const))(
    '%s: its readings no longer count, and the re-test restores every verdict',
    (_name, part) => {
      for (const step of part.disturbs) expect(stepIds).toContain(step);
      const steps = stepsToRepeat(procedure, part.disturbs, part.kind === 'gauge');
      const state = [...carried, disturbed(steps, part.kind === 'gauge')];
      const lost = Object.entries(verdicts(state)).filter(
        ([id, verdict]) => verdict === 'not-taken' && whole[id] !== 'not-taken',
      );
      expect(lost.length).toBeGreaterThan(0);
      expect(verdicts(again(state))).toEqual(whole);
    },
  );
  test.each(family.parts.map((part) => [part.name, part] as const))(
    '%s: no step of the re-test could be left out',
    (_name, part) => {
      const steps = stepsToRepeat(procedure, part.disturbs, false);
      const full = again([...carried, disturbed(steps)]);
      for (const left of steps) {
        const step = procedure.steps.find(({ id }) => id === left)!;
        const items = new Set(step.items.map(({ id }) => id));
        const at = full.findIndex(({ type }) => type === 'disturbed');
        const without = full.filter(
          (event, i) => i <= at || !('item' in event) || event.item === null || !items.has(event.item),
        );
        const { results, run: state } = outcome(context, without);
        const missing = results.some(
          ({ step: of, verdict, id }) => of === left && verdict === 'not-taken' && whole[id] !== 'not-taken',
        );
        // A safety step, and the supply read afresh, stand for what is done rather than for a result of their own.
        expect(
          missing ||
            step.mandatory === true ||
            step.items.some(({ id }) => state.captures.every((c) => c.item !== id || c.stale)),
        ).toBe(true);
      }
    },
  );
  test('the parts that a fault’s repair names are parts that there are', () => {
    const known = family.parts.map(({ id }) => id);
    for (const fault of family.faults) {
      expect(fault.parts.length).toBeGreaterThan(0);
      for (const part of fault.parts) expect(known).toContain(part);
      expect(fault.confirm).toMatch(/\.$/);
    }
  });
  test('a bleed screw asks for far less than a whole unit apart', () => {
    const of = (id: string) => {
      const part = family.parts.find((one) => one.id === id)!;
      return workload(procedure, stepsToRepeat(procedure, part.disturbs, false)).readings;
    };
    expect(of('check-valve')).toBeLessThan(of('diaphragm'));
    expect(of('diaphragm')).toBeLessThan(of('whole'));
  });
  test('safety comes again, and the vacuum must be off before anything is opened', () => {
    const steps = stepsToRepeat(procedure, ['lamp-switch'], false);
    expect(steps).toEqual(['cautions', 'lamp-switch', 'make-safe']);
    const state = outcome(context, [...carried, disturbed(steps)]).run;
    expect([state.sources.vacuum, state.acknowledged, state.finished]).toEqual(['off', [], false]);
    expect(stepsToRepeat(procedure, [], false)).toEqual([]);
  });
});

describe('what has become stale since the last test', () => {
  test('work done after it counts; refused, withdrawn and earlier work does not', () => {
    const planned = (list: Noted<Work>[], runs = [run()]) =>
      retestOf({ runs, work: list, testedTo: TESTED_TO }, '2026-11-23');
    const plan = (list: Noted<Work>[]) => planned(list);
    expect(plan([work('diaphragm')])?.why).toBe('Diaphragm');
    expect(plan([work('diaphragm', 'refused')])).toBeNull();
    expect(plan([{ ...work('diaphragm'), withdrawn: true }])).toBeNull();
    expect(plan([work('diaphragm', 'replaced', TESTED_TO - 1)])).toBeNull();
    expect(planned([work('diaphragm')], [run({ finishedAt: null })])).toBeNull();
    expect(planned([work('diaphragm')], [])).toBeNull();
  });
  test('work on something unknown can have moved anything', () => {
    expect(disturbance(run(), [work('flux-capacitor')], '2026-11-23')?.steps).toEqual(stepIds);
  });
  test('on another day, and where a gauge was moved, the gauges are read vented again', () => {
    expect(disturbance(run(), [work('check-valve')], '2026-11-24')).toMatchObject({ rezero: true });
    expect(disturbance(run(), [work('check-valve')], '2026-11-24')?.steps).toContain('zeros');
    expect(disturbance(run(), [work('vacuum-gauge')], '2026-11-23')).toMatchObject({ rezero: true });
    expect(disturbance(run(), [work('check-valve')], '2026-11-23')?.steps).not.toContain('zeros');
  });
  test('a reading goes with the zeros of its own session', () => {
    // The supply gauge drifts up by 1 inHg between the two days; each reading has its own zero taken off.
    const drift = 3386.389;
    const steps = stepsToRepeat(procedure, ['supply-on'], true);
    const later = again(
      [...carried, disturbed(steps, true)],
      truthWith({ gauges: { [gauges.supply.tag]: { zero_Pa: drift } } }),
    );
    const { byId } = outcome(context, later);
    expect(byId('supply-need').value! / 3386.389).toBeCloseTo(20, 1);
    expect(byId('boost-ratio').value).toBeCloseTo(3.6, 1);
    // Read in the first session, with the zero of the first: still what it was.
    expect(byId('supply-drop').value! / 3386.389).toBeCloseTo(20, 1);
  });
});
