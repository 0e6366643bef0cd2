import type { TestedAt } from '../../contract/family';
import type { Rig } from '../../contract/run-context';
import type { Procedure, Step } from '../../contract/steps';
import { fluidLook, mustBe, shuttingCocks, untilMended, zerosStep } from '../bench-items';
import { makeSafeStep } from '../making-safe';
import { asked, emptied } from './opening';
import { ports } from './places';
import type { PedalValveProfile } from './profile';
import { stepsWith } from './steps';

const OFF = { pump: 'off' } as const;

/** A bench with a pump pack, and cocks in the lines of circuit 2. */
const AT: TestedAt = {
  setting: 'bench',
  ports,
  output: 'output',
  on: { pump: 'on' },
  off: OFF,
  lit: OFF,
  stored: ['supply', 'supply-2'],
  says: { on: 'Pump on', off: 'Pump off' },
};

const opening = ({ fluid }: PedalValveProfile): Step => ({
  id: 'cautions',
  title: 'Before anything is connected',
  instruction: 'Read the cautions. Fix the valve to the bench, its pedal free to travel.',
  cautions: ['held-by-check-valves', 'charged-vessel', 'bench-pressure', 'machine-stands', 'fluids'],
  state: OFF,
  fluid: true,
  needs: [],
  mandatory: true,
  attended_s: 240,
  items: [
    fluidLook(fluid),
    emptied('Pump off and secured'),
    mustBe(
      'still',
      'Stands still',
      'Wheels chocked and implements down, or the valve clamped to the bench?',
      'Chocked or clamped',
      ['loose', 'Not yet', untilMended('Chock it and lower what is raised, then look again.')],
    ),
    ...asked,
  ],
});

/** The bench test of a dual pedal valve, in the order of handbook-models 8.7, for one profile on one rig. */
export function procedure(profile: PedalValveProfile, rig: Rig): Procedure {
  const all: Step[] = [
    opening(profile),
    {
      ...zerosStep(
        ports,
        rig,
        'Pump off, pedal released, every line vented; read what each gauge shows.',
        OFF,
      ),
      attended_s: 120,
    },
    ...stepsWith({ cocks: true })(profile, rig, AT).map(({ step }) => step),
    {
      ...makeSafeStep(
        ports,
        rig,
        'Pump off and secured. Press again and again until both accumulators read zero: their check valves hold what is stored.',
        OFF,
      ),
      attended_s: 120,
    },
  ];
  return { id: 'pedal-valve-bench', version: 2, steps: all.map((step) => shuttingCocks(step, rig, 1)) };
}
