/** @jest-environment node */
import { gauges, rig } from '@/core/scenarios/bench';
import { EMPTY_RUN } from '@/core/procedure/run';
import { type RunState } from '@/core/contract/run-state';
import type { LiveMoment } from '@/core/shop/live';
import { gaugeNow, momentOf, portsNow, seenByEye, unreadNow } from './live-gauges';

const BAR = 1e5;
const moment = (shown: Record<string, number>, settled: readonly string[] = []): LiveMoment => ({
  t_s: 1,
  shown,
  settled,
});

describe('the gauge that reads now', () => {
  test.each([
    ['the low one within its range', { 'IN-L': 6 * BAR, 'IN-H': 6.1 * BAR }, 'IN-L'],
    ['the high one past the end of the low', { 'IN-L': 10.2 * BAR, 'IN-H': 20 * BAR }, 'IN-H'],
    ['the only one that the logger has', { 'IN-H': 2 * BAR }, 'IN-H'],
    ['the widest where all are at their end', { 'IN-L': 10.2 * BAR, 'IN-H': 170 * BAR }, 'IN-H'],
  ])('%s', (_name, shown, tag) => {
    expect(gaugeNow(rig.input, moment(shown))!.tag).toBe(tag);
  });
  test('none where the logger has none of the port', () => {
    expect(gaugeNow(rig.input, moment({ 'OUT-H': BAR }))).toBeNull();
  });
});

describe('a channel that is not the gauge of its name', () => {
  const channel = (tag: string, unit: string) => ({ tag, unit, low: 0, high: 100 });
  const now = moment({ 'IN-L': 6 * BAR, 'IN-H': 6.1 * BAR });
  test('is left out, and named among those that cannot be read', () => {
    const channels = [channel('IN-L', 'DEGC'), channel('IN-H', 'BAR'), channel('X-9', 'V')];
    const seen = momentOf(now, channels, rig.input);
    expect(seen.shown).toEqual({ 'IN-H': 6.1 * BAR });
    expect(unreadNow(seen, channels, rig.input)).toBe('The logger cannot read IN-L.');
  });
  test('where all are what they are called, the moment stays as it is', () => {
    const channels = [channel('IN-L', 'BAR'), channel('IN-H', 'KPA')];
    expect(momentOf(now, channels, rig.input)).toBe(now);
    expect(unreadNow(now, channels, rig.input)).toBeNull();
    // One that the logger does not have is read by eye.
    expect(unreadNow(moment({}), [], rig.input)).toBeNull();
  });
});

describe('what the ports show', () => {
  /** A run in which one gauge was read vented, a little off zero. */
  const vented: RunState = {
    ...EMPTY_RUN,
    captures: [
      {
        id: '00000000-0000-4000-8000-000000000001',
        at: '2026-11-23T08:00:00.000Z',
        item: 'zero.IN-H',
        value_SI: 0.4 * BAR,
        by: 'gauge',
        place: 0,
        typed: '',
        instrument: 'IN-H',
        confirmedUnlikely: false,
        struck: false,
        gateShut: false,
        stale: false,
        lapsed: false,
        session: 0,
      },
    ],
  };
  test('the vented zero taken off, and whether it stands still', () => {
    const ports = portsNow(
      rig,
      vented,
      moment({ 'IN-L': 10.2 * BAR, 'IN-H': 20.4 * BAR, 'VAC-S': 6e4 }, ['VAC-S']),
    );
    expect(ports.input!.value / BAR).toBeCloseTo(20, 9);
    expect(ports.input).toMatchObject({ settled: false, step: gauges.inHigh.step_Pa });
    expect(ports.supply).toMatchObject({ value: 6e4, settled: true });
    expect([ports.output, ports.activation]).toEqual([undefined, undefined]);
  });
});

test('what is read by eye is called as its place is, and shown only where there is such a place', () => {
  const channels = ['P-71', 'travel', 'gap', 'left'].map((tag) => ({ tag }));
  const now = moment({ 'P-71': 0, travel: 0.012, gap: -2e-5, left: -5e-4 });
  const ports = [
    { id: 'travel', name: 'Pedal travel', quantity: 'travel' },
    { id: 'front', name: 'Front line pressure', quantity: 'pressure' },
  ] as const;
  expect(seenByEye(channels, new Set(['P-71']), now, ports)).toEqual([
    { name: 'Pedal travel', value_SI: 0.012, quantity: 'travel' },
  ]);
  // A gauge of the run is none of them, whatever it is called.
  expect(seenByEye(channels, new Set(['travel']), now, ports)).toEqual([]);
});
