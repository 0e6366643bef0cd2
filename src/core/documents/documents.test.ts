/** @jest-environment node */
import fc from 'fast-check';
import { movedBy } from '../families/fault-effects';
import { faultsOf } from '../contract/family';
import { FAMILIES, FAMILY_KINDS, type FamilyKind } from '../families/registry';
import { benchOf, contextWith, family, gauges, INHG, profile, truthWith } from '../scenarios/bench';
import { identityOf, PRINTING, recordOf, uuid } from '../scenarios/job-records';
import { ROOM, WHOLE_TEST } from '../scenarios/traces';
import { analyse } from '../signals/analyse';
import { recordBench } from '../twin/recording';
import { daysBetween, dueDates } from '../shop/due';
import type { Block, Document } from './document';
import { installationDocument } from './installation-document';
import { BLEEDING_ORDERS } from '../records/installation';
import { tapedOf, toldBy, type LoggedTrace } from './logged-traces';
import type { JobRecord } from '../records/job-record';
import { judgedRun } from '../records/judged-run';
import { plainColours, Plot, ticks } from '../plot/plot';
import { curvePlot, ratioChart } from './ratio-svg';
import { readingsTable } from './readings-table';
import { unconfirmed } from '../records/unconfirmed';
import { reportDocument } from './report-document';
import type { StoredRun } from '../records/views';

const reportOf = (record: JobRecord) => {
  const run = record.runs.at(-1)!;
  return reportDocument(record, run, judgedRun(run), PRINTING);
};
const wordsIn = (document: Document) => JSON.stringify(document.blocks);
const tableOf = (document: Document, name: string) =>
  document.blocks.find(
    (block): block is Extract<Block, { kind: 'table' }> => block.kind === 'table' && block.name === name,
  )!;

test('report and sheet agree on the fluid, confirmed or not', () => {
  const open = recordOf();
  expect(wordsIn(reportOf(open))).toContain('Which fluid is in the unit is not confirmed');
  expect(wordsIn(installationDocument(open, PRINTING))).toContain('NOT CONFIRMED YET');
  const fitting = { bleeding: 'wheels-first', fluid: 'dot5.1' } as const;
  const said = recordOf(undefined, undefined, [{ type: 'fitting', fitting }]);
  for (const document of [reportOf(said), installationDocument(said, PRINTING)]) {
    expect(wordsIn(document)).toContain('DOT 5.1');
    expect(wordsIn(document)).not.toMatch(/not confirmed/i);
  }
});

test('what it was said to be stands on the customer’s page against what was found, with who decided', () => {
  const record = recordOf(undefined, undefined, [identityOf(null)]);
  const words = wordsIn(reportOf(record));
  expect(words).toContain('Diaphragm, refused by Pell Tarn:');
  expect(words).toContain('Said to be: New, the maker’s own. Found to be: Used, marks ground off.');
  const back = { ...record, identities: record.identities.map((one) => ({ ...one, withdrawn: true })) };
  expect(wordsIn(reportOf(back))).not.toContain('marks ground off');
});

test('a booster that is fed with fluid is not said to have held none, and one that works with vacuum is', () => {
  const told = (kind: 'hydraulic-booster' | 'pedal-vacuum') => {
    const { bench, truthWith, profile } = benchOf(kind);
    const { events, context } = bench(truthWith());
    const sample = recordOf();
    const run = { ...sample.runs[0]!, kind, events, context, judged: null } as StoredRun;
    return wordsIn(reportOf({ ...sample, profile: { ...sample.profile, kind, body: profile }, runs: [run] }));
  };
  expect(told('hydraulic-booster')).toMatch(/some is left in it: expect some drops.*Set its pushrod/);
  expect(told('pedal-vacuum')).toMatch(/No fluid was in it. Set its pushrod/);
});

test('what a signature would leave open is said before it is given', () => {
  expect(unconfirmed(recordOf(), '2026-11-23')).toEqual([
    'Which fluid the unit holds, and how it is bled, is not confirmed on the installation sheet.',
  ]);
  const fitting = { type: 'fitting', fitting: { bleeding: 'wheels-first', fluid: 'dot4' } } as const;
  expect(unconfirmed(recordOf(undefined, undefined, [fitting]), '2026-11-23')).toEqual([]);
  expect(unconfirmed(recordOf(undefined, undefined, [fitting, identityOf(null)]), '2026-11-23')).toEqual([
    'No photo shows what was found: diaphragm.',
  ]);
  const work = {
    type: 'work',
    work: { part: 'diaphragm', did: 'replaced', reason: 'Torn', provenance: 'new', serial: '' },
  } as const;
  expect(unconfirmed(recordOf(undefined, undefined, [fitting, work]), '2026-11-23')).toEqual([
    expect.stringMatching(/^Since the last test: .*Diaphragm.* was not tested again\.$/i),
  ]);
  const other = { ...fitting, fitting: { ...fitting.fitting, fluid: 'mineral' } } as const;
  expect(unconfirmed(recordOf(undefined, undefined, [other]), '2026-11-23')[0]).toMatch(/its profile names/);
});

test('a report bears the letterhead of the shop and a number of its own; without a name there is none', () => {
  const record = recordOf();
  const run = record.runs[0]!;
  const shop = { shopName: 'Brake room', shopAddress: 'Slip Road 3', shopTelephone: '', logo: '' };
  const { blocks } = reportDocument(record, run, judgedRun(run), { ...PRINTING, shop });
  expect(blocks[0]).toEqual({ kind: 'letterhead', name: 'Brake room', lines: ['Slip Road 3'], logo: null });
  expect(blocks[1]).toMatchObject({
    kind: 'title',
    aside: [`Report ${record.job.tag}/1`, expect.any(String)],
  });
  expect(reportDocument(record, run, judgedRun(run), PRINTING).blocks[0]).toMatchObject({ kind: 'title' });
});

describe('the report as a document', () => {
  const finding = {
    type: 'finding',
    finding: { kind: 'seep', point: 'end-cap', words: 'Wet at the cap', fault: null },
  } as const;
  const work = {
    type: 'work',
    work: { part: 'diaphragm', did: 'refused', reason: 'Too dear', provenance: null, serial: '' },
  } as const;
  test('puts the customer’s page first, with what was found and done, and never says safe', () => {
    const document = reportOf(recordOf(truthWith(), contextWith(), [finding, work]));
    const cut = document.blocks.findIndex(({ kind }) => kind === 'page-break');
    const first = JSON.stringify(document.blocks.slice(0, cut));
    expect(first).toContain('Wet at the cap');
    expect(first).toContain('Diaphragm: refused.');
    expect(first).toContain('not signed yet');
    expect(first).not.toContain('EN 837');
    expect(wordsIn(document)).toMatch(/do not say that a vehicle is safe to drive/);
  });
  test('an answer that the test went on in spite of stands in it, with the reason', () => {
    const event = {
      id: uuid(77),
      at: '2026-11-23T14:00:00.000Z',
      type: 'gone-on',
      item: 'threads',
      reason: 'Plugged for the test',
    } as const;
    const words = wordsIn(
      reportOf(recordOf(truthWith(), contextWith(), [{ type: 'run-event', run: uuid(2), event }])),
    );
    expect(words).toContain('Switch and bleed threads:');
    expect(words).toContain('Plugged for the test');
  });
  test('says first where the clock was set back during the test', () => {
    const event = {
      id: uuid(77),
      at: '2026-11-22T14:00:00.000Z',
      type: 'gone-on',
      item: 'threads',
      reason: 'Plugged for the test',
    } as const;
    const report = reportOf(
      recordOf(truthWith(), contextWith(), [{ type: 'run-event', run: uuid(2), event }]),
    );
    expect(report.blocks[0]).toMatchObject({
      kind: 'paragraph',
      text: expect.stringMatching(
        /^The clock of the machine was set back by \d+ h \d+ min.*before 14:00:00/,
      ) as string,
    });
    expect(wordsIn(reportOf(recordOf(truthWith(), contextWith(), [])))).not.toContain('set back');
  });
  test('what was taken back is not in it; a signature and a correction are', () => {
    const record = recordOf(truthWith(), contextWith(), [finding]);
    const id = record.findings[0]!.id;
    const base = recordOf(truthWith(), contextWith(), [
      finding,
      { type: 'withdrawn', entry: id },
      { type: 'signed', technician: 'P. Tarn', head: 'ab'.repeat(32) },
      { type: 'corrected', about: null, words: 'It was a tug.', technician: 'P. Tarn' },
    ]);
    const words = wordsIn(reportOf(base));
    expect(words).not.toContain('Wet at the cap');
    expect(words).toContain(`P. Tarn, 2026-11-23; seal ${'ab'.repeat(8)}`);
    expect(words).toContain('It was a tug.');
  });
  test('every result taken has its row; one that leans on an overdue gauge says so beside its verdict', () => {
    const late = { ...gauges.activation, calibrationDue: '2026-01-01' };
    const context = contextWith({ rig: { ...contextWith().rig, activation: [late] }, shelf: [] });
    const record = recordOf(truthWith(), context);
    const { results } = judgedRun(record.runs[0]!);
    const document = reportOf(record);
    const rows = tableOf(document, 'Results').rows;
    expect(rows).toHaveLength(
      results.filter(({ verdict, id }) => verdict !== 'not-taken' && !id.startsWith('seep')).length,
    );
    const leaning = rows.filter((row) => row.at(-1)!.small?.includes('VAC-A past calibration'));
    expect(leaning.length).toBe(results.filter(({ overdue }) => overdue.length > 0).length);
    expect(leaning.length).toBeGreaterThan(0);
    expect(
      tableOf(document, 'Instruments')
        .rows.find(([tag]) => tag!.text === 'VAC-A')!
        .at(-1),
    ).toMatchObject({ strong: true });
  });
  test('every reading is listed, stale and struck ones marked', () => {
    const record = recordOf();
    const run = record.runs[0]!;
    const captured = run.events.find((event) => event.type === 'captured')!;
    const struck: StoredRun = {
      ...run,
      events: [
        ...run.events.filter(({ type }) => type !== 'finished'),
        { id: uuid(9), at: '2026-11-23T16:00:00.000Z', type: 'struck', capture: captured.id },
        {
          id: uuid(8),
          at: '2026-11-23T16:00:01.000Z',
          type: 'disturbed',
          steps: ['bypass'],
          rezero: false,
          why: 'Cup',
        },
      ],
    };
    const readings = tableOf(
      reportDocument({ ...record, runs: [struck] }, struck, judgedRun(struck), PRINTING),
      'Readings',
    );
    const captures = run.events.filter(({ type }) => type === 'captured').length;
    expect(readings.rows).toHaveLength(captures);
    expect(readings.rows[0]!.at(-1)!.text).toMatch(/struck/);
    expect(readings.rows.filter((row) => row.at(-1)!.text.includes('stale'))).toHaveLength(10);
    const csv = readingsTable(struck, 'metric');
    expect(csv.map((row) => row.at(-1))).toEqual(
      expect.arrayContaining(['Counts', 'yes', 'struck', 'stale']),
    );
    expect(new Set(csv.map((row) => row.length))).toEqual(new Set([10]));
  });
});

describe('the installation sheet', () => {
  test('asks for the fluid until it is confirmed, then names it and the school chosen', () => {
    const before = installationDocument(recordOf(), PRINTING);
    expect(wordsIn(before)).toContain('NOT CONFIRMED YET');
    const fitting = { type: 'fitting', fitting: { bleeding: 'master-first', fluid: 'dot5' } } as const;
    const after = installationDocument(recordOf(truthWith(), contextWith(), [fitting]), PRINTING);
    expect(wordsIn(after)).not.toContain('NOT CONFIRMED');
    const order = after.blocks.find((block) => block.kind === 'list' && block.numbered)!;
    expect(order).toMatchObject({ items: BLEEDING_ORDERS['master-first'].steps.map((text) => ({ text })) });
  });
  test('says what handbook 10 and 14 ask: drain first, hose and breather, filter, check valve, threads', () => {
    const words = wordsIn(installationDocument(recordOf(), PRINTING));
    for (const said of [
      /Drain the old fluid/,
      /vacuum-rated hose/,
      /clean filter/,
      /breather/,
      /check valve/,
      /split/,
      /never by mouth/,
    ])
      expect(words).toMatch(said);
  });
  test('of a vehicle: the rod first, the pedal last, no remote unit to bleed, and the start that shows the assist', () => {
    const van = {
      ...recordOf(),
      profile: { kind: 'vacuum-vehicle', body: FAMILIES['vacuum-vehicle'].typical },
    } as JobRecord;
    const words = wordsIn(installationDocument(van, PRINTING));
    for (const said of [
      /pushrod first/,
      /pedal is connected last/,
      /farthest wheel first, then nearer ones, the master/,
      /as the engine starts it drops/,
    ])
      expect(words).toMatch(said);
    expect(words).not.toMatch(/remote unit|rebuilt unit|Fitting the unit/);
    const booster = {
      ...recordOf(),
      profile: { kind: 'pedal-vacuum', body: FAMILIES['pedal-vacuum'].typical },
    } as JobRecord;
    const alone = wordsIn(installationDocument(booster, PRINTING));
    for (const said of [/Fitting the booster/, /pushrod first/]) expect(alone).toMatch(said);
    expect(alone).not.toMatch(/remote unit/);
  });
  test.each(['hydraulic-vehicle', 'hydraulic-booster', 'motor-pump-booster', 'pedal-valve'] as const)(
    '%s: of what is fed with fluid no vacuum hose is spoken, but of hoses for its pressure and of what stays charged',
    (kind) => {
      const profile = { kind, body: FAMILIES[kind].typical };
      const words = wordsIn(installationDocument({ ...recordOf(), profile } as JobRecord, PRINTING));
      expect(words).not.toMatch(/vacuum (on|off|hose)|vacuum-rated|hand pump|breather|vapour/i);
      for (const said of [/1\.25 times/, /charged vessel/i, /stays when the pump has stopped/])
        expect(words).toMatch(said);
    },
  );
  test.each(FAMILY_KINDS.filter((kind) => FAMILIES[kind].fullPower))(
    '%s: where stored pressure goes into the brakes itself no pushrod, booster or master cylinder is spoken of',
    (kind) => {
      const profile = { kind, body: FAMILIES[kind].typical };
      const words = wordsIn(installationDocument({ ...recordOf(), profile } as JobRecord, PRINTING));
      expect(words).not.toMatch(/pushrod|booster|master cylinder|the master|two schools|shoes|assist/i);
      for (const said of [
        /1\.25 times/,
        /charged vessel/i,
        /[Ee]ach circuit by itself/,
        /until a lamp lights/,
      ])
        expect(words).toMatch(said);
    },
  );
  test('whoever fits a part meets the hazards of its kind: a store that keeps its charge, and no engine where there is none', () => {
    const words = (kind: FamilyKind) => {
      const profile = { kind, body: FAMILIES[kind].typical };
      return wordsIn(installationDocument({ ...recordOf(), profile } as JobRecord, PRINTING));
    };
    const shuttle = words('by-wire-vehicle');
    for (const said of [
      /High voltage of a hybrid/,
      /A capacitor keeps a brake alive/,
      /wakes as a door is opened/,
    ])
      expect(shuttle).toMatch(said);
    expect(shuttle).not.toMatch(/Running engine/);
    expect(words('stored-pressure-vehicle')).toMatch(/levelling ram.*Running engine/s);
    expect(words('vacuum-vehicle')).not.toMatch(/High voltage|capacitor/);
  });
  test('both schools name the same four places', () => {
    const [a, b] = Object.values(BLEEDING_ORDERS).map(({ steps }) => [...steps].sort());
    expect(a).toEqual(b);
  });
});

describe('charts', () => {
  test('marks of an axis are round, inside it, and neither few nor many', () => {
    fc.assert(
      fc.property(
        fc.double({ min: -1e6, max: 1e6, noNaN: true }),
        fc.double({ min: 1e-3, max: 1e6, noNaN: true }),
        (low, span) => {
          const high = low + span;
          if (!(high > low)) return;
          const marks = ticks({ low, high });
          expect(marks.length).toBeGreaterThanOrEqual(2);
          expect(marks.length).toBeLessThanOrEqual(10);
          const edge = 1e-6 * Math.max(span, Math.abs(low));
          for (const mark of marks) {
            expect(mark).toBeGreaterThanOrEqual(low - edge);
            expect(mark).toBeLessThanOrEqual(high + edge);
          }
        },
      ),
    );
    expect(ticks({ low: 0, high: 40 })).toEqual([0, 5, 10, 15, 20, 25, 30, 35, 40]);
  });
  test('a point stands where its numbers say: the middle of both axes is the middle of the field', () => {
    const plot = new Plot({ title: 'x', low: 0, high: 10 }, { title: 'y', low: 0, high: 10 });
    plot.point(5, 5);
    // Field: 58 to 626 across, 12 to 288 down.
    expect(plot.svg('')).toContain('cx="342.0" cy="150.0"');
  });
  test('words in a picture cannot become markup, and colours can be written out', () => {
    const plot = new Plot({ title: '<script>', low: 0, high: 1 }, { title: '"&"', low: 0, high: 1 });
    plot.mark(0.5, '<b>');
    const svg = plainColours(plot.svg('"><script>'));
    expect(svg).not.toMatch(/<script|<b>/);
    expect(svg).not.toContain('var(');
  });
  test('the ratio chart has every point measured, and the runout where the handbook has it', () => {
    const run = recordOf(truthWith({ supply_Pa: 15 * INHG })).runs[0]!;
    const chart = ratioChart(run, 'mixed')!;
    // Four ratio points, the full one, the one held, the one coming down.
    expect(chart.label).toMatch(
      /at 15\.0 inHg: 7 points measured; runout of a healthy unit at 22\.\d bar in/,
    );
    expect(chart.svg.match(/<circle/g)).toHaveLength(7);
    expect(ratioChart({ ...run, events: run.events.slice(0, 20) }, 'mixed')).toBeNull();
  });
  test('its bend is marked where a healthy unit bends, and left out where the curve ends before it', () => {
    const run = recordOf(truthWith({ supply_Pa: 15 * INHG })).runs[0]!;
    const drawn = (greatest: number) => curvePlot(run, [], { supply_Pa: 15 * INHG, greatest, set: 'mixed' });
    const { knee, place, plot } = drawn(40e5);
    const [, bar] = /runout of a healthy unit at (\d+\.\d) bar/.exec(ratioChart(run, 'mixed')!.label)!;
    expect(knee / 1e5).toBeCloseTo(Number(bar), 1);
    const [x] = place(knee, 0);
    // A line up the field, at the bend and nowhere else.
    expect(plot.svg('').match(/<path d="M([\d.]+) [\d.]+ V/g)).toEqual([
      expect.stringContaining(`M${x.toFixed(1)} `),
    ]);
    expect(drawn(knee * 0.99).plot.svg('')).not.toContain('runout expected');
  });
});

describe('logged traces in a report', () => {
  const trace = recordBench(family, family.healthy(profile).values, 20 * INHG, ROOM, WHOLE_TEST, {
    seed: 4,
    rate_Hz: 50,
    pressureNoise_Pa: 9e3,
    vacuumNoise_Pa: 80,
  });
  const logged = (name: string, stretches: LoggedTrace['stretches']): LoggedTrace => ({
    id: uuid(8),
    record: {
      name,
      source: 'bench',
      madeAt: '2026-11-23T15:00:00.000Z',
      rows: trace.time_s.length,
      duration_s: trace.time_s.at(-1)!,
      channels: [],
      sha256: 'ab'.repeat(32),
      layout: null,
      troubles: [],
      troubleCount: 0,
      profileId: null,
      jobId: null,
      runId: null,
      notes: [{ id: uuid(9), at_s: 61, to_s: 64.5, words: '<i>Heavy</i>' }],
    },
    stretches,
  });
  const { stretches } = analyse(trace, { ...ROOM, unit: family.logged(profile) });
  const report = (traces: readonly LoggedTrace[]) => {
    const record = recordOf();
    return reportDocument(record, record.runs[0]!, judgedRun(record.runs[0]!), PRINTING, traces);
  };
  const text = (traces: readonly LoggedTrace[]) => JSON.stringify(report(traces).blocks);
  test('every number told stands there with its limits, under the stretch that told it', () => {
    const block = report([logged('Whole test', stretches)]).blocks.find(
      (one) => one.kind === 'table' && one.name === 'Logged traces',
    );
    if (block?.kind !== 'table') throw new Error('no table');
    expect(block.rows).toHaveLength(stretches.flatMap(({ results }) => results).length);
    const row = block.rows.find(([, name]) => name!.text === 'Boost ratio B, as a slope')!;
    expect(Number(/^[\d.]+/.exec(row[2]!.text)![0])).toBeCloseTo(3.6, 1);
    expect(row[2]!.text).toContain('±');
    expect(block.rows[0]![0]!.text).toMatch(/^Whole test, bypass, assist off/);
  });
  test('what could not be told says why; a trace with nothing in it is named; ranges, seals and whose limits are said', () => {
    const words = text([logged('Whole test', stretches), logged('Idle', [])]);
    expect(words).toContain('Nothing was worked out of: Idle.');
    expect(words).toContain('Whole test, 61.0 to 64.5 s:');
    expect(words).toContain(`Whole test: ${'ab'.repeat(8)}`);
    expect(words).toContain('no verdict above rests on them');
    const untold = stretches.flatMap(({ results }) => results).filter(({ estimate }) => !estimate.told);
    expect(untold.length).toBeGreaterThan(0);
    expect(words.split('could not tell').length - 1).toBe(untold.length);
  });
  test('the tape has what each trace told, counts what it could not, and knows no place for one read from a file', () => {
    const whole = logged('Whole test', stretches);
    const { told, silent } = toldBy(whole);
    const ratio = told.find(({ result }) => result.id === 'boost-ratio')!;
    expect(ratio.estimate.value).toBeCloseTo(3.6, 1);
    expect(silent).toBe(
      stretches.flatMap(({ results }) => results).filter(({ estimate }) => !estimate.told).length,
    );
    const taped = { ...whole, record: { ...whole.record, tape: { step: 'ratio', events: 31 } } };
    expect(tapedOf([whole, taped])).toEqual([{ id: whole.id, step: 'ratio', events: 31 }]);
  });
  test('without traces there is no such part', () => expect(text([])).not.toContain('Logged traces'));
});

describe('what a fault moves', () => {
  test.each(Object.values(FAMILIES).map((one) => [one.name, one] as const))(
    '%s: a fault that moves a parameter moves a reading, and a seep none',
    (_name, one) => {
      const { values } = one.healthy(one.typical);
      for (const fault of faultsOf(one, one.typical)) {
        const changes = fault.apply(values, 1).some((value, i) => value !== values[i]);
        expect([fault.id, movedBy(one, one.typical, fault).length > 0]).toEqual([fault.id, changes]);
      }
    },
  );
  test('a torn diaphragm moves runout, the supply applied and the vacuum left applied, never the bypass nor what is left released', () => {
    const torn = family.faults.find(({ id }) => id === 'torn-diaphragm')!;
    const ids = movedBy(family, profile, torn).map(({ id }) => id);
    expect(ids).toEqual(expect.arrayContaining(['runoutInput', 'supplyApplied', 'supplyLeftApplied']));
    expect(ids).not.toContain('outputPassed');
    expect(ids).not.toContain('supplyLeftReleased');
  });
});

describe('due dates', () => {
  test('soonest first, without those that have none', () => {
    const of = (tag: string, calibrationDue: string | null) => ({ ...gauges.supply, tag, calibrationDue });
    const dates = dueDates([
      of('B', '2027-01-01'),
      of('C', null),
      of('A', '2026-12-01'),
      of('D', '2026-12-01'),
    ]);
    expect(dates.map(({ tag }) => tag)).toEqual(['A', 'D', 'B']);
    expect(daysBetween('2026-11-24', '2026-12-24')).toBe(30);
    expect(daysBetween('2026-11-24', '2026-11-20')).toBe(-4);
  });
});
