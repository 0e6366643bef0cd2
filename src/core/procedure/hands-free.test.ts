/** @jest-environment node */
import { benchOf, contextWith } from '../scenarios/bench';
import { captureNow, readyFor } from './hands-free';
import { liveByGauges, type LivePorts } from './live';
import { findItem, type ReadingItem } from '../contract/steps';

const BAR = 1e5;
const INHG = 3386.389;
const { procedure } = contextWith();
const item = (id: string) => findItem(procedure, id)!.item as ReadingItem;

/** What the ports show, in bar and inHg; everything settled unless named as moving. */
function ports(
  show: { input?: number; output?: number; supply?: number; activation?: number },
  moving: readonly string[] = [],
): LivePorts {
  const fluid = (name: string, value = 0) => ({
    value: value * BAR,
    settled: !moving.includes(name),
    step: 0.2 * BAR,
  });
  const vacuum = (name: string, value = 0) => ({
    value: value * INHG,
    settled: !moving.includes(name),
    step: 0.1 * INHG,
  });
  return {
    input: fluid('input', show.input),
    output: fluid('output', show.output),
    supply: vacuum('supply', show.supply),
    activation: vacuum('activation', show.activation),
  };
}

test('a gate within bounds is captured by itself where it is open, and nowhere else', () => {
  const gate: ReadingItem = { ...item('rest.supply'), gate: { low: 15 * INHG, high: 22 * INHG } };
  const at = (supply: number) => captureNow(procedure, gate, ports({ supply, activation: supply }));
  expect([at(14), at(20), at(23)]).toEqual([false, true, false]);
});

describe('a reading is captured by itself', () => {
  test.each([
    ['an input at its aim, settled', 'ratio.1.input', ports({ input: 12.1 }), true],
    ['an input still moving', 'ratio.1.input', ports({ input: 12.1 }, ['input']), false],
    ['an input not at its aim', 'ratio.1.input', ports({ input: 10 }), false],
    ['an output with its input at the aim', 'ratio.1.output', ports({ input: 12, output: 43 }), true],
    ['an output that has not settled', 'ratio.1.output', ports({ input: 12, output: 40 }, ['output']), false],
    ['an output whose input has gone elsewhere', 'ratio.1.output', ports({ input: 16, output: 58 }), false],
    ['a vented gauge near zero', 'zero.IN-H', ports({ input: 0.4 }), true],
    ['a gauge that is not vented', 'zero.IN-H', ports({ input: 12 }), false],
    ['a gate, at zero', 'safe.supply', ports({ supply: 0.05 }), true],
    ['a gate, a few steps above zero', 'safe.supply', ports({ supply: 0.4 }), false],
    ['a supply that is there', 'rest.supply', ports({ supply: 20, activation: 20 }), true],
    ['a supply that is not', 'rest.supply', ports({}), false],
    [
      'the crack, as activation leaves the supply',
      'crack.input',
      ports({ input: 3, supply: 20, activation: 18 }, ['input']),
      true,
    ],
    [
      'no crack while activation stands with the supply',
      'crack.input',
      ports({ input: 2, supply: 20, activation: 19.9 }),
      false,
    ],
    [
      'runout, with the working side empty',
      'runout.input',
      ports({ input: 33, supply: 20, activation: 0.1 }),
      true,
    ],
    [
      'no runout while some vacuum is left on it',
      'runout.input',
      ports({ input: 28, supply: 20, activation: 1.4 }),
      false,
    ],
    ['what a meter tells', 'switch.input', ports({ input: 4 }), false],
  ])('%s', (_name, id, show, expected) => {
    expect(captureNow(procedure, item(id), show)).toBe(expected);
  });
  test('a port that nothing reads is never captured', () => {
    expect(
      captureNow(procedure, item('ratio.1.output'), { ...ports({ input: 12 }), output: undefined }),
    ).toBe(false);
  });
});

describe('what is live by the gauges', () => {
  const known = {
    sources: { vacuum: 'on' },
    supply_Pa: 20 * INHG,
    input: 20 * BAR,
    inputQuantity: 'pressure',
    supplyQuantity: 'depression',
    inputPort: 'input',
    mayStand: false,
    spent: false,
  } as const;
  test('they know better than what was captured last', () => {
    expect(liveByGauges(known, ports({}))).toEqual({ ...known, supply_Pa: 0, input: 'released' });
    const off = { ...known, sources: { vacuum: 'off' }, supply_Pa: null, input: 'released' } as const;
    expect(liveByGauges(off, ports({ input: 30, supply: 12 }))).toEqual({
      ...off,
      supply_Pa: 12 * INHG,
      input: 30 * BAR,
      inputQuantity: 'pressure',
      supplyQuantity: 'depression',
      inputPort: 'input',
      mayStand: true,
    });
    expect(liveByGauges(off, ports({}))).toEqual(off);
  });
  test('where they do not read, it stands as captured', () => {
    expect(liveByGauges(known, {})).toEqual(known);
  });
});

describe('a servo that acts on a rod', () => {
  const { procedure: steps } = benchOf('rod-servo').contextWith();
  const of = (id: string) => findItem(steps, id)!.item as ReadingItem;
  const shown = (bar: number, force_N: number, settled = true): LivePorts => ({
    input: { value: bar * BAR, settled, step: 0.05 * BAR },
    output: { value: force_N, settled, step: 1 },
    supply: { value: 20 * INHG, settled: true, step: 0.1 * INHG },
  });
  test('where force begins is captured as the load cell moves, still or not', () => {
    expect(captureNow(steps, of('begin.input'), shown(1.9, 3, false))).toBe(false);
    expect(captureNow(steps, of('begin.input'), shown(2.1, 30, false))).toBe(true);
  });
  test('a force is captured with its pressure at the aim, and never by itself where a stopwatch is read', () => {
    expect(captureNow(steps, of('force.1.output'), shown(3, 255))).toBe(true);
    expect(captureNow(steps, of('force.1.output'), shown(6, 800))).toBe(false);
    expect(captureNow(steps, of('apply.time'), shown(12, 1200))).toBe(false);
  });
  test('each application of the reserve is one of its own: the fluid is let go between two', () => {
    const next = of('reserve.2');
    expect(readyFor(steps, next, shown(12, 1100))).toBe(false);
    expect(readyFor(steps, next, shown(0.3, 0))).toBe(true);
    expect(captureNow(steps, next, shown(12, 1100))).toBe(true);
    expect(readyFor(steps, of('force.1.output'), shown(12, 1100))).toBe(true);
  });
});

describe('a pedal valve', () => {
  const { procedure: steps } = benchOf('pedal-valve').contextWith();
  const hold = findItem(steps, 'hold.travel')!.item as ReadingItem;
  const at = (part: number): LivePorts => ({
    treadle: { value: part * hold.target_Pa!, settled: true, step: 2e-5 },
  });
  test('it is pressed at once from where it was let go, not read where it stands from the sweep', () => {
    expect(readyFor(steps, hold, at(1))).toBe(false);
    expect(readyFor(steps, hold, at(0))).toBe(true);
    expect(captureNow(steps, hold, at(1))).toBe(true);
  });
});

describe('a vehicle, where the input is a force and the output a pressure', () => {
  const { procedure: steps } = benchOf('vacuum-vehicle').contextWith();
  const of = (id: string) => findItem(steps, id)!.item as ReadingItem;
  const shown = (force_N: number, pressure: number, vacuum = 19): LivePorts => ({
    pedal: { value: force_N, settled: true, step: 1 },
    front: { value: pressure * BAR, settled: true, step: 0.2 * BAR },
    rear: { value: pressure * BAR, settled: true, step: 0.2 * BAR },
    supply: { value: vacuum * INHG, settled: true, step: 0.02 * INHG },
  });
  test.each(['sweep.2.front', 'sweep.2.rear'])('%s waits for the pedal to stand at its force', (id) => {
    expect(captureNow(steps, of(id), shown(0, 0))).toBe(false);
    expect(captureNow(steps, of(id), shown(85, 35))).toBe(false);
    expect(captureNow(steps, of(id), shown(61, 26))).toBe(true);
  });
  test('vacuum under a force is not captured with the pedal let go, nor vacuum that is not there', () => {
    const held = steps.steps
      .flatMap(({ items }) => items)
      .find((item): item is ReadingItem => item.kind === 'reading' && item.measures === 'supplyApplied')!;
    const force_N = held.target_Pa!;
    expect(force_N).toBeGreaterThan(100);
    expect(captureNow(steps, held, shown(0, 0))).toBe(false);
    expect(captureNow(steps, held, shown(force_N, 57))).toBe(true);
    expect(captureNow(steps, held, shown(force_N, 57, 0))).toBe(false);
  });
});
