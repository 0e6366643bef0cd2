import { withFault } from '@/core/contract/family';
import { FAMILIES, type FamilyKind } from '@/core/families/registry';
import type { InstrumentQuantity } from '@/core/metrology/instrument';
import { shownBy } from '@/core/metrology/shown';
import { gaussian, seeded } from '@/core/numeric/chance';
import { handsRefused, type Command, type Hands, type Told } from '@/core/model/motion';
import { Running } from '@/core/model/running';

/**
 * A gauge as the simulated bench has it: where it stands, what it reads, its range and step, and what is truly wrong
 * with it. SI of its quantity. One that the unit has no place for lies vented.
 */
export interface SimGauge {
  readonly tag: string;
  readonly port: string;
  readonly quantity: InstrumentQuantity;
  readonly fullScale_Pa: number;
  /** Where the scale begins, where that is below zero. */
  readonly lowEnd_Pa?: number;
  readonly step_Pa: number;
  readonly scale?: number;
  readonly zero_Pa?: number;
}

/** What stands on the bench, and what is hidden in it. */
export interface SimUnit {
  readonly kind: FamilyKind;
  readonly profile: unknown;
  /** A fault and its severity, 0 to 1; null for a healthy unit. */
  readonly fault: readonly [id: string, severity: number] | null;
  /** The unit's own numbers, in place of those of a sound one of the profile. */
  readonly own?: readonly number[] | null;
  readonly supply_Pa: number;
  readonly room: { readonly barometer_Pa: number; readonly temperature_K: number };
  readonly gauges: readonly SimGauge[];
  /** How gauges are out, by their tags, in place of what is truly wrong with them otherwise. */
  readonly errors?: Readonly<Record<string, Pick<SimGauge, 'scale' | 'zero_Pa'>>> | null;
  /** What whoever put it there calls it; null where they do not. */
  readonly label?: string | null;
  /** Noise of every gauge, in its own steps. */
  readonly noise_steps: number;
  readonly seed: number;
}

/** A transducer ends a little above its range. */
const OVER_RANGE = 1.02;

/** A bench with a unit on it, carried on by whoever lets time pass; no clock of its own. */
export class SimBench {
  private readonly bench: Running;
  readonly commands: readonly Command[];
  private readonly places: readonly number[];
  private readonly random: () => number;

  /** @throws RangeError where the family is known at rest only or the fault is none of its own */
  constructor(readonly unit: SimUnit) {
    const family = FAMILIES[unit.kind];
    if (!family.motion) throw new RangeError(`kind: ${unit.kind} has no motion`);
    const sound = unit.own ?? family.healthy(unit.profile).values;
    const parameters = withFault(family, sound, unit.fault);
    const inputs = { ...unit.room, supply_Pa: unit.supply_Pa };
    this.commands = family.motion.commands;
    this.bench = new Running(family.motion, parameters, inputs, family.ports.length);
    this.places = unit.gauges.map(({ port, quantity }) =>
      family.ports.findIndex((one) => one.id === port && one.quantity === quantity),
    );
    this.random = seeded(unit.seed);
  }

  get t_s(): number {
    return this.bench.t_s;
  }

  get hands(): Hands {
    return this.bench.hands;
  }

  /** Does something by hand. @throws RangeError where this bench has no such command, or not so far */
  set(change: Hands): void {
    const refused = handsRefused(this.commands, change);
    if (refused) throw new RangeError(refused);
    this.bench.set(change);
  }

  /** Lets time pass; called back at each sample with what every gauge shows, SI. */
  advance(seconds: number, every_s: number, visit: (t_s: number, shown: number[]) => void): void {
    const solved = this.bench.advance(seconds, every_s, (t, truth) => visit(t, this.shown(truth)));
    if (!solved.ok) throw new RangeError(`bench: ${solved.why} at ${solved.at_s} s`);
  }

  /** What the vehicle tells of itself through its interface, SI. */
  tells(): Told {
    return this.bench.tells();
  }

  /** What every gauge shows now, SI. */
  read(): number[] {
    return this.shown(this.bench.read());
  }

  private shown(truth: ArrayLike<number>): number[] {
    return this.unit.gauges.map((gauge, i) => {
      const noise_Pa = this.unit.noise_steps * gauge.step_Pa * gaussian(this.random);
      // What lies vented shows nothing but how warm the room is.
      const vented = gauge.quantity === 'temperature' ? this.unit.room.temperature_K : 0;
      return shownBy(
        gauge,
        truth[this.places[i]!] ?? vented,
        { ...gauge, ...this.unit.errors?.[gauge.tag], noise_Pa },
        OVER_RANGE,
      );
    });
  }
}
