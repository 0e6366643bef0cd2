/** @jest-environment node */
import { analyse } from '../signals/analyse';
import type { About, Analysis } from '../signals/analysis';
import { detectLayout } from '../signals/csv/detect';
import { LogReader } from '../signals/csv/reader';
import type { Trace } from '../signals/trace';
import { printSentence } from '../quantities/sentence';
import { recordBench, reserveTest } from '../twin/recording';
import { bench, benchOf, faultyTruth, truthWith } from './bench';
import { BAR, benchTrace, family, INHG, profile, ROOM, WHOLE_TEST } from './traces';

const about: About = {
  ...ROOM,
  unit: family.logged(profile),
};
const LOGGER = { seed: 17, rate_Hz: 50, pressureNoise_Pa: 0.1 * BAR, vacuumNoise_Pa: 80 };

const estimateOf = ({ stretches }: Analysis, id: string) => {
  const found = stretches.flatMap(({ results }) => results).find((r) => r.id === id && r.estimate.told);
  if (!found?.estimate.told) throw new Error(`${id}: not told`);
  return found.estimate;
};

/** Writes a trace as a logger in another land would, and reads it back. */
function throughCsv({ time_s, channels }: Trace): Trace {
  const head = ['Zeit [s]', 'Eingang [bar]', 'Ausgang [bar]', 'Unterdruck [mbar]', 'Activation [mbar]'].join(
    ';',
  );
  const lines = Array.from(time_s, (t, i) =>
    [
      t.toFixed(3),
      ...channels.map(({ quantity, values }) =>
        quantity === 'pressure' ? (values[i]! / BAR).toFixed(3) : (-values[i]! / 100).toFixed(1),
      ),
    ]
      .join(';')
      .replaceAll('.', ','),
  );
  const text = [head, ...lines, ''].join('\r\n');
  const found = detectLayout(text.slice(0, 60_000));
  if (!found.ok) throw new Error(found.why);
  const reader = new LogReader(found.layout, ROOM.barometer_Pa);
  const bytes = new TextEncoder().encode(text);
  for (let at = 0; at < bytes.length; at += 7919) reader.push(bytes.subarray(at, at + 7919));
  return reader.finish().trace;
}

describe('the same unit typed, on the live bench and from a file', () => {
  const truths = [
    ['healthy, good supply', truthWith(), 20],
    ['healthy, weak supply', truthWith({ supply_Pa: 15 * INHG }), 15],
    ['torn diaphragm', faultyTruth('torn-diaphragm', 0.4), 20],
  ] as const;
  test.each(truths)(
    '%s: boost ratio, runout and area agree within their uncertainty',
    (_name, truth, supply) => {
      const typed = bench(truth);
      const live = benchTrace(truth.parameters, supply * INHG, WHOLE_TEST, LOGGER);
      const analysis = analyse(live, about);
      const file = analyse(throughCsv(live), about);
      for (const [result, id, part] of [
        ['boost-ratio', 'boost-ratio', 0.01],
        ['runout-input', 'runout-input', 0.02],
        ['effective-area', 'effective-area', 0.01],
      ] as const) {
        const [a, b, c] = [typed.byId(result), estimateOf(analysis, id), estimateOf(file, id)];
        if (a.value === null) continue;
        // A typed reading is known as its gauge is; a trace as its noise is, and by how fast the handle was pulled.
        const within = (u: number) => 2 * Math.hypot(a.u ?? 0, u) + part * a.value!;
        expect(Math.abs(a.value - b.value)).toBeLessThan(within(b.u));
        expect(Math.abs(b.value - c.value)).toBeLessThan(2 * Math.hypot(b.u, c.u) + 1e-3 * b.value);
      }
    },
  );
  test('a hold and a shut-in vacuum lose as much by the clock as by the trace', () => {
    const truth = faultyTruth('cup-bypass', 0.6);
    const typed = bench(truth);
    const found = analyse(benchTrace(truth.parameters, 20 * INHG, WHOLE_TEST, LOGGER), about);
    const hold = estimateOf(found, 'hold-loss');
    expect(Math.abs(typed.byId('hold').value! - hold.value)).toBeLessThan(
      2 * Math.hypot(typed.byId('hold').u!, hold.u) + 0.08 * hold.value,
    );
    const loss = estimateOf(found, 'vacuum-loss-released');
    expect(Math.abs(typed.byId('vacuum-loss-released').value! - loss.value)).toBeLessThan(
      2 * Math.hypot(typed.byId('vacuum-loss-released').u!, loss.u) + 0.08 * loss.value,
    );
  });
});

describe('the same servo typed, on the live bench and from a file', () => {
  const servo = benchOf('rod-servo');
  const known: About = { ...ROOM, unit: servo.family.logged(servo.profile) };
  const SCRIPT = reserveTest({ input_Pa: 12 * BAR, applications: 9 });
  const SERVO_LOGGER = { seed: 23, rate_Hz: 50, pressureNoise_Pa: 3000, vacuumNoise_Pa: 80, forceNoise_N: 2 };
  /** Pressures in psi, force in lbf, vacuum in inHg: another logger's units. */
  function throughImperial({ time_s, channels }: Trace): Trace {
    const factors = { pressure: 6894.757, force: 4.448222, depression: INHG } as const;
    const lines = Array.from(time_s, (t, i) =>
      [
        t.toFixed(3),
        ...channels.map(({ quantity, values }) =>
          (values[i]! / factors[quantity as keyof typeof factors]).toFixed(3),
        ),
      ].join(','),
    );
    const text = ['Time (s),Fluid in (psi),Rod force (lbf),Vacuum supply (inHg)', ...lines, ''].join('\n');
    const found = detectLayout(text.slice(0, 60_000));
    if (!found.ok) throw new Error(found.why);
    const ports = ['input', 'output', 'supply'];
    const columns = found.layout.columns.map((column, i) => ({ ...column, port: ports[i]! }));
    const reader = new LogReader({ ...found.layout, columns }, ROOM.barometer_Pa);
    reader.push(new TextEncoder().encode(text));
    return reader.finish().trace;
  }
  test.each([
    ['healthy', servo.truthWith()],
    ['torn piston', servo.faultyTruth('torn-piston', 0.4)],
    ['sticking valve', servo.faultyTruth('valve-sticking', 0.7)],
  ] as const)('%s: where force begins, full force and area agree', (_name, truth) => {
    const typed = servo.bench(truth);
    const live = recordBench(servo.family, truth.parameters, 20 * INHG, ROOM, SCRIPT, SERVO_LOGGER);
    const [analysis, file] = [analyse(live, known), analyse(throughImperial(live), known)];
    for (const [result, id, part] of [
      // In a pull of 12 s the force comes some tenths of a second behind the pressure.
      ['force-begins', 'force-begins', 0.12],
      ['full-force', 'full-force', 0.02],
      ['effective-area', 'effective-area', 0.02],
    ] as const) {
      const [a, b, c] = [typed.byId(result), estimateOf(analysis, id), estimateOf(file, id)];
      expect(Math.abs(a.value! - b.value)).toBeLessThan(2 * Math.hypot(a.u!, b.u) + part * a.value!);
      expect(Math.abs(b.value - c.value)).toBeLessThan(2 * Math.hypot(b.u, c.u) + 2e-3 * b.value);
    }
  });
});

describe('each is called what it is', () => {
  const kindsOf = (trace: Trace) => analyse(trace, about).stretches.map(({ kind }) => kind);
  test('a whole test in its order', () => {
    expect(kindsOf(benchTrace(truthWith().parameters, 20 * INHG, WHOLE_TEST, LOGGER))).toEqual([
      'bypass',
      'pull',
      'let down',
      'pull',
      'hold',
      'let down',
      'vacuum',
    ]);
  });
  test('a blocked passage', () => {
    const { parameters } = faultyTruth('slave-check-stuck', 0.8);
    const found = analyse(
      benchTrace(
        parameters,
        20 * INHG,
        [
          [{}, 2],
          [{ handle_Pa: 60 * BAR, pull_PaPerS: 6 * BAR }, 14],
        ],
        LOGGER,
      ),
      about,
    );
    const blocked = found.stretches.find(({ kind }) => kind === 'blocked')!;
    expect(printSentence(blocked.notes[0]!, 'mixed')).toMatch(/^Blocked passage/);
  });
  test('a reserve pumped away, counted from the trace', () => {
    const pump = Array.from(
      { length: 30 },
      () =>
        [
          [{ handle_Pa: 15 * BAR, pull_PaPerS: 15 * BAR }, 3],
          [{ handle_Pa: 0, pull_PaPerS: 15 * BAR }, 3],
        ] as const,
    ).flat();
    const trace = benchTrace(
      truthWith().parameters,
      20 * INHG,
      [[{ valve: 'open' }, 20], [{ valve: 'shut' }, 2], ...pump],
      LOGGER,
    );
    const reserve = analyse(trace, about).stretches.find(({ kind }) => kind === 'reserve')!;
    const { estimate } = reserve.results[0]!;
    expect(estimate.told && estimate.value > 2 && estimate.value < 30).toBe(true);
  });
  test('a proportioning valve and a line full of air, where they were logged', () => {
    const trace = benchTrace(truthWith().parameters, 20 * INHG, WHOLE_TEST, LOGGER);
    const output = trace.channels[1]!;
    const front = { ...output, name: 'front', port: 'front' };
    const rear = {
      ...output,
      name: 'rear',
      port: 'rear',
      values: output.values.map((p) => (p < 30 * BAR ? p : 30 * BAR + 0.4 * (p - 30 * BAR))) as Float64Array,
    };
    const volume = {
      name: 'volume',
      port: 'volume',
      quantity: 'volume' as const,
      values: output.values.map(
        (p) => 1e-6 * (1 - ROOM.barometer_Pa / (ROOM.barometer_Pa + Math.max(0, p))) + 2e-13 * p,
      ) as Float64Array,
    };
    const found = analyse({ ...trace, channels: [...trace.channels, front, rear, volume] }, about);
    expect(estimateOf(found, 'split').value / BAR).toBeCloseTo(30, 0);
    expect(estimateOf(found, 'air').value * 1e6).toBeCloseTo(1, 0);
  });
  test('nothing, and too little, with the reason', () => {
    const still = benchTrace(truthWith().parameters, 20 * INHG, [[{}, 5]], { seed: 1 });
    const found = analyse(still, { ...about, unit: null });
    expect(found.stretches).toEqual([]);
    expect(found.notes.map((note) => printSentence(note, 'mixed')).join(' ')).toMatch(
      /No profile.*No channel moves/,
    );
    // A vacuum that fell by 20 inHg did move; this log is of a kind that is not worked out, and the note says so.
    const falling = still.channels[0]!.values.map((_, i, all) => (1 - i / all.length) * 20 * INHG);
    const pump = {
      ...still,
      channels: [{ name: 'P', port: null, quantity: 'depression', values: falling } as const],
    };
    expect(printSentence(analyse(pump, about).notes[0]!, 'mixed')).toMatch(/^What is worked out of a log/);
    expect(analyse({ time_s: Float64Array.of(0), channels: [] }, about).notes).toHaveLength(1);
    const lone = { ...still, channels: [still.channels[1]!] };
    expect(printSentence(analyse(lone, about).notes[0]!, 'mixed')).toMatch(/not both named/);
  });
});

test('a family known at rest only cannot be recorded', () => {
  const still = { ...family, motion: null };
  expect(() => recordBench(still, truthWith().parameters, 20 * INHG, ROOM, WHOLE_TEST, LOGGER)).toThrow(
    'family: remote-vacuum has no motion',
  );
});
