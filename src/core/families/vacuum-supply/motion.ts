import { airFlow_PaM3PerS } from '../../air/flow';
import type { Vector } from '../../model/descriptor';
import {
  inputAt,
  type Instant,
  type Motion,
  type Moving,
  type NodeNow,
  type PartsNow,
  type Place,
  type Told,
} from '../../model/motion';
import { KEY_COMMAND, PUMP_ASKED_COMMAND, type VehicleHands } from '../vehicle-hands';
import { portPlaces } from '../vehicle-ports';
import { named, VacuumSupply, type Parameters } from './member';

const PORT = portPlaces('source');

/**
 * A vacuum supply over time. It is quick beside what it empties, so it stands at its closed form at every instant: what
 * passes at the unit follows from the pressure there. Its tank and hose up to the check valve empty with the unit. An
 * electric pump starts and stops by the vacuum at the unit.
 */
class VacuumSupplyMotion implements Moving {
  private readonly p: Parameters;
  private readonly vacuum: NodeNow;
  private readonly running: VacuumSupply;
  /** The switch of an electric pump. */
  private asked = true;

  constructor(vector: Vector, place: Place) {
    this.p = named(vector);
    this.vacuum = place.nodes[0]!;
    this.vacuum.volume_m3 = this.p.tank_m3;
    this.running = new VacuumSupply(vector, inputAt(place, 'barometer_Pa'), inputAt(place, 'temperature_K'));
  }

  readonly turns = [
    {
      beyond: (_y: Float64Array, { barometer_Pa }: Instant) => {
        const depression_Pa = barometer_Pa - this.vacuum.effort;
        return this.asked ? depression_Pa - this.p.off_Pa : this.p.on_Pa - depression_Pa;
      },
      flip: () => {
        this.asked = !this.asked;
      },
    },
  ];

  atRest(): number[] {
    return [];
  }

  private runs({ hands }: Instant): boolean {
    const { key, pumpAsked } = hands as VehicleHands;
    if (this.p.electric === 0) return key === 'engine';
    return key !== 'off' && (pumpAsked === 'itself' ? this.asked : pumpAsked === 'on');
  }

  passes(at: Instant): void {
    const unit_Pa = this.vacuum.effort;
    if (this.runs(at)) {
      this.vacuum.passed = this.running.through(0, unit_Pa);
      return;
    }
    // A stroke without vacuum presses air out of the unit: the check valve lets it go.
    const { hose_m3PerSPa, crack_Pa, hoseLeak_m3PerSPa, back_m3PerSPa } = this.p;
    const { barometer_Pa, temperature_K } = at;
    this.vacuum.passed =
      airFlow_PaM3PerS(hose_m3PerSPa, unit_Pa - crack_Pa, barometer_Pa, temperature_K) -
      airFlow_PaM3PerS(hoseLeak_m3PerSPa + back_m3PerSPa, barometer_Pa, unit_Pa, temperature_K);
  }

  parts(_y: Float64Array, at: Instant, out: PartsNow): void {
    out.pump = { at: Number(this.runs(at)), of: 1 };
    out.checkValve = { at: this.vacuum.passed > 0 ? 1 : 0, of: 1 };
  }

  shown(_y: Float64Array, at: Instant, shown: Float64Array): void {
    shown[PORT.source] = this.runs(at) ? this.running.read([this.vacuum.effort])[0]! : 0;
  }

  /** A vehicle with an electric pump has a pressure sensor at the booster; any other has none. */
  tells(_y: Float64Array, at: Instant, out: Told): void {
    const { electric, on_Pa, off_Pa } = this.p;
    if (electric === 0) return;
    out.pump = Number(this.runs(at));
    out.unitPressure = this.vacuum.effort;
    out.barometer = at.barometer_Pa;
    out.onBelow = on_Pa;
    out.offAbove = off_Pa;
  }
}

export const motion: Motion = {
  states: [],
  parts: [
    { id: 'pump', name: 'Source of the vacuum, drawing', quantity: 'percent' },
    { id: 'checkValve', name: 'Check valve, open', quantity: 'percent' },
  ],
  commands: [KEY_COMMAND, PUMP_ASKED_COMMAND],
  owns: [],
  with: (parameters, place) => new VacuumSupplyMotion(parameters, place),
};
