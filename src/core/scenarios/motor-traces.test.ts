/** @jest-environment node */
import { withFault } from '../contract/family';
import { FAMILIES } from '../families/registry';
import { placeOf, readingOf } from '../model/vectors';
import { Running } from '../model/running';
import { gaussian, seeded } from '../numeric/chance';
import { analyse } from '../signals/analyse';
import type { Trace } from '../signals/trace';

const family = FAMILIES.electromechanical;
const ROOM = { barometer_Pa: 101_325, temperature_K: 293.15 };
const RATE_HZ = 500;
const HEAVY_N = 220;

/** A bench logged while somebody presses slowly, lets go, stamps and holds, at five hundred readings a second. */
function logged(fault: readonly [string, number] | null): { trace: Trace; unit: readonly number[] } {
  const unit = withFault(family, family.healthy(family.typical).values, fault);
  const bench = new Running(family.motion!, unit, { ...ROOM, supply_Pa: 0 }, family.ports.length);
  const random = seeded(7);
  const ports = ['pedal', 'output'] as const;
  const places = ports.map((port) => family.ports.findIndex(({ id }) => id === port));
  const rows: number[][] = [];
  const run = (seconds: number) => {
    for (let n = 0; n < seconds * RATE_HZ; n += 1) {
      bench.advance(1 / RATE_HZ);
      const shown = bench.read();
      rows.push(places.map((place, i) => shown[place]! + [0.3, 5e3][i]! * gaussian(random)));
    }
  };
  bench.set({ power: true });
  run(1);
  bench.set({ pedal_N: 120, press_NPerS: 100 });
  run(3);
  bench.set({ pedal_N: 0, press_NPerS: 400 });
  run(2);
  bench.set({ pedal_N: HEAVY_N, press_NPerS: 2e4 });
  run(2);
  bench.set({ pedal_N: 0 });
  run(1);
  const trace: Trace = {
    time_s: Float64Array.from(rows, (_, i) => i / RATE_HZ),
    channels: ports.map((port, i) => ({
      name: port,
      port,
      quantity: i === 0 ? 'force' : 'pressure',
      values: Float64Array.from(rows, (row) => row[i]!),
    })),
  };
  return { trace, unit };
}
const about = { ...ROOM, unit: family.logged(family.typical) };

test.each([
  ['a sound one', null],
  ['one with a weak motor', ['motor-weak', 0.6]],
  ['one on a low battery', ['battery-low', 0.6]],
] as const)(
  'a stamp on %s: found beside a slow press, and timed as the closed form has it',
  (_name, fault) => {
    const { trace, unit } = logged(fault);
    const { stretches } = analyse(trace, about);
    const stamps = stretches.filter(({ kind }) => kind === 'stamp');
    expect(stamps).toHaveLength(1);
    expect(stamps[0]!.from_s).toBeGreaterThan(5.7);
    const told = Object.fromEntries(stamps[0]!.results.map(({ id, estimate }) => [id, estimate]));
    const volts_V = unit[placeOf(family.parameters, 'source.battery_V')]!;
    const closed_s = readingOf(
      family,
      unit,
      { ...ROOM, ...family.full(family.typical), pedal_N: HEAVY_N, volts_V },
      'step',
    );
    const { stamp } = told;
    if (!stamp?.told) throw new Error('no time was told');
    // Over time its last part comes as slowly as its control lets it: within ten milliseconds and a tenth.
    expect(Math.abs(stamp.value - closed_s)).toBeLessThan(0.01 + 0.1 * closed_s);
    expect(told['stamp-overshoot']).toMatchObject({ told: true, value: 0 });
  },
);

test('slow presses are no stamps', () => {
  const { trace } = logged(null);
  const until = trace.time_s.findIndex((t) => t > 5.5);
  const slow = {
    time_s: trace.time_s.slice(0, until),
    channels: trace.channels.map((channel) => ({ ...channel, values: channel.values.slice(0, until) })),
  };
  expect(analyse(slow, about).stretches.filter(({ kind }) => kind === 'stamp')).toEqual([]);
});

test('a foot that rests on the pedal, about where a stamp would begin, is none', () => {
  const { trace } = logged(null);
  const random = seeded(3);
  const [pedal, output] = trace.channels as [Trace['channels'][number], Trace['channels'][number]];
  const resting = { ...pedal, values: pedal.values.map(() => 30 + 2 * gaussian(random)) };
  const { stretches } = analyse({ ...trace, channels: [resting, output] }, about);
  expect(stretches.filter(({ kind }) => kind === 'stamp')).toEqual([]);
});

test('a spike on the pedal is no stamp, and a log of two gauges on one line tells each number once', () => {
  const { trace } = logged(null);
  const [pedal, output] = trace.channels as [Trace['channels'][number], Trace['channels'][number]];
  const spiked = {
    ...pedal,
    values: pedal.values.map((_, i) => (i === 2000 ? 400 : 0.3 * Math.sin(7 * i * i))),
  };
  const stampsOf = (channels: Trace['channels']) =>
    analyse({ ...trace, channels }, about).stretches.filter(({ kind }) => kind === 'stamp');
  expect(stampsOf([spiked, output])).toEqual([]);
  const ids = stampsOf([pedal, output, { ...output, name: 'front', port: 'front' }])[0]!.results.map(
    ({ id }) => id,
  );
  expect(ids).toEqual([...new Set(ids)]);
});
