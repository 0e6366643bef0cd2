import { FAMILIES, FAMILY_KINDS } from '../families/registry';
import { benchOf } from '../scenarios/bench';
import { atHomePage } from './at-home';
import type { Printing } from './printing';

const printing: Printing = {
  set: 'metric',
  shop: { shopName: '', shopAddress: '', shopTelephone: '', logo: '' },
  day: (iso) => iso.slice(0, 10),
  time: (iso) => iso.slice(11, 19),
};
const pageOf = (kind: (typeof FAMILY_KINDS)[number]) =>
  atHomePage(
    { kind, context: benchOf(kind).contextWith(), startedAt: '2026-11-30T08:00:00.000Z', finishedAt: null },
    printing,
  );
const tables = (kind: (typeof FAMILY_KINDS)[number]) =>
  pageOf(kind).flatMap((block) => (block.kind === 'table' ? [block] : []));

test.each(FAMILY_KINDS)('what is for home of %s leaves nothing open in its words', (kind) => {
  expect(tables(kind).length).toBeGreaterThan(0);
  expect(JSON.stringify(pageOf(kind))).not.toMatch(/\{value\}|NaN|\bsafe\b/);
});

test('a van: each check with what to do, what to expect in figures, and what if not; yes or no to tick', () => {
  const [checks] = tables('vacuum-vehicle');
  expect(checks!.name).toBe('Home check');
  const drop = checks!.rows.find(([name]) => name!.text === 'Pedal as the engine starts')!;
  expect(drop.map(({ text }) => text).join(' ')).toMatch(
    /sinks under the foot by about \d+ mm.*Do not drive it.*□ yes {2}□ no/,
  );
  expect(drop[0]!.small?.[0]).toMatch(/^Engine off: press the pedal five times/);
});

test('its care plan: days, and why; a unit without a check has that alone', () => {
  const [care] = tables('pedal-valve');
  expect(tables('pedal-valve')).toHaveLength(1);
  expect(care!.rows.map((row) => row.map(({ text }) => text))).toContainEqual([
    '2027-11-30',
    'Pre-charge of each accumulator',
    expect.stringContaining('Its gas goes through the rubber'),
  ]);
  expect(FAMILIES['pedal-valve'].setting).toBe('bench');
});
