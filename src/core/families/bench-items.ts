import { isOwnSensor } from '../metrology/accuracy';
import { supplied, type Sources } from '../contract/sources';
import { FLUIDS, type FluidKind } from '../fluid/kinds';
import type { Answer, Item, ObservationItem, ReadingItem, Step } from '../contract/steps';
import type { CautionId } from '../contract/cautions';
import type { Port, TestedAt } from '../contract/family';
import type { Rig } from '../contract/run-context';

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

/** Cautions of a step in which the unit is fed: of what feeds it, and what else there is. */
export const whileFed = ({ on }: Pick<TestedAt, 'on'>, ...also: readonly CautionId[]): CautionId[] => [
  ...new Set([on.engine ? 'running-engine' : 'bench-pressure', ...also] as const),
];

/** Something looked at: what a sound unit gives, what a faulty one does, and that it could not be seen. */
export function look(
  id: string,
  name: string,
  prompt: string,
  good: string,
  bad: readonly [id: string, label: string, stops?: Answer['stops']],
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
      { id: bad[0], label: bad[1], finds: 'bad', ...(bad[2] ? { stops: bad[2] } : {}) },
      { id: 'not-looked', label: 'Could not look', finds: 'unknown' },
    ],
  };
}

/** The test goes on only when this is put right and has been looked at again. */
export const untilMended = (say: string): NonNullable<Answer['stops']> => ({ say, goesOn: 'mended' });

/** Fluid outside before the pressure goes up: it goes no higher. */
export const WEEPS = untilMended(
  'Let the pressure off and read the gauges at zero. Find where it weeps and mend it, then look again. The pressure does not go up on a unit that weeps.',
);

/** What a gauge shows that has no zero to be vented to: a watch, a rule, a thermometer. */
const WITHOUT_ZERO: readonly (Port['quantity'] | undefined)[] = [
  null,
  'duration',
  'travel',
  'count',
  'temperature',
  'voltage',
  'current',
  'torque',
  'rotation',
];

/** A unit on the bench's vacuum with that shut off: what most tests begin and end with. */
export const VACUUM_OFF: Sources = { vacuum: 'off' };

/** Ports with a gauge of pressure, vacuum or force: they have a zero, and at the end must stand at it. */
export const gauged = (ports: readonly Port[]) =>
  ports.filter(({ quantity }) => !WITHOUT_ZERO.includes(quantity));

/**
 * A look that nobody gets past: only a good answer lets the run go on, and none is the one by default.
 *
 * @param also another answer that is as good: there was nothing to be looked at
 */
export const mustBe = (
  id: string,
  name: string,
  prompt: string,
  good: string,
  bad: readonly [id: string, label: string, stops: NonNullable<Answer['stops']>],
  also?: readonly [id: string, label: string],
): ObservationItem => ({
  kind: 'observation',
  id,
  name,
  prompt,
  answers: [
    { id: 'good', label: good, finds: 'good' },
    { id: bad[0], label: bad[1], finds: 'bad', stops: bad[2] },
    ...(also ? [{ id: also[0], label: also[1], finds: 'good' } as const] : []),
    { id: 'not-looked', label: 'Not looked yet', finds: 'unknown', stops: SEE },
  ],
});

/** Nothing is turned on a bench before it is clamped and guarded. @param what stands on it */
export const guarded = (what: string): ObservationItem =>
  mustBe(
    'clamped',
    'Clamped and guarded',
    `${what} clamped, the guard over belt and pulleys, the pedal free to travel?`,
    'Clamped, guard on',
    [
      'loose',
      'Not yet',
      untilMended('Nothing turns before everything is clamped and the guard is on. Then look again.'),
    ],
  );

const SEE = untilMended('The run does not go on before this was looked at.');

/** Every gauge of the rig read while vented. A vehicle’s own sensor cannot be. */
export const zeroItems = (ports: readonly Port[], rig: Rig): ReadingItem[] =>
  gauged(ports).flatMap((port) =>
    (rig[port.id] ?? [])
      .filter((gauge) => !isOwnSensor(gauge))
      .map((gauge) =>
        readingOn(ports, `zero.${gauge.tag}`, port.id, 'zero', `${gauge.tag} vented: read it.`, {
          gauge: gauge.tag,
        }),
      ),
  );

/** Low gauges of tied pairs: a cock parts each from the line, and is shut before the pressure passes its scale. */
export const cocked = (gauges: Rig[string] = []) => gauges.filter(({ tiedTo }) => tiedTo !== null);

/** "the cock of A", "the cocks of A and B"; null where no gauge has one. */
function cocksOf(gauges: Rig[string]): string | null {
  const tags = gauges.map(({ tag }) => tag);
  if (tags.length === 0) return null;
  return tags.length === 1
    ? `the cock of ${tags[0]}`
    : `the cocks of ${tags.slice(0, -1).join(', ')} and ${tags.at(-1)}`;
}

/** What shuts every low gauge off before the pressure passes its scale, where there is one. */
export const shutCocks = (rig: Rig): string => {
  const cocks = cocksOf(Object.values(rig).flatMap(cocked));
  return cocks ? ` Shut ${cocks} before the pressure passes their scale.` : '';
};

/** What opens every cock again, where there is one. */
export const openCocks = (rig: Rig): string => {
  const cocks = cocksOf(Object.values(rig).flatMap(cocked));
  return cocks ? ` Open ${cocks} again, the pressure being off.` : '';
};

/**
 * A step in whose instruction the low gauges that it would wreck are shut off first.
 *
 * @param boost how many times the input the output may be while the vacuum is on
 */
export function shuttingCocks(step: Step, rig: Rig, boost: number): Step {
  const passed = Object.entries(rig).flatMap(([port, gauges]) => {
    const targets = step.items.flatMap((item) =>
      item.kind === 'reading' && item.port === port && item.measures !== 'zero' ? [item] : [],
    );
    const lift = port === 'output' && supplied(step.state) ? boost : 1;
    // Where a reading has no aim of its own the pressure goes on up until something happens.
    const greatest = Math.max(0, ...targets.map(({ target_Pa }) => (target_Pa ?? Infinity) * lift));
    const raised = step.items.some((item) => item.kind === 'reading' && item.measures === 'input');
    return raised ? cocked(gauges).filter((gauge) => greatest > gauge.fullScale_Pa) : [];
  });
  const cocks = cocksOf(passed);
  return cocks
    ? { ...step, instruction: `Shut ${cocks} before the pressure passes their scale. ${step.instruction}` }
    : step;
}

/**
 * The step at which every gauge is vented.
 *
 * @param how what is done besides to take the load off them
 * @param off every source that the unit has, at rest
 */
export const zerosStep = (
  ports: readonly Port[],
  rig: Rig,
  how: string,
  off: Sources = VACUUM_OFF,
): Step => ({
  id: 'zeros',
  title: 'Gauges vented',
  instruction: `${how}${openCocks(rig)} Its zero is taken off every later reading.`,
  cautions: [],
  state: off,
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
  state: { vacuum: 'off' },
  fluid: true,
  needs: [],
  leaves: { input: 'released' },
  items: fluidAfter(fluid, hoses),
});

/** Is the fluid on the bench the profile's own? */
export const fluidLook = (fluid: FluidKind): ObservationItem =>
  look(
    'fluid',
    'Bench fluid',
    `Bench holds ${FLUIDS[fluid]}, the fluid this profile names?`,
    'Yes, that fluid',
    [
      'other',
      'Another fluid',
      untilMended(
        `Another fluid destroys the seals. Drain and flush the bench, fill it with ${FLUIDS[fluid]}, then look again.`,
      ),
    ],
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

/** Steps with the time that a technician is at each, minutes; a step that is not named takes as long as its kind. */
export const taking = (steps: readonly Step[], minutes: Readonly<Record<string, number>>): Step[] =>
  steps.map((step) => ({ ...step, attended_s: 60 * (minutes[step.id] ?? USUAL_MIN) }));

/** A step of one or two readings, min. */
const USUAL_MIN = 1;

/** Wherever the input is set, the proof limit stands beside it. */
export const stoppingAt = (step: Step, stopAt_Pa: number): Step => ({
  ...step,
  items: step.items.map((item) =>
    item.kind === 'reading' && item.port === 'input' && item.measures !== 'zero'
      ? { ...item, stopAt_Pa }
      : item,
  ),
});
