import type { FluidKind } from '../fluid/kinds';
import type { Part } from '../contract/family';
import { allAtRest } from '../contract/sources';
import type { Procedure, Step } from '../contract/steps';
import type { Settling } from '../contract/family';
import { mustBe, untilMended } from './bench-items';
import { bledLook, bleedingLooks, closedLook, dryLook, pedalLook } from './closing-looks';

/**
 * The step that closes what was opened while a run was done: closed, bled where it holds fluid, looked at for leaks, and
 * on a vehicle the pedal pressed. The run neither goes on nor ends before it. Handbook 2 and 8.
 *
 * @param parts what was worked on
 * @param count tells one such step of a run from the next
 * @returns null where nothing was opened
 */
export function closingStep(
  procedure: Procedure,
  fluid: FluidKind | null,
  parts: readonly Pick<Part, 'name' | 'opens'>[],
  count: number,
): Settling | null {
  const opened = parts.filter(({ opens }) => opens.length > 0);
  if (opened.length === 0) return null;
  const ports = new Set(opened.flatMap(({ opens }) => opens));
  const wet = procedure.steps.some(({ items }) =>
    items.some((item) => item.kind === 'reading' && ports.has(item.port) && item.quantity === 'pressure'),
  );
  const onVehicle = procedure.setting === 'vehicle';
  const id = `closing.${count}`;
  const names = opened.map(({ name }) => name.toLowerCase()).join(', ');
  const step: Step = {
    id,
    title: 'Closed again',
    instruction: `Opened: ${names}. Close it${wet ? ', bleed it' : ''} and look at it before the test goes on.`,
    cautions: wet ? ['fluids', 'bench-pressure'] : ['vacuum'],
    state: allAtRest(procedure.steps.map(({ state }) => state)),
    needs: [],
    mandatory: true,
    closing: true,
    ...(wet && { fluid: true }),
    leaves: { input: 'released' },
    items: [
      closedLook(id, 'Every union, clip, hose and screw that was off: back on and tight?'),
      ...(wet
        ? [
            ...(onVehicle && fluid ? bleedingLooks(id, fluid) : [bledLook(id, fluid)]),
            dryLook(id, 'A little pressure on and off again: dry where it was open? Use card, never a hand.'),
          ]
        : [
            mustBe(
              `${id}.tight`,
              'Looked at for leaks',
              'Hoses pushed home, no split at their ends, seals seated?',
              'Sound',
              ['leaks', 'Not sound', untilMended('Renew or seat it, then look again.')],
            ),
          ]),
      ...(onVehicle
        ? [pedalLook(id, 'Pedal pressed hard and held: firm, and does it stay where it is?')]
        : []),
    ],
  };
  return { after: procedure.steps[0]!.id, step };
}
