import { crossCheck } from '../metrology/cross-check';
import { judge } from '../metrology/verdict';
import { yorkFit } from '../metrology/york';
import { gaussian, seeded } from '../numeric/chance';
import { bench, BAR, contextWith, family, faultyTruth, INHG, profile, truthWith } from './bench';

/** Stated doubts against what really happens, over seeded chance. Bounds are three standard errors of the count. */
describe('stated uncertainty holds', () => {
  const TRIALS = 2000;
  const countIn = (trial: (random: () => number) => boolean) => {
    const random = seeded(20261123);
    let held = 0;
    for (let i = 0; i < TRIALS; i++) if (trial(random)) held++;
    return held / TRIALS;
  };
  const within = (share: number, expected: number) =>
    expect(Math.abs(share - expected)).toBeLessThan(3 * Math.sqrt((expected * (1 - expected)) / TRIALS));

  test('York: the true slope lies within 2u in 95.4 % of fits', () => {
    const share = countIn((random) => {
      const points = [12, 16, 20, 24].map((x) => ({
        x: x + 0.06 * gaussian(random),
        y: 3.6 * x + 0.06 * gaussian(random),
        u_x: 0.06,
        u_y: 0.06,
      }));
      const fit = yorkFit(points)!;
      return Math.abs(fit.slope - 3.6) <= 2 * fit.u_slope;
    });
    within(share, 0.9545);
  });

  test('cross-check: slope and offset of two gauges and a threshold lie within 2u', () => {
    const u = 0.06 * BAR;
    const trial = (what: 'slope' | 'offset') => (random: () => number) => {
      const zero = u * gaussian(random);
      const points = [20, 45, 70, 95, 115].map((bar) => ({
        input_Pa: bar * BAR + u * gaussian(random),
        output_Pa: 1.08 * bar * BAR - 1.5 * BAR + u * gaussian(random) - zero,
        u_input_Pa: u,
        u_output_Pa: u,
      }));
      const zeros = { input_Pa: 0, output_Pa: zero, u_input_Pa: 0, u_output_Pa: u };
      const check = crossCheck(points, zeros, (p) => Math.max(BAR, 0.05 * p));
      if (check.kind !== 'through') return false;
      return what === 'slope'
        ? Math.abs(check.slope - 1.08) <= 2 * check.u_slope
        : Math.abs(check.offset_Pa + 1.5 * BAR) <= 2 * check.u_offset_Pa;
    };
    within(countIn(trial('slope')), 0.9545);
    within(countIn(trial('offset')), 0.9545);
  });

  test('verdict: a value that sits on its limit is called Meets in 5 % and Fails in 5 %', () => {
    const thresholds = { meets: 0.95, fails: 0.05 };
    const share = (word: string) =>
      countIn((random) => judge(2 + 0.1 * gaussian(random), 0.1, { high: 2 }, thresholds).word === word);
    within(share('meets'), 0.05);
    within(share('fails'), 0.05);
  });

  test('wider thresholds are a setting: nothing is called between 1 % and 99 %', () => {
    const strict = { meets: 0.99, fails: 0.01 };
    expect(judge(2 - 0.2, 0.1, { high: 2 }, strict).word).toBe('close');
    expect(judge(2 - 0.24, 0.1, { high: 2 }, strict).word).toBe('meets');
  });
});

/** A valve that calls for a third more than it should: it runs out early. */
const steepValve = family
  .healthy(profile)
  .values.map((value, i) => value * (family.parameters[i]!.id === 'valveGain' ? 4 / 3 : 1));

/** A result that nothing can make fail checks nothing. For each, what makes it fail. */
const FAILS_BY: Record<string, Parameters<typeof bench>[0]> = {
  fluid: truthWith({ signs: { fluid: 'other' } }),
  threads: faultyTruth('threads-damaged', 1),
  'switch-rest': truthWith({ signs: { 'switch-rest': 'closed' } }),
  'lamp-switch': faultyTruth('switch-out-of-range', 1),
  'seep-first': truthWith({ signs: { 'seep-first': 'weeps' } }),
  bypass: faultyTruth('slave-check-stuck', 1),
  'supply-need': truthWith({ supply_Pa: 12 * INHG }),
  'supply-health': truthWith({ supply_Pa: 12 * INHG }),
  'supply-drop': faultyTruth('hose-collapsed', 1),
  'rest-alike': faultyTruth('poppet-leak', 1),
  'self-apply': faultyTruth('passage-blocked', 1),
  'hiss-rest': faultyTruth('poppet-leak', 1),
  'hiss-held': faultyTruth('torn-diaphragm', 1),
  'slow-apply': faultyTruth('breather-blocked', 1),
  crack: faultyTruth('valve-sticking', 1),
  'boost-ratio': faultyTruth('undersized-diaphragm', 1),
  'full-output': faultyTruth('undersized-diaphragm', 1),
  'runout-input': truthWith({ parameters: steepValve }),
  'runout-output': faultyTruth('undersized-diaphragm', 1),
  'full-activation': faultyTruth('breather-blocked', 1),
  'effective-area': faultyTruth('undersized-diaphragm', 1),
  hold: faultyTruth('cup-bypass', 1),
  hysteresis: faultyTruth('valve-sticking', 1),
  residual: faultyTruth('slave-check-stuck', 1),
  'activation-return': faultyTruth('poppet-leak', 1),
  'vacuum-loss-released': faultyTruth('check-valve-leak', 1),
  'vacuum-loss-applied': faultyTruth('hub-seal-leak', 1),
  'vacuum-side-fluid': faultyTruth('spool-seal-leak', 1),
  'fluid-level': faultyTruth('rod-seal-leak', 1),
  'fluid-told': truthWith({ signs: { 'fluid-told': 'untagged' } }),
  ...Object.fromEntries(
    [1, 2, 3, 4].map((i) => [`ratio.${i}-output`, faultyTruth('undersized-diaphragm', 1)]),
  ),
  ...Object.fromEntries(
    ['low', 'high'].flatMap((when) =>
      family.leakPoints.map(({ id }) => [
        `seep-${when}.${id}`,
        truthWith({ signs: { [`seep-${when}.${id}`]: 'weeps' } }),
      ]),
    ),
  ),
};

describe('every result that can be judged can fail', () => {
  const judgedIds = bench(truthWith(), contextWith())
    .results.filter(({ verdict }) => verdict !== 'noted')
    .map(({ id }) => id);
  test('the table names them all', () => expect(Object.keys(FAILS_BY).sort()).toEqual([...judgedIds].sort()));
  test.each(Object.entries(FAILS_BY))('%s', (id, truth) =>
    expect(bench(truth).byId(id).verdict).toBe('fails'),
  );
});
