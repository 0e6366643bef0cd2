import fc from 'fast-check';
import { heardIn } from '../contract/complaints';
import { HEALTHY, repairOf, UNKNOWN } from '../diagnosis/causes';
import { FAMILIES, SIMULATED } from '../families/registry';
import { permissibleError_SI } from '../metrology/accuracy';
import { seeded } from '../numeric/chance';
import { benchOf } from '../scenarios/bench';
import { drawCase, leftAfter, looksOf, parametersOf, ROUTINE } from './draw';
import { READY_CASES, standsAt, type PastCase } from './history';
import { LEVEL_IDS, LEVELS } from './levels';
import { seenBy } from './looked';
import { isRight, needless, scoreOf } from './score';

const remote = FAMILIES['remote-vacuum'];
const gaugesOf = (kind: (typeof SIMULATED)[number]) => Object.values(benchOf(kind).contextWith().rig).flat();

describe('a case', () => {
  test.each(SIMULATED)(
    'of %s is the same by the same seed, keeps to its level, and its complaint is heard',
    (kind) => {
      const family = FAMILIES[kind];
      const gauges = gaugesOf(kind);
      fc.assert(
        fc.property(
          fc.integer({ min: 1, max: 2 ** 31 - 1 }),
          fc.constantFrom(...LEVEL_IDS),
          (seed, level) => {
            const drawn = drawCase(family, gauges, level, seed);
            expect(drawCase(family, gauges, level, seed)).toEqual(drawn);
            const { truth, complaint } = drawn;
            const { sound, two, severityFrom, gauges: part, gaugeOut } = LEVELS[level];
            expect(truth.faults.length).toBeGreaterThanOrEqual(sound > 0 ? 0 : 1);
            expect(truth.faults.length).toBeLessThanOrEqual(two > 0 ? 2 : 1);
            for (const [, severity] of truth.faults) {
              expect(severity).toBeGreaterThanOrEqual(severityFrom);
              expect(severity).toBeLessThanOrEqual(1);
            }
            // Of each fault the customer says something that it brings.
            for (const [id] of truth.faults) {
              const { brings = [] } = family.faults.find((one) => one.id === id)!;
              if (brings.length > 0)
                expect(brings.some((one) => heardIn(complaint).includes(one))).toBe(true);
            }
            if (heardIn(complaint).length === 0) expect(complaint).toBe(ROUTINE);
            // A gauge within its class shows no more than its permissible error at full scale, wherever it is read.
            for (const gauge of gauges) {
              const { scale, zero_Pa } = truth.gauges[gauge.tag]!;
              const most = permissibleError_SI(gauge, gauge.fullScale_Pa);
              const out = Math.abs(gauge.fullScale_Pa * (scale - 1) + zero_Pa);
              if (gauge.tag === truth.gaugeOut) {
                expect(gaugeOut).toBeGreaterThan(0);
                expect(out).toBeGreaterThanOrEqual(
                  Math.min(3 * most, 0.08 * gauge.fullScale_Pa) * (1 - 1e-9),
                );
                expect(out).toBeLessThanOrEqual(0.08 * gauge.fullScale_Pa * (1 + 1e-9));
              } else expect(out).toBeLessThanOrEqual(part * most * (1 + 1e-9));
            }
          },
        ),
        { numRuns: 40 },
      );
    },
  );

  test('on the first level has a sound unit’s numbers but for its fault, true gauges and looks that do not deceive', () => {
    const { truth } = drawCase(remote, gaugesOf('remote-vacuum'), 1, 77);
    expect(truth.made).toEqual(remote.healthy(remote.typical).values);
    expect(Object.values(truth.gauges).every(({ scale, zero_Pa }) => scale === 1 && zero_Pa === 0)).toBe(
      true,
    );
    const [[id, severity] = ['', 0]] = truth.faults;
    const fault = remote.faults.find((one) => one.id === id)!;
    expect(parametersOf(truth, remote.faults, truth.faults)).toEqual(fault.apply(truth.made, severity));
    const { procedure } = benchOf('remote-vacuum').contextWith();
    const looks = looksOf(remote, procedure, truth, 1, truth.faults);
    for (const [item, sign] of Object.entries(fault.signs)) expect(looks[item]).toBe(sign);
    // Every other look shows its good answer.
    for (const { items } of procedure.steps)
      for (const item of items)
        if (item.kind === 'observation' && fault.signs[item.id] === undefined)
          expect(item.answers.find((one) => one.id === looks[item.id])!.finds).not.toBe('bad');
  });

  test('of which the parts at fault were changed is a sound one', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 1e6 }), (seed) => {
        const { truth } = drawCase(remote, gaugesOf('remote-vacuum'), 4, seed);
        const parts = truth.faults.flatMap(([id]) => remote.faults.find((one) => one.id === id)!.parts);
        expect(leftAfter(truth, remote.faults, parts)).toEqual([]);
        expect(leftAfter(truth, remote.faults, [])).toEqual(truth.faults);
        expect(parametersOf(truth, remote.faults, [])).toEqual(truth.made);
      }),
    );
  });
});

describe('what is seen', () => {
  const look = {
    id: 'hiss',
    answers: [
      { id: 'quiet', label: 'Quiet', finds: 'good' },
      { id: 'hisses', label: 'It hisses', finds: 'bad' },
    ] as [never, never],
  };
  const part = (having: Parameters<typeof seenBy>[1], rate: number, answer: string) => {
    const random = seeded(5);
    const seen = Array.from({ length: 4000 }, () =>
      seenBy(look, having, { falseAlarm: 0.05, miss: 0.2 }, rate, random),
    );
    return seen.filter((one) => one === answer).length / seen.length;
  };
  const leaking = [[{ signs: { hiss: 'hisses' } }, 0.8]] as const;

  test('is right but for the look’s own error rates', () => {
    // Of 4 000 looks 200 false alarms and 800 misses are due; 0.02 is five standard deviations of the one, three of the other.
    expect(Math.abs(part([], 1, 'hisses') - 0.05)).toBeLessThan(0.02);
    expect(Math.abs(part(leaking, 1, 'quiet') - 0.2)).toBeLessThan(0.02);
    expect(part([], 0, 'quiet')).toBe(1);
    expect(part(leaking, 0, 'hisses')).toBe(1);
  });

  test('of a fault that has only just begun is nothing', () => {
    expect(part([[{ signs: { hiss: 'hisses' } }, 0.33]], 0, 'quiet')).toBe(1);
    expect(part([[{ signs: { hiss: 'hisses' } }, 0.34]], 0, 'hisses')).toBe(1);
  });
});

describe('points', () => {
  const [first, second] = [
    { ...remote.faults[0]!, parts: ['check-valve'] },
    { ...remote.faults[1]!, parts: ['diaphragm', 'seal'] },
  ];

  test.each([
    ['check-valve', [first], 1],
    ['diaphragm + seal', [second], 1],
    ['check-valve + diaphragm + seal', [first, second], 1],
    // One of two, and the right one with one beside it.
    ['check-valve', [first, second], 0.5],
    ['check-valve + hose', [first], 0.5],
    // Half of what one repair takes is none of it.
    ['diaphragm', [second], 0],
    ['hose', [first], 0],
    [HEALTHY, [], 1],
    [HEALTHY, [first], 0],
    ['hose', [], 0],
    [UNKNOWN, [first], 0],
    [UNKNOWN, [], 0],
  ])('%s: how far it is right', (finding, faults, right) => {
    expect(isRight(finding, faults)).toBe(right);
  });

  test('by hand: 20 minutes where the adviser takes 15, one part for nothing, one lapse', () => {
    // Economy: 40 · 15/(20 + 60) = 7.5, rounded to 8. Care: 10 − 5. Finding: 50.
    const changed = ['check-valve', 'hose', 'hose'];
    expect(needless(changed, [first])).toEqual(['hose']);
    expect(scoreOf({ finding: 'check-valve', minutes: 20, changed, lapses: 1 }, [first], 15)).toEqual({
      finding: 50,
      economy: 8,
      care: 5,
      points: 63,
    });
  });

  test('a quick guess that is wrong saves nobody time, and being quicker than the adviser earns no more than all', () => {
    const done = { changed: [], lapses: 0 };
    expect(scoreOf({ ...done, finding: 'hose', minutes: 1 }, [first], 15).points).toBe(10);
    expect(scoreOf({ ...done, finding: 'check-valve', minutes: 5 }, [first], 15).points).toBe(100);
    // Care does not fall below nothing.
    expect(scoreOf({ ...done, finding: 'hose', minutes: 1, lapses: 9 }, [first], 15).points).toBe(0);
    expect(scoreOf({ ...done, finding: repairOf([first]), minutes: 0 }, [first], 0).economy).toBe(0);
  });
});

describe('how a technician stands', () => {
  const past = (points: number, more: Partial<PastCase> = {}): PastCase => ({
    technician: 'A. Tester',
    level: 2,
    points,
    counts: true,
    ...more,
  });
  const at = (cases: PastCase[]) => standsAt(cases, 'A. Tester')[1]!;

  test('is ready by the last five cases of a level, and by no others', () => {
    const five = Array.from({ length: READY_CASES }, () => past(80));
    expect(at(five)).toEqual({ level: 2, cases: 5, average: 80, ready: true });
    expect(at(five.slice(1)).ready).toBe(false);
    // A bad one before the last five is past; one among them is not.
    expect(at([past(0), ...five]).ready).toBe(true);
    expect(at([...five, past(79)]).average).toBeCloseTo(79.8);
    expect(at([...five, past(79)]).ready).toBe(false);
  });

  test('takes no account of what does not count, of other levels or of other technicians', () => {
    const others = [
      past(100, { counts: false }),
      past(100, { level: 3 }),
      past(100, { technician: 'B. Other' }),
    ];
    expect(at(others)).toEqual({ level: 2, cases: 0, average: null, ready: false });
  });
});
