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
 * The curve of the unit: what a healthy one gives on the supply read, its band and where it bends, and what was
 * measured.
 *
 * @returns null where nothing was measured under vacuum
 */
export function ratioChart(run: StoredRun, set: UnitSet): Chart | null {
  const family = FAMILIES[run.kind];
  const { context } = run;
  const { curve: drawn } = family;
  const instruments = instrumentsOf(context.rig, context.shelf);
  const state = stateOf(run);
  const read = (id: string) => measuredItem(instruments, state, id)?.value_SI ?? null;
  const supply_Pa = read('full.supply') ?? read('rest.supply');
  const points = context.procedure.steps.flatMap(({ items }) =>
    items.flatMap((item) => {
      if (item.kind !== 'reading' || !item.inputFrom || item.elapsed_s !== undefined) return [];
      if (item.measures !== drawn.output && item.measures !== drawn.releasing) return [];
      const input = read(item.inputFrom);
      const output = read(item.id);
      return input === null || output === null
        ? []
        : [{ input, output, down: item.measures === drawn.releasing }];
    }),
  );
  if (supply_Pa === null || points.length === 0) return null;
  const greatest = 1.12 * Math.max(...points.map(({ input }) => input));
  const curve = expectedCurve(family, context, supply_Pa, greatest);
  const top = 1.05 * Math.max(...curve.map(({ high }) => high), ...points.map(({ output }) => output));
  const knee = family.steady(
    family.healthy(context.profile).values,
    family.inputs.map(({ id }) => (id === 'supply_Pa' ? supply_Pa : 0)),
  )[placeOf(family.readings, drawn.knee.reading)]!;
  const across = family.inputs[placeOf(family.inputs, drawn.input)]!;
  const up = family.readings[placeOf(family.readings, drawn.output)]!;
  const [xUnit, yUnit] = [unitFor(across.quantity, set), unitFor(up.quantity, set)];
  const plot = new Plot(
    { title: `${across.name}, ${xUnit.symbol}`, low: 0, high: fromSI(greatest, xUnit) },
    { title: `${up.name}, ${yUnit.symbol}`, low: 0, high: fromSI(top, yUnit) },
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
  const supply = printQuantity(supply_Pa, 'depression', set);
  const against = `${up.name} against ${across.name.toLowerCase()}`;
  const label = `${against} at ${supply}: ${points.length} points measured; ${drawn.knee.word} of a healthy unit at ${printQuantity(knee, across.quantity, set)} in.`;
  const open = points.some(({ down }) => down) ? ' Open: coming down.' : '';
  const caption = `Filled: measured going up.${open} Dashed: a healthy unit on the ${supply} read; shaded: its band.`;
  return { svg: plot.svg(label), label, caption };
}
