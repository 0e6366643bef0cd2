/** @jest-environment node */
import fc from 'fast-check';
import { Integrator, type System } from './solver';

const system = (size: number, rates: System['rates']): System => ({
  size,
  rates,
  scale: new Float64Array(size).fill(1e-3),
});
const decay = system(1, (_t, y, dy) => {
  dy[0] = -2 * y[0]!;
});
const swing = system(2, (_t, y, dy) => {
  dy[0] = y[1]!;
  dy[1] = -y[0]!;
});

describe('against closed forms', () => {
  test('decay: y = e^(−2t), at the end and between the steps', () => {
    const solver = new Integrator(decay, [1], 0, { tolerance: 1e-8, longest_s: 1 });
    const seen: [number, number][] = [];
    expect(solver.advance(3, 0.1, (t, y) => seen.push([t, y[0]!]))).toEqual({ ok: true });
    expect(solver.y[0]).toBeCloseTo(Math.exp(-6), 8);
    expect(seen).toHaveLength(30);
    for (const [t, y] of seen) expect(Math.abs(y - Math.exp(-2 * t))).toBeLessThan(2e-7);
  });
  test('a swing keeps its amplitude over a hundred turns within what a hundred times the tolerance allows', () => {
    const solver = new Integrator(swing, [1, 0], 0, { tolerance: 1e-7, longest_s: 1 });
    solver.advance(200 * Math.PI);
    expect(Math.hypot(solver.y[0]!, solver.y[1]!)).toBeCloseTo(1, 3);
    expect(solver.y[0]).toBeCloseTo(1, 3);
  });
  test('ten times the tolerance costs fewer steps and more error', () => {
    const run = (tolerance: number) => {
      const solver = new Integrator(swing, [1, 0], 0, { tolerance, longest_s: 1 });
      solver.advance(20);
      return { steps: solver.steps, error: Math.abs(solver.y[0]! - Math.cos(20)) };
    };
    const [coarse, fine] = [run(1e-4), run(1e-8)];
    expect(coarse.steps).toBeLessThan(fine.steps);
    expect(coarse.error).toBeGreaterThan(fine.error);
    expect(fine.error).toBeLessThan(1e-6);
  });
  test('visits fall on multiples of the interval, whatever the calls in between', () => {
    const solver = new Integrator(decay, [1], 0, { tolerance: 1e-6, longest_s: 0.05 });
    const times: number[] = [];
    for (const until of [0.03, 0.031, 0.2]) solver.advance(until, 0.02, (t) => times.push(t));
    expect(times.map((t) => Math.round(t * 1000))).toEqual([20, 40, 60, 80, 100, 120, 140, 160, 180, 200]);
  });
});

describe('what acts from outside', () => {
  test('may jump between two calls', () => {
    let pull = 0;
    const pulled = system(1, (_t, y, dy) => {
      dy[0] = (pull - y[0]!) / 0.5;
    });
    const solver = new Integrator(pulled, [0], 0, { tolerance: 1e-7, longest_s: 1 });
    solver.advance(1);
    expect(solver.y[0]).toBe(0);
    pull = 10;
    solver.restart();
    solver.advance(2);
    // 10·(1 − e^(−1/0.5))
    expect(solver.y[0]).toBeCloseTo(10 * (1 - Math.exp(-2)), 5);
  });
});

describe('it refuses rather than guesses', () => {
  test('a solution that runs away in finite time', () => {
    // y' = y² from 1 is 1/(1 − t): without bound at 1 s.
    const away = system(1, (_t, y, dy) => {
      dy[0] = y[0]! ** 2;
    });
    const solver = new Integrator(away, [1], 0, { tolerance: 1e-6, longest_s: 1 });
    const end = solver.advance(2);
    expect(end.ok).toBe(false);
    expect((end as { at_s: number }).at_s).toBeCloseTo(1, 3);
  });
  test('rates that are no numbers', () => {
    const broken = system(1, (t, _y, dy) => {
      dy[0] = t > 0.5 ? NaN : 1;
    });
    const solver = new Integrator(broken, [0], 0, { tolerance: 1e-6, longest_s: 0.1 });
    expect(solver.advance(1)).toMatchObject({ ok: false, why: 'not-finite' });
  });
  test('a start of the wrong size', () => {
    expect(() => new Integrator(decay, [1, 2], 0, { tolerance: 1e-6, longest_s: 1 })).toThrow(
      'initial: 2 values for 1 states',
    );
  });
});

describe('switches', () => {
  /** A store that leaks at a part a second of what is in it, and a pump between two marks. */
  class Store {
    readonly size = 1;
    readonly scale = [1];
    on = false;
    readonly flips: { t_s: number; on: boolean }[] = [];
    private t_s = 0;
    constructor(
      readonly leak: number,
      readonly pump: number,
      readonly marks: readonly [low: number, high: number],
    ) {}
    rates(_t_s: number, y: Float64Array, dy: Float64Array) {
      dy[0] = (this.on ? this.pump : 0) - this.leak * y[0]!;
    }
    readonly turns = [
      {
        beyond: (t_s: number, y: Float64Array) => {
          this.t_s = t_s;
          return this.on ? y[0]! - this.marks[1] : this.marks[0] - y[0]!;
        },
        flip: () => {
          this.on = !this.on;
          this.flips.push({ t_s: this.t_s, on: this.on });
        },
      },
    ];
  }

  test('cut in and out where the closed form says, to a microsecond, and time stops there', () => {
    const store = new Store(0.1, 5, [8, 10]);
    const solver = new Integrator(store, [10], 0, { tolerance: 1e-9, longest_s: 0.5 });
    expect(solver.advance(20).ok).toBe(true);
    // Down: y = 10·e^(−0.1 t) is 8 at ln(1.25)/0.1. Up: y = 50 − 42·e^(−0.1 t) is 10 after ln(42/40)/0.1 more.
    const down = Math.log(10 / 8) / 0.1;
    const up = Math.log(42 / 40) / 0.1;
    const due = Array.from(
      { length: 20 },
      (_, i) => Math.ceil((i + 1) / 2) * down + Math.floor((i + 1) / 2) * up,
    ).filter((t) => t < 20);
    expect(due.length).toBeGreaterThan(10);
    expect(store.flips.map(({ on }) => on)).toEqual(due.map((_, i) => i % 2 === 0));
    store.flips.forEach(({ t_s }, i) => expect(Math.abs(t_s - due[i]!)).toBeLessThan(1e-6));
  });

  test('two that are alike flip together: neither is lost because the other was first', () => {
    const [one, other] = [new Store(0.1, 5, [8, 10]), new Store(0.1, 5, [8, 10])];
    const both = {
      size: 2,
      scale: [1, 1],
      rates: (t_s: number, y: Float64Array, dy: Float64Array) => {
        one.rates(t_s, y.subarray(0, 1), dy.subarray(0, 1));
        other.rates(t_s, y.subarray(1), dy.subarray(1));
      },
      turns: [
        one.turns[0]!,
        {
          beyond: (t_s: number, y: Float64Array) => other.turns[0]!.beyond(t_s, y.subarray(1)),
          flip: () => other.turns[0]!.flip(),
        },
      ],
    };
    const solver = new Integrator(both, [10, 10], 0, { tolerance: 1e-9, longest_s: 0.5 });
    expect(solver.advance(20).ok).toBe(true);
    expect(one.flips.length).toBeGreaterThan(10);
    expect(other.flips).toEqual(one.flips);
    expect(solver.y[1]).toBe(solver.y[0]);
  });

  test('what is seen between steps never passes the marks by more than the solver’s own error', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.02, max: 0.4, noNaN: true }),
        fc.double({ min: 6, max: 30, noNaN: true }),
        fc.double({ min: 0.3, max: 3, noNaN: true }),
        (leak, pump, band) => {
          const store = new Store(leak, pump, [10, 10 + band]);
          const solver = new Integrator(store, [10 + band / 2], 0, { tolerance: 1e-8, longest_s: 0.5 });
          const seen: number[] = [];
          solver.advance(12, 0.01, (_t, y) => seen.push(y[0]!));
          expect(seen).toHaveLength(1200);
          expect(Math.min(...seen)).toBeGreaterThan(10 - 1e-4);
          expect(Math.max(...seen)).toBeLessThan(10 + band + 1e-4);
        },
      ),
      { numRuns: 40 },
    );
  });
});
