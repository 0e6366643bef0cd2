import { printQuantity } from './print';
import type { ReadingRefusal } from './reading';
import type { Quantity, UnitSet } from './units';

const WANTED: Readonly<Record<Quantity, string>> = {
  pressure: 'a fluid pressure, in bar, psi, kPa, MPa or kgf/cm²',
  depression: 'a vacuum, in inHg, kPa, mbar, mmHg, bar, MPa, kgf/cm² or psi',
  barometer: 'an absolute air pressure, in inHg, kPa, mbar or mmHg',
  force: 'a force, in N or lbf',
  stiffness: 'a stiffness, in N/mm or lbf/in',
  torque: 'a torque, in N·m or lbf·ft',
  length: 'a length, in mm or in (13/16 in is understood)',
  altitude: 'an altitude, in m or ft',
  area: 'an area, in cm² or in²',
  volume: 'a volume, in L or in³',
  temperature: 'a temperature, in °C or °F',
  duration: 'a time, in s or min',
  ratio: 'a plain number',
  percent: 'a percentage',
  pressureRate: 'a pressure change per minute',
  depressionRate: 'a vacuum change per minute',
  conductance: 'an air leak, in cm³/(s·bar)',
  volumePerPressure: 'a volume for a pressure, in cm³/bar',
  pressurePerTravel: 'a pressure for a travel, in bar/mm or psi/in',
  flow: 'a flow, in L/min or gal/min',
  fluidVolume: 'a volume of fluid, in cm³',
  pumpFlow: 'a flow, in cm³/s',
  leakRate: 'a leak, in cm³/min',
  viscosity: 'a viscosity, in mPa·s',
  clearance: 'a clearance, in µm',
  voltage: 'a voltage, in V or mV',
  current: 'a current, in A or mA',
  resistance: 'a resistance, in Ω or kΩ',
  rotation: 'a speed of turning, in 1/min',
  speed: 'a speed, in km/h or mph',
  rodSpeed: 'the speed of a rod, in mm/s',
  angle: 'an angle, in degrees',
  travel: 'a travel, in mm or in',
  count: 'a whole number',
  mass: 'a mass, in kg or lb',
  acceleration: 'a deceleration, in m/s² or g',
  energy: 'an energy, in kJ',
  power: 'a power, in W',
  capacitance: 'a capacitance, in farad',
  wireSection: 'a cross-section, in mm²',
};

/** A sentence that names what is wrong with a typed reading, in the reader's units. */
export function refusalSentence(why: ReadingRefusal, field: string, set: UnitSet): string {
  const show = (value_SI: number, quantity: Quantity) => printQuantity(value_SI, quantity, set);
  switch (why.code) {
    case 'empty':
      return `${field}: type the value first.`;
    case 'not-a-number':
      return `${field}: “${clip(why.typed)}” is not a number. Type digits with a comma or a point, and a unit if you like.`;
    case 'ambiguous':
      return `${field}: that can be read two ways. Choose which one you mean.`;
    case 'unknown-unit':
      return `${field}: the unit “${clip(why.typed)}” is not known here. This field takes ${WANTED[why.quantity]}.`;
    case 'wrong-quantity':
      return `${field}: ${why.typed} does not fit. This field takes ${WANTED[why.quantity]}.`;
    case 'above-barometer':
      return `${field}: ${show(why.value_SI, 'depression')} of vacuum cannot be. The barometer reads ${show(why.barometer_Pa, 'barometer')}, and no vacuum is deeper than that.`;
    case 'not-a-vacuum':
      return `${field}: that is above the barometer (${show(why.barometer_Pa, 'barometer')}), so it is not a vacuum.`;
    case 'below-absolute-zero':
      return `${field}: ${show(why.value_SI, why.quantity)} is below absolute zero and cannot be.`;
    case 'above-full-scale':
      return `${field}: ${show(why.value_SI, why.quantity)} is beyond the full scale of ${why.instrument} (${show(why.fullScale_SI, why.quantity)}).`;
  }
}

/** Long typed text is cut in a message; the field itself keeps all of it. */
const clip = (text: string) => (text.length > 40 ? `${text.slice(0, 40)}…` : text);
