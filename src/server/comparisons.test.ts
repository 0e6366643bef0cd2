/** @jest-environment node */
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import type { Knex } from 'knex';
import { unknownPlace, type Comparison } from '@/core/shop/comparison';
import {
  addComparison,
  deleteComparison,
  findComparison,
  listComparisons,
  replaceComparison,
} from './comparisons';
import { openDatabase } from './database';
import { listRemoved } from './removed';
import { verify } from './verify';

const NOW = '2026-11-30T08:00:00.000Z';
const folder = mkdtempSync(path.join(tmpdir(), 'hard-pedal-comparisons-'));
let db: Knex;
beforeAll(async () => {
  db = await openDatabase(path.join(folder, 'shop.sqlite'));
});
afterAll(async () => {
  await db.destroy();
  rmSync(folder, { recursive: true, force: true });
});

const half = { name: 'Tollan can', assist: 'vacuum', altered: false };
const FIGURES = [
  'masterBore_m',
  'spring_N',
  'rise_s',
  'vacuumNeed_Pa',
  'flowNeed_m3PerS',
  'pressureNeed_Pa',
  'current_A',
  'dropMost_V',
  'hoseRating_Pa',
  'reserveStops',
  'length_m',
  'diameter_m',
  'studSquare_m',
  'reservoirAngle_rad',
  'fluid',
];
const candidate = (change: object = {}) => ({
  ...half,
  ...Object.fromEntries(FIGURES.map((id) => [id, null])),
  ...change,
});
const value = <T>(outcome: { ok: true; value: T } | { ok: false }): T => {
  if (!outcome.ok) throw new Error(JSON.stringify(outcome));
  return outcome.value;
};

test('a comparison is kept with half of its figures, changed by version, taken off and put back; all of it is under a seal', async () => {
  const begun = value(await addComparison(db, { place: unknownPlace('Mail van 7'), candidates: [] }, NOW));
  const body = { ...begun.body, candidates: [candidate()] } as Comparison;
  const changed = value(await replaceComparison(db, begun.id, 1, body, NOW));
  expect(changed).toMatchObject({
    version: 2,
    body: { candidates: [{ name: 'Tollan can', masterBore_m: null }] },
  });
  // Another screen had it too: nothing of it is lost.
  expect(await replaceComparison(db, begun.id, 1, begun.body, NOW)).toMatchObject({
    ok: false,
    why: { code: 'conflict', current: { version: 2 } },
  });
  expect((await listComparisons(db)).map(({ id }) => id)).toEqual([begun.id]);
  await deleteComparison(db, begun.id, true, NOW);
  expect(await findComparison(db, begun.id)).toBeNull();
  expect(await listRemoved(db)).toMatchObject([
    { what: 'comparison', name: 'Mail van 7', path: `/comparisons/${begun.id}` },
  ]);
  await deleteComparison(db, begun.id, false, NOW);
  expect((await findComparison(db, begun.id))?.version).toBe(2);
  expect((await verify(db)).alterations).toEqual([]);
  await db('comparisons').update({ body: JSON.stringify({ ...body, candidates: [] }) });
  expect((await verify(db)).alterations.length).toBeGreaterThan(0);
  await db('comparisons').update({ body: JSON.stringify(body) });
});

test.each([
  ['no name', { place: unknownPlace(' '), candidates: [] }, 'Vehicle: give it a name.'],
  [
    'a candidate of no kind',
    { place: unknownPlace('Van'), candidates: [candidate({ assist: 'steam' })] },
    'Helped by: choose one.',
  ],
  [
    'a bore of a metre',
    { place: unknownPlace('Van'), candidates: [candidate({ masterBore_m: 1 })] },
    'Master bore is too large.',
  ],
  [
    'thirteen candidates',
    { place: unknownPlace('Van'), candidates: Array.from({ length: 13 }, () => candidate()) },
    'Candidates: 12 at the most.',
  ],
])('with %s it is refused in a sentence', async (_, body, sentence) => {
  const before = (await listComparisons(db)).length;
  const outcome = await addComparison(db, body, NOW);
  expect(outcome.ok ? '' : JSON.stringify(outcome.why)).toContain(sentence);
  expect(await listComparisons(db)).toHaveLength(before);
});
