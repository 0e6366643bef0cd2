import type { Item, ObservationItem, Procedure, ReadingItem, Step } from '../../contract/steps';
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
import { leakPoints, ports } from './ports';
import type { RemoteVacuumProfile } from './profile';
import type { ReadingId } from './member';

/** Prompts, in the words used on a bench. A reading names what it measures: a reading of the twin, or what is set. */
type Measures = ReadingId | 'input' | 'supply' | 'zero';

const reading = (
  id: string,
  port: 'input' | 'output' | 'supply' | 'activation',
  measures: Measures,
  prompt: string,
  more: Partial<ReadingItem> = {},
) => readingOn(ports, id, port, measures, prompt, more);

const seepLook = (when: 'seep-low' | 'seep-high', profile: RemoteVacuumProfile): ObservationItem[] =>
  leakPoints
    .filter((point) => point.id !== 'switch' || profile.lampSwitch)
    .map((point) =>
      look(
        `${when}.${point.id}`,
        `Seep look ${when === 'seep-low' ? 'after bypass' : 'under pressure'}: ${point.name.toLowerCase()}`,
        `${point.name}: dry? Use card, never a hand.`,
        'Dry',
        when === 'seep-low' ? ['weeps', 'Weeps', WEEPS] : ['weeps', 'Weeps'],
        point.id,
      ),
    );

/** A row of one input and the output it gives. */
const row = (id: string, target_Pa: number, measures: ReadingId, more: Partial<ReadingItem> = {}): Item[] => [
  reading(`${id}.input`, 'input', 'input', 'Set the input and read it.', { target_Pa }),
  reading(`${id}.output`, 'output', measures, 'Read the output.', {
    target_Pa,
    inputFrom: `${id}.input`,
    ...more,
  }),
];

/** A hose that closes up lets the supply fall only while the unit draws air: the reading under load is the one that counts. */
const UNDER_LOAD = { sourceFrom: 'full.supply' };
const AT_RUNOUT = { moment: 'working-side-empty' } as const;

/** Time after release at which the residual is read, s (handbook 8.1). */
const RESIDUAL_WAIT_S = 5;

/** Attended minutes of each step, its waits not counted. Handbook-models 8.1. */
const MINUTES = {
  cautions: 8,
  'lamp-switch': 1,
  zeros: 2,
  bypass: 3,
  'seep-low': 1,
  'supply-on': 2,
  ratio: 4,
  full: 2,
  hold: 1,
  release: 1,
  'loss-released': 0.5,
  charge: 0.5,
  'loss-applied': 0.5,
  after: 1,
  'make-safe': 2,
};

/** The bench test of a remote vacuum unit, in the order of handbook 8.1, for one profile on one rig. */
export function procedure(profile: RemoteVacuumProfile, rig: Rig): Procedure {
  const steps: Step[] = [
    {
      id: 'cautions',
      title: 'Before anything is connected',
      instruction: 'Read the cautions. Drain what is left in the unit before lines go on.',
      cautions: ['bench-pressure', 'fluids', 'spring-casing', 'lining-dust'],
      state: { vacuum: 'off' },
      fluid: true,
      needs: [],
      mandatory: true,
      items: [
        fluidLook(profile.fluid),
        look('threads', 'Switch and bleed threads', 'Switch, bleed screw and port threads: sound?', 'Sound', [
          'damaged',
          'Over-screwed or splayed',
          untilMended(
            'A damaged thread lets go under pressure. Nothing is connected to it: have it mended or the part changed, then look again.',
          ),
        ]),
      ],
    },
    ...(profile.lampSwitch
      ? [
          {
            id: 'lamp-switch',
            title: 'Stop-lamp switch',
            instruction: 'Continuity meter across the switch, no vacuum. Raise the input slowly from zero.',
            cautions: [],
            state: { vacuum: 'off' },
            gates: ventedGates(ports),
            needs: ['cautions'],
            leaves: { input: 'released' },
            items: [
              look('switch-rest', 'Stop-lamp switch at rest', 'No pressure: contacts open?', 'Open', [
                'closed',
                'Closed',
              ]),
              reading('switch.input', 'input', 'switchCloses', 'Read the input as the contacts close.', {
                moment: 'by-hand',
              }),
            ],
          } satisfies Step,
        ]
      : []),
    zerosStep(ports, rig, 'Vent every gauge to the room and read what it shows.'),
    {
      id: 'bypass',
      title: 'Bypass, assist off',
      instruction:
        'No vacuum: the unit must pass pressure straight through. Raise the input in steps and let both gauges settle.',
      cautions: [],
      state: { vacuum: 'off' },
      gates: ventedGates(ports),
      needs: ['zeros'],
      leaves: { input: 'released' },
      items: profile.bypassInputs_Pa.flatMap((target_Pa, i) => [
        ...row(`bypass.${i + 1}`, target_Pa, 'outputPassed'),
        ...(i === 0
          ? [
              look(
                'seep-first',
                'Seep look at low pressure',
                'Before going higher: the whole unit dry? Use card, never a hand.',
                'Dry',
                ['weeps', 'Weeps', WEEPS],
              ),
            ]
          : []),
      ]),
    },
    {
      id: 'seep-low',
      title: 'Seep look',
      instruction: 'Input released. Look at each point for fluid that the bypass test left.',
      cautions: [],
      state: { vacuum: 'off' },
      needs: ['bypass'],
      items: seepLook('seep-low', profile),
    },
    {
      id: 'supply-on',
      title: 'Supply on',
      instruction: 'Input released. Open the vacuum and let it settle. The output must stay at zero.',
      cautions: ['vacuum', 'bench-pressure'],
      state: { vacuum: 'on' },
      needs: ['bypass'],
      items: [
        reading('rest.supply', 'supply', 'supply', 'Read the supply.'),
        reading('rest.activation', 'activation', 'activation', 'Read the activation port.', { target_Pa: 0 }),
        reading('rest.output', 'output', 'outputAtRest', 'Self-apply: read the output.', { target_Pa: 0 }),
        look('hiss-rest', 'Hiss, released', 'At the breather and round the hub, released: quiet?', 'Quiet', [
          'hiss',
          'Hisses',
        ]),
      ],
    },
    {
      id: 'ratio',
      title: 'Boost ratio',
      instruction: 'Raise the input, always upward. At each point let the gauges settle, then read both.',
      cautions: [],
      state: { vacuum: 'on' },
      needs: ['supply-on', 'bypass'],
      leaves: { input: 'applied' },
      items: [
        reading(
          'crack.input',
          'input',
          'crackInput',
          'Raise slowly: read the input as the activation gauge first moves.',
          { moment: 'working-side-moves' },
        ),
        ...profile.ratioInputs_Pa.flatMap((target_Pa, i) =>
          row(`ratio.${i + 1}`, target_Pa, 'output', UNDER_LOAD),
        ),
        look('slow-apply', 'Response', 'Did the output follow the input without lag?', 'Without lag', [
          'slow',
          'Slow',
        ]),
      ],
    },
    {
      id: 'full',
      title: 'Full activation and runout',
      instruction:
        'Hold the test input, then go on up until the activation gauge reads zero or stops falling. Where it does so already, let go until it shows a vacuum again, and come up slowly.',
      cautions: [],
      state: { vacuum: 'on' },
      needs: ['ratio'],
      leaves: { input: 'applied' },
      items: [
        reading('full.supply', 'supply', 'supplyApplied', 'Read the supply with the unit applied.', {
          target_Pa: profile.fullInput_Pa,
        }),
        ...row('full', profile.fullInput_Pa, 'output', UNDER_LOAD),
        reading(
          'runout.input',
          'input',
          'runoutInput',
          'Go on up: read the input as activation reaches zero or stops falling.',
          { ...UNDER_LOAD, ...AT_RUNOUT },
        ),
        reading('runout.output', 'output', 'runoutOutput', 'Read the output there.', {
          ...UNDER_LOAD,
          ...AT_RUNOUT,
        }),
        reading(
          'runout.activation',
          'activation',
          'fullActivation',
          'Read the activation port there.',
          AT_RUNOUT,
        ),
      ],
    },
    {
      id: 'hold',
      title: 'Hold under pressure',
      instruction: 'Set the hold input and shut it in. Nobody touches the input until the hold is over.',
      cautions: ['bench-pressure'],
      state: { vacuum: 'on' },
      needs: ['ratio'],
      leaves: { input: 'applied' },
      items: [
        reading('hold.input', 'input', 'input', 'Set the hold input and read it.', {
          target_Pa: profile.holdInput_Pa,
        }),
        {
          kind: 'wait',
          id: 'hold.settle',
          prompt: 'Settling',
          duration_s: profile.settle_s,
          starts: 'reading',
        },
        reading('hold.start', 'output', 'output', 'Read the output: the hold starts here.', {
          target_Pa: profile.holdInput_Pa,
          inputFrom: 'hold.input',
        }),
        { kind: 'wait', id: 'hold.wait', prompt: 'Holding', duration_s: profile.hold_s, starts: 'reading' },
        reading('hold.end', 'output', 'outputHeld', 'Read the output again.', {
          target_Pa: profile.holdInput_Pa,
          inputFrom: 'hold.input',
          elapsed_s: profile.hold_s,
        }),
        look(
          'hiss-held',
          'Hiss, applied',
          'At the breather and round the hub, held steady: quiet?',
          'Quiet',
          ['hiss', 'Hisses'],
        ),
        ...seepLook('seep-high', profile),
      ],
    },
    {
      id: 'release',
      title: 'Release',
      instruction: 'Come down slowly to the point named without going below it, then let go fully.',
      cautions: [],
      state: { vacuum: 'on' },
      needs: ['ratio'],
      leaves: { input: 'released' },
      items: [
        ...row('down', profile.ratioInputs_Pa.at(-2)!, 'outputReleasing', UNDER_LOAD),
        {
          kind: 'wait',
          id: 'residual.wait',
          prompt: 'Input fully released',
          duration_s: RESIDUAL_WAIT_S,
          starts: 'key',
        },
        reading('residual.output', 'output', 'residual', 'Read the residual output.', { target_Pa: 0 }),
        reading(
          'released.activation',
          'activation',
          'activation',
          'Read the activation port: back to supply?',
          { target_Pa: 0, sourceFrom: 'rest.supply' },
        ),
      ],
    },
    ...lossStep(
      'released',
      'Vacuum loss, released',
      'Shut the vacuum off at the bench valve. Input released; leave everything alone.',
      profile,
    ),
    {
      id: 'charge',
      title: 'Charge again',
      instruction: 'The last test used up the vacuum. Open it again, then apply the hold input and leave it.',
      cautions: [],
      state: { vacuum: 'on' },
      needs: ['ratio'],
      leaves: { input: 'applied' },
      items: [
        reading('charge.input', 'input', 'input', 'Apply the hold input and read it.', {
          target_Pa: profile.holdInput_Pa,
        }),
      ],
    },
    ...lossStep(
      'applied',
      'Vacuum loss, applied',
      'Keep the unit applied and shut the vacuum off at the bench valve.',
      profile,
    ),
    fluidSideStep(profile.fluid, 'Supply and activation hoses', 'Vacuum off, input released.'),
    makeSafeStep(ports, rig, 'Input released, vacuum vented.'),
  ];
  return {
    id: 'remote-vacuum-bench',
    version: 3,
    steps: taking(
      steps.map((step) => stoppingAt(shuttingCocks(step, rig, profile.boostRatio), profile.proof_Pa)),
      MINUTES,
    ),
  };
}

function lossStep(
  when: 'released' | 'applied',
  title: string,
  instruction: string,
  profile: RemoteVacuumProfile,
): Step[] {
  const measures = when === 'released' ? 'supplyLeftReleased' : 'supplyLeftApplied';
  const target_Pa = when === 'released' ? 0 : profile.holdInput_Pa;
  return [
    {
      id: `loss-${when}`,
      title,
      instruction,
      cautions: [],
      state: { vacuum: 'off' },
      needs: ['supply-on'],
      leaves: { input: when, charge: 'spent' },
      items: [
        reading(
          `loss-${when}.start`,
          'supply',
          'supply',
          'Read the vacuum in the unit: the wait starts here.',
          { target_Pa },
        ),
        {
          kind: 'wait',
          id: `loss-${when}.wait`,
          prompt: 'Vacuum shut in',
          duration_s: profile.hold_s,
          starts: 'reading',
        },
        reading(`loss-${when}.end`, 'supply', measures, 'Read the vacuum again.', {
          target_Pa,
          elapsed_s: profile.hold_s,
        }),
      ],
    },
  ];
}
