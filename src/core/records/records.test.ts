import { bench, contextWith, faultyTruth, gauges, INHG, outcome, truthWith } from '../scenarios/bench';
import { NOT_CLAIMED } from '../contract/cautions';
import type { RunEvent } from '../contract/events';
import { expectedCurve } from '../families/expected-curve';
import { FAMILIES } from '../families/registry';
import { jobSchema } from './job';
import { reportContent } from '../documents/report';
import { conditionsFrom, INITIAL_SETTINGS, settingsSchema, stationPressure_Pa } from '../shop/settings';

const contentOf = (found: ReturnType<typeof outcome>) =>
  reportContent(found.context, found.run, found.results, found.assessment);

describe('what the report says beyond the results', () => {
  test('a whole run on a healthy unit: everything was tested, and the plain words say what was met', () => {
    const content = contentOf(bench(truthWith()));
    expect(content.untested).toEqual([]);
    expect(content.plain).toEqual([
      'We tested your brake unit on the bench. Every limit that we tested was met.',
    ]);
    expect(content.cautions.length).toBeGreaterThan(3);
  });
  test('a failing unit is named by what is outside its limits', () => {
    const { plain } = contentOf(bench(faultyTruth('cup-bypass', 1)));
    expect(plain[0]).toMatch(/did not meet its limits/);
    expect(plain[1]).toMatch(/output loss on hold/);
  });
  test('a weak supply is told to the customer as the supply', () => {
    expect(contentOf(bench(truthWith({ supply_Pa: 15 * INHG }))).plain[0]).toMatch(
      /our bench’s vacuum, not your unit/,
    );
  });
  test('what was skipped is listed with its reason, what was not reached as that', () => {
    const { events, context } = bench(truthWith());
    const cut = events.findIndex((e) => e.type === 'captured' && e.item === 'hold.input');
    const skip: RunEvent = {
      id: '00000000-0000-4000-8000-00000000cccc',
      at: '2026-11-23T09:00:00.000Z',
      type: 'skipped',
      step: 'hold',
      item: null,
      reason: 'Hose burst',
    };
    const { untested } = contentOf(outcome(context, [...events.slice(0, cut), skip]));
    const why = (what: string) => untested.find((one) => one.what === what)?.why;
    expect(why('Output loss on hold')).toBe('Skipped: Hose burst');
    expect(why('Seep look under pressure: end cap')).toBe('Skipped: Hose burst');
    expect(why('Residual output after release')).toBe('Not reached yet');
  });
  test('a point that could not be looked at is not a pass', () => {
    const { results } = bench(truthWith({ signs: { 'seep-high.end-cap': 'not-looked' } }));
    expect(results.find(({ id }) => id === 'seep-high.end-cap')).toMatchObject({
      verdict: 'not-taken',
      seen: 'Could not look',
    });
  });
  test('verdicts that lean on an overdue gauge are named, those that do not are not', () => {
    const late = { ...gauges.activation, calibrationDue: '2026-01-01' };
    const context = contextWith({ rig: { ...contextWith().rig, activation: [late] }, shelf: [] });
    const content = contentOf(bench(truthWith(), context));
    expect(content.leansOnOverdue).toContain('Activation equals supply at rest');
    expect(content.leansOnOverdue).not.toContain('Boost ratio B, as a slope');
    expect(content.instruments.find(({ gauge }) => gauge.tag === 'VAC-A')?.calibration).toBe('overdue');
  });
  test('it defers to the maker, the rules and a licensed technician, and claims no safety', () => {
    expect(NOT_CLAIMED).toMatch(/do not say that a vehicle is safe to drive/);
    expect(NOT_CLAIMED).toMatch(/maker’s procedure, local regulation and a licensed technician/);
  });
});

describe('the curve of a healthy unit', () => {
  const family = FAMILIES['remote-vacuum'];
  const curve = expectedCurve(family, contextWith(), 15 * INHG, 30e5);
  test('follows B, then runs out where the handbook says', () => {
    const at = (bar: number) =>
      curve.reduce((best, p) =>
        Math.abs(p.input - bar * 1e5) < Math.abs(best.input - bar * 1e5) ? p : best,
      );
    const below = at(15);
    expect(below.expected).toBeCloseTo(3.6 * below.input, 3);
    // Handbook 8.1 on 15 inHg: 85.645 bar at 28 bar in, and 0.915 bar more per bar.
    const above = at(28);
    expect(above.expected / 1e5).toBeCloseTo(85.645 + 0.9151674 * (above.input / 1e5 - 28), 2);
  });
  test('rises all the way, inside its band', () => {
    curve.forEach((point, i) => {
      expect(point.low).toBeLessThanOrEqual(point.expected + 1e-6);
      expect(point.high).toBeGreaterThanOrEqual(point.expected - 1e-6);
      if (i > 0) expect(point.expected).toBeGreaterThanOrEqual(curve[i - 1]!.expected);
    });
  });
});

describe('settings', () => {
  const refused = (change: object) =>
    settingsSchema
      .safeParse({ ...INITIAL_SETTINGS, ...change })
      .error?.issues.map(({ path }) => path.join('.')) ?? [];
  test('a measured barometer wins over the altitude', () => {
    expect(stationPressure_Pa({ ...INITIAL_SETTINGS, altitude_m: 1600 }) / 3386.389).toBeCloseTo(24.66, 2);
    expect(stationPressure_Pa({ ...INITIAL_SETTINGS, altitude_m: 1600, barometer_Pa: 99_000 })).toBe(99_000);
  });
  test('the conditions of a run are taken from them', () => {
    const conditions = conditionsFrom(
      { ...INITIAL_SETTINGS, technician: 'O. Brack', meets: 0.9 },
      '2026-11-23',
    );
    expect(conditions).toMatchObject({
      technician: 'O. Brack',
      day: '2026-11-23',
      thresholds: { meets: 0.9, fails: 0.05 },
    });
  });
  test.each([
    [{ captureKey: 'F9' }, 'strikeKey'],
    [{ captureKey: 'a' }, 'captureKey'],
    [{ captureKey: 'Enter' }, 'captureKey'],
    [{ captureKey: '7' }, 'captureKey'],
    [{ meets: 0.4 }, 'meets'],
    [{ fails: 0.6 }, 'fails'],
    [{ barometer_Pa: 2_000 }, 'barometer_Pa'],
    [{ altitude_m: 90_000 }, 'altitude_m'],
    [{ temperature_K: 20 }, 'temperature_K'],
    [{ extra: 1 }, ''],
  ])('%j is refused', (change, field) => expect(refused(change)).toContain(field));
  test('a foot-switch key is taken', () => expect(refused({ captureKey: 'F13' })).toEqual([]));
});

describe('a job', () => {
  const job = {
    tag: ' GF-1 ',
    kind: 'remote-vacuum',
    profileId: '00000000-0000-4000-8000-00000000dddd',
    from: '',
    complaint: 'x'.repeat(10_000),
    fluid: 'unknown',
    promisedOn: null,
  };
  test('keeps 10 000 characters, and trims a tag', () => {
    const read = jobSchema.parse(job);
    expect(read.complaint).toHaveLength(10_000);
    expect(read.tag).toBe('GF-1');
  });
  test.each([
    ['tag', '   '],
    ['kind', 'steam'],
    ['profileId', 'first'],
    ['fluid', 'water'],
    ['promisedOn', '30 November'],
  ])('%s of “%s” is refused with a sentence', (field, value) => {
    const issue = jobSchema.safeParse({ ...job, [field]: value }).error?.issues[0];
    expect(issue?.path).toEqual([field]);
    expect(issue?.message).toMatch(/\.$/);
  });
});
