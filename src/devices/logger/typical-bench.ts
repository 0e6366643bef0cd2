import { SEA_LEVEL_PA } from '@/core/air/atmosphere';
import { REFERENCE_TEMPERATURE_K } from '@/core/air/leak';
import { FAMILIES, FAMILY_KINDS } from '@/core/families/registry';
import { INHG_PA } from '@/core/quantities/units';
import type { SimGauge, SimUnit } from './sim-bench';

const BAR = 1e5;

const gauge = (
  tag: string,
  port: string,
  quantity: SimGauge['quantity'],
  fullScale_Pa: number,
  step_Pa: number,
): SimGauge => ({
  tag,
  port,
  quantity,
  fullScale_Pa,
  step_Pa,
});

/** What lies on it until a unit is put there. */
const [KIND] = FAMILY_KINDS;

/** The bench that stands in: tied pairs on both fluid ports, a gauge on each vacuum port, a load cell, the bag, and what reads stored pressure and its pumps, tagged as on the shelf. */
export const TYPICAL_BENCH: SimUnit = {
  kind: KIND,
  profile: FAMILIES[KIND].typical,
  fault: null,
  supply_Pa: 20 * INHG_PA,
  room: { barometer_Pa: SEA_LEVEL_PA, temperature_K: REFERENCE_TEMPERATURE_K },
  gauges: [
    gauge('G-11', 'input', 'pressure', 10 * BAR, 0.01 * BAR),
    gauge('G-12', 'input', 'pressure', 160 * BAR, 0.05 * BAR),
    gauge('G-21', 'output', 'pressure', 10 * BAR, 0.01 * BAR),
    gauge('G-22', 'output', 'pressure', 160 * BAR, 0.05 * BAR),
    gauge('V-31', 'supply', 'depression', 30 * INHG_PA, 0.02 * INHG_PA),
    gauge('V-41', 'activation', 'depression', 30 * INHG_PA, 0.02 * INHG_PA),
    gauge('L-51', 'output', 'force', 2500, 0.5),
    // The bag that goes out to a vehicle: the vacuum gauge of the bench goes with it.
    gauge('P-71', 'front', 'pressure', 160 * BAR, 0.2 * BAR),
    gauge('P-72', 'rear', 'pressure', 160 * BAR, 0.2 * BAR),
    gauge('F-73', 'pedal', 'force', 1000, 1),
    gauge('V-75', 'source', 'depression', 30 * INHG_PA, 0.1 * INHG_PA),
    // What stores pressure: the pump pack's own, those on glycol fluid, and those of cars on mineral oil.
    gauge('A-81', 'supply', 'pressure', 250 * BAR, 0.1 * BAR),
    gauge('A-82', 'supply-2', 'pressure', 250 * BAR, 0.1 * BAR),
    gauge('C-83', 'output', 'pressure', 10 * BAR, 0.01 * BAR),
    gauge('C-84', 'output', 'pressure', 160 * BAR, 0.05 * BAR),
    gauge('C-85', 'output-2', 'pressure', 160 * BAR, 0.05 * BAR),
    gauge('R-86', 'treadle', 'travel', 0.03, 2e-5),
    gauge('T-87', 'oil', 'temperature', 393.15, 0.1),
    gauge('A-91', 'supply', 'pressure', 250 * BAR, 0.1 * BAR),
    gauge('U-92', 'battery', 'voltage', 20, 0.01),
    gauge('I-93', 'current', 'current', 60, 0.05),
    gauge('U-94', 'drop', 'voltage', 5, 2e-3),
    gauge('T-95', 'fluid', 'temperature', 393.15, 0.1),
    gauge('S-97', 'line', 'pressure', 160 * BAR, 0.1 * BAR),
    gauge('Q-98', 'flow', 'flow', 30e-3 / 60, 0.02e-3 / 60),
    gauge('P-101', 'front', 'pressure', 160 * BAR, 0.05 * BAR),
    gauge('P-102', 'rear', 'pressure', 160 * BAR, 0.05 * BAR),
    gauge('A-103', 'ram', 'pressure', 250 * BAR, 0.1 * BAR),
    gauge('N-106', 'speed', 'rotation', 100, 0.02),
    gauge('U-109', 'earth', 'voltage', 5, 1e-3),
    gauge('U-115', 'plug', 'voltage', 20, 5e-3),
    gauge('I-110', 'motor', 'current', 100, 0.05),
    gauge('U-111', 'sensor', 'voltage', 10, 2e-3),
    gauge('U-112', 'track-1', 'voltage', 10, 2e-3),
    gauge('U-113', 'track-2', 'voltage', 10, 2e-3),
    gauge('U-116', 'store', 'voltage', 20, 5e-3),
    gauge('P-121', 'front-left', 'pressure', 160 * BAR, 0.05 * BAR),
    gauge('P-122', 'front-right', 'pressure', 160 * BAR, 0.05 * BAR),
    gauge('P-123', 'rear-left', 'pressure', 160 * BAR, 0.05 * BAR),
    gauge('P-124', 'rear-right', 'pressure', 160 * BAR, 0.05 * BAR),
    gauge('U-117', 'master-1', 'voltage', 10, 5e-4),
    gauge('U-118', 'master-2', 'voltage', 10, 5e-4),
    gauge('U-119', 'accumulator-sensor', 'voltage', 10, 5e-4),
    gauge('U-125', 'front-left-sensor', 'voltage', 10, 5e-4),
    gauge('U-126', 'front-right-sensor', 'voltage', 10, 5e-4),
    gauge('U-127', 'rear-left-sensor', 'voltage', 10, 5e-4),
    gauge('U-128', 'rear-right-sensor', 'voltage', 10, 5e-4),
    gauge('N-131', 'requested', 'torque', 2000, 0.5),
    gauge('N-132', 'granted', 'torque', 2000, 0.5),
    // What is read by eye, called as its place is: no gauge of the shelf, so that it is looked at and typed.
    gauge('travel', 'travel', 'travel', 0.3, 5e-4),
    gauge('gap', 'gap', 'travel', 0.025, 2e-5),
    gauge('left', 'left', 'travel', 1, 5e-4),
    gauge('right', 'right', 'travel', 1, 5e-4),
  ],
  noise_steps: 0.6,
  seed: 1,
};
