import type { PhasedStep, TestedAt } from '../../contract/family';
import type { Rig } from '../../contract/run-context';
import type { Item, ReadingItem, Step } from '../../contract/steps';
import { look, readingOn } from '../bench-items';
import { tracksStep } from '../pedal-tracks';
import { applied_N } from '../power-booster';
import { dryAfter } from '../powered-bench';
import type { ReadingId } from './member';
import type { ElectromechanicalProfile } from './profile';

/** Where only a meter or an eye tells the moment. */
const BY_HAND = { moment: 'by-hand' } as const;

type Measured = ReadingId | 'input' | 'load.pressure';

/** Tests of an electromechanical booster, in the order of handbook-models 8.8, with its minutes. */
export function steps(profile: ElectromechanicalProfile, _rig: Rig, at: TestedAt): PhasedStep[] {
  const { assist_N } = profile;
  const heavy_N = applied_N(profile);
  /** Without power: light enough that a gauge of low range reads it. */
  const alone_N = assist_N[1]!;
  const read = (
    id: string,
    port: string,
    measures: Measured,
    prompt: string,
    more: Partial<ReadingItem> = {},
  ) => readingOn(at.ports, id, port, measures, prompt, more);
  const pressing = (id: string, force_N: number) =>
    read(`${id}.input`, 'pedal', 'input', 'Bring the pedal to this force, always upward, and read it.', {
      target_Pa: force_N,
    });
  const pressure = (id: string, force_N: number) =>
    read(`${id}.pressure`, at.output, 'load.pressure', 'Read the pressure that it makes.', {
      target_Pa: force_N,
      inputFrom: `${id}.input`,
    });
  const during = (
    step: string,
    name: string,
    port: string,
    measures: Measured,
    prompt: string,
    force_N: number,
  ): Item =>
    read(`${step}.${name}`, port, measures, prompt, { target_Pa: force_N, inputFrom: `${step}.input` });
  const codes: Step = {
    id: 'codes',
    title: 'Trouble codes',
    instruction:
      'Power on, foot off. Read the codes as the maker says, and write them down before any is cleared.',
    cautions: [],
    state: at.lit,
    needs: ['cautions'],
    leaves: { input: 'released' },
    attended_s: 180,
    items: [
      look('codes', 'Trouble codes', 'Does no code of the booster stand?', 'None stands', [
        'stand',
        'One or more stand',
      ]),
    ],
  };
  const tracks = tracksStep(at, assist_N[0]!, ['volts']);
  const unpowered: Step = {
    id: 'unpowered',
    title: 'Power off: the foot alone',
    instruction:
      'Power isolated. Press to the force: the pedal must reach the master by itself. Then let go and watch it come back.',
    cautions: ['bench-pressure'],
    state: at.off,
    needs: ['zeros'],
    leaves: { input: 'released' },
    attended_s: 240,
    items: [
      pressing('unpowered', alone_N),
      pressure('unpowered', alone_N),
      read(
        'unpowered.returns',
        'step-clock',
        'returns',
        'Pressed all the way and let go at once: read the time until it is back.',
        BY_HAND,
      ),
      look(
        'returns',
        'Pedal back at rest',
        'Let go: is the pedal back within a second, all the way?',
        'Back at once',
        ['slow', 'Slowly, or not all the way'],
      ),
    ],
  };
  const assist: Step = {
    id: 'assist',
    title: 'Assist and current',
    instruction:
      'Bring the pedal to each force, always upward, read, and let go between them: the motor is held for five seconds at the most. Ease off from the last one to where the pressure first falls; then once more from nothing, slowly up to where only the foot still adds.',
    cautions: ['held-motor', 'bench-pressure'],
    state: at.on,
    // What stands at the motor is known before anything is laid at its door.
    needs: ['volts', 'hold'],
    leaves: { input: 'released' },
    attended_s: 480,
    items: [
      read(
        'assist.crack',
        'pedal',
        'crackPedal',
        'Press as slowly as you can: read the force at which it begins to help.',
        BY_HAND,
      ),
      ...assist_N.flatMap((force_N, i): Item[] => [
        pressing(`assist.${i + 1}`, force_N),
        pressure(`assist.${i + 1}`, force_N),
        during(`assist.${i + 1}`, 'current', 'motor', 'current', 'Read the current in the motor.', force_N),
      ]),
      during(
        `assist.${assist_N.length}`,
        'falls',
        'pedal',
        'falls',
        'Held there, ease off slowly: read the force at which the pressure first falls.',
        heavy_N,
      ),
      read(
        'assist.runout',
        'pedal',
        'runoutPedal',
        'Once more slowly up from nothing: read the force from which only the foot adds.',
        BY_HAND,
      ),
    ],
  };
  const step: Step = {
    id: 'step',
    title: 'A stamp on the pedal',
    instruction:
      'Recorder on force and pressure. Stamp on the pedal to this force and let go: tell the time from the foot until nine tenths of the pressure are there.',
    cautions: ['held-motor', 'bench-pressure'],
    state: at.on,
    needs: ['assist'],
    leaves: { input: 'released' },
    attended_s: 180,
    items: [
      pressing('step', heavy_N),
      during('step', 'time', 'step-clock', 'step', 'Read the time until nine tenths are there.', heavy_N),
    ],
  };
  return [
    { phase: 'look', step: codes },
    ...[tracks, unpowered, assist, step].map((one): PhasedStep => ({ phase: 'unit', step: one })),
    { phase: 'after', step: dryAfter('Unions, master cylinder and booster', at, 'Looked at again') },
  ];
}
