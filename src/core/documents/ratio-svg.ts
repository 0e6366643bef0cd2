import { supplied } from '../contract/sources';
import { sourceOf } from '../contract/family';
import { expectedCurve } from '../families/expected-curve';
import { FAMILIES } from '../families/registry';
import { instrumentsOf, measuredItem } from '../procedure/measured-item';
import type { RunState } from '../contract/run-state';
import { printQuantity } from '../quantities/print';
import { fromSI, unitFor, type UnitSet } from '../quantities/units';
import { AT_ONCE, placeOf, readingOf } from '../model/vectors';
import { stateOf } from '../records/judged-run';
import { Plot, type PlotSize } from '../plot/plot';
import type { StoredRun } from '../records/views';

/** A chart as a picture and in words. */
export interface Chart {
  readonly svg: string;
  readonly label: string;
  readonly caption: string;
}

/**
 * The curve of the unit: what a healthy one gives on the supply read, its band and where it bends, and what was
 * measured.
 *
 * @returns null where nothing was measured with its supply on
 */
export function ratioChart(run: StoredRun, set: UnitSet): Chart | null {
  const state = stateOf(run);
  const supply_Pa = supplyRead(run, state);
  const points = measuredPoints(run, state);
  if (supply_Pa === null || points.length === 0) return null;
  const greatest = 1.12 * Math.max(...points.map(({ input }) => input));
  const { plot, against, knee, across } = curvePlot(run, points, { supply_Pa, greatest, set });
  const source = FAMILIES[run.kind].inputs.find(({ id }) => id === 'supply_Pa');
  const supply = printQuantity(supply_Pa, source?.quantity ?? 'depression', set);
  const label = `${against} at ${supply}: ${points.length} points measured; ${FAMILIES[run.kind].curve.knee.word} of a healthy unit at ${printQuantity(knee, across.quantity, set)} in.`;
  const open = points.some(({ down }) => down) ? ' Open: coming down.' : '';
  const caption = `Filled: measured going up.${open} Dashed: a healthy unit on the ${supply} read; shaded: its band.`;
  return { svg: plot.svg(label), label, caption };
}

type DrawnRun = Pick<StoredRun, 'kind' | 'context'>;

/** A point of the curve as it was measured, SI. */
export interface MeasuredPoint {
  readonly input: number;
  readonly output: number;
  readonly down: boolean;
}

/** Supply that the curve was measured on, Pa; null where none was read. */
export function supplyRead({ kind, context }: DrawnRun, state: RunState): number | null {
  const instruments = instrumentsOf(context.rig, context.shelf);
  const read = FAMILIES[kind].curve.sources.flatMap((id) => measuredItem(instruments, state, id) ?? []);
  return read[0]?.value_SI ?? null;
}

/** Readings that belong to the curve, with the input of each: those with nothing behind them are points of another one. */
export function measuredPoints({ kind, context }: DrawnRun, state: RunState): MeasuredPoint[] {
  const { curve } = FAMILIES[kind];
  const instruments = instrumentsOf(context.rig, context.shelf);
  const read = (id: string) => measuredItem(instruments, state, id)?.value_SI ?? null;
  return context.procedure.steps.flatMap(({ items, state: sources }) =>
    items.flatMap((item) => {
      if (!supplied(sources) && sources.charge !== 'full') return [];
      if (item.kind !== 'reading' || !item.inputFrom || item.elapsed_s !== undefined) return [];
      if (item.measures !== curve.output && item.measures !== curve.releasing) return [];
      const input = read(item.inputFrom);
      const output = read(item.id);
      return input === null || output === null
        ? []
        : [{ input, output, down: item.measures === curve.releasing }];
    }),
  );
}

interface CurveFrame {
  readonly supply_Pa: number;
  /** Greatest input shown, SI. */
  readonly greatest: number;
  readonly set: UnitSet;
  readonly size?: PlotSize;
}

/** Draws the expected curve with its band and bend, and points measured, in the units of a set. */
export function curvePlot(
  { kind, context }: DrawnRun,
  points: readonly MeasuredPoint[],
  { supply_Pa, greatest, set, size }: CurveFrame,
) {
  const family = FAMILIES[kind];
  const { curve: drawn } = family;
  const curve = expectedCurve(family, context, supply_Pa, greatest);
  const top = 1.05 * Math.max(...curve.map(({ high }) => high), ...points.map(({ output }) => output));
  const { barometer_Pa, temperature_K } = context.conditions;
  const knee = readingOf(
    family,
    family.healthy(context.profile).values,
    {
      ...family.full(context.profile),
      [drawn.input]: 0,
      [sourceOf(drawn)]: supply_Pa,
      barometer_Pa,
      temperature_K,
      ...AT_ONCE,
    },
    drawn.knee.reading,
  );
  const across = family.inputs[placeOf(family.inputs, drawn.input)]!;
  const up = family.readings[placeOf(family.readings, drawn.output)]!;
  const [xUnit, yUnit] = [unitFor(across.quantity, set), unitFor(up.quantity, set)];
  const plot = new Plot(
    { title: `${across.name}, ${xUnit.symbol}`, low: 0, high: fromSI(greatest, xUnit) },
    { title: `${up.name}, ${yUnit.symbol}`, low: 0, high: fromSI(top, yUnit) },
    size,
  );
  const along = (of: (point: (typeof curve)[number]) => number) =>
    curve.map((point): [number, number] => [fromSI(point.input, xUnit), fromSI(of(point), yUnit)]);
  plot.band(
    along(({ low }) => low),
    along(({ high }) => high),
  );
  plot.line(
    along(({ expected }) => expected),
    { dashed: true },
  );
  if (knee < greatest) plot.mark(fromSI(knee, xUnit), `${drawn.knee.word} expected`);
  for (const { input, output, down } of points)
    plot.point(fromSI(input, xUnit), fromSI(output, yUnit), !down);
  return {
    plot,
    knee,
    across,
    against: `${up.name} against ${across.name.toLowerCase()}`,
    /** Where an input and an output lie in the picture, px. */
    place: (input: number, output: number) => plot.place(fromSI(input, xUnit), fromSI(output, yUnit)),
  };
}
