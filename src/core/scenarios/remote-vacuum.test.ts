import { countedCaptures } from '../procedure/run';
import { printSentence } from '../quantities/sentence';
import {
  bench,
  contextWith,
  family,
  faultyTruth,
  gauges,
  INHG,
  outcome,
  profile,
  BAR,
  rig,
  truthWith,
} from './bench';
import type { Sentence } from '../quantities/sentence';

const words = (notes: readonly Sentence[]) => notes.map((note) => printSentence(note, 'mixed')).join(' ');

describe('a healthy unit', () => {
  test('meets every limit, over seeded noise', () => {
    for (let seed = 1; seed <= 12; seed++) {
      const { results, assessment } = bench(truthWith({ noise_steps: 0.3 }), contextWith(), seed);
      expect(results.filter((r) => r.verdict !== 'meets' && r.verdict !== 'noted').map((r) => r.id)).toEqual(
        [],
      );
      expect(assessment.call).toBe('healthy');
    }
  });

  test('on a weak supply is called that, and the supply is named as what falls short', () => {
    const { byId, assessment } = bench(truthWith({ supply_Pa: 15 * INHG }));
    const full = byId('full-output');
    // Handbook 8.1: 85.7 bar at 28 bar in on 15 inHg (85.645 by hand, twin.test.ts); gauges step 0.2 bar.
    expect(Math.abs(full.value! / BAR - 85.645)).toBeLessThan(0.3);
    expect(Math.abs(full.expected! / BAR - 85.645)).toBeLessThan(0.5);
    expect(full.verdict).toBe('meets');
    expect(byId('supply-need').verdict).toBe('fails');
    expect(assessment.call).toBe('weak-supply');
    expect(assessment.headline).toBe('A healthy unit on a weak supply');
    expect(words(assessment.reasons)).toMatch(
      /What falls short is the supply: it reads 15\.0.* inHg, and this unit needs 16\.0 inHg/,
    );
  });

  test('a point above the predicted runout is never used for B, and the reason is said', () => {
    const { byId, run } = bench(truthWith({ supply_Pa: 15 * INHG }));
    const B = byId('boost-ratio');
    const above = countedCaptures(run, 'ratio.4.output')[0]!;
    expect(B.captures).not.toContain(above.id);
    expect(B.captures).toHaveLength(6);
    expect(words(B.notes)).toMatch(/24\.\d bar in is above the runout of 22\.\d bar/);
    expect(Math.abs(B.value! - 3.6)).toBeLessThan(2 * B.u!);
  });

  test('at altitude: the need is not corrected, the health is', () => {
    // 1 600 m: a pump in full health makes 18 × 24.66/29.92 = 14.8 inHg. Healthy there, and still too little for the unit.
    const high = contextWith({ conditions: { ...contextWith().conditions, barometer_Pa: 83_510 } });
    const { byId } = bench(truthWith({ supply_Pa: 15.2 * INHG }), high);
    expect(byId('supply-health').verdict).toBe('meets');
    expect(byId('supply-need').verdict).toBe('fails');
  });
});

describe('two gauges that disagree', () => {
  const off = { 'OUT-H': { scale: 1.08 } };

  test('8 % in scale: found with limits, the ratio corrected, and said', () => {
    const { byId, assessment } = bench(truthWith({ gauges: off, noise_steps: 0.2 }));
    const check = byId('cross-check');
    expect(Math.abs(check.value! - 1.08)).toBeLessThan(2 * check.u!);
    expect(check.u!).toBeLessThan(0.005);
    expect(words(check.notes)).toMatch(/OUT-H reads 1\.0[78]\d* ± 0\.00\d+ times what IN-H reads/);
    expect(words(check.notes)).toMatch(/one of the gauges is out of its class/);
    // No third gauge on this shelf, so none is named; with a finer one there it is.
    expect(words(check.notes)).not.toMatch(/settles it/);
    const third = {
      ...gauges.outHigh,
      tag: 'REF',
      usualPort: null,
      accuracy: { kind: 'en-837-1', class: '0.1' },
    } as const;
    const context = contextWith({ shelf: [...contextWith().shelf, third] });
    const settled = bench(truthWith({ gauges: off }), context).byId('cross-check');
    expect(words(settled.notes)).toMatch(/REF in OUT-H’s place settles it/);
    const B = byId('boost-ratio');
    expect(Math.abs(B.value! - 3.6)).toBeLessThan(2 * B.u!);
    expect(words(B.notes)).toMatch(/Divided by 1\.0[78]/);
    expect(byId('ratio.3-output').verdict).toBe('meets');
    expect(assessment.call).not.toBe('faulty');
  });

  test('what that disagreement hides, another gauge in place of the doubted one would settle', () => {
    const spare = {
      ...gauges.outHigh,
      tag: 'REF',
      accuracy: { kind: 'percent-of-span', percent: 0.1 } as const,
    };
    const context = contextWith({ shelf: [...Object.values(gauges), spare] });
    const area = bench(truthWith({ gauges: off }), context).byId('effective-area');
    expect(area.verdict).toBe('close');
    expect(area.advice).toMatchObject({ kind: 'gauge', instrument: 'REF', inPlaceOf: 'OUT-H' });
  });

  test('a 1.5 bar offset left after the vented zero is a threshold in the unit', () => {
    const place = family.parameters.findIndex(({ id }) => id === 'threshold_Pa');
    const { byId } = bench(truthWith({ parameters: family.healthy(profile).values.with(place, 1.5 * BAR) }));
    const bypass = byId('bypass');
    expect(bypass.value! / BAR).toBeCloseTo(-1.5, 0);
    expect(bypass.verdict).toBe('fails');
    expect(words(bypass.notes)).toMatch(/threshold in the unit .* not a gauge zero/);
  });

  test('the same offset present when vented is a gauge zero, and the unit meets its limit', () => {
    const { byId, assessment } = bench(truthWith({ gauges: { 'OUT-H': { zero_Pa: 1.4 * BAR } } }));
    expect(byId('bypass').verdict).toBe('meets');
    expect(byId('bypass').notes).toEqual([]);
    expect(words(byId('cross-check').notes)).toMatch(/stood 1\.4 bar from IN-H: a gauge zero/);
    expect(assessment.call).toBe('healthy');
  });

  test('a blocked passage is called that and corrects nothing', () => {
    const { byId } = bench(faultyTruth('slave-check-stuck', 1));
    expect(byId('bypass').verdict).toBe('fails');
    expect(words(byId('bypass').notes)).toMatch(/Blocked passage/);
    expect(byId('cross-check').value).toBeNull();
    expect(words(byId('boost-ratio').notes)).toMatch(/corrects nothing/);
  });

  test('the correction does not pass to a gauge that was not in the bypass test', () => {
    const context = contextWith({ profile: { ...profile, bypassInputs_Pa: [3, 6, 9].map((p) => p * BAR) } });
    const { byId } = bench(truthWith({ gauges: off }), context);
    expect(byId('cross-check').name).toBe('OUT-L against IN-L');
    expect(words(byId('boost-ratio').notes)).toMatch(/No bypass test with these two gauges/);
    // Uncorrected, B carries both gauges' own errors: wider than the corrected one.
    expect(byId('boost-ratio').u!).toBeGreaterThan(bench(truthWith({ gauges: off })).byId('boost-ratio').u!);
  });

  test('it passes to the high gauges of tied pairs where both were read, and to those rows only', () => {
    const context = contextWith({ profile: { ...profile, bypassInputs_Pa: [3, 6, 9].map((p) => p * BAR) } });
    const { events } = bench(truthWith({ gauges: off }), context);
    const scale: Record<string, number> = { 'IN-L': 1, 'OUT-L': 1.08 };
    const both = events.flatMap((event) => {
      if (event.type !== 'captured' || !/^bypass\.\d/.test(event.item)) return [event];
      const high = event.instrument.replace('-L', '-H');
      const value_SI = Math.round((event.value_SI * scale[event.instrument]!) / (0.2 * BAR)) * 0.2 * BAR;
      return [event, { ...event, id: `${event.id}-high`, instrument: high, value_SI }];
    });
    const { byId, results } = outcome(context, both);
    const checks = results.filter(({ id }) => id.startsWith('cross-check'));
    expect(checks.map(({ name }) => name).sort()).toEqual([
      'OUT-H against IN-H',
      'OUT-H against IN-L',
      'OUT-L against IN-H',
      'OUT-L against IN-L',
    ]);
    const high = checks.find(({ name }) => name === 'OUT-H against IN-H')!;
    expect(Math.abs(high.value! - 1.08)).toBeLessThan(2 * high.u!);
    // The high gauges were compared up to 9.7 bar, and B is read far above that.
    expect(words(byId('boost-ratio').notes)).toMatch(/compared the gauges up to 9\.\d bar only/);
    // One row read with a high gauge too is no cross-check of its own, and no gap.
    const rowTwo = both.find(
      (event) => event.type === 'captured' && event.id.endsWith('-high') && event.item === 'bypass.2.output',
    );
    const once = outcome(
      context,
      both.filter((event) => !event.id.endsWith('-high') || event === rowTwo),
    );
    expect(once.results.filter(({ id }) => id.startsWith('cross-check')).map(({ name }) => name)).toEqual([
      'OUT-L against IN-L',
    ]);
  });

  test('the correction does not reach beyond the range covered', () => {
    const context = contextWith({
      profile: { ...profile, bypassInputs_Pa: [15, 30, 45].map((p) => p * BAR) },
    });
    expect(words(bench(truthWith({ gauges: off }), context).byId('boost-ratio').notes)).toMatch(
      /up to 48\.\d bar only/,
    );
  });
});

/** For each severe fault of handbook 8.1, the named test or observation that finds it. */
const FOUND_BY: Record<string, string> = {
  'torn-diaphragm': 'vacuum-loss-applied',
  'undersized-diaphragm': 'effective-area',
  'vacuum-seat-leak': 'vacuum-loss-applied',
  'hub-seal-leak': 'vacuum-loss-released',
  'poppet-leak': 'rest-alike',
  'valve-sticking': 'crack',
  'spool-seal-leak': 'vacuum-side-fluid',
  'cup-bypass': 'hold',
  'slave-check-stuck': 'bypass',
  'rod-seal-leak': 'fluid-level',
  'breather-blocked': 'full-activation',
  'passage-blocked': 'self-apply',
  'hose-collapsed': 'supply-drop',
  'check-valve-leak': 'vacuum-loss-released',
  'seep-bleed-screw': 'seep-high.bleed-screw',
  'seep-end-cap': 'seep-high.end-cap',
  'seep-rod-hole': 'seep-high.rod-hole',
  'seep-switch': 'seep-high.switch',
  'threads-damaged': 'threads',
  'switch-out-of-range': 'lamp-switch',
};

describe('every severe fault is found', () => {
  test('the table names every fault of the family', () => {
    expect(Object.keys(FOUND_BY).sort()).toEqual(family.faults.map(({ id }) => id).sort());
  });
  test.each(Object.entries(FOUND_BY))('%s by %s', (fault, result) => {
    for (const seed of [1, 2, 3]) {
      expect(
        bench(faultyTruth(fault, 1, { noise_steps: 0.2 }), contextWith(), seed).byId(result).verdict,
      ).toBe('fails');
    }
  });
  test('a small diaphragm with a valve made for it has its B: the points past its own knee are not used', () => {
    const small: Record<string, number> = {
      effectiveArea_m2: 0.64,
      valveGain: 1 / 0.64,
      valveJump_Pa: 1 / 0.64,
    };
    const parameters = family
      .healthy(profile)
      .values.map((value, i) => value * (small[family.parameters[i]!.id] ?? 1));
    const { byId } = bench(truthWith({ parameters }));
    expect(byId('effective-area').verdict).toBe('fails');
    expect(words(byId('boost-ratio').notes)).toMatch(/this unit’s activation gauge reached zero/);
    expect(byId('boost-ratio').verdict).toBe('meets');
  });
  test('a torn diaphragm loses nothing released, everything applied, and the valve is not blamed', () => {
    const { byId } = bench(faultyTruth('torn-diaphragm', 0.5));
    expect(byId('vacuum-loss-released').verdict).toBe('meets');
    expect(byId('vacuum-loss-applied').verdict).toBe('fails');
    for (const id of ['boost-ratio', 'crack', 'effective-area']) expect(byId(id).verdict).toBe('meets');
  });
  test('an undersized diaphragm has a low B while activation and runout input are right', () => {
    const { byId } = bench(faultyTruth('undersized-diaphragm', 0.8));
    for (const id of ['boost-ratio', 'effective-area', 'runout-output'])
      expect(byId(id).verdict).toBe('fails');
    for (const id of ['runout-input', 'crack', 'vacuum-loss-applied']) expect(byId(id).verdict).toBe('meets');
  });
  test('a collapsed hose is a supply that falls short, not a weak unit', () => {
    const { assessment } = bench(faultyTruth('hose-collapsed', 1));
    expect(assessment.call).toBe('weak-supply');
    expect(words(assessment.reasons)).toMatch(/Look at the hose/);
  });
});

describe('what was not done is said', () => {
  test('a run cut short is incomplete and names what is missing', () => {
    const { events, context } = bench(truthWith());
    const cut = events.findIndex((event) => event.type === 'captured' && event.item === 'hold.input');
    const { assessment, byId } = outcome(context, events.slice(0, cut));
    expect(assessment.call).toBe('incomplete');
    expect(byId('hold').verdict).toBe('not-taken');
    expect(words(assessment.reasons)).toMatch(/output loss on hold/);
  });
  test('a hold read too soon says so, with the doubt that goes with it', () => {
    const { events, context } = bench(truthWith());
    const start = events.find((e) => e.type === 'captured' && e.item === 'hold.start')!;
    const hurried = events.map((e) =>
      e.type === 'captured' && e.item === 'hold.end'
        ? { ...e, at: new Date(Date.parse(start.at) + 12_000).toISOString() }
        : e,
    );
    const held = outcome(context, hurried).byId('hold');
    expect(words(held.notes)).toMatch(/Held 12 s instead of 60 s/);
    expect(held.u!).toBeGreaterThan(outcome(context, events).byId('hold').u! * 3);
  });
});

describe('too close to call', () => {
  test('at the limit of B the run advises, and a better gauge settles it', () => {
    const poor = { ...gauges.outHigh, accuracy: { kind: 'en-837-1', class: '4' } as const, step_Pa: BAR };
    const withPoor = contextWith({
      rig: { ...rig, output: [gauges.outLow, poor] },
      shelf: [
        ...Object.values(gauges).filter((g) => g.tag !== 'OUT-H'),
        { ...gauges.outHigh, tag: 'OUT-FINE' },
      ],
    });
    const place = family.parameters.findIndex(({ id }) => id === 'effectiveArea_m2');
    const healthy = family.healthy(profile).values;
    const weak = truthWith({ parameters: healthy.with(place, healthy[place]! * 0.945) });
    const area = bench(weak, withPoor).byId('effective-area');
    expect(area.verdict).toBe('close');
    expect(area.advice).toMatchObject({ kind: 'gauge', instrument: 'OUT-FINE', inPlaceOf: 'OUT-H' });
    const settled = bench(weak, contextWith()).byId('effective-area');
    expect(settled.verdict).toBe('meets');
  });
});
