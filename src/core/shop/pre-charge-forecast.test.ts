/** @jest-environment node */
import { gaussian, seeded } from '../numeric/chance';
import { daysBetween } from './due';
import { preChargeForecast, type FoundPreCharge } from './pre-charge-forecast';

const BAR = 1e5;
const day = (after: number) => new Date(Date.UTC(2026, 0, 1 + after)).toISOString().slice(0, 10);
const found = (after: number, bar: number, u_bar = 0.5): FoundPreCharge => ({
  on: day(after),
  preCharge_Pa: bar * BAR,
  u_Pa: u_bar * BAR,
});

describe('when a pre-charge will be too low', () => {
  test('a tenth of a bar a week from 65 bar is at 55 in a hundred weeks, 700 days', () => {
    const history = [0, 91, 182, 273].map((after) => found(after, 65 - (0.1 * after) / 7, 0.3));
    const forecast = preChargeForecast(history, 55 * BAR);
    if (forecast.is !== 'falls') throw new Error(forecast.is);
    expect(forecast.on).toBe(day(700));
    expect(forecast.readings).toBe(4);
    expect(forecast.rate_PaPerS).toBeCloseTo((-0.1 * BAR) / (7 * 86_400), 9);
    // The day itself is certain, the range on either side of it is not the same: a slower fall lasts much longer.
    const [before, behind] = [
      daysBetween(forecast.earliest, forecast.on),
      daysBetween(forecast.on, forecast.latest),
    ];
    expect(before).toBeGreaterThan(0);
    expect(behind).toBeGreaterThan(before);
  });
  test('the range holds the day in 95 of 100 histories', () => {
    const random = seeded(9);
    let [held, all] = [0, 0];
    for (let i = 0; i < 400; i += 1) {
      const history = [0, 120, 250, 380, 500].map((after) =>
        found(after, 65 - 0.012 * after + 0.5 * gaussian(random), 0.5),
      );
      const forecast = preChargeForecast(history, 55 * BAR);
      // 10 bar at 0.012 a day.
      const truth = day(Math.round(10 / 0.012));
      if (forecast.is !== 'falls') continue;
      all += 1;
      if (forecast.earliest <= truth && truth <= forecast.latest) held += 1;
    }
    expect(all).toBeGreaterThan(350);
    // Of 380 at 95 %, fewer than 0.92 come less than once in a hundred.
    expect(held / all).toBeGreaterThan(0.92);
  });
  test('one that does not fall by more than its doubt is steady, with the earliest day it could come to', () => {
    const history = [found(0, 65), found(100, 64.9), found(200, 65.1), found(300, 65)];
    const forecast = preChargeForecast(history, 55 * BAR);
    expect(forecast.is).toBe('steady');
    if (forecast.is === 'steady' && forecast.earliest) expect(forecast.earliest > day(300)).toBe(true);
  });
  test.each([
    [[], 'too-few'],
    [[found(0, 65), found(90, 64)], 'too-few'],
    [[found(0, 65), found(0, 64), found(0, 63)], 'too-few'],
    [[found(0, 65), found(90, 60), found(180, 54)], 'below'],
  ] as const)('%j: %s', (history, is) => {
    expect(preChargeForecast(history, 55 * BAR).is).toBe(is);
  });
  test('the order in which the readings are handed over does not matter', () => {
    const history = [0, 91, 182, 273].map((after) => found(after, 65 - (0.1 * after) / 7));
    expect(preChargeForecast([...history].reverse(), 55 * BAR)).toEqual(preChargeForecast(history, 55 * BAR));
  });
});
