import type { CautionId } from '../contract/cautions';
import type { Port, TestedAt } from '../contract/family';
import type { ObservationItem, Step } from '../contract/steps';
import type { Setting } from './assembly';
import { fluidLook, look, untilMended, zerosStep } from './bench-items';
import { makeSafeStep } from './making-safe';

const OFF = { power: 'isolated' } as const;

/** What a bench on which a booster is fed by its battery asks for besides what all do. */
interface Peculiar {
  readonly ports: readonly Port[];
  readonly cautions: readonly CautionId[];
  /** What must be so before anything is connected: the one look that nobody gets past. */
  readonly first: ObservationItem;
  readonly stored: TestedAt['stored'];
  /** What is done so that nothing is stored, at the end. */
  readonly spends: string;
  readonly names: Setting['names'];
}

/** A bench with a battery, a lever and a master cylinder of its own. */
export const poweredBench = ({ ports, cautions, first, stored, spends, names }: Peculiar): Setting => ({
  setting: 'bench',
  ports,
  output: 'output',
  on: { power: 'on' },
  off: OFF,
  lit: { power: 'on' },
  stored,
  says: { on: 'Power on', off: 'Power isolated' },
  opening: (rig, fluid) => [
    {
      id: 'cautions',
      title: 'Before anything is connected',
      instruction:
        'Read the cautions. Clamp the booster to the bench, its rod on the master cylinder of the bench.',
      cautions,
      state: OFF,
      fluid: true,
      needs: [],
      mandatory: true,
      attended_s: 240,
      items: [
        fluidLook(fluid),
        first,
        look(
          'clamped',
          'Clamped',
          'Booster and master cylinder clamped, the pedal free to travel?',
          'Clamped',
          ['loose', 'Not yet', untilMended('Clamp it, then look again.')],
        ),
      ],
    },
    {
      ...zerosStep(
        ports,
        rig,
        'Power isolated, foot off, every line vented; read what each gauge shows.',
        OFF,
      ),
      attended_s: 120,
    },
  ],
  closing: (rig) => [{ ...makeSafeStep(ports, rig, spends, OFF), attended_s: 120 }],
  names,
});

/** The last look at what was pressed, the power off. @param what may be wet */
export const dryAfter = (what: string, { off }: Pick<TestedAt, 'off'>, title: string): Step => ({
  id: 'after',
  title,
  instruction: 'Power isolated, foot off. Look at what was pressed.',
  cautions: [],
  state: off,
  needs: [],
  fluid: true,
  leaves: { input: 'released' },
  attended_s: 60,
  items: [
    look('dry', 'Dry outside', `${what} dry? Use card, never a hand.`, 'Dry', ['wet', 'Wet somewhere']),
  ],
});
