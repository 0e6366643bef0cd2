import { setItem, type Procedure, type ReadingItem } from '../contract/steps';
import { setPort, type LivePort, type LivePorts } from './live';
import { GATE_STEPS } from './measured-item';

/** How near an input has to be to its aim, as a part of it. */
const NEAR_AIM = 0.03;
/** A vented gauge stands within so many steps of zero; what opens a line stands nearer. */
const ZERO_STEPS = 10;
/** The working side has moved when it is below the supply by this part of it. */
const MOVED_PART = 0.04;
/** An output has begun when its gauge stands so many readable steps above zero. */
const BEGUN_STEPS = 8;
/** Between two applications the input falls below this part of its aim. */
const LET_GO_PART = 0.2;
/** The working side is taken for empty of vacuum below this part of the supply. */
const EMPTY_PART = 0.02;

/** The port at which the input is set, and where it has to stand for a reading: as the item says, or the one it goes with. */
export function inputAim(procedure: Procedure, item: ReadingItem) {
  const set = setPort(procedure);
  return { set, aim: item.target_Pa ?? setItem(procedure, item, set)?.target_Pa };
}

/**
 * Whether a reading can be captured now without a hand: it has settled where it should be, or the moment that the item
 * asks for has come. What only a meter or an eye tells is never captured by itself.
 */
export function captureNow(procedure: Procedure, item: ReadingItem, ports: LivePorts): boolean {
  const own = ports[item.port];
  if (!own || item.moment === 'by-hand') return false;
  const { set, aim } = inputAim(procedure, item);
  const { [set]: input, output, supply, activation } = ports;
  if (item.measures === 'zero')
    return own.settled && Math.abs(own.value) <= (item.gate ? GATE_STEPS : ZERO_STEPS) * own.step;
  if (item.moment === 'output-begins') return Boolean(output && output.value > BEGUN_STEPS * output.step);
  if (item.moment === 'working-side-moves')
    return Boolean(
      supply &&
      activation &&
      supply.value > 0 &&
      supply.value - activation.value > Math.max(3 * activation.step, MOVED_PART * supply.value),
    );
  if (!own.settled) return false;
  // A gate within bounds is read where it is open: outside them nothing goes on anyway.
  if (item.gate && item.gate !== 'zero') {
    const { low = -Infinity, high = Infinity } = item.gate;
    if (own.value < low || own.value > high) return false;
  }
  if (item.moment === 'working-side-empty')
    return Boolean(
      supply && activation && activation.value <= Math.max(3 * activation.step, EMPTY_PART * supply.value),
    );
  // Each gauge by its own readable step: that of a pressure says nothing of a force.
  const atAim = ({ value, step }: LivePort) =>
    aim === undefined || Math.abs(value - aim) <= Math.max(NEAR_AIM * aim, 5 * step);
  if (item.measures === 'input') return atAim(own);
  if (item.port === 'supply' && own.value <= 0) return false;
  if (item.port === 'supply' && aim === undefined) return true;
  // A reading that goes with an input is worth nothing while the input is elsewhere.
  return !input || (input.settled && atAim(input));
}

/** Whether the hand has done what must come before a reading can be captured by itself: let go since the one before. */
export function readyFor(procedure: Procedure, item: ReadingItem, ports: LivePorts): boolean {
  if (item.moment !== 'next-application') return true;
  const { set, aim } = inputAim(procedure, item);
  return Boolean(ports[set] && ports[set].value < LET_GO_PART * (aim ?? 0));
}
