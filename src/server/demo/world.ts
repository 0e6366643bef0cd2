import type { RemoteVacuumProfile } from '@/core/families/remote-vacuum/index';
import type { RodServoProfile } from '@/core/families/rod-servo/index';
import { FAMILIES } from '@/core/families/registry';
import type { Instrument } from '@/core/metrology/instrument';
import type { Fitting, JobEntry } from '@/core/records/entries';
import type { Job } from '@/core/records/job';
import { INITIAL_SETTINGS, type Settings } from '@/core/records/settings';

/** The brake room of Greywater Ferry Depot. Everything in it is made up. */
const BAR = 1e5;
const INHG = 3386.389;
const bars = (...values: number[]) => values.map((value) => value * BAR);

const typical = FAMILIES['remote-vacuum'].typical as RemoteVacuumProfile;
const servo = FAMILIES['rod-servo'].typical as RodServoProfile;

export const settings: Settings = {
  ...INITIAL_SETTINGS,
  technician: 'Ottoline Brack',
  altitude_m: 40,
  supplyHealth_Pa: 18 * INHG,
};

type Size = Pick<
  RemoteVacuumProfile,
  'effectiveDiameter_m' | 'slaveBore_m' | 'rodDiameter_m' | 'spring_N' | 'boostRatio' | 'vacuumVolume_m3'
> & {
  readonly crack_bar: number;
  readonly proof_bar: number;
  readonly bypass_bar: readonly number[];
  readonly ratio_bar: readonly number[];
  readonly full_bar: number;
  readonly hold_bar: number;
};

/** A made-up unit: its own size and test points, limits as the handbook has them for its kind. */
function unit(
  maker: string,
  name: string,
  { crack_bar, proof_bar, bypass_bar, ratio_bar, full_bar, hold_bar, ...size }: Size,
  more: Partial<RemoteVacuumProfile> = {},
): RemoteVacuumProfile {
  return {
    ...typical,
    ...size,
    maker,
    name,
    crack_Pa: crack_bar * BAR,
    proof_Pa: proof_bar * BAR,
    bypassInputs_Pa: bars(...bypass_bar),
    ratioInputs_Pa: bars(...ratio_bar),
    fullInput_Pa: full_bar * BAR,
    holdInput_Pa: hold_bar * BAR,
    ...more,
  };
}

const school18 = { value: 18 * INHG, source: 'Bench handbook 15: the 18 inHg school, uncorrected' };

/** Remote units of different size: large cans, small ones, with and without a stop-lamp switch, both schools of supply. */
export const profiles = {
  tollan: { ...typical, name: 'Tollan RV-230', maker: 'Tollan' },
  tollan280: unit('Tollan', 'Tollan RV-280', {
    effectiveDiameter_m: 0.245,
    slaveBore_m: 0.0254,
    rodDiameter_m: 0.008,
    spring_N: 160,
    boostRatio: 3.1,
    vacuumVolume_m3: 6.1e-3,
    crack_bar: 2.6,
    proof_bar: 130,
    bypass_bar: [20, 45, 70, 95],
    ratio_bar: [8, 11, 14, 17],
    full_bar: 26,
    hold_bar: 16,
  }),
  tollan205: unit('Tollan', 'Tollan RV-205 Twin Port', {
    effectiveDiameter_m: 0.205,
    slaveBore_m: 0.0191,
    rodDiameter_m: 0.006,
    spring_N: 100,
    boostRatio: 3.8,
    vacuumVolume_m3: 3.4e-3,
    crack_bar: 3.4,
    proof_bar: 140,
    bypass_bar: [20, 50, 80, 110],
    ratio_bar: [12, 15, 18, 21],
    full_bar: 26,
    hold_bar: 20,
  }),
  eskmoor: unit(
    'Esk & Moor',
    'Esk & Moor Lesser 180',
    {
      effectiveDiameter_m: 0.158,
      slaveBore_m: 0.019,
      rodDiameter_m: 0.005,
      spring_N: 80,
      boostRatio: 2.4,
      vacuumVolume_m3: 2.2e-3,
      crack_bar: 3.2,
      proof_bar: 120,
      bypass_bar: [15, 35, 55, 80],
      ratio_bar: [12, 16, 19, 22],
      full_bar: 32,
      hold_bar: 20,
    },
    { fluid: 'dot5' },
  ),
  eskmoorGreater: unit(
    'Esk & Moor',
    'Esk & Moor Greater 250',
    {
      effectiveDiameter_m: 0.238,
      slaveBore_m: 0.0222,
      rodDiameter_m: 0.007,
      spring_N: 140,
      boostRatio: 3.3,
      vacuumVolume_m3: 5.2e-3,
      crack_bar: 2.8,
      proof_bar: 140,
      bypass_bar: [20, 45, 70, 100],
      ratio_bar: [11, 15, 19, 23],
      full_bar: 32,
      hold_bar: 20,
    },
    { lampSwitch: null },
  ),
  varnholt190: unit(
    'Varnholt',
    'Varnholt Stroomer 190',
    {
      effectiveDiameter_m: 0.168,
      slaveBore_m: 0.0175,
      rodDiameter_m: 0.005,
      spring_N: 85,
      boostRatio: 2.8,
      vacuumVolume_m3: 2.4e-3,
      crack_bar: 3,
      proof_bar: 120,
      bypass_bar: [15, 40, 65, 90],
      ratio_bar: [12, 16, 20, 24],
      full_bar: 34,
      hold_bar: 22,
    },
    { limits: { ...typical.limits, supplyNeed_Pa: school18 } },
  ),
  varnholt225: unit(
    'Varnholt',
    'Varnholt Stroomer 225 S',
    {
      effectiveDiameter_m: 0.212,
      slaveBore_m: 0.0206,
      rodDiameter_m: 0.006,
      spring_N: 120,
      boostRatio: 4.1,
      vacuumVolume_m3: 3.8e-3,
      crack_bar: 3.6,
      proof_bar: 140,
      bypass_bar: [20, 45, 70, 100],
      ratio_bar: [9, 11.5, 14, 16.5],
      full_bar: 22,
      hold_bar: 15,
    },
    { ratioLimitFor: 'at-input', limits: { ...typical.limits, supplyNeed_Pa: school18 } },
  ),
  eskmoorDinghy: unit(
    'Esk & Moor',
    'Esk & Moor Dinghy 160',
    {
      effectiveDiameter_m: 0.14,
      slaveBore_m: 0.0175,
      rodDiameter_m: 0.005,
      spring_N: 60,
      boostRatio: 1.95,
      vacuumVolume_m3: 1.6e-3,
      crack_bar: 2.4,
      proof_bar: 110,
      bypass_bar: [15, 35, 55, 75],
      ratio_bar: [12, 18, 24, 30],
      full_bar: 44,
      hold_bar: 28,
    },
    { fluid: 'mineral', lampSwitch: null },
  ),
  tollanLighter: {
    ...servo,
    name: 'Tollan Lighter RS-12',
    maker: 'Tollan',
    effectiveArea_m2: 0.0185,
    preload_N: 90,
    crack_Pa: 1.4 * BAR,
    fullLift_Pa: 7 * BAR,
    forceInputs_Pa: bars(2.5, 4, 5.5),
    fullInput_Pa: 9 * BAR,
    tank_m3: 10e-3,
  },
} satisfies Record<string, RemoteVacuumProfile | RodServoProfile>;

const gauge = (
  tag: string,
  name: string,
  port: string,
  fullScale_Pa: number,
  step_Pa: number,
  accuracy: Instrument['accuracy'],
  more: Partial<Instrument> = {},
): Instrument => ({
  tag,
  name,
  quantity: port === 'supply' || port === 'activation' ? 'depression' : 'pressure',
  fullScale_Pa,
  accuracy,
  step_Pa,
  usualPort: port,
  tiedTo: null,
  correction: null,
  calibratedOn: '2026-05-11',
  calibrationDue: '2027-05-11',
  ...more,
});

const en = (cls: '0.25' | '0.6' | '1' | '1.6' | '2.5'): Instrument['accuracy'] => ({
  kind: 'en-837-1',
  class: cls,
});

export const instruments: Instrument[] = [
  gauge('G-11', 'Input, low range', 'input', 10 * BAR, 0.05 * BAR, en('0.6'), { tiedTo: 'G-12' }),
  gauge('G-12', 'Input, high range', 'input', 160 * BAR, 0.2 * BAR, en('0.6')),
  gauge('G-21', 'Output, low range', 'output', 10 * BAR, 0.05 * BAR, en('0.6'), { tiedTo: 'G-22' }),
  gauge('G-22', 'Output, high range', 'output', 160 * BAR, 0.2 * BAR, en('0.6')),
  gauge('V-31', 'Vacuum at the supply port', 'supply', 30 * INHG, 0.1 * INHG, {
    kind: 'asme-b40.100',
    grade: '2A',
  }),
  gauge(
    'V-41',
    'Vacuum at the activation port',
    'activation',
    30 * INHG,
    0.1 * INHG,
    { kind: 'asme-b40.100', grade: '1A' },
    {
      calibratedOn: '2025-10-02',
      calibrationDue: '2026-10-02',
    },
  ),
  gauge(
    'L-51',
    'Load cell under the rod',
    'output',
    2500,
    1,
    { kind: 'percent-of-span', percent: 0.25 },
    { quantity: 'force' },
  ),
  gauge(
    'W-61',
    'Stopwatch on the wall',
    'clock',
    60,
    0.1,
    { kind: 'percent-of-span', percent: 0.25 },
    { quantity: 'duration' },
  ),
  {
    ...gauge('T-05', 'Reference transducer, in the cupboard', 'output', 160 * BAR, 0.02 * BAR, {
      kind: 'percent-of-span',
      percent: 0.1,
    }),
    usualPort: null,
  },
];

/** What is wrong with a unit or its bench, hidden from the run. */
export interface DemoCase {
  readonly job: Omit<Job, 'profileId'> & { readonly profile: keyof typeof profiles };
  readonly daysAgo: number;
  readonly bench: null | {
    readonly seed: number;
    readonly fault?: readonly [id: string, severity: number];
    readonly supply_Pa?: number;
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
  fluid: profiles[profile].fluid,
  promisedOn: new Date(Date.UTC(2026, 0, 1) + promisedIn * 86_400_000).toISOString().slice(0, 10),
});

/** The one who signs in the demo. */
export const signer = { name: 'Ottoline Brack', pin: '2468' };

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
    bench: { seed: 23, supply_Pa: 15 * INHG },
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
    bench: { seed: 57, fault: ['check-valve-leak', 0.7] },
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
  /** Applications with the source shut, in place of the whole test of a remote unit. */
  readonly reserve?: true;
  /** A line of the trace's own story, pinned where it belongs. */
  readonly note?: { readonly at_s: number; readonly words: string };
}[] = [
  { name: 'Mail van 7, whole test', tag: 'GF-0412', seed: 101, duringTest: true },
  {
    name: 'Old touring coach, weak supply',
    tag: 'GF-0415',
    seed: 102,
    supply_Pa: 15 * INHG,
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
    fault: ['check-valve-leak', 0.7],
    duringTest: true,
    reserve: true,
  },
];
