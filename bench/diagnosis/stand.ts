import { libraryOf } from '../../src/core/diagnosis/causes';
import { faultsOf, type Fault } from '../../src/core/contract/family';
import type { Rig } from '../../src/core/contract/run-context';
import type { ObservationItem, ReadingItem, Step } from '../../src/core/contract/steps';
import { FAMILIES, type FamilyKind } from '../../src/core/families/registry';
import { gaugeUncertainty_SI, gaugeFor, type Instrument } from '../../src/core/metrology/instrument';
import { gaussian, seeded } from '../../src/core/numeric/chance';
import { seenBy } from '../../src/core/practice/looked';
import { unitAsMade } from '../../src/core/practice/made';
import { INHG_PA } from '../../src/core/quantities/units';
import { RIGS } from '../../src/core/scenarios/bench';
import type { BenchRoom } from './bench-top';
import { HANDS, ROOM } from './hands';
import type { Ask, Drawn, Told, Truth } from './protocol';

/**
 * Installations on a stand: drawn, tested through time, and read with gauges that are out. It is told the names of steps and
 * tells what is seen; what is wrong it keeps to itself until all is over.
 */
const [kind] = process.argv.slice(2) as [FamilyKind];
const family = FAMILIES[kind];
const rig: Rig = RIGS[kind];
const profile = family.typical;
const procedure = family.procedure(profile, rig);
const hands = HANDS[kind];
if (!hands) throw new RangeError(`${kind}: nobody carries its steps out through time`);
/** So much wider than the library has it are tolerances, and the error rates of looks between these parts of them. */
const WIDER = 1.5;
const RATES = [0.5, 1.5] as const;
/** How deep a bench's source reaches, Pa. */
const SOUND = [18 * INHG_PA, 24 * INHG_PA] as const;
const WEAK = [8 * INHG_PA, 16 * INHG_PA] as const;

class Installation {
  readonly truth: Truth;
  private readonly parameters: readonly number[];
  private readonly faults: readonly Fault[];
  /** A bench's source reaches as deep as it does on that day; one that is weak is no fault of the unit. */
  private readonly room: BenchRoom;
  /** Error of each gauge, in standard deviations of it. */
  private readonly errors = new Map<string, number>();
  private readonly rates = new Map<string, number>();
  private readonly seen = new Map<string, Extract<Told, { kind: 'seen' }>>();

  constructor(
    private readonly number: number,
    private readonly random: () => number,
    drawn: Drawn,
  ) {
    this.faults = this.draw(drawn);
    const [least, most] = drawn === 'weak-supply' ? WEAK : SOUND;
    this.room = { ...ROOM, supply_Pa: least + (most - least) * random() };
    const severities = this.faults.map(() => random());
    const made = unitAsMade(family.healthy(profile), WIDER, random);
    this.parameters = this.faults.reduce(
      (vector, fault, i) => [...fault.apply(vector, severities[i]!)],
      made,
    );
    for (const gauge of Object.values(rig).flat()) this.errors.set(gauge.tag, gaussian(random));
    for (const { item } of family.looks) this.rates.set(item, RATES[0] + (RATES[1] - RATES[0]) * random());
    this.truth = {
      faults: this.faults.map(({ id }) => id),
      severities,
      made,
      leftOut: drawn === 'left-out' ? this.faults[0]!.id : null,
    };
  }

  private draw(drawn: Drawn): readonly Fault[] {
    const { random } = this;
    const all = faultsOf(family, profile);
    const any = () => all[Math.floor(random() * all.length)]!;
    if (drawn === 'healthy' || drawn === 'weak-supply') return [];
    if (drawn === 'single' || drawn === 'left-out') return [any()];
    if (drawn === 'pair') {
      const first = any();
      for (;;) {
        const second = any();
        if (second !== first) return [first, second];
      }
    }
    const { healthy, singles, pairs, unknown } = libraryOf(family, profile, { complaint: true, weights: {} });
    const causes = [healthy, ...singles, ...pairs];
    let left = random() * (1 - unknown.prior);
    return causes.find(({ prior }) => (left -= prior) <= 0)?.faults ?? [];
  }

  step(id: string): Extract<Told, { kind: 'seen' }> {
    const known = this.seen.get(id);
    if (known) return known;
    const step = procedure.steps.find((one) => one.id === id);
    if (!step) throw new RangeError(`step: no “${id}”`);
    const found = {
      kind: 'seen',
      number: this.number,
      readings: this.readings(step),
      looks: this.looks(step),
    } as const;
    this.seen.set(id, found);
    return found;
  }

  private readings(step: Step): Record<string, number> {
    const set = (item: ReadingItem, aim: number) => {
      const gauge = gaugeFor(rig[item.port] ?? [], aim);
      // The gauge is brought to the aim: what is really there is out by its error.
      return gauge ? aim - this.errors.get(gauge.tag)! * gaugeUncertainty_SI(gauge, aim) : aim;
    };
    const shown = hands!(this.parameters, this.room, step, set);
    return Object.fromEntries(
      step.items.flatMap((item) => {
        if (item.kind !== 'reading' || shown[item.id] === undefined) return [];
        const gauge = gaugeFor(rig[item.port] ?? [], Math.abs(shown[item.id]!)) ?? rig[item.port]?.at(-1);
        if (!gauge) return [];
        if (item.measures === 'input' || item.measures === 'zero') return [[item.id, item.target_Pa ?? 0]];
        return [[item.id, this.read(gauge, item, shown[item.id]!)]];
      }),
    );
  }

  private read(gauge: Instrument, { measures }: ReadingItem, value: number): number {
    const { SI = 0, part = 0 } = family.readings.find(({ id }) => id === measures)?.apart ?? {};
    const apart = Math.hypot(SI, part * value) * gaussian(this.random);
    const out = this.errors.get(gauge.tag)! * gaugeUncertainty_SI(gauge, value);
    // Handbook 5: beside the error of the gauge, what a reading is out by chance is what is lost as it is read to a step.
    const steps = Math.round((value + apart + out) / gauge.step_Pa);
    return Math.min(gauge.fullScale_Pa, steps * gauge.step_Pa);
  }

  private looks({ items }: Step): Record<string, string> {
    return Object.fromEntries(
      items.flatMap((item) => {
        if (item.kind !== 'observation') return [];
        const answer = this.look(item);
        return answer ? [[item.id, answer]] : [];
      }),
    );
  }

  private look({ id, answers }: ObservationItem): string | null {
    const look = family.looks.find(({ item }) => item === id);
    if (!look) return null;
    const having = this.faults.map((fault, i) => [fault, this.truth.severities[i]!] as const);
    return seenBy({ id, answers }, having, look, this.rates.get(id)!, this.random);
  }
}

const installations = new Map<number, Installation>();
process.on('message', (ask: Ask) => {
  const tell = (told: Told) => process.send!(told);
  if (ask.kind === 'open') {
    const made = new Installation(ask.number, seeded(ask.seed), ask.drawn);
    installations.set(ask.number, made);
    tell({ kind: 'opened', number: ask.number, leftOut: made.truth.leftOut });
    return;
  }
  const one = installations.get(ask.number)!;
  if (ask.kind === 'step') tell(one.step(ask.step));
  else {
    installations.delete(ask.number);
    tell({ kind: 'revealed', number: ask.number, truth: one.truth });
  }
});
