import { faultsOf, type Family } from '../contract/family';
import type { Vector } from '../model/descriptor';
import { cholesky, dot, solve, times, transpose, type Matrix } from '../numeric/linear';

/** One reading of a run as the twin sees it: what was read, at what inputs, and how each may be out. SI. */
export interface TwinReading {
  readonly item: string;
  /** Place among the family's readings. */
  readonly place: number;
  readonly value: number;
  readonly inputs: Vector;
  /** Independent standard uncertainty of the reading itself. */
  readonly random: number;
  /** Error shared by every reading of a gauge: its name, its standard uncertainty here. */
  readonly shared: SharedError;
  /** The same of each input that was read. */
  readonly inputDoubts: readonly InputDoubt[];
}

/** An input of the twin that was itself read, and how it may be out. SI. */
export interface InputDoubt {
  /** Place among the inputs. */
  readonly input: number;
  /** What was read: readings that lean on the same one lean on the same chance error. */
  readonly of: string;
  readonly random: number;
  readonly shared: SharedError;
}

/** An error that is one and the same for every reading of a gauge: the gauge, and its standard uncertainty here. */
export interface SharedError {
  readonly gauge: string;
  readonly u: number;
}

/** One parameter of the twin as a run shows it. SI. */
export interface FittedParameter {
  /** Place among the family's parameters. */
  readonly place: number;
  readonly value: number;
  /** Standard uncertainty. */
  readonly u: number;
  /** Whether the readings tell it, rather than what was assumed of units of this kind. */
  readonly told: boolean;
}

/** How one unknown error reaches the parameters: by `effect` for one standard uncertainty of it. */
interface Source {
  /** Errors of the same name are one error, in this fit and in another; null for one of its own. */
  readonly name: string | null;
  readonly effect: readonly number[];
}

export interface TwinFit {
  readonly parameters: readonly FittedParameter[];
  readonly sources: readonly Source[];
  /** Readings used, and how many of them are left over to show the scatter. */
  readonly count: number;
  readonly freedom: number;
  /** Scatter of the readings about the fit over what their uncertainties allow; the random part is widened by it. */
  readonly misfit: number;
  /**
   * How much worse the readings are explained, as a rise of χ², with one parameter held at a value and the others fitted
   * anew; null where that settles nowhere. Where a reading has run out, as a vacuum that is all gone, the fit's own
   * uncertainty says too little of it.
   */
  readonly strain: (place: number, value: number) => number | null;
}

export type FitOutcome =
  { ok: true; fit: TwinFit } | { ok: false; why: 'too-few-readings' | 'no-convergence' };

/** A parameter is told by the readings where they make up this part of its value; the rest is assumption. */
const TOLD = 0.75;
/** Nor is one told that may be off by this part of all that units can differ by. */
const WIDEST_TOLD = 0.5;
const MOST_STEPS = 100;
/** A reading bends where it is off a straight line by this part of its own uncertainty. */
const BENDS_BY = 0.3;
/** The search ends where a step betters the fit by less than this part of it. */
const CLOSE_ENOUGH = 1e-7;
const MOST_DAMPING = 1e9;

/**
 * Spread that units of this kind can have in each parameter, faults included: the widest that any fault or tolerance
 * moves it. 0 where nothing does: such a parameter is taken as the profile gives it.
 */
export function assumedSpread(family: Family, profile: unknown): number[] {
  const { values, tolerances } = family.healthy(profile);
  const moved = faultsOf(family, profile).map((fault) => fault.apply(values, 1));
  return values.map((value, i) =>
    Math.max(tolerances[i]!, ...moved.map((vector) => Math.abs(vector[i]! - value))),
  );
}

/**
 * Fits the parameters of a family's twin to readings: generalised least squares (GUM-style covariance
 * with each gauge's error counted once), with a weak assumption of the profile's values, wide enough for any fault.
 * Damped Gauss–Newton; no parameter goes below zero. Where the readings scatter more than they should, their random
 * part is widened to match (Birge ratio, never narrowed). Handbook 7.
 */
export function fitReadings(family: Family, profile: unknown, readings: readonly TwinReading[]): FitOutcome {
  const { values } = family.healthy(profile);
  const spread = assumedSpread(family, profile);
  const free = values.flatMap((_, i) => (spread[i]! > 0 ? [i] : []));
  if (readings.length < free.length) return { ok: false, why: 'too-few-readings' };
  const model = new Model(family, readings, values, free, spread);
  const found = search(model);
  if (!found) return { ok: false, why: 'no-convergence' };
  const { scaled, triangle } = found;
  const jacobian = model.jacobian(scaled);
  const { gain, resolution } = gainOf(jacobian, triangle);
  const residual = model.residual(scaled);
  const freedom = readings.length - free.length;
  const chi2 = dot(residual, solve(triangle, residual)) + dot(scaled, scaled);
  const misfit = freedom > 0 ? Math.sqrt(chi2 / freedom) : 1;
  const sources = model
    .errors(scaled)
    .map(({ name, vector }) => ({
      name,
      effect: times(
        gain,
        vector.map((v) => v * (name === null ? Math.max(1, misfit) : 1)),
      ),
    }))
    .map(({ name, effect }) => ({ name, effect: effect.map((e, k) => e * spread[free[k]!]!) }));
  const uOf = (k: number) => Math.sqrt(sources.reduce((sum, { effect }) => sum + effect[k]! ** 2, 0));
  const strain = (place: number, value: number) => {
    const k = free.indexOf(place);
    const held = new Model(family, readings, values.with(place, value), free.toSpliced(k, 1), spread);
    const settled = settle(held, triangle, held.admitted(scaled.toSpliced(k, 1)));
    if (!settled) return null;
    const left = held.residual(settled);
    const assumed = ((value - values[place]!) / spread[place]!) ** 2;
    return dot(left, solve(triangle, left)) + dot(settled, settled) + assumed - chi2;
  };
  // About a knee the straight line says too little of how far a parameter may be off: the readings themselves are asked.
  free.forEach((place, k) => {
    const u = uOf(k);
    if (!model.bends(scaled, k, u / spread[place]!, triangle)) return;
    const wide = reachOf(
      values[place]! + scaled[k]! * spread[place]!,
      u,
      spread[place]!,
      (value) => strain(place, value) ?? 0,
    );
    if (wide > u)
      sources.push({ name: null, effect: free.map((_, i) => (i === k ? Math.sqrt(wide ** 2 - u ** 2) : 0)) });
  });
  const parameters = free.map((place, k) => ({
    place,
    value: values[place]! + scaled[k]! * spread[place]!,
    u: uOf(k),
    told: resolution[k]! > TOLD && uOf(k) < WIDEST_TOLD * spread[place]!,
  }));
  return { ok: true, fit: { parameters, sources, count: readings.length, freedom, misfit, strain } };
}

/** At two standard uncertainties χ² has risen by four: half of that is where a straight line says too little. */
const LEAST_RISE = 2;

/**
 * Standard uncertainty of a parameter by the rise of χ² on either side, where a straight line says too little: half of how far it can
 * go before the readings are explained worse by what two standard uncertainties are.
 */
function reachOf(value: number, u: number, spread: number, strain: (value: number) => number): number {
  const to = (sign: number) => {
    let off = 2 * u;
    while (off < 2 * spread && value + sign * off >= 0 && strain(value + sign * off) < LEAST_RISE) off *= 2;
    return off / 2;
  };
  return Math.max(to(1), to(-1));
}

/** The twin at the readings' own inputs, in parameters counted in assumed spreads from the healthy value. */
class Model {
  constructor(
    private readonly family: Family,
    private readonly readings: readonly TwinReading[],
    private readonly healthy: Vector,
    private readonly free: readonly number[],
    private readonly spread: readonly number[],
  ) {}

  private parameters(scaled: readonly number[]): number[] {
    const vector = [...this.healthy];
    // Zero is zero: what rounding leaves below it is none.
    this.free.forEach((place, k) => {
      vector[place] = Math.max(0, vector[place]! + scaled[k]! * this.spread[place]!);
    });
    return vector;
  }

  healthyPoint(): number[] {
    return this.free.map(() => 0);
  }

  /** No parameter below zero. */
  admitted(scaled: readonly number[]): number[] {
    return scaled.map((x, k) => {
      const place = this.free[k]!;
      return Math.max(x, -this.healthy[place]! / this.spread[place]!);
    });
  }

  predict(scaled: readonly number[]): number[] {
    const parameters = this.parameters(scaled);
    return this.readings.map(({ inputs, place }) => this.shown(parameters, inputs, place));
  }

  private shown(parameters: Vector, inputs: Vector, place: number): number {
    return this.family.steady(parameters, inputs, new Set([place]))[place]!;
  }

  residual(scaled: readonly number[]): number[] {
    return this.predict(scaled).map((y, i) => this.readings[i]!.value - y);
  }

  jacobian(scaled: readonly number[]): number[][] {
    const step = 1e-4;
    const columns = this.free.map((_, k) => {
      const up = this.predict(scaled.with(k, scaled[k]! + step));
      const below = this.admitted(scaled.with(k, scaled[k]! - step));
      const down = this.predict(below);
      return up.map((y, i) => (y - down[i]!) / (scaled[k]! + step - below[k]!));
    });
    return transpose(columns);
  }

  /** Whether some reading bends within so far of a point, along one parameter, by what can be seen in it. */
  bends(scaled: readonly number[], k: number, step: number, triangle: Matrix): boolean {
    const below = this.admitted(scaled.with(k, scaled[k]! - step));
    const [down, at, up] = [below, scaled, scaled.with(k, scaled[k]! + step)].map((x) => this.predict(x)) as [
      number[],
      number[],
      number[],
    ];
    const back = scaled[k]! - below[k]!;
    return at.some((y, i) => {
      const rises = (up[i]! - y) / step;
      const rose = back > 0 ? (y - down[i]!) / back : rises;
      const seen = Math.hypot(...triangle[i]!);
      return Math.abs(rises - rose) * step > BENDS_BY * seen;
    });
  }

  /** Every unknown error as what one standard uncertainty of it does to the residuals. */
  errors(scaled: readonly number[]): { name: string | null; vector: number[] }[] {
    const parameters = this.parameters(scaled);
    const shared = new Map<string, number[]>();
    const own: number[] = [];
    this.readings.forEach((reading, i) => {
      const add = (gauge: string, u: number) => {
        const vector = shared.get(gauge) ?? this.readings.map(() => 0);
        vector[i]! += u;
        shared.set(gauge, vector);
      };
      let variance = reading.random ** 2;
      add(reading.shared.gauge, reading.shared.u);
      for (const { input, random, shared: of } of reading.inputDoubts) {
        const slope = this.inputSlope(parameters, reading, input, Math.hypot(random, of.u));
        variance += (slope * random) ** 2;
        if (of.u > 0) add(of.gauge, -slope * of.u);
      }
      own.push(Math.sqrt(variance));
    });
    return [
      ...[...shared].map(([name, vector]) => ({ name, vector })),
      ...own.map((u, i) => ({ name: null, vector: own.map((_, j) => (i === j ? u : 0)) })),
    ];
  }

  private inputSlope(parameters: Vector, { inputs, place }: TwinReading, input: number, u: number): number {
    const at = (x: number) => this.shown(parameters, inputs.with(input, x), place);
    const low = Math.max(0, inputs[input]! - u);
    const high = inputs[input]! + u;
    return high > low ? (at(high) - at(low)) / (high - low) : 0;
  }

  /** Triangle of the covariance of the readings. */
  triangle(scaled: readonly number[]): number[][] {
    const errors = this.errors(scaled);
    const covariance = this.readings.map(() => this.readings.map(() => 0));
    for (const { vector } of errors)
      vector.forEach((a, i) => {
        if (a !== 0) vector.forEach((b, j) => (covariance[i]![j]! += a * b));
      });
    return cholesky(covariance);
  }
}

/** Times that the weights are made anew: how a doubt of the input reaches the output depends on where the knee lies. */
const ROUNDS = 3;

/** Damped Gauss–Newton from the healthy unit, the weights held in each round. @returns null where it does not settle */
function search(model: Model): { scaled: number[]; triangle: number[][] } | null {
  let scaled = model.healthyPoint();
  let triangle = model.triangle(scaled);
  for (let round = 0; round < ROUNDS; round += 1) {
    const found = settle(model, triangle, scaled);
    if (!found) return null;
    scaled = found;
    triangle = model.triangle(scaled);
  }
  return { scaled, triangle };
}

function settle(model: Model, triangle: Matrix, from: number[]): number[] | null {
  const cost = (x: readonly number[]) => {
    const r = model.residual(x);
    return dot(r, solve(triangle, r)) + dot(x, x);
  };
  let scaled = from;
  let now = cost(scaled);
  let damping = 1e-3;
  const lowest = model.admitted(from.map(() => -Infinity));
  for (let i = 0; i < MOST_STEPS; i += 1) {
    const { weighted, normal } = weigh(model.jacobian(scaled), triangle);
    const residual = model.residual(scaled);
    const right = weighted.map((column, k) => dot(column, residual) - scaled[k]!);
    // A parameter that stands at zero and wants to go below stays out of the step.
    const held = scaled.map((x, k) => x <= lowest[k]! && right[k]! < 0);
    const damped = normal.map((row, a) =>
      row.map((n, b) => (a === b ? n * (1 + damping) : held[a] || held[b] ? 0 : n)),
    );
    const step = solve(
      cholesky(damped),
      right.map((r, k) => (held[k] ? 0 : r)),
    );
    const next = model.admitted(scaled.map((x, k) => x + step[k]!));
    const then = orWorst(() => cost(next));
    const gained = now - then;
    if (gained > 0) {
      scaled = next;
      now = then;
      damping = Math.max(1e-9, damping / 10);
      if (gained < CLOSE_ENOUGH * now) return scaled;
    } else {
      // At a knee no smaller step helps any more either: this is the best there is.
      damping *= 10;
      if (damping > MOST_DAMPING) return scaled;
    }
  }
  return null;
}

/** A cost, or the worst there is where the step leads to a unit that cannot be. */
function orWorst(cost: () => number): number {
  try {
    return cost();
  } catch (error) {
    if (error instanceof RangeError) return Infinity;
    throw error;
  }
}

/** JᵀV⁻¹ and JᵀV⁻¹J with the weak assumption added: one per assumed spread. */
function weigh(j: Matrix, triangle: Matrix) {
  const columns = transpose(j);
  const weighted = columns.map((column) => solve(triangle, column));
  const normal = columns.map((_, a) =>
    columns.map((column, b) => dot(weighted[a]!, column) + (a === b ? 1 : 0)),
  );
  return { columns, weighted, normal };
}

/** How the readings make the parameters: ∂parameter/∂reading, and the part of each that is theirs. */
function gainOf(j: Matrix, triangle: Matrix): { gain: number[][]; resolution: number[] } {
  const { columns, weighted, normal } = weigh(j, triangle);
  const l = cholesky(normal);
  const gain = transpose(transpose(weighted).map((row) => solve(l, row)));
  return { gain, resolution: gain.map((row, k) => dot(row, columns[k]!)) };
}
