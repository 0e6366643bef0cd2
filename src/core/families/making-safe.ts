import type { Port } from '../contract/family';
import type { Rig } from '../contract/run-context';
import type { Sources } from '../contract/sources';
import type { Item, ObservationItem, Step } from '../contract/steps';
import { gaugeOfGate } from '../procedure/check-capture';
import { safeId } from '../procedure/opening';
import { cocked, gauged, mustBe, openCocks, readingOn, untilMended, VACUUM_OFF } from './bench-items';

/** The last step: nothing comes off before every gauge reads zero. @param off every source that the unit has, at rest */
export const makeSafeStep = (
  ports: readonly Port[],
  rig: Rig,
  instruction: string,
  off: Sources = VACUUM_OFF,
): Step => ({
  id: 'make-safe',
  title: 'Make safe',
  instruction: `${instruction}${openCocks(rig)} Every gauge must read zero before any line comes off.`,
  cautions: ['open-line'],
  state: off,
  needs: [],
  mandatory: true,
  leaves: { input: 'released', charge: 'spent' },
  items: safeItems(ports, rig),
});

/**
 * Make safe: every gauge back at zero by reading, never by a tick. Where no gauge can be fitted, what holds pressure or vacuum
 * is used up and then let out, each looked at. Handbook 2.
 */
export const safeItems = (ports: readonly Port[], rig: Rig): Item[] =>
  gauged(ports).flatMap((port): Item[] =>
    (rig[port.id] ?? []).length > 0
      ? [readingOn(ports, safeId(port.id), port.id, 'zero', safePrompt(port, rig), { gate: 'zero' })]
      : holds(port)
        ? emptyingLooks(port)
        : [],
  );

/** Whether something can stand at a port once its source is off that applying would use up. */
const holds = ({ quantity, bledOnly }: Port) =>
  !bledOnly && (quantity === 'pressure' || quantity === 'depression');

/** Applications that use up what an unmeasured store can hold. Handbook 2. */
const TO_EMPTY = 40;

/** The two looks at a port that has no gauge. */
const emptyingLooks = ({ id, name, quantity }: Port): ObservationItem[] => [
  {
    ...mustBe(
      `${safeId(id)}.spent`,
      `${name} used up`,
      `${name} has no gauge. Every source off and isolated, and the brake fully applied ${TO_EMPTY} times since?`,
      `Isolated, ${TO_EMPTY} times`,
      [
        'fewer',
        'Fewer, or still assisted',
        untilMended(
          `Isolate every source, apply the brake ${TO_EMPTY} times and more until nothing helps, then look again.`,
        ),
      ],
    ),
    empties: id,
  },
  {
    ...mustBe(
      `${safeId(id)}.flow`,
      `${name} let out`,
      quantity === 'pressure'
        ? `${name}: bleed screw opened slowly into a closed hose. Has the flow stopped?`
        : `${name}: hose eased off at its end. Does no air rush in any more?`,
      quantity === 'pressure' ? 'Flow has stopped' : 'No rush of air',
      [
        'flows',
        'It still comes',
        untilMended('Leave it until nothing comes, then look again. Nothing else is opened before.'),
      ],
    ),
    empties: id,
  },
];

function safePrompt({ id, name }: Port, rig: Rig): string {
  const open = cocked(rig[id]).length > 0 && gaugeOfGate(rig[id] ?? []);
  return `${name}: read ${open ? `${open.tag}, which no cock can shut off` : 'the gauge'}. It must be at zero.`;
}
