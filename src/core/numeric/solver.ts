/** Equations of something that changes with time: dy/dt from y. Written into a given array, so that nothing is allocated. */
export interface System {
  readonly size: number;
  readonly rates: (t_s: number, y: Float64Array, dy: Float64Array) => void;
  /** Size at which each state begins to matter, for the absolute tolerance. */
  readonly scale: ArrayLike<number>;
  /** Switches: each flips where its number rises through zero, and time stops there for an instant. */
  readonly turns?: readonly {
    readonly beyond: (t_s: number, y: Float64Array) => number;
    readonly flip: () => void;
  }[];
}

export interface SolverOptions {
  /** Error allowed in a step: this part of the state, or of its scale where that is larger. */
  readonly tolerance: number;
  /** Longest step, s: no event shorter than this is stepped over. */
  readonly longest_s: number;
}

/** The integration went no further: the step needed has become smaller than time can be told. */
export interface Stuck {
  readonly ok: false;
  readonly why: 'step-too-small' | 'not-finite';
  readonly at_s: number;
}
export type Solved = { readonly ok: true } | Stuck;

const STAGES = 7;
/**
 * Dormand and Prince, J. Comput. Appl. Math. 6 (1980) 19, table 2: the pair RK5(4)7M. Written out below, since a loop
 * over a table costs more than the arithmetic.
 */
const [A21, A31, A32] = [1 / 5, 3 / 40, 9 / 40];
const [A41, A42, A43] = [44 / 45, -56 / 15, 32 / 9];
const [A51, A52, A53, A54] = [19372 / 6561, -25360 / 2187, 64448 / 6561, -212 / 729];
const [A61, A62, A63, A64, A65] = [9017 / 3168, -355 / 33, 46732 / 5247, 49 / 176, -5103 / 18656];
const [B1, B3, B4, B5, B6] = [35 / 384, 500 / 1113, 125 / 192, -2187 / 6784, 11 / 84];
/** Fifth-order less fourth-order weights: the error of a step. */
const [E1, E3, E4, E5, E6, E7] = [71 / 57600, -71 / 16695, 71 / 1920, -17253 / 339200, 22 / 525, -1 / 40];
/** Continuous extension of fourth order (Shampine; Hairer, Nørsett, Wanner, Solving ODEs I, II.6). */
const [D1, D3, D4, D5, D6, D7] = [
  -12715105075 / 11282082432,
  87487479700 / 32700410799,
  -10690763975 / 1880347072,
  701980252875 / 199316789632,
  -1453857185 / 822651844,
  69997945 / 29380423,
];

type Stages = [
  Float64Array,
  Float64Array,
  Float64Array,
  Float64Array,
  Float64Array,
  Float64Array,
  Float64Array,
];

const SAFETY = 0.9;
const LEAST_CHANGE = 0.2;
const MOST_CHANGE = 5;
/** Exponents of the step control with memory of the error before (Gustafsson; ibid. IV.2). */
const ERROR_POWER = 0.17;
const MEMORY_POWER = 0.04;
const LEAST_STEP_S = 1e-10;
/** How nearly the time of a switch is found, s. */
const TURN_S = 1e-9;

type Turn = NonNullable<System['turns']>[number];

/**
 * Steps a system through time: explicit Runge–Kutta of order five with its error held to a tolerance, and values
 * between the steps by its own continuous extension. What acts from outside may be changed between two calls of
 * `advance`, followed by `restart`. Refuses rather than guesses where a step would have to become too small.
 */
export class Integrator {
  readonly y: Float64Array;
  t_s: number;
  /** Steps taken, and steps thrown away as too inexact. */
  steps = 0;
  refused = 0;
  private readonly k: Float64Array[];
  private readonly trial: Float64Array;
  private readonly from: Float64Array;
  private readonly bend: Float64Array[];
  private readonly turns: readonly Turn[];
  private readonly before: Float64Array;
  private readonly after: Float64Array;
  private step_s: number;
  private from_s: number;
  private lastError = 1e-4;
  private fresh = false;

  constructor(
    private readonly system: System,
    initial: ArrayLike<number>,
    start_s: number,
    private readonly options: SolverOptions,
  ) {
    if (initial.length !== system.size)
      throw new RangeError(`initial: ${initial.length} values for ${system.size} states`);
    const row = () => new Float64Array(system.size);
    this.turns = system.turns ?? [];
    this.before = new Float64Array(this.turns.length);
    this.after = new Float64Array(this.turns.length);
    this.y = Float64Array.from(initial);
    this.t_s = start_s;
    this.k = Array.from({ length: STAGES }, row);
    this.trial = row();
    this.from = row();
    this.bend = Array.from({ length: 4 }, row);
    this.step_s = options.longest_s / 10;
    this.from_s = start_s;
  }

  /** To be called where what acts from outside was changed by a jump. */
  restart(): void {
    this.fresh = false;
    this.step_s = Math.min(this.step_s, this.options.longest_s / 10);
  }

  /**
   * Steps on to a time and stops exactly there.
   *
   * @param every interval at which to be called back with the state there, s; multiples of it from the start
   */
  advance(until_s: number, every_s = 0, visit?: (t_s: number, y: Float64Array) => void): Solved {
    if (!this.fresh) {
      this.system.rates(this.t_s, this.y, this.k[0]!);
      this.fresh = true;
    }
    let next = every_s > 0 ? Math.floor(this.t_s / every_s + 1e-9) + 1 : Infinity;
    while (this.t_s < until_s - 1e-12) {
      this.look(this.before);
      const stuck = this.stepOnce(until_s);
      if (stuck) return stuck;
      const first = this.firstTurn();
      let prepared = first !== null;
      const end_s = first?.at_s ?? this.t_s;
      for (; visit && next * every_s <= end_s + 1e-12; next += 1) {
        if (!prepared) this.prepare();
        prepared = true;
        visit(next * every_s, this.between(next * every_s));
      }
      if (!first) continue;
      // The step ends where the switch flips: what comes after it was reckoned with the switch as it stood.
      this.y.set(this.between(end_s));
      this.t_s = end_s;
      for (const turn of first.turns) turn.flip();
      this.restart();
      this.system.rates(this.t_s, this.y, this.k[0]!);
      this.fresh = true;
    }
    return { ok: true };
  }

  /** Writes how far each switch is beyond its zero now. */
  private look(into: Float64Array): void {
    for (let i = 0; i < this.turns.length; i += 1) into[i] = this.turns[i]!.beyond(this.t_s, this.y);
  }

  /** The switches that flip first within the last step, all at one moment, and when; null where none does. Leaves the step prepared. */
  private firstTurn(): { readonly turns: readonly Turn[]; readonly at_s: number } | null {
    if (this.turns.length === 0) return null;
    this.look(this.after);
    const turned = this.turns.filter((_turn, i) => this.before[i]! < 0 && this.after[i]! >= 0);
    if (turned.length === 0) return null;
    this.prepare();
    const at_s = Math.min(...turned.map((turn) => this.crossing(turn)));
    const then = this.between(at_s);
    return { turns: turned.filter((turn) => turn.beyond(at_s, then) >= 0), at_s };
  }

  /** When a switch flips within the last step: just past its zero, found by halving the time. */
  private crossing({ beyond }: Turn): number {
    let [low, high] = [this.from_s, this.t_s];
    while (high - low > TURN_S) {
      const middle = (low + high) / 2;
      if (beyond(middle, this.between(middle)) < 0) low = middle;
      else high = middle;
    }
    return high;
  }

  private stepOnce(until_s: number): Stuck | null {
    const { tolerance, longest_s } = this.options;
    const { y } = this;
    for (;;) {
      const left = until_s - this.t_s;
      const h = Math.min(this.step_s, longest_s, left);
      if (h < LEAST_STEP_S && left > LEAST_STEP_S)
        return { ok: false, why: 'step-too-small', at_s: this.t_s };
      const worst = this.tryStep(h, tolerance);
      if (!Number.isFinite(worst)) return { ok: false, why: 'not-finite', at_s: this.t_s };
      const error = Math.max(worst, 1e-10);
      if (worst <= 1) {
        this.from.set(y);
        this.from_s = this.t_s;
        y.set(this.trial);
        this.t_s = h === left ? until_s : this.t_s + h;
        this.steps += 1;
        const change = SAFETY * error ** -ERROR_POWER * this.lastError ** MEMORY_POWER;
        this.lastError = error;
        // A step cut short by the end says nothing of how long one may be.
        const grown = h * Math.min(MOST_CHANGE, Math.max(LEAST_CHANGE, change));
        this.step_s = h < this.step_s ? Math.max(this.step_s, grown) : grown;
        this.swapEnds();
        return null;
      }
      this.refused += 1;
      this.step_s = h * Math.max(LEAST_CHANGE, SAFETY * error ** -0.2);
    }
  }

  /** Makes a step of length h into `trial`. @returns its error, in parts of what is allowed */
  private tryStep(h: number, tolerance: number): number {
    const { y, trial, t_s: t, system } = this;
    const { size, scale } = system;
    const [k1, k2, k3, k4, k5, k6, k7] = this.k as Stages;
    for (let i = 0; i < size; i += 1) trial[i] = y[i]! + h * A21 * k1[i]!;
    system.rates(t + h / 5, trial, k2);
    for (let i = 0; i < size; i += 1) trial[i] = y[i]! + h * (A31 * k1[i]! + A32 * k2[i]!);
    system.rates(t + 0.3 * h, trial, k3);
    for (let i = 0; i < size; i += 1) trial[i] = y[i]! + h * (A41 * k1[i]! + A42 * k2[i]! + A43 * k3[i]!);
    system.rates(t + 0.8 * h, trial, k4);
    for (let i = 0; i < size; i += 1)
      trial[i] = y[i]! + h * (A51 * k1[i]! + A52 * k2[i]! + A53 * k3[i]! + A54 * k4[i]!);
    system.rates(t + (8 / 9) * h, trial, k5);
    for (let i = 0; i < size; i += 1)
      trial[i] = y[i]! + h * (A61 * k1[i]! + A62 * k2[i]! + A63 * k3[i]! + A64 * k4[i]! + A65 * k5[i]!);
    system.rates(t + h, trial, k6);
    for (let i = 0; i < size; i += 1)
      trial[i] = y[i]! + h * (B1 * k1[i]! + B3 * k3[i]! + B4 * k4[i]! + B5 * k5[i]! + B6 * k6[i]!);
    // The last stage stands at the fifth-order end of the step: its rates begin the next one.
    system.rates(t + h, trial, k7);
    let worst = 0;
    for (let i = 0; i < size; i += 1) {
      const off = h * (E1 * k1[i]! + E3 * k3[i]! + E4 * k4[i]! + E5 * k5[i]! + E6 * k6[i]! + E7 * k7[i]!);
      const allowed = tolerance * Math.max(scale[i]!, Math.abs(y[i]!), Math.abs(trial[i]!));
      const part = Math.abs(off) / allowed;
      // Written so that what is not a number is seen, and not passed over.
      if (!(part <= worst)) worst = part;
    }
    return worst;
  }

  /** The rates at the end of a step are those at the beginning of the next: the two rows change places. */
  private swapEnds(): void {
    const begin = this.k[0]!;
    this.k[0] = this.k[6]!;
    this.k[6] = begin;
  }

  /** Makes the continuous extension of the last step. */
  private prepare(): void {
    const { size } = this.system;
    const h = this.t_s - this.from_s;
    const [one, two, three, four] = this.bend as [Float64Array, Float64Array, Float64Array, Float64Array];
    // The ends have changed places.
    const [end, , k3, k4, k5, k6, begin] = this.k as Stages;
    for (let i = 0; i < size; i += 1) {
      const rise = this.y[i]! - this.from[i]!;
      const lead = h * begin[i]! - rise;
      one[i] = rise;
      two[i] = lead;
      three[i] = rise - h * end[i]! - lead;
      four[i] = h * (D1 * begin[i]! + D3 * k3[i]! + D4 * k4[i]! + D5 * k5[i]! + D6 * k6[i]! + D7 * end[i]!);
    }
  }

  private between(t_s: number): Float64Array {
    const part = (t_s - this.from_s) / (this.t_s - this.from_s);
    const rest = 1 - part;
    const [one, two, three, four] = this.bend as [Float64Array, Float64Array, Float64Array, Float64Array];
    for (let i = 0; i < this.system.size; i += 1) {
      this.trial[i] =
        this.from[i]! + part * (one[i]! + rest * (two[i]! + part * (three[i]! + rest * four[i]!)));
    }
    return this.trial;
  }
}
