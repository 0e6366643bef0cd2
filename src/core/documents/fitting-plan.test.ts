import { comparedIn, unknownPlace, type CandidateFields, type Comparison } from '../shop/comparison';
import { fittingPlan } from './fitting-plan';
import type { Printing } from './printing';

const printing: Printing = {
  set: 'metric',
  shop: { shopName: '', shopAddress: '', shopTelephone: '', logo: '' },
  day: (iso) => iso,
  time: (iso) => iso,
};
const NOTHING: CandidateFields = {
  name: 'Esk & Moor pump unit',
  assist: 'pumped',
  masterBore_m: null,
  spring_N: null,
  rise_s: null,
  vacuumNeed_Pa: null,
  flowNeed_m3PerS: null,
  pressureNeed_Pa: null,
  current_A: null,
  dropMost_V: null,
  hoseRating_Pa: null,
  reserveStops: null,
  length_m: null,
  diameter_m: null,
  studSquare_m: null,
  reservoirAngle_rad: null,
  fluid: null,
  altered: false,
};
const comparison = (change: Partial<CandidateFields> = {}, relief_Pa: number | null = 110e5): Comparison => ({
  place: { ...unknownPlace('Mail van 7'), pumpRelief_Pa: relief_Pa },
  candidates: [{ ...NOTHING, ...change }],
});
const words = (body: Comparison) => JSON.stringify(fittingPlan(body, 0, printing)!.blocks);

test('the rod comes first, the pedal last, and nothing moves before joints were looked at', () => {
  const order = fittingPlan(comparison(), 0, printing)!.blocks.flatMap((block) =>
    block.kind === 'list' && block.numbered ? [block.items.map(({ text }) => text)] : [],
  )[0]!;
  const at = (part: RegExp) => order.findIndex((text) => part.test(text));
  const wanted = [
    /^Drain/,
    /^Set the rod/,
    /^Bleed the master on the bench/,
    /^Mount the unit/,
    /^Fill with fresh/,
    /^Connect the pedal last/,
    /^Look at every joint/,
    /^Firm pedal/,
  ].map(at);
  expect(wanted.every((place) => place >= 0)).toBe(true);
  expect(wanted).toEqual([...wanted].sort((a, b) => a - b));
});

test('a pressure hose is rated for 1.25 of the relief before it: 137.5 of 110 bar; of one not known nothing is assumed', () => {
  expect(words(comparison())).toMatch(/137\.5 bar at least|138 bar at least/);
  expect(words(comparison({}, null))).toContain('not known yet: the relief before it');
  expect(words(comparison({ assist: 'vacuum' }))).toContain('against collapse');
});

test('what does not fit is said before all else, and what is not known is named', () => {
  expect(words(comparison({ altered: true }))).toContain('This plan is not to be carried out as it stands.');
  expect(words(comparison())).toContain('Not known yet: master bore of the candidate.');
});

test.each(['vacuum', 'pumped', 'electric'] as const)(
  'what is helped by %s has its hazards and says nothing of what may be driven',
  (assist) => {
    const text = words(comparison({ assist }));
    expect(text).toContain('Before anything is opened');
    expect(text).not.toMatch(/\bsafe to drive|undefined|NaN/);
    expect(text).toContain('licensed technician');
  },
);

test('there is none of a candidate that there is not', () =>
  expect(fittingPlan(comparison(), 3, printing)).toBeNull());

test('candidates keep their own names in whatever order they are ranked', () => {
  const body = comparison();
  const two: Comparison = { ...body, candidates: [{ ...NOTHING, name: 'refused', altered: true }, NOTHING] };
  expect(comparedIn(two).map(({ name, place }) => [name, place])).toEqual([
    ['Esk & Moor pump unit', 1],
    ['refused', 0],
  ]);
});
