import { printSentence } from '../quantities/sentence';
import { benchOf, INHG } from './bench';

const { family, contextWith, truthWith, faultyTruth, bench } = benchOf('pedal-vacuum');
type Made = ReturnType<typeof bench>;
const failing = ({ results }: Made) =>
  results.flatMap(({ id, verdict }) => (verdict === 'fails' ? [id] : []));

describe('a pedal booster by itself on a bench', () => {
  test('healthy, over seeded noise: every limit met', () => {
    for (let seed = 1; seed <= 8; seed += 1) {
      const { results, assessment } = bench(truthWith({ noise_steps: 0.3 }), contextWith(), seed);
      expect(results.filter((r) => r.verdict !== 'meets' && r.verdict !== 'noted').map((r) => r.id)).toEqual(
        [],
      );
      expect(assessment.call).toBe('healthy');
    }
  });
  test('its figures are those of the worked example, on a bench master of the same bore', () => {
    // Handbook-models 8.3 at 65 kPa, 22.2 mm, i 3.6: 58.6 and 10.6 bar at 150 N, 78.3 and 24.5 at 300 N, A 0.0320 m².
    const { byId } = bench(truthWith({ supply_Pa: 65e3 }));
    for (const [id, bar] of [
      ['with.1', 58.6],
      ['without.1', 10.6],
      ['with.2', 78.3],
      ['without.2', 24.5],
    ] as const)
      expect(Math.abs(byId(id).value! / 1e5 - bar)).toBeLessThan(0.2);
    expect(byId('effective-area').value).toBeCloseTo(0.032, 3);
    expect(byId('gain.1').value).toBeCloseTo(5.53, 1);
  });
  test('on a weak supply it makes less, and is called healthy on a weak supply', () => {
    const { assessment, byId } = bench(truthWith({ supply_Pa: 12 * INHG }));
    expect(assessment.call).toBe('weak-supply');
    expect(byId('with.2').verdict).toBe('meets');
    expect(assessment.reasons.map((reason) => printSentence(reason, 'mixed')).join(' ')).toMatch(
      /the gauge reads 12\.0.*needs 18\.0 inHg\. On it a healthy one makes 58\.\d bar instead of 7\d\.\d bar/,
    );
  });
  const FOUND: Readonly<Record<string, readonly string[]>> = {
    'torn-diaphragm': ['hiss-held', 'held-loss'],
    'vacuum-seat': ['hiss-held', 'held-loss'],
    'air-seat': ['hiss-rest', 'static-loss', 'rest-pressure', 'drag'],
    'shell-leak': ['hiss-rest', 'static-loss', 'held-loss'],
    'valve-sticking': ['with.1', 'drag'],
    'rod-long': ['clearance', 'drag'],
    'rod-short': ['clearance'],
    'disc-missing': ['with.1'],
    'disc-swollen': ['with.1'],
    'filter-blocked': ['apply'],
    'hardened-diaphragm': ['with.2', 'effective-area'],
    'wrong-booster': ['with.2', 'effective-area'],
  };
  test.each(family.faults.map(({ id }) => id))('%s, severe, fails where it shows', (id) => {
    const made = bench(faultyTruth(id, 1, { noise_steps: 0.2 }));
    expect(FOUND[id]).toBeDefined();
    expect(failing(made)).toEqual(expect.arrayContaining([...FOUND[id]!]));
    expect(made.assessment.call).toBe('faulty');
  });
  test('a torn diaphragm loses nothing at rest: only the hold under force shows it', () => {
    expect(failing(bench(faultyTruth('torn-diaphragm', 0.7)))).not.toContain('static-loss');
  });
});
