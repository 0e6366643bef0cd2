import type { PhasedStep, TestedAt } from '../../contract/family';
import type { Rig } from '../../contract/run-context';
import type { Item, ReadingItem, Step } from '../../contract/steps';
import { look, mustBe, readingOn, untilMended, whileFed } from '../bench-items';
import { READ_RHYTHM } from '../../fluid/power-piston';
import { applied_N } from '../power-booster';
import { FIRM, type ReadingId } from './member';
import type { HydraulicBoosterProfile } from './profile';

/** Applications made beyond those that must be there: they show where the reserve ends. */
const BEYOND = 2;
/** Where only a meter or an eye tells the moment. */
const BY_HAND = { moment: 'by-hand' } as const;
/** What everything with the pump running leans on. */
const SHUT = 'pump.shut';
const charged = ({ says }: TestedAt) =>
  `${says.on}: charge it by three firm brakes of five seconds, ${FIRM.pedal_N} N and more, a minute apart: a lighter one does not fill it. Gas that was pressed fast cools, and stands lower. Then ${says.off.toLowerCase()}.`;
/** The two minutes in which it cools, s. */
const COOLS_S = 120;
const FLUID_WORDS = { steering: 'power-steering fluid', mineral: 'mineral hydraulic oil' } as const;

/** Tests of a booster fed by the steering pump, in the order of handbook-models 8.4, with its minutes. */
export function steps(profile: HydraulicBoosterProfile, _rig: Rig, at: TestedAt): PhasedStep[] {
  const { limits, assist_N, reserve_N, stand_s, steeringFluid } = profile;
  const heavy_N = applied_N(profile);
  const middle_N = assist_N[Math.floor((assist_N.length - 1) / 2)]!;
  const read = (
    id: string,
    port: string,
    measures: ReadingId | 'input' | 'load.pressure',
    prompt: string,
    more: Partial<ReadingItem> = {},
  ) => readingOn(at.ports, id, port, measures, prompt, more);
  const pedal = (
    id: string,
    force_N: number,
    prompt = 'Bring the pedal to this force, always upward, and read it.',
  ) => read(`${id}.input`, 'pedal', 'input', prompt, { target_Pa: force_N });
  const pressed = (id: string, force_N: number): Item[] => [
    pedal(id, force_N),
    read(`${id}.pressure`, at.output, 'load.pressure', 'Read the pressure that it makes.', {
      target_Pa: force_N,
      inputFrom: `${id}.input`,
    }),
  ];
  /** Applications with the pump at rest, after a time. */
  const stored = (id: string, count: number, elapsed_s?: number): Item[] =>
    Array.from({ length: count }, (_, i) =>
      read(
        `${id}.${i + 1}`,
        at.output,
        'load.pressure',
        `Application ${i + 1}: bring the pedal to ${Math.round(reserve_N)} N and read the pressure; then let go fully.`,
        {
          target_Pa: reserve_N,
          applications: i + 1,
          moment: 'next-application',
          ...(elapsed_s !== undefined && { elapsed_s }),
        },
      ),
    );
  const first: Step = {
    id: 'seep',
    title: 'Seeps, hoses and the fluid of the steering',
    instruction: `${at.says.off}. Look with card and lamp at input, accumulator, return and where the master cylinder is fixed.`,
    cautions: ['fluids'],
    state: at.off,
    needs: ['cautions'],
    fluid: true,
    attended_s: 240,
    items: [
      mustBe(
        'hoses',
        'Hoses of the steering',
        'Pressure hose marked for 155 bar or more, no bulge, no kink, nothing chafed?',
        'Sound',
        ['poor', 'Not sound', untilMended('Renew it before any pressure is put on, then look again.')],
      ),
      look(
        'steering-fluid',
        'Fluid of the steering',
        `Reservoir of the steering filled with ${FLUID_WORDS[steeringFluid]}, by its label, colour and smell?`,
        'Yes, that fluid',
        ['other', 'Another fluid'],
      ),
      look(
        'seep',
        'Input of the booster',
        'Dry where the pedal’s rod goes in?',
        'Dry',
        ['wet', 'Wet'],
        'input',
      ),
      look(
        'oil-master',
        'Between booster and master cylinder',
        'Dry where the master cylinder is fixed to the booster?',
        'Dry',
        ['oil', 'Oil there'],
      ),
    ],
  };
  const rest: Step[] = [
    {
      id: 'start',
      title: 'Exhaust and start',
      instruction: `${at.says.off}: apply until the pedal stays hard. Hold the force named and mark the pedal; then, foot still on, ${at.says.on.toLowerCase()}: it falls, then pushes back.`,
      cautions: whileFed(at),
      state: { ...at.off, charge: 'spent' },
      needs: ['pump'],
      leaves: { ...at.on, input: 'released' },
      attended_s: 180,
      items: [
        pedal('start', reserve_N, 'Bring the pedal to this force and hold it.'),
        read('start.drop', 'travel', 'drop', `${at.says.on}: read how far the pedal fell.`, {
          target_Pa: reserve_N,
          inputFrom: 'start.input',
          sourceFrom: SHUT,
        }),
        read('start.back', 'travel', 'back', 'Read how far it pushed back.', {
          target_Pa: reserve_N,
          inputFrom: 'start.input',
          sourceFrom: SHUT,
        }),
        look('push-back', 'Pedal pushes back', 'Did it push back against the foot?', 'It did', [
          'none',
          'It did not',
        ]),
      ],
    },
    {
      id: 'assist',
      title: 'Assist, hot at idle',
      instruction: `${at.says.on}, fluid hot. Bring the pedal to each force, always upward, let it stand and read. At the last ease off slowly.`,
      cautions: whileFed(at, 'bench-pressure'),
      state: at.on,
      needs: ['pump'],
      leaves: { input: 'released' },
      attended_s: 480,
      items: [
        ...assist_N.flatMap((force_N, i) => pressed(`assist.${i + 1}`, force_N)),
        read(
          'assist.falls',
          'pedal',
          'falls',
          'Ease off slowly: read the force as the pressure first falls.',
          {
            target_Pa: heavy_N,
            inputFrom: `assist.${assist_N.length}.input`,
            ...BY_HAND,
          },
        ),
      ],
    },
    {
      id: 'release',
      title: 'Release',
      instruction: `${at.says.on}. Hold the force named, let go at once, and time the pressure to nothing.`,
      cautions: whileFed(at),
      state: at.on,
      needs: ['assist'],
      leaves: { input: 'released' },
      attended_s: 120,
      items: [
        read('release.time', 'clock', 'release', 'Read the time until the pressure is gone.', {
          target_Pa: middle_N,
          ...BY_HAND,
        }),
        ...(at.setting === 'vehicle'
          ? [
              look(
                'kick',
                'Steering and brake together',
                'Steering turned with the pedal held: no kick in the pedal?',
                'None',
                ['kicks', 'It kicks'],
              ),
            ]
          : []),
      ],
    },
    {
      id: 'rest',
      title: `Foot off, ${at.says.on.toLowerCase()}`,
      instruction: `${at.says.on}, foot off, nothing steered: nothing may stand in the line.`,
      cautions: whileFed(at),
      state: at.on,
      needs: ['pump'],
      leaves: { input: 'released' },
      attended_s: 60,
      items: [
        read('rest.pressure', at.output, 'load.pressure', 'Read what stands in the line.', { target_Pa: 0 }),
      ],
    },
    {
      id: 'reserve',
      title: 'Reserve at once',
      instruction: `${charged(at)} Apply to the force named, hold ${READ_RHYTHM.held_s} s and read, let go fully; again every ${READ_RHYTHM.held_s + READ_RHYTHM.rests_s} s.`,
      cautions: ['held-by-check-valves'],
      state: { ...at.off, charge: 'full' },
      needs: ['assist'],
      leaves: { input: 'released', charge: 'spent' },
      attended_s: 240 + COOLS_S,
      items: stored('reserve', limits.applications.value + BEYOND),
    },
    {
      id: 'hour',
      title: 'Reserve after standing',
      instruction: `${charged(at)} Leave the pedal alone; then one application.`,
      cautions: ['held-by-check-valves'],
      state: { ...at.off, charge: 'full' },
      needs: ['assist'],
      leaves: { input: 'released', charge: 'spent' },
      attended_s: 360 + COOLS_S,
      items: [
        { kind: 'wait', id: 'hour.wait', prompt: 'It stands', duration_s: stand_s, starts: 'key' },
        ...stored('hour', 1, stand_s),
      ],
    },
    {
      id: 'without',
      title: 'Without the pump, nothing stored',
      instruction: `${at.says.off}, apply until the pedal stays hard. Then the heaviest of the forces: so it brakes with nothing.`,
      cautions: [],
      state: { ...at.off, charge: 'spent' },
      needs: ['zeros'],
      leaves: { input: 'released' },
      attended_s: 120,
      items: pressed('without', heavy_N),
    },
  ];
  return [{ phase: 'look', step: first }, ...rest.map((step): PhasedStep => ({ phase: 'unit', step }))];
}
