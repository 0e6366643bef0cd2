import { gaugeOfGate } from './check-capture';
import { ventedGates } from './opening';
import type { Instrument } from '../metrology/instrument';
import type { Port } from '../contract/family';
import type { RunContext } from '../contract/run-context';
import type { RunEvent } from '../contract/events';
import type { Item, Procedure, ReadingItem, Step } from '../contract/steps';

/** What an exchange of gauges is about. */
export interface ExchangePlan {
  /** The gauge that both ports' readings are compared by: it stays where it is. */
  readonly against: Instrument;
  readonly out: Instrument;
  readonly in: Instrument;
  /** Inputs that are read once more, Pa. */
  readonly inputs_Pa: readonly number[];
  /** Reading of the twin that the output is, at these inputs. */
  readonly measures: string;
  /** Step behind which it is done. */
  readonly after: string;
}

/**
 * The step that settles which of two gauges is wrong: a third one is put in the place of one of them, and some inputs
 * are read once more. No gauge comes off before both lines are seen to be at zero. Handbook 5 and 2.
 */
export function exchangeStep(context: RunContext<unknown>, ports: readonly Port[], plan: ExchangePlan): Step {
  const { against, out, in: fresh } = plan;
  const id = exchangeId(plan);
  const quantityOf = (port: string) => ports.find((one) => one.id === port)!.quantity!;
  const reading = (
    own: string,
    port: string,
    more: Partial<ReadingItem> & Pick<ReadingItem, 'prompt' | 'measures'>,
  ) => ({ kind: 'reading', id: own, port, quantity: quantityOf(port), ...more }) satisfies ReadingItem;
  const gate = (port: string, usual: Instrument) => {
    // A gauge behind a cock cannot show that its line is empty.
    const { tag } = gaugeOfGate(context.rig[port] ?? []) ?? usual;
    return reading(`${id}.safe.${port}`, port, {
      prompt: `Input released: read ${tag}. It must be at zero before a gauge comes off.`,
      measures: 'zero',
      gauge: tag,
      gate: 'zero',
    });
  };
  const rows = plan.inputs_Pa.flatMap((target_Pa, i): Item[] => [
    reading(`${id}.${i + 1}.input`, 'input', {
      prompt: 'Set the input and read it.',
      measures: 'input',
      target_Pa,
      gauge: against.tag,
    }),
    reading(`${id}.${i + 1}.output`, 'output', {
      prompt: `Read the output on ${fresh.tag}.`,
      measures: plan.measures,
      target_Pa,
      inputFrom: `${id}.${i + 1}.input`,
      gauge: fresh.tag,
    }),
  ]);
  return {
    id,
    title: `${fresh.tag} in ${out.tag}’s place`,
    instruction: `Release the input and read both lines at zero. Then put ${fresh.tag} where ${out.tag} stands, vent it, and read the inputs below once more. ${fresh.tag} stays on for the outputs that follow.`,
    cautions: ['bench-pressure', 'open-line'],
    state: { vacuum: 'off' },
    needs: [],
    gates: ventedGates(ports),
    leaves: { input: 'released' },
    exchange: { out: out.tag, in: fresh.tag, against: against.tag },
    items: [
      gate('input', against),
      gate('output', out),
      reading(`zero.${fresh.tag}`, 'output', {
        prompt: `${fresh.tag} in ${out.tag}’s place, vented: read it.`,
        measures: 'zero',
        gauge: fresh.tag,
      }),
      ...rows,
    ],
  };
}

export const exchangeId = ({ out, in: fresh }: Pick<ExchangePlan, 'out' | 'in'>): string =>
  `exchange.${out.tag}.${fresh.tag}`;

/** Whether this step has been added to a procedure, whatever came of it. */
const hasStep = (procedure: Procedure, id: string): boolean => procedure.steps.some((step) => step.id === id);

/**
 * What a run is made under, with the steps that were added while it was done. An added step stands in the procedure for
 * good; whether it is to be done is the run's state.
 */
export function contextWith<C extends Pick<RunContext<unknown>, 'procedure'>>(
  context: C,
  events: readonly RunEvent[],
): C {
  return events.reduce((sofar, event) => {
    if (event.type !== 'added' || hasStep(sofar.procedure, event.step.id)) return sofar;
    const at = sofar.procedure.steps.findIndex(({ id }) => id === event.after) + 1;
    const steps = sofar.procedure.steps.toSpliced(at || sofar.procedure.steps.length, 0, event.step);
    return { ...sofar, procedure: { ...sofar.procedure, steps } };
  }, context);
}
