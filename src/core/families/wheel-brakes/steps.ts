import type { PhasedStep, TestedAt } from '../../contract/family';
import type { Rig } from '../../contract/run-context';
import type { Item, Step } from '../../contract/steps';
import { look, mustBe, untilMended } from '../bench-items';
import { safeId } from '../../procedure/opening';
import { pedalAt, readingAt } from '../vehicle-items';
import type { WheelBrakesProfile } from './profile';

/** Pedal force of the sink test, assist off, N: hard enough to part a seal that leaks. */
const HARD_N = 250;
/** Pedal forces of the sweep, with assist, N. */
export const SWEEP_N = [40, 60, 85, 110, 140, 170, 220];

/** Those of them at which the other side is read too: beyond the split. */
export const OTHER_N = [110, 140, 170, 220];

const pairs = (id: string, forces_N: readonly number[], measures: string): Item[] =>
  forces_N.flatMap((force_N, i) => [
    pedalAt(`${id}.${i + 1}.input`, force_N, 'Bring the pedal to about this force, always upward.'),
    readingAt(`${id}.${i + 1}.front`, 'front', 'load.pressure', 'Read the front pressure.', {
      target_Pa: force_N,
      inputFrom: `${id}.${i + 1}.input`,
    }),
    readingAt(`${id}.${i + 1}.rear`, 'rear', measures, 'Read the rear pressure.', {
      inputFrom: `${id}.${i + 1}.front`,
    }),
  ]);

/** The other side, where each has a valve of its own: the one gauge is moved over, and the pressures compared. */
const otherSide = ({ on, off, says, stored }: TestedAt): readonly Step[] => [
  {
    id: 'other-gauge',
    title: 'Rear gauge to the other side',
    instruction: `${says.off}, foot off the pedal. Move the rear gauge to the other rear bleed screw and bleed it.`,
    cautions: ['open-line', 'fluids'],
    state: off,
    gates: ['rear', ...stored].map(safeId),
    needs: ['sweep'],
    fluid: true,
    leaves: { input: 'released' },
    attended_s: 300,
    items: [
      mustBe(
        'other-gauge.moved',
        'Rear gauge on the other side',
        'Gauge on the other rear screw, first screw shut and capped, both bled?',
        'Moved, shut and bled',
        ['open', 'Not yet', untilMended('Shut and bleed both, then look again.')],
      ),
    ],
  },
  {
    id: 'other-sweep',
    title: 'Front against rear, other side',
    instruction: `${says.on}. Raise the pedal in steps as before: both sides must be held back alike.`,
    cautions: ['bench-pressure'],
    state: on,
    needs: ['other-gauge'],
    leaves: { input: 'released' },
    attended_s: 180,
    items: pairs('other', OTHER_N, 'load.otherRear'),
  },
];

/** Tests of what a booster drives. Handbook 10; minutes: handbook-models 10. */
export function steps({ sink_s, valves }: WheelBrakesProfile, _rig: Rig, at: TestedAt): PhasedStep[] {
  const { on, off, lit, says } = at;
  const first: Step = {
    id: 'wheels',
    title: 'Pads, linings, tyres',
    instruction: 'Look at these first: what is worn or wet here hardens a pedal with a sound booster.',
    cautions: ['lining-dust'],
    state: off,
    needs: ['cautions'],
    attended_s: 600,
    items: [
      look(
        'linings',
        'Pads and linings',
        'Pads and linings thick enough, not glazed, no fluid or grease on them?',
        'Sound',
        ['poor', 'Worn, glazed or wet'],
      ),
      look('tyres', 'Tyres', 'Tyres sound, and alike on each axle?', 'Sound and alike', [
        'poor',
        'Worn or unlike',
      ]),
    ],
  };
  const load: Step[] = [
    {
      id: 'sink',
      title: 'Master cylinder: sink on a hold',
      instruction: `${says.off}, assist used up. Hold the force named and mark the pedal; go on holding for ${sink_s} s. A master that leaks past its seals sinks, with the pressure and the level as they were.`,
      cautions: [],
      state: { ...off, charge: 'spent' },
      needs: ['zeros'],
      leaves: { input: 'released' },
      hands: 'pedal-jack',
      attended_s: 120,
      items: [
        pedalAt('sink.input', HARD_N),
        { kind: 'wait', id: 'sink.wait', prompt: 'Pedal held', duration_s: sink_s, starts: 'reading' },
        readingAt('sink.end', 'travel', 'load.sink', 'Read how far it has sunk below its mark.', {
          target_Pa: HARD_N,
          inputFrom: 'sink.input',
          elapsed_s: sink_s,
        }),
        look(
          'sink.level',
          'Fluid level after the hold',
          'Reservoir as full as before, and nothing wet outside?',
          'As before, dry',
          ['low', 'Lower, or wet'],
        ),
      ],
    },
    {
      id: 'sweep',
      title: 'Front against rear',
      instruction: `${says.on}, a gauge on each axle. Raise the pedal in steps: the rear follows the front to the split, then rises less.`,
      cautions: ['bench-pressure'],
      state: on,
      needs: ['rest'],
      leaves: { input: 'released' },
      attended_s: 300,
      items: pairs('sweep', SWEEP_N, 'load.rearPressure'),
    },
    ...(valves === 'two' ? otherSide(at) : []),
    {
      id: 'axles',
      title: 'Cylinders, axle by axle',
      instruction:
        'Wheels off the ground on stands. Have the pedal pressed and let go: every wheel must hold, and turn again at once.',
      cautions: ['lining-dust'],
      state: off,
      needs: ['cautions'],
      hands: 'helper',
      attended_s: 1200,
      items: [
        look(
          'axle.front',
          'Front wheels hold and free',
          'Both front wheels: held hard with the pedal, free without?',
          'Both',
          ['stuck', 'One holds less, or stays on'],
        ),
        look(
          'axle.rear',
          'Rear wheels hold and free',
          'Both rear wheels: held hard with the pedal, free without?',
          'Both',
          ['stuck', 'One holds less, or stays on'],
        ),
        look(
          'pedal-high',
          'Height of the pedal',
          'Pedal pressed hard: does it go down as far as usual?',
          'As usual',
          ['high', 'Stands high and hard'],
        ),
      ],
    },
    {
      id: 'lamps',
      title: 'Lamps and switches',
      instruction:
        'Ignition on. The warning lamp has four causes: level, parking switch, pressure loss, a short. If it is lit, unplug each in that order and leave it out; still lit with all out is a short.',
      cautions: [],
      state: lit,
      needs: ['cautions'],
      leaves: { input: 'released' },
      attended_s: 120,
      items: [
        {
          ...look('lamp', 'Brake warning lamp', 'Warning lamp with the parking brake off?', 'Out', [
            'level',
            'Out with the level switch off',
          ]),
          answers: [
            { id: 'good', label: 'Out', finds: 'good' },
            { id: 'level', label: 'Goes out as the level switch is unplugged', finds: 'bad' },
            { id: 'parking', label: 'Goes out as the parking switch is unplugged', finds: 'bad' },
            { id: 'loss', label: 'Goes out as the pressure-loss switch is unplugged', finds: 'bad' },
            { id: 'short', label: 'Stays lit with all out: a short', finds: 'bad' },
            { id: 'not-looked', label: 'Could not look', finds: 'unknown' },
          ],
        },
        look(
          'stop-lamps',
          'Stop lamps',
          'Stop lamps on early in the pedal’s travel and off without?',
          'As they should',
          ['wrong', 'Always on, late or never'],
        ),
      ],
    },
    {
      id: 'parking',
      title: 'Parking brake',
      instruction:
        'Pull it notch by notch. The equaliser shares the pull, not the travel: unlike wear shows as unlike pull.',
      cautions: [],
      state: off,
      needs: ['cautions'],
      leaves: { input: 'released' },
      attended_s: 120,
      items: [
        look(
          'parking',
          'Parking brake',
          'Both wheels held alike, both free when let off, cables moving?',
          'Alike and free',
          ['unlike', 'Unlike, seized or slack'],
        ),
      ],
    },
  ];
  return [{ phase: 'look', step: first }, ...load.map((step): PhasedStep => ({ phase: 'load', step }))];
}
