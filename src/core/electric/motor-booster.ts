/**
 * A booster in which a motor pushes beside the rod: what it makes of an input, and the current that it holds that with. Handbook-models
 * 8.8: F_base = (F_in − F_s)⁺; below crack F_o = F_base, else max(F_base, min(J + g·(F_in − F_c), F_in − F_s + min(F_lim, κ·I_m))).
 */
export interface MotorBooster {
  /** Return spring, N. */
  readonly spring_N: number;
  /** Input at which it begins to help, what comes at once then, N, and output for each newton beyond. */
  readonly crack_N: number;
  readonly jump_N: number;
  readonly gain: number;
  /** Force for each ampere in the motor, N/A; more than nothing. */
  readonly perAmpere_N: number;
  /** Most assist, whatever the current could hold, N. */
  readonly limit_N: number;
}

/** What the foot alone comes to behind the spring, N. */
const base_N = ({ spring_N }: MotorBooster, input_N: number): number => Math.max(0, input_N - spring_N);

/** Most that the motor pushes with, N: its own limit, or what the current comes to that its feed leaves it. */
const pushes_N = ({ limit_N, perAmpere_N }: MotorBooster, most_A: number): number =>
  Math.min(limit_N, perAmpere_N * most_A);

/**
 * Force on the rod of the master, N.
 *
 * @param most_A most current that the motor can hold: `motorLimit_A`
 * @example spring 80, crack 30, jump 120, gain 5, 60 N/A, 3 600 N; 600 N, 60 A → 2 970 N
 */
export function motorOutput_N(booster: MotorBooster, input_N: number, most_A: number): number {
  const { crack_N, jump_N, gain, spring_N } = booster;
  const alone_N = base_N(booster, input_N);
  if (input_N < crack_N) return alone_N;
  const mapped_N = jump_N + gain * (input_N - crack_N);
  return Math.max(alone_N, Math.min(mapped_N, input_N - spring_N + pushes_N(booster, most_A)));
}

/** Current that holds an output at an input, A: (F_o − F_base)/κ. */
export const heldBy_A = (booster: MotorBooster, input_N: number, output_N: number): number =>
  (output_N - base_N(booster, input_N)) / booster.perAmpere_N;

/**
 * Input above which there is no more assist, N, where the line of the map meets what the motor can push; Infinity where it never does.
 * Resistance in the feed moves this, and never the gain before.
 */
export function motorRunout_N(booster: MotorBooster, most_A: number): number {
  const { crack_N, jump_N, gain, spring_N } = booster;
  if (gain <= 1) return Infinity;
  const meets_N = (pushes_N(booster, most_A) - spring_N - jump_N + gain * crack_N) / (gain - 1);
  return Math.max(crack_N, meets_N);
}

/** Pressure with no power, Pa: (F_in − F_s − F_f)⁺/A_mc, the friction of gear and seals against the foot. */
export const unpowered_Pa = (
  { spring_N }: Pick<MotorBooster, 'spring_N'>,
  { friction_N, master_m2 }: { readonly friction_N: number; readonly master_m2: number },
  input_N: number,
): number => Math.max(0, input_N - spring_N - friction_N) / master_m2;

/**
 * Time until a force is there after a step, s: t_d + F_st/(v₀·k)·ln(1/(1 − F/F_st)). F_st and v₀ go with the volts at the motor.
 *
 * @param stall_N force at which the motor stands
 * @param free_mPerS speed with nothing to push
 * @param stiffness_NPerM of what is pushed
 * @returns Infinity for a force that it never comes to
 */
export function stepTime_s(
  force_N: number,
  { delay_s, stall_N, free_mPerS, stiffness_NPerM }: MotorStep,
): number {
  if (force_N >= stall_N) return Infinity;
  return delay_s + (stall_N / (free_mPerS * stiffness_NPerM)) * Math.log(1 / (1 - force_N / stall_N));
}

export interface MotorStep {
  readonly delay_s: number;
  readonly stall_N: number;
  readonly free_mPerS: number;
  readonly stiffness_NPerM: number;
}
