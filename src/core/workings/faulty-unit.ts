import { sourceOf, withFault } from '../contract/family';
import { z } from 'zod';
import { SEA_LEVEL_PA } from '../air/atmosphere';
import { FAMILIES, FAMILY_KINDS, type FamilyKind } from '../families/registry';
import type { Vector } from '../model/descriptor';
import { AT_ONCE, inputVector, placeOf, readingOf } from '../model/vectors';
import { printQuantity } from '../quantities/print';
import { INHG_PA, type Quantity } from '../quantities/units';
import { Plot } from '../plot/plot';
import { axis, BAR, steps } from '../plot/axes';
import { defineWorking, field, type Answered } from '../contract/working';

const SOUND = 'none';
const ROOM = { barometer_Pa: SEA_LEVEL_PA, temperature_K: 293.15 };
/** The most that is asked for, and the least that is drawn, where the input is no pressure. */
const MOST: Partial<Record<Quantity, number>> = { force: 1500, travel: 0.05 };
const LEAST: Partial<Record<Quantity, number>> = { force: 100, travel: 0.005 };
/** The most that an accumulator is asked at, and a battery. */
const MOST_FED: Partial<Record<Quantity, number>> = { pressure: 300 * BAR, voltage: 16 };
/** The curve goes on to this part beyond where it bends. */
const BEYOND = 1.5;

/** What a fault makes of the readings of a unit, beside the healthy one: the typical profile of its kind at sea level. */
function faultyUnit(kind: FamilyKind) {
  const family = FAMILIES[kind];
  const set = family.curve.input;
  const fed = sourceOf(family.curve);
  const source = family.inputs.find(({ id }) => id === fed);
  const setInput = family.inputs[placeOf(family.inputs, set)]!;
  const faults = [SOUND, ...family.faults.map(({ id }) => id)] as [string, ...string[]];
  const input = z.strictObject({
    fault: z.enum(faults).meta({
      title: 'Fault',
      labels: { [SOUND]: 'none', ...Object.fromEntries(family.faults.map(({ id, name }) => [id, name])) },
    }),
    severity: field('Severity: 0 just begun, 100 severe', 'percent', 0, 1),
    [set]: field(setInput.name, setInput.quantity, 0, MOST[setInput.quantity] ?? 200 * BAR),
    [fed]:
      source && source.quantity in MOST_FED
        ? field(source.name, source.quantity, 0, MOST_FED[source.quantity]!)
        : field('Supply at rest', 'depression', 0, SEA_LEVEL_PA),
    elapsed_s: field('Time on hold', 'duration', 0, 3600),
  });
  type Input = { fault: string; severity: number; elapsed_s: number } & Record<string, number | string>;
  const setTo = (asked: Input) => Number(asked[set]);
  const healthy = family.healthy(family.typical).values;
  const unitOf = ({ fault, severity }: Input): Vector =>
    withFault(family, healthy, fault === SOUND ? null : [fault, severity]);
  const { applications = 1, ...full } = family.full(family.typical);
  const at = (asked: Input) => ({
    ...full,
    ...ROOM,
    ...AT_ONCE,
    applications,
    [set]: setTo(asked),
    [fed]: Number(asked[fed]),
    elapsed_s: asked.elapsed_s,
  });
  const outputs = (unit: Vector, asked: Input, most: number) =>
    steps(0, most).map(
      (value) =>
        [value, readingOf(family, unit, { ...at(asked), [set]: value }, family.curve.output)] as const,
    );
  return defineWorking<Input>({
    name: `fault-${kind}`,
    title: `Fault in a unit: ${family.name.toLowerCase()}`,
    about: 'What a fault does to every reading of a unit with the typical figures of its kind, at sea level.',
    source: 'The same model that expects, judges and compares',
    input: input as unknown as z.ZodType<Input>,
    example: {
      fault: family.faults[0]!.id,
      severity: 0.8,
      [set]: full[set]!,
      [fed]: full[fed] ?? 20 * INHG_PA,
      elapsed_s: 60,
    },
    compute: (asked) => {
      const inputs = inputVector(family.inputs, at(asked));
      const [sound, faulty] = [family.steady(healthy, inputs), family.steady(unitOf(asked), inputs)];
      // Where both print the same there is nothing to lay side by side.
      return family.readings.flatMap(({ id, name, quantity }, place): Answered[] => {
        const [is, was] = [faulty[place]!, sound[place]!];
        const moved = printQuantity(is, quantity, 'mixed') !== printQuantity(was, quantity, 'mixed');
        const here = { id, name, value: is, quantity };
        return moved
          ? [here, { id: `${id}.healthy`, name: `${name}, healthy`, value: was, quantity }]
          : [here];
      });
    },
    picture: (asked, units) => {
      const knee = readingOf(family, healthy, at(asked), family.curve.knee.reading);
      const most = Math.max(BEYOND * knee, 1.1 * setTo(asked), LEAST[setInput.quantity] ?? BAR);
      const [sound, faulty] = [outputs(healthy, asked, most), outputs(unitOf(asked), asked, most)];
      const up = family.readings[placeOf(family.readings, family.curve.output)]!;
      const x = axis(setInput.name, setInput.quantity, units, 0, most);
      const y = axis(up.name, up.quantity, units, 0, 1.1 * Math.max(...sound.map(([, out]) => out), 1));
      const plot = new Plot(x, y);
      plot.line(
        sound.map(([a, b]) => [x.at(a), y.at(b)]),
        { dashed: true },
      );
      plot.line(faulty.map(([a, b]) => [x.at(a), y.at(b)]));
      plot.point(x.at(setTo(asked)), y.at(readingOf(family, unitOf(asked), at(asked), family.curve.output)));
      return plot.svg(
        `${up.name} against ${setInput.name.toLowerCase()}: dashed the healthy unit, drawn out the one with the fault`,
      );
    },
  });
}

/** One for every kind of unit. */
export const faultyUnits = FAMILY_KINDS.map(faultyUnit);
