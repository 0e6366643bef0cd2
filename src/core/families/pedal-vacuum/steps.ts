import type { PhasedStep } from '../../contract/family';
import type { Item, Step } from '../../contract/steps';
import { look } from '../bench-items';
import { pedalAt, readingAt } from '../vehicle-items';
import type { ReadingId } from './member';
import { RHYTHM, type PedalVacuumProfile } from './profile';

const measured = (id: ReadingId) => id;
const IDLE = { ignition: 'on', engine: 'idle' } as const;
const OFF = { engine: 'off' } as const;
/** Reading of the vacuum that everything of the booster leans on. */
export const REST = 'rest.supply';
/** Applications made beyond those that must help: they show where the reserve ends. */
const BEYOND = 1;

/** With all that was stored used up, each is an application on nothing. */
const ON_NOTHING = { applications: 1 } as const;

/** A pedal force, and the line pressure that it makes. */
const row = (id: string, force_N: number, { vacuum = false, spent = false } = {}): Item[] => [
  pedalAt(`${id}.input`, force_N),
  // Behind a narrow hose the vacuum is away for a while after a stroke: the booster is judged by what it has.
  ...(vacuum
    ? [
        readingAt(`${id}.supply`, 'supply', measured('supplyApplied'), 'Held: read the vacuum.', {
          target_Pa: force_N,
        }),
      ]
    : []),
  readingAt(`${id}.pressure`, 'front', 'load.pressure', 'Read the line pressure.', {
    target_Pa: force_N,
    inputFrom: `${id}.input`,
    ...(spent && ON_NOTHING),
  }),
];

/** The vacuum read, left alone for a time, and read again. */
const watched = (id: string, duration_s: number, measures: ReadingId): Item[] => [
  readingAt(`${id}.start`, 'supply', 'supply', 'Read the vacuum: the wait starts here.'),
  { kind: 'wait', id: `${id}.wait`, prompt: 'Engine off, pedal up', duration_s, starts: 'reading' },
  readingAt(`${id}.end`, 'supply', measures, 'Read the vacuum again.', { elapsed_s: duration_s }),
];

/** The booster's own tests on a vehicle, in the order of handbook 8.3. Minutes: handbook-models 8.3. */
export function steps(profile: PedalVacuumProfile): PhasedStep[] {
  const { limits, moderate_N, light_N, heavy_N, decay_s, hold_s, standing_s } = profile;
  const reserve = (id: string, least: number): Item[] => [
    readingAt(`${id}.supply`, 'supply', 'supply', 'Engine off: read the vacuum that is stored.'),
    ...Array.from({ length: least + BEYOND }, (_, i) =>
      readingAt(
        `${id}.${i + 1}`,
        'front',
        'load.pressure',
        `Application ${i + 1}: bring the pedal to the force and read the line pressure; then let go fully.`,
        {
          target_Pa: moderate_N,
          sourceFrom: `${id}.supply`,
          applications: i + 1,
          moment: 'next-application',
        },
      ),
    ),
  ];
  const own: Step[] = [
    {
      id: 'decay',
      title: 'Vacuum kept at rest',
      instruction:
        'Engine idling for a minute, then off. Touch nothing until the wait is over; listen at the pedal.',
      cautions: [],
      state: { ...OFF, charge: 'full' },
      needs: ['rest'],
      leaves: { input: 'released' },
      attended_s: 90,
      items: [
        ...watched('decay', decay_s, 'left'),
        look(
          'hiss-rest',
          'Hiss at rest',
          'Behind the pedal, foot off: quiet?',
          'Quiet',
          ['hiss', 'Hisses'],
          'air-seat',
        ),
      ],
    },
    {
      id: 'capped',
      title: 'Vacuum kept, source side capped',
      instruction:
        'Charge it again, engine off, and cap the engine side of the check valve. What is lost now the booster and its hose lose; the rest goes past the valve.',
      cautions: ['vacuum'],
      state: { ...OFF, charge: 'full' },
      needs: ['decay'],
      leaves: { input: 'released' },
      attended_s: 90,
      items: watched('capped', decay_s, 'leftCapped'),
    },
    {
      id: 'start',
      title: 'Exhaust and start',
      instruction:
        'Engine off, pump the pedal until it changes no more. Hold the force named and mark the pedal; then start the engine, foot still on, and measure how far it drops.',
      cautions: ['running-engine'],
      state: { ...OFF, charge: 'spent' },
      needs: ['rest'],
      leaves: { engine: 'idle', input: 'released' },
      attended_s: 180,
      items: [
        pedalAt('start.input', moderate_N),
        readingAt(
          'start.drop',
          'travel',
          measured('drop'),
          'Engine started: read how far the pedal dropped.',
          {
            target_Pa: moderate_N,
            inputFrom: 'start.input',
            sourceFrom: REST,
          },
        ),
        {
          ...look('start.how', 'Pedal as the engine starts', 'What did the pedal do?', 'Dropped and stood', [
            'stayed',
            'Stayed where it was',
          ]),
          answers: [
            { id: 'good', label: 'Dropped and stood', finds: 'good' },
            { id: 'stayed', label: 'Stayed where it was: no assist', finds: 'bad' },
            { id: 'slowly', label: 'Dropped slowly: air or vacuum comes slowly', finds: 'bad' },
            { id: 'sank', label: 'Sank on to the floor: not the assist', finds: 'bad' },
            { id: 'not-looked', label: 'Could not tell', finds: 'unknown' },
          ],
        },
      ],
    },
    {
      id: 'with',
      title: 'Two forces, with assist',
      instruction:
        'Engine idling. Bring the pedal to each force, always upward, and let vacuum and pressure stand, then read both.',
      cautions: ['running-engine', 'bench-pressure'],
      state: IDLE,
      needs: ['rest'],
      leaves: { input: 'applied' },
      attended_s: 90,
      items: [
        ...row('with.1', light_N, { vacuum: true }),
        ...row('with.2', heavy_N, { vacuum: true }),
        look(
          'hiss-held',
          'Hiss while held',
          'Behind the pedal, held steady: quiet?',
          'Quiet',
          ['hiss', 'Hisses'],
          'shell',
        ),
      ],
    },
    {
      id: 'without',
      title: 'Two forces, without assist',
      instruction: 'Engine off, pump the pedal until nothing helps any more. Then the same two forces.',
      cautions: [],
      state: { ...OFF, charge: 'spent' },
      needs: ['with'],
      leaves: { input: 'released' },
      attended_s: 90,
      items: [
        ...row('without.1', light_N, { spent: true }),
        ...row('without.2', heavy_N, { spent: true }),
        readingAt(
          'without.travel',
          'travel',
          'load.travel',
          'Still held: read the pedal’s travel from rest.',
          {
            target_Pa: heavy_N,
            inputFrom: 'without.2.input',
            ...ON_NOTHING,
          },
        ),
      ],
    },
    {
      id: 'airtight',
      title: 'Airtight under load',
      instruction: `Engine idling: bring the pedal to the force named, which is beyond runout, and mark it. Stop the engine and go on holding for ${hold_s} s.`,
      cautions: ['running-engine'],
      state: IDLE,
      needs: ['rest'],
      leaves: { engine: 'off', input: 'released' },
      hands: 'pedal-jack',
      attended_s: 120,
      items: [
        pedalAt('airtight.input', heavy_N),
        readingAt(
          'airtight.start',
          'supply',
          'supply',
          'Stop the engine, foot still on: read the vacuum. The hold starts here.',
          { target_Pa: heavy_N },
        ),
        {
          kind: 'wait',
          id: 'airtight.wait',
          prompt: 'Engine off, pedal held',
          duration_s: hold_s,
          starts: 'reading',
        },
        readingAt('airtight.end', 'travel', measured('rise'), 'Read how far the pedal has risen.', {
          target_Pa: heavy_N,
          inputFrom: 'airtight.input',
          elapsed_s: hold_s,
          sourceFrom: 'airtight.start',
        }),
      ],
    },
    {
      id: 'apply',
      title: 'Apply time and release',
      instruction:
        'Engine idling. Step to the force at once and time the pressure until it stands; let go at once and look at the wheels.',
      cautions: ['running-engine'],
      state: IDLE,
      needs: ['rest'],
      leaves: { input: 'released' },
      attended_s: 120,
      items: [
        readingAt('apply.time', 'clock', measured('applyTime'), 'Read the time until the pressure stands.', {
          target_Pa: heavy_N,
        }),
        look('drag', 'Drag after release', 'Foot off: do all wheels turn freely by hand?', 'Free', [
          'drags',
          'Drags',
        ]),
      ],
    },
    {
      id: 'reserve',
      title: 'Reserve at once',
      instruction: `Engine idling for a minute, then off. Apply to the force named, hold for ${RHYTHM.held_s} s and read, let go fully; again every ${RHYTHM.every_s} s.`,
      cautions: [],
      state: { ...OFF, charge: 'full' },
      needs: ['rest'],
      leaves: { input: 'released', charge: 'spent' },
      attended_s: 180,
      items: reserve('reserve', limits.reserve.value),
    },
    {
      id: 'standing',
      title: 'Standing reserve',
      instruction: `Charge it, stop the engine, and leave the pedal alone. After the wait count the applications as before: held for ${RHYTHM.held_s} s, one every ${RHYTHM.every_s} s.`,
      cautions: [],
      state: { ...OFF, charge: 'full' },
      needs: ['rest'],
      leaves: { input: 'released', charge: 'spent' },
      attended_s: 180,
      items: [
        ...watched('standing', standing_s, 'left'),
        ...reserve('standing', limits.standingReserve.value).slice(1),
      ].map((item) =>
        item.kind === 'reading' && item.applications ? { ...item, sourceFrom: 'standing.end' } : item,
      ),
    },
    {
      id: 'gap',
      title: 'Pushrod clearance',
      instruction:
        'Master cylinder off the booster, the maker’s gauge on the face: measure from the pushrod to the piston’s seat. Too long drags, too short wastes travel.',
      cautions: ['open-line'],
      state: { ignition: 'off', engine: 'off', charge: 'spent' },
      gates: ['safe.supply'],
      needs: [],
      leaves: { input: 'released' },
      attended_s: 300,
      items: [readingAt('gap.rod', 'gap', measured('clearance'), 'Read the clearance of the pushrod.')],
    },
  ];
  return own.map((step) => ({ phase: 'unit', step }));
}
