import { BENCH_PUMP_M3_PER_S } from '../air/supply';
import type { Vector } from './descriptor';
import type { Around, Load, MotionModel } from './motion';
import { Integrator, type Solved, type System } from '../numeric/solver';

/** A vacuum pump with a tank: the source of a bench. SI. */
export interface VacuumSource {
  /** Depression that it settles at, Pa. */
  readonly reach_Pa: number;
  /** Volume it takes away per second at its inlet, m³/s. */
  readonly speed_m3PerS: number;
  readonly tank_m3: number;
}

/** A shop's vacuum pump on a 20 L tank. */
export const benchSource = (reach_Pa: number): VacuumSource => ({
  reach_Pa,
  speed_m3PerS: BENCH_PUMP_M3_PER_S,
  tank_m3: 0.02,
});

/**
 * A closed line and what hangs on it: what trapped air takes up at low pressure, and the stiffness of all the rest.
 * V(p) = V_air·(1 − p_atm/(p_atm + p)) + c·p. Handbook 6, pressure–volume.
 */
export interface ClosedLine {
  readonly air_m3: number;
  readonly stiffness_m3PerPa: number;
}

/** A bench's plugged port: short pipe, hardly any air. */
export const PLUGGED_PORT: ClosedLine = { air_m3: 5e-8, stiffness_m3PerPa: 1.2e-13 };

/** Volume taken up at a pressure, m³. */
export const takenUp_m3 = (
  { air_m3, stiffness_m3PerPa }: ClosedLine,
  pressure_Pa: number,
  barometer_Pa: number,
) => air_m3 * (1 - barometer_Pa / (barometer_Pa + pressure_Pa)) + stiffness_m3PerPa * pressure_Pa;

/** A closed line as a load: P = p_atm + p solves c·P² + (V_air − c·p_atm − V)·P − V_air·p_atm = 0. */
export function closedLine(line: ClosedLine, barometer_Pa: number): Load {
  const { air_m3: air, stiffness_m3PerPa: c } = line;
  return {
    effort: (volume_m3) => {
      const half = air - c * barometer_Pa - volume_m3;
      return (Math.sqrt(half * half + 4 * c * air * barometer_Pa) - half) / (2 * c) - barometer_Pa;
    },
    give: (pressure_Pa) => (air * barometer_Pa) / (barometer_Pa + pressure_Pa) ** 2 + c,
  };
}

/** What can be done to a bench by hand. */
export interface Hands {
  /** Input that the handle is pulled to, Pa, and how fast it is pulled, Pa/s. */
  handle_Pa: number;
  pull_PaPerS: number;
  shutIn: boolean;
  pump: boolean;
  valve: Around['valve'];
}

export const HANDS_OFF: Hands = {
  handle_Pa: 0,
  pull_PaPerS: 8e5,
  shutIn: false,
  pump: true,
  valve: 'vented',
};

/** Far below what a gauge shows: the error of each step adds up over a hold of minutes. */
const TOLERANCE = 1e-5;
const LONGEST_S = 0.05;
const TANK_SCALE_PA = 1e3;

/**
 * A source, a unit and a load, connected and carried through time together by one solver. What is done by hand is
 * set between steps; the handle moves at the speed it is pulled with.
 */
export class Installation implements System {
  readonly size: number;
  readonly scale: Float64Array;
  readonly around: Around;
  readonly hands: Hands = { ...HANDS_OFF };
  private readonly motion;
  private readonly solver: Integrator;
  private readonly shown: Float64Array;
  private handleFrom = { at_s: 0, pressure_Pa: 0 };

  constructor(
    model: MotionModel,
    parameters: Vector,
    private readonly source: VacuumSource,
    load: Load,
    room: { readonly barometer_Pa: number; readonly temperature_K: number },
    ports: number,
    /** A tank already pulled down, as on a bench whose pump has run. */
    pulledDown = true,
  ) {
    const states = model.states.length;
    this.size = states + 1;
    this.scale = Float64Array.from([...model.states.map(({ scale }) => scale), TANK_SCALE_PA]);
    this.motion = model.with(parameters);
    const tank_Pa = room.barometer_Pa - (pulledDown ? source.reach_Pa : 0);
    this.around = { handle: 0, shutIn: false, source_Pa: tank_Pa, valve: 'vented', load, ...room };
    this.shown = new Float64Array(ports);
    const initial = [...this.motion.atRest(this.around), tank_Pa];
    this.solver = new Integrator(this, initial, 0, { tolerance: TOLERANCE, longest_s: LONGEST_S });
  }

  get t_s(): number {
    return this.solver.t_s;
  }

  get steps(): number {
    return this.solver.steps;
  }

  rates(t_s: number, y: Float64Array, dy: Float64Array): void {
    const { around, source } = this;
    const tank = this.size - 1;
    around.handle = this.handleAt(t_s);
    around.source_Pa = y[tank]!;
    const drawn = this.motion.rates(y, dy, around);
    const floor_Pa = around.barometer_Pa - source.reach_Pa;
    const pumped = this.hands.pump ? source.speed_m3PerS * Math.max(0, y[tank]! - floor_Pa) : 0;
    dy[tank] = (drawn - pumped) / source.tank_m3;
  }

  private handleAt(t_s: number): number {
    const { handle_Pa, pull_PaPerS } = this.hands;
    const { at_s, pressure_Pa } = this.handleFrom;
    const way = handle_Pa - pressure_Pa;
    return pressure_Pa + Math.sign(way) * Math.min(Math.abs(way), pull_PaPerS * (t_s - at_s));
  }

  /** Does something by hand: takes effect from now on. */
  set(change: Partial<Hands>): void {
    const pressure_Pa = this.handleAt(this.t_s);
    Object.assign(this.hands, change);
    this.handleFrom = { at_s: this.t_s, pressure_Pa };
    this.around.shutIn = this.hands.shutIn;
    this.around.valve = this.hands.valve;
    this.solver.restart();
  }

  /**
   * Lets time go on.
   *
   * @param visit called every `every_s` with what true gauges on the ports show there; the array is used again
   */
  advance(seconds: number, every_s = 0, visit?: (t_s: number, shown: Float64Array) => void): Solved {
    return this.solver.advance(
      this.t_s + seconds,
      every_s,
      visit && ((t_s, y) => visit(t_s, this.portsOf(t_s, y))),
    );
  }

  /** What true gauges on the ports show now. */
  read(): number[] {
    return [...this.portsOf(this.t_s, this.solver.y)];
  }

  private portsOf(t_s: number, y: Float64Array): Float64Array {
    const tank = this.size - 1;
    this.around.handle = this.handleAt(t_s);
    this.around.source_Pa = y[tank]!;
    this.motion.ports(y, this.around, this.shown);
    return this.shown;
  }
}
