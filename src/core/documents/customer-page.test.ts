/** @jest-environment node */
import { bench, benchOf, contextWith, faultyTruth, truthWith } from '../scenarios/bench';
import { PRINTING, recordOf, uuid } from '../scenarios/job-records';
import type { Document } from './document';
import type { Written } from '../records/job-record';
import { judgedRun } from '../records/judged-run';
import { reportDocument } from './report-document';

const findings = (count: number, length: number): Written['entry'][] =>
  Array.from({ length: count }, (_, i) => ({
    type: 'finding',
    finding: { kind: 'seep', point: 'end-cap', words: `Finding ${i} ${'x'.repeat(length)}`, fault: null },
  }));
const photos = (count: number): Written['entry'][] =>
  Array.from({ length: count }, (_, i) => ({
    type: 'photo',
    photo: {
      sha256: `${i}`.padStart(64, 'a'),
      width: 400,
      height: 300,
      bytes: 9,
      point: null,
      caption: `Photo ${i}`,
    },
  }));
const reportOf = (record: ReturnType<typeof recordOf>) => {
  const run = record.runs.at(-1)!;
  return reportDocument(record, run, judgedRun(run), PRINTING);
};
/** The customer's page and the appendix, as words. */
function halves({ blocks }: Document): readonly [string, string] {
  const cut = blocks.findIndex(({ kind }) => kind === 'page-break');
  return [JSON.stringify(blocks.slice(0, cut)), JSON.stringify(blocks.slice(cut))];
}

/** A unit that came in with a fault, had a part changed, and was tested again sound. */
function repaired() {
  const again = bench(truthWith(), contextWith(), 2);
  const work = { part: 'slave-cup', did: 'replaced', reason: 'Worn', provenance: 'new', serial: '' } as const;
  return recordOf(faultyTruth('cup-bypass', 1), contextWith(), [
    { type: 'work', work },
    {
      type: 'run-started',
      run: uuid(3),
      kind: 'remote-vacuum',
      revision: 1,
      context: JSON.parse(JSON.stringify(again.context)) as never,
      continues: null,
    },
    ...again.events.map((event) => ({ type: 'run-event' as const, run: uuid(3), event })),
  ]);
}

test('what failed before the repair stands on the customer’s page, with what it came to now', () => {
  const record = repaired();
  const failed = judgedRun(record.runs[0]!).results.filter(
    ({ verdict, about }) => verdict === 'fails' && about === 'unit',
  );
  expect(failed.length).toBeGreaterThan(0);
  const [page] = halves(reportOf(record));
  expect(page).toContain('What failed before the repair, 2026-11-23');
  for (const { name } of failed) expect(page).toContain(`"${name}:"`);
  expect(page.match(/ then, now [^"]*: meets\./g)).toHaveLength(failed.length);
  // The report of the first test knows nothing of the second.
  const first = record.runs[0]!;
  expect(halves(reportDocument(record, first, judgedRun(first), PRINTING))[0]).not.toContain('What failed');
});

test('photos stand in it, four of them; the others are in the appendix', () => {
  const [page, appendix] = halves(reportOf(recordOf(truthWith(), contextWith(), photos(6))));
  for (const i of [0, 1, 2, 3]) expect(page).toContain(`Photo ${i}`);
  for (const i of [4, 5]) {
    expect(page).not.toContain(`Photo ${i}`);
    expect(appendix).toContain(`Photo ${i}`);
  }
  expect(page).toContain('In the appendix: Further photos.');
});

test('what has no room on the page stands whole in the appendix, and the page says so', () => {
  const [page, appendix] = halves(reportOf(recordOf(truthWith(), contextWith(), findings(9, 90))));
  expect(page).toContain('more in the appendix');
  for (let i = 0; i < 9; i += 1) expect(appendix).toContain(`Finding ${i} ${'x'.repeat(90)}`);
  const [little, rest] = halves(reportOf(recordOf(truthWith(), contextWith(), findings(2, 90))));
  expect(little).toContain(`Finding 1 ${'x'.repeat(90)}`);
  expect(rest).not.toContain('Finding 1');
});

test('the appendix is headed as one, under the report’s own number', () => {
  const { blocks } = reportOf(recordOf());
  const pages = blocks.flatMap(({ kind }, i) => (kind === 'page-break' ? [blocks[i + 1]] : []));
  expect(pages).toEqual([
    { kind: 'title', text: 'At home', aside: ['Remote vacuum unit'] },
    { kind: 'title', text: 'Appendix', aside: ['Report GF-7/1', '2026-11-23'] },
  ]);
});

test.each([
  ['knows', { mass_kg: 1750, front_NPerBar: 110, rear_NPerBar: 75, contact_Pa: 4e4 }],
  ['does not know', null],
] as const)('braking without power: of a vehicle whose profile %s its mass', (_, stop) => {
  const { contextWith: of, truthWith: sound } = benchOf('stored-pressure-vehicle');
  const context = of();
  const profile = context.profile as { load: object };
  const known = { ...context, profile: { ...profile, load: { ...profile.load, stop } } };
  const [page, appendix] = halves(reportOf(recordOf(sound(), known, [], 'stored-pressure-vehicle')));
  if (stop) {
    expect(page).toMatch(
      /Without power.*everything sound.*takes \d+ N at the pedal.*such stops, until a lamp lights/,
    );
    expect(appendix).toMatch(/Such stops until the lamp, rear circuit","\d+"/);
    return;
  }
  expect(page).not.toMatch(/Without power/);
  expect(appendix).toMatch(/Not told: of booster, mass and brake forces/);
});
