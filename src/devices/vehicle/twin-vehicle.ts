import type { TroubleCode } from '@/core/records/trouble-codes';
import { numberIn, type Values } from '@/core/contract/vehicle-interface';
import { bytesFor, identifierOf, type Identifier, type IdentifierMap } from '@/core/shop/identifier-map';
import type { SimBench } from '../logger/sim-bench';
import type { BehindInterface } from './stand-in';
import { CODES } from './uds';

/** Below this a control unit does nothing for a tester, V. Handbook-models 16. */
const LEAST_SUPPLY_V = 11;

/** What the vehicle does beside its brakes. */
export interface Around {
  readonly speed_mPerS: number;
  readonly supply_V: number;
  readonly codes: readonly TroubleCode[];
}

/** A vehicle of the twin behind an interface: what it tells follows from its model, and a tester's control moves that. */
export class TwinVehicle implements BehindInterface {
  private around: Around = { speed_mPerS: 0, supply_V: 12.6, codes: [] };

  /** @param standing the vehicle that stands there now; somebody else lets time pass on it */
  constructor(
    private readonly standing: () => Pick<SimBench, 'set' | 'tells' | 'commands'>,
    private readonly map: IdentifierMap,
  ) {}

  be(change: Partial<Around>): void {
    this.around = { ...this.around, ...change };
  }

  read(number: number): Uint8Array | null {
    const identifier = this.identifier(number);
    if (!identifier) return null;
    return bytesFor(identifier, this.told());
  }

  /** What the vehicle itself tells comes before what stands in for it; it moves where either says so. */
  private told(): Values {
    const { speed_mPerS, supply_V } = this.around;
    const own: Values = { supply: supply_V, testState: 0, ...this.standing().tells() };
    return { ...own, speed: Math.max(speed_mPerS, numberIn(own, 'speed') ?? 0) };
  }

  control(number: number, state: number | null): number | null {
    const identifier = this.identifier(number);
    if (!identifier?.controllable) return CODES.range;
    const { speed = 0, supply = 0 } = this.told();
    // What was taken is given back however the vehicle stands by then.
    if (state !== null && Number(speed) > 0) return CODES.moving;
    if (state !== null && Number(supply) < LEAST_SUPPLY_V) return CODES.lowSupply;
    const [field] = identifier.fields;
    const command = this.standing().commands.find(
      ({ id, by }) => by === 'interface' && id === `${field!.id}Asked`,
    );
    if (command?.kind !== 'choice' || field?.kind !== 'state') return CODES.range;
    const named = field.states.find(({ value }) => value === state)?.name;
    const choice = state === null ? command.usual : command.choices.find(({ name }) => name === named)?.id;
    if (choice === undefined) return CODES.range;
    this.standing().set({ [command.id]: choice });
    return null;
  }

  codes(statusMask: number): readonly TroubleCode[] {
    return this.around.codes.filter(({ status }) => (status & statusMask) > 0);
  }

  clear(): void {
    this.be({ codes: [] });
  }

  private identifier(number: number): Identifier | null {
    return identifierOf(this.map, number.toString(16).toUpperCase().padStart(4, '0'));
  }
}
