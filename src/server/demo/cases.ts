import { INHG_PA } from '@/core/quantities/units';
import { FAMILIES } from '@/core/families/registry';
import type { Fitting, JobEntry } from '@/core/records/entries';
import type { Job } from '@/core/records/job';
import { leftToItsSwitch, reserveTest, sweptAndHeld, type Script } from '@/core/twin/recording';
import { profiles } from './profiles';

const MM = 1e-3;

/** What is wrong with a unit or its bench, hidden from the run. */
export interface DemoCase {
  readonly job: Omit<Job, 'profileId'> & { readonly profile: keyof typeof profiles };
  readonly daysAgo: number;
  readonly bench: null | {
    readonly seed: number;
    readonly fault?: readonly [id: string, severity: number];
    readonly supply_Pa?: number;
    /** Numbers of this unit that the years have moved, as parts of the healthy ones. */
    readonly worn?: Readonly<Record<string, number>>;
    readonly gauges?: Readonly<Record<string, { scale?: number; zero_Pa?: number }>>;
    /** Stop before this item: a run half done. */
    readonly until?: string;
  };
  /** What was found and done after the test, and how the repaired unit tested. */
  readonly repair?: {
    readonly notes: readonly JobEntry[];
    readonly photo: { readonly point: string; readonly caption: string };
    readonly seed: number;
    readonly fitting: Fitting;
    readonly signed: boolean;
  };
}

/** The fluid that a profile names; a booster by itself has none. */
const fluidOf = (profile: (typeof profiles)[keyof typeof profiles]) =>
  FAMILIES[profile.kind].fluid(profile) ?? 'unknown';

const job = (
  tag: string,
  profile: keyof typeof profiles,
  from: string,
  complaint: string,
  promisedIn: number,
): DemoCase['job'] => ({
  tag,
  kind: profiles[profile].kind,
  profile,
  from,
  complaint,
  fluid: fluidOf(profiles[profile]),
  promisedOn: new Date(Date.UTC(2026, 0, 1) + promisedIn * 86_400_000).toISOString().slice(0, 10),
});

/** `promisedIn` of a job and `daysAgo` are moved to the day the demo is made. */
export const cases: readonly DemoCase[] = [
  {
    job: job(
      'GF-0412',
      'tollan',
      'Mail van 7',
      'Brakes were fine, then the pedal went hard on the slipway. Rebuilt last month, please check.',
      -3,
    ),
    daysAgo: 6,
    bench: { seed: 11 },
  },
  {
    job: job(
      'GF-0415',
      'tollan',
      'Old touring coach',
      'Weak. Two garages say the unit is tired. It is not quick to stop with a full load.',
      -1,
    ),
    daysAgo: 4,
    bench: { seed: 23, supply_Pa: 15 * INHG_PA },
  },
  {
    job: job(
      'GF-0418',
      'tollan',
      'Fire tender',
      'Hissing under the floor when I press the pedal, and it takes all my weight.',
      0,
    ),
    daysAgo: 3,
    bench: { seed: 31, fault: ['torn-diaphragm', 0.7] },
    repair: {
      notes: [
        {
          type: 'finding',
          finding: {
            kind: 'noise',
            point: 'rod-hole',
            words: 'Hiss from the can while applied, loudest beside the rod. Stops when released.',
            fault: 'torn-diaphragm',
          },
        },
        {
          type: 'work',
          work: {
            part: 'diaphragm',
            did: 'replaced',
            reason: 'Torn along the clamp ring for a third of its edge.',
            provenance: 'new',
            serial: 'batch 26-114',
          },
        },
        {
          type: 'work',
          work: {
            part: 'slave-body',
            did: 'refused',
            reason: 'Slight score below the seal’s path; the customer does not want it sleeved.',
            provenance: null,
            serial: '',
          },
        },
      ],
      photo: { point: 'rod-hole', caption: 'Edge of the old diaphragm, torn at the clamp ring' },
      seed: 32,
      fitting: { bleeding: 'wheels-first', fluid: 'dot4' },
      signed: true,
    },
  },
  {
    job: job(
      'GF-0419',
      'eskmoor',
      'Quay tug 3',
      'Grabs a bit. Someone changed a gauge on your bench since last time, they said.',
      1,
    ),
    daysAgo: 2,
    bench: { seed: 47, gauges: { 'G-22': { scale: 1.08 } } },
  },
  {
    job: job(
      'GF-0421',
      'tollan',
      'Snow-clearing loader',
      'Holds for a second and then the pedal creeps down while you wait at the lights.',
      1,
    ),
    daysAgo: 1,
    bench: { seed: 53, fault: ['cup-bypass', 0.8] },
  },
  {
    job: job(
      'GF-0422',
      'tollanLighter',
      'Harbour lighter’s old lorry',
      'Stops well on the first push. After two or three at the gate with the engine off there is nothing left.',
      2,
    ),
    daysAgo: 1,
    bench: { seed: 57, fault: ['check-valve-leak', 0.5] },
  },
  {
    job: job('GF-0423', 'tollan', 'Mail van 2', 'Pulls up late in the morning, better when warm.', 2),
    daysAgo: 0,
    bench: { seed: 61, until: 'ratio.3.output' },
  },
  {
    job: job(
      'GF-0424',
      'eskmoor',
      'Electric library van',
      'Stop lamps stay on after a long day. No other trouble.',
      3,
    ),
    daysAgo: 0,
    bench: null,
  },
  {
    job: job(
      'GF-0425',
      'tollan',
      'Quay tug 1',
      'Lent to the north quay for a year, came back with a note: “brakes odd”.',
      4,
    ),
    daysAgo: 0,
    bench: null,
  },
  {
    job: job(
      'GF-0426',
      'mailVan',
      'Mail van 3',
      'Pedal feels harder than it used to, worst when I brake twice in a row. Fine again after a while.',
      1,
    ),
    daysAgo: 2,
    bench: { seed: 91, fault: ['hose-blocked', 0.8] },
  },
  {
    job: job(
      'GF-0427',
      'libraryBus',
      'Harbour coach 2',
      'Pedal comes up under my foot at the lights, and it hisses.',
      2,
    ),
    daysAgo: 0,
    bench: { seed: 92, fault: ['torn-diaphragm', 0.6], until: 'with.1.pressure' },
  },
  {
    job: {
      ...job(
        'GF-0428',
        'mailVan',
        'Mail van 5, pass route',
        'Up at the pass the pedal is wooden. Down at the depot it is as it always was.',
        3,
      ),
      altitude_m: 1800,
      odometer: '184 310 km',
    },
    daysAgo: 1,
    bench: { seed: 93 },
  },
  {
    job: job(
      'GF-0429',
      'snowLoader',
      'Works van 11',
      'Since the new pads the brakes feel wooden. Please look.',
      5,
    ),
    daysAgo: 0,
    bench: null,
  },
  {
    job: job(
      'GF-0430',
      'eskmoorSummit',
      'Snow-clearing loader 2',
      'One lamp comes on as soon as the engine is off. A few pumps of the pedal and the front has nothing left.',
      2,
    ),
    daysAgo: 1,
    bench: { seed: 97, fault: ['gas-loss-2', 0.35] },
  },
  {
    job: job(
      'GF-0431',
      'tollanShuttle',
      'Shuttle taxi 5',
      'Something buzzes under the bonnet every time I touch the brakes, and the lamp flickers.',
      1,
    ),
    daysAgo: 1,
    bench: { seed: 98, fault: ['gas-loss', 0.3] },
  },
  {
    job: job(
      'GF-0432',
      'shuttle',
      'Shuttle taxi 2',
      'The pump runs and runs, and on the hill the warning lamp came on.',
      2,
    ),
    daysAgo: 0,
    bench: { seed: 99, fault: ['vanes-worn', 0.8], until: 'switch.in' },
  },
  {
    job: job(
      'GF-0433',
      'quayTruck',
      'Quay truck 4',
      'Hot, in the queue for the ferry, the pedal goes hard, and it squeals when I steer.',
      3,
    ),
    daysAgo: 1,
    bench: { seed: 100, fault: ['belt-slips', 0.6] },
  },
  {
    job: job(
      'GF-0434',
      'moorSaloon',
      'Harbour office saloon',
      'Both brake lamps are lit every morning, and they stay lit for a while. Is it losing pressure?',
      2,
    ),
    daysAgo: 1,
    bench: { seed: 101 },
  },
  {
    job: job(
      'GF-0435',
      'moorSaloon',
      'Pilot’s saloon',
      'Ticks all day long, and after two or three stops with the engine off one lamp comes on.',
      1,
    ),
    daysAgo: 0,
    bench: { seed: 102, fault: ['gas-loss-rear', 0.5], until: 'in.supply' },
  },
  {
    job: job(
      'GF-0437',
      'varnholtBooster',
      'Quay truck 2',
      'With the engine off it stops once, and badly. Running it is fine.',
      2,
    ),
    daysAgo: 1,
    bench: { seed: 107, fault: ['gas-loss', 0.5] },
  },
  {
    job: job(
      'GF-0438',
      'ridgeLoader',
      'Ridge loader',
      'Drags after an hour of work; the rims are too hot to touch. Cold it is fine.',
      1,
    ),
    daysAgo: 0,
    bench: { seed: 108, fault: ['return-restricted', 0.6] },
  },
  {
    job: job(
      'GF-0439',
      'moorCircuits',
      'Pilot’s saloon',
      'Valve block rebuilt, two new spheres. To be proved before it goes back under the saloon.',
      3,
    ),
    daysAgo: 0,
    bench: { seed: 109, fault: ['block-rear-low', 0.6], until: 'metering.1.input' },
  },
  {
    job: job(
      'GF-0440',
      'electricVan',
      'Electric library van',
      'Its vacuum pump hums far more often than it used to. The pedal feels as it should.',
      2,
    ),
    daysAgo: 0,
    bench: null,
  },
  {
    job: job(
      'GF-0441',
      'tollanMotor',
      'Night cart 3',
      'Brakes stay on a little after every stop, and the pedal is heavy with the key off.',
      2,
    ),
    daysAgo: 0,
    bench: { seed: 110, fault: ['gear-binds', 0.5], until: 'assist.2.input' },
  },
  {
    job: job(
      'GF-0442',
      'nightCart',
      'Night cart 1',
      'Half way down the pedal goes hard, worst on a cold morning. A lamp came on once.',
      1,
    ),
    daysAgo: 0,
    bench: { seed: 111, fault: ['feed-poor', 0.8] },
  },
  {
    job: job(
      'GF-0443',
      'hybridShuttle',
      'Shuttle taxi 11',
      'One rear wheel gets hot in town, and it drags a little after every stop.',
      1,
    ),
    daysAgo: 0,
    bench: { seed: 112, fault: ['apply-leaks-rearLeft', 0.6] },
  },
  {
    job: job(
      'GF-0444',
      'hybridShuttle',
      'Shuttle taxi 12',
      'A yellow brake lamp came on after a jump start.',
      2,
    ),
    daysAgo: 0,
    bench: { seed: 113, fault: ['capacitor-weak', 0.6], until: 'targets.2.frontLeft' },
  },
  // A shuttle that comes every half a year: its gas goes slowly, and the history says when it will be too low.
  ...(
    [
      ['GF-0302', 548, 0.992, 103],
      ['GF-0348', 366, 0.968, 104],
      ['GF-0391', 182, 0.943, 105],
      ['GF-0436', 2, 0.921, 106],
    ] as const
  ).map(([tag, daysAgo, preCharge_Pa, seed]): DemoCase => ({
    job: job(tag, 'tollanShuttle', 'Shuttle taxi 8', 'Half-yearly test of the brake pressure.', 1 - daysAgo),
    daysAgo,
    bench: { seed, worn: { preCharge_Pa } },
  })),
];

/** Traces of the demo world: the bench over time, with a logger's noise. */
export const recorded: readonly {
  readonly name: string;
  readonly tag: string;
  readonly seed: number;
  readonly fault?: readonly [id: string, severity: number];
  readonly supply_Pa?: number;
  /** Logged during the first test of the job. */
  readonly duringTest?: true;
  /** What is done; the whole test of a remote unit where nothing is said. */
  readonly script?: Script;
  readonly rate_Hz?: number;
  readonly pressureNoise_Pa?: number;
  /** A line of the trace's own story, pinned where it belongs. */
  readonly note?: { readonly at_s: number; readonly words: string };
}[] = [
  { name: 'Mail van 7, whole test', tag: 'GF-0412', seed: 101, duringTest: true },
  {
    name: 'Old touring coach, weak supply',
    tag: 'GF-0415',
    seed: 102,
    supply_Pa: 15 * INHG_PA,
    note: { at_s: 61, words: 'Pedal goes heavy here. Supply gauge at 15.' },
  },
  {
    name: 'Fire tender, before the repair',
    tag: 'GF-0418',
    seed: 103,
    fault: ['torn-diaphragm', 0.7],
    note: { at_s: 66, words: 'Hiss from beside the rod while held.' },
  },
  { name: 'Fire tender, after the repair', tag: 'GF-0418', seed: 104 },
  {
    name: 'Harbour lighter’s lorry, source off',
    tag: 'GF-0422',
    seed: 105,
    fault: ['check-valve-leak', 0.5],
    duringTest: true,
    script: reserveTest({ input_Pa: 9e5, applications: 8 }),
    pressureNoise_Pa: 2e3,
  },
  {
    name: 'Shuttle taxi 5, left to its switch',
    tag: 'GF-0431',
    seed: 106,
    fault: ['gas-loss', 0.3],
    duringTest: true,
    script: leftToItsSwitch({ power: true }, 900),
    rate_Hz: 20,
  },
  {
    name: 'Snow-clearing loader 2, swept and held',
    tag: 'GF-0430',
    seed: 107,
    fault: ['gas-loss-2', 0.35],
    duringTest: true,
    script: sweptAndHeld({ fed: { pump: true }, charge_s: 160, beyondStop_m: 14 * MM, held_m: 6 * MM }),
  },
];
