import { COMPLAINTS, type ComplaintId } from '../contract/complaints';
import { faultsOf, type Family, type Fault } from '../contract/family';
import type { ObservationItem, Procedure } from '../contract/steps';
import { libraryOf } from '../diagnosis/causes';
import { permissibleError_SI } from '../metrology/accuracy';
import type { Instrument } from '../metrology/instrument';
import type { Vector } from '../model/descriptor';
import { seeded } from '../numeric/chance';
import { INHG_PA } from '../quantities/units';
import { LEVELS, type Level, type LevelId } from './levels';
import { seenBy } from './looked';
import { unitAsMade } from './made';

/** What is really so in a case of practice. It is told when the case is over. */
export interface Truth {
  /** Faults by their ids, each with its severity, from 0, just begun, to 1, severe. */
  readonly faults: readonly (readonly [id: string, severity: number])[];
  /** Parameters of the unit as it was made, before any fault. */
  readonly made: Vector;
  /** How far a bench's source reaches, Pa. */
  readonly supply_Pa: number;
  /** How each gauge is out, by its tag: shown = true · scale + zero, SI. */
  readonly gauges: Readonly<Record<string, { readonly scale: number; readonly zero_Pa: number }>>;
  /** The gauge that is far out of its class; null where none is. */
  readonly gaugeOut: string | null;
  /** Chance for what is looked at: so that the same look shows the same again. */
  readonly luck: number;
}

/** A case: what is told at once, and what is hidden. */
export interface DrawnCase {
  /** What the customer says. */
  readonly complaint: string;
  readonly truth: Truth;
}

/** How deep a bench's source reaches, Pa: a good one, and one that is weak. */
const SOUND_SOURCE = [18 * INHG_PA, 24 * INHG_PA] as const;
const WEAK_SOURCE = [9 * INHG_PA, 14 * INHG_PA] as const;
/** A gauge that deceives is out by so many times its permissible error, and by no more than this part of its full scale. */
const FAR_OUT = [3, 5] as const;
const MOST_OUT = 0.08;
export const ROUTINE = 'Nothing to complain of: a check before the inspection.';

/**
 * Draws a case. The same seed draws the same one, as long as the library of faults is the same.
 *
 * @param gauges those that stand on the bench
 */
export function drawCase(
  family: Pick<Family, 'faults' | 'healthy' | 'typical'>,
  gauges: readonly Instrument[],
  level: LevelId,
  seed: number,
): DrawnCase {
  const random = seeded(seed);
  const between = ([from, to]: readonly [number, number]) => from + (to - from) * random();
  const of: Level = LEVELS[level];
  const profile = family.typical;
  const faults = drawFaults(family, profile, of, random).map(
    (fault) => [fault, between([of.severityFrom, 1])] as const,
  );
  const made = unitAsMade(family.healthy(profile), of.tolerance, random);
  const weak = faults.length === 0 && random() < of.weakSource;
  const supply_Pa = between(weak ? WEAK_SOURCE : SOUND_SOURCE);
  const deceives = random() < of.gaugeOut ? gauges[Math.floor(random() * gauges.length)]! : null;
  const out = gauges.map((gauge) => {
    const most = permissibleError_SI(gauge, gauge.fullScale_Pa);
    const error_SI = of.gauges * most * (2 * random() - 1);
    const atZero = random();
    // One that deceives stands at zero where it is vented, as a bent lever does.
    const far =
      gauge === deceives
        ? (random() < 0.5 ? -1 : 1) * Math.min(between(FAR_OUT) * most, MOST_OUT * gauge.fullScale_Pa)
        : null;
    return [
      gauge.tag,
      far === null
        ? // A zero has no sign: what is kept as JSON is read as it was.
          { scale: 1 + ((1 - atZero) * error_SI) / gauge.fullScale_Pa, zero_Pa: atZero * error_SI + 0 }
        : { scale: 1 + far / gauge.fullScale_Pa, zero_Pa: 0 },
    ] as const;
  });
  return {
    complaint: complaintOf(
      family.faults,
      faults.map(([fault]) => fault),
      random,
    ),
    truth: {
      faults: faults.map(([{ id }, severity]) => [id, severity]),
      made,
      supply_Pa,
      gauges: Object.fromEntries(out),
      gaugeOut: deceives?.tag ?? null,
      luck: Math.floor(random() * 2 ** 31),
    },
  };
}

/** None, one or two faults: one evenly among all, so that rare ones are met as well; two as they are met together. */
function drawFaults(
  family: Pick<Family, 'faults' | 'healthy'>,
  profile: unknown,
  { sound, two }: Level,
  random: () => number,
): readonly Fault[] {
  const kind = random();
  if (kind < sound) return [];
  const all = faultsOf(family, profile);
  if (kind >= sound + two) return [all[Math.floor(random() * all.length)]!];
  const { pairs } = libraryOf(family, profile, { complaint: true, weights: {} });
  let left = random() * pairs.reduce((sum, { prior }) => sum + prior, 0);
  return (pairs.find(({ prior }) => (left -= prior) <= 0) ?? pairs[0])!.faults;
}

/** What a customer says of some faults: of each what it brings or, of a sound unit, what any of its kind could bring. */
function complaintOf(all: readonly Fault[], faults: readonly Fault[], random: () => number): string {
  const one = (of: readonly ComplaintId[]) => of[Math.floor(random() * of.length)];
  const brought = (of: readonly Fault[]) => [...new Set(of.flatMap(({ brings = [] }) => brings))];
  const said = faults.length === 0 ? [one(brought(all))] : faults.map((fault) => one(brought([fault])));
  const words = [...new Set(said.flatMap((id) => (id ? [COMPLAINTS[id].says] : [])))].join(', and ');
  return words === '' ? ROUTINE : `The customer says: ${words}.`;
}

/** Whether a bench's vacuum source has a part in a case of some kind: it hangs on no pump, engine or battery of its own. */
export const hangsOnVacuum = ({ setting, ports }: Pick<Family, 'setting' | 'ports'>): boolean =>
  setting === 'bench' && ports.some(({ quantity }) => quantity === 'depression');

/** The faults that are left once some parts were changed or mended. */
export const leftAfter = (
  { faults }: Pick<Truth, 'faults'>,
  library: readonly Fault[],
  changed: readonly string[],
): Truth['faults'] =>
  faults.filter(
    ([id]) => !library.find((one) => one.id === id)!.parts.every((part) => changed.includes(part)),
  );

/** Parameters of a case's unit, with the faults that it still has. */
export const parametersOf = (
  { made }: Pick<Truth, 'made'>,
  library: readonly Fault[],
  left: Truth['faults'],
): Vector =>
  left.reduce<Vector>(
    (vector, [id, severity]) => library.find((one) => one.id === id)!.apply(vector, severity),
    made,
  );

/** What each look of a procedure shows in a case, with the faults that it still has. */
export function looksOf(
  { faults: library, looks }: Pick<Family, 'faults' | 'looks'>,
  { steps }: Procedure,
  { luck }: Pick<Truth, 'luck'>,
  level: LevelId,
  left: Truth['faults'],
): Readonly<Record<string, string>> {
  const having = left.map(([id, severity]) => [library.find((one) => one.id === id)!, severity] as const);
  const items = steps.flatMap(({ items: of }) =>
    of.filter((item): item is ObservationItem => item.kind === 'observation'),
  );
  return Object.fromEntries(
    items.map((item, i) => {
      const look = looks.find((one) => one.item === item.id);
      // Where nothing is known of how often it deceives, it does not.
      const rate = look && LEVELS[level].unsureLooks ? 1 : 0;
      const seen = seenBy(item, having, look ?? { falseAlarm: 0, miss: 0 }, rate, seeded(luck + i));
      return [item.id, seen ?? item.answers[0].id];
    }),
  );
}
