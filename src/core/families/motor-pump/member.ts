import { glycol_PaS, leakOf_m3 } from '../../fluid/brake-fluid';
import { motorPumpFlow_m3PerS, pumpCurrent_A, type MotorPump } from '../../fluid/fluid-pump';
import type { Vector } from '../../model/descriptor';
import type { Member } from '../../model/member';
import { healthyUnit, reader, type InputDescriptor, type Named } from '../../model/vectors';
import { FLUID, STORED } from '../inputs';
import type { MotorPumpProfile } from './profile';

/** What makes one motor pump differ from another, and what faults move. */
export const parameters = [
  { id: 'displacement_m3', name: 'Given for each turn', quantity: 'fluidVolume' },
  { id: 'leak_m3PerS', name: 'Leak of the pump at 100 bar, fluid at 20 °C', quantity: 'leakRate' },
  { id: 'efficiency', name: 'Efficiency', quantity: 'ratio' },
  { id: 'friction_Nm', name: 'Torque of friction', quantity: 'torque' },
  { id: 'constant_NmPerA', name: 'Torque for each ampere', quantity: 'ratio' },
  { id: 'motor_Ohm', name: 'Resistance of the motor', quantity: 'resistance' },
  { id: 'wiring_Ohm', name: 'Resistance of its feed', quantity: 'resistance' },
  { id: 'shunt_A', name: 'Current past the windings', quantity: 'current' },
  { id: 'supply_V', name: 'Battery while it runs', quantity: 'voltage' },
  { id: 'fluid_K', name: 'Fluid', quantity: 'temperature' },
] as const;

const inputs = [
  STORED,
  {
    id: 'volts_V',
    name: 'Battery while it runs',
    quantity: 'voltage',
    from: { port: 'battery', as: 'source', until: 'source.battery', stays: true },
  },
  FLUID,
] as const satisfies readonly InputDescriptor[];

const readings = [
  { id: 'battery', name: 'Battery while the pump runs', quantity: 'voltage' },
  { id: 'fluid', name: 'Fluid', quantity: 'temperature' },
  { id: 'current', name: 'Current of the motor', quantity: 'current', apart: { part: 0.02 } },
  { id: 'drop', name: 'Lost in its feed', quantity: 'voltage', apart: { part: 0.02 } },
] as const;

export type Parameters = Named<typeof parameters>;
export const named = reader(parameters);

/** The pump by its parameters. */
export const pumpOf = (p: Parameters): MotorPump => ({
  displacement_m3: p.displacement_m3,
  leak_m3: leakOf_m3(p.leak_m3PerS),
  efficiency: p.efficiency,
  friction_Nm: p.friction_Nm,
  constant_NmPerA: p.constant_NmPerA,
  motor_Ohm: p.motor_Ohm,
  wiring_Ohm: p.wiring_Ohm,
});

/** Current in the feed at a pressure, and what is lost there: what goes past the windings turns nothing. */
export function feedOf(p: Parameters, pump: MotorPump, pressure_Pa: number) {
  const current_A = pumpCurrent_A(pump, pressure_Pa) + p.shunt_A;
  return { current_A, drop_V: current_A * p.wiring_Ohm };
}

function healthy({ limits, kind: _kind, name: _name, maker: _maker, ...values }: MotorPumpProfile) {
  return healthyUnit(
    parameters,
    { ...values, shunt_A: 0, fluid_K: WARM_K },
    {
      friction_Nm: limits.friction_fraction.value * values.friction_Nm,
      leak_m3PerS: limits.leak_fraction.value * values.leak_m3PerS,
      supply_V: limits.supply_V.value,
      fluid_K: ROOMS_K,
    },
  );
}

/** Fluid that has stood in a shop, K, and how far that may be off where nobody has measured it. */
const WARM_K = 293.15;
const ROOMS_K = 10;

/**
 * A motor pump while it runs. Handbook-models P.4: it gives q₀ − a·p, draws (T_f + D·p/2πη)/K, and loses I·R_w in its feed. Whether
 * it runs is up to the switch, which is the unit's.
 */
export const member: Member<MotorPumpProfile> = {
  parameters,
  inputs,
  readings,
  fedBy: [],
  feeds: [{ id: 'charge', name: 'Charge', coupling: 'pumped' }],
  healthy,
  with: (vector: Vector, [supply_Pa = 0, volts_V = 0, fluid_K = 0]) => {
    const p = named(vector);
    const pump = pumpOf(p);
    const viscosity_PaS = glycol_PaS(fluid_K);
    return {
      // At rest a switch holds it still: nothing is balanced at its outlet.
      span: () => [0, 0],
      through: (_terminal, pressure_Pa) => motorPumpFlow_m3PerS(pump, volts_V, viscosity_PaS, pressure_Pa),
      atRest: () => ({ effort: 0, passes: 0 }),
      read: (efforts) => {
        // The switch never starts it.
        if (Number.isNaN(efforts[0]!)) return [p.supply_V, p.fluid_K, 0, 0];
        const { current_A, drop_V } = feedOf(p, pump, Math.max(0, supply_Pa));
        return [p.supply_V, p.fluid_K, current_A, drop_V];
      },
    };
  },
};
