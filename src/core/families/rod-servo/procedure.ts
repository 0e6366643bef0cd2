import type { Item, Procedure, ReadingItem, Step } from '../../contract/steps';
import type { Rig } from '../../contract/run-context';
import {
  fluidLook,
  fluidSideStep,
  look,
  readingOn,
  shuttingCocks,
  stoppingAt,
  taking,
  untilMended,
  WEEPS,
  zerosStep,
} from '../bench-items';
import { makeSafeStep } from '../making-safe';
import { ventedGates } from '../../procedure/opening';
import { ports } from './ports';
import type { RodServoProfile } from './profile';
import { APPLICATION_S, type ReadingId } from './member';

const reading = (
  id: string,
  port: 'input' | 'output' | 'supply' | 'clock',
  measures: ReadingId | 'input' | 'supply',
  prompt: string,
  more: Partial<ReadingItem> = {},
) => readingOn(ports, id, port, measures, prompt, more);

/** A row of one fluid pressure and the force it makes. */
const row = (id: string, target_Pa: number, measures: ReadingId, more: Partial<ReadingItem> = {}): Item[] => [
  reading(`${id}.input`, 'input', 'input', 'Set the fluid pressure and read it.', { target_Pa }),
  reading(`${id}.output`, 'output', measures, 'Read the rod force.', {
    target_Pa,
    inputFrom: `${id}.input`,
    ...more,
  }),
];

/** Applications made beyond those that must be useful: they show where the reserve ends. */
const BEYOND = 2;

/** Attended minutes of each step, its waits not counted. Handbook-models 8.2. */
const MINUTES = {
  cautions: 6,
  zeros: 2,
  dry: 1,
  'pull-down': 2,
  static: 0.5,
  force: 4,
  full: 1,
  times: 2,
  release: 1,
  reserve: 4,
  recharge: 0.5,
  standing: 0.5,
  after: 1,
  'make-safe': 1,
};

/** The bench test of a rod-acting servo, in the order of handbook 8.2, for one profile on one rig. */
export function procedure(profile: RodServoProfile, rig: Rig): Procedure {
  const steps: Step[] = [
    {
      id: 'cautions',
      title: 'Before anything is connected',
      instruction: 'Read the cautions. Block the lever or set the rod on the load cell; drain the valve.',
      cautions: ['bench-pressure', 'fluids', 'spring-casing', 'moving-rod', 'lining-dust'],
      state: { vacuum: 'off' },
      fluid: true,
      needs: [],
      mandatory: true,
      items: [
        fluidLook(profile.fluid),
        look(
          'blocked',
          'Rod or lever blocked',
          'Rod square on the load cell, lever or wheels blocked, nobody’s hands near?',
          'Blocked and clear',
          [
            'loose',
            'Not blocked',
            untilMended(
              'A rod that moves crushes what is in its way. No vacuum and no pressure until the rod stands square, lever or wheels are blocked and everybody is clear.',
            ),
          ],
        ),
      ],
    },
    zerosStep(ports, rig, 'Vent every gauge and take the rod off the load cell; read what each shows.'),
    {
      id: 'dry',
      title: 'Without vacuum',
      instruction:
        'Tank vented. Raise the fluid pressure: this unit has no push-through unless its profile names one, so no vacuum is no brake.',
      cautions: [],
      state: { vacuum: 'off' },
      gates: ventedGates(ports),
      needs: ['zeros'],
      leaves: { input: 'released' },
      items: [
        ...row('dry', profile.fullInput_Pa, 'outputWithout'),
        look(
          'seep-valve',
          'Seep look at the valve',
          'Valve’s fluid seal under pressure: dry? Use card, never a hand.',
          'Dry',
          ['weeps', 'Weeps', WEEPS],
          'valve-seal',
        ),
      ],
    },
    {
      id: 'pull-down',
      title: 'Tank pull-down',
      instruction:
        'Fluid released. Open the vacuum and start the stopwatch; stop it as the tank gauge passes the mark. Then let it settle.',
      cautions: ['vacuum', 'bench-pressure', 'moving-rod'],
      state: { vacuum: 'on' },
      needs: ['zeros'],
      items: [
        reading('pull.time', 'clock', 'pullDown', 'Read the stopwatch.', { sourceFrom: 'rest.supply' }),
        reading('rest.supply', 'supply', 'supply', 'Tank settled: read its vacuum.'),
      ],
    },
    {
      id: 'static',
      title: 'Static: valve released',
      instruction:
        'Shut the source. Touch nothing until the wait is over; listen along the valve and the tank.',
      cautions: [],
      state: { vacuum: 'off' },
      needs: ['pull-down'],
      leaves: { input: 'released', charge: 'spent' },
      items: [
        ...watched('static', profile.hold_s),
        look(
          'tank-hiss',
          'Tank seams and line',
          'Seams of the tank and joints of the line: quiet?',
          'Quiet',
          ['hiss', 'Hiss'],
          'tank',
        ),
        look(
          'intake-hiss',
          'Air intake, valve released',
          'Air intake of the valve: quiet?',
          'Quiet',
          ['hiss', 'Hisses'],
          'intake',
        ),
        {
          ...look(
            'line-clamped',
            'Loss with the line clamped',
            'Where the tank loses: clamp the line between tank and non-return valve. What does the loss do?',
            'No loss to speak of',
            ['stops', 'It stops'],
            'check-valve',
          ),
          answers: [
            { id: 'good', label: 'No loss to speak of', finds: 'good' },
            { id: 'stops', label: 'It stops', finds: 'bad' },
            { id: 'goes-on', label: 'It goes on', finds: 'bad' },
            { id: 'not-looked', label: 'Could not look', finds: 'unknown' },
          ],
        },
      ],
    },
    {
      id: 'force',
      title: 'Force at fluid pressures',
      instruction:
        'Raise the fluid pressure, always upward. At each point let force and tank settle, then read.',
      cautions: [],
      state: { vacuum: 'on' },
      needs: ['pull-down', 'zeros'],
      leaves: { input: 'applied' },
      items: [
        reading('force.supply', 'supply', 'supply', 'Tank full again: read its vacuum.'),
        reading(
          'begin.input',
          'input',
          'beginInput',
          'Raise slowly: read the fluid pressure as the load cell first moves.',
          { moment: 'output-begins' },
        ),
        ...profile.forceInputs_Pa.flatMap((target_Pa, i) => row(`force.${i + 1}`, target_Pa, 'output')),
      ],
    },
    {
      id: 'full',
      title: 'Full force',
      instruction: 'Go up to the pressure named, above full lift, and let force and tank settle.',
      cautions: [],
      state: { vacuum: 'on' },
      needs: ['force'],
      leaves: { input: 'applied' },
      items: [
        ...row('full', profile.fullInput_Pa, 'output', { sourceFrom: 'full.supply' }),
        reading('full.supply', 'supply', 'supplyApplied', 'Read the tank with the unit applied.', {
          target_Pa: profile.fullInput_Pa,
        }),
      ],
    },
    {
      id: 'times',
      title: 'Apply and release time',
      instruction:
        'Apply at once to the pressure named and let go at once. Time the force: up to nine tenths, and down to the last tenth.',
      cautions: [],
      state: { vacuum: 'on' },
      needs: ['full'],
      leaves: { input: 'released' },
      items: [
        reading(
          'apply.time',
          'clock',
          'applyTime',
          'Apply at once: read the time to nine tenths of the force.',
          {
            target_Pa: profile.fullInput_Pa,
          },
        ),
        reading('release.time', 'clock', 'releaseTime', 'Let go at once: read the time to the last tenth.', {
          target_Pa: profile.fullInput_Pa,
        }),
      ],
    },
    {
      id: 'release',
      title: 'Release',
      instruction: 'Fluid released. The rod or lever must come fully back by itself.',
      cautions: [],
      state: { vacuum: 'on' },
      needs: ['force'],
      leaves: { input: 'released' },
      items: [
        reading('residual.output', 'output', 'residual', 'Read the force left.', { target_Pa: 0 }),
        look('lever-back', 'Lever or rod back', 'Rod or lever fully back against its stop?', 'Fully back', [
          'short',
          'Stays short',
        ]),
      ],
    },
    {
      id: 'reserve',
      title: 'Reserve: source off',
      instruction: `Tank full, then shut the source and read it. Apply to the pressure named, read the force, let go fully; again every ${APPLICATION_S} s.`,
      cautions: ['moving-rod'],
      state: { vacuum: 'off' },
      needs: ['full'],
      leaves: { input: 'released', charge: 'spent' },
      items: [
        reading('reserve.supply', 'supply', 'supply', 'Source just shut: read the tank.'),
        ...Array.from({ length: profile.limits.applications.value + BEYOND }, (_, i) =>
          reading(`reserve.${i + 1}`, 'output', 'reserveForce', `Application ${i + 1}: read the force.`, {
            target_Pa: profile.fullInput_Pa,
            sourceFrom: 'reserve.supply',
            applications: i + 1,
            moment: 'next-application',
          }),
        ),
        reading('reserve.end', 'supply', 'tankUsed', 'Read what is left in the tank.', {
          target_Pa: profile.fullInput_Pa,
          sourceFrom: 'reserve.supply',
          applications: profile.limits.applications.value + BEYOND,
        }),
      ],
    },
    {
      id: 'recharge',
      title: 'Charge again',
      instruction: 'The reserve test used up the tank. Open the vacuum and let it fill.',
      cautions: [],
      state: { vacuum: 'on' },
      needs: ['pull-down'],
      leaves: { input: 'released' },
      items: [reading('recharge.supply', 'supply', 'supply', 'Tank full: read its vacuum.')],
    },
    {
      id: 'standing',
      title: 'Standing decay',
      instruction: 'Shut the source and leave the unit alone. The wait calls when it is over.',
      cautions: [],
      state: { vacuum: 'off' },
      needs: ['recharge'],
      leaves: { input: 'released', charge: 'spent' },
      items: watched('standing', profile.standing_s),
    },
    fluidSideStep(profile.fluid, 'Air side of the valve, line and tank', 'Vacuum off, fluid released.'),
    makeSafeStep(
      ports,
      rig,
      'Fluid released, tank vented at its drain: the non-return valve keeps the vacuum in otherwise.',
    ),
  ];
  return {
    id: 'rod-servo-bench',
    version: 2,
    steps: taking(
      steps.map((step) => stoppingAt(shuttingCocks(step, rig, 1), profile.proof_Pa)),
      MINUTES,
    ),
  };
}

/** The tank read, left alone for a time, and read again. */
const watched = (id: string, duration_s: number): Item[] => [
  reading(`${id}.start`, 'supply', 'supply', 'Read the tank: the wait starts here.'),
  { kind: 'wait', id: `${id}.wait`, prompt: 'Vacuum shut in', duration_s, starts: 'reading' },
  reading(`${id}.end`, 'supply', 'tankLeft', 'Read the tank again.', { elapsed_s: duration_s }),
];
