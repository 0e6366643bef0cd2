/** @jest-environment node */
import fc from 'fast-check';
import { heardIn } from '../contract/complaints';
import type { Family, Fault } from '../contract/family';
import { healthyUnit, moving } from '../model/vectors';
import { HEALTHY, libraryOf, repairOf, UNKNOWN } from './causes';
import { Diagnostician, standingOf } from './diagnose';
import type { Evidence, LookEvidence, ReadingEvidence } from './evidence';
import { chanceOfAnswer, unknownLog } from './likelihood';
import { entropy_bits, type PossibleTest } from './next-test';
import { toyFault } from '../scenarios/toy-fault';
import { spreadOf } from './spread';

/** A twin of two numbers that are read as they are, so that every chance can be worked out by hand. */
const parameters = [
  { id: 'a', name: 'A', quantity: 'ratio' },
  { id: 'b', name: 'B', quantity: 'ratio' },
] as const;
const moves = moving(parameters);
/** Faults that are as severe at any severity: no stratum differs from another. */
const high = toyFault(
  'high',
  3,
  moves(({ a }) => ({ a: a + 10 })),
  { signs: { hiss: 'hisses' } },
);
const low = toyFault(
  'low',
  1,
  moves(({ a }) => ({ a: a - 10 })),
);
const other = toyFault(
  'other',
  1,
  moves(({ b }) => ({ b: b + 10 })),
);

const twin = (
  faults: readonly Fault[],
  tolerance = 0,
): Pick<Family, 'faults' | 'healthy' | 'views' | 'readings'> => ({
  faults,
  healthy: () => healthyUnit(parameters, { a: 100, b: 100 }, { a: tolerance }),
  readings: parameters,
  views: [{ inputs: [], steady: ([a = 0, b = 0]) => [a, b] }],
});
const read = (id: string, value: number, more: Partial<ReadingEvidence> = {}): ReadingEvidence => ({
  kind: 'reading',
  id,
  of: id,
  state: { view: 0, inputs: [] },
  place: id.startsWith('a') ? 0 : 1,
  value,
  off: null,
  random: 2,
  shared: null,
  doubts: [],
  scale: { low: 0, high: 200 },
  ...more,
});
const hiss = (answer: string, good: boolean): LookEvidence => ({
  kind: 'look',
  id: 'hiss',
  item: 'hiss',
  answer,
  good,
  bad: ['hisses'],
  miss: 0.15,
  falseAlarm: 0.05,
});
const complaint = { complaint: true, weights: {} };
const asked = (faults: readonly Fault[], evidence: readonly Evidence[], tolerance = 0) =>
  new Diagnostician(twin(faults, tolerance), null, complaint).posterior(evidence);
const chancesOf = (...of: Parameters<typeof asked>): Record<string, number> =>
  Object.fromEntries(asked(...of).ranked.map(({ cause, chance }) => [cause.id, chance]));

describe('what is believed beforehand', () => {
  test('healthy 0.10 with a complaint, unknown 0.03, pairs 0.10, the rest by weight; 0.6 healthy without', () => {
    const { healthy, unknown, singles, pairs } = libraryOf(twin([high, low]), null, complaint);
    expect([healthy.prior, unknown.prior]).toEqual([0.1, 0.03]);
    // 0.77 shared 3 to 1; the one pair has all of the 0.10.
    expect(singles.map(({ prior }) => prior)).toEqual([expect.closeTo(0.5775, 9), expect.closeTo(0.1925, 9)]);
    expect(pairs.map(({ id, prior }) => [id, prior])).toEqual([['high + low', expect.closeTo(0.1, 9)]]);
    const without = libraryOf(twin([high, low]), null, { complaint: false, weights: {} });
    expect(without.healthy.prior).toBe(0.6);
  });
  test('of pairs, those of which one brings the other about are three times as likely', () => {
    const brings = { ...low, causes: ['other'] };
    const { pairs } = libraryOf(twin([high, brings, other]), null, complaint);
    // Weights 3·1, 3·1, 1·1·3.
    expect(pairs.map(({ prior }) => prior)).toEqual([1, 2, 3].map(() => expect.closeTo(0.1 / 3, 9)));
  });
  test('a weight that was changed counts, none leaves a fault out, and one below zero is refused', () => {
    const changed = libraryOf(twin([high, low, other]), null, {
      complaint: true,
      weights: { high: 0, low: 4 },
    });
    expect(changed.singles.map(({ id, prior }) => [id, prior])).toEqual([
      ['low', expect.closeTo(0.77 * 0.8, 9)],
      ['other', expect.closeTo(0.77 * 0.2, 9)],
    ]);
    expect(() => libraryOf(twin([high]), null, { complaint: true, weights: { high: -1 } })).toThrow(
      /below zero/,
    );
    expect(() => libraryOf(twin([high]), null, { complaint: true, weights: { high: 0 } })).toThrow(
      /no fault/,
    );
  });
  test('a fault that brings what is complained of counts three times', () => {
    const { singles } = libraryOf(twin([high, { ...low, brings: ['hard', 'fades'] }]), null, {
      ...complaint,
      heard: ['fades'],
    });
    // 3 to 1·3: even.
    expect(singles.map(({ prior }) => prior)).toEqual([expect.closeTo(0.385, 9), expect.closeTo(0.385, 9)]);
  });
  test.each([
    ['Pedal feels harder than it used to.', ['hard']],
    ['Second push is heavy; it hisses', ['hard', 'fades', 'hiss']],
    ['Sinks to the floor, warning lamp on', ['sinks', 'lamp']],
    // A word within another is not that word: "shot" is not hot, "slate" is not late.
    ['A shot of oil on the slate roof', []],
    ['Hardly used, stood at a hotel until the latest service', []],
    ['', []],
  ])('“%s” is heard as %j', (words, heard) => expect(heardIn(words)).toEqual(heard));
  test('causes that change the same parts are one repair', () => {
    expect(repairOf([{ ...high, parts: ['valve', 'shell'] }])).toBe(
      repairOf([{ ...low, parts: ['shell', 'valve'] }]),
    );
    expect(repairOf([{ ...high, parts: [] }])).toBe('high');
  });
});

describe('chances worked out by hand', () => {
  test('one reading between healthy and a fault', () => {
    /*
     * a read as 106 with u = 2; healthy 100, high 110, scale 200, γ 0.01:
     *   healthy 0.1   · (0.99·N(3σ)/2 + 0.01/200) = 0.1   · (0.99·0.0022159 + 0.00005) = 0.1 · 0.00224374
     *   high    0.87… · (0.99·N(2σ)/2 + 0.01/200), N(2) = 0.0539910, /2 = 0.0269955   → 0.02677554
     *   one fault only, so no pair: its prior is 1 − 0.1 − 0.03 = 0.87;  unknown 0.03/200 = 0.00015
     *   sum 0.000224374 + 0.023294720 + 0.00015 = 0.023669094
     */
    const chances = chancesOf([high], [read('a', 106)]);
    expect(chances[HEALTHY]).toBeCloseTo(0.000224374 / 0.023669094, 6);
    expect(chances['high']).toBeCloseTo(0.02329472 / 0.023669094, 6);
    expect(chances[UNKNOWN]).toBeCloseTo(0.00015 / 0.023669094, 6);
  });
  test('a look by its error rates: past a third of the range it shows, before that it is a false alarm', () => {
    /*
     * Of the 48 strata of severity 16 lie below a third: there a hiss is heard with 0.05, in the other 32 with 0.85.
     *   high 0.87 · (16·0.05 + 32·0.85)/48 = 0.87 · 0.583333 = 0.5075; healthy 0.1 · 0.05 = 0.005; unknown 0.03 · 0.5 = 0.015
     */
    const heard = chancesOf([high], [hiss('hisses', false)]);
    expect(heard['high']).toBeCloseTo(0.5075 / 0.5275, 9);
    expect(heard[HEALTHY]).toBeCloseTo(0.005 / 0.5275, 9);
  });
  test('every look’s answers together are certain', () => {
    const answers = (severity: number) =>
      [hiss('', true), hiss('hisses', false)].reduce(
        (sum, look) =>
          sum +
          chanceOfAnswer(look, {
            cause: { id: 'high', faults: [high], repair: 'high', prior: 1 },
            severities: [severity],
          }),
        0,
      );
    expect(answers(0.1)).toBeCloseTo(1, 12);
    expect(answers(0.9)).toBeCloseTo(1, 12);
  });
  test('a pointer at the end of its scale counts by what lies beyond', () => {
    // Healthy 100 and high 110 at a gauge that ends at 104, u = 2: Φ(−2) = 0.0227501 and Φ(3) = 0.9986501, each ·0.99 + 0.01.
    const end = read('a', 104, { off: 'above', scale: { low: 0, high: 104 } });
    const chances = chancesOf([high], [end]);
    const [healthy, faulty, unknown] = [0.1 * 0.0325226, 0.87 * 0.9986636, 0.03 * 0.5];
    expect(chances['high']).toBeCloseTo(faulty / (healthy + faulty + unknown), 6);
  });
  test('tolerances widen what a healthy unit may show', () => {
    // Limits of ±√12/1.5, in service ±√12, evenly is u = 2: with the reading's own 2 that makes √8. At 104: N(4/√8)/√8 for healthy, N(6/√8)/√8 for high.
    const chances = chancesOf([high], [read('a', 104)], Math.sqrt(12) / 1.5);
    const density = (off: number) =>
      (0.99 * Math.exp(-(off ** 2) / 16)) / Math.sqrt(2 * Math.PI * 8) + 0.01 / 200;
    const [healthy, faulty] = [0.1 * density(4), 0.87 * density(6)];
    expect(chances[HEALTHY]).toBeCloseTo(healthy / (healthy + faulty + 0.03 / 200), 6);
  });
});

describe('a unit beyond a knee', () => {
  // b is a above 100 and 100 below it: a knee at a unit as made. Where a is 9 more, a line through the knee has b only half as much more.
  const shifted = toyFault(
    'shifted',
    3,
    moves(({ b }) => ({ b: b + 4.5 })),
  );
  const knee: Pick<Family, 'faults' | 'healthy' | 'views' | 'readings'> = {
    ...twin([shifted], (5 * Math.sqrt(3)) / 1.5),
    views: [{ inputs: [], steady: ([a = 0, b = 0]) => [a, Math.max(100, a) + b - 100] }],
  };
  const seen = (a: number, b: number) =>
    new Diagnostician(knee, null, complaint)
      .posterior([read('a', a, { random: 0.3 }), read('b', b, { random: 0.3 })])
      .ranked.map(({ cause, chance }) => [cause.id, chance] as const)[0]!;
  test('9 more of both is a healthy one, 9 and 13.5 more is not', () => {
    expect(seen(109, 109)).toEqual([HEALTHY, expect.closeTo(1, 2)]);
    expect(seen(109, 113.5)).toEqual(['shifted', expect.closeTo(1, 2)]);
  });
  test('nor is 9 less, where b stays', () => {
    expect(seen(91, 100)).toEqual([HEALTHY, expect.closeTo(1, 2)]);
    expect(seen(91, 104.5)).toEqual(['shifted', expect.closeTo(1, 2)]);
  });
});

describe('a gauge has one error', () => {
  /*
   * Twelve readings of a by one gauge of u = 5, each 103: as twelve errors they would put the mean at 103 ± 1.4, as one error it is
   * 103 ± 5, which tells little between 90, 100 and 110.
   */
  const twelve = (gauge: (i: number) => string) =>
    Array.from({ length: 12 }, (_, i) =>
      read(`a${i}`, 103, { random: 0.5, shared: { gauge: gauge(i), u: 5 } }),
    );
  test('counted once it turns the ranking that counting it for each reading gets wrong', () => {
    // Two faults as likely beforehand: high, at 110, is 7 away; low, at 90, is 13 away; both stay possible with one error of 5.
    const even = [high, { ...low, prior: 3 }];
    const [once, each] = [twelve(() => 'G'), twelve((i) => `G${i}`)].map((evidence) =>
      chancesOf(even, evidence),
    );
    // ln odds with one error: (13² − 7²)/(2·(5² + 0.25/12)) = 2.40; with twelve they would be twelve times that.
    expect(Math.log(once!['high']! / once!['low']!)).toBeCloseTo(2.4, 1);
    // By the wrong count low has no part any more.
    expect(each!['low'] ?? 0).toBeLessThan(Math.exp(-10) * each!['high']!);
    // And healthy, 3 away with a prior of a tenth, stays far likelier than by the wrong count.
    expect(once![HEALTHY]).toBeGreaterThan(0.1);
  });
  test('two readings of one gauge tell their difference well, though each of them badly', () => {
    // a and b both read 8 high on one gauge of u = 8: healthy with an error explains it; "high" alone would part them by 10.
    const pair = [108, 108].map((value, i) =>
      read(i === 0 ? 'a' : 'b', value, { random: 0.5, shared: { gauge: 'G', u: 8 } }),
    );
    const chances = chancesOf([high, other], pair);
    expect(chances[HEALTHY]).toBeGreaterThan(20 * chances['high']!);
  });
});

describe('all evidence together', () => {
  const evidence: Evidence[] = [
    read('a', 108),
    read('a2', 109.5, { shared: { gauge: 'G', u: 1 } }),
    read('b', 101, { shared: { gauge: 'G', u: 1 } }),
    hiss('hisses', false),
  ];
  test('its order does not matter', () => {
    const inOrder = chancesOf([high, low, other], evidence, 2);
    fc.assert(
      fc.property(fc.shuffledSubarray(evidence, { minLength: evidence.length }), (shuffled) => {
        const found = chancesOf([high, low, other], shuffled, 2);
        for (const [id, chance] of Object.entries(inOrder)) expect(found[id]).toBeCloseTo(chance, 9);
      }),
      { numRuns: 20 },
    );
  });
  test('what one piece does is what its absence would undo', () => {
    const { ranked } = asked([high, low, other], evidence, 2);
    evidence.forEach((_, piece) => {
      const left = chancesOf(
        [high, low, other],
        evidence.filter((_one, i) => i !== piece),
        2,
      );
      const { chance, weighs } = ranked.find(({ cause }) => cause.id === 'high')!;
      const odds = (p: number) => Math.log(p / (1 - p));
      // Which pairs are laid out finely hangs on what there is: so near, and no nearer.
      expect(Math.abs(weighs[piece]! - (odds(chance) - odds(left['high']!)))).toBeLessThan(0.1);
    });
  });
  test('with nothing read it is what was believed beforehand', () => {
    const chances = chancesOf([high, low], []);
    expect(chances[HEALTHY]).toBeCloseTo(0.1, 9);
    expect(chances['high']).toBeCloseTo(0.5775, 9);
  });
  test('what nothing known explains is said so, and where it lies', () => {
    // a at 160 is 25 standard deviations from everything there is: a gross error, or something unknown. Three such are no accident.
    const strange = ['a', 'a2', 'a3'].map((id) => read(id, 160));
    const { unknown, clash } = asked([high, low], [read('b', 100), read('b2', 101), ...strange]);
    expect(unknown).toBeGreaterThan(0.9);
    expect(clash).toBeGreaterThanOrEqual(2);
    // Where all of it is what a known cause shows, nothing speaks for an unknown one.
    expect(asked([high, low], [read('b', 100), read('a', 110)]).clash).toBe(-1);
  });
  test('two readings that cannot both be are kept, and each is named with the other', () => {
    const clash = [read('a', 100), read('a2', 140)];
    const { atOdds } = asked([low, other], clash);
    expect(atOdds).not.toEqual([]);
    for (const { piece, partner } of atOdds) expect([piece, partner].sort()).toEqual([0, 1]);
    // Readings that agree are at odds with nothing.
    expect(asked([low, other], [read('a', 100), read('a2', 101)]).atOdds).toEqual([]);
  });
  test('density of an unknown cause: 1/span for a number, one half for a look', () => {
    expect(unknownLog([read('a', 100), hiss('', true)])).toBeCloseTo(Math.log(0.5 / 200), 12);
    // Of a look that may find one of three, each has a third of that half.
    const three = { ...hiss('hums', false), bad: ['hisses', 'hums', 'rattles'] };
    expect(unknownLog([three])).toBeCloseTo(Math.log(0.5 / 3), 12);
  });
});

test('a healthy unit at a kink, where half of all units read the same, is not behind a fault that always reads so', () => {
  // What is read is a, up to 100. The healthy a is 100 ± 1.73 (2·1.5/√3); the fault holds it at 101, so that 100 is read.
  const stuck = toyFault(
    'stuck',
    1,
    moves(() => ({ a: 101 })),
  );
  const kinked: ReturnType<typeof twin> = {
    ...twin([stuck], 2),
    views: [{ inputs: [], steady: ([a = 0, b = 0]) => [Math.min(100, a), b] }],
  };
  const sharp = [read('a', 100, { random: 0.1 })];
  const { ranked } = new Diagnostician(kinked, null, complaint).posterior(sharp);
  const { healthy, singles } = libraryOf(kinked, null, complaint);
  const chance = (id: string) => ranked.find(({ cause }) => cause.id === id)!.chance;
  // Healthy: half of all read 100, density ½·0.399/0.1 = 1.995, and just below it ½·0.399/1.73 = 0.115: 2.11. The fault: 3.99.
  const exact = ((2.11 / 3.99) * healthy.prior) / singles[0]!.prior;
  const odds = chance(HEALTHY) / chance('stuck');
  // Laid out to the one side, all of them read so; a line through both sides makes it a fifth of what it is.
  expect(odds / exact).toBeGreaterThan(0.9);
  expect(odds / exact).toBeLessThan(2);
});

describe('a healthy unit across a kink from one as made is not behind a fault that always reads so', () => {
  // Read are b, and x·a as far as b goes. Healthy: a 100 ± 8.66, b 340 ± 25.98.
  const limited = (fault: Fault): ReturnType<typeof twin> => ({
    faults: [fault],
    healthy: () => healthyUnit(parameters, { a: 100, b: 340 }, { a: 10, b: 30 }),
    readings: parameters,
    views: [{ inputs: ['force'] as never, steady: ([a = 0, b = 0], [x = 1]) => [Math.min(x * a, b), b] }],
  });
  const at = (x: number) => ({ state: { view: 0, inputs: [x] }, scale: { low: 0, high: 400 } });
  /** Odds of healthy against a fault, for each time that they are beforehand. */
  const odds = (fault: Fault, evidence: readonly Evidence[]) => {
    const family = limited(fault);
    const { ranked } = new Diagnostician(family, null, complaint).posterior(evidence);
    const { healthy, singles } = libraryOf(family, null, complaint);
    const chance = (id: string) => ranked.find(({ cause }) => cause.id === id)?.chance ?? 0;
    return ((chance(HEALTHY) / chance(fault.id)) * singles[0]!.prior) / healthy.prior;
  };

  test('where no line about one as made leads, but the rest does', () => {
    const held = toyFault(
      'held',
      1,
      moves(() => ({ b: 300 })),
    );
    const found = odds(held, [
      read('a1', 113, { random: 0.3, ...at(1) }),
      read('a2', 300, { random: 1, ...at(2.8) }),
      read('b', 306, { random: 10, ...at(1) }),
    ]);
    // 2.8·113 is 316: it is b that is read as 300. Density of that, healthy: 0.399/26 · exp(−(40/26)²/2) = 0.00470; by the fault 0.399.
    // The blunt reading of b is 6 above it by both. A gross error in its place would be one in a hundred, over 400: 0.000025 for 0.00470.
    const exact = 0.0047 / 0.399;
    expect(found / exact).toBeGreaterThan(0.8);
    expect(found / exact).toBeLessThan(1.25);
  });

  test('where the rest does not either, but the fault was found about the unit', () => {
    const slack = toyFault(
      'slack',
      1,
      moves(() => ({ a: 88 })),
    );
    // As made b is reached at x = 3.4; here a is 88 and b 380, and it is reached at 4.3.
    const found = odds(slack, [
      read('b', 380, { random: 1, ...at(6) }),
      ...[1, 3.6, 3.8, 4, 4.2].map((x) => read(`at${x}`, 88 * x, { random: 1, ...at(x) })),
    ]);
    // Healthy, a may be 88 with density 0.399/8.66 · exp(−(12/8.66)²/2) = 0.01764, and the readings leave √(2π/Σx²) of it: Σx² is
    // 1 + 12.96 + 14.44 + 16 + 17.64 = 62.04, and √(2π/62.04) = 0.3182. By the fault a is 88.
    const exact = 0.01764 * 0.3182;
    expect(found / exact).toBeGreaterThan(0.8);
    expect(found / exact).toBeLessThan(1.25);
  });
});

test('nor is a fault that shows elsewhere behind a healthy unit that was found across a kink', () => {
  // The same unit, a 88 and b 380, and c, which has nothing to do with either: 4 ± 0.1, read as 7 by the fault it is.
  const three = [...parameters, { id: 'c', name: 'c', quantity: 'pressure' }] as const;
  const moves3 = moving(three);
  const faults = [
    toyFault(
      'slack',
      1,
      moves3(() => ({ a: 88 })),
    ),
    toyFault(
      'late',
      1,
      moves3(() => ({ c: 7 })),
    ),
  ];
  const family: Pick<Family, 'faults' | 'healthy' | 'views' | 'readings'> = {
    faults,
    healthy: () => healthyUnit(three, { a: 100, b: 340, c: 4 }, { a: 10, b: 30, c: 0.1 }),
    readings: three,
    views: [
      { inputs: ['force'] as never, steady: ([a = 0, b = 0, c = 0], [x = 1]) => [Math.min(x * a, b), b, c] },
    ],
  };
  const at = (x: number, place: number) => ({
    state: { view: 0, inputs: [x] },
    place,
    scale: { low: 0, high: 400 },
  });
  const { ranked } = new Diagnostician(family, null, complaint).posterior([
    read('b', 380, { random: 1, ...at(6, 1) }),
    ...[1, 3.6, 3.8, 4, 4.2].map((x) => read(`at${x}`, 88 * x, { random: 1, ...at(x, 0) })),
    read('c', 7, { random: 0.1, ...at(1, 2) }),
  ]);
  const chance = (id: string) => ranked.find(({ cause }) => cause.id === id)?.chance ?? 0;
  const { healthy, singles } = libraryOf(family, null, complaint);
  const late = singles.find(({ id }) => id === 'late')!;
  // Both need the same unit. By the fault c has density 0.399/0.1 = 3.99; by a healthy one it was a gross error, 0.01/400.
  const exact = (3.99 / 0.000025) * (late.prior / healthy.prior);
  expect(chance('late') / chance(HEALTHY) / exact).toBeGreaterThan(0.7);
  expect(chance('late') / chance(HEALTHY) / exact).toBeLessThan(1.4);
});

test('what was read of in other states is not remembered for ever, and asked again it says the same', () => {
  const one = new Diagnostician(twin([high, low, other], 2), null, complaint);
  const at = (input: number) => [read('a', 108, { state: { view: 0, inputs: [input] } })];
  const told = (evidence: readonly Evidence[]) => one.posterior(evidence).ranked.map(({ chance }) => chance);
  const first = told(at(0));
  const held = one.statesHeld;
  expect(held).toBeGreaterThan(0);
  for (let input = 1; input < 60; input += 1) told(at(input));
  expect(one.statesHeld).toBeLessThan(10 * held);
  expect(told(at(0))).toEqual(first);
});

describe('the next test', () => {
  const test_ = (step: string, planned: PossibleTest['planned'], attended_s: number): PossibleTest => ({
    step,
    planned,
    attended_s,
    waiting_s: 0,
    setUp_s: 0,
    restoring_s: 0,
  });
  const plan = (id: string, more: Partial<ReadingEvidence> = {}) => {
    const { value: _value, off: _off, ...planned } = read(id, 0, more);
    return planned;
  };
  const diagnosed = (tests: readonly PossibleTest[], evidence: readonly Evidence[] = [], waits = 1) =>
    new Diagnostician(twin([high, other]), null, complaint).diagnose(evidence, tests, waits);

  test('entropy: two as likely 1 bit, four 2 bits, certainty none', () => {
    expect(
      [
        [0.5, 0.5],
        [0.25, 0.25, 0.25, 0.25],
        [1, 0],
      ].map(entropy_bits),
    ).toEqual([1, 2, 0]);
  });
  test('a sharp reading of what is in doubt tells more than a blunt one, and one of nothing tells nothing', () => {
    const { tests } = diagnosed([
      test_('blunt', [plan('a', { random: 30 })], 60),
      test_('sharp', [plan('a')], 60),
      test_('none', [], 60),
    ]);
    expect(tests.map(({ test: { step } }) => step)).toEqual(['sharp', 'blunt', 'none']);
    expect(tests.at(-1)!.gain_bits).toBe(0);
    // Before: 0.4 to 0.6 of a bit of doubt stays at least, since b is not read.
    expect(tests[0]!.gain_bits).toBeGreaterThan(4 * tests[1]!.gain_bits);
  });
  test('what has been told already tells no more', () => {
    const again = diagnosed([test_('again', [plan('a')], 60)], [read('a', 110)]).tests[0]!;
    expect(again.gain_bits).toBeLessThan(0.15);
  });
  test('bits for each minute decide, and a wait that other work fills counts a fifth', () => {
    const long = { ...test_('long', [plan('a')], 60), waiting_s: 600 };
    const short = test_('short', [plan('b')], 60);
    const [alone, filled] = [1, 0.2].map((waits) => diagnosed([long, short], [], waits));
    const cost = (found: typeof alone) =>
      found!.tests.find(({ test: { step } }) => step === 'long')!.cost_min;
    expect([cost(alone), cost(filled)]).toEqual([11, 3]);
    expect(alone!.tests[0]!.test.step).toBe('short');
  });
  test('where to stop: claimed from 0.95, else the smallest group, else open', () => {
    const classes = new Map([
      ['x', 0.6],
      ['y', 0.36],
      ['z', 0.04],
    ]);
    expect(standingOf({ classes, unknown: 0 }, [{ gain_bits: 0.1 }])).toEqual({ is: 'open' });
    expect(standingOf({ classes, unknown: 0 }, [{ gain_bits: 0.01 }])).toEqual({
      is: 'not-told-apart',
      group: ['x', 'y'],
    });
    expect(standingOf({ classes: new Map([['x', 0.96]]), unknown: 0 }, [])).toMatchObject({
      is: 'claimed',
      repair: 'x',
    });
    expect(standingOf({ classes, unknown: 0.7 }, [{ gain_bits: 0.1 }])).toEqual({
      is: 'unexplained',
      chance: 0.7,
    });
  });
  test('what is explained worse than known faults are is unexplained, but not while a test may tell', () => {
    const sure = new Map([['x', 0.96]]);
    const unsure = new Map([['x', 0.5]]);
    const telling = [{ gain_bits: 0.1 }];
    const unknown = 1e-6;
    const kinds = (from: number) =>
      [
        standingOf({ classes: sure, unknown }, telling, from),
        standingOf({ classes: unsure, unknown }, [], from),
      ].map(({ is }) => is);
    expect(kinds(1e-5)).toEqual(['claimed', 'not-told-apart']);
    expect(kinds(1e-6)).toEqual(['unexplained', 'unexplained']);
    expect(standingOf({ classes: unsure, unknown }, telling, 1e-6)).toEqual({ is: 'open' });
  });
});

describe('how healthy units differ', () => {
  test('evenly between two limits half as wide again: one and a half times the half-width over √3', () => {
    const [way, ...more] = spreadOf(healthyUnit(parameters, { a: 100, b: 100 }, { a: 3 }));
    expect(more).toEqual([]);
    expect(way).toEqual([expect.closeTo(1.5 * Math.sqrt(3), 12), 0]);
  });
  test('where a combination is bounded, as its outermost units lie: a and b here only together', () => {
    const ways = spreadOf({
      values: [0, 0],
      tolerances: [3, 3],
      extremes: [
        [3, 3],
        [-3, -3],
      ],
    });
    expect(ways).toEqual([[expect.closeTo(1.5 * Math.sqrt(3), 9), expect.closeTo(1.5 * Math.sqrt(3), 9)]]);
  });
});
