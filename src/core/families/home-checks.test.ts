import { EMPTY_RUN } from '../procedure/run';
import { adviseOn } from '../diagnosis/advice';
import { Diagnostician } from '../diagnosis/diagnose';
import { chanceOfAnswer } from '../diagnosis/likelihood';
import { benchOf } from '../scenarios/bench';
import { expectedAtHome } from '../documents/at-home';
import { homeChecksOf, homeEvidence, homeFigure, shownAtHome } from './home-checks';
import { FAMILIES, FAMILY_KINDS } from './registry';

const check = (kind: (typeof FAMILY_KINDS)[number], id: string) =>
  homeChecksOf(kind).find((one) => one.id === id)!;

describe.each(FAMILY_KINDS.filter((kind) => homeChecksOf(kind).length > 0))('home checks of %s', (kind) => {
  const family = FAMILIES[kind];
  test.each(homeChecksOf(kind).map((one) => [one.id, one] as const))(
    '%s is of a reading of the twin, finds some faults and not all, and names its figure',
    (_id, one) => {
      expect(family.readings.map(({ id }) => id)).toContain(one.reading);
      const shown = shownAtHome(kind, family.typical, one);
      expect(shown.length).toBeGreaterThan(0);
      expect(shown.length).toBeLessThan(family.faults.length);
      const figure = homeFigure(kind, family.typical, one);
      expect(figure === null).toBe(!one.expect.includes('{value}'));
      if (figure) expect(figure.value).toBeGreaterThan(0);
      for (const set of ['mixed', 'metric', 'imperial'] as const) {
        const words = expectedAtHome(kind, family.typical, one, set);
        expect(words).not.toMatch(/\{value\}|NaN|Infinity/);
      }
      expect(one.falseAlarm + one.miss).toBeLessThan(0.6);
      // Nothing is said of what may be driven but that it may not.
      expect(`${one.try} ${one.expect} ${one.otherwise}`).not.toMatch(/\bsafe\b/i);
    },
  );
  test('no two have one name', () => {
    const ids = homeChecksOf(kind).map(({ id }) => id);
    expect(new Set(ids).size).toBe(ids.length);
  });
});

test('the pedal of a van goes down as its engine starts, by as much as its twin says', () => {
  const { typical } = FAMILIES['vacuum-vehicle'];
  const drop = check('vacuum-vehicle', 'home-drop');
  // Handbook-models 8.3: the drop at 150 N is a reading of the booster; a booster without a working valve hardly has one.
  expect(expectedAtHome('vacuum-vehicle', typical, drop, 'metric')).toMatch(/by about 1[0-9] mm\./);
  expect(shownAtHome('vacuum-vehicle', typical, drop)).toContain('check-shut');
});

test('vacuum that is lost within five minutes is found by who leaks, and not by a stiff pedal', () => {
  const shown = shownAtHome(
    'vacuum-vehicle',
    FAMILIES['vacuum-vehicle'].typical,
    check('vacuum-vehicle', 'home-standing'),
  );
  expect(shown).toEqual(expect.arrayContaining(['shell-leak', 'hose-leak', 'check-leak']));
  expect(shown).not.toContain('seized-front');
});

describe('answers as evidence', () => {
  const family = FAMILIES['vacuum-vehicle'];
  const { contextWith } = benchOf('vacuum-vehicle');
  const context = contextWith();

  test('what was not tried, or is no check of the kind, tells nothing', () => {
    expect(
      homeEvidence('vacuum-vehicle', family.typical, { 'home-drop': 'not-tried', 'home-moon': 'otherwise' }),
    ).toEqual([]);
  });
  test('P(otherwise) is 1 − miss with a fault that shows, and the false alarm without', () => {
    const [one] = homeEvidence('vacuum-vehicle', family.typical, { 'home-standing': 'otherwise' });
    const particle = (id: string, severity: number) => ({
      cause: { faults: family.faults.filter((fault) => fault.id === id) } as never,
      severities: [severity],
    });
    expect(chanceOfAnswer(one!, particle('shell-leak', 1))).toBeCloseTo(0.75, 9);
    expect(chanceOfAnswer(one!, particle('shell-leak', 0.2))).toBeCloseTo(0.1, 9);
    expect(chanceOfAnswer(one!, particle('seized-front', 1))).toBeCloseTo(0.1, 9);
    const [good] = homeEvidence('vacuum-vehicle', family.typical, { 'home-standing': 'as-described' });
    expect(chanceOfAnswer(good!, particle('shell-leak', 1))).toBeCloseTo(0.25, 9);
    expect(chanceOfAnswer(good!, particle('seized-front', 1))).toBeCloseTo(0.9, 9);
  });
  test('an answer raises what shows at it before anything is measured, and is told among what speaks for it', () => {
    const beliefs = { complaint: true, weights: {}, heard: [] } as never;
    const diagnostician = new Diagnostician(family, context.profile, beliefs);
    const at = (answers: Parameters<typeof homeEvidence>[2]) =>
      adviseOn(diagnostician, family, context, EMPTY_RUN, {
        otherWork: false,
        home: homeEvidence('vacuum-vehicle', context.profile, answers),
      });
    const chance = (advice: ReturnType<typeof at>, id: string) =>
      advice.causes.find((cause) => cause.id === id)?.chance ?? 0;
    const [before, after] = [at({}), at({ 'home-standing': 'otherwise' })];
    expect(after.evidence).toBe(before.evidence + 1);
    expect(chance(after, 'hose-leak')).toBeGreaterThan(2 * chance(before, 'hose-leak'));
    expect(after.causes.find(({ id }) => id === 'hose-leak')!.for.map(({ item }) => item)).toContain(
      'home-standing',
    );
  });
});
