import type { Member } from '../../model/member';
import { healthyUnit, reader, type InputDescriptor, type Named } from '../../model/vectors';
import { CHARGED_CIRCUITS, FLUID } from '../inputs';
import type { EnginePumpProfile } from './profile';

/** What makes one pump differ from another, and what faults move. */
export const parameters = [
  { id: 'front_m3', name: 'Given to the front circuit for each turn', quantity: 'fluidVolume' },
  { id: 'rear_m3', name: 'Given to the rear circuit for each turn', quantity: 'fluidVolume' },
  { id: 'idle_PerS', name: 'Engine at idle', quantity: 'rotation' },
  { id: 'fluid_K', name: 'Fluid', quantity: 'temperature' },
] as const;

const inputs = [
  {
    id: 'idle_PerS',
    name: 'Engine at idle',
    quantity: 'rotation',
    from: { port: 'speed', as: 'source', until: 'source.idle', stays: true },
  },
  FLUID,
] as const satisfies readonly InputDescriptor[];

const readings = [
  { id: 'idle', name: 'Engine at idle', quantity: 'rotation' },
  { id: 'fluid', name: 'Fluid', quantity: 'temperature' },
] as const;

export type Parameters = Named<typeof parameters>;
export const named = reader(parameters);

/** Fluid that has stood in a shop, K, and how far that may be off where nobody has measured it. */
const WARM_K = 293.15;
const ROOMS_K = 10;

function healthy({ limits, front_m3, rear_m3, idle_PerS }: EnginePumpProfile) {
  const flow = limits.flow_fraction.value;
  return healthyUnit(
    parameters,
    { front_m3, rear_m3, idle_PerS, fluid_K: WARM_K },
    {
      front_m3: flow * front_m3,
      rear_m3: flow * rear_m3,
      idle_PerS: limits.idle_fraction.value * idle_PerS,
      fluid_K: ROOMS_K,
    },
  );
}

/**
 * A pump that the engine drives: q = D·n into each of its circuits, whatever the pressure there. Handbook-models 8.6. When it is let
 * into a circuit is up to the valve block, which is the unit's.
 */
export const member: Member<EnginePumpProfile> = {
  parameters,
  inputs,
  readings,
  fedBy: [],
  feeds: CHARGED_CIRCUITS,
  healthy,
  with: (vector, [idle_PerS = 0]) => {
    const p = named(vector);
    const given_m3PerS = [p.front_m3 * idle_PerS, p.rear_m3 * idle_PerS];
    return {
      // The valve block lets it into the circuits: nothing is balanced at its outlets.
      span: () => [0, 0],
      through: (terminal) => given_m3PerS[terminal]!,
      atRest: () => ({ effort: 0, passes: 0 }),
      read: () => [p.idle_PerS, p.fluid_K],
    };
  },
};
