import type { Quantity } from '../../quantities/units';
import type { Vector } from '../../model/descriptor';
import { healthyUnit, moving, reader, type HealthyUnit, type Named } from '../../model/vectors';

/** Circuits of a car: the front one brakes, the rear one brakes and levels. */
export type Side = 'front' | 'rear';

/** What makes one circuit differ from another, and what faults move: of each of the two. */
export const CIRCUIT = [
  { id: 'shell_m3', name: 'inside of the accumulator', quantity: 'volume' },
  { id: 'preCharge_Pa', name: 'pre-charge', quantity: 'pressure' },
  { id: 'in_Pa', name: 'cut-in', quantity: 'pressure' },
  { id: 'out_Pa', name: 'cut-out', quantity: 'pressure' },
  { id: 'lamp_Pa', name: 'low-pressure lamp', quantity: 'pressure' },
  { id: 'clearance_m', name: 'clearance of the distribution valve', quantity: 'clearance' },
  { id: 'check_m3PerS', name: 'back through the check valve at 100 bar, 20 °C', quantity: 'leakRate' },
  { id: 'outside_m3PerS', name: 'leak to the outside at 100 bar, 20 °C', quantity: 'leakRate' },
  { id: 'area_m2', name: 'area of the distribution valve', quantity: 'area' },
  { id: 'opens_N', name: 'force at which it opens', quantity: 'force' },
  { id: 'friction_N', name: 'friction of its spool', quantity: 'force' },
] as const;
export type CircuitParameters = Named<typeof CIRCUIT>;

/** What both circuits share, and the levelling. */
export const SHARED = [
  { id: 'pedalRatio', name: 'Pedal ratio', quantity: 'ratio' },
  { id: 'landDiameter_m', name: 'Diameter of a spool', quantity: 'length' },
  { id: 'landLength_m', name: 'Length of a land', quantity: 'length' },
  { id: 'thickness', name: 'How thick the fluid is, against the right one', quantity: 'ratio' },
  { id: 'heightLeak_m3PerS', name: 'Leak of the height valve at 100 bar, 20 °C', quantity: 'leakRate' },
  { id: 'weight_N', name: 'Weight on a corner', quantity: 'force' },
  { id: 'spring_NPerM', name: 'Spring of a corner', quantity: 'stiffness' },
  { id: 'free_m', name: 'Height at which a spring carries nothing', quantity: 'length' },
  { id: 'trim_m', name: 'Height that the valve keeps', quantity: 'length' },
  { id: 'ramArea_m2', name: 'Area of a ram', quantity: 'area' },
  { id: 'ramRatio', name: 'Way of a ram for each of the wheel', quantity: 'ratio' },
  { id: 'bump_Pa', name: 'Pressure that a bump makes at a ram', quantity: 'pressure' },
  { id: 'lineBore_m', name: 'Bore of the line to the rams', quantity: 'length' },
  { id: 'restrictor_m', name: 'Bore of the restrictor', quantity: 'length' },
  { id: 'gear_m3PerS', name: 'Flow through the restrictor in gear', quantity: 'pumpFlow' },
  { id: 'parked_m3PerS', name: 'Flow to the rams parked', quantity: 'pumpFlow' },
  { id: 'lift_m', name: 'Lift that is timed', quantity: 'length' },
  { id: 'light_N', name: 'Pedal force of a light application', quantity: 'force' },
  { id: 'watch_s', name: 'Stand to the lamp watched', quantity: 'duration' },
] as const;
export type SharedParameters = Named<typeof SHARED>;

const ofSide = (side: Side) =>
  CIRCUIT.map(({ id, name, quantity }: { id: string; name: string; quantity: Quantity }) => ({
    id: `${side}.${id}`,
    name: `${side === 'front' ? 'Front' : 'Rear'} circuit, ${name}`,
    quantity,
  }));

/** All of them: the front circuit’s, the rear one’s, and what both share. */
export const parameters = [...ofSide('front'), ...ofSide('rear'), ...SHARED];

const readCircuit = reader(CIRCUIT);
const readShared = reader(SHARED);

/** Where each of the three begins. */
const FROM = { front: 0, rear: CIRCUIT.length, shared: 2 * CIRCUIT.length } as const;

export const circuitOf = (vector: Vector, side: Side): CircuitParameters =>
  readCircuit(vector.slice(FROM[side], FROM[side] + CIRCUIT.length));
export const sharedOf = (vector: Vector): SharedParameters => readShared(vector.slice(FROM.shared));

type Change<P> = (p: P, severity: number) => Partial<P>;

const within =
  (from: number, count: number, change: (own: Vector, severity: number) => number[]) =>
  (healthy: Vector, severity: number): number[] => [
    ...healthy.slice(0, from),
    ...change(healthy.slice(from, from + count), severity),
    ...healthy.slice(from + count),
  ];

/** A fault as the change that it makes to one circuit. */
export const movesCircuit = (side: Side, change: Change<CircuitParameters>) =>
  within(FROM[side], CIRCUIT.length, moving(CIRCUIT)(change));

/** A fault as the change that it makes to what both share. */
export const movesShared = (change: Change<SharedParameters>) =>
  within(FROM.shared, SHARED.length, moving(SHARED)(change));

/** Numbers, and how far each may be off. */
interface Healthy<P> {
  readonly values: P;
  readonly tolerances: Partial<P>;
}

/** A healthy car from its two circuits and what they share. */
export function healthyCar(
  front: Healthy<CircuitParameters>,
  rear: Healthy<CircuitParameters>,
  shared: Healthy<SharedParameters>,
): HealthyUnit {
  const all = [
    healthyUnit(CIRCUIT, front.values, front.tolerances),
    healthyUnit(CIRCUIT, rear.values, rear.tolerances),
    healthyUnit(SHARED, shared.values, shared.tolerances),
  ];
  return {
    values: all.flatMap(({ values }) => values),
    tolerances: all.flatMap(({ tolerances }) => tolerances),
  };
}
