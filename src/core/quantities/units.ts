/**
 * Units of measure and the three unit sets. The core computes in SI; a unit appears only where a person
 * reads or types. Factors: handbook 3.
 */

/** What kind of thing a number is. A depression, a gauge pressure and an absolute pressure share units, not meaning. */
export const QUANTITIES = [
  'pressure',
  'depression',
  'barometer',
  'pressureRate',
  'depressionRate',
  'force',
  'stiffness',
  'torque',
  'length',
  'altitude',
  'area',
  'volume',
  'temperature',
  'duration',
  'ratio',
  'percent',
  'conductance',
  'volumePerPressure',
  'pressurePerTravel',
  'flow',
  'fluidVolume',
  'pumpFlow',
  'leakRate',
  'viscosity',
  'clearance',
  'voltage',
  'current',
  'resistance',
  'rotation',
  'speed',
  'rodSpeed',
  'angle',
  'travel',
  'count',
  'mass',
  'acceleration',
  'energy',
  'power',
  'capacitance',
  'wireSection',
] as const;
export type Quantity = (typeof QUANTITIES)[number];

export interface Unit {
  /** Symbol as printed. */
  readonly symbol: string;
  /** SI value of one unit. */
  readonly factor: number;
  /** SI value of the unit's zero (temperatures only). */
  readonly zero?: number;
  /** Quantities that may be typed in this unit. */
  readonly measures: readonly Quantity[];
  /** Other spellings understood when typed, lower case. */
  readonly aliases?: readonly string[];
  /** Decimal places when nothing is known of the uncertainty. */
  readonly places: number;
  /** Decimal places of a value below ten that is no whole number, where it deserves more of them. */
  readonly finePlaces?: number;
}

const FLUID: readonly Quantity[] = ['pressure', 'depression', 'barometer'];
const AIR: readonly Quantity[] = ['depression', 'barometer'];
const LENGTHS: readonly Quantity[] = ['length', 'travel'];
const PSI_PA = 6894.757;
/** One inch of mercury, Pa. Handbook 3. */
export const INHG_PA = 3386.389;

export const UNITS = {
  bar: { symbol: 'bar', factor: 1e5, measures: FLUID, places: 1 },
  mbar: { symbol: 'mbar', factor: 100, measures: FLUID, aliases: ['hpa'], places: 0 },
  kPa: { symbol: 'kPa', factor: 1000, measures: FLUID, places: 1 },
  MPa: { symbol: 'MPa', factor: 1e6, measures: FLUID, places: 2 },
  Pa: { symbol: 'Pa', factor: 1, measures: FLUID, places: 0 },
  psi: { symbol: 'psi', factor: PSI_PA, measures: FLUID, aliases: ['psig', 'lbf/in²', 'lbf/in2'], places: 0 },
  kgfcm2: {
    symbol: 'kgf/cm²',
    factor: 98066.5,
    measures: FLUID,
    aliases: ['kgf/cm2', 'kg/cm2'],
    places: 1,
  },
  inHg: {
    symbol: 'inHg',
    factor: INHG_PA,
    measures: AIR,
    aliases: ['"hg', 'in hg', 'in.hg', 'in. hg'],
    places: 1,
  },
  mmHg: { symbol: 'mmHg', factor: 133.3224, measures: AIR, aliases: ['mm hg', 'torr'], places: 0 },
  barPerMin: { symbol: 'bar/min', factor: 1e5 / 60, measures: ['pressureRate'], places: 2 },
  psiPerMin: { symbol: 'psi/min', factor: PSI_PA / 60, measures: ['pressureRate'], places: 0 },
  inHgPerMin: { symbol: 'inHg/min', factor: INHG_PA / 60, measures: ['depressionRate'], places: 2 },
  kPaPerMin: { symbol: 'kPa/min', factor: 1000 / 60, measures: ['depressionRate'], places: 2 },
  N: { symbol: 'N', factor: 1, measures: ['force'], places: 0 },
  lbf: { symbol: 'lbf', factor: 4.448222, measures: ['force'], aliases: ['lb'], places: 1 },
  NPerMm: { symbol: 'N/mm', factor: 1e3, measures: ['stiffness'], places: 2 },
  lbfPerIn: { symbol: 'lbf/in', factor: 4.448222 / 25.4e-3, measures: ['stiffness'], places: 1 },
  Nm: { symbol: 'N·m', factor: 1, measures: ['torque'], aliases: ['nm'], places: 1 },
  lbfFt: {
    symbol: 'lbf·ft',
    factor: 4.448222 * 0.3048,
    measures: ['torque'],
    aliases: ['lbf.ft', 'lbft', 'ft·lbf'],
    places: 1,
  },
  mm: { symbol: 'mm', factor: 1e-3, measures: LENGTHS, places: 2 },
  in: { symbol: 'in', factor: 25.4e-3, measures: LENGTHS, aliases: ['"', 'inch'], places: 3 },
  m: { symbol: 'm', factor: 1, measures: ['altitude', 'length'], places: 0, finePlaces: 1 },
  ft: { symbol: 'ft', factor: 0.3048, measures: ['altitude'], places: 0 },
  cm2: { symbol: 'cm²', factor: 1e-4, measures: ['area'], aliases: ['cm2'], places: 1 },
  mm2: { symbol: 'mm²', factor: 1e-6, measures: ['wireSection'], aliases: ['mm2', 'sq mm'], places: 1 },
  in2: { symbol: 'in²', factor: 6.4516e-4, measures: ['area'], aliases: ['in2', 'sq in'], places: 2 },
  L: { symbol: 'L', factor: 1e-3, measures: ['volume'], aliases: ['litre'], places: 2 },
  in3: { symbol: 'in³', factor: 1.6387064e-5, measures: ['volume'], aliases: ['in3', 'cu in'], places: 0 },
  degC: {
    symbol: '°C',
    factor: 1,
    zero: 273.15,
    measures: ['temperature'],
    aliases: ['c', 'degc'],
    places: 0,
  },
  degF: {
    symbol: '°F',
    factor: 5 / 9,
    zero: 273.15 - (32 * 5) / 9,
    measures: ['temperature'],
    aliases: ['f', 'degf'],
    places: 0,
  },
  s: { symbol: 's', factor: 1, measures: ['duration'], aliases: ['sec'], places: 0, finePlaces: 1 },
  min: { symbol: 'min', factor: 60, measures: ['duration'], places: 1 },
  ratio: { symbol: '', factor: 1, measures: ['ratio'], aliases: [':1'], places: 2 },
  percent: { symbol: '%', factor: 0.01, measures: ['percent'], places: 1 },
  cm3PerSBar: {
    symbol: 'cm³/(s·bar)',
    factor: 1e-11,
    measures: ['conductance'],
    aliases: ['cm3/(s·bar)', 'cm3/(s.bar)'],
    places: 2,
  },
  cm3PerBar: { symbol: 'cm³/bar', factor: 1e-11, measures: ['volumePerPressure'], places: 3 },
  barPerMm: { symbol: 'bar/mm', factor: 1e8, measures: ['pressurePerTravel'], places: 2 },
  psiPerIn: {
    symbol: 'psi/in',
    factor: PSI_PA / 0.0254,
    measures: ['pressurePerTravel'],
    places: 0,
  },
  cm3: {
    symbol: 'cm³',
    factor: 1e-6,
    measures: ['volume', 'fluidVolume'],
    aliases: ['cm3', 'cc', 'ml'],
    places: 1,
  },
  cm3PerS: { symbol: 'cm³/s', factor: 1e-6, measures: ['pumpFlow'], aliases: ['cm3/s', 'cc/s'], places: 2 },
  cm3PerMin: {
    symbol: 'cm³/min',
    factor: 1e-6 / 60,
    measures: ['leakRate'],
    aliases: ['cm3/min', 'cc/min'],
    places: 2,
  },
  mPas: { symbol: 'mPa·s', factor: 1e-3, measures: ['viscosity'], aliases: ['mpas', 'cp'], places: 1 },
  um: { symbol: 'µm', factor: 1e-6, measures: ['clearance'], aliases: ['um', 'micron'], places: 1 },
  LPerMin: { symbol: 'L/min', factor: 1e-3 / 60, measures: ['flow'], aliases: ['lpm'], places: 1 },
  galPerMin: {
    symbol: 'gal/min',
    factor: 3.785411784e-3 / 60,
    measures: ['flow'],
    aliases: ['gpm'],
    places: 2,
  },
  V: { symbol: 'V', factor: 1, measures: ['voltage'], aliases: ['volt', 'volts'], places: 2 },
  mV: { symbol: 'mV', factor: 1e-3, measures: ['voltage'], places: 0 },
  A: { symbol: 'A', factor: 1, measures: ['current'], aliases: ['amp', 'amps'], places: 1 },
  mA: { symbol: 'mA', factor: 1e-3, measures: ['current'], places: 0 },
  ohm: {
    symbol: 'Ω',
    factor: 1,
    measures: ['resistance'],
    aliases: ['ohm', 'ohms'],
    places: 2,
    finePlaces: 3,
  },
  kOhm: { symbol: 'kΩ', factor: 1e3, measures: ['resistance'], aliases: ['kohm', 'kohms'], places: 2 },
  rpm: { symbol: '1/min', factor: 1 / 60, measures: ['rotation'], aliases: ['rpm', 'rev/min'], places: 0 },
  kmPerH: { symbol: 'km/h', factor: 1 / 3.6, measures: ['speed'], aliases: ['kmh', 'kph'], places: 0 },
  mph: { symbol: 'mph', factor: 0.44704, measures: ['speed'], places: 0 },
  mmPerS: { symbol: 'mm/s', factor: 1e-3, measures: ['rodSpeed'], places: 0 },
  deg: { symbol: '°', factor: Math.PI / 180, measures: ['angle'], aliases: ['deg'], places: 1 },
  count: { symbol: '', factor: 1, measures: ['count'], aliases: ['times'], places: 0 },
  kg: { symbol: 'kg', factor: 1, measures: ['mass'], places: 0 },
  lbm: { symbol: 'lbm', factor: 0.45359237, measures: ['mass'], places: 0 },
  mPerS2: { symbol: 'm/s²', factor: 1, measures: ['acceleration'], aliases: ['m/s2'], places: 2 },
  g: { symbol: 'g', factor: 9.80665, measures: ['acceleration'], places: 2 },
  kJ: { symbol: 'kJ', factor: 1000, measures: ['energy'], places: 0, finePlaces: 2 },
  J: { symbol: 'J', factor: 1, measures: ['energy'], places: 0 },
  W: { symbol: 'W', factor: 1, measures: ['power'], aliases: ['watt', 'watts'], places: 0 },
  // A bare F is a temperature's.
  farad: { symbol: 'farad', factor: 1, measures: ['capacitance'], places: 1 },
  mF: { symbol: 'mF', factor: 1e-3, measures: ['capacitance'], places: 0 },
  mOhm: { symbol: 'mΩ', factor: 1e-3, measures: ['resistance'], aliases: ['mohm', 'mohms'], places: 0 },
} as const satisfies Record<string, Unit>;

export type UnitId = keyof typeof UNITS;

export const UNIT_SETS = ['mixed', 'metric', 'imperial'] as const;
export type UnitSet = (typeof UNIT_SETS)[number];

const METRIC: Record<Quantity, UnitId> = {
  pressure: 'bar',
  depression: 'kPa',
  barometer: 'kPa',
  pressureRate: 'barPerMin',
  depressionRate: 'kPaPerMin',
  force: 'N',
  stiffness: 'NPerMm',
  torque: 'Nm',
  length: 'mm',
  altitude: 'm',
  area: 'cm2',
  volume: 'L',
  temperature: 'degC',
  duration: 's',
  ratio: 'ratio',
  percent: 'percent',
  conductance: 'cm3PerSBar',
  volumePerPressure: 'cm3PerBar',
  pressurePerTravel: 'barPerMm',
  flow: 'LPerMin',
  fluidVolume: 'cm3',
  pumpFlow: 'cm3PerS',
  leakRate: 'cm3PerMin',
  viscosity: 'mPas',
  clearance: 'um',
  voltage: 'V',
  current: 'A',
  resistance: 'ohm',
  rotation: 'rpm',
  speed: 'kmPerH',
  rodSpeed: 'mmPerS',
  angle: 'deg',
  travel: 'mm',
  count: 'count',
  mass: 'kg',
  acceleration: 'mPerS2',
  energy: 'kJ',
  power: 'W',
  capacitance: 'farad',
  wireSection: 'mm2',
};

const BY_SET: Record<UnitSet, Record<Quantity, UnitId>> = {
  metric: METRIC,
  mixed: { ...METRIC, depression: 'inHg', barometer: 'inHg', depressionRate: 'inHgPerMin' },
  imperial: {
    ...METRIC,
    pressure: 'psi',
    depression: 'inHg',
    barometer: 'inHg',
    pressureRate: 'psiPerMin',
    depressionRate: 'inHgPerMin',
    force: 'lbf',
    stiffness: 'lbfPerIn',
    torque: 'lbfFt',
    length: 'in',
    altitude: 'ft',
    area: 'in2',
    volume: 'in3',
    temperature: 'degF',
    pressurePerTravel: 'psiPerIn',
    flow: 'galPerMin',
    speed: 'mph',
    travel: 'in',
    mass: 'lbm',
  },
};

/** The unit in which a quantity is shown, and understood when typed bare, in a unit set. */
export function unitFor(quantity: Quantity, set: UnitSet): Unit {
  return UNITS[BY_SET[set][quantity]];
}

/** Finds a typed unit by symbol or alias, ignoring case where that leaves no doubt (mPa is not MPa). */
export function findUnit(text: string): Unit | undefined {
  const all: Unit[] = Object.values(UNITS);
  const typed = text.trim();
  const exact = all.find((unit) => unit.symbol === typed);
  if (exact) return exact;
  const lower = typed.toLowerCase();
  if (lower === 'mpa') return undefined;
  return all.find((unit) => unit.symbol.toLowerCase() === lower || unit.aliases?.includes(lower));
}

/** SI value of `value` in `unit`. */
export function toSI(value: number, unit: Unit): number {
  return value * unit.factor + (unit.zero ?? 0);
}

/** Value in `unit` of an SI value. */
export function fromSI(value_SI: number, unit: Unit): number {
  return (value_SI - (unit.zero ?? 0)) / unit.factor;
}
