import { expectedCurve } from '../families/expected-curve';
import { FAMILIES } from '../families/registry';
import { instrumentsOf, measuredItem } from '../procedure/measured-item';
import { printQuantity } from '../quantities/print';
import { fromSI, unitFor, type UnitSet } from '../quantities/units';
import { placeOf } from '../twin/family';
import { stateOf } from './judged-run';
import { Plot } from './plot';
import type { StoredRun } from './views';

/** A chart as a picture and in words. */
export interface Chart {
  readonly svg: string;
  readonly label: string;
  readonly caption: string;
}

/**
 * Output against input: what a healthy unit gives on the supply read, its band and runout, and what was measured.
 *
 * @returns null where nothing was measured under vacuum
 */
export function ratioChart(run: StoredRun, set: UnitSet): Chart | null {
  const family = FAMILIES[run.kind];
  const { context } = run;
  const instruments = instrumentsOf(context.rig, context.shelf);
  const state = stateOf(run);
  const read = (id: string) => measuredItem(instruments, state, id)?.value_Pa ?? null;
  const supply_Pa = read('full.supply') ?? read('rest.supply');
  const points = context.procedure.steps.flatMap(({ items }) =>
    items.flatMap((item) => {
      if (item.kind !== 'reading' || item.port !== 'output' || !item.inputFrom) return [];
      if (item.measures === 'outputPassed' || item.elapsed_s !== undefined) return [];
      const input_Pa = read(item.inputFrom);
      const output_Pa = read(item.id);
      return input_Pa === null || output_Pa === null
        ? []
        : [{ input_Pa, output_Pa, down: item.measures === 'outputReleasing' }];
    }),
  );
  if (supply_Pa === null || points.length === 0) return null;
  const greatest_Pa = 1.12 * Math.max(...points.map((point) => point.input_Pa));
  const curve = expectedCurve(family, context, 'output', supply_Pa, greatest_Pa);
  const top_Pa =
    1.05 * Math.max(...curve.map((point) => point.high_Pa), ...points.map((point) => point.output_Pa));
  const runout_Pa = family.steady(
    family.healthy(context.profile).values,
    family.inputs.map(({ id }) => (id === 'supply_Pa' ? supply_Pa : 0)),
  )[placeOf(family.readings, 'runoutInput')]!;
  const unit = unitFor('pressure', set);
  const scaled = (value_Pa: number) => fromSI(value_Pa, unit);
  const plot = new Plot(
    { title: `Input, ${unit.symbol}`, low: 0, high: scaled(greatest_Pa) },
    { title: `Output, ${unit.symbol}`, low: 0, high: scaled(top_Pa) },
  );
  const along = (of: (point: (typeof curve)[number]) => number) =>
    curve.map((point): [number, number] => [scaled(point.input_Pa), scaled(of(point))]);
  plot.band(
    along((point) => point.low_Pa),
    along((point) => point.high_Pa),
  );
  plot.line(
    along((point) => point.expected_Pa),
    { dashed: true },
  );
  if (runout_Pa < greatest_Pa) plot.mark(scaled(runout_Pa), 'runout expected');
  for (const { input_Pa, output_Pa, down } of points) plot.point(scaled(input_Pa), scaled(output_Pa), !down);
  const supply = printQuantity(supply_Pa, 'depression', set);
  const label = `Output against input at ${supply}: ${points.length} points measured; a healthy unit runs out at ${printQuantity(runout_Pa, 'pressure', set)} in.`;
  const caption = `Filled: measured going up. Open: coming down. Dashed: a healthy unit on the ${supply} read; shaded: its band.`;
  return { svg: plot.svg(label), label, caption };
}
