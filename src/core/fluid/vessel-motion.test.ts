import { Integrator } from '../numeric/solver';
import { Vessel } from './accumulator';
import { gasEnergy_J, gasHeatCapacity_JPerK } from './nitrogen';
import { VesselMotion } from './vessel-motion';

const BAR = 1e5;
const ROOM = { barometer_Pa: 101_325, temperature_K: 293.15 };
const SETTLING_S = 20;
const CLOSE = { tolerance: 1e-9, longest_s: 0.1 };

/** A vessel that fluid goes into at a flow that may change, with what is done on its gas and what that gives off. */
class Charged {
  readonly size = 4;
  readonly scale = [1e-6, 0.1, 1, 1];
  flow_m3PerS = 0;
  readonly vessel: Vessel;
  readonly moving: VesselMotion;

  constructor(shell_m3: number, preCharge_Pa: number) {
    this.vessel = new Vessel({ shell_m3, preCharge_Pa, settling_s: SETTLING_S }, ROOM);
    this.moving = new VesselMotion(this.vessel, 0);
  }

  gas(y: ArrayLike<number>) {
    return { gas_m3: y[0]!, temperature_K: y[1]! };
  }

  rates(_t_s: number, y: Float64Array, dy: Float64Array): void {
    this.moving.rates(y, dy, this.flow_m3PerS);
    const state = this.vessel.state(this.gas(y));
    const absolute_Pa = this.vessel.law.pressure_Pa(state);
    dy[2] = absolute_Pa * this.flow_m3PerS;
    dy[3] =
      (this.vessel.amount_kmol * gasHeatCapacity_JPerK(state) * (y[1]! - ROOM.temperature_K)) / SETTLING_S;
  }

  energy_J(y: ArrayLike<number>): number {
    return this.vessel.amount_kmol * gasEnergy_J(this.vessel.state(this.gas(y)));
  }
}

describe('handbook-models P.1, worked example: 0.30 L, 65 bar, 20 °C, τ 20 s, 6 cc/s to 150 bar', () => {
  const one = new Charged(3e-4, 65 * BAR);
  const begins = [...one.moving.atRest(), 0, 0];
  const solver = new Integrator(one, begins, 0, CLOSE);
  test('after 22.3 s it is there, at 351.6 K with 133.6 cc in it, and 1 325 J went in', () => {
    one.flow_m3PerS = 6e-6;
    solver.advance(22.3);
    const gas = one.gas(solver.y);
    expect(one.vessel.gauge_Pa(gas) / BAR).toBeCloseTo(150, 0);
    expect(gas.temperature_K).toBeCloseTo(351.6, 0);
    expect(one.vessel.fluid_m3(gas) * 1e6).toBeCloseTo(133.8, 0);
    expect(Math.abs(solver.y[2]! / 1325 - 1)).toBeLessThan(0.005);
  });
  test('80 s later 120.1 bar', () => {
    one.flow_m3PerS = 0;
    solver.restart();
    solver.advance(102.3);
    expect(one.vessel.gauge_Pa(one.gas(solver.y)) / BAR).toBeCloseTo(120.1, 0);
  });
  test('what went in is what the gas has gained and given off: within 0.5 %, whatever was done', () => {
    for (const flow of [-3e-6, 5e-6, -8e-6, 0, 1e-6]) {
      one.flow_m3PerS = flow;
      solver.restart();
      solver.advance(solver.t_s + 7);
    }
    const gained = one.energy_J(solver.y) - one.energy_J(begins);
    expect(Math.abs((gained + solver.y[3]!) / solver.y[2]! - 1)).toBeLessThan(0.005);
  });
});

test('an empty vessel gives nothing, and its gauge shows nothing', () => {
  const one = new Charged(3e-4, 65 * BAR);
  const y = Float64Array.from([...one.moving.atRest(), 0, 0]);
  const dy = new Float64Array(4);
  one.moving.rates(y, dy, -5e-6);
  expect(dy[0]! === 0).toBe(true);
  expect(one.moving.gauge_Pa(y)).toBe(0);
  y[0]! -= 1e-6;
  expect(one.moving.gauge_Pa(y) / BAR).toBeCloseTo(65.2, 0);
});
