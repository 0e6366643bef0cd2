/** @jest-environment node */
import { version } from '../../../package.json';
import { findItem, type ReadingItem } from '../contract/steps';
import type { RunContext } from '../contract/run-context';
import { bench, BAR, contextWith, family, INHG, outcome, truthWith } from '../scenarios/bench';
import { admitEntry, jobRecord, type Written } from './job-record';
import { judgedNow, judgedRun, judgementOf, otherwiseSentences, saidOtherwise } from './judged-run';
import { judgementSchema, type Judgement } from './judgement';
import { PROGRAM_VERSION } from './program';
import { reportDocument } from '../documents/report-document';
import type { StoredRun } from './views';

const uuid = (n: number) => `00000000-0000-4000-8000-${String(n).padStart(12, '0')}`;
const AT = '2026-11-23T15:00:00.000Z';
const RUN = uuid(2);

const context = contextWith();
const whole = bench(truthWith(), context);
const run: StoredRun = {
  id: RUN,
  jobId: 'job',
  kind: 'remote-vacuum',
  context,
  events: whole.events,
  continues: null,
  startedAt: AT,
  finishedAt: AT,
  judged: null,
};
const judgement = judgementOf(run, 'finished');

/** What was written, had the rules been others: B failed, and one thing was judged that no rule judges today. */
const written: Judgement = {
  ...judgement,
  assessment: { call: 'faulty', headline: 'The unit fails', reasons: [] },
  results: [
    ...judgement.results.map((result) =>
      result.id === 'boost-ratio' ? { ...result, verdict: 'fails' as const } : result,
    ),
    { ...judgement.results[0]!, id: 'old-rule', name: 'A thing of old', verdict: 'meets' },
  ],
};

describe('a finished run', () => {
  test('is what was written of it, whatever the rules of today', () => {
    const judged = judgedRun({ ...run, judged: written });
    expect(judged.assessment.headline).toBe('The unit fails');
    expect(judged.results.find(({ id }) => id === 'boost-ratio')!.verdict).toBe('fails');
    expect(judgedNow(run).assessment.headline).toBe('The unit met every limit tested');
  });
  test('has today’s view beside it, result by result, and none where nothing differs', () => {
    expect(saidOtherwise({ ...run, judged: judgement })).toBeNull();
    expect(saidOtherwise(run)).toBeNull();
    const otherwise = saidOtherwise({ ...run, judged: written });
    expect(otherwise).toEqual({
      headline: 'The unit met every limit tested',
      verdicts: [
        { name: 'Boost ratio B, as a slope', then: 'Fails', now: 'Meets' },
        { name: 'A thing of old', then: 'Meets', now: null },
      ],
    });
    expect(otherwiseSentences(otherwise as never)).toContain(
      'A thing of old: Meets as written; not judged today.',
    );
  });
  test('that today’s program cannot judge is still what was written', () => {
    const broken = { ...context, profile: null } as unknown as RunContext<unknown>;
    const old = { ...run, context: broken, judged: written };
    expect(judgedRun(old).assessment.headline).toBe('The unit fails');
    expect(saidOtherwise(old)).toBe('unreadable');
    expect(otherwiseSentences('unreadable')[0]).toMatch(/cannot judge/);
  });
  test('its report prints what was written, today’s view beside it, and how it came to be judged', () => {
    const entries: Written['entry'][] = [
      {
        type: 'taken-in',
        job: {
          tag: 'T',
          kind: 'remote-vacuum',
          profileId: uuid(1),
          from: '',
          complaint: '',
          fluid: 'dot4',
          promisedOn: null,
        },
        profile: { id: uuid(1), kind: 'remote-vacuum', revision: 1, body: context.profile },
      },
      {
        type: 'run-started',
        run: RUN,
        kind: 'remote-vacuum',
        revision: 1,
        context: context as never,
        continues: null,
      },
      ...whole.events.map((event) => ({ type: 'run-event' as const, run: RUN, event })),
    ];
    const lines = entries.map((entry, i) => ({ id: uuid(100 + i), place: i + 1, at: AT, entry }));
    const words = (how: Judgement['how']) => {
      const record = jobRecord('job', lines, new Map([[RUN, { ...written, how }]]))!;
      const stored = record.runs[0]!;
      const printing = {
        set: 'metric',
        shop: { shopName: '', shopAddress: '', shopTelephone: '', logo: '' },
        day: String,
        time: String,
      } as const;
      return JSON.stringify(reportDocument(record, stored, judgedRun(stored), printing).blocks);
    };
    expect(words('finished')).toContain('"The unit fails"');
    expect(words('finished')).toContain('Headline today: The unit met every limit tested.');
    expect(words('finished')).not.toContain('Judged on import');
    expect(words('imported')).toContain('Judged on import');
    const record = jobRecord('job', lines)!;
    expect(admitEntry(record, judgement)).toBeNull();
    expect(admitEntry(record, { ...judgement, run: uuid(9) })).toBe('no-such-run');
    const begun = jobRecord('job', lines.slice(0, -1))!;
    expect(admitEntry(begun, judgement)).toBe('not-finished');
    const again = { id: uuid(99), place: 999, at: AT, entry: judgement };
    expect(admitEntry(jobRecord('job', [...lines, again]), judgement)).toBe('judged-already');
  });
  test('is written as JSON and read back as it was, under the version of the program', () => {
    expect(judgementSchema.parse(JSON.parse(JSON.stringify(judgement)))).toEqual(
      JSON.parse(JSON.stringify(judgement)),
    );
    expect(judgement.program).toBe(version);
    expect(PROGRAM_VERSION).toBe(version);
  });
});

describe('a reading carried over', () => {
  // A pump that reaches two thirds of the barometer: 20 inHg at the sea, 16.5 inHg where the barometer is 83 500 Pa.
  const later = {
    ...context,
    conditions: { ...context.conditions, barometer_Pa: 83_500 },
    earlier: [{ until: whole.events.length, barometer_Pa: 101_325, temperature_K: 293.15 }],
  };
  test('keeps the room it was taken in: its verdicts are those of that room', () => {
    const kept = outcome(later, whole.events);
    for (const { id, verdict, expected } of whole.results) {
      expect(kept.byId(id)).toMatchObject({ verdict });
      if (expected !== null) expect(kept.byId(id).expected).toBeCloseTo(expected, 6);
    }
    const { earlier: _none, ...moved } = later;
    const lost = outcome(moved, whole.events);
    // Referred to the sea from 83 500 Pa, 20 inHg would be 24.3: the ratio of the barometers, 1.2135.
    expect(kept.byId('supply-health').value! / INHG).toBeCloseTo(20, 1);
    expect(lost.byId('supply-health').value! / INHG).toBeCloseTo(20 * 1.2135, 1);
  });
  test('what is read now is expected in the room of now', () => {
    const step = whole.events.findIndex(
      (event) => event.type === 'captured' && event.item === 'loss-released.end',
    );
    const before = { ...later, earlier: [{ ...later.earlier[0]!, until: step }] };
    const run = outcome(before, whole.events.slice(0, step)).run;
    const item = findItem(context.procedure, 'loss-released.end')!.item as ReadingItem;
    const expected = (of: RunContext<unknown>) => family.expect(of, run, item)!.expected!;
    const { earlier: _none, ...nowOnly } = before;
    expect(expected(before)).toBe(expected(nowOnly));
    expect(expected(before)).not.toBeCloseTo(expected(context), 3);
    expect(expected(context)).toBeLessThan(1 * BAR);
  });
});
