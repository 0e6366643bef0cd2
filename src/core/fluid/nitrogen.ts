/**
 * Real nitrogen by the Benedict–Webb–Rubin equation with the constants of Cooper & Goldfrank 1967, as printed in Çengel & Boles
 * (kPa, m³/kmol, K). Handbook-models P.1. Valid from 220 to 400 K and from 1 to 250 bar, where the compressibility factor is within
 * 0.98 % of the reference equation (Span et al. 2000) and the heat capacity within 3 %. Outside, where a vessel that has lost its gas
 * gets to, it goes on from the edge, and `isExtrapolated` says so: colder or hotter along straight isochores with the heat capacity of
 * the edge, which keeps p, u and s one equation of state; beyond 250 bar with p·v as it is there.
 *
 * Amounts are in kmol, volumes of one kmol in m³, pressures absolute in Pa, energies in J.
 */
const GAS_CONSTANT_KPA = 8.314;
const A = 2.54;
const A0 = 106.73;
const B = 0.002328;
const B0 = 0.04074;
const C = 73_790;
const C0 = 816_400;
const ALPHA = 1.272e-4;
const GAMMA = 0.0053;
const KPA = 1e3;

/** J/(kmol·K). */
export const MOLAR_GAS_CONSTANT = GAS_CONSTANT_KPA * KPA;
export const NITROGEN_RANGE = {
  temperature_K: [220, 400],
  pressure_Pa: [1e5, 250e5],
} as const;
const [COLDEST_K, HOTTEST_K] = NITROGEN_RANGE.temperature_K;
const [, HIGHEST_PA] = NITROGEN_RANGE.pressure_Pa;
/** No volume of one kmol within the range is smaller: at 220 K and 250 bar it is 0.0741 m³. */
const DENSE_M3 = 0.07;

/** A state of one kmol. */
export interface GasState {
  readonly temperature_K: number;
  readonly volume_m3: number;
}

/** How a gas behaves. Amounts are in kmol. */
export interface GasLaw {
  /** Pressure, Pa absolute. */
  readonly pressure_Pa: (state: GasState) => number;
  /** Volume of one kmol, m³. */
  readonly volume_m3: (temperature_K: number, pressure_Pa: number) => number;
  /** ∂p/∂T at constant volume. */
  readonly isochoricSlope_PaPerK: (state: GasState) => number;
  /** k_T = −(v/p)·(∂p/∂v) at constant temperature. */
  readonly isothermalIndex: (state: GasState) => number;
  /** Heat capacity at constant volume of one kmol. */
  readonly heatCapacity_JPerK: (state: GasState) => number;
  /** At another volume with no heat given or taken. */
  readonly compressedFast: (from: GasState, volume_m3: number) => GasState;
}

/** Pressure by the equation itself, kPa: its powers of the density, the innermost first. */
function bwr_kPa(t: number, v: number): number {
  const rt = GAS_CONSTANT_KPA * t;
  const d = 1 / v;
  const d2 = d * d;
  const shared = (C / (t * t)) * (1 + GAMMA * d2) * Math.exp(-GAMMA * d2);
  const second = B0 * rt - A0 - C0 / (t * t);
  return d * (rt + d * (second + d * (B * rt - A + shared + A * ALPHA * d2 * d)));
}

/** ∂p/∂v at constant temperature, kPa·kmol/m³. */
function bwrSlope_kPa(t: number, v: number): number {
  const rt = GAS_CONSTANT_KPA * t;
  const d = 1 / v;
  const d2 = d * d;
  const g = GAMMA * d2;
  const shared = (C / (t * t)) * Math.exp(-g) * (-3 * (1 + g) - 2 * g + 2 * g * (1 + g));
  const second = B0 * rt - A0 - C0 / (t * t);
  return d2 * (-rt + d * (-2 * second + d * (-3 * (B * rt - A) + shared - 6 * A * ALPHA * d2 * d)));
}

const NEWTON_ROUNDS = 50;
const NEWTON_CLOSE = 1e-13;

/** Volume at which the equation gives a pressure, by Newton's method in ln v, in which p·v hardly changes. */
function bwrVolume_m3(t: number, p_kPa: number): number {
  let v = Math.max(DENSE_M3, (GAS_CONSTANT_KPA * t) / p_kPa);
  for (let round = 0; round < NEWTON_ROUNDS; round += 1) {
    const off = Math.log(bwr_kPa(t, v) / p_kPa);
    const slope = (bwrSlope_kPa(t, v) * v) / bwr_kPa(t, v);
    const step = Math.max(-0.5, Math.min(0.5, off / slope));
    v *= Math.exp(-step);
    if (Math.abs(step) < NEWTON_CLOSE) break;
  }
  return v;
}

const within = (temperature_K: number) => Math.min(HOTTEST_K, Math.max(COLDEST_K, temperature_K));

/** Gas that has so much room stands below the highest pressure of the range, however hot within it. */
const ROOMY_M3 = bwrVolume_m3(HOTTEST_K, HIGHEST_PA / KPA);

/** The nearest state within the range of the equation: itself, where it lies there. */
function edgeOf(state: GasState): GasState {
  const { temperature_K, volume_m3 } = state;
  const t = within(temperature_K);
  const dense = volume_m3 < ROOMY_M3 && (volume_m3 < DENSE_M3 || bwr_kPa(t, volume_m3) > HIGHEST_PA / KPA);
  if (t === temperature_K && !dense) return state;
  return { temperature_K: t, volume_m3: dense ? bwrVolume_m3(t, HIGHEST_PA / KPA) : volume_m3 };
}

/** Whether a state lies outside what the equation was made for. Below 1 bar it is as good as an ideal gas. */
export function isExtrapolated(state: GasState): boolean {
  const { temperature_K, volume_m3 } = edgeOf(state);
  return temperature_K !== state.temperature_K || volume_m3 !== state.volume_m3;
}

/**
 * Pressure of nitrogen, Pa absolute.
 *
 * @example gasPressure_Pa({ temperature_K: 293.15, volume_m3: 0.497 }) → 49.9 bar
 */
export function gasPressure_Pa(state: GasState): number {
  const edge = edgeOf(state);
  const { temperature_K: t, volume_m3: v } = edge;
  const atEdge_Pa = KPA * bwr_kPa(t, v);
  if (edge === state) return atEdge_Pa;
  const along_Pa = atEdge_Pa + edgeSlope_PaPerK(edge) * (state.temperature_K - t);
  return (Math.max(LEAST_PART * atEdge_Pa, along_Pa) * v) / state.volume_m3;
}

/** A straight isochore is followed down to this part of the pressure at the edge: below 80 K there is no gas to speak of. */
const LEAST_PART = 0.05;

/**
 * Volume of one kmol at a temperature and an absolute pressure, m³.
 *
 * @throws RangeError where either is not above zero
 */
export function gasVolume_m3(temperature_K: number, pressure_Pa: number): number {
  if (!(temperature_K > 0)) throw new RangeError(`temperature_K: ${temperature_K} is not above zero`);
  if (!(pressure_Pa > 0)) throw new RangeError(`pressure_Pa: ${pressure_Pa} is not above zero`);
  const t = within(temperature_K);
  if (t === temperature_K && pressure_Pa <= HIGHEST_PA) return bwrVolume_m3(t, pressure_Pa / KPA);
  // Beyond the edge p·v hardly changes along an isotherm: what is wanting to the pressure is what the volume is too large by.
  let volume_m3 = (MOLAR_GAS_CONSTANT * temperature_K) / pressure_Pa;
  for (let round = 0; round < EDGE_ROUNDS; round += 1) {
    const part = gasPressure_Pa({ temperature_K, volume_m3 }) / pressure_Pa;
    volume_m3 *= part;
    if (Math.abs(part - 1) < NEWTON_CLOSE) break;
  }
  return volume_m3;
}
const EDGE_ROUNDS = 200;

/** ∂p/∂T at constant volume, Pa/K. */
export function isochoricSlope_PaPerK(state: GasState): number {
  const edge = edgeOf(state);
  return (edgeSlope_PaPerK(edge) * edge.volume_m3) / state.volume_m3;
}

/** The same within the range. */
function edgeSlope_PaPerK({ temperature_K: t, volume_m3: v }: GasState): number {
  const d = 1 / v;
  const g = GAMMA * d * d;
  const cubed = 2 / (t * t * t);
  const third = B * GAS_CONSTANT_KPA - cubed * C * (1 + g) * Math.exp(-g);
  return KPA * d * (GAS_CONSTANT_KPA + d * (B0 * GAS_CONSTANT_KPA + cubed * C0 + d * third));
}

/** k_T = −(v/p)·(∂p/∂v) at constant temperature: 1 for an ideal gas, 1.03 at 100 bar, 1.08 at 150. Handbook-models P.1. */
export function isothermalIndex(state: GasState): number {
  const { temperature_K: t, volume_m3: v } = edgeOf(state);
  if (v !== state.volume_m3) return 1;
  return (-v * bwrSlope_kPa(t, v)) / bwr_kPa(t, v);
}

/** E = 1 − (1 + γ/2v²)·e^(−γ/v²), which the caloric functions share. */
const sharedTerm = (v: number) => {
  const g = GAMMA / (v * v);
  return 1 - (1 + g / 2) * Math.exp(-g);
};

/** Heat capacity at constant volume of one kmol, J/K: that at the edge, beyond it. */
export function gasHeatCapacity_JPerK(state: GasState): number {
  const { temperature_K: t, volume_m3: v } = edgeOf(state);
  return KPA * (2.5 * GAS_CONSTANT_KPA + (6 / (t * t * t)) * (C0 / v - (C * sharedTerm(v)) / GAMMA));
}

/** Internal energy of one kmol, J, from an origin of its own. */
export function gasEnergy_J(state: GasState): number {
  const edge = edgeOf(state);
  const { temperature_K: t, volume_m3: v } = edge;
  const atEdge =
    2.5 * GAS_CONSTANT_KPA * t -
    (A0 + (3 * C0) / (t * t)) / v -
    A / (2 * v * v) +
    (A * ALPHA) / (5 * v ** 5) +
    (3 * C * sharedTerm(v)) / (GAMMA * t * t);
  return KPA * atEdge + gasHeatCapacity_JPerK(edge) * (state.temperature_K - t);
}

/** Entropy of one kmol, J/K, from an origin of its own. */
export function gasEntropy_JPerK(state: GasState): number {
  const edge = edgeOf(state);
  const { temperature_K: t, volume_m3: v } = edge;
  const atEdge =
    2.5 * GAS_CONSTANT_KPA * Math.log(t) +
    GAS_CONSTANT_KPA * Math.log(v) -
    (B0 * GAS_CONSTANT_KPA + (2 * C0) / t ** 3) / v -
    (B * GAS_CONSTANT_KPA) / (2 * v * v) +
    (2 * C * sharedTerm(v)) / (GAMMA * t ** 3);
  return (
    KPA * atEdge +
    gasHeatCapacity_JPerK(edge) * Math.log(state.temperature_K / t) +
    MOLAR_GAS_CONSTANT * Math.log(state.volume_m3 / v)
  );
}

const ISENTROPE_CLOSE_K = 1e-9;

/** State at another volume with no heat given or taken, by Newton's method: ds/dT = c_v/T. */
export function compressedFast(from: GasState, volume_m3: number): GasState {
  const entropy = gasEntropy_JPerK(from);
  let t = from.temperature_K;
  for (let round = 0; round < NEWTON_ROUNDS; round += 1) {
    const at = { temperature_K: t, volume_m3 };
    const step = (t * (entropy - gasEntropy_JPerK(at))) / gasHeatCapacity_JPerK(at);
    t = Math.max(t / 2, t + step);
    if (Math.abs(step) < ISENTROPE_CLOSE_K) break;
  }
  return { temperature_K: t, volume_m3 };
}

/** Real nitrogen. */
export const NITROGEN: GasLaw = {
  pressure_Pa: gasPressure_Pa,
  volume_m3: gasVolume_m3,
  isochoricSlope_PaPerK,
  isothermalIndex,
  heatCapacity_JPerK: gasHeatCapacity_JPerK,
  compressedFast,
};

/** Of two atoms: c_v = 5/2·R. */
const IDEAL_HEAT_CAPACITY = 2.5 * MOLAR_GAS_CONSTANT;

/** Nitrogen as an ideal gas, p·v = R·T: what is told beside the real one, to show by how much it errs. */
export const IDEAL_NITROGEN: GasLaw = {
  pressure_Pa: ({ temperature_K, volume_m3 }) => (MOLAR_GAS_CONSTANT * temperature_K) / volume_m3,
  volume_m3: (temperature_K, pressure_Pa) => (MOLAR_GAS_CONSTANT * temperature_K) / pressure_Pa,
  isochoricSlope_PaPerK: ({ volume_m3 }) => MOLAR_GAS_CONSTANT / volume_m3,
  isothermalIndex: () => 1,
  heatCapacity_JPerK: () => IDEAL_HEAT_CAPACITY,
  compressedFast: (from, volume_m3) => ({
    temperature_K:
      from.temperature_K * (from.volume_m3 / volume_m3) ** (MOLAR_GAS_CONSTANT / IDEAL_HEAT_CAPACITY),
    volume_m3,
  }),
};
