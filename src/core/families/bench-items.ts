import { FLUIDS, type FluidKind } from '../fluid/kinds';
import type { Item, ObservationItem, ReadingItem, Step } from '../procedure/procedure';
import type { Port, Rig } from '../twin/family';

/** A reading on a port, its quantity the port's own. @throws RangeError where there is no such port, or nothing to read on it */
export function readingOn(
  ports: readonly Port[],
  id: string,
  port: string,
  measures: string,
  prompt: string,
  more: Partial<ReadingItem> = {},
): ReadingItem {
  const quantity = ports.find((one) => one.id === port)?.quantity;
  if (!quantity) throw new RangeError(`port: nothing is read on “${port}”`);
  return { kind: 'reading', id, prompt, port, quantity, measures, ...more };
}

/** Something looked at: what a sound unit gives, what a faulty one does, and that it could not be seen. */
export function look(
  id: string,
  name: string,
  prompt: string,
  good: string,
  bad: readonly [id: string, label: string],
  point?: string,
): ObservationItem {
  return {
    kind: 'observation',
    id,
    name,
    prompt,
    point,
    answers: [
      { id: 'good', label: good, finds: 'good' },
      { id: bad[0], label: bad[1], finds: 'bad' },
      { id: 'not-looked', label: 'Could not look', finds: 'unknown' },
    ],
  };
}

/** Ports with a gauge of pressure, vacuum or force: they have a zero, and at the end must stand at it. */
export const gauged = (ports: readonly Port[]) =>
  ports.filter(({ quantity }) => quantity !== null && quantity !== 'duration');

/** Every gauge of the rig read while vented. */
export const zeroItems = (ports: readonly Port[], rig: Rig): ReadingItem[] =>
  gauged(ports).flatMap((port) =>
    (rig[port.id] ?? []).map((gauge) =>
      readingOn(ports, `zero.${gauge.tag}`, port.id, 'zero', `${gauge.tag} vented: read it.`, {
        gauge: gauge.tag,
      }),
    ),
  );

/** The step at which every gauge is vented. @param how what is done besides to take the load off them */
export const zerosStep = (ports: readonly Port[], rig: Rig, how: string): Step => ({
  id: 'zeros',
  title: 'Gauges vented',
  instruction: `${how} Its zero is taken off every later reading.`,
  cautions: [],
  vacuum: 'off',
  needs: ['cautions'],
  leaves: { input: 'released' },
  items: zeroItems(ports, rig),
});

/** The step at which fluid gone astray is looked for. */
export const fluidSideStep = (fluid: FluidKind, hoses: string, instruction: string): Step => ({
  id: 'after',
  title: 'Fluid side',
  instruction,
  cautions: [],
  vacuum: 'off',
  needs: [],
  leaves: { input: 'released' },
  items: fluidAfter(fluid, hoses),
});

/** The last step: nothing comes off before every gauge reads zero. */
export const makeSafeStep = (ports: readonly Port[], instruction: string): Step => ({
  id: 'make-safe',
  title: 'Make safe',
  instruction: `${instruction} Every gauge must read zero before any line comes off.`,
  cautions: ['open-line'],
  vacuum: 'off',
  needs: [],
  mandatory: true,
  leaves: { input: 'released', charge: 'spent' },
  items: safeItems(ports),
});

/** Make safe: every gauge back at zero by reading, never by a tick. Handbook 2. */
export const safeItems = (ports: readonly Port[]): ReadingItem[] =>
  gauged(ports).map((port) =>
    readingOn(
      ports,
      `safe.${port.id}`,
      port.id,
      'zero',
      `${port.name}: read the gauge. It must be at zero.`,
      { gate: 'zero' },
    ),
  );

/** Is the fluid on the bench the profile's own? */
export const fluidLook = (fluid: FluidKind): ObservationItem =>
  look(
    'fluid',
    'Bench fluid',
    `Bench holds ${FLUIDS[fluid]}, the fluid this profile names?`,
    'Yes, that fluid',
    ['other', 'Another fluid'],
  );

/** What is looked at once a fluid-worked unit has been tested: fluid gone astray, and what is told of the fluid left in it. */
export const fluidAfter = (fluid: FluidKind, hoses: string): Item[] => [
  look('vacuum-side-fluid', 'Fluid in the vacuum side', `${hoses}: free of fluid?`, 'Dry', [
    'fluid',
    'Fluid found',
  ]),
  look('fluid-level', 'Fluid level', 'Bench fluid level as it was, with nothing wet outside?', 'As it was', [
    'falls',
    'Level fell',
  ]),
  look(
    'fluid-told',
    'Fluid left inside',
    `Fluid left in the unit is ${FLUIDS[fluid]}, and the tag says so?`,
    'Yes, tagged',
    ['untagged', 'Not tagged'],
  ),
];

/** Wherever the input is set, the proof limit stands beside it. */
export const stoppingAt = (step: Step, stopAt_Pa: number): Step => ({
  ...step,
  items: step.items.map((item) =>
    item.kind === 'reading' && item.port === 'input' && item.measures !== 'zero'
      ? { ...item, stopAt_Pa }
      : item,
  ),
});
