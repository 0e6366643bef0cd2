import { FAMILIES, type FamilyKind } from '../families/registry';
import { FLUIDS } from '../fluid/kinds';
import { CAUTIONS, NOT_CLAIMED, type CautionId } from '../contract/cautions';
import type { Document } from './document';
import { bleedingOf, type BleedingOrder } from '../records/installation';
import type { JobRecord } from '../records/job-record';
import { letterhead, type Printing } from './printing';

/** What differs between a unit that goes out to be fitted and parts that go on a vehicle here. */
interface Words {
  readonly title: string;
  readonly what: string;
  readonly fluid: string;
  readonly before: string;
  readonly first: readonly string[];
  readonly last: readonly string[];
}

const HOSE =
  'Fit new vacuum-rated hose of the right bore. Hose that was wet with fluid or has gone soft collapses under vacuum.';
const CHECK =
  'Fit the check valve with its arrow towards the source. Try it with a bulb or hand pump, never by mouth.';
const DRY = 'Every joint dry on card with the pedal held down. Never feel for a leak by hand.';

const UNIT: Words = {
  title: 'Fitting the unit',
  what: 'Unit',
  fluid: 'Fluid in the unit',
  before: 'Before the unit goes on',
  first: [
    HOSE,
    'Fit a clean filter, and lead the breather hose upward to a dry, clean place, without a kink.',
    CHECK,
    'Start every fitting by hand. Do not force a tapered switch into a straight thread or past its shoulder: it splits the port.',
  ],
  last: [
    DRY,
    'Pedal firm and high, with the engine off and running. Lamps out.',
    'Low-speed check on private ground, only after all of that.',
  ],
};

const THREADS = UNIT.first.at(-1)!;
/** Handbook 8.4. */
const PRESSURE_HOSE =
  'Fit hoses marked for at least 1.25 times the highest relief that can stand in them. Flush what was wet with another fluid.';
/** Handbook 2. */
const VESSEL =
  'A new accumulator comes with its gas in it: fit it with nothing stored in its line. The old one goes away as a charged vessel.';

/** A unit by itself that is fed with fluid. */
const FED_UNIT: Words = { ...UNIT, first: [PRESSURE_HOSE, VESSEL, THREADS] };

/** Handbook 14, pedal boosters: the rod first, the pedal last. */
const VEHICLE: Words = {
  title: 'Fitting parts to the vehicle',
  what: 'Vehicle',
  fluid: 'Fluid of the system',
  before: 'Before a booster or master cylinder goes on',
  first: [
    'The pushrod first: set it to its length, and measure its clearance at the master cylinder with the vacuum off and on. Too long drags and locks; too short wastes travel.',
    'Bleed the master cylinder on the bench before it goes on.',
    'Then the booster, the lines, the vacuum hose, the fluid, the bleeding. The pedal is connected last.',
    HOSE,
    CHECK,
    'A clean filter behind the pedal, its foam in place.',
    'Adjust the shoes before bleeding.',
  ],
  last: [
    DRY,
    'Pedal firm and high, with the engine off and running. Lamps out, stop lamps on with the pedal.',
    'Engine off, pedal pumped until it changes no more and held: as the engine starts it drops and stands.',
    'Every wheel free by hand with the pedal up.',
    'Low-speed check on private ground, only after all of that.',
  ],
};

/** The same where the booster is fed with fluid. */
const FED_VEHICLE: Words = {
  ...VEHICLE,
  first: [
    'The pushrod first: set it to its length, and measure its clearance at the master cylinder with and without assist. Too long drags and locks; too short wastes travel.',
    'Bleed the master cylinder on the bench before it goes on.',
    'Then the booster, the lines, the fluid, the bleeding. The pedal is connected last.',
    PRESSURE_HOSE,
    VESSEL,
    'Adjust the shoes before bleeding.',
  ],
  last: [
    DRY,
    'Pedal firm and high, fed and with nothing feeding it. Lamps out, stop lamps on with the pedal.',
    'Nothing feeding it, pedal applied 40 times and held: as its pressure comes it falls.',
    'Every wheel free by hand with the pedal up.',
    'Low-speed check on private ground, only after all of that.',
  ],
};

/** What is seen to before a brake on stored pressure moves, with nothing of a foot that pushes. Handbook 8.6, 8.7. */
const FULL_POWER_LAST = [
  DRY,
  'Fed: both circuits charged and their lamps out, stop lamps on with the pedal.',
  'Nothing feeding it: full applications counted until a lamp lights, as many as the maker names at least.',
  'Every wheel free by hand with the pedal up.',
  'Low-speed check on private ground, only after all of that.',
];
const SEATED =
  'Each accumulator by its label, never by its thread; its ring in its recess before it is screwed on.';

/** A valve or its accumulators by themselves, and parts of a brake on stored pressure on their vehicle. */
const FULL_POWER_UNIT: Words = {
  ...UNIT,
  first: [PRESSURE_HOSE, VESSEL, SEATED, THREADS],
  last: FULL_POWER_LAST,
};
const FULL_POWER_VEHICLE: Words = {
  ...VEHICLE,
  before: 'Before a valve, an accumulator or a line goes on',
  first: [PRESSURE_HOSE, VESSEL, SEATED, 'Pedal free in its pivot, its stop set by the maker’s figure.'],
  last: FULL_POWER_LAST,
};
/** How those are bled: no school of wheels and masters speaks of them. */
const FULL_POWER_BLEEDING = {
  title: 'Each circuit by itself, in the maker’s order',
  steps: [
    'Fed as the maker says, the pedal pressed lightly: each screw opened slowly into a closed hose until it runs clear.',
    'The reservoir filled as it falls, with the fluid named above only.',
    'Each circuit emptied, the level read then, and filled to its mark.',
  ],
};

/** A booster by itself goes on as one does that was mended on its vehicle. */
const asBooster = (words: Words): Words => ({
  ...words,
  title: 'Fitting the booster',
  what: 'Unit',
  before: 'Before the booster goes on',
});

/** A unit by itself, and parts that go on their vehicle. */
const WORDS = {
  vacuum: [UNIT, VEHICLE],
  fluid: [FED_UNIT, FED_VEHICLE],
  fullPower: [FULL_POWER_UNIT, FULL_POWER_VEHICLE],
} as const;

/** What is said beside them: of what works with vacuum, and of what is fed with fluid. */
const CAUTIONS_OF = {
  vacuum: ['fluids', 'vacuum', 'running-engine', 'open-line', 'lining-dust'],
  fluid: ['fluids', 'held-by-check-valves', 'charged-vessel', 'running-engine', 'open-line', 'lining-dust'],
} as const;

/** Of what its own test warns of, what whoever fits it meets as well. */
const FITTERS_MEET: readonly CautionId[] = [
  'high-voltage',
  'stored-charge',
  'high-current',
  'wakes-itself',
  'starts-by-itself',
  'body-moves',
];

/** Hazards first that come with the kind; of an engine where it has one to do with, or nobody knows where it goes. */
function cautionsOf(kind: FamilyKind, body: unknown, fed: keyof typeof CAUTIONS_OF): CautionId[] {
  const { setting, procedure } = FAMILIES[kind];
  const { steps } = procedure(body, {});
  const own = FITTERS_MEET.filter((id) => steps[0]!.cautions.includes(id));
  const hasEngine = setting !== 'vehicle' || steps.some(({ state }) => state.engine !== undefined);
  return [...own, ...CAUTIONS_OF[fed].filter((id) => id !== 'running-engine' || hasEngine)];
}

/** What goes with the unit to whoever fits it. Handbook 10 and 14; the bleeding order is the school chosen. */
export function installationDocument(record: JobRecord, printing: Printing): Document {
  const { job, profile, fitting } = record;
  const body = profile.body as { name: string; lampSwitch?: unknown };
  const { setting, ports, fullPower, fluid: fluidOf } = FAMILIES[profile.kind];
  const onVehicle = setting === 'vehicle';
  const dry = fluidOf(profile.body) === null;
  const fed = ports.some(({ quantity }) => quantity === 'depression') ? 'vacuum' : 'fluid';
  const [unit, vehicle] = WORDS[fullPower ? 'fullPower' : fed];
  const words = onVehicle ? vehicle : dry ? asBooster(vehicle) : unit;
  const fluid = fitting ? FLUIDS[fitting.fluid] : null;
  const order: BleedingOrder = fitting?.bleeding ?? 'wheels-first';
  const inLines = !onVehicle && !dry;
  const bleeding = fullPower ? FULL_POWER_BLEEDING : bleedingOf(order, inLines);
  const other = order === 'wheels-first' ? 'master-first' : 'wheels-first';
  return {
    name: `${job.tag} installation`,
    blocks: [
      ...letterhead(printing.shop),
      { kind: 'title', text: words.title, aside: [job.tag, printing.day(record.lastAt)] },
      {
        kind: 'facts',
        facts: [
          [words.what, `${body.name}, ${FAMILIES[profile.kind].name.toLowerCase()}`],
          ...(job.serial ? [['Serial number', job.serial] as const] : []),
          ['For', [job.customer, job.from].filter(Boolean).join(', ') || 'not given'],
          [words.fluid, fluid ?? 'NOT CONFIRMED YET: ask the bench before filling'],
        ],
      },
      {
        kind: 'paragraph',
        strong: true,
        text: 'The vehicle maker’s procedure comes first. Where it differs from this sheet, it counts.',
      },
      { kind: 'heading', text: words.before },
      {
        kind: 'boxes',
        items: [
          'Drain the old fluid from the whole system first. What is left in the lines goes straight into what was rebuilt.',
          fluid
            ? `Flush and fill with ${fluid} only. Glycol, silicone and mineral fluids do not mix; the wrong one destroys the seals.`
            : 'Have the bench confirm the fluid before anything is filled.',
          ...words.first,
          ...(body.lampSwitch
            ? ['Connect the stop-lamp switch and see that the lamps come on and go out.']
            : []),
        ],
      },
      { kind: 'heading', text: `Bleeding: ${bleeding.title.toLowerCase()}` },
      { kind: 'list', numbered: true, items: bleeding.steps.map((text) => ({ text })) },
      ...(fullPower
        ? []
        : [
            {
              kind: 'paragraph' as const,
              text: `There are two schools. The other: ${bleedingOf(other, inLines).title.toLowerCase()}. Which one was used goes on the job. Keep the shuttle of a combination valve centred.`,
            },
          ]),
      { kind: 'heading', text: 'Before it moves' },
      {
        kind: 'boxes',
        items: [...words.last],
      },
      { kind: 'heading', text: 'Cautions' },
      {
        kind: 'list',
        items: cautionsOf(profile.kind, profile.body, fed).map((id) => ({
          lead: CAUTIONS[id].hazard,
          text: CAUTIONS[id].action,
        })),
      },
      { kind: 'heading', text: 'Not claimed' },
      { kind: 'paragraph', text: NOT_CLAIMED },
    ],
  };
}
