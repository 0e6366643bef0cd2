/** @jest-environment node */
import { gaussian, seeded } from '../numeric/chance';
import { kinkedLine, plainLine, type Cloud, type KinkedLine } from './kinked-line';

/** A line y = 2 + 4·x to its knee at 10, and y = 42 + 0.9·(x − 10) beyond. */
const TRUE = { slope: 4, knee: 10, beyond: 0.9, kneeY: 42 };
const along = (x: number) => (x <= TRUE.knee ? 2 + 4 * x : TRUE.kneeY + 0.9 * (x - TRUE.knee));
const NOISE = { u_x: 0.05, u_y: 0.3 };

function cloud(seed: number, { u_x, u_y } = NOISE, points = 80, of = along): Cloud {
  const random = seeded(seed);
  const truly = Array.from({ length: points }, (_, i) => (20 * i) / (points - 1));
  return {
    x: Float64Array.from(truly, (x) => x + u_x * gaussian(random)),
    y: Float64Array.from(truly, (x) => of(x) + u_y * gaussian(random)),
    u_x,
    u_y,
  };
}

describe('a line with a knee', () => {
  test('without noise is found as it is', () => {
    const { slope, knee, beyond, intercept, used } = kinkedLine(cloud(1, { u_x: 1e-9, u_y: 1e-9 }))!;
    expect([slope, knee, beyond, intercept].map((one) => Number(one.toFixed(5)))).toEqual([4, 10, 0.9, 2]);
    expect(used).toBe(80);
  });

  test('its uncertainties are how far it is off, over 600 clouds of noise on both axes', () => {
    const off: Record<string, number[]> = {};
    for (let seed = 1; seed <= 600; seed += 1) {
      const found = kinkedLine(cloud(seed))!;
      const keep = (name: keyof KinkedLine['u'], value: number) =>
        (off[name] ??= []).push((value - TRUE[name]) / found.u[name]);
      keep('slope', found.slope);
      keep('knee', found.knee);
      keep('beyond', found.beyond);
      keep('kneeY', found.intercept + found.slope * found.knee);
      (off.at4 ??= []).push((found.intercept + 4 * found.slope - 18) / Math.sqrt(found.varianceAt(4)));
    }
    // Of 600 the standard deviation is known to 2.9 %: within 12 % of 1 is four of that.
    for (const [name, offs] of Object.entries(off)) {
      const deviation = Math.sqrt(offs.reduce((sum, one) => sum + one ** 2, 0) / offs.length);
      expect([name, Math.abs(deviation - 1) < 0.12, deviation]).toEqual([name, true, deviation]);
    }
  });

  test('one point that lies far off is left out, two standard deviations are not', () => {
    const sound = cloud(3);
    const hit = { ...sound, y: sound.y.with(20, sound.y[20]! + 30) };
    const [one, other] = [kinkedLine(sound)!, kinkedLine(hit)!];
    expect(other.used).toBe(one.used - 1);
    expect(Math.abs(other.knee - one.knee)).toBeLessThan(one.u.knee);
    expect(one.used).toBeGreaterThanOrEqual(79);
  });

  test('a value that was not read counts as none', () => {
    const sound = cloud(4);
    expect(kinkedLine({ ...sound, y: sound.y.with(5, NaN) })!.used).toBe(kinkedLine(sound)!.used - 1);
  });

  test('is none where the points go straight on, or one side has fewer than four', () => {
    for (let seed = 1; seed <= 40; seed += 1)
      expect(kinkedLine(cloud(seed, NOISE, 80, (x) => 2 + 4 * x))).toBeNull();
    const few = (n: number) => cloud(5, { u_x: 1e-9, u_y: 1e-9 }, n);
    expect([7, 8].map((n) => kinkedLine(few(n)) !== null)).toEqual([false, true]);
  });
});

describe('a straight line', () => {
  test('has the textbook’s uncertainties: u(b)² = σ²/Sxx, u(a)² = σ²·(1/n + x̄²/Sxx)', () => {
    const x = Float64Array.of(1, 2, 3, 4, 6);
    const line = plainLine({ x, y: x.map((one) => 5 - 2 * one), u_x: 0, u_y: 0.4 })!;
    // x̄ = 3.2, Sxx = 4.84 + 1.44 + 0.04 + 0.64 + 7.84 = 14.8.
    expect(line.u.slope).toBeCloseTo(0.4 / Math.sqrt(14.8), 12);
    expect(line.u.intercept).toBeCloseTo(0.4 * Math.sqrt(1 / 5 + 3.2 ** 2 / 14.8), 12);
    expect(line.varianceAt(3.2)).toBeCloseTo(0.4 ** 2 / 5, 12);
    expect([line.slope, line.intercept, line.chi2, line.used]).toEqual([
      expect.closeTo(-2, 9),
      expect.closeTo(5, 9),
      expect.closeTo(0, 9),
      5,
    ]);
  });
  test('noise along x counts by the slope: u_y² + (b·u_x)²', () => {
    const x = Float64Array.of(1, 2, 3, 4, 6);
    const line = plainLine({ x, y: x.map((one) => 5 - 2 * one), u_x: 0.3, u_y: 0.4 })!;
    expect(line.u.slope).toBeCloseTo(Math.hypot(0.4, 2 * 0.3) / Math.sqrt(14.8), 9);
  });
});
