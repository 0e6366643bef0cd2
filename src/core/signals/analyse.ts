import { sentence, type Sentence } from '../quantities/sentence';
import { blendIn } from './blend-log';
import { at, LEAST_PULL, result, type About, type Analysis, type Stretch } from './analysis';
import { meteredIn } from './metered';
import { pressureVolume } from './pressure-volume';
import { proportioning } from './proportioning';
import { forces, pulls } from './pulls';
import { assistedOutput, reserveCount, type Useful } from './reserve-count';
import { REMAINS_PA, segmentsOf, type Segment } from './segments';
import { drawings } from './drawings';
import { holds, SOME_VACUUM_PA, untouched, watches } from './stands';
import { pairIn } from './sensor-pair';
import { stampsIn } from './stamps';
import { dischargeIn } from './store-discharge';
import { storedIn } from './stored';
import { openingsIn } from './valve-opening';
import { channelAt, vacuumAt, wholeOf, type Channel, type Trace } from './trace';

const LEAST_RESERVE = 3;
/** An application that the source does not make up for leaves less than this part of the vacuum. */
const SPENT = 0.985;
/** A level that changes by this part of itself has moved, however slowly. */
const MOVED_PART = 0.05;

/** Whether a channel did anything: it was pulled, let go, or crept away from where it was. */
const moves = (segments: readonly Segment[]): boolean =>
  segments.length > 1 ||
  segments.some(
    ({ kind, start, end }) =>
      kind === 'apply' ||
      kind === 'release' ||
      Math.abs(end - start) > MOVED_PART * Math.max(Math.abs(start), Math.abs(end), REMAINS_PA),
  );

/** What a log is made to yield, said of one in which there is none of it. */
const KINDS =
  'What is worked out of a log: output or rod force against input, a hold, a vacuum that is shut in or drawn, applications from a reserve, rear against front, volume against pressure, an accumulator that is charged, stands or is kept full by its pump, a valve that is pressed by its travel and held, a stamp on the pedal, two tracks of a sensor with their supply, a stop that a machine shares, a store that discharges itself, the current of a valve that is raised until its wheel moves. In this log there is none of these, by the ports it names.';

/** Whether all there is needs no input beside it. */
const needNoInput = (stretches: readonly Stretch[]) =>
  stretches.length > 0 &&
  stretches.every(({ kind }) =>
    [
      'hold',
      'charge',
      'cycles',
      'standing',
      'sweep',
      'held',
      'stamp',
      'pair',
      'blend',
      'discharge',
      'valve',
    ].includes(kind),
  );

/** Works everything out of a trace that the ports it names allow. */
export function analyse(trace: Trace, about: About): Analysis {
  const input = channelAt(trace, 'input');
  const output = channelAt(trace, 'output');
  // A rod's force is no output pressure: it has no ratio to the input.
  const fluid = output?.quantity === 'pressure' ? output : null;
  const lead = input ?? output ?? channelAt(trace, 'front') ?? trace.channels[0];
  if (!lead || trace.time_s.length < 3)
    return {
      segments: [],
      stretches: [],
      notes: [sentence('There are too few readings to work anything out of.')],
    };
  const segments = segmentsOf(trace, lead);
  const stretches = [
    ...(input && fluid ? pulls(trace, input, fluid, segments, about) : []),
    ...(input && output?.quantity === 'force' ? forces(trace, input, output, segments, about) : []),
    ...(fluid ? holds(trace, fluid, segments, about) : []),
    ...watches(trace, input || output ? segments : [untouched(trace)], about),
    ...drawings(trace),
    ...reserves(trace, segments, about),
    ...splits(trace, about),
    ...stampsIn(trace),
    ...pairIn(trace),
    ...blendIn(trace),
    ...dischargeIn(trace),
    ...openingsIn(trace),
    ...storedIn(trace, about),
    ...meteredIn(trace, about),
  ].sort((a, b) => a.from_s - b.from_s);
  const notes: Sentence[] = [];
  const moved = trace.channels.some((channel) => moves(segmentsOf(trace, channel)));
  if (stretches.length === 0 && moved) notes.push(sentence(KINDS));
  else if ((input && !output) || (fluid && !input && !needNoInput(stretches)))
    notes.push(sentence('Input and output are not both named, so no ratio curve was drawn.'));
  if (!about.unit) notes.push(sentence('No profile is named, so areas and air leaks are not told.'));
  if (stretches.length === 0 && !moved)
    notes.push(
      sentence(
        `${trace.channels.length === 1 ? `“${lead.name}” does not move` : 'No channel moves'}: nothing was done in this trace.`,
      ),
    );
  return { segments: segments.map(({ from: _f, to: _t, ...rest }) => rest), stretches, notes };
}

/** A row of applications on a vacuum that falls from one to the next: the source had stopped. */
function reserves(trace: Trace, segments: readonly Segment[], about: About): Stretch[] {
  const [input, output] = ['input', 'output'].map((port) => channelAt(trace, port));
  const supply = vacuumAt(trace);
  if (!input || !output || !supply) return [];
  const useful = usefulOf(output, about);
  if (!useful) return [];
  const applies = segments.filter(({ kind }) => kind === 'apply');
  const level = (at: number) => {
    const near = Array.from(supply.values.subarray(Math.max(0, at - 5), at + 1)).filter(Number.isFinite);
    return near.length ? near.reduce((sum, v) => sum + v, 0) / near.length : NaN;
  };
  const before = applies.map(({ from }) => level(from));
  const after = applies.map((apply) => {
    const next = segments.slice(segments.indexOf(apply) + 1);
    return level((next.find(({ kind }) => kind === 'release') ?? next.at(-1) ?? apply).to);
  });
  // From a source that still draws, what an application takes comes back at once.
  const costs = (i: number) => after[i]! < SPENT * before[i]! || before[i]! < SOME_VACUUM_PA;
  const runs: { from: number; to: number }[] = [];
  for (let i = 1; i < applies.length; i += 1) {
    const last = runs.at(-1);
    const fell = before[i]! < SPENT * before[i - 1]! || (before[i]! < SOME_VACUUM_PA && last?.to === i - 1);
    if (!fell || !costs(i - 1)) continue;
    if (last && last.to === i - 1) last.to = i;
    else runs.push({ from: i - 1, to: i });
  }
  return runs
    .filter(({ from, to }) => to - from + 1 >= LEAST_RESERVE && before[from]! > SOME_VACUUM_PA)
    .map(({ from, to }): Stretch => {
      const end = segments[segments.indexOf(applies[to]!) + 1]?.to ?? applies[to]!.to;
      const span = { from: applies[from]!.from, to: end };
      const { count, applications } = reserveCount(trace, input, output, span, useful);
      return {
        kind: 'reserve',
        name: 'Reserve',
        ...at(trace, span),
        results: [result('reserve', 'Useful applications from the reserve', 'count', count)],
        lines: [],
        points: [],
        supply_Pa: null,
        notes: [
          sentence('{count} applications were made.', {
            count: { value: applications.length, quantity: 'count' },
          }),
        ],
      };
    });
}

/** What makes an application of use; null where that is not known. */
function usefulOf(output: Channel, about: About): Useful | null {
  if (output.quantity === 'pressure') return assistedOutput;
  const least_N = about.unit?.rod?.useful_N;
  return output.quantity === 'force' && least_N !== undefined ? (force_N) => force_N >= least_N : null;
}

function splits(trace: Trace, about: About): Stretch[] {
  const [front, rear, volume, output] = ['front', 'rear', 'volume', 'output'].map((port) =>
    channelAt(trace, port),
  );
  const stretches: Stretch[] = [];
  // Where a machine takes torque back its axle is pressed less: no valve splits that.
  if (channelAt(trace, 'granted')) return stretches;
  const risesOf = (channel: Channel) => {
    const all = segmentsOf(trace, channel, wholeOf(trace));
    const top = Math.max(...all.map(({ end }) => end));
    return all.filter(({ kind, start, end }) => kind === 'apply' && end - start > LEAST_PULL * top);
  };
  if (front && rear) {
    for (const rise of risesOf(front)) {
      const { split, slopeBefore, slopeBeyond } = proportioning(trace, front, rear, rise);
      stretches.push({
        kind: 'split',
        name: 'Rear against front',
        ...at(trace, rise),
        results: [
          result('split', 'Split point, front', 'pressure', split),
          result('split-before', 'Slope before the split', 'ratio', slopeBefore),
          result('split-beyond', 'Slope beyond the split', 'ratio', slopeBeyond),
        ],
        lines: [],
        points: [],
        supply_Pa: null,
        notes: [],
      });
    }
  }
  if (volume && output) {
    for (const rise of risesOf(output)) {
      const { air, seating, give } = pressureVolume(trace, output, volume, rise, about.barometer_Pa);
      stretches.push({
        kind: 'volume',
        name: 'Volume against pressure',
        ...at(trace, rise),
        results: [
          result('air', 'Air trapped', 'volume', air),
          result('seating', 'Volume to seat', 'volume', seating),
          result('give', 'Give of the line', 'volumePerPressure', give),
        ],
        lines: [],
        points: [],
        supply_Pa: null,
        notes: [],
      });
    }
  }
  return stretches;
}
