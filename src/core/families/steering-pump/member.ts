import {
  beltPumpFlow_m3PerS,
  relieved_m3PerS,
  shutOff_Pa,
  USUAL_OVERRIDE_PASPERM3,
  type BeltPump,
} from '../../fluid/fluid-pump';
import { HOT_K, hotLeakOf_m3, steering_PaS } from '../../fluid/steering-fluid';
import type { Vector } from '../../model/descriptor';
import type { Member } from '../../model/member';
import { healthyUnit, reader, type InputDescriptor, type Named } from '../../model/vectors';
import { FLUID, LOADED_PA } from '../inputs';
import type { SteeringPumpProfile } from './profile';

/** What makes one steering pump differ from another, and what faults move. */
export const parameters = [
  { id: 'displacement_m3', name: 'Given for each turn', quantity: 'fluidVolume' },
  { id: 'idle_PerS', name: 'Turns of the pump at idle', quantity: 'rotation' },
  { id: 'control_m3PerS', name: 'Flow control', quantity: 'flow' },
  { id: 'leak_m3PerS', name: 'Leak of the pump at 100 bar, fluid at 80 °C', quantity: 'flow' },
  { id: 'relief_Pa', name: 'Relief', quantity: 'pressure' },
  { id: 'efficiency', name: 'Efficiency', quantity: 'ratio' },
  { id: 'belt_Nm', name: 'Torque at which the belt slips', quantity: 'torque' },
  { id: 'fluidPart', name: 'Part of what it gives that is fluid', quantity: 'ratio' },
  { id: 'fluid_K', name: 'Fluid', quantity: 'temperature' },
] as const;

const inputs = [FLUID] as const satisfies readonly InputDescriptor[];

const readings = [
  { id: 'fluid', name: 'Fluid', quantity: 'temperature' },
  { id: 'flow', name: 'Flow at 50 bar', quantity: 'flow', apart: { part: 0.01 } },
  { id: 'shut', name: 'Shut-off pressure', quantity: 'pressure', apart: { part: 0.01 } },
] as const;

export type Parameters = Named<typeof parameters>;
export const named = reader(parameters);

export const pumpOf = (p: Parameters): BeltPump => ({
  displacement_m3: p.displacement_m3,
  leak_m3: hotLeakOf_m3(p.leak_m3PerS),
  control_m3PerS: p.control_m3PerS,
  relief_Pa: p.relief_Pa,
  override_PaSPerM3: USUAL_OVERRIDE_PASPERM3,
  efficiency: p.efficiency,
  belt_Nm: p.belt_Nm,
  fluidPart: p.fluidPart,
});

/** What a pump gives at a pressure once its relief has let back what it does, m³/s, as a function of that pressure. */
export function givenBy(p: Parameters, fluid_K: number, pump = pumpOf(p)): (pressure_Pa: number) => number {
  const viscosity_PaS = steering_PaS(fluid_K);
  return (pressure_Pa) =>
    beltPumpFlow_m3PerS(pump, p.idle_PerS, viscosity_PaS, pressure_Pa) - relieved_m3PerS(pump, pressure_Pa);
}

function healthy({ limits, kind: _kind, name: _name, maker: _maker, ...values }: SteeringPumpProfile) {
  return healthyUnit(
    parameters,
    { ...values, fluidPart: 1, fluid_K: HOT_K },
    {
      control_m3PerS: limits.flow_fraction.value * values.control_m3PerS,
      relief_Pa: limits.relief_Pa.value,
      leak_m3PerS: limits.leak_fraction.value * values.leak_m3PerS,
      fluid_K: HOTTER_K,
    },
  );
}

/** How far a hot idle may be off where nobody has measured the fluid, K. */
const HOTTER_K = 15;

/**
 * A steering pump at idle. Handbook-models P.3: it gives no more than its flow control lets through, less what leaks inside; its
 * relief lets back the rest, and a belt that slips gives nothing.
 */
export const member: Member<SteeringPumpProfile> = {
  parameters,
  inputs,
  readings,
  fedBy: [],
  feeds: [{ id: 'charge', name: 'Pressure line', coupling: 'pumped' }],
  healthy,
  with: (vector: Vector, [fluid_K = 0]) => {
    const p = named(vector);
    const given = givenBy(p, fluid_K);
    return {
      // The line is open to the steering: at rest nothing is balanced there.
      span: () => [0, 0],
      through: (_terminal, pressure_Pa) => given(pressure_Pa),
      atRest: () => ({ effort: 0, passes: 0 }),
      read: () => [
        p.fluid_K,
        Math.max(0, given(LOADED_PA)),
        shutOff_Pa(pumpOf(p), p.idle_PerS, steering_PaS(fluid_K)),
      ],
    };
  },
};
