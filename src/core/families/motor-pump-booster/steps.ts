import type { PhasedStep, TestedAt } from '../../contract/family';
import type { Rig } from '../../contract/run-context';
import type { Item, ReadingItem, Step } from '../../contract/steps';
import { look, readingOn } from '../bench-items';
import { READ_RHYTHM } from '../../fluid/power-piston';
import { applied_N } from '../power-booster';
import { dryAfter } from '../powered-bench';
import { BRIDGED_S, type ReadingId } from './member';
import type { MotorPumpBoosterProfile } from './profile';

/** Applications made beyond those that must be there: they show where the reserve ends. */
const BEYOND = 1;
/** With its switch bridged it is let go this far above the relief, Pa. Handbook-models 8.5. */
const LET_GO_PA = 10e5;
/** Gas has settled after this, s: more than five times the time in which it cools. Handbook-models P.1. */
const SETTLES_S = 120;
/** Where only a meter or an eye tells the moment. */
const BY_HAND = { moment: 'by-hand' } as const;

/** Tests of a motor-pump booster, in the order of handbook-models 8.5, with its minutes. */
export function steps(profile: MotorPumpBoosterProfile, _rig: Rig, at: TestedAt): PhasedStep[] {
  const { limits, assist_N, relief_Pa, watch_s } = profile;
  const heavy_N = applied_N(profile);
  const read = (
    id: string,
    port: string,
    measures: ReadingId | 'input' | 'supply' | 'load.pressure',
    prompt: string,
    more: Partial<ReadingItem> = {},
  ) => readingOn(at.ports, id, port, measures, prompt, more);
  /** The pedal at a force, and the pressure that it makes. */
  const pressed = (id: string, force_N: number): Item[] => [
    read(`${id}.input`, 'pedal', 'input', 'Bring the pedal to this force, always upward, and read it.', {
      target_Pa: force_N,
    }),
    read(`${id}.pressure`, at.output, 'load.pressure', 'Read the pressure that it makes.', {
      target_Pa: force_N,
      inputFrom: `${id}.input`,
    }),
  ];
  const before: Step = {
    id: 'level',
    title: 'Level, and what was seen',
    instruction: 'Accumulator emptied, power isolated: only so does the level say anything.',
    cautions: ['fluids'],
    state: { ...at.off, charge: 'spent' },
    needs: ['cautions'],
    fluid: true,
    leaves: { input: 'released' },
    attended_s: 300,
    items: [
      look(
        'level',
        'Level with the accumulator empty',
        'Reservoir at its mark, the accumulator empty?',
        'At its mark',
        ['off', 'Below or above'],
      ),
      look(
        'lamp-motion',
        'Low-pressure lamp',
        'Does the low-pressure lamp stay out while the brake is used again and again?',
        'Stays out',
        ['flickers', 'It comes on'],
      ),
    ],
  };
  const charge: Step = {
    id: 'charge',
    title: 'Charge from empty',
    instruction:
      'Accumulator at zero: apply until it is, the power isolated. Then power on, and the watch with it. The gauge jumps as fluid first enters. Where the pump has not stopped, or not started, in two minutes, isolate it and enter the two minutes.',
    cautions: ['held-by-check-valves', 'starts-by-itself'],
    state: at.on,
    needs: ['zeros'],
    leaves: { input: 'released', charge: 'full' },
    attended_s: 300,
    items: [
      read('flick.supply', 'supply', 'flickUp', 'Read the pressure that the gauge jumps to.', BY_HAND),
      read('charge.time', 'pump-clock', 'chargeTime', 'Read the time until the pump stops.', BY_HAND),
      read('charge.supply', 'supply', 'cutOut', 'Read the accumulator as the pump stops.', BY_HAND),
    ],
  };
  const rest: Step[] = [
    {
      id: 'switch',
      title: 'Switched on, switched off',
      instruction:
        'Let the gas settle. Press lightly again and again until the pump starts; then keep off the pedal until it stops.',
      cautions: ['starts-by-itself'],
      state: at.on,
      needs: ['charge'],
      leaves: { input: 'released' },
      attended_s: 240,
      items: [
        { kind: 'wait', id: 'switch.wait', prompt: 'Gas settles', duration_s: SETTLES_S, starts: 'key' },
        read('switch.in', 'supply', 'cutIn', 'Read the accumulator as the pump starts.', BY_HAND),
        read('switch.on', 'pump-clock', 'onTime', 'Read the time until it stops.', BY_HAND),
        read('switch.out', 'supply', 'cutOutAgain', 'Read the accumulator as it stops.', BY_HAND),
      ],
    },
    {
      id: 'off-times',
      title: 'Off-time once settled',
      instruction: `Gas that cools looks like a leak: let it settle, press lightly until the pump starts, and from where it stops leave all alone. The recorder tells how long it stayed off; where it did not start, enter the ${Math.round(watch_s / 60)} minutes.`,
      cautions: ['starts-by-itself'],
      state: at.on,
      needs: ['switch'],
      leaves: { input: 'released' },
      attended_s: 120,
      items: [
        { kind: 'wait', id: 'off.settle', prompt: 'Gas settles', duration_s: SETTLES_S, starts: 'key' },
        {
          kind: 'wait',
          id: 'off.wait',
          prompt: 'It has stopped: left alone',
          duration_s: watch_s,
          starts: 'key',
        },
        read('off.time', 'pump-clock', 'offTime', 'Read how long the pump stayed off.', BY_HAND),
        look(
          'hiss-rest',
          'Quiet at rest',
          'Ear at the booster, pump off, foot off: quiet?',
          'Quiet',
          ['hisses', 'Hisses'],
          'body',
        ),
      ],
    },
    {
      id: 'relief',
      title: 'Relief',
      instruction: `Read the accumulator, then bridge the switch for ${BRIDGED_S} s at the most, eyes on the gauge: let go at the pressure named, wherever the relief is.`,
      cautions: ['bench-pressure', 'starts-by-itself'],
      state: at.on,
      needs: ['charge'],
      leaves: { input: 'released' },
      attended_s: 300,
      items: [
        read('relief.supply', 'supply', 'supply', 'Read the accumulator, the pump at rest.'),
        read('relief.most', 'supply', 'bridged', 'Bridged: read the highest that it comes to.', {
          ...BY_HAND,
          sourceFrom: 'relief.supply',
          stopAt_Pa: relief_Pa + LET_GO_PA,
        }),
      ],
    },
    {
      id: 'assist',
      title: 'Assist',
      instruction: 'Charged. Bring the pedal to each force, always upward, let it stand and read.',
      cautions: ['bench-pressure'],
      state: at.on,
      needs: ['charge'],
      leaves: { input: 'released' },
      attended_s: 480,
      items: [
        read('assist.supply', 'supply', 'supply', 'Read the accumulator, foot off.'),
        ...assist_N.flatMap((force_N, i) => pressed(`assist.${i + 1}`, force_N)),
      ],
    },
    {
      id: 'reserve',
      title: 'Reserve: pump off',
      instruction: `Charged and settled, then power isolated. Press to the force named and hold, read after ${READ_RHYTHM.held_s} s, let go fully; again every ${READ_RHYTHM.held_s + READ_RHYTHM.rests_s} s.`,
      cautions: ['starts-by-itself'],
      state: at.off,
      needs: ['charge'],
      leaves: { input: 'released', charge: 'spent' },
      attended_s: 240,
      items: [
        read('reserve.supply', 'supply', 'supply', 'Power just isolated: read the accumulator.'),
        ...Array.from({ length: limits.applications.value + BEYOND }, (_, i) =>
          read(`reserve.${i + 1}`, 'supply', 'kept', `Application ${i + 1}: read the accumulator.`, {
            target_Pa: heavy_N,
            applications: i + 1,
            moment: 'next-application',
            sourceFrom: 'reserve.supply',
          }),
        ),
        read('lamp.supply', 'supply', 'lamp', 'Go on until the lamp lights: read the accumulator.', BY_HAND),
      ],
    },
    {
      id: 'unpowered',
      title: 'Without power',
      instruction:
        'Power isolated, the accumulator at zero: apply until it is. Then the heaviest of the forces: so it brakes with nothing stored.',
      cautions: [],
      state: { ...at.off, charge: 'spent' },
      needs: ['zeros'],
      leaves: { input: 'released' },
      attended_s: 300,
      items: pressed('unpowered', heavy_N),
    },
  ];
  return [
    { phase: 'look', step: before },
    { phase: 'supply', step: charge },
    ...rest.map((step): PhasedStep => ({ phase: 'unit', step })),
    { phase: 'after', step: dryAfter('Unions, accumulator, pump and booster', at, 'Fluid side') },
  ];
}
