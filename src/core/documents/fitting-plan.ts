import { FLUIDS } from '../fluid/kinds';
import { CAUTIONS, type CautionId } from '../contract/cautions';
import { printQuantity } from '../quantities/print';
import { fitted } from '../vehicle/fitting';
import { placeOf, type CandidateFields, type Comparison } from '../shop/comparison';
import { cell, type Block, type Document } from './document';
import type { Printing } from './printing';

/** A hose is rated for so much more than the highest relief before it. Handbook 17. */
const HOSE_PART = 1.25;

/** How it goes on: first the rod, last the pedal. Handbook 17. */
const FIRST = [
  'Drain the old fluid from the master and its lines.',
  'Set the rod to its length: clearance at the master measured with the help off and on, typically 0.2 to 0.5 mm; the maker’s figure wins. Too long drags and locks, too short wastes travel.',
  'Bleed the master on the bench, before it goes on.',
  'Mount the unit: studs, plate, and its reservoir at the angle that was checked.',
];
const LAST = [
  'Fill with fresh fluid. Adjust the shoes before bleeding; where there is no bleed screw, crack the pipe.',
  'Bleed, and again after the first stop with help.',
  'Connect the pedal last.',
  'Look at every joint standing, under a firm pedal, before any movement.',
  'Firm pedal, lamps out, then a low-speed check on private ground. A road test only after that.',
];

const FEEDS: Readonly<Record<CandidateFields['assist'], readonly string[]>> = {
  vacuum: [
    'Vacuum hose that does not fall in (a fuel hose is none), its check valve with the arrow to the source, no sag in which condensate stands.',
    'Breather with a clean filter, away from water; its hose must not fall in either.',
  ],
  pumped: [
    'Set the clocking of every bent end before it is tightened: the hose will not twist. Two spanners on a flexible hose.',
    'Mind the hand of each thread: a reusable end may be left-handed on the hose and right-handed at the fitting.',
    'Clear of radiator, exhaust and steering; a filter in the return, and the return free: one that is shared with a restricted cooler applies the brake by itself.',
    'Bleed the pump circuit with the wheels off the ground, engine off first, then turning lock to lock.',
  ],
  electric: [
    'Feed with its own fuse close to the battery, earth to the same place; nothing is connected before the fuse is out and kept.',
    'Connector seated and locked, every pin checked against the maker’s drawing.',
    'Battery on last; the control unit wakes: hands off the pedal.',
  ],
};

/** What can hurt somebody while it is fitted. */
const WARNED: Readonly<Record<CandidateFields['assist'], readonly CautionId[]>> = {
  vacuum: ['fluids', 'spring-casing', 'running-engine'],
  pumped: ['fluids', 'charged-vessel', 'running-engine'],
  electric: ['fluids', 'high-current', 'wakes-itself'],
};

const lines = (candidate: CandidateFields, relief_Pa: number | null, set: Printing['set']) => {
  const rated = (part: number) =>
    relief_Pa === null
      ? 'not known yet: the relief before it'
      : `${printQuantity(part * relief_Pa, 'pressure', set)} at least`;
  const measured = cell('measure on the vehicle');
  if (candidate.assist === 'vacuum')
    return [
      [cell('Source to check valve'), cell('Vacuum hose'), cell('against collapse'), measured],
      [cell('Check valve to unit'), cell('Vacuum hose'), cell('against collapse'), measured],
    ];
  if (candidate.assist === 'pumped')
    return [
      [
        cell('Pump to unit'),
        cell('Pressure hose, crimped or reusable ends'),
        cell(rated(HOSE_PART)),
        measured,
      ],
      [
        cell('Unit to steering gear'),
        cell('Pressure hose, crimped or reusable ends'),
        cell(rated(HOSE_PART)),
        measured,
      ],
      [cell('Return to reservoir'), cell('Return hose; push-on only here'), cell('low pressure'), measured],
    ];
  return [[cell('Battery to unit'), cell('Copper, fused'), cell('see the wire’s margin'), measured]];
};

/** What is handed to whoever fits a candidate: whether it fits, in which order, with which lines, and what is checked. */
export function fittingPlan(
  { place, candidates }: Comparison,
  at: number,
  printing: Printing,
): Document | null {
  const candidate = candidates[at];
  if (!candidate) return null;
  const { set } = printing;
  const found = fitted(placeOf(place), { ...candidate });
  const verdict =
    found.verdict === 'fits'
      ? 'By the figures that were given it fits.'
      : found.verdict === 'not-known'
        ? 'Whether it fits is not known yet.'
        : 'It does not fit. This plan is not to be carried out as it stands.';
  const blocks: Block[] = [
    { kind: 'title', text: 'Fitting plan', aside: [place.name] },
    { kind: 'headline', text: candidate.name },
    { kind: 'lead', text: verdict },
    ...(found.reasons.length > 0
      ? [{ kind: 'list', items: found.reasons.map((text) => ({ text })) } as const]
      : []),
    { kind: 'heading', text: 'Before anything is opened' },
    {
      kind: 'list',
      items: [
        ...WARNED[candidate.assist].map((id) => ({ text: `${CAUTIONS[id].hazard} ${CAUTIONS[id].action}` })),
        { text: `Fluid: ${place.fluid ? FLUIDS[place.fluid] : 'not known yet, ask before filling'}.` },
      ],
    },
    { kind: 'heading', text: 'Order' },
    {
      kind: 'list',
      numbered: true,
      items: [...FIRST, ...FEEDS[candidate.assist], ...LAST].map((text) => ({ text })),
    },
    { kind: 'heading', text: 'Lines to cut' },
    {
      kind: 'table',
      name: 'Lines to cut',
      columns: ['From, to', 'Kind', 'Rating', 'Length, thread and hand'],
      widths: [24, 30, 22, 24],
      rows: lines(candidate, place.pumpRelief_Pa, set),
    },
    { kind: 'heading', text: 'Checked, and by whom' },
    {
      kind: 'boxes',
      items: [
        'Rod clearance, help off: ______  on: ______',
        'No joint seeps under a firm pedal',
        'Pedal comes back at once; wheels turn free',
        'Lamps out',
        'Low-speed check on private ground',
      ],
    },
    {
      kind: 'paragraph',
      text: 'The maker’s procedure and the rules that apply where the vehicle is registered come first; a licensed technician signs for the vehicle. A plan says nothing about whether it may be driven.',
    },
  ];
  return { name: `Fitting plan ${candidate.name}`, blocks };
}
