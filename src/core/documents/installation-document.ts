import { FAMILIES } from '../families/registry';
import { FLUIDS } from '../fluid/kinds';
import { CAUTIONS, NOT_CLAIMED } from '../contract/cautions';
import type { Document } from './document';
import { BLEEDING_ORDERS, type BleedingOrder } from '../records/installation';
import type { JobRecord } from '../records/job-record';
import { letterhead, type Printing } from './printing';

/** What goes with the unit to whoever fits it. Handbook 10 and 14; the bleeding order is the school chosen. */
export function installationDocument(record: JobRecord, printing: Printing): Document {
  const { job, profile, fitting } = record;
  const body = profile.body as { name: string; lampSwitch?: unknown };
  const fluid = fitting ? FLUIDS[fitting.fluid] : null;
  const order: BleedingOrder = fitting?.bleeding ?? 'wheels-first';
  const other = order === 'wheels-first' ? 'master-first' : 'wheels-first';
  return {
    name: `${job.tag} installation`,
    blocks: [
      ...letterhead(printing.shop),
      { kind: 'title', text: 'Fitting the unit', aside: [job.tag, printing.day(record.lastAt)] },
      {
        kind: 'facts',
        facts: [
          ['Unit', `${body.name}, ${FAMILIES[profile.kind].name.toLowerCase()}`],
          ...(job.serial ? [['Serial number', job.serial] as const] : []),
          ['For', [job.customer, job.from].filter(Boolean).join(', ') || 'not given'],
          ['Fluid in the unit', fluid ?? 'NOT CONFIRMED YET: ask the bench before filling'],
        ],
      },
      {
        kind: 'paragraph',
        strong: true,
        text: 'The vehicle maker’s procedure comes first. Where it differs from this sheet, it counts.',
      },
      { kind: 'heading', text: 'Before the unit goes on' },
      {
        kind: 'boxes',
        items: [
          'Drain the old fluid from the whole system first. What is left in the lines goes straight into the rebuilt unit.',
          fluid
            ? `Flush and fill with ${fluid} only. Glycol, silicone and mineral fluids do not mix; the wrong one destroys the seals.`
            : 'Have the bench confirm the fluid before anything is filled.',
          'Fit new vacuum-rated hose of the right bore. Hose that was wet with fluid or has gone soft collapses under vacuum.',
          'Fit a clean filter, and lead the breather hose upward to a dry, clean place, without a kink.',
          'Fit the check valve with its arrow towards the source. Try it with a bulb or hand pump, never by mouth.',
          'Start every fitting by hand. Do not force a tapered switch into a straight thread or past its shoulder: it splits the port.',
          ...(body.lampSwitch
            ? ['Connect the stop-lamp switch and see that the lamps come on and go out.']
            : []),
        ],
      },
      { kind: 'heading', text: `Bleeding: ${BLEEDING_ORDERS[order].title.toLowerCase()}` },
      { kind: 'list', numbered: true, items: BLEEDING_ORDERS[order].steps.map((text) => ({ text })) },
      {
        kind: 'paragraph',
        text: `There are two schools. The other: ${BLEEDING_ORDERS[other].title.toLowerCase()}. Which one was used goes on the job. Keep the shuttle of a combination valve centred.`,
      },
      { kind: 'heading', text: 'Before it moves' },
      {
        kind: 'boxes',
        items: [
          'Every joint dry on card with the pedal held down. Never feel for a leak by hand.',
          'Pedal firm and high, with the engine off and running. Lamps out.',
          'Low-speed check on private ground, only after all of that.',
        ],
      },
      { kind: 'heading', text: 'Cautions' },
      {
        kind: 'list',
        items: (['fluids', 'vacuum', 'running-engine', 'open-line', 'lining-dust'] as const).map((id) => ({
          lead: CAUTIONS[id].hazard,
          text: CAUTIONS[id].action,
        })),
      },
      { kind: 'heading', text: 'Not claimed' },
      { kind: 'paragraph', text: NOT_CLAIMED },
    ],
  };
}
