import type { RemoteVacuumProfile } from '@/core/families/remote-vacuum/index';
import { FAMILIES } from '@/core/families/registry';
import type { Instrument } from '@/core/metrology/instrument';
import type { Job } from '@/core/records/job';
import { INITIAL_SETTINGS, type Settings } from '@/core/records/settings';

/** The brake room of Greywater Ferry Depot. Everything in it is made up. */
const BAR = 1e5;
const INHG = 3386.389;
const bars = (...values: number[]) => values.map((value) => value * BAR);

const family = FAMILIES['remote-vacuum'];
const typical = family.typical as RemoteVacuumProfile;

export const settings: Settings = {
  ...INITIAL_SETTINGS,
  technician: 'Ottoline Brack',
  altitude_m: 40,
  supplyHealth_Pa: 18 * INHG,
};

export const profiles: Record<'tollan' | 'eskmoor', RemoteVacuumProfile> = {
  tollan: { ...typical, name: 'Tollan RV-230', maker: 'Tollan' },
  eskmoor: {
    ...typical,
    name: 'Esk & Moor Lesser 180',
    maker: 'Esk & Moor',
    fluid: 'dot5',
    effectiveDiameter_m: 0.158,
    slaveBore_m: 0.019,
    rodDiameter_m: 0.005,
    spring_N: 80,
    boostRatio: 2.4,
    crack_Pa: 3.2 * BAR,
    vacuumVolume_m3: 2.2e-3,
    proof_Pa: 120 * BAR,
    bypassInputs_Pa: bars(15, 35, 55, 80),
    ratioInputs_Pa: bars(12, 16, 19, 22),
    fullInput_Pa: 32 * BAR,
    holdInput_Pa: 20 * BAR,
  },
};

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
}

const job = (
  tag: string,
  profile: keyof typeof profiles,
  from: string,
  complaint: string,
  promisedIn: number,
): DemoCase['job'] => ({
  tag,
  kind: 'remote-vacuum',
  profile,
  from,
  complaint,
  fluid: profiles[profile].fluid,
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
