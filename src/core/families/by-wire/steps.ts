import type { PhasedStep, TestedAt } from '../../contract/family';
import type { Rig } from '../../contract/run-context';
import type { Item, ReadingItem, Step } from '../../contract/steps';
import { look, mustBe, readingOn, untilMended } from '../bench-items';
import { tracksStep } from '../pedal-tracks';
import { dryAfter } from '../powered-bench';
import { WHEELS } from '../wheel-lines';
import { OF_WHEEL, type ReadingId } from './member';
import type { ByWireProfile } from './profile';

/** Where only a meter or an eye tells the moment. */
const BY_HAND = { moment: 'by-hand' } as const;
/** The pedal is held, and the accumulator let stand, for so long, s. */
const HELD_S = 60;
const STOOD_S = 120;

type Measured = ReadingId | 'input' | 'supply' | `load.${(typeof WHEELS)[number]['id']}`;

/** Tests of a decoupled brake, in the order of handbook-models 8.9, with its minutes. */
export function steps(profile: ByWireProfile, _rig: Rig, at: TestedAt): PhasedStep[] {
  const { targets_N, fallback_N, blend_N, joins } = profile;
  const [light_N, heavy_N] = targets_N as [number, number];
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
  const during = (id: string, force_N: number) => ({ target_Pa: force_N, inputFrom: `${id}.input` });
  const wheels = (id: string, force_N: number): Item[] =>
    WHEELS.map(({ id: wheel, port, name }) =>
      read(`${id}.${wheel}`, port, `load.${wheel}`, `Read the wheel ${name}.`, during(id, force_N)),
    );
  /** Their volts are told of by what they are fed with just then. */
  const fedBy = (id: string) =>
    read(`${id}.fed`, 'sensor', 'sensorSupply', 'Read the supply of the sensors.');
  const travel = (id: string, force_N: number, more: Partial<ReadingItem> = {}) =>
    read(`${id}.travel`, 'travel', 'travel', 'Read the travel of the pedal.', {
      ...during(id, force_N),
      ...more,
    });

  const codes: Step = {
    id: 'codes',
    title: 'Trouble codes',
    instruction:
      'Ignition on, foot off. Read the codes as the maker says, and write them down before any is cleared.',
    cautions: [],
    state: at.lit,
    needs: ['cautions'],
    leaves: { input: 'released' },
    attended_s: 180,
    items: [
      look('codes', 'Trouble codes', 'Does no code of the brake stand?', 'None stands', [
        'stand',
        'One or more stand',
      ]),
    ],
  };
  const lamps: Step = {
    id: 'lamps',
    title: 'Lamps and stop-lamp switch',
    instruction:
      'Ignition on, parking brake off, level right: so that neither lights a lamp. Wait until the lamps have tested themselves; then press the pedal once.',
    cautions: [],
    state: at.lit,
    needs: ['codes'],
    leaves: { input: 'released' },
    attended_s: 180,
    items: [
      look('red', 'Red brake lamp', 'Red brake lamp out once it has tested itself?', 'Out', ['lit', 'Lit']),
      look('yellow', 'Yellow brake lamp', 'Yellow brake lamp out once it has tested itself?', 'Out', [
        'lit',
        'Lit',
      ]),
      look(
        'contacts',
        'Contacts of the stop-lamp switch',
        'Pedal pressed: do both contacts of the switch change, at pins made for it or as the unit tells them?',
        'Both change',
        ['one', 'One does not'],
      ),
    ],
  };
  const charge: Step = {
    id: 'charge',
    title: 'Accumulator, charged from empty',
    instruction:
      'Accumulator at zero. Ignition on, and the watch with it. The gauge jumps as fluid first enters. Where the pump has not stopped, or not started, in two minutes, switch off and enter the two minutes.',
    cautions: ['held-by-check-valves', 'starts-by-itself', 'charged-vessel'],
    state: at.on,
    needs: ['zeros'],
    leaves: { input: 'released', charge: 'full' },
    attended_s: 240,
    items: [
      read('charge.flick', 'supply', 'flickUp', 'Read the pressure that the gauge jumps to.', BY_HAND),
      read('charge.time', 'timer', 'chargeTime', 'Read the time until the pump stops.', BY_HAND),
      read('charge.supply', 'supply', 'cutOut', 'Read the accumulator as the pump stops.', BY_HAND),
      fedBy('charge'),
      read('charge.sensor', 'accumulator-sensor', 'accumulatorSensor', 'Read the volts of its sensor.', {
        sourceFrom: 'charge.supply',
      }),
    ],
  };
  const stand: Step = {
    id: 'stand',
    title: 'Accumulator, left alone',
    instruction:
      'Charged, then the battery isolated so that no pump starts, foot off. Gas that cools looks like a leak: let it settle, read, leave all alone, read again.',
    cautions: ['starts-by-itself'],
    state: at.off,
    needs: ['charge'],
    leaves: { input: 'released' },
    attended_s: 60,
    items: [
      { kind: 'wait', id: 'stand.settle', prompt: 'Gas settles', duration_s: STOOD_S, starts: 'key' },
      read('stand.start', 'supply', 'supply', 'Gas settled: read the accumulator.'),
      { kind: 'wait', id: 'stand.wait', prompt: 'Left alone', duration_s: STOOD_S, starts: 'reading' },
      read('stand.end', 'supply', 'left', 'Read the accumulator again.', {
        elapsed_s: STOOD_S,
        sourceFrom: 'stand.start',
      }),
    ],
  };
  const simulator: Step = {
    id: 'simulator',
    title: 'Simulator, and the two masters',
    instruction:
      'Charged. Bring the pedal to each force, always upward: travel, and the volts of both master sensors. Hold the heavier one.',
    cautions: ['bench-pressure'],
    state: at.on,
    needs: ['charge', 'tracks'],
    leaves: { input: 'released' },
    attended_s: 240,
    items: [
      fedBy('simulator'),
      ...[light_N, heavy_N].flatMap((force_N, i): Item[] => [
        pressing(`simulator.${i + 1}`, force_N),
        travel(`simulator.${i + 1}`, force_N),
        read(
          `simulator.${i + 1}.master1`,
          'master-1',
          'master1',
          'Read master sensor 1.',
          during(`simulator.${i + 1}`, force_N),
        ),
        read(
          `simulator.${i + 1}.master2`,
          'master-2',
          'master2',
          'Read master sensor 2.',
          during(`simulator.${i + 1}`, force_N),
        ),
      ]),
      {
        kind: 'wait',
        id: 'simulator.hold',
        prompt: 'Held at that force',
        duration_s: HELD_S,
        starts: 'reading',
      },
      read('simulator.sunk', 'travel', 'travel', 'Still held: read the travel again.', {
        ...during('simulator.2', heavy_N),
        elapsed_s: HELD_S,
      }),
    ],
  };
  const released: Step = {
    id: 'released',
    title: 'Wheels with the foot off',
    instruction:
      'Charged, level ground, brakes dry, foot off. Pre-fill, disc wiping, hill hold and the stability system press by themselves: that is their work, and nothing is judged while they do.',
    cautions: ['bench-pressure', 'wakes-itself'],
    state: at.on,
    needs: ['charge'],
    leaves: { input: 'released' },
    attended_s: 120,
    items: [
      mustBe(
        'test-state',
        'Nothing presses by itself',
        'Ignition on for a minute, dry, on level ground: does nothing press by itself?',
        'Nothing presses',
        [
          'presses',
          'Something presses',
          untilMended(
            'That is a function and no fault: pre-fill is over within a second, wiping after about three, hill hold on level ground. Wait until it is, then look again. What stands in a wheel meanwhile is no drag.',
          ),
        ],
      ),
      read(
        'released.swing',
        `${WHEELS[0].port}-sensor`,
        'swing',
        'Meter on alternating volts at the sensor of the brake front left: read its swing.',
        BY_HAND,
      ),
      ...WHEELS.map(({ id, port, name }) =>
        read(`released.${id}`, port, `load.${id}`, `Foot off: read the wheel ${name}.`),
      ),
    ],
  };
  const targets: Step = {
    id: 'targets',
    title: 'Four wheels at their targets',
    instruction:
      'Charged, standing still: nothing is regenerated, so friction does it all. Bring the pedal to each force, always upward, and read every wheel; at the heavier one the volts of its sensor as well.',
    cautions: ['bench-pressure', 'pierced-lead'],
    state: at.on,
    needs: ['simulator'],
    leaves: { input: 'released' },
    attended_s: 360,
    items: [
      read('targets.supply', 'supply', 'supply', 'Foot off: read the accumulator.'),
      fedBy('targets'),
      pressing('targets.1', light_N),
      ...wheels('targets.1', light_N),
      pressing('targets.2', heavy_N),
      ...WHEELS.flatMap(({ id, port, name }, i): Item[] => [
        read(`targets.2.${id}`, port, `load.${id}`, `Read the wheel ${name}.`, during('targets.2', heavy_N)),
        read(
          `targets.2.${OF_WHEEL[i]!.sensor}`,
          `${port}-sensor`,
          OF_WHEEL[i]!.sensor,
          `Read the volts of its sensor.`,
          during('targets.2', heavy_N),
        ),
      ]),
    ],
  };
  const currents: Step = {
    id: 'currents',
    title: 'Opening currents of the valves',
    instruction:
      'By the maker’s own routine, or a clamp on the valve’s lead: raised slowly, the current at which the wheel’s gauge first rises; then, held at the heavier force, that at which it first falls. It hangs on the pressure across the valve. One that never opens: enter the most.',
    cautions: ['bench-pressure', 'pierced-lead'],
    state: at.on,
    needs: ['targets'],
    leaves: { input: 'released' },
    attended_s: 360,
    items: [
      read('currents.supply', 'supply', 'supply', 'Foot off: read the accumulator.'),
      ...WHEELS.map(({ name }, i) =>
        read(
          `currents.${OF_WHEEL[i]!.apply}`,
          'valve',
          OF_WHEEL[i]!.apply,
          `Apply valve ${name}: read where the wheel first rises.`,
          BY_HAND,
        ),
      ),
      pressing('currents', heavy_N),
      ...WHEELS.flatMap(({ id, port, name }, i): Item[] => [
        read(
          `currents.${id}`,
          port,
          `load.${id}`,
          `Held: read the wheel ${name}.`,
          during('currents', heavy_N),
        ),
        read(
          `currents.${OF_WHEEL[i]!.release}`,
          'valve',
          OF_WHEEL[i]!.release,
          `Release valve ${name}: read where the wheel first falls.`,
          { ...BY_HAND, ...during('currents', heavy_N) },
        ),
      ]),
    ],
  };
  const blend: Step = {
    id: 'blend',
    title: 'A stop that the drive shares',
    instruction:
      'On rollers, or from the log of a drive: battery neither full nor cold. At the force named, pressed gently, read what is asked for and what is granted as it passes the speed of the profile. What the unit calculates is not measured. Without rollers leave this out and bring a log.',
    cautions: ['running-engine', 'high-voltage'],
    state: at.on,
    needs: ['targets'],
    hands: 'helper',
    leaves: { input: 'released' },
    attended_s: 720,
    items: [
      pressing('blend', blend_N),
      read('blend.requested', 'requested', 'requested', 'Read what is asked for.', {
        ...BY_HAND,
        ...during('blend', blend_N),
      }),
      read('blend.granted', 'granted', 'granted', 'Read what is granted.', {
        ...BY_HAND,
        ...during('blend', blend_N),
      }),
    ],
  };
  const fallback: Step = {
    id: 'fallback',
    title: 'Power off: the foot alone',
    instruction:
      'Battery isolated, store read below its limit, accumulator at zero: only so does nothing help. Press to the force: the pedal must reach the wheels that it works without power, and must not run out of stroke first.',
    cautions: ['stored-charge', 'bench-pressure'],
    state: { ...at.off, charge: 'spent' },
    needs: ['zeros'],
    gates: ['dead.live', 'dead.store', 'dead.live-again'],
    leaves: { input: 'released' },
    attended_s: 300,
    items: [
      pressing('fallback', fallback_N),
      ...WHEELS.flatMap(({ id, port, name, axle }, i): Item[] =>
        joins === 'all' || axle === 'front'
          ? [
              read(
                `fallback.${id}`,
                port,
                OF_WHEEL[i]!.alone,
                `Read the wheel ${name}.`,
                during('fallback', fallback_N),
              ),
            ]
          : [],
      ),
      read(
        'fallback.travel',
        'travel',
        'aloneTravel',
        'Read the travel of the pedal.',
        during('fallback', fallback_N),
      ),
    ],
  };
  return [
    { phase: 'look', step: codes },
    { phase: 'look', step: lamps },
    { phase: 'supply', step: charge },
    ...[stand, tracksStep(at, heavy_N, ['charge']), simulator, released, targets, currents, blend].map(
      (step): PhasedStep => ({ phase: 'unit', step }),
    ),
    { phase: 'after', step: fallback },
    { phase: 'after', step: dryAfter('Unions, master cylinder, block and brakes', at, 'Looked at again') },
  ];
}
