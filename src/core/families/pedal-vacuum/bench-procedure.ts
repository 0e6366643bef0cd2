import type { Item, Procedure, ReadingItem, Step } from '../../contract/steps';
import type { Rig } from '../../contract/run-context';
import { ventedGates } from '../../procedure/opening';
import { look, readingOn, shutCocks, taking, untilMended, WEEPS, zerosStep } from '../bench-items';
import { makeSafeStep } from '../making-safe';
import { ports } from './bench-ports';
import type { ReadingId } from './member';
import { RHYTHM, type PedalVacuumProfile } from './profile';

const reading = (
  id: string,
  port: 'pedal' | 'output' | 'supply' | 'gap' | 'clock',
  measures: ReadingId | 'input' | 'supply' | 'load.pressure',
  prompt: string,
  more: Partial<ReadingItem> = {},
) => readingOn(ports, id, port, measures, prompt, more);

const lever = (id: string, target_Pa: number) =>
  reading(id, 'pedal', 'input', 'Bring the lever to this force and read it.', { target_Pa });

/** One force, the vacuum that stands while it is held, and the pressure that it makes. */
const row = (id: string, force_N: number, vacuum: boolean): Item[] => [
  lever(`${id}.input`, force_N),
  ...(vacuum
    ? [reading(`${id}.supply`, 'supply', 'supplyApplied', 'Held: read the vacuum.', { target_Pa: force_N })]
    : []),
  reading(`${id}.pressure`, 'output', 'load.pressure', 'Read the pressure.', {
    target_Pa: force_N,
    inputFrom: `${id}.input`,
  }),
];

const wait = (id: string, prompt: string, duration_s: number): Item => ({
  kind: 'wait',
  id,
  prompt,
  duration_s,
  starts: 'reading',
});

/** Applications made beyond those that must be useful: they show where the reserve ends. */
const BEYOND = 2;

/** Attended minutes of each step, its waits not counted. Handbook-models 8.3, without what only a vehicle has. */
const MINUTES = {
  cautions: 4,
  zeros: 2,
  gap: 4,
  without: 3,
  rest: 2,
  static: 1,
  with: 3,
  held: 2,
  apply: 2,
  reserve: 3,
  'make-safe': 1,
};

/** The bench test of a pedal booster by itself: its own tests of handbook 8.3, its vacuum from the bench's pump. */
export function procedure(profile: PedalVacuumProfile, rig: Rig): Procedure {
  const { light_N, heavy_N, moderate_N, decay_s, hold_s, limits } = profile;
  const steps: Step[] = [
    {
      id: 'cautions',
      title: 'Before anything is connected',
      instruction:
        'Read the cautions. Booster on its bracket, lever of the vehicle’s pedal ratio on its rod, bench master cylinder on its face with its port to the gauge and one caliper.',
      cautions: ['bench-pressure', 'vacuum', 'spring-casing', 'moving-rod', 'fluids'],
      state: { vacuum: 'off' },
      needs: [],
      mandatory: true,
      items: [
        look(
          'mounted',
          'Booster and master mounted',
          'Booster bolted to its bracket, master to the booster, caliper bled and blocked, nobody’s hands near lever or rod?',
          'Mounted and clear',
          ['loose', 'Not yet', untilMended('No vacuum and no force before all of it is bolted and clear.')],
        ),
      ],
    },
    zerosStep(ports, rig, 'Vent every gauge, lever free; read what each shows.'),
    {
      id: 'gap',
      title: 'Pushrod clearance',
      instruction:
        'Master off the booster’s face: measure from the pushrod to the piston’s seat. Put it on again. Too long drags, too short wastes travel.',
      cautions: ['open-line'],
      state: { vacuum: 'off' },
      gates: ventedGates(ports),
      needs: ['zeros'],
      leaves: { input: 'released' },
      items: [reading('gap.rod', 'gap', 'clearance', 'Read the clearance of the pushrod.')],
    },
    {
      id: 'without',
      title: 'Two forces, without vacuum',
      instruction: `Booster vented.${shutCocks(rig)} Bring the lever to each force, always upward, and read.`,
      cautions: ['bench-pressure'],
      state: { vacuum: 'off' },
      gates: ventedGates(ports),
      needs: ['zeros'],
      leaves: { input: 'released' },
      items: [
        ...row('without.1', light_N, false),
        look(
          'seep',
          'Seep look at master and caliper',
          'Under this pressure: dry everywhere? Use card, never a hand.',
          'Dry',
          ['weeps', 'Weeps', WEEPS],
        ),
        ...row('without.2', heavy_N, false),
      ],
    },
    {
      id: 'rest',
      title: 'Vacuum, lever free',
      instruction: 'Open the vacuum and let it settle. Nothing may come out of the booster.',
      cautions: ['vacuum', 'moving-rod'],
      state: { vacuum: 'on' },
      needs: ['without'],
      leaves: { input: 'released' },
      items: [
        reading('rest.supply', 'supply', 'supply', 'Settled: read the vacuum.'),
        reading('rest.pressure', 'output', 'load.pressure', 'Read the pressure: it must be none.', {
          target_Pa: 0,
        }),
        look(
          'hiss-rest',
          'Hiss at rest',
          'Behind the lever and round the shell, lever free: quiet?',
          'Quiet',
          ['hiss', 'Hisses'],
          'air-seat',
        ),
      ],
    },
    {
      id: 'static',
      title: 'Decay at rest',
      instruction: 'Shut the source at its cock. Touch nothing until the wait is over.',
      cautions: [],
      state: { vacuum: 'off' },
      needs: ['rest'],
      leaves: { input: 'released' },
      items: [
        reading('static.start', 'supply', 'supply', 'Read the vacuum: the wait starts here.'),
        wait('static.wait', 'Vacuum shut in, lever free', decay_s),
        reading('static.end', 'supply', 'left', 'Read the vacuum again.', { elapsed_s: decay_s }),
      ],
    },
    {
      id: 'with',
      title: 'Two forces, with vacuum',
      instruction:
        'Bring the lever to each force, always upward, and let vacuum and pressure stand, then read both.',
      cautions: ['bench-pressure', 'moving-rod'],
      state: { vacuum: 'on' },
      needs: ['rest'],
      leaves: { input: 'applied' },
      items: [
        ...row('with.1', light_N, true),
        ...row('with.2', heavy_N, true),
        look(
          'hiss-held',
          'Hiss while held',
          'Behind the lever, held steady: quiet?',
          'Quiet',
          ['hiss', 'Hisses'],
          'shell',
        ),
      ],
    },
    {
      id: 'held',
      title: 'Decay while held',
      instruction: `Lever at the force named, which is beyond runout. Shut the source and go on holding for ${hold_s} s. A torn diaphragm loses nothing at rest: it shows here.`,
      cautions: [],
      state: { vacuum: 'off' },
      needs: ['with'],
      leaves: { input: 'released', charge: 'spent' },
      hands: 'pedal-jack',
      items: [
        lever('held.input', heavy_N),
        reading(
          'held.start',
          'supply',
          'supply',
          'Source just shut: read the vacuum. The hold starts here.',
          {
            target_Pa: heavy_N,
          },
        ),
        wait('held.wait', 'Vacuum shut in, lever held', hold_s),
        reading('held.end', 'supply', 'heldLeft', 'Read the vacuum again.', {
          target_Pa: heavy_N,
          inputFrom: 'held.input',
          elapsed_s: hold_s,
          sourceFrom: 'held.start',
        }),
      ],
    },
    {
      id: 'apply',
      title: 'Apply time and release',
      instruction:
        'Bring the lever to the force at once and time the pressure until it stands; let go at once and look at the rod.',
      cautions: ['moving-rod'],
      state: { vacuum: 'on' },
      needs: ['rest'],
      leaves: { input: 'released' },
      items: [
        reading('apply.time', 'clock', 'applyTime', 'Read the time until the pressure stands.', {
          target_Pa: heavy_N,
        }),
        look('drag', 'Rod after release', 'Lever free: rod and caliper fully back?', 'Fully back', [
          'drags',
          'Stays out, or comes late',
        ]),
      ],
    },
    {
      id: 'reserve',
      title: 'Reserve',
      instruction: `Let it settle, then shut the source. Apply to the force named, hold for ${RHYTHM.held_s} s and read, let go fully; again every ${RHYTHM.every_s} s.`,
      cautions: [],
      state: { vacuum: 'off' },
      needs: ['rest'],
      leaves: { input: 'released', charge: 'spent' },
      items: [
        reading('reserve.supply', 'supply', 'supply', 'Source just shut: read the vacuum that is stored.'),
        ...Array.from({ length: limits.reserve.value + BEYOND }, (_, i) =>
          reading(`reserve.${i + 1}`, 'output', 'load.pressure', `Application ${i + 1}: read the pressure.`, {
            target_Pa: moderate_N,
            sourceFrom: 'reserve.supply',
            applications: i + 1,
            moment: 'next-application',
          }),
        ),
      ],
    },
    makeSafeStep(ports, rig, 'Lever free, vacuum off and the booster vented at its hose.'),
  ];
  const doable = steps.filter(({ items }) =>
    items.every((item) => item.kind !== 'reading' || (rig[item.port] ?? []).length > 0),
  );
  return { id: 'pedal-vacuum-bench', version: 2, steps: taking(doable, MINUTES) };
}
